import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import type { Mm, Radians } from '../measure/units.js';
import type { Mend } from '../claim/claims.js';
import type { Fix } from './finding.js';

/** A fault of one size of a part, put right. */
export function mended({ size, label, value, unit }: Mend, owner: string): Fix {
  const print = unit === 'rad' ? printAngle(value as Radians) : spoken(value as Mm);
  return { says: `Make the ${label} ${print}.`, changes: [{ owner, size, value }] };
}
