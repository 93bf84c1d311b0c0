import { plainMm } from '../measure/print.js';
import type { Fix } from './finding.js';

/** A fault of one size, put right. */
export function mended({ size, label, value }: { size: string; label: string; value: number }): Fix {
  return { says: `Make the ${label} ${plainMm(value)}.`, changes: [{ owner: 'base', size, value }] };
}
