import type { Evaluation } from '../evaluate.js';
import { emptyPose, poseAt, type Pose } from '../linkage/kinematics.js';
import { frameBetween, poseOf } from '../linkage/motion.js';
import { carryDirection, inverted, multiply, rigidIdentity, type Vec3 } from '../linkage/rigid.js';
import type { BondJoint } from '../linkage/structure.js';
import { toRadians, type Mm } from '../measure/units.js';
import { areaOf } from '../plane/outline.js';
import type { BenchStep } from './step.js';

/** What is seen of a step in the round, on the way from the state before it (share 0) to the state after it (share 1). */
export interface StepMotion {
  /** what of what it wears is on it by then */
  wears: 'nothing' | 'layers' | 'all';
  /** only these panels; all where left out */
  panels?: readonly string[];
  /** where the whole card stands on its drive, where it moves as a whole */
  drive?: (share: number) => number;
  /** where the panels are, where they move otherwise */
  poses?: (share: number) => Pose;
  /** which way is up, and from where it is looked at, where that is not as the card rests */
  stands?: { up: Vec3; viewFrom: Vec3 };
}

/** So far a piece is folded lightly. */
const LIGHTLY = toRadians(60);
/** From so far off a glued part comes. */
const OFFERED_FROM: Mm = 40;
/** A piece whose folds hang together in loops is folded as the card folds it, by so much of its drive. */
const LOOPED_SHARE = 0.4;

/** On the table, its upper face toward the maker. */
const ON_THE_TABLE = { up: [0, 0, 1], viewFrom: [0.3, -1, 1.1] } as const;

/** How a step looks in the round; nothing where it leaves everything flat. @param steps all of them: those before tell what is glued */
export function stepMotion(evaluation: Evaluation, steps: readonly BenchStep[], step: BenchStep): StepMotion | undefined {
  const { at } = evaluation.design.base.rest;
  if (step.kind === 'fold' && step.picture?.kind === 'flat') return folding(evaluation, step.picture.piece);
  if (step.kind === 'glue') return gluing(evaluation, steps, step);
  if (step.kind === 'test') return { wears: 'all', drive: (share) => share * at };
  if (step.kind === 'dry-fit' || step.kind === 'burnish') return { wears: 'nothing', drive: (share) => (1 - share) * at };
  if (step.kind === 'post') return { wears: 'all', drive: (share) => (1 - share) * at };
  return undefined;
}

/** One piece on the table, each fold the way it is scored. */
function folding({ design, motion }: Evaluation, id: string): StepMotion | undefined {
  const { linkage, panels } = design;
  const own = panels.flatMap(({ piece }, body) => (piece.id === id ? [body] : []));
  if (own.length < 2) return undefined;
  const root = own.reduce((a, b) => (areaOf(panels[b]!.area) > areaOf(panels[a]!.area) ? b : a));
  const ids = own.map((body) => panels[body]!.id);
  const hinges = linkage.hinges.flatMap(({ left, loose }, h) => (own.includes(left) && !loose ? [h] : []));
  const looped =
    hinges.some((h) => motion.tree.openHinges.includes(h)) || linkage.hinges.some(({ left, loose }) => loose && own.includes(left));
  const shown = (pose: Pose): Pose => {
    const home = inverted(pose[root]!);
    return pose.map((rigid) => {
      const moved = rigidIdentity();
      multiply(moved, home, rigid);
      return moved;
    });
  };
  if (looped) return { wears: 'nothing', panels: ids, drive: (share) => 1 - LOOPED_SHARE * share };
  return {
    wears: 'nothing',
    panels: ids,
    stands: ON_THE_TABLE,
    poses: (share) => {
      const folds = new Float64Array(linkage.hinges.length);
      for (const h of hinges) folds[h] = share * LIGHTLY * (linkage.hinges[h]!.source.crease.fold === 'valley' ? 1 : -1);
      const pose = emptyPose(linkage);
      poseAt(pose, linkage, motion.tree, folds);
      return shown(pose);
    },
  };
}

/** What is glued together by then; a part comes from where it is offered, or the card closes onto it. */
function gluing(evaluation: Evaluation, steps: readonly BenchStep[], step: BenchStep): StepMotion {
  const { design, motion } = evaluation;
  const { panels, linkage } = design;
  const bondsOf = ({ glues = [] }: BenchStep): BondJoint[] => linkage.bonds.filter(({ id }) => glues.includes(id));
  const earlier = steps.slice(0, steps.indexOf(step)).flatMap(bondsOf);
  const own = bondsOf(step);
  const pieceOf = (body: number): string => panels[body]!.piece.id;
  const hangsWith = (piece: string): Set<string> => {
    const found = new Set([piece]);
    for (let before = 0; before < found.size;) {
      before = found.size;
      for (const { a, b } of earlier) if (found.has(pieceOf(a)) || found.has(pieceOf(b))) found.add(pieceOf(a)).add(pieceOf(b));
    }
    return found;
  };
  const [first] = own as [BondJoint, ...BondJoint[]];
  const coming = hangsWith(pieceOf(first.a));
  const there = new Set(own.flatMap(({ b }) => [...hangsWith(pieceOf(b))]));
  const ids = panels.flatMap(({ id, piece }) => (coming.has(piece.id) || there.has(piece.id) ? [id] : []));
  if (step.closesCard || own.some(({ b }) => coming.has(pieceOf(b)))) return { wears: 'layers', panels: ids, drive: (share) => 1 - share };
  const open = poseOf(motion, frameBetween(motion, 1));
  const toward = carryDirection(open[first.b]!, 0, 0, first.source.partnerFace === 'up' ? OFFERED_FROM : -OFFERED_FROM);
  return {
    wears: 'layers',
    panels: ids,
    poses: (share) =>
      open.map((rigid, body) => {
        if (!coming.has(pieceOf(body))) return rigid;
        const moved = rigid.slice();
        toward.forEach((mm, axis) => (moved[4 * axis + 3]! += mm * (1 - share)));
        return moved;
      }),
  };
}
