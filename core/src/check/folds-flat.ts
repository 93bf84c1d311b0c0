import { claimsOf } from '../card/draw.js';
import type { PropAt } from '../card/closed-card.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import { carry } from '../linkage/rigid.js';
import { spoken } from '../measure/sentence.js';
import { toDegrees } from '../measure/units.js';
import { CREASE_GIVE_CALIPERS, CREASE_ZONE, GAPE_SEEN, GAPE_TOO_MUCH } from '../supplies/limits.js';
import { ofBoth, type Check, type CheckInput, type Verdict } from './finding.js';

const FLAT_ANGLE = 1;
const FLAT_HEIGHT = 0.2;

/** Do all panels lie in one plane when closed, without passing through each other, and does the pile let the card shut? */
export const foldsFlat: Check = (input) => [liesFlat(input), ...crossings(input), ...gapes(input)];

function liesFlat({ design, motion }: CheckInput): Verdict {
  const frame = motion.frames[0]!;
  const pose = poseOf(motion, frame);
  let worst = { angle: 0, height: 0, panel: design.panels[0]! };
  design.panels.forEach((panel, body) => {
    const angle = toDegrees(Math.acos(Math.min(1, Math.abs(pose[body]![10]!))));
    const height = Math.max(...panel.area.outer.map(([x, y]) => Math.abs(carry(pose[body]!, x, y, 0)[2])));
    if (angle > worst.angle + 1e-9 || (angle <= FLAT_ANGLE && height > worst.height)) worst = { angle, height, panel };
  });
  const base = { id: 'folds-flat', check: 'folds-flat', value: worst.angle, limit: FLAT_ANGLE, unit: 'deg' as const, at: 0 };
  if (frame.misfit > JOINT_SLACK) {
    return {
      ...base,
      severity: 'fail',
      followsFrom: 'closes-loop',
      panels: [worst.panel.id],
      says:
        worst.angle < FLAT_ANGLE
          ? `It does not fold flat: forced shut, a joint is off by ${spoken(frame.misfit)}.`
          : `It does not fold flat, because it cannot be closed: forced shut, ${worst.panel.name} stands ${worst.angle.toFixed(0)}° out of the leaf.`,
    };
  }
  if (worst.angle > FLAT_ANGLE || worst.height > FLAT_HEIGHT) {
    return {
      ...base,
      severity: 'fail',
      panels: [worst.panel.id],
      says: `Shut, ${worst.panel.name} stands ${worst.angle.toFixed(0)}° out of the leaf, ${spoken(worst.height)} high: the card does not fold flat.`,
    };
  }
  return { ...base, severity: 'pass', says: 'Closed, every panel lies flat.' };
}

/** A card that is forced shut lies anyhow: there the order of layers says nothing. */
function crossings({ design, closed, motion }: CheckInput): Verdict[] {
  if (motion.frames[0]!.misfit > JOINT_SLACK) return [];
  const found = closed.stack.crossings.map(([a, b]): Verdict => {
    const [one, other] = [design.panels[a]!, design.panels[b]!];
    return {
      id: `folds-flat/crossing/${ofBoth(one.id, other.id)}`,
      check: 'folds-flat',
      severity: 'fail',
      panels: [one.id, other.id],
      at: 0,
      says: `On closing, ${one.name} and ${other.name} would have to pass through each other.`,
    };
  });
  if (found.length === 0 && closed.stack.order.length === 0) {
    found.push({
      id: 'folds-flat/circle',
      check: 'folds-flat',
      severity: 'fail',
      at: 0,
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
function gapes({ design, closed, motion }: CheckInput): Verdict[] {
  if (motion.frames[0]!.misfit > JOINT_SLACK) return [];
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
