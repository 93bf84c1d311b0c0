import { stockOf } from '../card/card-stocks.js';
import { cutOnce } from '../dress/layer.js';
import { spoken } from '../measure/sentence.js';
import { tooLargeBy, type SheetSize } from '../supplies/sheets.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** Is there a sheet that holds each blank? Raised stock is built up and cut to length: it needs none. */
export const hasSheet: Check = (input) => {
  const all = [
    ...input.sheets,
    ...[...cutOnce(input.dressed.layers), ...input.dressed.toppers, ...input.dressed.toppers.flatMap(({ under }) => under)].map(
      ({ sheet }) => sheet,
    ),
  ];
  const blanks = all.filter(({ piece }) => piece.thickness === undefined);
  const found = blanks.flatMap((sheet): Verdict[] => {
    const sheets = sheetsFor(input, sheet);
    const over = tooLargeBy(sheets, sheet.width, sheet.height);
    if (sheets.length === 0 || over <= 0) return [];
    const longest = Math.max(...sheets.map(({ width, height }) => Math.max(width, height)));
    return [
      {
        id: `has-sheet/${sheet.piece.id}`,
        check: 'has-sheet',
        severity: 'warn',
        value: over,
        limit: 0,
        unit: 'mm',
        owner: sheet.piece.part ?? 'base',
        says: `${sheet.piece.name} is ${spoken(sheet.width)} × ${spoken(sheet.height)}: too large by ${spoken(over)} for any of my sheets; the longest is ${spoken(longest)}. Make it smaller, join it from two, or get a larger sheet.`,
      },
    ];
  });
  if (found.length > 0) return found;
  return [{ id: 'has-sheet', check: 'has-sheet', severity: 'pass', says: 'Every blank comes out of one of my sheets.' }];
};

/** Sheets of the size that its stock is bought in, where that is known; else all that the maker has. */
function sheetsFor({ design, workshop }: CheckInput, { piece }: CutSheet): readonly Pick<SheetSize, 'width' | 'height'>[] {
  const { sheet } = stockOf(design, piece);
  return sheet ? [sheet] : workshop.sheets;
}
