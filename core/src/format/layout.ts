import type { Mm } from '../measure/units.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** Space round each piece of a drawing. */
const GAP: Mm = 10;
/** Pieces stand side by side up to this width, then a new row begins. */
const ROW: Mm = 600;

/** A sheet with the upper left corner of its place in a drawing. */
export interface PlacedSheet {
  sheet: CutSheet;
  x: Mm;
  y: Mm;
}

/** Sets pieces apart in rows, none touching another. */
export function layOut(sheets: readonly CutSheet[]): { placed: PlacedSheet[]; width: Mm; height: Mm } {
  const placed: PlacedSheet[] = [];
  let [x, y, rowHeight, width] = [GAP, GAP, 0, 0];
  for (const sheet of sheets) {
    if (x > GAP && x + sheet.width + GAP > ROW) {
      [x, y, rowHeight] = [GAP, y + rowHeight + GAP, 0];
    }
    placed.push({ sheet, x, y });
    x += sheet.width + GAP;
    width = Math.max(width, x);
    rowHeight = Math.max(rowHeight, sheet.height);
  }
  return { placed, width, height: y + rowHeight + GAP };
}
