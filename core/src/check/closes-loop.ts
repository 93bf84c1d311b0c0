import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Stretch } from '../linkage/motion.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import type { Check, Verdict } from './finding.js';

/** Where the joints of a card fit that do not fit everywhere. */
function whereItFits(fits: readonly Stretch[]): string {
  const only = fits[0]!;
  if (fits.length > 1)
    return `its joints fit ${fits.map(({ opening: [from, to] }) => `from ${printAngle(from)} to ${printAngle(to)}`).join(' and ')}`;
  const says: string[] = [];
  if (only.from > 0) says.push(`it binds on closing at an opening of ${printAngle(only.opening[0])}`);
  if (only.to < 1) says.push(`it pulls taut on opening at ${printAngle(only.opening[1])}`);
  return says.join(', and ');
}

/** Do all joints fit through the whole motion, or must the card bend or bind? */
export const closesLoop: Check = ({ free }) => {
  const { reachable, fits, worstMisfit, wrongWay, freedom, frames } = free;
  const worst = frames.reduce((most, frame) => (frame.misfit > most.misfit ? frame : most));
  const found: Verdict[] = [];
  const base = { check: 'closes-loop', value: worstMisfit, limit: CLOSING_PLAY, unit: 'mm' as const };
  if (worstMisfit <= CLOSING_PLAY) {
    found.push({
      ...base,
      id: 'closes-loop',
      severity: 'pass',
      says: `Every joint fits through the whole motion, ${worstMisfit < 1e-6 ? 'to a millionth of a mm' : worstMisfit < 0.01 ? 'to a hundredth of a mm' : `to ${spoken(worstMisfit)}, which creases and paper give`}.`,
    });
  } else {
    const forced = `Forced further, a joint is off by ${spoken(worstMisfit)} at ${printAngle(worst.opening)}.`;
    found.push({
      ...base,
      id: 'closes-loop',
      severity: 'fail',
      at: fits.length === 0 ? worst.s : reachable.from > 0 ? reachable.from : reachable.to,
      says:
        fits.length === 0
          ? `The joints fit at no opening: one is off by up to ${spoken(worstMisfit)}, so the card must bend or tear.`
          : `The card cannot go its whole way: ${whereItFits(fits)}. ${forced}`,
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
