import type { Evaluation } from '../evaluate.js';
import type { BondJoint } from '../linkage/structure.js';
import type { Workshop } from '../supplies/workshop.js';
import { adhesiveFor } from './adhesive.js';
import { guides, placeWords } from './glue-place.js';
import { joinOf } from './joins-said.js';
import { faceWords } from './lay-up.js';
import { flat, FOAM, GLUE, type BenchStep } from './step.js';

/**
 * Joining, in the order of the joints: what lies flat first, the last joint of a loop closed onto so that the closed card
 * sets it, stops at the very end, when the foot shows where they belong. Joints of one strip that are made at once are one step.
 */
export function glueSteps(evaluation: Evaluation, workshop: Workshop): BenchStep[] {
  const { design, motion } = evaluation;
  const closing = new Set(motion.tree.openBonds.map((bond) => bond.id));
  const isLast = ({ id, source: { made, atOnce } }: BondJoint): boolean =>
    made === undefined ? atOnce === undefined && closing.has(id) : made !== 'on the table';
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

const isRaised = (evaluation: Evaluation, bond: BondJoint): boolean => pieceOf(evaluation, bond).thickness !== undefined;

/** Raised stock that carries nothing is there for a foot to rest against. */
const isStop = (evaluation: Evaluation, bond: BondJoint): boolean =>
  isRaised(evaluation, bond) &&
  !evaluation.design.linkage.bonds.some((other) => other !== bond && (other.a === bond.a || other.b === bond.a));

function glueStep(evaluation: Evaluation, workshop: Workshop, bonds: readonly BondJoint[], last: boolean): BenchStep {
  const { sheets } = evaluation;
  const [{ id, source }] = bonds as [BondJoint, ...BondJoint[]];
  const piece = pieceOf(evaluation, bonds[0]!);
  const sheet = sheets.find((s) => s.piece.id === piece.id)!;
  const zones = bonds.flatMap((bond) => piece.zones.find(({ id: own }) => own === bond.source.zone) ?? []);
  const stop = isStop(evaluation, bonds[0]!);
  const { grip, name: adhesive, setMinutes } = adhesiveFor(evaluation, bonds[0]!, workshop);
  const onFilm = grip === 'film';
  const name = source.atOnce ?? source.name;
  const waits = source.made === 'with the next';
  // What is closed onto last of several joints is in the card already.
  const inPlace = waits || source.made === 'by closing';
  const verb = onFilm ? 'Tape' : 'Glue';
  const marks = onFilm ? [] : bonds.flatMap((bond) => guides(evaluation, bond));
  const lines = marks.filter(({ cross }) => !cross);
  const crosses = marks.filter(({ cross }) => cross);
  const where = bonds.flatMap((bond) => placeWords(evaluation, bond) ?? []);
  const places = [...new Set(zones.map(({ says }) => says.replace(/^(glue|tape) /, '')))];
  return {
    id: `glue-${id}`,
    kind: 'glue',
    title: waits ? `Put glue on: ${name}` : last ? `Close onto the ${onFilm ? 'tape' : 'glue'}: ${name}` : `${verb}: ${name}`,
    says: [
      `${piece.name}: ${inPlace ? 'it is in its place already. ' : `lay it ${faceWords(sheet, source.face)}. `}${verb} goes only where it is hatched${places.length > 0 ? `: ${places.join('; ')}` : ''}.`,
      onFilm ? `Use ${adhesive}, not glue: glue lets go of film, and shows through it.` : `Use ${adhesive}.`,
      ...new Set(bonds.flatMap((bond) => bond.source.says ?? [])),
      ...(source.flat ? ['Do it with the card lying flat and open, so that both ends lie where they belong.'] : []),
      ...new Set(where),
      ...(lines.length > 0 ? [`Its side lies on the pencil line: ${[...new Set(lines.map(({ says }) => says))].join('; ')}.`] : []),
      ...(crosses.length > 0
        ? [`Two of its corners lie on pencil crosses, which it hides: ${crosses.map(({ says }) => says).join('; ')}.`]
        : []),
      ...(waits ? ['Do not close it yet: the next joint is made together with this one, while the glue is wet.'] : []),
      ...(last && !waits ? ['Lay it there, then close the card onto it and press: the closed card sets the place.'] : []),
      ...(stop ? ['The foot will rest against it.'] : []),
      ...(grip === 'slidable' ? ['Push the card flat both ways while it is wet, so that every part finds its place.'] : []),
      onFilm ? 'Rub the tape down hard; nothing sticky may stick out.' : 'Wipe off what squeezes out before it reaches a fold.',
    ],
    readings: [],
    glues: bonds.map((bond) => bond.id),
    joins: bonds.map((bond) => joinOf(evaluation, bond)),
    ...(last && !waits && { closesCard: true as const }),
    picture: flat(sheet, { face: source.face, zones: zones.map((zone) => zone.id), scores: sheet.scores.map((s) => s.id) }),
    cautions: isRaised(evaluation, bonds[0]!) ? [GLUE, FOAM] : onFilm ? [] : [GLUE],
    ...(setMinutes > 0 && { dryMinutes: setMinutes }),
  };
}
