import type { BasePart, Measure, MovementPart, Tracked } from '../mechanism/contract.js';
import { baseById, movementById } from '../mechanism/catalogue.js';
import { checkSizes, fillSizes, type SizeProblem, type Sizes } from '../mechanism/sizes.js';
import { closeOntoGlue } from '../linkage/close-onto-glue.js';
import { assemble, type Linkage, type LinkageInput } from '../linkage/structure.js';
import type { Schedule } from '../linkage/schedule.js';
import type { Piece } from '../sheet/piece.js';
import { splitPiece, type Panel, type SplitFault } from '../sheet/panels.js';
import { stockById, type Stock } from '../supplies/stocks.js';
import type { CardDocument } from './document.js';

/** Everything about a card before it moves: flat pieces, joins, drive. Plain data throughout. */
export interface Design {
  card: CardDocument;
  base: BasePart;
  pieces: Piece[];
  panels: Panel[];
  faults: SplitFault[];
  linkage: Linkage;
  schedule: Schedule;
  measures: (Measure & { owner: string })[];
  tracked: Tracked[];
  /** all sizes by owner: `base` or a movement's id */
  sizes: Record<string, Sizes>;
  stocks: Record<'base' | 'mechanism' | 'display', Stock>;
}

/** A size that cannot be built, and whose it is. */
export interface CardProblem extends SizeProblem {
  owner: string;
}

export type Composition = { ok: true; design: Design } | { ok: false; problems: CardProblem[] };

/**
 * Turns a card document into a design: fills in sizes, checks them, builds the base, puts each movement
 * on its fold, draws their marks on the host pieces, splits pieces into panels and joins them.
 * @throws RangeError when the document names a mechanism, stock or fold that does not exist
 */
export function compose(card: CardDocument): Composition {
  const stocks = {
    base: stockById(card.stocks.base),
    mechanism: stockById(card.stocks.mechanism),
    display: stockById(card.stocks.display),
  };
  const calipers = { baseCaliper: stocks.base.caliper, mechanismCaliper: stocks.mechanism.caliper };
  const baseMechanism = baseById(card.base.mechanism);
  const baseSizes = fillSizes(baseMechanism.sizes, card.base.sizes, calipers);
  const sizes: Record<string, Sizes> = { base: baseSizes };
  const problems: CardProblem[] = [
    ...unknownSizes(
      'base',
      card.base.sizes,
      baseMechanism.sizes.map((s) => s.name),
    ),
    ...checkSizes(baseMechanism.sizes, { ...calipers, sizes: baseSizes }).map((p) => ({ ...p, owner: 'base' })),
  ];
  for (const movement of card.movements) {
    const { sizes: free } = movementById(movement.mechanism);
    const own = fillSizes(free, movement.sizes, calipers, baseSizes);
    sizes[movement.id] = own;
    problems.push(
      ...unknownSizes(
        movement.id,
        movement.sizes,
        free.map((s) => s.name),
      ),
    );
    problems.push(...checkSizes(free, { ...calipers, sizes: own }).map((p) => ({ ...p, owner: movement.id })));
  }
  if (problems.length > 0) return { ok: false, problems };

  const context = { ...calipers, displayCaliper: stocks.display.caliper };
  const base = baseMechanism.build({ ...context, sizes: baseSizes });
  const movements = card.movements.map(({ id, mechanism, host }): MovementPart & { id: string; onPiece: string } => {
    const fold = base.hostFolds.find((candidate) => candidate.id === host);
    if (!fold) throw new RangeError(`${id}: the card has no fold “${host}”; it has ${base.hostFolds.map((f) => f.id).join(', ')}`);
    return { ...movementById(mechanism).build({ ...context, sizes: sizes[id]! }, fold, id), id, onPiece: fold.piece };
  });
  const basePieces = base.pieces.map((piece) => ({
    ...piece,
    marks: [...piece.marks, ...movements.flatMap((m) => (m.onPiece === piece.id ? m.hostMarks : []))],
    zones: [...piece.zones, ...movements.flatMap((m) => (m.onPiece === piece.id ? m.hostZones : []))],
  }));
  const pieces = [...basePieces, ...movements.flatMap((m) => m.pieces)];
  const split = pieces.map(splitPiece);
  const panels = split.flatMap((s) => s.panels);
  const all = [base, ...movements];
  const input: LinkageInput = {
    panels,
    hinges: split.flatMap((s) => s.hinges),
    bonds: all.flatMap((part) => part.bonds),
    touches: all.flatMap((part) => part.touches),
    couplings: all.flatMap((part) => part.couplings),
    ground: base.ground,
    tierOfPiece: (id) => (base.pieces.some((piece) => piece.id === id) ? 0 : 1),
  };
  return {
    ok: true,
    design: {
      card,
      base,
      pieces,
      panels,
      faults: split.flatMap((s) => s.faults),
      linkage: assemble(closeOntoGlue(input)),
      schedule: base.schedule,
      measures: [
        ...base.measures.map((measure) => ({ ...measure, owner: 'base' })),
        ...movements.flatMap((m) => m.measures.map((measure) => ({ ...measure, owner: m.id }))),
      ],
      tracked: all.flatMap((part) => part.tracked),
      sizes,
      stocks,
    },
  };
}

function unknownSizes(owner: string, given: Sizes, known: readonly string[]): CardProblem[] {
  return Object.keys(given)
    .filter((name) => !known.includes(name))
    .map((size) => ({ owner, size, says: `${size}: there is no such size; there are ${known.join(', ')}.` }));
}
