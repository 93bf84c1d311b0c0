import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { capitalised, sayLength, verdictLine, type CardDocument, type Evaluation, type Resized, type Wanted } from '@diptychon/core';
import { CardStore } from '../cards/card-store';
import { ChoiceRow } from '../fields/choice-row';
import { WorkshopStore } from '../workshop/workshop-store';
import { TrialWork } from './trial-work';

/** Shares of the closed card as it is, either way. */
const SHARES = [
  { value: 'share:0.5', label: 'half as large', share: 0.5 },
  { value: 'share:0.75', label: 'three quarters as large', share: 0.75 },
  { value: 'share:1.25', label: 'a quarter larger', share: 1.25 },
  { value: 'share:1.5', label: 'half as large again', share: 1.5 },
] as const;

const WHICH = ['First', 'Second', 'Third'] as const;

/** One of the three as it came out. */
interface Made {
  which: string;
  says: string;
  resized?: Resized;
}

/** One card in three sizes, each worked out whole, and put on the shelf together. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-three-sizes',
  imports: [ChoiceRow],
  template: `
    <p class="help">Three cards alike for three envelopes, or smaller and larger ones. Each is tried out; this one stays as it is.</p>
    @for (label of which; track label; let i = $index) {
      <dip-choice-row
        class="row choice"
        [fieldId]="'three-' + i"
        [label]="label"
        [options]="targets()"
        [value]="chosen()[i]!"
        (chosen)="choose(i, $event)"
      />
    }
    <button type="button" class="fix" [disabled]="working()" (click)="work()">Try these sizes</button>
    @if (working()) {
      <p role="status">{{ made().length }} of 3 worked out…</p>
    } @else if (trouble(); as says) {
      <p class="bad" role="alert">{{ says }}</p>
    } @else if (shown().length) {
      <ol>
        @for (one of shown(); track one.which) {
          <li>{{ one.says }}</li>
        }
      </ol>
      @if (shelved()) {
        <p role="status">They are on the shelf.</p>
      } @else if (comesOut().length) {
        <button type="button" class="fix" (click)="shelve()">{{ shelfWords() }}</button>
      }
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class ThreeSizes {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input.required<Evaluation>();

  private readonly trials = inject(TrialWork);
  private readonly store = inject(CardStore);
  private readonly workshop = inject(WorkshopStore).workshop;
  protected readonly which = WHICH;
  protected readonly targets = computed(() => [
    ...SHARES.map(({ value, label }) => ({ value: value as string, label: label as string })),
    ...this.workshop().envelopes.map(({ id, name }) => ({ value: id, label: `for ${name}` })),
  ]);
  protected readonly chosen = signal<readonly string[]>(['share:0.75', 'share:1.25', 'share:1.5']);
  protected readonly working = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly made = signal<readonly Made[]>([]);
  private readonly of = signal<CardDocument | undefined>(undefined);
  protected readonly shelved = signal(false);
  /** what was worked out of another card is none of this one */
  protected readonly shown = computed(() => (this.of() === this.card() ? this.made() : []));
  protected readonly comesOut = computed(() => this.shown().flatMap(({ resized }) => resized ?? []));
  protected readonly shelfWords = computed(() =>
    this.comesOut().length === 1 ? 'Put it on the shelf' : `Put these ${this.comesOut().length} on the shelf`,
  );

  protected choose(which: number, value: string): void {
    this.chosen.update((all) => all.map((before, i) => (i === which ? value : before)));
    this.made.set([]);
    this.trouble.set(undefined);
  }

  protected async work(): Promise<void> {
    const [card, chosen] = [this.card(), this.chosen()];
    this.working.set(true);
    this.shelved.set(false);
    this.trouble.set(undefined);
    this.made.set([]);
    this.of.set(card);
    for (const [i, value] of chosen.entries()) {
      const resized = await this.trials.resized(card, this.wantedFor(value));
      if (this.card() !== card) break;
      const which = WHICH[i]!;
      const label = this.targets().find((target) => target.value === value)?.label ?? '';
      const come = resized && !('says' in resized) ? resized : undefined;
      const says = come
        ? `${capitalised(label)}: closed ${this.sizeOf(come)}. ${verdictLine(come.evaluation).says}`
        : `${capitalised(label)}: ${resized && 'says' in resized ? resized.says : 'The calculation stopped. Try again.'}`;
      this.made.update((made) => [...made, { which, says, ...(come && { resized: come }) }]);
    }
    this.working.set(false);
  }

  protected async shelve(): Promise<void> {
    const cards = this.comesOut().map((resized) => ({
      ...resized.card,
      id: crypto.randomUUID(),
      name: `${this.card().name}, ${this.sizeOf(resized)}`.slice(0, 120),
      state: 'idea' as const,
    }));
    try {
      await this.store.addAll(cards);
      this.shelved.set(true);
    } catch (error) {
      this.trouble.set(`They could not be put on the shelf. ${error instanceof Error ? error.message : ''}`.trim());
    }
  }

  private wantedFor(value: string): Wanted {
    const share = SHARES.find((one) => one.value === value)?.share;
    if (share === undefined) return { envelope: this.workshop().envelopes.find(({ id }) => id === value)! };
    const { box } = this.evaluation().closed;
    return { width: share * (box.maxX - box.minX), height: share * (box.maxY - box.minY) };
  }

  private sizeOf({ closed }: Resized): string {
    const say = (mm: number): string => sayLength(Math.round(mm * 100) / 100, this.card().notation);
    return `${say(closed.width)} × ${say(closed.height)}`;
  }
}
