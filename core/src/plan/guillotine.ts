import { sharesFor } from '../measure/seeded.js';
import type { Mm } from '../measure/units.js';

/** A rectangle to be cut, as it may lie on a sheet. */
export interface Blank {
  id: string;
  width: Mm;
  height: Mm;
  /** which ways it may lie: as it is drawn, a quarter turned, or either */
  lies: 'upright' | 'turned' | 'either';
}

/** A rectangle on a sheet, mm from its lower left corner. */
export interface Rectangle {
  x: Mm;
  y: Mm;
  width: Mm;
  height: Mm;
}

/** A blank where it lies; width and height as it lies there. */
export interface PlacedBlank extends Rectangle {
  blank: Blank;
  turned: boolean;
  /** and then end for end, where it is laid by its outline */
  endForEnd?: true;
}

/**
 * A sheet cut edge to edge: a part of it is cut in two, `first` being its left or lower side, or it holds a blank that fills it, or
 * it is left over.
 */
export interface Part extends Rectangle {
  cut?: { axis: 'x' | 'y'; first: Part; second: Part };
  holds?: PlacedBlank;
}

/** Blanks on sheets of one size, and those that no sheet holds. */
export interface GuillotineLayout {
  sheets: Part[];
  tooLarge: Blank[];
}

/** What differs between two tries of one packing. */
interface Rule {
  order: (a: Blank, b: Blank) => number;
  /** which of the two ways to cut out a corner */
  split: 'shorter' | 'longer' | 'small' | 'large';
  fit: 'short' | 'long' | 'area';
}

const area = ({ width, height }: { width: Mm; height: Mm }): number => width * height;
const longSide = ({ width, height }: { width: Mm; height: Mm }): Mm => Math.max(width, height);
const shortSide = ({ width, height }: { width: Mm; height: Mm }): Mm => Math.min(width, height);

const ORDERS: readonly Rule['order'][] = [
  (a, b) => area(b) - area(a),
  (a, b) => longSide(b) - longSide(a) || shortSide(b) - shortSide(a),
  (a, b) => b.height - a.height || b.width - a.width,
  (a, b) => b.width - a.width || b.height - a.height,
  (a, b) => shortSide(b) - shortSide(a) || longSide(b) - longSide(a),
  (a, b) => b.width + b.height - a.width - a.height,
];
const SPLITS: readonly Rule['split'][] = ['shorter', 'longer', 'small', 'large'];
const FITS: readonly Rule['fit'][] = ['short', 'area', 'long'];
export const RULES: readonly Rule[] = ORDERS.flatMap((order) => SPLITS.flatMap((split) => FITS.map((fit) => ({ order, split, fit }))));

/** Narrower than this nobody holds a strip beside a blade. */
export const THIN: Mm = 15;

/** Lengths nearer than this are the same: no trimmer cuts a strip of it. */
const SAME: Mm = 1e-6;

/** How much better one layout is than another: fewer sheets, then the last one used less, then fewer cuts through a strip that no hand holds, then fewer settings of the fence. */
export function isBetter(a: GuillotineLayout, b: GuillotineLayout | undefined): boolean {
  if (!b) return true;
  if (a.sheets.length !== b.sheets.length) return a.sheets.length < b.sheets.length;
  const [own, other] = [a, b].map((layout) => usedOf(layout.sheets.at(-1))) as [number, number];
  if (Math.abs(own - other) > 1e-3 * other) return own < other;
  const [held, otherHeld] = [a, b].map(unheldIn) as [number, number];
  if (held !== otherHeld) return held < otherHeld;
  const [mine, theirs] = [a, b].map(settingsOf) as [number, number];
  return mine !== theirs ? mine < theirs : largestLeft(a) > largestLeft(b) + SAME;
}

/** The area that blanks take of a sheet, mm². */
export const usedOf = (sheet: Part | undefined): number => (sheet ? placedOn(sheet).reduce((sum, placed) => sum + area(placed), 0) : 0);

