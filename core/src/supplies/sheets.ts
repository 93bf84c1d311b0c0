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
