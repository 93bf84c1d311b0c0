import { inSentence } from '../card/part-titles.js';
import type { DressedLayer } from '../dress/layer.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import { carry, carryDirection, dot, minus, type Rigid } from '../linkage/rigid.js';
import { spoken } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import { intersect } from '../plane/boolean.js';
import type { Loop } from '../plane/outline.js';
import { reach } from '../plane/reach.js';
import type { Face } from '../sheet/piece.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { CheckInput, Verdict } from './finding.js';

/** Less than this no hand feels. */
const SLACK: Mm = 0.3;

/**
 * A layer may stand past a score, glued to its own panel only, where the panel beyond turns away from it. One that turns toward it
 * lifts the layer, or is held by it.
 */
export const layersPast = (input: CheckInput): Verdict[] => input.dressed.layers.flatMap((layer) => overFolds(input, layer));

function overFolds({ design, motion }: CheckInput, { id, number, panel, face, past }: DressedLayer): Verdict[] {
  if (past.length === 0) return [];
  const { bodyOf } = design.linkage;
  const own = design.panels[bodyOf.get(panel)!]!;
  const beyond = design.panels.flatMap((other) => {
    const over = other === own || other.piece !== own.piece ? [] : intersect(past, [other.area]);
    const by = reach(over);
    return by > CLOSING_PLAY ? [{ other, over, by }] : [];
  });
  if (beyond.length === 0) return [];
  const poses = motion.frames.filter(({ misfit }) => misfit <= JOINT_SLACK).map((frame) => poseOf(motion, frame));
  return beyond.flatMap(({ other, over, by }): Verdict[] => {
    const lifted = Math.max(...poses.map((pose) => heightOver(pose[bodyOf.get(panel)!]!, face, pose[bodyOf.get(other.id)!]!, over)));
    if (lifted <= SLACK) return [];
    return [
      {
        id: `dressing-placed/${id}/${other.id}`,
        check: 'dressing-placed',
        severity: 'fail',
        value: by,
        limit: CLOSING_PLAY,
        unit: 'mm',
        panels: [own.id, other.id],
        says: `${number} stands ${spoken(by)} past the fold over the ${inSentence(other.name)}, which turns toward it: it would hold the fold. Let it end ${spoken(by)} farther back.`,
      },
    ];
  });
}

/** How far some places of one panel rise over a face of another. */
function heightOver(own: Rigid, face: Face, other: Rigid, over: readonly Loop[]): Mm {
  const origin = carry(own, 0, 0, 0);
  const away = carryDirection(own, 0, 0, face === 'up' ? 1 : -1);
  return Math.max(...over.flatMap((loop) => loop.map(([x, y]) => dot(minus(carry(other, x, y, 0), origin), away))));
}
