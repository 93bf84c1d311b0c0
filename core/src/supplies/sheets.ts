import type { Mm } from '../measure/units.js';

/** A sheet as bought. */
export interface SheetSize {
  id: string;
  name: string;
  width: Mm;
  height: Mm;
}

export const SHEET_SIZES: readonly SheetSize[] = [
  { id: 'a4', name: 'A4', width: 210, height: 297 },
  { id: 'a3', name: 'A3', width: 297, height: 420 },
  { id: 'letter', name: 'US Letter', width: 215.9, height: 279.4 },
  { id: 'square-12', name: '12 × 12 in', width: 304.8, height: 304.8 },
  { id: 'cm-30', name: '30 × 30 cm', width: 300, height: 300 },
];

/** How many blanks of a size a sheet gives in a plain grid, and whether they lie turned on it. */
export function blanksFrom(sheet: SheetSize, width: Mm, height: Mm): { count: number; turned: boolean } {
  const grid = (w: Mm, h: Mm): number => Math.floor(sheet.width / w + 1e-9) * Math.floor(sheet.height / h + 1e-9);
  const straight = grid(width, height);
  const turned = grid(height, width);
  return turned > straight ? { count: turned, turned: true } : { count: straight, turned: false };
}
