import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import {
  BAND_PLACE,
  BAND_WIDTH,
  inSentence,
  MOST_CLOSURES,
  withBand,
  withBandChanged,
  withoutBand,
  type BandClosure,
  type CardDocument,
  type Evaluation,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow, type GivenLength } from '../fields/length-row';
import { offeredChoices } from '../fields/offered-choices';
import { NumberText } from '../fields/number-text';
import { WorkshopStore } from '../workshop/workshop-store';

type Length = 'wide' | 'at' | 'slip' | 'overlap';

const LIMITS: Readonly<Record<Length, { min: number; max: number }>> = {
  wide: BAND_WIDTH,
  at: BAND_PLACE,
  slip: { min: 0, max: 30 },
  overlap: { min: 2, max: 60 },
};
const USUAL_WIDTH = 30;

/** What keeps the closed card closed: bands that slide off. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-band-list',
  imports: [ChoiceRow, LengthRow, NumberText],
  template: `
    <h3 id="bands-title">Bands</h3>
    <ul class="faces" aria-labelledby="bands-title">
      @for (row of rows(); track row.closure.id) {
        <li>
          <button
            type="button"
            class="face"
            [attr.aria-expanded]="chosen() === row.closure.id"
            [attr.aria-controls]="'worn-' + row.closure.id"
            (click)="toggle(row.closure.id)"
          >
            <span class="numbers"
              ><b>{{ row.placed?.number ?? '–' }}</b></span
            >
            <span class="of">{{ row.title }}</span>
          </button>
          <div [id]="'worn-' + row.closure.id" [hidden]="chosen() !== row.closure.id">
            @if (chosen() === row.closure.id) {
              @if (row.placed; as placed) {
                <p class="size numerals">
                  <span class="pair"
                    ><span class="what">strip</span><dip-number [value]="placed.sheet.width" [notation]="card().notation" /> ×
                    <dip-number [value]="placed.sheet.height" [notation]="card().notation"
                  /></span>
                </p>
              }
              <dip-choice-row
                class="row choice"
                [fieldId]="row.closure.id + '-around'"
                label="Goes round"
                [options]="ways"
                [value]="row.closure.around"
                (chosen)="set(row.closure.id, row.title, { around: $event })"
              />
              @for (entry of lengths; track entry.name) {
                <dip-length-row
                  [fieldId]="row.closure.id + '-' + entry.name"
                  [label]="entry.label"
                  [value]="value(row, entry.name)"
                  [notation]="card().notation"
                  [limits]="limits[entry.name]"
                  (given)="setLength(row, entry.name, $event)"
                />
              }
              <dip-choice-row
                class="row choice"
                [fieldId]="row.closure.id + '-stock'"
                label="Paper"
                [spoken]="'Paper of ' + row.title"
                [options]="stocks()"
                [value]="row.closure.stock"
                (chosen)="set(row.closure.id, row.title, { stock: $event })"
              />
              <button type="button" class="more" (click)="take(row.closure.id, row.title)">Take it away</button>
            }
          </div>
        </li>
      }
    </ul>
    @if (!full()) {
      <button type="button" class="more" (click)="add()">{{ rows().length ? 'One more band' : 'Add a band' }}</button>
    }
  `,
  styleUrl: './dressing-panel.scss',
})
export class BandList {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly chosen = signal<string | undefined>(undefined);
  protected readonly ways = [
    { value: 'across' as const, label: 'the fold and the free edge' },
    { value: 'along' as const, label: 'both ends of the fold' },
  ];
  protected readonly limits = LIMITS;
  protected readonly lengths = [
    { name: 'wide' as const, label: 'Width' },
    { name: 'at' as const, label: 'Its middle at' },
    { name: 'slip' as const, label: 'Slip' },
    { name: 'overlap' as const, label: 'Overlap' },
  ];
  protected readonly stocks = computed(() => offeredChoices('stocks', this.card(), this.workshop()));
  protected readonly rows = computed(() => {
    const placed = this.evaluation()?.dressed.bands ?? [];
    return (this.card().dressing?.closures ?? []).map((closure, i) => ({
      closure,
      title: `Band ${i + 1}`,
      placed: placed.find((each) => each.closure.id === closure.id),
    }));
  });
  protected readonly full = computed(() => this.rows().length >= MOST_CLOSURES);

  protected toggle(id: string): void {
    this.chosen.update((before) => (before === id ? undefined : id));
  }

  /** Slip and overlap that are not said are those that the band was worked out with. */
  protected value({ closure, placed }: ReturnType<BandList['rows']>[number], name: Length): number {
    return closure[name as 'wide'] ?? placed?.band[name as 'slip'] ?? 0;
  }

  /** One across the middle of the card. */
  protected add(): void {
    const box = this.evaluation()?.closed.box;
    if (!box) return;
    const workshop = this.workshop();
    const at = Math.round((box.maxY - box.minY) / 2);
    const band = { around: 'across' as const, wide: USUAL_WIDTH, at, stock: this.card().stocks.display };
    this.changed.emit({ what: 'One more band', apply: (card) => withBand(card, band, workshop) });
  }

  protected set(id: string, title: string, change: Partial<BandClosure>, typed?: string): void {
    const workshop = this.workshop();
    this.changed.emit({ what: title, apply: (card) => withBandChanged(card, id, change, workshop), ...(typed && { typed }) });
  }

  protected setLength({ closure, title }: ReturnType<BandList['rows']>[number], name: Length, { mm, typed }: GivenLength): void {
    this.set(closure.id, title, { [name]: mm }, typed);
  }

  protected take(id: string, title: string): void {
    this.chosen.set(undefined);
    this.changed.emit({ what: `Take away the ${inSentence(title)}`, apply: (card) => withoutBand(card, id) });
  }
}
