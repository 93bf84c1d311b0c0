import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** Space between pieces for a machine; by hand one cut parts two pieces. */
const GAP: Mm = 4;

/** A sheet with the lower left corner of its place in a drawing, y up; turned a quarter to the left where it fits only so. */
export interface PlacedSheet {
  sheet: CutSheet;
  x: Mm;
  y: Mm;
  turned: boolean;
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

export const wide = ({ sheet, turned }: Pick<PlacedSheet, 'sheet' | 'turned'>): Mm => (turned ? sheet.height : sheet.width);
export const high = ({ sheet, turned }: Pick<PlacedSheet, 'sheet' | 'turned'>): Mm => (turned ? sheet.width : sheet.height);

interface Row {
  y: Mm;
  height: Mm;
  end: Mm;
}

/**
 * Pieces in rows on as few beds as rows give, the highest first; none touches another. One that a bed takes only turned is
 * turned, one that no bed takes lies by itself.
 */
export function onBeds(sheets: readonly CutSheet[], bed: Bed = { width: 600, height: Infinity }, gap: Mm = GAP): PlacedSheet[][] {
  const fits = (own: Pick<PlacedSheet, 'sheet' | 'turned'>): boolean => wide(own) <= bed.width + 1e-6 && high(own) <= bed.height + 1e-6;
  const lying = sheets.map((sheet) => ({ sheet, turned: !fits({ sheet, turned: false }) && fits({ sheet, turned: true }) }));
  const beds: { placed: PlacedSheet[]; rows: Row[] }[] = [];
  for (const own of [...lying].sort((a, b) => high(b) - high(a))) {
    const [across, up] = [wide(own), high(own)];
    if (!fits(own)) {
      beds.push({ placed: [{ ...own, x: 0, y: 0 }], rows: [{ y: 0, height: Infinity, end: Infinity }] });
      continue;
    }
    const place = beds.map(({ rows }, i) => ({ i, row: rowFor(rows, across, up, bed, gap) })).find(({ row }) => row !== undefined);
    if (place) putIn(beds[place.i]!, place.row!, own, gap);
    else {
      beds.push({ placed: [], rows: [] });
      putIn(beds.at(-1)!, { y: 0, height: up, end: 0 }, own, gap);
    }
  }
  return beds.map(({ placed }) => placed);
}

/** A row of a bed with room at its end, or a new one above the others. */
function rowFor(rows: readonly Row[], across: Mm, up: Mm, bed: Bed, gap: Mm): Row | undefined {
  const begun = rows.find(({ height, end }) => up <= height + 1e-6 && end + across <= bed.width + 1e-6);
  if (begun) return begun;
  const y = Math.max(0, ...rows.map((row) => row.y + row.height + gap));
  return y + up <= bed.height + 1e-6 ? { y, height: up, end: 0 } : undefined;
}

function putIn(bed: { placed: PlacedSheet[]; rows: Row[] }, row: Row, own: Pick<PlacedSheet, 'sheet' | 'turned'>, gap: Mm): void {
  if (!bed.rows.includes(row)) bed.rows.push(row);
  bed.placed.push({ ...own, x: row.end, y: row.y });
  row.end += wide(own) + gap;
}
