import { bulk } from './bulk.js';
import { clears } from './clears.js';
import { closesLoop } from './closes-loop.js';
import type { CheckInput, Finding } from './finding.js';
import { foldsFlat } from './folds-flat.js';
import { glueClear } from './glue-clear.js';
import { meets } from './meets.js';
import { scoreable } from './scoreable.js';
import { stands } from './stands.js';
import { staysInside } from './stays-inside.js';

const CHECKS = [closesLoop, foldsFlat, meets, staysInside, clears, stands, bulk, scoreable, glueClear] as const;
const WEIGHT = { fail: 0, warn: 1, pass: 2 } as const;

/** Runs every check. Worst first; what follows from another finding comes after its cause. */
export function runChecks(input: CheckInput): Finding[] {
  const found = CHECKS.flatMap((check) => check(input));
  const isRoot = (finding: Finding): number => (finding.followsFrom ? 1 : 0);
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || isRoot(a) - isRoot(b));
}
