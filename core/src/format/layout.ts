import type { Mm } from '../measure/units.js';
import { stockOf } from '../card/card-stocks.js';
import type { Evaluation } from '../evaluate.js';
import { everySheet } from '../dress/every-sheet.js';
import { high, onBeds, wide, type Bed, type PlacedSheet } from '../plan/beds.js';
import type { Workshop } from '../supplies/workshop.js';

/** What is cut in one go: pieces of one stock on one bed. */
export interface Drawing {
  /** the stock, and which of several beds it is */
  name: string;
  /** what tells its file from the others of the card */
  suffix: string;
  placed: PlacedSheet[];
  width: Mm;
  height: Mm;
  /** its one piece is larger than the bed, either way round */
  larger: boolean;
}

/** The drawings of a card and its layers for my cutter: one for each stock, as many as its bed needs. */
export function drawingsOf(evaluation: Pick<Evaluation, 'sheets' | 'dressed' | 'design'>, { cutters }: Workshop): Drawing[] {
  const { design } = evaluation;
  const sheets = everySheet(evaluation);
  const stocks = [...new Set(sheets.map(({ piece }) => stockOf(design, piece)))];
  return stocks.flatMap((stock) => {
    const own = sheets.filter(({ piece }) => stockOf(design, piece) === stock);
    const beds = onBeds(own, cutters[0]);
    return beds.map((placed, i): Drawing => {
      const size = extent(placed);
      const of = beds.length > 1 ? `, ${i + 1} of ${beds.length}` : '';
      return {
        name: `${stock.name}${of}`,
        suffix: beds.length > 1 ? `${stock.id}-${i + 1}` : stock.id,
        placed,
        ...size,
        larger: isLarger(size, cutters[0]),
      };
    });
  });
}

const isLarger = (size: Bed, bed: Bed | undefined): boolean =>
  bed !== undefined && (size.width > bed.width + 1e-6 || size.height > bed.height + 1e-6);

function extent(placed: readonly PlacedSheet[]): Bed {
  const far = placed.map((own) => ({ right: own.x + wide(own), top: own.y + high(own) }));
  return { width: Math.max(0, ...far.map(({ right }) => right)), height: Math.max(0, ...far.map(({ top }) => top)) };
}
