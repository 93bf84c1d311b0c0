import type { CardDocument } from '../card/document.js';
import type { Mm } from '../measure/units.js';

/** What of a card was measured: a score from the edge it was read from, a trimmed width, a panel folded at one or both sides, a cut. */
export const MEASURED = ['score', 'trim', 'panel', 'cut'] as const;
export type Measured = (typeof MEASURED)[number];

/** One length as it was planned and as it came out. */
export interface Measure {
  what: Measured;
  /** what a maker calls it */
  says: string;
  planned: Mm;
  measured: Mm;
  /** the board, trimmer or knife that it was made with, by its id */
  tool: string;
  /** what it was made of, and for which mechanism, by their ids */
  stock: string;
  mechanism: string;
  /** of a folded panel: how many of its sides are folds */
  folds?: 1 | 2;
}

/** A step as it was done: for how many of the cards, and how long that took (s). */
export interface DoneStep {
  id: string;
  title: string;
  done: number;
  seconds: number;
}

/** Something that went wrong, at which step. */
export interface Fault {
  step: string;
  says: string;
}

/** Cards that were made in one go: what the logbook keeps. */
export interface Build {
  id: string;
  /** the card on the shelf that it was made from, and how it was then */
  card: string;
  name: string;
  as: CardDocument;
  copies: number;
  begunAt: number;
  /** nothing while it is still being made */
  endedAt?: number;
  steps: readonly DoneStep[];
  measures: readonly Measure[];
  faults: readonly Fault[];
  /** ids of its photos */
  photos: readonly string[];
  forWhom: string;
  wouldChange: string;
}

/** How long it took, as far as steps were timed (s). */
export const secondsOf = ({ steps }: Pick<Build, 'steps'>): number => steps.reduce((sum, { seconds }) => sum + seconds, 0);

/** A step once more done, and so much longer: nothing of it is lost where it was not begun yet. */
export function withStep(build: Build, { id, title }: Pick<DoneStep, 'id' | 'title'>, done: number, seconds: number): Build {
  const before = build.steps.find((step) => step.id === id) ?? { id, title, done: 0, seconds: 0 };
  const after = { ...before, done: Math.max(0, Math.min(build.copies, before.done + done)), seconds: before.seconds + seconds };
  const steps = build.steps.some((step) => step.id === id)
    ? build.steps.map((step) => (step.id === id ? after : step))
    : [...build.steps, after];
  return { ...build, steps };
}

/** Whether a build has a word in it: its name, whom it was for, what was noted. */
export function mentions(build: Build, wanted: string): boolean {
  const text = [build.name, build.forWhom, build.wouldChange, ...build.faults.map(({ says }) => says)].join(' ').toLocaleLowerCase();
  return wanted
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