/** Every part of a sheet that is not cut further, from the lower left. */
export function endsOf(part: Part): Part[] {
  return part.cut ? [...endsOf(part.cut.first), ...endsOf(part.cut.second)] : [part];
}

/** Blanks on a sheet. */
export const placedOn = (sheet: Part): PlacedBlank[] => endsOf(sheet).flatMap(({ holds }) => holds ?? []);

/** What is left over of a sheet. */
export const leftOf = (sheet: Part): Rectangle[] =>
  endsOf(sheet)
    .filter(({ holds }) => !holds)
    .map(({ x, y, width, height }) => ({ x, y, width, height }));

const largestLeft = ({ sheets }: GuillotineLayout): number => Math.max(0, ...sheets.flatMap(leftOf).map(area));

/** How many cuts go through a part that is too thin to be held. */
function unheldIn({ sheets }: GuillotineLayout): number {
  const through = ({ cut, width, height }: Part): number =>
    cut ? Number(Math.min(width, height) < THIN) + through(cut.first) + through(cut.second) : 0;
  return sheets.reduce((sum, sheet) => sum + through(sheet), 0);
}

/** How many distances a fence is set to, parts of the same size being cut alike. */
function settingsOf({ sheets }: GuillotineLayout): number {
  const settings = new Set<string>();
  const look = ({ cut }: Part): void => {
    if (!cut) return;
    settings.add((cut.axis === 'x' ? cut.first.width : cut.first.height).toFixed(2));
    look(cut.first);
    look(cut.second);
  };
  sheets.forEach(look);
  return settings.size;
}

/** How many orders are tried at random once every rule has been tried, and while there are more sheets than there must be. */
const SHUFFLES = 400;

/**
 * Blanks cut edge to edge from sheets of one size: every rule is tried, then orders near the best of them at random, until there are
 * no more sheets than `least` or enough was tried. The same seed gives the same layout.
 * @param told what is best so far and how much was tried, 0 … 1; false ends the search
 */
export function guillotine(
  blanks: readonly Blank[],
  sheet: { width: Mm; height: Mm },
  least: number,
  seed = 1,
  told: (best: GuillotineLayout, share: number) => boolean = () => true,
): GuillotineLayout {
  const fitting = blanks.filter((blank) => waysOn(blank, sheet).length > 0);
  const tooLarge = blanks.filter((blank) => !fitting.includes(blank));
  if (fitting.length === 0) return { sheets: [], tooLarge };
  let best: GuillotineLayout | undefined;
  let kept: { order: Blank[]; rule: Rule } | undefined;
  const attempt = (order: Blank[], rule: Rule): GuillotineLayout => {
    const layout = { sheets: packed(order, rule, sheet), tooLarge };
    if (isBetter(layout, best)) [best, kept] = [layout, { order, rule }];
    return layout;
  };
  const all = RULES.length + SHUFFLES;
  for (const [i, rule] of RULES.entries()) {
    attempt([...fitting].sort(rule.order), rule);
    if (!told(best!, i / all)) return best!;
  }
  const next = sharesFor(seed, 0);
  let [now, reached] = [kept!, usedOf(best!.sheets.at(-1))];
  for (let i = 0; i < SHUFFLES && best!.sheets.length > least; i++) {
    const rule = next() < 0.7 ? now.rule : RULES[Math.floor(next() * RULES.length)]!;
    const order = swapped(now.order, next);
    const layout = attempt(order, rule);
    // Sideways, and at first a little downhill: what is on the last sheet is what has to go.
    const last = usedOf(layout.sheets.at(-1));
    const isNear = layout.sheets.length === best!.sheets.length && last <= reached * (1 + DOWNHILL * (1 - i / SHUFFLES));
    if (isNear || layout === best) [now, reached] = [{ order, rule }, last];
    if (!told(best!, (RULES.length + i) / all)) break;
  }
  return best!;
}

/** By so much more, at first, the last sheet may be used than by the layout before. */
const DOWNHILL = 0.1;

