import { inSentence } from '../card/part-titles.js';
import { GLUE_DEEP, SIDE_NAMES, SIDES, type Side } from '../card/dressing.js';
import type { PlacedTopper } from '../dress/toppers.js';
import { poseOf } from '../linkage/motion.js';
import { carryFlat, inverted } from '../linkage/rigid.js';
import { stayStill } from '../linkage/still.js';
import { spoken } from '../measure/sentence.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect, subtract } from '../plane/boolean.js';
import { boxOf, movedArea, type Area } from '../plane/outline.js';
import { place, undone } from '../plane/placement.js';
import { reach } from '../plane/reach.js';
import { CLOSING_PLAY } from '../supplies/limits.js';
import type { Check, CheckInput, Verdict } from './finding.js';

/** Glue keeps so far from what it must not hold. */
const KEPT_OFF: Mm = 1;

/** Does glue on a topper that hangs past its panel hold another that lies there when the card is closed? */
export const gluedShut: Check = (input) => input.dressed.toppers.flatMap((topper) => heldBy(input, topper));

function heldBy({ design, motion, closed: { stack } }: CheckInput, placed: PlacedTopper): Verdict[] {
  const { panels, linkage } = design;
  const own = linkage.bodyOf.get(placed.panel)!;
  const past = subtract(placed.glue, [panels[own]!.area]);
  if (reach(past) <= CLOSING_PLAY) return [];
  const pose = poseOf(motion, motion.frames[0]!);
  let left: Area[] = areasOf(past).map((area) => movedArea(area, (point) => carryFlat(pose[own]!, point)));
  const order = stack.order.length > 0 ? stack.order : stack.layers.map(({ body }) => body);
  const liesOver = (placed.face === 'up') === stack.layers[own]!.faceUp;
  // Glue looks toward its panel: from there on, what lies on the topper's good side is out of its reach.
  const toward = (liesOver ? [...order].reverse() : order).filter(
    (body) => body !== own && !(liesOver ? stack.over.get(own)?.has(body) : stack.over.get(body)?.has(own)),
  );
  for (const body of toward) {
    const { area } = stack.layers[body]!;
    const held = intersect(left, [area]);
    const by = reach(held);
    if (by <= CLOSING_PLAY) continue;
    left = areasOf(subtract(left, [area]));
    if (stayStill(motion, own, body)) continue;
    const onSheet = undone(placed.placement);
    const back = inverted(pose[own]!);
    const narrower = glueThatClears(
      placed,
      areasOf(held).map((part) => movedArea(part, (point) => place(carryFlat(back, point), onSheet))),
    );
    // What lies deeper is behind what is held first.
    return [
      {
        id: `dressing-placed/${placed.topper.id}/shut`,
        check: 'dressing-placed',
        severity: 'fail',
        panels: [placed.panel, panels[body]!.id],
        at: 0,
        value: by,
        limit: CLOSING_PLAY,
        unit: 'mm',
        says: `The glue of ${placed.number} (${placed.topper.name ?? placed.outlineName}) reaches ${spoken(by)} onto the ${inSentence(panels[body]!.name)}, which lies there when the card is closed: it would hold the ${inSentence(placed.panelName)} to it. ${narrower ? `Glue it only along its ${SIDE_NAMES[narrower.side]} side, ${spoken(narrower.deep)} wide at most.` : 'Move it back onto its own panel.'}`,
      },
    ];
  }
  return [];
}

/** The side from which most of it may be glued without reaching what it must not hold. */
function glueThatClears({ sheet }: PlacedTopper, held: readonly Area[]): { side: Side; deep: Mm } | undefined {
  const { minX, maxX, minY, maxY } = boxOf(held.flatMap(({ outer }) => outer));
  const whole = { left: sheet.width, right: sheet.width, bottom: sheet.height, top: sheet.height };
  const free = { left: minX, right: sheet.width - maxX, bottom: minY, top: sheet.height - maxY };
  const [best] = SIDES.map((side) => ({ side, deep: free[side] - KEPT_OFF, share: free[side] / whole[side] })).sort(
    (a, b) => b.share - a.share,
  );
  return best && best.deep >= GLUE_DEEP.min ? best : undefined;
}
