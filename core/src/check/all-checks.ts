import { bulk } from './bulk.js';
import { clears } from './clears.js';
import { withCauses } from './causes.js';
import { closesLoop } from './closes-loop.js';
import { equalWidths } from './equal-widths.js';
import type { CheckInput, Finding } from './finding.js';
import { foldsFlat } from './folds-flat.js';
import { glueClear } from './glue-clear.js';
import { hasRoom } from './has-room.js';
import { meets } from './meets.js';
import { reservedClear } from './reserved-clear.js';
import { rises } from './rises.js';
import { scoreable } from './scoreable.js';
import { slotFits } from './slot-fits.js';
import { stands } from './stands.js';
import { staysInside } from './stays-inside.js';
import { stiffEnough } from './stiff-enough.js';
import { swingClears } from './swing-clears.js';
import { thicknessPull } from './thickness-pull.js';
import { writable } from './writable.js';

const CHECKS = [
  equalWidths,
  closesLoop,
  foldsFlat,
  meets,
  reservedClear,
  hasRoom,
  rises,
  staysInside,
  clears,
  slotFits,
  swingClears,
  stands,
  stiffEnough,
  thicknessPull,
  bulk,
  scoreable,
  glueClear,
  writable,
] as const;
const WEIGHT = { fail: 0, warn: 1, pass: 2 } as const;

/** Runs every check. Worst first; what follows from another finding comes after its cause. */
export function runChecks(input: CheckInput): Finding[] {
  const found = withCauses(CHECKS.flatMap((check) => check(input)));
  const isRoot = (finding: Finding): number => (finding.followsFrom ? 1 : 0);
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || isRoot(a) - isRoot(b));
}