/** An order in which a few blanks have changed places. */
function swapped(order: readonly Blank[], next: () => number): Blank[] {
  const other = [...order];
  const swaps = 1 + Math.floor(next() * 3);
  for (let k = 0; k < swaps; k++) {
    const [i, j] = [Math.floor(next() * other.length), Math.floor(next() * other.length)];
    [other[i], other[j]] = [other[j]!, other[i]!];
  }
  return other;
}

/** The ways in which a blank may lie on a sheet, or on a part of one. */
export function waysOn({ width, height, lies }: Blank, on: { width: Mm; height: Mm }): { width: Mm; height: Mm; turned: boolean }[] {
  const ways = [
    ...(lies === 'turned' ? [] : [{ width, height, turned: false }]),
    ...(lies === 'upright' || (lies === 'either' && width === height) ? [] : [{ width: height, height: width, turned: true }]),
  ];
  return ways.filter((way) => way.width <= on.width + SAME && way.height <= on.height + SAME);
}

/** Blanks in their order, each in the part that is left over that it fits best; a new sheet where it fits nowhere. */
function packed(order: readonly Blank[], rule: Rule, { width, height }: { width: Mm; height: Mm }): Part[] {
  const sheets: Part[] = [];
  const free: Part[] = [];
  for (const blank of order) {
    let place = bestPlace(blank, free, rule);
    if (!place) {
      const sheet: Part = { x: 0, y: 0, width, height };
      sheets.push(sheet);
      free.push(sheet);
      place = bestPlace(blank, [sheet], rule)!;
    }
    free.splice(free.indexOf(place.part), 1);
    free.push(...cutOut(place.part, blank, place.way, rule.split));
  }
  return sheets;
}

type Way = ReturnType<typeof waysOn>[number];

function bestPlace(blank: Blank, free: readonly Part[], { fit }: Rule): { part: Part; way: Way } | undefined {
  let best: { part: Part; way: Way } | undefined;
  let [least, second] = [Infinity, Infinity];
  for (const part of free) {
    for (const way of waysOn(blank, part)) {
      const [dx, dy] = [part.width - way.width, part.height - way.height];
      const [short, long] = dx < dy ? [dx, dy] : [dy, dx];
      const [score, next] = fit === 'short' ? [short, long] : fit === 'long' ? [long, short] : [area(part) - area(way), short];
      if (score < least - SAME || (score < least + SAME && next < second - SAME)) [best, least, second] = [{ part, way }, score, next];
    }
  }
  return best;
}

/** Cuts a blank out of the lower left corner of a part. @returns what is left over of it */
function cutOut(part: Part, blank: Blank, { width, height, turned }: Way, split: Rule['split']): Part[] {
  const { x, y } = part;
  const [right, above] = [part.width - width, part.height - height];
  const held: Part = { x, y, width, height, holds: { blank, x, y, width, height, turned } };
  // A thin blank is cut off last, from a part that a hand can hold: never along a thin strip.
  const isThin = Math.min(width, height) < THIN && Math.max(width, height) >= THIN;
  const isAcrossFirst = isThin
    ? width < THIN
    : {
        shorter: right < above,
        longer: right >= above,
        small: right * height < above * width,
        large: right * height >= above * width,
      }[split];
  const left: Part[] = [];
  // Along y first: the right side stays as high as the part; along x first: what is above stays as wide.
  const alongY = (whole: Part, own: Part): void => {
    if (right <= SAME) return void Object.assign(whole, own);
    const rest: Part = { x: x + width, y, width: right, height: whole.height };
    left.push(rest);
    whole.cut = { axis: 'x', first: own, second: rest };
  };
  const alongX = (whole: Part, own: Part): void => {
    if (above <= SAME) return void Object.assign(whole, own);
    const rest: Part = { x, y: y + height, width: whole.width, height: above };
    left.push(rest);
    whole.cut = { axis: 'y', first: own, second: rest };
  };
  if (isAcrossFirst) {
    const lower: Part = { x, y, width: part.width, height };
    alongY(lower, held);
    alongX(part, lower);
  } else {
    const own: Part = { x, y, width, height: part.height };
    alongX(own, held);
    alongY(part, own);
  }
  return left;
}
