import { spoken } from '../measure/sentence.js';
import type { Mend } from '../claim/claims.js';
import type { Fix } from './finding.js';

/** A fault of one size of a part, put right. */
export function mended({ size, label, value }: Mend, owner: string): Fix {
  return { says: `Make the ${label} ${spoken(value)}.`, changes: [{ owner, size, value }] };
}
