import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import { inSentence, sayLength, verdictLine, type CardDocument, type Evaluation, type Resized, type Wanted } from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow } from '../fields/length-row';
import { NumberText } from '../fields/number-text';
import { TrialWork } from './trial-work';
import { WorkshopStore } from '../workshop/workshop-store';

const BY_SIZE = '';

/** The same card for another envelope or closed size, to be looked at before it is taken. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-another-size',
  imports: [ChoiceRow, LengthRow, NumberText],
  template: `
    <p class="help">Every size goes along whichever way it runs; tabs, clearances and borders stay. It is tried out before you take it.</p>
    <dip-choice-row
      class="row choice"
      fieldId="resize-for"
      label="For"
      [options]="targets()"
      [value]="target()"
      (chosen)="target.set($event)"
    />
    @if (target() === bySize) {
      <dip-length-row
        fieldId="resize-width"
        label="Closed, across the fold"
        [value]="width()"
        [notation]="card().notation"
        [limits]="limits"
        (given)="width.set($event.mm)"
      />
      <dip-length-row
        fieldId="resize-height"
        label="Closed, along the fold"
        [value]="height()"
        [notation]="card().notation"
        [limits]="limits"
        (given)="height.set($event.mm)"
      />
    }
    <button type="button" class="fix" [disabled]="working()" (click)="work()">Try that size</button>
    @if (working()) {
      <p role="status">Working the card out for that size…</p>
    } @else if (trouble(); as says) {
      <p class="bad" role="alert">{{ says }}</p>
    } @else if (found(); as resized) {
      <p role="status">Closed it measures {{ say(resized.closed.width) }} × {{ say(resized.closed.height) }}. {{ verdict(resized) }}</p>
      <table>
        <caption>
          Before and after
        </caption>
        <tbody>
          @for (change of resized.changes; track change.owner + change.size) {
            <tr>
              <th scope="row">{{ inSentence(change.label) }}</th>
              <td class="number"><dip-number [value]="change.from" [notation]="card().notation" /></td>
              <td class="number"><dip-number [value]="change.to" [notation]="card().notation" /></td>
            </tr>
          }
        </tbody>
      </table>
      <button type="button" class="fix" (click)="take(resized)">Change the card so</button>
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class AnotherSize {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input.required<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly trials = inject(TrialWork);
  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly bySize = BY_SIZE;
  protected readonly limits = { min: 20, max: 1000 };
  protected readonly inSentence = inSentence;
  protected readonly targets = computed(() => [
    { value: BY_SIZE, label: 'a closed size' },
    ...this.workshop().envelopes.map(({ id, name, long, short }) => ({
      value: id,
      label: `${name}, ${this.say(long)} × ${this.say(short)} inside`,
    })),
  ]);
  protected readonly target = signal(BY_SIZE);
  protected readonly width = signal(100);
  protected readonly height = signal(150);
  protected readonly working = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly answer = signal<{ of: CardDocument; wanted: string; resized: Resized } | undefined>(undefined);
  private readonly wanted = computed((): Wanted => {
    const envelope = this.workshop().envelopes.find(({ id }) => id === this.target());
    return envelope ? { envelope } : { width: this.width(), height: this.height() };
  });
  protected readonly found = computed(() => {
    const answer = this.answer();
    return answer?.of === this.card() && answer.wanted === JSON.stringify(this.wanted()) ? answer.resized : undefined;
  });

  constructor() {
    // Begun with the size that it has.
    effect(() => {
      const { box } = this.evaluation().closed;
      untracked(() => {
        this.width.set(Math.round((box.maxX - box.minX) * 10) / 10);
        this.height.set(Math.round((box.maxY - box.minY) * 10) / 10);
      });
    });
  }

  protected async work(): Promise<void> {
    const [card, wanted] = [this.card(), this.wanted()];
    this.working.set(true);
    this.trouble.set(undefined);
    const resized = await this.trials.resized(card, wanted);
    this.working.set(false);
    if (!resized || 'says' in resized) this.trouble.set(resized?.says ?? 'The calculation stopped. Try again.');
    else this.answer.set({ of: card, wanted: JSON.stringify(wanted), resized });
  }

  protected verdict({ evaluation }: Resized): string {
    return verdictLine(evaluation).says;
  }

  protected take({ card, closed }: Resized): void {
    this.changed.emit({ what: `Another size, ${this.say(closed.width)} × ${this.say(closed.height)}`, apply: () => card });
  }

  protected say(mm: number): string {
    return sayLength(Math.round(mm * 100) / 100, this.card().notation);
  }
}
