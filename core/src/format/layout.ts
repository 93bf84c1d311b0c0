import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { stockOf } from '../card/card-stocks.js';
import type { Evaluation } from '../evaluate.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Workshop } from '../supplies/workshop.js';

/** Space between pieces of a drawing. */
const GAP: Mm = 4;

/** A sheet with the lower left corner of its place in a drawing, y up; turned a quarter to the left where it fits only so. */
export interface PlacedSheet {
  sheet: CutSheet;
  x: Mm;
  y: Mm;
  turned: boolean;
}

/** What is cut in one go: pieces of one stock on one bed. */
export interface Drawing {
  /** the stock, and which of several beds it is */
  name: string;
  /** what tells its file from the others of the card */
  suffix: string;
  placed: PlacedSheet[];
  width: Mm;
  height: Mm;
  /** its one piece is larger than the bed, either way round */
  larger: boolean;
}

/** What a cutter’s bed holds, or a sheet. */
export interface Bed {
  width: Mm;
  height: Mm;
}

/** Where a point of a placed sheet lies in its drawing, y up. */
export function placeIn({ sheet, x, y, turned }: PlacedSheet, [px, py]: Point): Point {
  return turned ? [x + sheet.height - py, y + px] : [x + px, y + py];
}

/** The drawings of a card for my cutter: one for each stock, as many as its bed needs. */
export function drawingsOf({ sheets, design }: Pick<Evaluation, 'sheets' | 'design'>, { cutters }: Workshop): Drawing[] {
  const stocks = [...new Set(sheets.map(({ piece }) => stockOf(design, piece)))];
  return stocks.flatMap((stock) => {
    const own = sheets.filter(({ piece }) => stockOf(design, piece) === stock);
    const beds = onBeds(own, cutters[0]);
    return beds.map((placed, i): Drawing => {
      const size = extent(placed);
      const of = beds.length > 1 ? `, ${i + 1} of ${beds.length}` : '';
      return {
        name: `${stock.name}${of}`,
        suffix: beds.length > 1 ? `${stock.id}-${i + 1}` : stock.id,
        placed,
        ...size,
        larger: isLarger(size, cutters[0]),
      };
    });
  });
}

const isLarger = (size: Bed, bed: Bed | undefined): boolean =>
  bed !== undefined && (size.width > bed.width + 1e-6 || size.height > bed.height + 1e-6);

function extent(placed: readonly PlacedSheet[]): Bed {
  const far = placed.map((own) => ({ right: own.x + wide(own), top: own.y + high(own) }));
  return { width: Math.max(0, ...far.map(({ right }) => right)), height: Math.max(0, ...far.map(({ top }) => top)) };
}

const wide = ({ sheet, turned }: Pick<PlacedSheet, 'sheet' | 'turned'>): Mm => (turned ? sheet.height : sheet.width);
const high = ({ sheet, turned }: Pick<PlacedSheet, 'sheet' | 'turned'>): Mm => (turned ? sheet.width : sheet.height);

interface Row {
  y: Mm;
  height: Mm;
  end: Mm;
}

/**
 * Pieces in rows on as few beds as rows give, the highest first; none touches another. One that a bed takes only turned is
 * turned, one that no bed takes lies by itself.
 */
export function onBeds(sheets: readonly CutSheet[], bed: Bed = { width: 600, height: Infinity }): PlacedSheet[][] {
  const fits = (own: Pick<PlacedSheet, 'sheet' | 'turned'>): boolean => wide(own) <= bed.width + 1e-6 && high(own) <= bed.height + 1e-6;
  const lying = sheets.map((sheet) => ({ sheet, turned: !fits({ sheet, turned: false }) && fits({ sheet, turned: true }) }));
  const beds: { placed: PlacedSheet[]; rows: Row[] }[] = [];
  for (const own of [...lying].sort((a, b) => high(b) - high(a))) {
    const [across, up] = [wide(own), high(own)];
    if (!fits(own)) {
      beds.push({ placed: [{ ...own, x: 0, y: 0 }], rows: [{ y: 0, height: Infinity, end: Infinity }] });
      continue;
    }
    const place = beds.map(({ rows }, i) => ({ i, row: rowFor(rows, across, up, bed) })).find(({ row }) => row !== undefined);
    if (place) putIn(beds[place.i]!, place.row!, own);
    else {
      beds.push({ placed: [], rows: [] });
      putIn(beds.at(-1)!, { y: 0, height: up, end: 0 }, own);
    }
  }
  return beds.map(({ placed }) => placed);
}

/** A row of a bed with room at its end, or a new one above the others. */
function rowFor(rows: readonly Row[], across: Mm, up: Mm, bed: Bed): Row | undefined {
  const begun = rows.find(({ height, end }) => up <= height + 1e-6 && end + across <= bed.width + 1e-6);
  if (begun) return begun;
  const y = Math.max(0, ...rows.map((row) => row.y + row.height + GAP));
  return y + up <= bed.height + 1e-6 ? { y, height: up, end: 0 } : undefined;
}

function putIn(bed: { placed: PlacedSheet[]; rows: Row[] }, row: Row, own: Pick<PlacedSheet, 'sheet' | 'turned'>): void {
  if (!bed.rows.includes(row)) bed.rows.push(row);
  bed.placed.push({ ...own, x: row.end, y: row.y });
  row.end += wide(own) + GAP;
}
