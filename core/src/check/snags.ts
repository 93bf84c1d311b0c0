import { inSentence } from '../card/part-titles.js';
import { JOINT_SLACK, poseOf } from '../linkage/motion.js';
import { bendingBodies } from '../linkage/structure.js';
import { printAngle } from '../measure/print.js';
import { spoken } from '../measure/sentence.js';
import { toRadians, type Mm, type Radians } from '../measure/units.js';
import type { DressedLayer } from '../dress/layer.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { intersect, totalArea } from '../plane/boolean.js';
import { boxOf, convexHull, type Area } from '../plane/outline.js';
import type { Face } from '../sheet/piece.js';
import { crossingDepth, solidOf, staysBeside, type Solid } from './crossing.js';
import type { Check, Verdict } from './finding.js';

/** Closer to closed, what is raised only holds the leaves apart: that is counted with the stack. */
const NEARLY_CLOSED = toRadians(15);
/** Less than this no hand feels. */
const SLACK: Mm = 0.3;

/** Something that is raised on its panel, or stands past an edge of it. */
interface Reaching {
  id: string;
  called: string;
  cure: string;
  panel: string;
  face: Face;
  area: Area;
  whole: readonly Area[];
  stands: Mm;
}

const ofTopper = ({ topper, number, outlineName, panel, face, area, whole, stands }: PlacedTopper): Reaching => ({
  ...{ id: topper.id, panel, face, area, whole, stands },
  called: `${number} (${topper.name ?? outlineName})`,
  cure: 'move it away from there, make it smaller, or glue it flatter',
});

/** Layers that stand past an edge, each with what lies under it. */
const pastEdges = (layers: readonly DressedLayer[]): Reaching[] =>
  layers
    .filter(({ past }) => past.length > 0)
    .map(({ id, number, panel, face, area, step }) => ({
      ...{ id, panel, face, area, whole: [area] },
      called: `${number}, which stands past an edge,`,
      cure: 'let it stand less far past',
      stands: layers
        .filter((other) => other.panel === panel && other.face === face && other.step <= step && joinsAt(other, area))
        .reduce((sum, { thickness }) => sum + thickness, 0),
    }));

const joinsAt = ({ area }: DressedLayer, over: Area): boolean => totalArea(intersect([area], [over])) > 0;

/** Does what is raised on a panel, or stands past its edge, run into another panel on the way? */
export const snags: Check = ({ design, motion, dressed }) => {
  const reaching = [...dressed.toppers.map(ofTopper), ...pastEdges(dressed.layers)];
  if (reaching.length === 0) return [];
  const { panels, linkage } = design;
  const bending = bendingBodies(linkage);
  const hulls = panels.map(({ area }) => convexHull(area.outer));
  const flat = hulls.map(boxOf);
  const watched = motion.frames.filter(({ opening, misfit }) => opening >= NEARLY_CLOSED && misfit <= JOINT_SLACK);
  const posed = watched.map((frame) => ({ frame, pose: poseOf(motion, frame), solids: new Map<number, Solid>() }));
  const found: Verdict[] = reaching.flatMap((placed): Verdict[] => {
    const own = linkage.bodyOf.get(placed.panel)!;
    const hull = convexHull(placed.whole.flatMap(({ outer }) => outer));
    const box = boxOf(hull);
    const raised = placed.face === 'up' ? placed.stands : -placed.stands;
    const hits = new Map<number, { opening: Radians; at: number; depth: Mm }>();
    for (const { frame, pose, solids } of posed) {
      let solid: Solid | undefined;
      panels.forEach((panel, body) => {
        if (body === own || bending.has(body)) return;
        // Most panels lie on one side all the way; those that do not are carried into space once for all toppers.
        const [here, there] = [pose[own]!, pose[body]!];
        if (staysBeside(box, here, raised, there, 0, SLACK) || staysBeside(flat[body]!, there, 0, here, raised, SLACK)) return;
        solid ??= solidOf({ area: placed.area }, hull, here, raised);
        let other = solids.get(body);
        if (!other) solids.set(body, (other = solidOf(panel, hulls[body]!, there)));
        const depth = crossingDepth(solid, other, SLACK);
        if (depth === 0) return;
        const known = hits.get(body);
        if (!known) hits.set(body, { opening: frame.opening, at: frame.s, depth });
        else known.depth = Math.max(known.depth, depth);
      });
    }
    const [worst] = [...hits].sort(([, a], [, b]) => b.depth - a.depth);
    if (!worst) return [];
    const [body, { opening, at, depth }] = worst;
    const other = panels[body]!;
    return [
      {
        id: `snags/${placed.id}`,
        check: 'snags',
        severity: 'fail',
        value: depth,
        limit: SLACK,
        unit: 'mm',
        panels: [placed.panel, other.id],
        at,
        says: `${placed.called} catches on the ${inSentence(other.name)} at an opening of ${printAngle(opening)}, by up to ${spoken(depth)}: ${placed.cure}.`,
      },
    ];
  });
  if (found.length > 0) return found;
  return [{ id: 'snags', check: 'snags', severity: 'pass', says: 'Nothing that is glued on catches as the card opens.' }];
};
