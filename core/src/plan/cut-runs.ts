import { sayLength } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { between, type Point } from '../plane/point.js';
import { inner, isSquare, type CutLines, type StraightCut } from '../sheet/cut-lines.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Schools } from '../supplies/workshop.js';
import { readingFrom, readingOfTraced, type BlankEdge, type LineReading } from './reading.js';

/** How a blank may be laid again so that the same reading makes another cut. */
export type Turn = 'turned end for end' | 'turned over like a page' | 'turned over away from you';

/** One straight cut inside a blank as it is made along a rule, and how the same reading serves again. */
export interface InnerCut {
  id: string;
  /** the edge that lies at the fence, the distance of the cut from it, and where it begins and ends along it */
  fence: 'lower edge' | 'left edge';
  distance: Mm;
  start: Mm;
  stop: Mm;
  words: string;
  /** ids of the cuts that the same reading makes after a turn */
  again: { turn: Turn; makes: string }[];
}

const SAME = 1e-4;

/** Cuts of a piece with their readings: numbered ones by rule, slanted ones between two marks, and what is traced. */
export interface CutRun {
  numbered: (InnerCut & { kind: StraightCut['kind'] })[];
  slanted: StraightCut[];
  traced: CutLines['traced'];
  /** every line once, with its own edge */
  readings: LineReading[];
}

/** The straight cuts inside a blank, slits and edges of openings, only those whose readings differ. */
export function innerCuts(sheet: CutSheet, notation: Notation): InnerCut[] {
  return cutRun(sheet, inner(sheet), notation, 'trimmer').numbered.map(({ id, fence, distance, start, stop, words, again }) => ({
    id,
    fence,
    distance,
    start,
    stop,
    words,
    again,
  }));
}

/**
 * Cuts as they are read for a tool. Of the square ones only those whose readings differ are numbered: by symmetry the same
 * fence distance, start and stop serve again after the blank is turned, so that few numbers have to be kept in mind. A turn is
 * used only when it maps all of them onto each other.
 */
export function cutRun(sheet: CutSheet, { straight, traced }: CutLines, notation: Notation, tool: Schools['cutting']): CutRun {
  const square = straight.filter(({ from, to }) => isSquare(from, to));
  const slanted = straight.filter(({ from, to }) => !isSquare(from, to));
  const turns = turnsOf(sheet).filter(({ apply }) => square.every((cut) => square.some((other) => same(other, moved(cut, apply)))));
  const readings: LineReading[] = [];
  const made = new Set<string>();
  const take = (cut: StraightCut, edge: BlankEdge): void => {
    made.add(cut.id);
    readings.push(readingFrom(edge, sheet, cut));
  };
  const numbered = square.flatMap((cut): CutRun['numbered'] => {
    if (made.has(cut.id)) return [];
    const own = readingOf(cut, notation, tool);
    take(cut, own.fence);
    const again = turns.flatMap(({ turn, apply, flips }): InnerCut['again'] => {
      const image = moved(cut, apply);
      const makes = square.find((other) => same(other, image) && !made.has(other.id));
      if (!makes) return [];
      take(makes, flips.includes(own.fence) ? OPPOSITE[own.fence] : own.fence);
      return [{ turn, makes: makes.id }];
    });
    return [{ ...own, kind: cut.kind, again }];
  });
  for (const cut of slanted) take(cut, 'left edge');
  readings.push(...traced.map((line) => readingOfTraced(sheet, line)));
  return { numbered, slanted, traced, readings };
}

const OPPOSITE = { 'lower edge': 'upper edge', 'left edge': 'right edge' } as const;

interface TurnOfBlank {
  turn: Turn;
  apply: (p: Point) => Point;
  /** the fences whose opposite edges lie there after it */
  flips: readonly InnerCut['fence'][];
}

function turnsOf({ width, height }: CutSheet): TurnOfBlank[] {
  return [
    { turn: 'turned over away from you', apply: ([x, y]) => [x, height - y], flips: ['lower edge'] },
    { turn: 'turned over like a page', apply: ([x, y]) => [width - x, y], flips: ['left edge'] },
    { turn: 'turned end for end', apply: ([x, y]) => [width - x, height - y], flips: ['lower edge', 'left edge'] },
  ];
}

const moved = (cut: StraightCut, apply: (p: Point) => Point): StraightCut => ({ ...cut, from: apply(cut.from), to: apply(cut.to) });

function same(a: StraightCut, b: StraightCut): boolean {
  const near = (p: Point, q: Point): boolean => Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME;
  return a.kind === b.kind && ((near(a.from, b.from) && near(a.to, b.to)) || (near(a.from, b.to) && near(a.to, b.from)));
}

/** The middle of a cut, on the sheet. */
export function middleOf({ fence, distance: off, start, stop }: Pick<InnerCut, 'fence' | 'distance' | 'start' | 'stop'>): Point {
  const along = (start + stop) / 2;
  return fence === 'lower edge' ? [along, off] : [off, along];
}

/** The middle of a slanted cut. */
export const middleOfLine = ({ from, to }: Pick<StraightCut, 'from' | 'to'>): Point => between(from, to, 0.5);

function readingOf({ id, from, to }: StraightCut, notation: Notation, tool: Schools['cutting']): Omit<InnerCut, 'again'> {
  const across = Math.abs(from[1] - to[1]) < SAME;
  const [along, off] = across ? [0, 1] : [1, 0];
  const [start, stop] = [Math.min(from[along]!, to[along]!), Math.max(from[along]!, to[along]!)];
  const fence = across ? ('lower edge' as const) : ('left edge' as const);
  const distance = from[off]!;
  const say = (mm: Mm): string => sayLength(mm, notation);
  const how =
    tool === 'trimmer'
      ? `drop the blade at ${say(start)}, stop at ${say(stop)}`
      : `lay the rule there and cut from ${say(start)} to ${say(stop)}`;
  return { id, fence, distance, start, stop, words: `${say(distance)} from the ${fence}: ${how}` };
}
