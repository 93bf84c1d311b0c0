import { closeOntoGlue } from '../linkage/close-onto-glue.js';
import { unjoinedPanel } from '../linkage/spanning-tree.js';
import { assemble, brokenReferences, type Linkage, type LinkageInput } from '../linkage/structure.js';
import { splitPiece, type Panel, type SplitFault } from '../sheet/panels.js';
import type { CardProblem, Drawing } from './draw.js';
import { ROOT } from './document.js';
import type { Worn } from './worn.js';

/** Everything about a card before it moves: its drawing, the panels it folds into, and how they are joined. */
export interface Design extends Drawing {
  panels: readonly Panel[];
  faults: readonly SplitFault[];
  linkage: Linkage;
  /** what its panels wear; nothing until it is dressed */
  worn: readonly Worn[];
}

export type JoinOutcome = { ok: true; design: Design } | { ok: false; problems: CardProblem[] };

/** Splits the pieces of a drawing into panels and joins them by folds and glue. What cannot be joined is told with its part. */
export function join(drawing: Drawing): JoinOutcome {
  const split = drawing.pieces.map(splitPiece);
  const panels = split.flatMap((piece) => piece.panels);
  const order = new Map(drawing.parts.map(({ id }, i) => [id, i]));
  const input: LinkageInput = {
    panels,
    hinges: split.flatMap((piece) => piece.hinges),
    bonds: drawing.bonds,
    touches: drawing.touches,
    couplings: drawing.couplings,
    ground: drawing.base.ground,
    tierOf: ({ part }) => order.get(part ?? ROOT) ?? 0,
  };
  const broken = brokenReferences(input, [drawing.schedule.opening.hinge]);
  if (broken.length > 0) return { ok: false, problems: broken.map(({ owner, says }) => ({ owner: owner ?? ROOT, size: '', says })) };
  const drawn = assemble(input);
  const lost = unjoinedPanel(drawn);
  if (lost) return { ok: false, problems: [fallsApart(lost)] };
  const placed = closeOntoGlue(input);
  return {
    ok: true,
    design: {
      ...drawing,
      panels,
      faults: split.flatMap((piece) => piece.faults),
      linkage: placed === input ? drawn : assemble(placed),
      worn: [],
    },
  };
}

/** Sizes each within its limits may still cut a piece through. */
function fallsApart({ piece, name, part }: Panel): CardProblem {
  return {
    owner: part ?? ROOT,
    size: '',
    says: `${piece.name} falls apart: ${name} is joined to nothing. Make its openings smaller or the piece larger.`,
  };
}
