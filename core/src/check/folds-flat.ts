import { claimsOf } from '../card/draw.js';
import type { PropAt } from '../card/closed-card.js';
import { JOINT_SLACK, poseOf, type Motion } from '../linkage/motion.js';
import { carry } from '../linkage/rigid.js';
import { spoken } from '../measure/sentence.js';
import { toDegrees } from '../measure/units.js';
import { CLOSING_PLAY, CREASE_GIVE_CALIPERS, CREASE_ZONE, GAPE_SEEN, GAPE_TOO_MUCH } from '../supplies/limits.js';
import type { Panel } from '../sheet/panels.js';
import { ofBoth, type Check, type CheckInput, type Verdict } from './finding.js';

const FLAT_ANGLE = 1;
const FLAT_HEIGHT = 0.2;
/** Less than this is not worth a word. */
const LEAST_TOLD = 0.005;

/** Do all panels lie in one plane when closed, without passing through each other, and does the pile let the card shut? */
export const foldsFlat: Check = (input) => [liesFlat(input), ...crossings(input), ...gapes(input)];

function liesFlat({ design, motion, free }: CheckInput): Verdict {
  const { misfit, holds, joint } = free.closedFlat;
  const joined = joint.map((id) => design.panels[design.linkage.bodyOf.get(id)!]!.name);
  const base = { id: 'folds-flat', check: 'folds-flat', value: misfit, limit: CLOSING_PLAY, unit: 'mm' as const, at: 0 };
  if (!holds) {
    const out = farthestOut(design, free);
    const binds = free.frames[0]!.misfit > JOINT_SLACK;
    const off =
      joined.length > 0 ? `${joined[0]!} is off its place on ${joined[1]!} by ${spoken(misfit)}` : `a joint is off by ${spoken(misfit)}`;
    return {
      ...base,
      severity: 'fail',
      panels: [...new Set([...joint, ...(out.angle > FLAT_ANGLE ? [out.panel.id] : [])])],
      ...(binds && free.worstMisfit > CLOSING_PLAY && { followsFrom: 'closes-loop' }),
      says:
        `It does not fold flat: pressed flat, ${off}` +
        (out.angle > FLAT_ANGLE
          ? `; ${binds ? 'forced shut' : 'left to itself'}, ${out.panel.name} stands ${out.angle.toFixed(0)}° out of the leaf.`
          : '.'),
    };
  }
  const out = farthestOut(design, motion);
  if (out.angle > FLAT_ANGLE || out.height > FLAT_HEIGHT) {
    return {
      ...base,
      value: out.height,
      limit: FLAT_HEIGHT,
      severity: 'fail',
      panels: [out.panel.id],
      says: `Shut, ${out.panel.name} stands ${out.angle.toFixed(0)}° out of the leaf, ${spoken(out.height)} high: the card does not fold flat.`,
    };
  }
  const given = misfit > LEAST_TOLD ? ` A joint is off by ${spoken(misfit)}, which creases and paper give.` : '';
  return { ...base, severity: 'pass', says: `Closed, every panel lies flat.${given}` };
}

/** The panel that stands out of the closed card most. */
function farthestOut(design: CheckInput['design'], motion: Motion): { angle: number; height: number; panel: Panel } {
  const pose = poseOf(motion, motion.frames[0]!);
  let worst = { angle: 0, height: 0, panel: design.panels[0]! };
  design.panels.forEach((panel, body) => {
    const angle = toDegrees(Math.acos(Math.min(1, Math.abs(pose[body]![10]!))));
    const height = Math.max(...panel.area.outer.map(([x, y]) => Math.abs(carry(pose[body]!, x, y, 0)[2])));
    if (angle > worst.angle + 1e-9 || (angle <= FLAT_ANGLE && height > worst.height)) worst = { angle, height, panel };
  });
  return worst;
}

/** Sheets that overlap by less than the play of a closing card have no order. */
const LEAST_CROSSING = CLOSING_PLAY;

function crossings({ design, closed, free }: CheckInput): Verdict[] {
  const { holds } = free.closedFlat;
  const base = { check: 'folds-flat', severity: 'fail' as const, limit: LEAST_CROSSING, unit: 'mm' as const, at: 0 };
  const found = closed.stack.crossings.map(({ bodies: [a, b], width }): Verdict => {
    const [one, other] = [design.panels[a]!, design.panels[b]!];
    return {
      ...base,
      id: `folds-flat/crossing/${ofBoth(one.id, other.id)}`,
      value: width,
      panels: [one.id, other.id],
      ...(!holds && { followsFrom: 'folds-flat' }),
      says: `On closing, ${one.name} and ${other.name} would have to pass through each other.`,
    };
  });
  if (found.length === 0 && closed.stack.circle > 0) {
    found.push({
      ...base,
      id: 'folds-flat/circle',
      value: closed.stack.circle,
      ...(!holds && { followsFrom: 'folds-flat' }),
      says: 'The closed panels lie on one another in a circle: they cannot be stacked.',
    });
  }
  return found;
}

/**
 * A fold that closes round a stack is propped open by it. For stiff leaves the angle is the largest
 * thickness(r) ÷ r, less what a spine takes up, and the free edge gapes by the leaf's depth times that.
 * Within 20 mm of the fold the crease itself gives by about one caliper of each leaf.
 */
function gapes({ design, closed }: CheckInput): Verdict[] {
  const creaseGives = CREASE_GIVE_CALIPERS * design.stocks.base.caliper;
  return claimsOf(design, 'closing').map((closing): Verdict => {
    const spine = closing.spined ? closed.spines[closing.hinge]! : 0;
    const angleOf = ({ r, thickness }: PropAt): number => Math.max(0, (thickness - spine - (r < CREASE_ZONE ? creaseGives : 0)) / r);
    const none: PropAt = { r: closing.depth, thickness: 0 };
    const prop = closed.props[closing.hinge]!.reduce((worst, here) => (angleOf(here) > angleOf(worst) ? here : worst), none);
    const value = angleOf(prop) * closing.depth;
    const severity = value > GAPE_TOO_MUCH ? 'fail' : value > GAPE_SEEN ? 'warn' : 'pass';
    const spineHelps = !closing.spined && closing.spineSize !== '' && severity !== 'pass';
    return {
      id: `folds-flat/gape/${closing.hinge}`,
      check: 'folds-flat',
      severity,
      owner: closing.owner,
      value,
      limit: GAPE_SEEN,
      unit: 'mm',
      creases: [closing.hinge],
      at: 0,
      says:
        value < 0.05
          ? `The ${closing.name} closes without gaping${spine > 0 ? `: its spine of ${spoken(spine)} takes up the stack` : ''}.`
          : `The free edge gapes about ${spoken(value)}: ${spoken(prop.thickness)} of stack begins ${spoken(prop.r)} from the ${closing.name} (an upper estimate for stiff leaves; card gives a little).`,
      ...(spineHelps && {
        fix: {
          says: `Give the ${closing.name} a spine of ${spoken(closed.spines[closing.hinge]!)}.`,
          changes: [{ owner: closing.owner, size: closing.spineSize, value: 'auto' }],
        },
      }),
    };
  });
}
