import type { PlacedRibbon } from '@diptychon/core';

type Points = readonly (readonly [number, number])[];

/** A knot stands up so high on what it is tied round, mm. */
const KNOT_HIGH = 3;
/** What is laid flat of a ribbon: two layers of it. */
const FLAT = 0.6;
/** Ends are drawn no longer than this: they hang. */
const LONGEST_END = 60;
const ROUND = 16;

/** A flat thing of a bow as it is looked at, its knot at the origin and what is up at the top. */
export interface BowPart {
  outer: Points;
  holes: readonly Points[];
  thick: number;
}

/** The bow or knot of a ribbon: its knot, a loop to either side, and two ends that hang down. */
export function bowOf({ closure: { wide, loop, end } }: PlacedRibbon): BowPart[] {
  const half = wide / 2;
  const knot: BowPart = {
    outer: turned(
      [
        [-half, -half],
        [half, -half],
        [half, half],
        [-half, half],
      ],
      0,
    ),
    holes: [],
    thick: KNOT_HIGH,
  };
  const long = Math.min(LONGEST_END, end);
  const ends = [-1, 1].map((side): BowPart => ({
    outer: turned(
      [
        [-half, -long],
        [0, -long + half],
        [half, -long],
        [half, 0],
        [-half, 0],
      ],
      side * 0.45,
    ),
    holes: [],
    thick: FLAT,
  }));
  if (loop === 0) return [...ends, knot];
  const loops = [-1, 1].map((side): BowPart => {
    const at = (size: number): Points =>
      Array.from({ length: ROUND }, (_, i): readonly [number, number] => {
        const angle = (2 * Math.PI * i) / ROUND;
        return [side * (loop / 2) * (1 + size * Math.cos(angle)), size * (loop / 3.2) * Math.sin(angle)];
      });
    const own = loop > wide ? [at(1 - wide / loop / 1.6)] : [];
    return { outer: turned(at(1), -side * 0.2), holes: own.map((hole) => turned(hole, -side * 0.2)), thick: FLAT };
  });
  return [...ends, ...loops, knot];
}

function turned(points: Points, by: number): Points {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return points.map(([x, y]): readonly [number, number] => [c * x - s * y, s * x + c * y]);
}
