import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';
import { LEAST_TYPE, type Frame, type MmPage, type PdfSetting } from './pdf-page.js';
import { PT } from './pdf-units.js';

export const COLUMN_GAP: Mm = 8;

/** One line or paragraph of a text, before it is set. */
export interface TextLine {
  words: string;
  bold?: boolean;
  /** a heading is kept off the line before it */
  space?: boolean;
}

interface SetLine {
  words: string;
  bold: boolean;
  height: Mm;
  /** which line of the text it is a part of */
  of: number;
}

/**
 * How many lines stand in one column: as many as there is room for, but a heading goes with what it heads into the next.
 * A column takes at least one.
 */
export function columnBreak(lines: readonly Pick<SetLine, 'bold' | 'height'>[], room: Mm): number {
  let [count, height] = [0, 0];
  while (count < lines.length && height + lines[count]!.height <= room + 1e-9) height += lines[count++]!.height;
  if (count === lines.length) return count;
  const most = count;
  while (count > 0 && lines[count - 1]!.bold) count--;
  return count > 0 ? count : Math.max(1, most);
}

/** The largest type for the text, and that of a text that goes on over further pages. */
const [LARGEST, OVER_PAGES] = [9.5, 8.5];

/** Sets text in two columns at the largest size at which all of it fits on the first page; else over further pages. */
export function flow(
  first: MmPage,
  newPage: () => MmPage,
  { regular, bold, tags }: PdfSetting,
  lines: readonly TextLine[],
  frame: Frame,
  further: Frame,
): MmPage[] {
  const columnWidth = (frame.width - COLUMN_GAP) / 2;
  const leading = (size: number): Mm => (size * 1.22) / PT;
  const setAt = (size: number): SetLine[] =>
    lines.flatMap((line, of) =>
      (line.bold ? bold : regular).wrapped(line.words, size, columnWidth).map((words, i) => ({
        words,
        bold: line.bold ?? false,
        height: leading(size) * (line.space && i === 0 ? 1.6 : 1),
        of,
      })),
    );
  const fits = (set: readonly SetLine[]): boolean => columnsOf(set, [frame, frame]).length <= 2;
  let size = LARGEST;
  while (size > LEAST_TYPE && !fits(setAt(size))) size -= 0.25;
  const onOne = fits(setAt(size));
  if (!onOne) size = OVER_PAGES;
  const elements = lines.map(({ bold: heads }) => tags.element(heads ? 'H2' : 'P'));
  const pages = [first];
  columnsOf(setAt(size), [frame, frame], further).forEach((column, i) => {
    if (i > 1 && i % 2 === 0) pages.push(newPage());
    const page = pages.at(-1)!;
    const own = i < 2 ? frame : further;
    let y = own.y + own.height;
    for (const line of column) {
      y -= line.height;
      const at: Point = [own.x + (i % 2) * (columnWidth + COLUMN_GAP), y];
      page.as(elements[line.of]!, () => page.text(line.words, at, size, { bold: line.bold }));
    }
  });
  return pages;
}

/** Lines column by column: those of the first page, then as many further ones as it takes. */
function columnsOf(set: readonly SetLine[], columns: readonly Frame[], further = columns[0]!): SetLine[][] {
  const filled: SetLine[][] = [];
  let rest = set;
  while (rest.length > 0) {
    const count = columnBreak(rest, (columns[filled.length] ?? further).height);
    filled.push(rest.slice(0, count));
    rest = rest.slice(count);
  }
  return filled;
}
