import { JOINT_SLACK } from '../linkage/motion.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import type { Check, Verdict } from './finding.js';

/** Do all joints fit through the whole motion, or must the card bend or bind? */
export const closesLoop: Check = ({ motion }) => {
  const { reachable, worstMisfit, wrongWay, freedom, frames } = motion;
  const worst = frames.reduce((most, frame) => (frame.misfit > most.misfit ? frame : most));
  const found: Verdict[] = [];
  const base = { check: 'closes-loop', value: worstMisfit, limit: JOINT_SLACK, unit: 'mm' as const };
  if (worstMisfit <= JOINT_SLACK) {
    found.push({
      ...base,
      id: 'closes-loop',
      severity: 'pass',
      says: `Every joint fits through the whole motion, to ${worstMisfit < 1e-6 ? 'a millionth of a mm' : spoken(worstMisfit)}.`,
    });
  } else {
    const [from, to] = reachable.opening;
    const says: string[] = [];
    if (reachable.from > 0) says.push(`it binds on closing at an opening of ${printAngle(from)}`);
    if (reachable.to < 1) says.push(`it pulls taut on opening at ${printAngle(to)}`);
    found.push({
      ...base,
      id: 'closes-loop',
      severity: 'fail',
      at: reachable.from > 0 ? reachable.from : reachable.to,
      says:
        from === to
          ? `The joints fit at no opening: one is off by up to ${spoken(worstMisfit)}, so the card must bend or tear.`
          : `The card cannot go its whole way: ${says.join(', and ')}. Forced further, a joint is off by ${spoken(worstMisfit)} at ${printAngle(worst.opening)}.`,
    });
  }
  if (wrongWay.length > 0) {
    found.push({
      id: 'closes-loop/wrong-way',
      check: 'closes-loop',
      severity: 'fail',
      creases: wrongWay,
      says: `For the card to open, ${wrongWay.length === 1 ? 'one crease has' : `${wrongWay.length} creases have`} to fold the other way than scored.`,
    });
  }
  if (freedom > 0) {
    found.push({
      id: 'closes-loop/loose',
      check: 'closes-loop',
      severity: 'warn',
      value: freedom,
      limit: 0,
      says: `With the card held, ${freedom === 1 ? 'one part stays' : `${freedom} parts stay`} loose: nothing leads ${freedom === 1 ? 'it' : 'them'}.`,
    });
  }
  return found;
};
