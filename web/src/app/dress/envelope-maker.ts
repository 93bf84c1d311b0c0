import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import {
  ENVELOPE_EASE,
  ENVELOPE_EASE_LIMITS,
  FLAP_OVERLAP,
  FLAP_OVERLAP_LIMITS,
  withOwnEnvelope,
  type CardDocument,
  type Evaluation,
  type OwnEnvelope,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import { WorkshopStore } from '../workshop/workshop-store';

/** An envelope for just this card, folded from a square. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-envelope-maker',
  imports: [ChoiceRow, LengthRow, NumberText],
  template: `
    <h3>Envelope of its own</h3>
    @if (own(); as envelope) {
      @if (made(); as square) {
        <p class="size numerals">
          <span class="pair"><span class="what">square</span><dip-number [value]="square.square" [notation]="card().notation" /></span>
          <span class="pair"
            ><span class="what">first fold</span><dip-number [value]="square.firstFold" [notation]="card().notation"
          /></span>
          <span class="pair"
            ><span class="what">pocket</span><dip-number [value]="square.pocket[1]" [notation]="card().notation" /> ×
            <dip-number [value]="square.pocket[0]" [notation]="card().notation"
          /></span>
        </p>
      }
      <dip-choice-row
        class="row choice"
        fieldId="envelope-stock"
        label="Paper of the envelope"
        [options]="stocks()"
        [value]="envelope.stock"
        (chosen)="set('Paper of the envelope', { stock: $event })"
      />
      <dip-choice-row
        class="row choice"
        fieldId="envelope-liner"
        label="Liner"
        [options]="liners()"
        [value]="envelope.liner ?? ''"
        (chosen)="set('Liner of the envelope', { liner: $event || undefined })"
      />
      <dip-length-row
        fieldId="envelope-ease"
        label="Room both ways"
        [value]="envelope.ease ?? usualEase"
        [notation]="card().notation"
        [limits]="ease"
        (given)="setLength('Room in the envelope', 'ease', $event)"
      />
      <dip-length-row
        fieldId="envelope-overlap"
        label="Flaps lap over by"
        [value]="envelope.overlap ?? usualOverlap"
        [notation]="card().notation"
        [limits]="overlap"
        (given)="setLength('Flaps of the envelope', 'overlap', $event)"
      />
      <button type="button" class="more" (click)="take()">Take the envelope away</button>
    } @else {
      <p class="help">Folded from a square that is worked out for the closed card with all that it wears.</p>
      <button type="button" class="more" (click)="set('An envelope of its own', {})">Fold an envelope for it</button>
    }
  `,
  styleUrl: './dressing-panel.scss',
})
export class EnvelopeMaker {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly ease = ENVELOPE_EASE_LIMITS;
  protected readonly overlap = FLAP_OVERLAP_LIMITS;
  protected readonly usualEase = ENVELOPE_EASE;
  protected readonly usualOverlap = FLAP_OVERLAP;
  protected readonly own = computed(() => this.card().dressing?.envelope);
  protected readonly made = computed(() => this.evaluation()?.dressed.envelope?.made);
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly liners = computed(() => [{ value: '', label: 'none' }, ...this.stocks()]);

  protected set(what: string, change: Partial<OwnEnvelope>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what, apply: (card) => withOwnEnvelope(card, change, workshop), ...(typed && { typed }) });
  }

  protected setLength(what: string, name: 'ease' | 'overlap', { mm, typed }: GivenLength): void {
    this.set(what, { [name]: mm }, typed);
  }

  protected take(): void {
    const workshop = this.workshop();
    this.changed.emit({ what: 'Take the envelope away', apply: (card) => withOwnEnvelope(card, undefined, workshop) });
  }
}
