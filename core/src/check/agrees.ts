import { claimsOf } from '../card/draw.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toDegrees, type Mm, type Radians } from '../measure/units.js';
import type { Check } from './finding.js';
import { mended } from './mended.js';

/** Are numbers of a part alike that must be? What goes unsaid passes: most parts have nothing that could differ. */
export const agrees: Check = ({ design }) =>
  claimsOf(design, 'agreement')
    .filter(({ value, wanted, play, atLeast }) => (atLeast ? wanted - value : Math.abs(value - wanted)) > play)
    .map((claim) => {
      const { id, name, value, wanted, unit, play, or, panels, mend, owner } = claim;
      const print = (n: number): string => (unit === 'rad' ? printAngle(n as Radians) : spoken(n as Mm));
      const inUnit = (n: number): number => (unit === 'rad' ? toDegrees(n as Radians) : n);
      return {
        id: `agrees/${id}`,
        check: 'agrees',
        severity: 'fail' as const,
        value: inUnit(Math.abs(value - wanted)),
        limit: inUnit(play),
        unit: unit === 'rad' ? ('deg' as const) : ('mm' as const),
        panels: [...panels],
        owner,
        says: `${name}: ${print(value)}, and ${claim.with}: ${print(wanted)}. ${claim.atLeast ? 'It is too small by' : 'They differ by'} ${print(Math.abs(value - wanted))}: ${or}.`,
        ...(mend && { fix: mended(mend, owner) }),
      };
    });
