import { claimsOf } from '../card/draw.js';
import { caliperOf } from '../card/card-stocks.js';
import { spoken } from '../measure/sentence.js';
import type { Check } from './finding.js';
import { mended } from './mended.js';

/**
 * Does a part that swings through an opening clear it? Turning about a face, a panel of thickness t that reaches
 * r sweeps √(r² + t²); a hand is off on each side.
 */
export const swingClears: Check = ({ design, workshop }) =>
  claimsOf(design, 'swing').map(({ id, name, panel, reach, opening, mend, owner }) => {
    const { piece } = design.panels[design.linkage.bodyOf.get(panel)!]!;
    const t = caliperOf(design, piece);
    const sweeps = Math.sqrt(reach * reach + t * t);
    const gap = opening - sweeps;
    const needed = 2 * workshop.hand.cut;
    const severity = gap < -needed ? ('fail' as const) : gap < needed ? ('warn' as const) : ('pass' as const);
    const value = opening - reach;
    return {
      id: `swing-clears/${id}`,
      check: 'swing-clears',
      severity,
      value: gap,
      limit: needed,
      unit: 'mm' as const,
      panels: [panel],
      says:
        severity === 'pass'
          ? `Swinging round, ${name} clears its opening by ${spoken(gap)}.`
          : value > 0.05
            ? `Swinging round, ${name} sweeps ${spoken(sweeps)} and its opening is ${spoken(opening)}: ${spoken(Math.max(0, gap))} of clearance, and a hand is off by ${spoken(needed)} on both sides together.`
            : `A single cut leaves ${name} no clearance: trim its free edges a little after cutting, or take a sliver out instead.`,
      ...(severity !== 'pass' && mend && { fix: mended(mend, owner) }),
    };
  });
