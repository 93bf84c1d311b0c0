import { sayCut } from '../measure/print.js';
import type { Mm, Notation } from '../measure/units.js';
import { boxOf, type Box } from '../plane/outline.js';
import { distance, type Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** How a blank may be laid again so that the same reading makes another cut. */
export type Turn = 'turned end for end' | 'turned over like a page' | 'turned over away from you';

/** One straight cut inside a blank as a trimmer makes it, and how the same reading serves again. */
export interface InnerCut {
  id: string;
  /** the edge that lies at the fence, the distance of the cut from it, and where the blade is dropped and lifted along it */
  fence: 'lower edge' | 'left edge';
  distance: Mm;
  start: Mm;
  stop: Mm;
  words: string;
  /** ids of the cuts that the same reading makes after a turn */
  again: { turn: Turn; makes: string }[];
}

const SAME = 1e-4;
/** A shorter edge of a curved opening is part of the curve. */
const LEAST_READ: Mm = 5;
type Segment = { id: string; from: Point; to: Point };

/**
 * The straight cuts inside a blank, slits and edges of openings, only those whose readings differ: by symmetry the same fence distance, start
 * and stop serve again after the blank is turned, so that few numbers have to be kept in mind. A turn is used
 * only when it maps all inner cuts onto inner cuts.
 */
export function innerCuts(sheet: CutSheet, notation: Notation): InnerCut[] {
  const cuts: Segment[] = [...sheet.cuts.filter(({ from, to }) => isStraight(from, to)), ...sheet.windows.flatMap(readEdges)];
  const turns = turnsOf(sheet).filter(({ apply }) => cuts.every((cut) => cuts.some((other) => same(other, moved(cut, apply)))));
  const made = new Set<string>();
  return cuts.flatMap((cut): InnerCut[] => {
    if (made.has(cut.id)) return [];
    made.add(cut.id);
    const again = turns.flatMap(({ turn, apply }): InnerCut['again'] => {
      const image = moved(cut, apply);
      const makes = cuts.find((other) => same(other, image) && !made.has(other.id));
      if (!makes) return [];
      made.add(makes.id);
      return [{ turn, makes: makes.id }];
    });
    return [{ ...readingOf(cut, notation), again }];
  });
}

/** The edges of an opening, one after the other. */
function edgesOfWindow({ id, outline }: CutSheet['windows'][number]): Segment[] {
  return outline.map((from, i) => ({ id: `${id}/${i + 1}`, from, to: outline[(i + 1) % outline.length]! }));
}

/** The edges of an opening that are read; the short chords of a curve are not. */
function readEdges(window: CutSheet['windows'][number]): Segment[] {
  const edges = edgesOfWindow(window);
  const curved = !edges.every(({ from, to }) => isStraight(from, to));
  return edges.filter(({ from, to }) => isStraight(from, to) && (!curved || distance(from, to) >= LEAST_READ));
}

/** Openings that no trimmer makes, with the box they lie in: they are traced. */
export function tracedOpenings(sheet: CutSheet): { id: string; box: Box }[] {
  return sheet.windows
    .filter((window) => !edgesOfWindow(window).every(({ from, to }) => isStraight(from, to)))
    .map(({ id, outline }) => ({ id, box: boxOf(outline) }));
}

function isStraight(from: Point, to: Point): boolean {
  return Math.abs(from[0] - to[0]) < SAME || Math.abs(from[1] - to[1]) < SAME;
}

function turnsOf({ width, height }: CutSheet): { turn: Turn; apply: (p: Point) => Point }[] {
  return [
    { turn: 'turned over away from you', apply: ([x, y]) => [x, height - y] },
    { turn: 'turned over like a page', apply: ([x, y]) => [width - x, y] },
    { turn: 'turned end for end', apply: ([x, y]) => [width - x, height - y] },
  ];
}

const moved = ({ id, from, to }: Segment, apply: (p: Point) => Point): Segment => ({ id, from: apply(from), to: apply(to) });

function same(a: Segment, b: Segment): boolean {
  const near = (p: Point, q: Point): boolean => Math.hypot(p[0] - q[0], p[1] - q[1]) < SAME;
  return (near(a.from, b.from) && near(a.to, b.to)) || (near(a.from, b.to) && near(a.to, b.from));
}

/** The middle of a cut, on the sheet. */
export function middleOf({ fence, distance: off, start, stop }: Pick<InnerCut, 'fence' | 'distance' | 'start' | 'stop'>): Point {
  const along = (start + stop) / 2;
  return fence === 'lower edge' ? [along, off] : [off, along];
}

function readingOf({ id, from, to }: Segment, notation: Notation): Omit<InnerCut, 'again'> {
  const across = Math.abs(from[1] - to[1]) < SAME;
  const [along, off] = across ? [0, 1] : [1, 0];
  const [start, stop] = [Math.min(from[along]!, to[along]!), Math.max(from[along]!, to[along]!)];
  const fence = across ? ('lower edge' as const) : ('left edge' as const);
  const distance = from[off]!;
  const say = (mm: Mm): string => sayCut(mm, notation);
  return {
    id,
    fence,
    distance,
    start,
    stop,
    words: `${say(distance)} from the ${fence}: drop the blade at ${say(start)}, stop at ${say(stop)}`,
  };
}
