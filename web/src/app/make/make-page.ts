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
import { benchSteps, everySheet, MOST_COPIES, stepMotion, type BenchStep, type CardDocument, type Evaluation } from '@diptychon/core';
import { firstValueFrom } from 'rxjs';
import { NumberText } from '../fields/number-text';
import { StandingView } from '../bench/standing-view';
import { CardStore } from '../cards/card-store';
import { Evaluator } from '../evaluation/evaluator';
import { ThemeButton } from '../frame/theme-button';
import { WordsUsed } from '../words/words-used';
import { WorkshopStore } from '../workshop/workshop-store';
import { MakingLog } from './making-log';
import { ReadingVoice } from './reading-voice';
import { StepDrawing } from './step-drawing';
import { StepRound } from './step-round';

/** Making a card: one step at a time, large, to be read from where the hands are busy. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-make-page',
  imports: [WordsUsed, NumberText, RouterLink, StandingView, StepDrawing, StepRound, ThemeButton],
  providers: [MakingLog, ReadingVoice],
  templateUrl: './make-page.html',
  styleUrl: './make-page.scss',
  host: { '(document:keydown)': 'key($event)', '(document:visibilitychange)': 'log.seen()', '[class.far]': 'far()' },
})
export class MakePage implements OnDestroy {
  readonly id = input.required<string>();
  private readonly store = inject(CardStore);
  private readonly evaluator = inject(Evaluator);
  protected readonly log = inject(MakingLog);
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

  protected readonly copies = this.log.copies;
  protected readonly mostCopies = MOST_COPIES;
  protected readonly doneOf = computed(() => this.log.doneOf(this.step()?.id ?? ''));
  protected readonly stepWords = computed(() => {
    const copies = this.copies();
    const of = copies > 1 ? `, for ${copies} cards: ${this.doneOf()} done` : '';
    return `Step ${this.at() + 1} of ${this.steps().length}${of}`;
  });
  protected readonly nextWords = computed(() => {
    const copies = this.copies();
    if (this.at() === this.steps().length - 1) return copies > 1 ? 'Done: all are made' : 'Done: it is made';
    return copies > 1 ? `All ${copies} done, next` : 'Done, next';
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
    this.log.atStep();
    this.stopClock();
    this.heading()?.nativeElement.focus();
  }

  /** Ticks this step off and goes on. */
  protected tick(): void {
    const step = this.step();
    if (!step) return;
    this.log.done(this.card()!, step, this.copies());
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
    else this.log.done(this.card()!, step, 1);
  }

  /** Notes what went wrong at this step in the logbook. */
  protected noteFault(says: string): void {
    const step = this.step();
    if (!step || says.trim() === '') return;
    this.noting.set(false);
    this.noted.set(true);
    this.log.fault(this.card()!, step, says);
  }

  /** The last step done makes the card a made one, and says so. */
  private async finish(): Promise<void> {
    this.made.set(true);
    this.log.end(this.card()!);
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
    if (step && this.log.build()) this.log.done(this.card()!, step, -this.copies());
    this.keep();
  }

  protected startOver(): void {
    this.made.set(false);
    this.log.startOver();
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
      await this.log.open(id);
      this.evaluation.set(answer.evaluation);
      this.steps.set(benchSteps(answer.evaluation, this.workshop()));
      this.done.set(new Set(ticked));
      const next = this.steps().findIndex((step) => !ticked.includes(step.id));
      this.at.set(next < 0 ? this.steps().length - 1 : next);
      this.log.atStep();
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
