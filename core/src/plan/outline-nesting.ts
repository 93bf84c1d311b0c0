import type { Mm } from '../measure/units.js';
import { areasOf, offset, subtract, unite } from '../plane/boolean.js';
import { asArea, movedArea, type Area } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { CellMap } from './cell-map.js';
import type { FreeLayout } from './free-layout.js';
import { waysOn, type Blank, type PlacedBlank, type Rectangle } from './guillotine.js';

/** What a blank really is, as it is drawn, from its lower left corner; and whether it may lie end for end. */
export interface BlankShape {
  area: Area;
  mayTurnEnd: boolean;
}

/** A sheet is looked at in about so many cells: a mm each on writing paper. */
const CELLS = 62_500;
const LEAST_CELL: Mm = 1;
/** More blanks than this are laid by their boxes alone: looking at the outlines of all would take too long. */
const MOST_BLANKS = 120;
/** So many rectangles that are left are told. */
const MOST_LEFT = 8;
const LEAST_LEFT: Mm = 10;

const box = ({ width, height }: Blank): number => width * height;
const ORDERS: readonly ((a: Blank, b: Blank) => number)[] = [
  (a, b) => box(b) - box(a),
  (a, b) => Math.max(b.width, b.height) - Math.max(a.width, a.height),
];

/** Where a point of a blank lies on the sheet. */
export function onSheet([x, y]: Point, { blank, turned, endForEnd, ...at }: PlacedBlank): Point {
  const [u, v] = endForEnd ? [blank.width - x, blank.height - y] : [x, y];
  return turned ? [at.x + blank.height - v, at.y + u] : [at.x + u, at.y + v];
}

/** An area of a blank where it lies. */
export const areaOnSheet = (area: Area, placed: PlacedBlank): Area => movedArea(area, (point) => onSheet(point, placed));

/** The cells of a sheet: coarser on a larger one. */
export const cellFor = ({ width, height }: { width: Mm; height: Mm }): Mm => Math.max(LEAST_CELL, Math.sqrt((width * height) / CELLS));

/** An area with some room round it and within its holes. */
export function withRoom({ outer, holes }: Area, room: Mm): Area[] {
  const grown = unite(offset(outer, room).map(asArea));
  const open = holes.flatMap((hole) => offset(hole, -room)).map(asArea);
  return areasOf(open.length > 0 ? subtract(areasOf(grown), open) : grown);
}

/**
 * Blanks laid by their true outlines, with some room between them, each as low and then as far left as it goes: into notches,
 * windows and beside one another end for end. A sheet is looked at in small cells and a blank takes every cell it reaches into, so that
 * none can lie over another. Nothing where there are more than can be looked at.
 */
export function nested(
  blanks: readonly Blank[],
  sheet: { width: Mm; height: Mm },
  gap: Mm,
  shapeOf: (blank: Blank) => BlankShape,
  goOn: () => boolean = () => true,
): FreeLayout | undefined {
  if (blanks.length > MOST_BLANKS) return undefined;
  const fitting = blanks.filter((blank) => waysOn(blank, sheet).length > 0);
  const tooLarge = blanks.filter((blank) => !fitting.includes(blank));
  const table = new NestingTable(sheet, gap, shapeOf);
  let best: NestedSheet[] | undefined;
  for (const order of ORDERS) {
    const laid = table.lay([...fitting].sort(order), goOn);
    if (!laid) break;
    if (!best || laid.length < best.length || (laid.length === best.length && lastHigh(laid) < lastHigh(best) - 1e-6)) best = laid;
  }
  return best && { sheets: best.map(({ placed, map }) => ({ placed, left: freeRectangles(map, sheet) })), tooLarge };
}

interface NestedSheet {
  placed: PlacedBlank[];
  map: CellMap;
  /** from where on a shape that lies so is looked for: what lies there already leaves it no place before */
  from: Map<string, number>;
}

const lastHigh = (sheets: readonly NestedSheet[]): Mm => Math.max(0, ...(sheets.at(-1)?.placed ?? []).map(({ y, height }) => y + height));

/** One way that a blank may lie, in cells: itself, and with the room round it. */
interface Lying {
  key: string;
  way: Pick<PlacedBlank, 'turned' | 'endForEnd' | 'width' | 'height'>;
  own: CellMap;
  wide: CellMap;
}

