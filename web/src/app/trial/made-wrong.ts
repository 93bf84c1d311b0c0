import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import {
  capitalised,
  inSentence,
  readsOffRuler,
  sayLength,
  type CardDocument,
  type Evaluation,
  type Rescue,
  type RescueWay,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow } from '../fields/length-row';
import { TrialWork } from './trial-work';

interface Line {
  value: string;
  label: string;
  piece: string;
  line: string;
  meant: number;
}

/** A score or a cut that came out otherwise: how the card works with it, and ways to go on. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-made-wrong',
  imports: [ChoiceRow, LengthRow],
  template: `
    <p class="help">Say which line came out otherwise, and where it really lies. The card is worked out again from that.</p>
    <dip-choice-row
      class="row choice"
      fieldId="made-line"
      label="Line"
      [options]="lines()"
      [value]="chosen().value"
      (chosen)="choose($event)"
    />
    <dip-length-row
      fieldId="made-at"
      label="It lies at"
      [value]="at()"
      [notation]="card().notation"
      [limits]="limits"
      (given)="at.set($event.mm)"
    >
      <p class="help">From the left end of the piece; a height from its lower edge. It is meant to lie at {{ say(chosen().meant) }}.</p>
    </dip-length-row>
    <button type="button" class="fix" [disabled]="working()" (click)="work()">What now?</button>
    @if (working()) {
      <p role="status">Working it out from what was made…</p>
    } @else if (trouble(); as says) {
      <p class="bad" role="alert">{{ says }}</p>
    } @else if (found(); as rescue) {
      <p role="status">{{ verdict(rescue) }}</p>
      <ol>
        @for (way of rescue.ways; track way.says) {
          <li>
            {{ way.says }}
            @if (way.card) {
              <button type="button" (click)="take(way)">Change the card so</button>
            }
          </li>
        }
      </ol>
    }
  `,
  styleUrl: './trial-panel.scss',
})
export class MadeWrong {
  readonly card = input.required<CardDocument>();
  readonly evaluation = input.required<Evaluation>();
  readonly changed = output<CardChange>();

  private readonly trials = inject(TrialWork);
  protected readonly limits = { min: 0, max: 2000 };
  protected readonly lines = computed((): Line[] =>
    this.evaluation().sheets.flatMap(({ piece, scores, width, height }) => {
      const upright = scores.filter(
        (score, i, all) => readsOffRuler(score) && !score.secondOfSpine && all.findIndex(({ id }) => id === score.id) === i,
      );
      const own = (line: string, label: string, meant: number): Line => ({
        value: `${piece.id}/${line}`,
        label: `${piece.name}: ${inSentence(label)}`,
        piece: piece.id,
        line,
        meant,
      });
      return [
        ...upright.map(({ id, name, from }) => own(id, name, from[0])),
        own('width', 'width', width),
        own('height', 'height', height),
      ];
    }),
  );
  private readonly wanted = signal<string | undefined>(undefined);
  protected readonly chosen = computed(() => this.lines().find(({ value }) => value === this.wanted()) ?? this.lines()[0]!);
  protected readonly at = signal(0);
  protected readonly working = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly answer = signal<{ of: CardDocument; line: string; at: number; rescue: Rescue } | undefined>(undefined);
  protected readonly found = computed(() => {
    const answer = this.answer();
    return answer?.of === this.card() && answer.line === this.chosen().value && answer.at === this.at() ? answer.rescue : undefined;
  });

  constructor() {
    effect(() => {
      const { meant } = this.chosen();
      untracked(() => this.at.set(meant));
    });
  }

  protected choose(line: string): void {
    this.wanted.set(line);
    this.trouble.set(undefined);
  }

  protected async work(): Promise<void> {
    const [card, { piece, line, value }, at] = [this.card(), this.chosen(), this.at()];
    this.working.set(true);
    this.trouble.set(undefined);
    const rescue = await this.trials.rescue(card, [{ piece, line, at }]);
    this.working.set(false);
    if (!rescue || 'says' in rescue) this.trouble.set(rescue?.says ?? 'The calculation stopped. Try again.');
    else this.answer.set({ of: card, line: value, at, rescue });
  }

  protected verdict({ made, asMade }: Rescue): string {
    const off = Math.abs(made[0]!.off);
    const where = off < 1e-6 ? 'just where it is meant' : `${this.say(off)} off`;
    if (!asMade.ok) return `${capitalised(where)}. ${asMade.says}`;
    const failing = asMade.evaluation.findings.find(({ severity }) => severity === 'fail');
    return failing ? `It lies ${where}, and the card does not work so: ${failing.says}` : `It lies ${where}, and the card works so.`;
  }

  protected take({ says, card }: RescueWay): void {
    this.changed.emit({ what: says.split(':')[0]!.replace(/\.$/, ''), apply: () => card! });
  }

  protected say(mm: number): string {
    return sayLength(mm, this.card().notation);
  }
}
