import { claimsOf, type Owned } from '../card/draw.js';
import type { BendingRow } from '../claim/claims.js';
import { poseOf, type Frame } from '../linkage/motion.js';
import { carry, minus, norm } from '../linkage/rigid.js';
import { capitalised } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check, CheckInput } from './finding.js';

/** Panels that bend on the way lie flat at both ends of it: do they meet there? */
export const bentRowsMeet: Check = (input) =>
  claimsOf(input.design, 'bends').map((row) => {
    const { frames } = input.motion;
    const [closed, open] = [frames[0]!, frames[frames.length - 1]!].map((frame) => missedIn(row, frame, input));
    const value = Math.max(closed!, open!);
    const fails = value > CLOSING_PLAY;
    return {
      id: `bent-rows-meet/${row.id}`,
      check: 'bent-rows-meet',
      severity: fails ? ('fail' as const) : ('pass' as const),
      value,
      limit: CLOSING_PLAY,
      unit: 'mm' as const,
      panels: [...row.panels, ...row.held],
      at: closed! >= open! ? 0 : 1,
      owner: row.owner,
      says: fails
        ? `${closed! >= open! ? 'Closed' : 'Open'}, ${row.name} does not come together: its two sides miss each other by ${spoken(value)}.`
        : `${capitalised(row.name)} lies flat closed and open; on the way it bends.`,
      ...(fails &&
        row.mend && { fix: { says: row.mend.says, changes: [{ owner: row.owner, size: row.mend.size, value: row.mend.value }] } }),
    };
  });

/** How far the folds inside a row are from meeting in a frame: the farther of their ends. */
function missedIn({ folds }: Owned<BendingRow>, frame: Frame, { design: { linkage }, motion }: CheckInput): number {
  const pose = poseOf(motion, frame);
  const missed = folds.slice(1, -1).flatMap((fold) => {
    const { left, right, source } = linkage.hinges[linkage.hingeIndex.get(fold)!]!;
    return [source.from, source.to].map(([x, y]) => norm(minus(carry(pose[left]!, x, y, 0), carry(pose[right]!, x, y, 0))));
  });
  return Math.max(...missed);
}
