import { GROOVE_CATCH, nearestGroove, type GrooveRuler } from './ruler.js';
import type { Mm } from './units.js';

/** A position on the board, and how far it moves for each mm of each size. */
export interface GuidedReading {
  at: Mm;
  per: readonly number[];
}

/** A size that may change: how far down and up, and how dear a mm of change is. */
export interface MovableSize {
  now: Mm;
  least: Mm;
  most: Mm;
  weight: number;
}

/** Grooves tried to either side of where a score is now. */
const GROOVES_TRIED = 4;
/** Past this many trials the best so far is taken: a few sizes need a few hundred. */
const MOST_TRIALS = 4000;
/** Aimed nearer than the catch, so that what is printed still falls in. */
const AIM: Mm = GROOVE_CATCH / 2;
const MOVES = 1e-9;

/**
 * The least change of sizes (in weighted mm) after which every position falls into a groove: one change a size, or
 * nothing where none is found near by. Positions are taken to move evenly with the sizes. Branch and bound: a size that
 * alone is still open for some position goes from groove to groove there; else it goes by half the pitch.
 */
export function nearestGrooveSet(
  readings: readonly GuidedReading[],
  sizes: readonly MovableSize[],
  ruler: GrooveRuler,
): number[] | undefined {
  let best: { cost: number; changes: number[] } | undefined;
  let trials = 0;

  const at = (reading: GuidedReading, changes: readonly (number | undefined)[]): Mm =>
    reading.per.reduce((sum, per, i) => sum + per * (changes[i] ?? 0), reading.at);

  function search(changes: readonly (number | undefined)[], cost: number): void {
    if (trials++ > MOST_TRIALS || cost >= (best?.cost ?? Infinity)) return;
    const open = (reading: GuidedReading): number[] => sizes.flatMap((_, i) => (moves(reading, i) && changes[i] === undefined ? [i] : []));
    const settled = readings.filter((reading) => open(reading).length === 0);
    if (settled.some((reading) => !inGroove(at(reading, changes), ruler))) return;
    const unsettled = readings.filter((reading) => open(reading).length > 0);
    if (unsettled.length === 0) {
      best = { cost, changes: sizes.map((_, i) => changes[i] ?? 0) };
      return;
    }
    const leader = unsettled.find((reading) => open(reading).length === 1);
    const size = leader ? open(leader)[0]! : mostMoving(unsettled, changes);
    const wanted = leader ? toGrooves(at(leader, changes), leader.per[size]!, ruler) : toSteps(sizes[size]!.now, ruler.pitch / 2);
    const { now, least, most, weight } = sizes[size]!;
    const allowed = wanted.filter((change) => change === 0 || (now + change >= least && now + change <= most));
    for (const change of allowed.sort((a, b) => Math.abs(a) - Math.abs(b))) {
      search(
        changes.map((already, i) => (i === size ? change : already)),
        cost + Math.abs(change) * weight,
      );
    }
  }

  function mostMoving(unsettled: readonly GuidedReading[], changes: readonly (number | undefined)[]): number {
    const count = (i: number): number => (changes[i] === undefined ? unsettled.filter((reading) => moves(reading, i)).length : -1);
    return sizes.map((_, i) => i).sort((a, b) => count(b) - count(a))[0]!;
  }

  search(
    sizes.map(() => undefined),
    0,
  );
  return best?.changes;
}

/**
 * Which of some positions cannot come into grooves with the others: two that always move together and lie out of step. As few
 * as need be, those first that are out of step with most.
 */
export function outOfStep(readings: readonly GuidedReading[], ruler: GrooveRuler): ReadonlySet<number> {
  const clash = (a: GuidedReading, b: GuidedReading): boolean => {
    const apart = Math.abs(a.at - b.at);
    const together = a.per.every((per, k) => Math.abs(per - b.per[k]!) < 1e-6);
    return together && Math.abs(apart - Math.round(apart / ruler.pitch) * ruler.pitch) > 2 * AIM;
  };
  const out = new Set<number>();
  const clashes = (i: number): number => readings.filter((other, j) => j !== i && !out.has(j) && clash(readings[i]!, other)).length;
  for (;;) {
    const kept = readings.flatMap((_, i) => (out.has(i) ? [] : [{ i, many: clashes(i) }]));
    const worst = kept.reduce<{ i: number; many: number } | undefined>(
      (most, one) => (one.many >= (most?.many ?? 1) ? one : most),
      undefined,
    );
    if (!worst) return out;
    out.add(worst.i);
  }
}

const moves = ({ per }: GuidedReading, size: number): boolean => Math.abs(per[size]!) > MOVES;

function inGroove(at: Mm, ruler: GrooveRuler): boolean {
  return at > 0 && at <= ruler.length + AIM && Math.abs(nearestGroove(at, ruler).off) <= AIM;
}

/** Changes that bring a position into grooves near by; none where it lies in one already. */
function toGrooves(at: Mm, per: number, ruler: GrooveRuler): number[] {
  const { groove } = nearestGroove(at, ruler);
  const near = Array.from({ length: 2 * GROOVES_TRIED + 1 }, (_, i) => (ruler.begins ?? 0) + (groove - GROOVES_TRIED + i) * ruler.pitch);
  near.push(...(ruler.extra ?? []));
  const changes = near.map((target) => (target - at) / per);
  return inGroove(at, ruler) ? [0, ...changes] : changes;
}

/** No change, or changes to round values near by. */
function toSteps(now: Mm, step: Mm): number[] {
  const nearest = Math.round(now / step);
  return [0, ...Array.from({ length: 2 * GROOVES_TRIED + 1 }, (_, i) => (nearest - GROOVES_TRIED + i) * step - now)];
}
