import { cutOnce } from '../dress/layer.js';
import { stockOf } from '../card/card-stocks.js';
import { ROOT } from '../card/document.js';
import { printAngle, sayLength } from '../measure/print.js';
import { markedLike, toDegrees } from '../measure/units.js';
import { envelopeSheets, everySheet } from '../dress/every-sheet.js';
import type { Evaluation } from '../evaluate.js';

/** How numbers and columns are written: a spreadsheet reads what its country writes. */
export type CsvDialect = 'point' | 'comma';

/**
 * All measures of a card and all places of its scores, one a line: part, piece, name, value, unit, the value as the card's
 * ruler reads it, reason; mm and degrees to a thousandth. With a decimal comma the columns are parted by semicolons. Begins with the mark by which spreadsheets
 * know UTF-8.
 */
export function writeCsv({ measures, sheets, dressed, design }: Evaluation, dialect: CsvDialect = 'point'): string {
  const separator = dialect === 'point' ? ',' : ';';
  const number = (value: number): string => {
    const text = String(Number(value.toFixed(3)));
    return dialect === 'point' ? text : text.replace('.', ',');
  };
  const notation = markedLike(design.card.notation, dialect === 'point' ? 'mm' : 'mm/comma');
  const read = (mm: number): string => sayLength(mm, notation);
  const rows = [
    ['part', 'piece', 'measure', 'value', 'unit', 'as read', 'why'],
    ...measures.map(({ owner, label, value, unit, because }) => [
      owner,
      '',
      label,
      number(unit === 'rad' ? toDegrees(value) : value),
      unit === 'rad' ? 'deg' : 'mm',
      unit === 'rad' ? printAngle(value, notation) : read(value),
      because,
    ]),
    ...cutOnce(dressed.layers).flatMap(({ part, number: name, sheet, stock }) =>
      [['across', sheet.width] as const, ['up', sheet.height] as const].map(([way, mm]) => [
        part,
        sheet.piece.name,
        `${name}, ${way}`,
        number(mm),
        'mm',
        read(mm),
        `${stock.name}, as it is cut: good side toward you, what is up on the open card at the top`,
      ]),
    ),
    ...everySheet({ sheets: [], dressed })
      .filter(({ piece }) => !dressed.layers.some(({ id }) => id === piece.id))
      .flatMap(({ piece, width, height }) =>
        [['across', width] as const, ['up', height] as const].map(([way, mm]) => [
          piece.part ?? ROOT,
          piece.name,
          `${piece.name}, ${way}`,
          number(mm),
          'mm',
          read(mm),
          `${stockOf(design, piece).name}, ${piece.because}`,
        ]),
      ),
    ...[
      ...sheets,
      ...cutOnce(dressed.layers).map(({ sheet }) => sheet),
      ...envelopeSheets({ dressed }),
      ...dressed.bands.map(({ sheet }) => sheet),
    ].flatMap(({ piece, scores }) =>
      scores.map(({ name, fold, from, to }) => [
        piece.part ?? ROOT,
        piece.name,
        name,
        number(from[0]),
        'mm',
        read(from[0]),
        `${fold} from ${number(from[0])} / ${number(from[1])} to ${number(to[0])} / ${number(to[1])}, from the lower left corner`,
      ]),
    ),
  ];
  const lines = new Set(rows.map((row) => row.map((cell) => quoted(cell, separator)).join(separator)));
  return `\uFEFF${[...lines].join('\r\n')}\r\n`;
}

/** Quotes a cell where the separator, a quote or a line break stands in it (RFC 4180). */
function quoted(cell: string, separator: string): string {
  return cell.includes(separator) || /["\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
}
