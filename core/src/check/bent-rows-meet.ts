import { missedBy } from '../card/bent-rows.js';
import { claimsOf } from '../card/draw.js';
import { capitalised } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check } from './finding.js';

/** Panels that bend on the way lie flat at both ends of it: do they meet there? */
export const bentRowsMeet: Check = ({ design, motion }) =>
  claimsOf(design, 'bends').map((row) => {
    const { closed, open } = missedBy(row, motion);
    const value = Math.max(closed, open);
    const fails = value > CLOSING_PLAY;
    return {
      id: `bent-rows-meet/${row.id}`,
      check: 'bent-rows-meet',
      severity: fails ? ('fail' as const) : ('pass' as const),
      value,
      limit: CLOSING_PLAY,
      unit: 'mm' as const,
      panels: [...row.panels, ...row.held],
      at: closed >= open ? 0 : 1,
      owner: row.owner,
      says: fails
        ? `${closed >= open ? 'Closed' : 'Open'}, ${row.name} does not come together: its two sides miss each other by ${spoken(value)}.`
        : `${capitalised(row.name)} lies flat closed and open; on the way it bends.`,
      ...(fails &&
        row.mend && { fix: { says: row.mend.says, changes: [{ owner: row.owner, size: row.mend.size, value: row.mend.value }] } }),
    };
  });
