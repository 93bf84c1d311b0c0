import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { EXERCISES, type Exercise, type ExerciseKind, type StepPicture } from '@diptychon/core';
import { StandingView } from '../bench/standing-view';
import { Evaluator } from '../evaluation/evaluator';
import { ScreenBar } from '../frame/screen-bar';
import { StepDrawing } from '../make/step-drawing';

const TITLES: Readonly<Record<ExerciseKind, string>> = {
  ruler: 'A ruler read from the other end',
  fold: 'Mountain or valley',
  closed: 'Where a point lies when closed',
  slip: 'Which score slipped',
};

/** Questions about real cards, one after the other, with a count of those that were right. Nobody has to. */
@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'dip-practice-page',
  imports: [RouterLink, ScreenBar, StandingView, StepDrawing],
  templateUrl: './practice-page.html',
  styleUrl: './practice-page.scss',
})
export class PracticePage {
  private readonly evaluator = inject(Evaluator);

  protected readonly kinds = EXERCISES.map((id) => ({ id, title: TITLES[id] }));
  protected readonly kind = signal<ExerciseKind>('ruler');
  protected readonly exercise = signal<Exercise | undefined>(undefined);
  protected readonly trouble = signal(false);
  /** which answer was chosen; nothing before one is */
  protected readonly chosen = signal<number | undefined>(undefined);
  protected readonly asked = signal(0);
  protected readonly right = signal(0);
  protected readonly picture = computed((): Extract<StepPicture, { kind: 'flat' }> | undefined => {
    const now = this.exercise();
    if (!now) return undefined;
    const { sheet, drawsScores, points } = now;
    return {
      kind: 'flat',
      piece: sheet.piece.id,
      face: 'up',
      turned: false,
      scores: drawsScores ? sheet.scores.map(({ id }) => id) : [],
      zones: [],
      marks: false,
      cuts: false,
      numbers: points.map((at, i) => ({ order: i + 1, at })),
    };
  });
  /** the card in the round helps where it is not the answer itself */
  protected readonly stands = computed(() =>
    this.exercise()?.kind === 'fold' || this.chosen() !== undefined ? this.exercise() : undefined,
  );

  constructor() {
    void this.next();
  }

  protected choose(kind: ExerciseKind): void {
    this.kind.set(kind);
    void this.next();
  }

  protected answer(nth: number): void {
    const now = this.exercise();
    if (!now || this.chosen() !== undefined) return;
    this.chosen.set(nth);
    this.asked.update((count) => count + 1);
    if (nth === now.right) this.right.update((count) => count + 1);
  }

  protected async next(): Promise<void> {
    this.exercise.set(undefined);
    this.chosen.set(undefined);
    this.trouble.set(false);
    const kind = this.kind();
    const made = await this.evaluator.exercise(kind, Math.floor(Math.random() * 2 ** 31));
    if (this.kind() !== kind) return;
    this.exercise.set(made);
    this.trouble.set(!made);
  }
}
