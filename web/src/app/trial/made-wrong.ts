import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal, untracked } from '@angular/core';
import {
  capitalised,
  inSentence,
  isJointOff,
  isLineOff,
  isStretchOff,
  readsOffRuler,
  sayLength,
  type CardDocument,
  type Evaluation,
  type Made,
  type Off,
  type Rescue,
  type RescueWay,
  type Score,
} from '@diptychon/core';
import type { CardChange } from '../bench/card-change';
import { ChoiceRow } from '../fields/choice-row';
import { LengthRow } from '../fields/length-row';
import { TrialWork } from './trial-work';

type Wrong = 'place' | 'length' | 'way' | 'glue';

/** Something of the card that may have come out otherwise. */
interface Thing {
  value: string;
  label: string;
  piece: string;
  line: string;
  /** where it is meant to lie, and from where to where it is meant to run, mm */
  meant: number;
  from: number;
  to: number;
}

const WRONG: readonly { value: Wrong; label: string }[] = [
  { value: 'place', label: 'where a line lies, or how large a blank is' },
  { value: 'length', label: 'how long a score or slit is' },
  { value: 'way', label: 'which way a score folds' },
  { value: 'glue', label: 'where something is glued' },
];

/** A score, a cut or a glued place that came out otherwise: how the card works with it, and ways to go on. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-made-wrong',
  imports: [ChoiceRow, LengthRow],
  template: `
    <p class="help">Say what came out otherwise, and how it really is. The card is worked out again from that.</p>
    <dip-choice-row
      class="row choice"
      fieldId="made-wrong"
      label="What came out otherwise"
      [options]="kinds()"
      [value]="wrong()"
      (chosen)="turnTo($any($event))"
    />
    <dip-choice-row
      class="row choice"
      fieldId="made-line"
      [label]="wrong() === 'glue' ? 'Glued place' : 'Line'"
      [options]="things()"
      [value]="chosen().value"
      (chosen)="choose($event)"
    />
    @switch (wrong()) {
      @case ('place') {
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
      }
      @case ('length') {
        <dip-length-row
          fieldId="made-from"
          label="It runs from"
          [value]="from()"
          [notation]="card().notation"
          [limits]="limits"
          (given)="from.set($event.mm)"
        />
        <dip-length-row
          fieldId="made-to"
          label="to"
          [value]="to()"
          [notation]="card().notation"
          [limits]="limits"
          (given)="to.set($event.mm)"
        >
          <p class="help">
            Along the line, from the lower edge of the piece; one that lies across, from the left end. It is meant to run from
            {{ say(chosen().from) }} to {{ say(chosen().to) }}.
          </p>
        </dip-length-row>
      }
      @case ('glue') {
        <dip-length-row
          fieldId="made-by"
          label="It lies off by"
          [value]="by()"
          [notation]="card().notation"
          [limits]="limits"
          (given)="by.set($event.mm)"
        />
        <dip-choice-row
          class="row choice"
          fieldId="made-toward"
          label="Toward"
          [options]="ways"
          [value]="toward()"
          (chosen)="toward.set($any($event))"
        />
        <p class="help">As the piece beneath it is drawn.</p>
      }
    }
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
  protected readonly ways = ['right', 'left', 'up', 'down'].map((value) => ({ value, label: value }));
  protected readonly wrong = signal<Wrong>('place');
  /** what there is none of cannot be wrong */
  protected readonly kinds = computed(() => WRONG.filter(({ value }) => this.thingsOf(value).length > 0));
  protected readonly things = computed(() => this.thingsOf(this.wrong()));
  private readonly wanted = signal<string | undefined>(undefined);
  protected readonly chosen = computed(() => this.things().find(({ value }) => value === this.wanted()) ?? this.things()[0]!);
  protected readonly at = signal(0);
  protected readonly from = signal(0);
  protected readonly to = signal(0);
  protected readonly by = signal(2);
  protected readonly toward = signal<'right' | 'left' | 'up' | 'down'>('right');
  private readonly made = computed((): Made => {
    const { piece, line } = this.chosen();
    switch (this.wrong()) {
      case 'place':
        return { piece, line, at: this.at() };
      case 'length':
        return { piece, line, from: this.from(), to: this.to() };
      case 'way':
        return { piece, line };
      case 'glue': {
        const by = this.toward() === 'left' || this.toward() === 'down' ? -this.by() : this.by();
        const isAcross = this.toward() === 'left' || this.toward() === 'right';
        return { joint: line, right: isAcross ? by : 0, up: isAcross ? 0 : by };
      }
    }
  });
  protected readonly working = signal(false);
  protected readonly trouble = signal<string | undefined>(undefined);
  private readonly answer = signal<{ of: CardDocument; made: string; rescue: Rescue } | undefined>(undefined);
  protected readonly found = computed(() => {
    const answer = this.answer();
    return answer?.of === this.card() && answer.made === JSON.stringify(this.made()) ? answer.rescue : undefined;
  });

  constructor() {
    effect(() => {
      const { meant, from, to } = this.chosen();
      untracked(() => {
        this.at.set(meant);
        this.from.set(from);
        this.to.set(to);
      });
    });
    // A card that nothing is glued on any more has no glued place that came out otherwise.
    effect(() => {
      if (this.things().length === 0) this.wrong.set('place');
    });
  }

  protected turnTo(wrong: Wrong): void {
    this.wrong.set(wrong);
    this.choose(this.things()[0]!.value);
  }

  protected choose(line: string): void {
    this.wanted.set(line);
    this.trouble.set(undefined);
  }

  private thingsOf(wrong: Wrong): Thing[] {
    const { sheets, design } = this.evaluation();
    if (wrong === 'glue') {
      const joints = design.bonds.filter(({ slides, placedBy }) => !slides && placedBy !== 'closing');
      return joints.map(({ id, name }) => ({ value: id, label: capitalised(name), piece: '', line: id, meant: 0, from: 0, to: 0 }));
    }
    return sheets.flatMap(({ piece, scores, cuts, width, height }): Thing[] => {
      const own = (line: string, label: string, given: Partial<Thing>): Thing => ({
        value: `${piece.id}/${line}`,
        label: `${piece.name}: ${inSentence(label)}`,
        piece: piece.id,
        line,
        meant: 0,
        from: 0,
        to: 0,
        ...given,
      });
      const folds = scores.filter((score, i, all) => !score.secondOfSpine && all.findIndex(({ id }) => id === score.id) === i);
      if (wrong === 'way') return folds.map(({ id, name }) => own(id, name, {}));
      if (wrong === 'place') {
        return [
          ...folds.filter(readsOffRuler).map(({ id, name, from }) => own(id, name, { meant: from[0] })),
          own('width', 'width', { meant: width }),
          own('height', 'height', { meant: height }),
        ];
      }
      return [
        ...folds.map((score) => own(score.id, score.name, runOf(score))),
        ...cuts.map((cut, i) => own(cut.id, `slit ${i + 1}`, runOf(cut))),
      ];
    });
  }

  protected async work(): Promise<void> {
    const [card, made] = [this.card(), this.made()];
    if ('from' in made && made.to <= made.from) {
      this.trouble.set('A line ends after it begins: give “to” a larger length than “from”.');
      return;
    }
    this.working.set(true);
    this.trouble.set(undefined);
    const rescue = await this.trials.rescue(card, [made]);
    this.working.set(false);
    if (!rescue || 'says' in rescue) this.trouble.set(rescue?.says ?? 'The calculation stopped. Try again.');
    else this.answer.set({ of: card, made: JSON.stringify(made), rescue });
  }

  protected verdict({ made, asMade }: Rescue): string {
    if (!asMade.ok) return asMade.says;
    const how = this.offInWords(made[0]!);
    const failing = asMade.evaluation.findings.find(({ severity }) => severity === 'fail');
    return failing ? `${how}, and the card does not work so: ${failing.says}` : `${how}, and the card works so.`;
  }

  private offInWords(made: Off): string {
    if (isJointOff(made)) return `It is glued ${this.say(Math.hypot(made.right, made.up))} beside its place`;
    if (isStretchOff(made)) return 'It is nearly as long as it is meant';
    if (!isLineOff(made)) return 'It folds the other way over';
    return Math.abs(made.off) < 1e-6 ? 'It lies just where it is meant' : `It lies ${this.say(Math.abs(made.off))} off`;
  }

  protected take({ says, card }: RescueWay): void {
    this.changed.emit({ what: says.split(':')[0]!.replace(/\.$/, ''), apply: () => card! });
  }

  protected say(mm: number): string {
    return sayLength(mm, this.card().notation);
  }
}

/** From where to where a line runs along itself. */
function runOf({ from, to }: Pick<Score, 'from' | 'to'>): Pick<Thing, 'from' | 'to'> {
  const axis = Math.abs(to[1] - from[1]) >= Math.abs(to[0] - from[0]) ? 1 : 0;
  return { from: Math.min(from[axis], to[axis]), to: Math.max(from[axis], to[axis]) };
}
