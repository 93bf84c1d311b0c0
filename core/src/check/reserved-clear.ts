import { claimsOf } from '../card/draw.js';
import { spoken } from '../measure/sentence.js';
import { intersect } from '../plane/boolean.js';
import { boxOf } from '../plane/outline.js';
import type { Check, Verdict } from './finding.js';
import { mended } from './mended.js';

const TOUCHING = 0.05;

/** Does an opening reach into a place that is kept for something else? */
export const reservedClear: Check = ({ design }) => {
  const kept = claimsOf(design, 'reserved') ?? [];
  const found = kept.flatMap(({ id, panel, outline, for: purpose, mend, owner }): Verdict[] => {
    const { piece } = design.panels[design.linkage.bodyOf.get(panel)!]!;
    return piece.windows.flatMap((window): Verdict[] => {
      const shared = intersect([{ outer: outline, holes: [] }], [{ outer: window.outline, holes: [] }]);
      if (shared.length === 0) return [];
      const { minX, maxX } = boxOf(shared.flat());
      const value = maxX - minX;
      if (value <= TOUCHING) return [];
      return [
        {
          id: `reserved-clear/${id}`,
          check: 'reserved-clear',
          severity: 'fail',
          value,
          limit: 0,
          unit: 'mm',
          panels: [panel],
          at: 0,
          says: `The window of ${design.panels[design.linkage.bodyOf.get(panel)!]!.name} reaches ${spoken(value)} into the part ${purpose}: what lies there shows in it and catches on its edge.`,
          ...(mend && mend.value > 0 && { fix: mended(mend, owner) }),
        },
      ];
    });
  });
  if (kept.length > 0 && found.length === 0) {
    found.push({
      id: 'reserved-clear',
      check: 'reserved-clear',
      severity: 'pass',
      says: 'No opening reaches where something else lies when closed.',
    });
  }
  return found;
};
