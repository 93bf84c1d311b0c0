import { CLOSING_PLAY } from '../supplies/limits.js';
import { claimsOf } from '../card/draw.js';
import { capitalised } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { boxOf } from '../plane/outline.js';
import type { Check, CheckInput } from './finding.js';
import { mended } from './mended.js';

/** Widths closer than this fold together. */
const ALLOWED = CLOSING_PLAY;

/** Are panels that must be equally wide equally wide? Widths are read off the flat pieces, across the scores. */
export const equalWidths: Check = ({ design }) =>
  claimsOf(design, 'equal-widths').map(({ id, name, a, b, or, mend, owner }) => {
    const [one, other] = [widthOf(design, a.panels), widthOf(design, b.panels)];
    const value = Math.abs(one - other);
    const ok = value <= ALLOWED;
    const each = a.panels.length > 1 ? ' each' : '';
    return {
      id: `equal-widths/${id}`,
      check: 'equal-widths',
      severity: ok ? ('pass' as const) : ('fail' as const),
      value,
      limit: ALLOWED,
      unit: 'mm' as const,
      panels: [...a.panels, ...b.panels],
      says: ok
        ? `${capitalised(name)} are equally wide, ${spoken(one)}${each}.`
        : `${capitalised(a.says)} ${a.panels.length > 1 ? 'are' : 'is'} ${spoken(one)} wide${each}, ${b.says} ${spoken(other)}: ${spoken(value)} apart, so that ${or}.`,
      ...(!ok && mend && { fix: mended(mend, owner) }),
    };
  });

/** Mean width of some panels, across the scores of their piece. */
function widthOf(design: CheckInput['design'], ids: readonly string[]): number {
  const widths = ids.map((id) => {
    const { minX, maxX } = boxOf(design.panels[design.linkage.bodyOf.get(id)!]!.area.outer);
    return maxX - minX;
  });
  return widths.reduce((sum, width) => sum + width, 0) / widths.length;
}