class NestingTable {
  private readonly cell: Mm;
  private readonly known = new Map<string, Lying[]>();

  constructor(
    private readonly sheet: { width: Mm; height: Mm },
    private readonly gap: Mm,
    private readonly shapeOf: (blank: Blank) => BlankShape,
  ) {
    this.cell = cellFor(sheet);
  }

  lay(order: readonly Blank[], goOn: () => boolean): NestedSheet[] | undefined {
    const sheets: NestedSheet[] = [];
    for (const blank of order) {
      if (!goOn()) return undefined;
      const ways = this.waysOf(blank);
      let found = sheets.reduce<boolean>((is, own) => is || this.put(blank, ways, own), false);
      if (found) continue;
      sheets.push({ placed: [], map: new CellMap(this.sheet.width, this.sheet.height, this.cell), from: new Map() });
      found = this.put(blank, ways, sheets.at(-1)!);
      // On an empty sheet whatever is small enough has a place.
      if (!found) throw new Error(`no place for ${blank.id} on an empty sheet`);
    }
    return sheets;
  }

  /** Lays a blank on a sheet, the way in which it ends lowest. */
  private put(blank: Blank, ways: readonly Lying[], own: NestedSheet): boolean {
    let best: { lying: Lying; column: number; row: number; top: Mm } | undefined;
    for (const lying of ways) {
      const at = this.placeFor(lying, own);
      const top = at ? at.row * this.cell + lying.way.height : Infinity;
      if (at && (!best || top < best.top - 1e-6 || (top < best.top + 1e-6 && at.column < best.column))) best = { lying, ...at, top };
    }
    if (!best) return false;
    const { lying, column, row } = best;
    own.placed.push({ blank, ...lying.way, x: column * this.cell, y: row * this.cell });
    own.map.takeAll(lying.own, column + shiftOf(lying.own.x, this.cell), row + shiftOf(lying.own.y, this.cell));
    return true;
  }

  private placeFor({ key, way, wide }: Lying, { map, from }: NestedSheet): { column: number; row: number } | undefined {
    const lastColumn = Math.floor((this.sheet.width - way.width) / this.cell + 1e-6);
    const lastRow = Math.floor((this.sheet.height - way.height) / this.cell + 1e-6);
    const [right, up] = [shiftOf(wide.x, this.cell), shiftOf(wide.y, this.cell)];
    const perRow = lastColumn + 1;
    for (let at = from.get(key) ?? 0; at < perRow * (lastRow + 1); at++) {
      const [row, column] = [Math.floor(at / perRow), at % perRow];
      if (map.meets(wide, column + right, row + up)) continue;
      from.set(key, at);
      return { column, row };
    }
    from.set(key, Infinity);
    return undefined;
  }

  private waysOf(blank: Blank): Lying[] {
    const { area, mayTurnEnd } = this.shapeOf(blank);
    const shape = JSON.stringify([area, blank.lies, mayTurnEnd]);
    const known = this.known.get(shape);
    if (known) return known;
    const ways = waysOn(blank, this.sheet).flatMap(({ width, height, turned }) =>
      (mayTurnEnd ? [false, true] : [false]).map((end): Lying => {
        const way = { width, height, turned, ...(end && { endForEnd: true as const }) };
        const lies = areaOnSheet(area, { blank, x: 0, y: 0, ...way });
        return {
          key: `${shape} ${turned} ${end}`,
          way,
          own: CellMap.of([lies], this.cell),
          wide: CellMap.of(withRoom(lies, this.gap), this.cell),
        };
      }),
    );
    this.known.set(shape, ways);
    return ways;
  }
}

const shiftOf = (mm: Mm, cell: Mm): number => Math.round(mm / cell);

/** The largest rectangles that are left of a sheet, one after the other, none over another; cells may reach past its edges. */
export function freeRectangles(map: CellMap, sheet: { width: Mm; height: Mm }): Rectangle[] {
  const found: Rectangle[] = [];
  while (found.length < MOST_LEFT) {
    const next = map.largestFree();
    if (!next || Math.min(next.width, next.height) < LEAST_LEFT) break;
    found.push({ ...next, width: Math.min(next.width, sheet.width - next.x), height: Math.min(next.height, sheet.height - next.y) });
    map.takeRectangle(next);
  }
  return found;
}
