import type { Mm } from '../measure/units.js';
import { waysOn, type Blank, type PlacedBlank, type Rectangle } from './guillotine.js';

/** Blanks on sheets of one size, to be cut out along their own outlines. */
export interface FreeLayout {
  sheets: { placed: PlacedBlank[]; left: Rectangle[] }[];
  tooLarge: Blank[];
}

/** What is cut out of a blank and free to cut smaller ones from, as the blank is drawn: rectangles from its lower left corner. */
export type Openings = (blank: Blank) => readonly Rectangle[];

const SAME: Mm = 1e-6;

type Order = (a: Blank, b: Blank) => number;
const area = ({ width, height }: { width: Mm; height: Mm }): number => width * height;
const ORDERS: readonly Order[] = [
  (a, b) => area(b) - area(a),
  (a, b) => Math.max(b.width, b.height) - Math.max(a.width, a.height),
  (a, b) => Math.min(b.width, b.height) - Math.min(a.width, a.height),
  (a, b) => b.height - a.height,
  (a, b) => b.width + b.height - a.width - a.height,
];
const FITS = ['short', 'area', 'low'] as const;
type Fit = (typeof FITS)[number];

/**
 * Blanks beside one another with some room between them, for scissors, a knife or a cutter: also in what is cut out of others. Of
 * several orders and ways to choose a place the layout of fewest sheets, and of those the one with most left on the last.
 */
export function freeLayout(blanks: readonly Blank[], sheet: { width: Mm; height: Mm }, gap: Mm, openings: Openings = () => []): FreeLayout {
  const fitting = blanks.filter((blank) => waysOn(blank, sheet).length > 0);
  const tooLarge = blanks.filter((blank) => !fitting.includes(blank));
  let best: FreeLayout['sheets'] | undefined;
  for (const order of ORDERS) {
    for (const fit of FITS) {
      const sheets = laid([...fitting].sort(order), sheet, gap, openings, fit);
      if (!best || sheets.length < best.length || (sheets.length === best.length && lastUsed(sheets) < lastUsed(best) - SAME))
        best = sheets;
    }
  }
  return { sheets: best ?? [], tooLarge };
}

const lastUsed = (sheets: FreeLayout['sheets']): number => (sheets.at(-1)?.placed ?? []).reduce((sum, placed) => sum + area(placed), 0);

function laid(order: readonly Blank[], sheet: { width: Mm; height: Mm }, gap: Mm, openings: Openings, fit: Fit): FreeLayout['sheets'] {
  const sheets: FreeLayout['sheets'] = [];
  for (const blank of order) {
    let at = sheets.findIndex(({ left }) => placeFor(blank, left, fit) !== undefined);
    if (at < 0) at = sheets.push({ placed: [], left: [{ x: 0, y: 0, ...sheet }] }) - 1;
    const own = sheets[at]!;
    const placed = placeFor(blank, own.left, fit)!;
    own.placed.push(placed);
    const taken = { x: placed.x - gap, y: placed.y - gap, width: placed.width + 2 * gap, height: placed.height + 2 * gap };
    const inside = openings(blank).map((opening) => inPlace(opening, placed, gap));
    own.left = withoutInner([
      ...own.left.flatMap((free) => without(free, taken)),
      ...inside.filter(({ width, height }) => width > 0 && height > 0),
    ]);
  }
  return sheets;
}

/** An opening of a blank where it lies, less the room that stays free along its edges. */
function inPlace(opening: Rectangle, { x, y, turned, blank }: PlacedBlank, gap: Mm): Rectangle {
  const lying = turned
    ? { x: x + blank.height - opening.y - opening.height, y: y + opening.x, width: opening.height, height: opening.width }
    : { ...opening, x: x + opening.x, y: y + opening.y };
  return { x: lying.x + gap, y: lying.y + gap, width: lying.width - 2 * gap, height: lying.height - 2 * gap };
}

function placeFor(blank: Blank, free: readonly Rectangle[], fit: Fit): PlacedBlank | undefined {
  let best: PlacedBlank | undefined;
  let [least, second] = [Infinity, Infinity];
  for (const room of free) {
    for (const { width, height, turned } of waysOn(blank, room)) {
      const [dx, dy] = [room.width - width, room.height - height];
      const [score, next] =
        fit === 'short'
          ? [Math.min(dx, dy), Math.max(dx, dy)]
          : fit === 'area'
            ? [area(room) - width * height, Math.min(dx, dy)]
            : [room.y + height, room.x];
      if (score > least + SAME || (score > least - SAME && next >= second - SAME)) continue;
      [least, second] = [score, next];
      best = { blank, turned, x: room.x, y: room.y, width, height };
    }
  }
  return best;
}

/** The largest rectangles of what is left of one once another is taken from it. */
function without(free: Rectangle, taken: Rectangle): Rectangle[] {
  const [right, top] = [free.x + free.width, free.y + free.height];
  const [takenRight, takenTop] = [taken.x + taken.width, taken.y + taken.height];
  if (taken.x >= right - SAME || takenRight <= free.x + SAME || taken.y >= top - SAME || takenTop <= free.y + SAME) return [free];
  return [
    { ...free, width: taken.x - free.x },
    { ...free, x: takenRight, width: right - takenRight },
    { ...free, height: taken.y - free.y },
    { ...free, y: takenTop, height: top - takenTop },
  ].filter(({ width, height }) => width > SAME && height > SAME);
}

/** Those that lie in no other. */
function withoutInner(all: readonly Rectangle[]): Rectangle[] {
  return all.filter((own, i) => !all.some((other, k) => k !== i && isIn(own, other) && (k < i || !isIn(other, own))));
}

const isIn = (a: Rectangle, b: Rectangle): boolean =>
  a.x >= b.x - SAME && a.y >= b.y - SAME && a.x + a.width <= b.x + b.width + SAME && a.y + a.height <= b.y + b.height + SAME;
