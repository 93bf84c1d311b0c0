import { claimsOf } from '../card/draw.js';
import type { Design } from '../card/join.js';
import { carryFlat, inverted, type Rigid } from '../linkage/rigid.js';
import type { Mm } from '../measure/units.js';
import { areasOf, subtract } from '../plane/boolean.js';
import { areaContains, areaOf, asArea, movedArea, type Area, type Loop } from '../plane/outline.js';
import { between, distanceToSegment, type Point } from '../plane/point.js';
import type { Panel } from '../sheet/panels.js';
import type { Face } from '../sheet/piece.js';

/** A cut inside a panel is taken as an opening this wide. */
const CUT: Mm = 0.02;
/** Lines this close lie on one another. */
const ON_LINE: Mm = 0.05;

/**
 * What of a face of a panel can wear something flat: the panel without what is glued on that face, and without cuts that end
 * inside it, through which something passes. Zones that are kept clear of glue and of what is raised may wear what is flat.
 */
export function freeFace(design: Design, panel: Panel, face: Face): Area[] {
  const taken: Area[] = [
    ...gluedOn(design, panel, face),
    ...panel.piece.cuts
      .filter(({ from, to }) => areaContains(panel.area, between(from, to, 0.5)))
      .map(({ from, to }) => asArea(sliver(from, to))),
  ];
  return taken.length === 0 ? [panel.area] : areasOf(subtract([panel.area], taken));
}

/** The panels that are glued on a face, where they lie on it. */
function gluedOn({ linkage, panels }: Design, panel: Panel, face: Face): Area[] {
  const body = linkage.bodyOf.get(panel.id)!;
  return linkage.bonds.flatMap(({ a, b, fixed, source }): Area[] => {
    if (a === body && source.face === face) return [movedBy(panels[b]!.area, inverted(fixed))];
    if (b === body && source.partnerFace === face) return [movedBy(panels[a]!.area, fixed)];
    return [];
  });
}

const movedBy = (area: Area, by: Rigid): Area => movedArea(area, (point) => carryFlat(by, point));

function sliver(from: Point, to: Point): Loop {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy);
  const [ox, oy] = [((-dy / length) * CUT) / 2, ((dx / length) * CUT) / 2];
  return [
    [from[0] - ox, from[1] - oy],
    [to[0] - ox, to[1] - oy],
    [to[0] + ox, to[1] + oy],
    [from[0] + ox, from[1] + oy],
  ];
}

/** Whether an edge of a panel lies beside another panel's in the closed card, so that a picture runs over both. */
export function isSeam(design: Design, panel: string, from: Point, to: Point): boolean {
  return claimsOf(design, 'meeting').some(({ sideBySide, a, b }) => {
    if (!sideBySide) return false;
    return [a, b].some(
      (edge) => edge.panel === panel && [from, to].every((point) => distanceToSegment(point, edge.from, edge.to) < ON_LINE),
    );
  });
}

/** Whether glue on its other face holds nearly all of a panel: what is narrow and held so is a tab. */
export function isHeldBehind({ linkage }: Design, panel: Panel, face: Face): boolean {
  const body = linkage.bodyOf.get(panel.id)!;
  const glued = linkage.bonds
    .filter(({ a, b, source }) => (a === body && source.face !== face) || (b === body && source.partnerFace !== face))
    .reduce((sum, { corners }) => sum + areaOf(asArea(corners)), 0);
  return glued > 0.6 * areaOf(panel.area);
}
