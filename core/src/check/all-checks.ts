import { agrees } from './agrees.js';
import { bandsOff } from './bands-off.js';
import { bentRowsMeet } from './bent-rows-meet.js';
import { bulk } from './bulk.js';
import { clears } from './clears.js';
import { withCauses } from './causes.js';
import { closesLoop } from './closes-loop.js';
import { dressingPlaced } from './dressing-placed.js';
import { equalWidths } from './equal-widths.js';
import { ROOT } from '../card/document.js';
import type { CheckInput, Finding, Verdict } from './finding.js';
import { filmCarries } from './film-carries.js';
import { foldsFlat } from './folds-flat.js';
import { gluedShut } from './glued-shut.js';
import { glueClear } from './glue-clear.js';
import { hasRoom } from './has-room.js';
import { hasSheet } from './has-sheet.js';
import { layersOnBlocks } from './layers-on-blocks.js';
import { magnetsHold } from './magnets-hold.js';
import { meets } from './meets.js';
import { neverGoesPast } from './never-past.js';
import { opensInOrder } from './opens-in-order.js';
import { paperTaken } from './paper-taken.js';
import { reservedClear } from './reserved-clear.js';
import { ribbonsTie } from './ribbons-tie.js';
import { rises } from './rises.js';
import { scoreable } from './scoreable.js';
import { slotFits } from './slot-fits.js';
import { stands } from './stands.js';
import { staysInside } from './stays-inside.js';
import { stiffEnough } from './stiff-enough.js';
import { snags } from './snags.js';
import { swingClears } from './swing-clears.js';
import { toppersPlaced } from './toppers-placed.js';
import { thicknessPull } from './thickness-pull.js';
import { writable } from './writable.js';

const CHECKS = [
  paperTaken,
  equalWidths,
  agrees,
  closesLoop,
  bentRowsMeet,
  foldsFlat,
  meets,
  reservedClear,
  hasRoom,
  rises,
  staysInside,
  neverGoesPast,
  clears,
  slotFits,
  swingClears,
  stands,
  stiffEnough,
  filmCarries,
  thicknessPull,
  bulk,
  layersOnBlocks,
  hasSheet,
  scoreable,
  glueClear,
  dressingPlaced,
  toppersPlaced,
  gluedShut,
  magnetsHold,
  snags,
  bandsOff,
  ribbonsTie,
  opensInOrder,
  writable,
] as const;
const WEIGHT = { fail: 0, warn: 1, pass: 2 } as const;

/** Runs every check. Worst first; what follows from another finding comes after its cause. */
export function runChecks(input: CheckInput): Finding[] {
  const owners = new Map(input.design.panels.map(({ id, part }) => [id, part ?? ROOT]));
  const found = withCauses(CHECKS.flatMap((check) => check(input))).map((verdict): Finding => ({
    ...verdict,
    owner: ownerOf(verdict, input, owners),
    shortfall: shortfallOf(verdict),
  }));
  const isRoot = (finding: Finding): number => (finding.followsFrom ? 1 : 0);
  return found.sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity] || isRoot(a) - isRoot(b));
}

/** The part that a verdict is about: the one farthest from the base among its panels and creases. */
function ownerOf({ owner, panels = [], creases = [] }: Verdict, { design }: CheckInput, owners: ReadonlyMap<string, string>): string {
  if (owner !== undefined) return owner;
  const beside = creases.flatMap((id) => {
    const hinge = design.linkage.hinges[design.linkage.hingeIndex.get(id) ?? -1];
    return hinge ? [hinge.source.left, hinge.source.right] : [];
  });
  const order = design.parts.map(({ id }) => id);
  const named = [...panels, ...beside].map((id) => owners.get(id) ?? ROOT);
  return named.reduce((far, id) => (order.indexOf(id) > order.indexOf(far) ? id : far), ROOT);
}

/** How far a value is on the wrong side of its limit; what fails without a number of its own is one whole thing wrong. */
function shortfallOf({ severity, shortfall, value, limit }: Verdict): number {
  if (severity === 'pass') return 0;
  if (shortfall !== undefined) return shortfall;
  return value === undefined || limit === undefined ? 1 : Math.abs(value - limit);
}
