import type { ClosedCard } from '../card/closed-card.js';
import type { Side } from '../card/dressing.js';
import type { Design } from '../card/join.js';
import { lookOn, visibleFaces } from '../card/visibility.js';
import { frameBetween, poseOf, type Motion } from '../linkage/motion.js';
import { MOMENTS, type Moment, type SeenSide } from './layer.js';
import { onPanel, topOf } from './reading-up.js';

const SEEN = new WeakMap<Motion, readonly SeenSide[]>();

/**
 * Every face that is seen from in front: closed, half open or as the card is put down, in the order of the panels. Worked out
 * once for a motion: what a card wears hides none of its faces.
 */
export function seenSides(design: Design, motion: Motion, closed: Pick<ClosedCard, 'stack'>): readonly SeenSide[] {
  const known = SEEN.get(motion);
  if (known) return known;
  const seen = facesSeen(design, motion, closed);
  SEEN.set(motion, seen);
  return seen;
}

function facesSeen(design: Design, motion: Motion, closed: Pick<ClosedCard, 'stack'>): SeenSide[] {
  const { at } = design.base.rest;
  const found = new Map<string, { panel: string; face: 'up' | 'down'; shows: Moment[]; up: Side }>();
  for (const moment of MOMENTS) {
    const s = { closed: 0, half: at / 2, open: at }[moment];
    const frame = s === 0 ? motion.frames[0]! : frameBetween(motion, s);
    const pose = poseOf(motion, frame);
    const flat = frame === motion.frames[0];
    const { above } = lookOn(design, flat, 'front');
    for (const { panel, face } of visibleFaces(design, motion, closed, frame, 'front')) {
      const key = `${panel} ${face}`;
      const m = pose[design.linkage.bodyOf.get(panel)!]!;
      const up = sideToward(flat ? onPanel(m, above) : topOf(m, design.base.rest).toward);
      const known = found.get(key);
      if (!known) found.set(key, { panel, face, shows: [moment], up });
      else {
        known.shows.push(moment);
        // Which way it reads is how it is put down, else how it lies closed: on the way nobody reads.
        if (moment === 'open') known.up = up;
      }
    }
  }
  const order = new Map(design.panels.map(({ id }, i) => [id, i]));
  const rank = ({ panel, face }: SeenSide): number => 2 * order.get(panel)! + (face === 'up' ? 0 : 1);
  return [...found.values()].sort((a, b) => rank(a) - rank(b));
}

/** The side of a panel, as drawn, that lies nearest to where the top of a picture on it is. */
function sideToward([x, y]: readonly [number, number]): Side {
  // Half-way between two sides it is read along its own height.
  if (Math.abs(x) > Math.abs(y) + 1e-6) return x > 0 ? 'right' : 'left';
  return y >= 0 ? 'top' : 'bottom';
}
