import { stockOf } from '../card/card-stocks.js';
import { everySheet } from '../dress/every-sheet.js';
import type { Evaluation } from '../evaluate.js';
import type { Mm } from '../measure/units.js';
import { areaOf, type Area } from '../plane/outline.js';
import { plainRectangle } from '../plane/plain-rectangle.js';
import type { CutSheet } from '../sheet/cut-sheet.js';
import { isClear, type Stock } from '../supplies/stocks.js';
import type { Blank, Rectangle } from './guillotine.js';

/** One piece of one copy of a card, as it is cut. */
export interface JobPiece {
  /** `base`, of several copies `base#2`; of a topper that is cut thrice and glued together the second `topper-1~2` */
  id: string;
  sheet: CutSheet;
  /** from 1 */
  copy: number;
  /** one more than the cards need: to keep as a sample, or for when one is spoilt */
  spare?: true;
}

/** All pieces of one stock of so many cards. */
export interface CutJob {
  stock: Stock;
  pieces: JobPiece[];
}

/**
 * Every piece of so many cards, what they wear and their envelopes among them, by the stock that they are cut from.
 * @param spares one more of each topper, and of what it is put together with
 */
export function cutJobs(evaluation: Evaluation, copies: number, spares = false): CutJob[] {
  const toppers = new Map(evaluation.dressed.toppers.map(({ id, times }) => [id, times]));
  const sampled = new Set(evaluation.dressed.toppers.flatMap(({ id, under }) => [id, ...under.map((each) => each.id)]));
  const jobs = new Map<string, CutJob>();
  for (const sheet of everySheet(evaluation)) {
    const stock = stockOf(evaluation.design, sheet.piece);
    const job = jobs.get(stock.id) ?? { stock, pieces: [] };
    jobs.set(stock.id, job);
    const times = toppers.get(sheet.piece.id) ?? 1;
    for (let copy = 1; copy <= copies; copy++) {
      for (let nth = 1; nth <= times; nth++) {
        const id = nth === 1 ? sheet.piece.id : `${sheet.piece.id}~${nth}`;
        job.pieces.push({ id: copies === 1 ? id : `${id}#${copy}`, sheet, copy });
      }
    }
    if (spares && sampled.has(sheet.piece.id)) job.pieces.push({ id: `${sheet.piece.id}#spare`, sheet, copy: copies + 1, spare: true });
  }
  return [...jobs.values()];
}

/** Which way the grain of a sheet runs as it lies, its width from left to right; nothing where it has none that is known. */
export function grainOn({ grain }: Stock, { width, height }: { width: Mm; height: Mm }): 'across' | 'up' | undefined {
  if (grain === undefined || grain === 'none' || width === height) return undefined;
  return (grain === 'long') === width > height ? 'across' : 'up';
}

/**
 * Which ways a piece may lie on a sheet. Scored pieces have their main scores along the grain, upright as they are drawn; what has
 * one good side only carries a pattern, which stays upright; all else may lie either way. A scored piece that fits only across the
 * grain lies so.
 */
export function waysOf(
  { sheet: { scores, width, height } }: JobPiece,
  stock: Stock,
  on: { width: Mm; height: Mm },
): Pick<Blank, 'lies'> & { acrossGrain: boolean; mayTurnEnd: boolean } {
  const grain = grainOn(stock, on);
  const isPatterned = stock.goodSides === 1 && !isClear(stock);
  const mayTurnEnd = !isPatterned;
  if (scores.length > 0 && grain) {
    const [wanted, other] = grain === 'up' ? (['upright', 'turned'] as const) : (['turned', 'upright'] as const);
    const fits = (lies: 'upright' | 'turned'): boolean => {
      const [w, h] = lies === 'upright' ? [width, height] : [height, width];
      return w <= on.width + 1e-6 && h <= on.height + 1e-6;
    };
    return fits(wanted) || !fits(other) ? { lies: wanted, acrossGrain: false, mayTurnEnd } : { lies: other, acrossGrain: true, mayTurnEnd };
  }
  return { lies: isPatterned ? 'upright' : 'either', acrossGrain: false, mayTurnEnd };
}

/** The paper of a piece as it is cut: its outline, less what is cut out of it. */
export const paperOf = ({ outline, windows }: CutSheet): Area => ({ outer: outline, holes: windows.map((window) => window.outline) });

/** Whether a piece is its blank, whole: nothing is gained by looking at its outline. */
export const fillsBlank = (sheet: CutSheet): boolean => areaOf(paperOf(sheet)) > sheet.width * sheet.height - 0.01;

/** What is cut out of a piece and large enough to cut another from: the largest plain rectangle of each window, as the piece is drawn. */
export function openingsOf({ windows }: CutSheet): Rectangle[] {
  return windows.flatMap(({ outline }) => {
    const box = plainRectangle({ outer: outline, holes: [] });
    return box ? [{ x: box.minX, y: box.minY, width: box.maxX - box.minX, height: box.maxY - box.minY }] : [];
  });
}
