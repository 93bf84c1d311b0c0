import type { ClosedCard } from '../card/closed-card.js';
import { ROOT } from '../card/document.js';
import { closuresOf, type BandClosure } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import type { Mm } from '../measure/units.js';
import { rectangle, type Box } from '../plane/outline.js';
import { cutSheet, type CutSheet } from '../sheet/cut-sheet.js';
import { blankPiece } from '../sheet/piece.js';
import type { Stock } from '../supplies/stocks.js';
import { bandRound, type Band } from './band.js';
import { under } from './strip-under.js';

/** One of the two ways in which a band slides off, and what is in it. */
export interface WayOff {
  toward: 'the lower end' | 'the upper end' | 'the fold' | 'the free edge';
  free: boolean;
  /** by so much what it must pass is thicker, or wider, than what it goes round */
  over: Mm;
}

/** A band as it lies round the closed card. */
export interface PlacedBand {
  closure: BandClosure;
  number: string;
  name: string;
  stock: Stock;
  part: string;
  /** the strip of the closed card that it covers, in the ground's coordinates */
  over: Box;
  /** of the card where it is thickest under the band */
  thickness: Mm;
  band: Band;
  ways: readonly [WayOff, WayOff];
  sheet: CutSheet;
}

export const bandPiece = ({ id }: Pick<BandClosure, 'id'>): string => `band-${id}`.slice(0, 64);

/** The stock that a band is cut from. */
export const bandStock = ({ card }: Pick<Design, 'card'>, { stock }: BandClosure): Stock =>
  card.supplies.stocks.find(({ id }) => id === stock)!;

/** The bands of a closed card, with what it wears. One that lies beside the card is left out. */
export function bandsOf(design: Design, closed: ClosedCard): PlacedBand[] {
  return closuresOf(design.card.dressing, 'band').flatMap((closure, i): PlacedBand[] => {
    const found = bandOn(design, closed, closure, `B${i + 1}`);
    return found ? [found] : [];
  });
}

function bandOn(design: Design, { box, pile }: ClosedCard, closure: BandClosure, number: string): PlacedBand | undefined {
  const round = closure.around === 'across';
  const [low, high] = round ? [box.minY, box.maxY] : [box.minX, box.maxX];
  const [from, to] = [Math.max(low, low + closure.at - closure.wide / 2), Math.min(high, low + closure.at + closure.wide / 2)];
  if (to - from < 1) return undefined;
  const strip = (a: Mm, b: Mm): Box => (round ? { ...box, minY: a, maxY: b } : { ...box, minX: a, maxX: b });
  const here = under(design, pile, strip(from, to), round);
  if (here.wide <= 0) return undefined;
  const band = bandRound(
    { width: here.wide, height: here.wide, thickness: here.thickness, around: round ? 'width' : 'height' },
    closure.overlap,
    closure.slip,
  );
  const way = (toward: WayOff['toward'], a: Mm, b: Mm): WayOff => {
    const there = under(design, pile, strip(a, b), round);
    const over = Math.max(there.thickness - here.thickness, there.wide - here.wide, 0);
    return { toward, over, free: over <= band.slip + 1e-6 };
  };
  const [before, after] = round ? (['the lower end', 'the upper end'] as const) : (['the fold', 'the free edge'] as const);
  const stock = bandStock(design, closure);
  return {
    ...{ closure, number, name: `${number}, band`, stock, part: ROOT, over: strip(from, to), thickness: here.thickness, band },
    ways: [way(before, low, from), way(after, to, high)],
    sheet: bandSheet(closure, number, band),
  };
}

/** The strip, its inside toward you: it is folded toward you at every edge of the card. */
function bandSheet(closure: BandClosure, number: string, { length, folds }: Band): CutSheet {
  const { wide } = closure;
  const creases = folds.map((x, i) => ({
    id: `edge-${i + 1}`,
    name: `edge ${i + 1}`,
    from: [x, 0] as const,
    to: [x, wide] as const,
    fold: 'valley' as const,
    closed: Math.PI / 2,
    ease: 0,
  }));
  return cutSheet(
    blankPiece({
      id: bandPiece(closure),
      name: `${number}, band`,
      stock: 'display',
      faceUp: 'inside up',
      outline: rectangle(0, 0, length, wide),
      because: 'once round the closed card, with its slip, and the overlap',
      creases,
      part: ROOT,
    }),
  );
}
