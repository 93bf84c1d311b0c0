import type { Radians } from '../measure/units.js';

/** One stretch of the drive, from `from` to `to` (0 closed … 1 open), with the folds it prescribes. */
export interface Phase {
  name: string;
  from: number;
  to: number;
  /** hinges led from one fold angle to another, evenly over the phase */
  targets: readonly { hinge: string; start: Radians; end: Radians }[];
}

/** How a card goes from closed to open. Phases follow each other without gaps. */
export interface Schedule {
  phases: readonly Phase[];
  /** where to start solving: about half open, far from the flat ends where ways of folding meet */
  startAt: number;
  /** folds of creases that are solved for at the start, where the mechanism knows them; others begin by how they are scored */
  begin?: Readonly<Record<string, Radians>>;
  /** the hinge whose angle is read as the opening, and what opening means */
  opening: { hinge: string; /** opening = atZero + perFold · |fold| */ atZero: Radians; perFold: number };
}

/** Folds prescribed at a point of the drive; the phase before a boundary holds at the boundary. */
export function targetsAt(schedule: Schedule, s: number): Map<string, Radians> {
  const folds = new Map<string, Radians>();
  for (const phase of schedule.phases) {
    if (phase.from > s && folds.size > 0) break;
    const share = phase.to === phase.from ? 1 : Math.min(1, Math.max(0, (s - phase.from) / (phase.to - phase.from)));
    for (const { hinge, start, end } of phase.targets) folds.set(hinge, start + (end - start) * share);
  }
  return folds;
}

/** Every hinge that some phase leads. */
export function drivenHinges(schedule: Schedule): Set<string> {
  return new Set(schedule.phases.flatMap((phase) => phase.targets.map((target) => target.hinge)));
}
