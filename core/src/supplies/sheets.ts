import type { Mm } from '../measure/units.js';

/** A sheet as bought. */
export interface SheetSize {
  id: string;
  name: string;
  width: Mm;
  height: Mm;
}

/** How many blanks of a size a sheet gives in a plain grid, and whether they lie turned on it. */
export function blanksFrom(sheet: SheetSize, width: Mm, height: Mm): { count: number; turned: boolean } {
  const grid = (w: Mm, h: Mm): number => Math.floor(sheet.width / w + 1e-9) * Math.floor(sheet.height / h + 1e-9);
  const straight = grid(width, height);
  const turned = grid(height, width);
  return turned > straight ? { count: turned, turned: true } : { count: straight, turned: false };
}

/** A sheet for a blank, and how many blanks it gives. */
export interface SheetFor {
  sheet: SheetSize;
  count: number;
}

/** The sheet of which a blank wastes least: least of the sheet for each blank that it gives; the first of those alike. */
export function bestSheet(sheets: readonly SheetSize[], width: Mm, height: Mm): SheetFor | undefined {
  const used = ({ sheet, count }: SheetFor): number => (sheet.width * sheet.height) / count;
  return sheets
    .map((sheet): SheetFor => ({ sheet, count: blanksFrom(sheet, width, height).count }))
    .filter(({ count }) => count > 0)
    .reduce<SheetFor | undefined>((best, found) => (best && used(best) <= used(found) + 1e-6 ? best : found), undefined);
}

/** By how much a blank is too large for the sheet that comes nearest to holding it; 0 where one holds it. */
export function tooLargeBy(sheets: readonly Pick<SheetSize, 'width' | 'height'>[], width: Mm, height: Mm): Mm {
  const over = (w: Mm, h: Mm): Mm => Math.max(0, width - w, height - h);
  return Math.min(Infinity, ...sheets.map((sheet) => Math.min(over(sheet.width, sheet.height), over(sheet.height, sheet.width))));
}
