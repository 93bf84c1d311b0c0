import { stockOf } from '../card/card-stocks.js';
import type { Evaluation } from '../evaluate.js';
import { sayInWords } from '../measure/sentence.js';
import type { Calibration } from '../supplies/calibration.js';
import type { Workshop } from '../supplies/workshop.js';
import type { CutSheet } from '../sheet/cut-sheet.js';

/** Less than this is not worth a sentence. */
const WORTH_SAYING = 0.05;

/** What was found of a tool or stock and accepted; nothing where it is too little to be set. */
function found({ calibrations = [] }: Workshop, kind: Calibration['kind'], id: string): Calibration | undefined {
  return calibrations.find((each) => each.kind === kind && each.id === id && Math.abs(each.value) >= WORTH_SAYING);
}

/** What to mind of a trimmer that cuts wide or narrow: in the step that trims. */
export function trimmerWords(workshop: Workshop, { design }: Evaluation): string[] {
  if (workshop.schools.cutting !== 'trimmer') return [];
  return workshop.trimmers.flatMap(({ id, name }) => {
    const known = found(workshop, 'trimmer', id);
    if (!known) return [];
    const by = sayInWords(Math.abs(known.value), design.card.notation);
    return known.value > 0
      ? [`“${name}” cuts ${by} too wide: set its fence ${by} less.`]
      : [`“${name}” cuts ${by} too narrow: set its fence ${by} more.`];
  });
}

/** What to mind of a board whose scores land beside what is read. */
export function boardOffsetWords(workshop: Workshop, { design }: Evaluation): string[] {
  const known = found(workshop, 'board', design.card.board);
  if (!known) return [];
  const by = sayInWords(Math.abs(known.value), design.card.notation);
  return known.value > 0
    ? [`This board scores ${by} too far from its zero: let the edge lie ${by} from the zero toward the first groove.`]
    : [`This board scores ${by} too near its zero: let the edge lie ${by} beyond the zero, away from the grooves.`];
}

/** What to mind of a stock whose folds take room: in the step that folds. */
export function foldWords(workshop: Workshop, { design }: Evaluation, { piece }: CutSheet): string[] {
  const stock = stockOf(design, piece);
  const known = found(workshop, 'fold', stock.id);
  if (!known || known.value < 0) return [];
  return [
    `Folds of ${stock.name} bulge by ${sayInWords(known.value, design.card.notation)} each: so much wider a panel measures from outside.`,
  ];
}
