import { claimsOf } from '../card/draw.js';
import { spoken } from '../measure/sentence.js';
import { intersect } from '../plane/boolean.js';
import { boxOf } from '../plane/outline.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check, Verdict } from './finding.js';

/** Edges that overlap by less are side by side, and so little more height is not felt. */
const LEAST = CLOSING_PLAY;

/**
 * Do layers inside the closed card lie on a raised block (a stop, a rim)? Both are meant to lie between the leaves side by
 * side: on each other their heights add up.
 */
export const layersOnBlocks: Check = ({ design, closed }) =>
  claimsOf(design, 'inner-layer').flatMap(({ outline, thickness, owner }, i) =>
    design.panels.flatMap((panel, body): Verdict[] => {
      const height = panel.piece.thickness;
      if (height === undefined) return [];
      const shared = intersect([{ outer: outline, holes: [] }], [closed.stack.layers[body]!.area]);
      if (shared.length === 0) return [];
      const { minX, maxX, minY, maxY } = boxOf(shared.flat());
      const [across, along] = [maxX - minX, maxY - minY];
      // As bad as the narrower of what overlaps and what the lower of the two adds.
      const value = Math.min(across, along, thickness, height);
      if (value <= LEAST) return [];
      return [
        {
          id: `layers-on-blocks/${panel.id}${i > 0 ? `/${i + 1}` : ''}`,
          check: 'layers-on-blocks',
          severity: 'warn',
          owner,
          value,
          limit: LEAST,
          unit: 'mm',
          panels: [panel.id],
          at: 0,
          says: `Closed, the layers inside lie on ${panel.name} over ${spoken(across)} × ${spoken(along)}, where both together are ${spoken(thickness + height)} high: begin them beyond it, or leave that place out.`,
        },
      ];
    }),
  );
