import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  OnDestroy,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  benchSteps,
  everySheet,
  MOST_COPIES,
  stepMotion,
  withStep,
  type BenchStep,
  type Build,
  type CardDocument,
  type Evaluation,
} from '@diptychon/core';
import { firstValueFrom } from 'rxjs';
import { NumberText } from '../fields/number-text';
import { StandingView } from '../bench/standing-view';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { ThemeButton } from '../frame/theme-button';
import { LogbookStore } from '../logbook/logbook-store';
import { WordsUsed } from '../words/words-used';
import { WorkshopStore } from '../workshop/workshop-store';
import { ReadingVoice } from './reading-voice';
import { StepClock } from './step-clock';
import { StepDrawing } from './step-drawing';
import { StepRound } from './step-round';

/** Making a card: one step at a time, large, to be read from where the hands are busy. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-make-page',
  imports: [WordsUsed, NumberText, RouterLink, StandingView, StepDrawing, StepRound, ThemeButton],
  providers: [ReadingVoice],
  templateUrl: './make-page.html',
  styleUrl: './make-page.scss',
  host: { '(document:keydown)': 'key($event)', '(document:visibilitychange)': 'seen()', '[class.far]': 'far()' },
})
export class MakePage implements OnDestroy {
  readonly id = input.required<string>();
  private readonly store = inject(CardStore);
  private readonly evaluator = inject(Evaluator);
  private readonly logbook = inject(LogbookStore);
  protected readonly voice = inject(ReadingVoice);
  private readonly workshop = inject(WorkshopStore).workshop;
  private readonly heading = viewChild<ElementRef<HTMLElement>>('heading');

  protected readonly trouble = signal<string | undefined>(undefined);
  protected readonly card = signal<CardDocument | undefined>(undefined);
  protected readonly evaluation = signal<Evaluation | undefined>(undefined);
  protected readonly steps = signal<readonly BenchStep[]>([]);
  protected readonly done = signal<ReadonlySet<string>>(new Set());
  protected readonly at = signal(0);
  /** the last step was done just now */
  protected readonly made = signal(false);
  protected readonly step = computed(() => this.steps()[this.at()]);
  protected readonly order = computed(
    () => this.step()?.scores?.map(({ scores, again }) => [...scores, ...again].map(({ id }) => id)) ?? [],
  );
  private readonly sheets = computed(() => {
    const known = this.evaluation();
    return known ? everySheet(known) : [];
  });
  protected readonly sheet = computed(() => {
    const picture = this.step()?.picture;
    return picture?.kind === 'flat' ? this.sheets().find((sheet) => sheet.piece.id === picture.piece) : undefined;
  });
  protected readonly flat = computed(() => {
    const picture = this.step()?.picture;
    return picture?.kind === 'flat' ? picture : undefined;
  });
  protected readonly standing = computed(() => {
    const picture = this.step()?.picture;
    return picture?.kind === 'standing' ? picture : undefined;
  });
  protected readonly mustChange = computed(() => this.evaluation()?.findings.find((f) => f.severity === 'fail'));
  protected readonly left = signal<number | undefined>(undefined);

  /** what is kept of this making; nothing before the first step is done */
  protected readonly build = signal<Build | undefined>(undefined);
  /** so many cards at once, each step for all of them before the next */
  protected readonly copies = signal(1);
  protected readonly mostCopies = MOST_COPIES;
  protected readonly doneOf = computed(() => {
    const id = this.step()?.id;
    return this.build()?.steps.find((step) => step.id === id)?.done ?? 0;
  });
  /** the step is read from far off: large letters */
  protected readonly far = signal(false);
  protected readonly inTheRound = signal(false);
  protected readonly motion = computed(() => {
    const [known, step] = [this.evaluation(), this.step()];
    return known && step ? stepMotion(known, this.steps(), step) : undefined;
  });
  protected readonly moving = computed(() => (this.inTheRound() || !this.flat() ? this.motion() : undefined));
  protected readonly noting = signal(false);
  protected readonly noted = signal(false);
  private readonly stepTime = new StepClock();
  private clock = 0;

  constructor() {
    effect(() => void this.open(this.id()));
    effect(() => {
      const step = this.step();
      if (!step || !this.voice.on()) return;
      const readings = (step.scores ?? []).map(({ words, fold }, i) => `${i + 1}: ${words}; ${fold}.`);
      this.voice.say([step.title, ...step.says, ...readings, ...step.cautions]);
    });
  }

  ngOnDestroy(): void {
    clearInterval(this.clock);
  }

  protected go(to: number): void {
    if (to < 0 || to >= this.steps().length) return;
    this.made.set(false);
    this.at.set(to);
    this.noting.set(false);
    this.noted.set(false);
    this.stepTime.begin(Date.now(), !document.hidden);
    this.stopClock();
    this.heading()?.nativeElement.focus();
  }

  /** Ticks this step off and goes on. */
  protected tick(): void {
    const step = this.step();
    if (!step) return;
    this.log(step, this.copies());
    this.done.update((before) => new Set(before).add(step.id));
    this.keep();
    if (this.at() === this.steps().length - 1) void this.finish();
    else this.go(this.at() + 1);
  }

  /** One more of the cards has had this step; after the last of them it is ticked off. */
  protected oneMore(): void {
    const step = this.step();
    if (!step) return;
    if (this.doneOf() + 1 >= this.copies()) this.tick();
    else this.log(step, 1);
  }

  protected setCopies(given: number): void {
    const copies = Math.min(MOST_COPIES, Math.max(1, Math.round(given) || 1));
    this.copies.set(copies);
    const { id } = this.build() ?? {};
    if (id !== undefined)
      this.change(id, (build) => ({ ...build, copies, steps: build.steps.map((s) => ({ ...s, done: Math.min(s.done, copies) })) }));
  }

  /** Notes what went wrong at this step in the logbook. */
  protected noteFault(says: string): void {
    const step = this.step();
    if (!step || says.trim() === '') return;
    this.noting.set(false);
    this.noted.set(true);
    this.logged((build) => ({ ...build, faults: [...build.faults, { step: step.title, says: says.trim().slice(0, 1000) }] }));
  }

  protected seen(): void {
    this.stepTime.seen(!document.hidden, Date.now());
  }

  private log(step: BenchStep, done: number): void {
    const seconds = this.stepTime.take(Date.now());
    this.logged((build) => withStep(build, step, done, seconds));
  }

  private beginning: Promise<Build> | undefined;

  /** Changes what the logbook has of this making, which begins with the first change. */
  private logged(apply: (build: Build) => Build): void {
    const known = this.build();
    if (known) {
      this.change(known.id, apply);
      return;
    }
    const card = this.card()!;
    this.beginning ??= this.logbook.begin(card, this.copies());
    this.beginning.then(
      (build) => this.change(build.id, apply),
      () => this.trouble.set('This could not be put into the logbook: the browser’s storage may be full. The steps work all the same.'),
    );
  }

  private change(id: string, apply: (build: Build) => Build): void {
    // Shown at once; what is kept by then may have more in it, and is shown next.
    this.build.update((build) => build && apply(build));
    this.logbook.change(id, apply).then(
      (build) => this.build.set(build),
      () => this.trouble.set('This could not be put into the logbook: the browser’s storage may be full. The steps work all the same.'),
    );
  }

  /** The last step done makes the card a made one, and says so. */
  private async finish(): Promise<void> {
    this.made.set(true);
    this.logged((build) => ({ ...build, endedAt: Date.now() }));
    try {
      const kept = await this.store.get(this.id());
      if (kept && kept.card.state !== 'made')
        await this.store.save({ card: { ...kept.card, state: 'made' }, over: kept.revision, takes: kept.takes });
    } catch {
      this.trouble.set('That it is made could not be kept: the card may have been changed in another tab just now.');
    }
  }

  protected untick(id: string): void {
    this.done.update((before) => new Set([...before].filter((other) => other !== id)));
    const step = this.steps().find((each) => each.id === id);
    if (step && this.build()) this.logged((build) => withStep(build, step, -build.copies, 0));
    this.keep();
  }

  protected startOver(): void {
    this.made.set(false);
    const { id, endedAt } = this.build() ?? {};
    // What was made of it so far stays in the logbook.
    if (id !== undefined && endedAt === undefined)
      void this.logbook.change(id, (build) => ({ ...build, endedAt: Date.now() })).catch(() => undefined);
    this.build.set(undefined);
    this.beginning = undefined;
    this.done.set(new Set());
    this.keep();
    this.go(0);
  }

  protected startClock(minutes: number): void {
    this.stopClock();
    const until = Date.now() + minutes * 60_000;
    this.left.set(minutes * 60);
    this.clock = window.setInterval(() => {
      const seconds = Math.max(0, Math.round((until - Date.now()) / 1000));
      this.left.set(seconds);
      if (seconds === 0) clearInterval(this.clock);
    }, 500);
  }

  protected clockWords(seconds: number): string {
    return seconds === 0 ? 'Dry enough to go on' : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')} left`;
  }

  protected key(event: KeyboardEvent): void {
    const inControl = (event.target as HTMLElement).closest('button, a, input, select, summary, textarea');
    if (inControl?.matches('input, textarea')) return;
    if (event.key === 'ArrowLeft') this.go(this.at() - 1);
    else if (event.key === 'ArrowRight') this.go(this.at() + 1);
    else if (event.key === ' ' && !inControl) {
      event.preventDefault();
      this.oneMore();
    }
  }

  private async open(id: string): Promise<void> {
    try {
      const kept = await this.store.get(id);
      if (!kept) {
        this.trouble.set('There is no such card on this shelf.');
        return;
      }
      this.card.set(kept.card);
      const answer = await firstValueFrom(this.evaluator.once(kept.card));
      if (answer.ok !== true) {
        this.trouble.set(answer.ok === false ? answer.problems[0]!.says : answer.says);
        return;
      }
      const ticked = await this.store.ticked(id);
      const begun = await this.logbook.begun(id);
      this.build.set(begun);
      this.copies.set(begun?.copies ?? 1);
      this.evaluation.set(answer.evaluation);
      this.steps.set(benchSteps(answer.evaluation, this.workshop()));
      this.done.set(new Set(ticked));
      const next = this.steps().findIndex((step) => !ticked.includes(step.id));
      this.at.set(next < 0 ? this.steps().length - 1 : next);
      this.stepTime.begin(Date.now(), !document.hidden);
    } catch {
      this.trouble.set('This browser’s storage could not be read.');
    }
  }

  private keep(): void {
    this.store
      .keepTicked(this.id(), [...this.done()])
      .catch(() => this.trouble.set('What is ticked could not be kept: the browser’s storage may be full.'));
  }

  private stopClock(): void {
    clearInterval(this.clock);
    this.left.set(undefined);
  }
}
