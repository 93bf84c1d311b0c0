import type { LayerJoint } from '../card/dressing.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect } from '../plane/boolean.js';
import { asArea, rectangle, type Area, type Box, type Loop } from '../plane/outline.js';
import type { LayerPart } from './layer-piece.js';

/** Well past everything. */
const FAR: Mm = 2000;

/**
 * A layer in two papers that meet along a line, and the strip that lies over it where one is wished.
 * @param panel the box of the panel's own outline, from whose lower or left end the line is measured
 */
export function inTwoPapers(area: Area, panel: Box, joint: LayerJoint): LayerPart[] {
  const line = (joint.runs === 'along' ? panel.minX : panel.minY) + joint.at;
  const half = (joint.cover?.wide ?? 0) / 2;
  const between = (from: Mm, to: Mm): Area[] => areasOf(intersect([area], [asArea(stripBetween(joint.runs, from, to))]));
  const [first, second] = [between(line - FAR, line), between(line, line + FAR)];
  // A line past its edge parts nothing.
  if (first.length === 0 || second.length === 0) return [{ area }];
  return [
    ...first.map((part): LayerPart => ({ area: part, of: 'first', joint })),
    ...second.map((part): LayerPart => ({ area: part, of: 'second', joint })),
    ...(joint.cover ? between(line - half, line + half).map((part): LayerPart => ({ area: part, of: 'cover', joint })) : []),
  ];
}

const stripBetween = (runs: LayerJoint['runs'], from: Mm, to: Mm): Loop =>
  runs === 'along' ? rectangle(from, -FAR, to - from, 2 * FAR) : rectangle(-FAR, from, 2 * FAR, to - from);
