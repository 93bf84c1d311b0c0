import { inject, Injectable, signal } from '@angular/core';
import { MOST_COPIES, withStep, type BenchStep, type Build, type CardDocument } from '@diptychon/core';
import { LogbookStore } from '../logbook/logbook-store';
import { StepClock } from './step-clock';

const NOT_LOGGED = 'This could not be put into the logbook: the browser’s storage may be full. The steps work all the same.';

/** What of making a card goes into the logbook, as it is made: steps with their times, how many cards, what went wrong. */
@Injectable()
export class MakingLog {
  private readonly logbook = inject(LogbookStore);
  private readonly clock = new StepClock();
  private beginning: Promise<Build> | undefined;
  /** changes that are on their way to the disk */
  private waiting = 0;

  /** what is kept of this making; nothing before the first step is done */
  readonly build = signal<Build | undefined>(undefined);
  /** so many cards at once, each step for all of them before the next */
  readonly copies = signal(1);
  readonly trouble = signal<string | undefined>(undefined);

  /** Goes on with what is being made of a card. */
  async open(card: string): Promise<void> {
    const begun = await this.logbook.begun(card);
    this.build.set(begun);
    this.copies.set(begun?.copies ?? 1);
  }

  /** A step comes on screen. */
  atStep(): void {
    this.clock.begin(Date.now(), !document.hidden);
  }

  seen(): void {
    this.clock.seen(!document.hidden, Date.now());
  }

  /** A step was done for so many more of the cards; fewer than none takes it back. */
  done(card: CardDocument, step: Pick<BenchStep, 'id' | 'title'>, more: number): void {
    const seconds = more > 0 ? this.clock.take(Date.now()) : 0;
    this.add(card, (build) => withStep(build, step, more, seconds));
  }

  doneOf(step: string): number {
    return this.build()?.steps.find(({ id }) => id === step)?.done ?? 0;
  }

  setCopies(given: number): void {
    const copies = Math.min(MOST_COPIES, Math.max(1, Math.round(given) || 1));
    this.copies.set(copies);
    const { id } = this.build() ?? {};
    if (id === undefined) return;
    this.change(id, (build) => ({
      ...build,
      copies,
      steps: build.steps.map((step) => ({ ...step, done: Math.min(step.done, copies) })),
    }));
  }

  fault(card: CardDocument, step: Pick<BenchStep, 'title'>, says: string): void {
    this.add(card, (build) => ({ ...build, faults: [...build.faults, { step: step.title, says: says.trim().slice(0, 1000) }] }));
  }

  /** All of it is made. */
  end(card: CardDocument): void {
    this.add(card, (build) => ({ ...build, endedAt: Date.now() }));
  }

  /** What was made of it so far stays in the logbook; the next step begins another. */
  startOver(): void {
    const { id, endedAt } = this.build() ?? {};
    if (id !== undefined && endedAt === undefined) this.change(id, (build) => ({ ...build, endedAt: Date.now() }));
    this.build.set(undefined);
    this.beginning = undefined;
  }

  /** Changes what the logbook has of this making, which begins with the first change. */
  private add(card: CardDocument, apply: (build: Build) => Build): void {
    const known = this.build();
    if (known) {
      this.change(known.id, apply);
      return;
    }
    this.beginning ??= this.logbook.begin(card, this.copies());
    this.beginning.then(
      (build) => {
        this.build.update((now) => now ?? build);
        this.change(build.id, apply);
      },
      () => {
        // There may be room the next time.
        this.beginning = undefined;
        this.trouble.set(NOT_LOGGED);
      },
    );
  }

  private change(id: string, apply: (build: Build) => Build): void {
    // Shown at once; what is kept by then may have more in it, and is shown next.
    this.build.update((build) => (build?.id === id ? apply(build) : build));
    this.waiting++;
    const kept = this.logbook.change(id, apply).finally(() => this.waiting--);
    kept.then(
      (build) => this.waiting === 0 && this.build.update((now) => (now?.id === id ? build : now)),
      () => this.trouble.set(NOT_LOGGED),
    );
  }
}
