import { stockOf } from '../card/card-stocks.js';
import type { Evaluation } from '../evaluate.js';
import type { BondJoint } from '../linkage/structure.js';
import { isClear } from '../supplies/stocks.js';
import type { Workshop } from '../supplies/workshop.js';
import { flat, FOAM, GLUE, type BenchStep } from './step.js';

/**
 * Joining, in the order of the joints: what lies flat first, the last joint of a loop closed onto so that the closed card
 * sets it, stops at the very end, when the foot shows where they belong. Joints of one strip that are made at once are one step.
 */
export function glueSteps(evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const { design, motion } = evaluation;
  const closing = new Set(motion.tree.openBonds.map((bond) => bond.id));
  const isLast = (bond: BondJoint): boolean => bond.source.atOnce === undefined && closing.has(bond.id);
  const rank = (bond: BondJoint): number => (isStop(evaluation, bond) ? 2 : Number(isLast(bond)));
  const ordered = [...design.linkage.bonds].sort((a, b) => rank(a) - rank(b));
  const groups: BondJoint[][] = [];
  for (const bond of ordered) {
    const { atOnce } = bond.source;
    const group = atOnce === undefined ? undefined : groups.find(([first]) => first!.source.atOnce === atOnce);
    if (group) group.push(bond);
    else groups.push([bond]);
  }
  return groups.map((bonds) => glueStep(evaluation, workshop, bonds, isLast(bonds[0]!)));
}

const pieceOf = ({ design }: Evaluation, { a }: BondJoint) => design.panels[a]!.piece;

const isStop = (evaluation: Evaluation, bond: BondJoint): boolean => pieceOf(evaluation, bond).thickness !== undefined;

function glueStep(evaluation: Evaluation, workshop: Workshop, bonds: readonly BondJoint[], last: boolean): BenchStep {
  const { design, sheets } = evaluation;
  const [{ id, source, b }] = bonds as [BondJoint, ...BondJoint[]];
  const piece = pieceOf(evaluation, bonds[0]!);
  const sheet = sheets.find((s) => s.piece.id === piece.id)!;
  const zones = bonds.flatMap((bond) => piece.zones.find(({ id: own }) => own === bond.source.zone) ?? []);
  const stop = isStop(evaluation, bonds[0]!);
  // Glue does not hold film for long, and shows through it.
  const onFilm = [piece, design.panels[b]!.piece].some((own) => isClear(stockOf(design, own)));
  const name = source.atOnce ?? source.name;
  const verb = onFilm ? 'Tape' : 'Glue';
  const placed = !onFilm && marked(design, source.partner) ? 'Lay it on its pencil line' : 'Lay it where it belongs';
  const tape = workshop.adhesives.find(({ grip }) => grip === 'film');
  return {
    id: `glue-${id}`,
    kind: 'glue',
    title: last ? `Close onto the ${onFilm ? 'tape' : 'glue'}: ${name}` : `${verb}: ${name}`,
    says: [
      `${verb} goes on the ${source.face === 'up' ? 'upper' : 'back'} face, only where it is hatched${zones.length > 0 ? `: ${[...new Set(zones.map(({ says }) => says.replace(/^(glue|tape) /, '')))].join('; ')}` : ''}.`,
      ...(onFilm ? [`Use ${tape ? lower(tape.name) : 'strong tape for film'}, not glue: glue lets go of film, and shows through it.`] : []),
      ...(source.flat ? ['Do it with the card lying flat and open, so that both ends lie where they belong.'] : []),
      ...(last ? [`${placed}, then close the card onto it and press: the closed card sets the place.`] : []),
      ...(stop ? ['Set its near side on the pencil line. The foot will rest against it.'] : []),
      onFilm ? 'Rub the tape down hard; nothing sticky may stick out.' : 'Wipe off what squeezes out before it reaches a fold.',
    ],
    readings: [],
    glues: bonds.map((bond) => bond.id),
    picture: flat(sheet, { face: source.face, zones: zones.map((zone) => zone.id), scores: sheet.scores.map((s) => s.id) }),
    cautions: stop ? [GLUE, FOAM] : onFilm ? [] : [GLUE],
    ...(!onFilm && { dryMinutes: 5 }),
  };
}

const lower = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

/** Whether the piece that a part is glued to has pencil lines to place it by. */
function marked(design: Evaluation['design'], panel: string): boolean {
  return design.pieces.some((piece) => panel.startsWith(`${piece.id}/`) && piece.marks.length > 0);
}
