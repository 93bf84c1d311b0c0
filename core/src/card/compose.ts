import type { BasePart, BuildContext, Measure, MovementPart, Tracked } from '../mechanism/contract.js';
import { baseById, movementById } from '../mechanism/catalogue.js';
import { checkSizes, fillSizes, type SizeProblem, type Sizes } from '../mechanism/sizes.js';
import { closeOntoGlue } from '../linkage/close-onto-glue.js';
import { unjoinedPanel } from '../linkage/spanning-tree.js';
import { assemble, type Linkage, type LinkageInput } from '../linkage/structure.js';
import type { Schedule } from '../linkage/schedule.js';
import type { Piece } from '../sheet/piece.js';
import { splitPiece, type Panel, type SplitFault } from '../sheet/panels.js';
import { stockById, type Stock } from '../supplies/stocks.js';
import type { CardDocument } from './document.js';
import { outlineNamed } from './own-outlines.js';
import { filledSizes, sizeContextOf, sizesOf } from './set-size.js';

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
  stocks: Record<'base' | 'mechanism' | 'display' | 'film', Stock>;
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
    film: stockById(card.stocks.film),
  };
  const { sizes, problems } = sizesAndProblems(card);
  if (problems.length > 0) return { ok: false, problems };

  const context = buildContextOf(card);
  const base = builtBase(card, sizes['base']!);
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
  const lost = unjoinedPanel(assemble(input));
  if (lost) return { ok: false, problems: [fallsApart(lost)] };
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

/** Sizes each within its limits may still cut a piece through. */
function fallsApart({ piece, name }: Panel): CardProblem {
  return {
    owner: 'base',
    size: '',
    says: `${piece.name} falls apart: ${name} is joined to nothing. Make its openings smaller or the piece larger.`,
  };
}

const buildContextOf = (card: CardDocument): Omit<BuildContext, 'sizes'> => ({
  ...sizeContextOf(card),
  outline: (name) => outlineNamed(card, name),
});

/** The base of a card by itself, its sizes not checked. */
export function builtBase(card: CardDocument, sizes: Sizes = filledSizes(card, 'base')): BasePart {
  return baseById(card.base.mechanism).build({ ...buildContextOf(card), sizes });
}

/** What is wrong with a card's sizes, if anything, without building it. */
export function problemsOf(card: CardDocument): CardProblem[] {
  return sizesAndProblems(card).problems;
}

function sizesAndProblems(card: CardDocument): { sizes: Record<string, Sizes>; problems: CardProblem[] } {
  const calipers = sizeContextOf(card);
  const sizes: Record<string, Sizes> = {};
  const problems: CardProblem[] = [];
  const parts = [
    { owner: 'base', free: baseById(card.base.mechanism).sizes, given: sizesOf(card, 'base'), named: card.base.sizes },
    ...card.movements.map((m) => ({ owner: m.id, free: movementById(m.mechanism).sizes, given: m.sizes, named: m.sizes })),
  ];
  for (const { owner, free, given, named } of parts) {
    const own = fillSizes(free, given, calipers, owner === 'base' ? {} : sizes['base']);
    sizes[owner] = own;
    const names = free.map((size) => size.name);
    problems.push(
      ...unknownSizes(owner, named, names),
      ...checkSizes(free, given, { ...calipers, sizes: own }).map((p) => ({ ...p, owner })),
    );
  }
  return { sizes, problems };
}

function unknownSizes(owner: string, given: Sizes, known: readonly string[]): CardProblem[] {
  return Object.keys(given)
    .filter((name) => !known.includes(name))
    .map((size) => ({ owner, size, says: `${size}: there is no such size; there are ${known.join(', ')}.` }));
}
