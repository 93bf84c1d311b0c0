import type { GluedPart, Side } from '../card/dressing.js';
import type { Mm } from '../measure/units.js';
import { areasOf, intersect, subtract } from '../plane/boolean.js';
import { inset } from '../plane/inset.js';
import { asArea, boxOf, rectangle, type Area, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { ScanLines } from '../plane/scan-line.js';

/** A tag is so much narrower than its pocket, so that it slides. */
export const TAG_PLAY: Mm = 1;
/** An edge that looks less than this (as a cosine) toward the open side of a pocket is glued. */
const LOOKS_OUT = Math.SQRT1_2;
/** A pocket is measured along so many lines. */
const LINES = 96;

const TOWARD: Readonly<Record<Side, Point>> = { left: [-1, 0], right: [1, 0], bottom: [0, -1], top: [0, 1] };

/** The largest tag that a pocket takes: how wide at its mouth, and how far it goes in. */
export interface Tag {
  width: Mm;
  deep: Mm;
}

/** What of an outline is glued down. @param outline counter-clockwise, upright */
export function gluePart(outline: Loop, glued: GluedPart | undefined): Area[] {
  if (!glued) return [asArea(outline)];
  if (glued.as === 'pocket') return areasOf(subtract([asArea(outline)], spaceIn(outline, glued)));
  const { minX, minY, maxX, maxY } = boxOf(outline);
  const { side, deep } = glued;
  const upright = side === 'left' || side === 'right';
  const strip = upright
    ? rectangle(side === 'left' ? minX : maxX - deep, minY, deep, maxY - minY)
    : rectangle(minX, side === 'bottom' ? minY : maxY - deep, maxX - minX, deep);
  return areasOf(intersect([asArea(outline)], [asArea(strip)]));
}

/** What is left free inside the glued edges of a pocket. */
function spaceIn(outline: Loop, { side, deep }: GluedPart): Area[] {
  const [x, y] = TOWARD[side];
  const borders = outline.map((from, i): Mm => {
    const to = outline[(i + 1) % outline.length]!;
    const [outX, outY] = [to[1] - from[1], from[0] - to[0]];
    return outX * x + outY * y > LOOKS_OUT * Math.hypot(outX, outY) ? 0 : deep;
  });
  return inset(asArea(outline), borders, deep);
}

/** The tag of the largest face that slides straight into a pocket; nothing where its glued edges leave no room for one. */
export function tagFor(outline: Loop, glued: GluedPart): Tag | undefined {
  // Turned so that the mouth is on the right: every level line then begins where the tag ends up and goes to the mouth.
  const [x, y] = TOWARD[glued.side];
  const turned = spaceIn(outline, glued).map(({ outer, holes }): Area => {
    const turn = (loop: Loop): Loop => loop.map(([px, py]): Point => [px * x + py * y, py * x - px * y]);
    return { outer: turn(outer), holes: holes.map(turn) };
  });
  const all = turned.map((area) => tagIn(area)).sort((a, b) => b.width * b.deep - a.width * a.deep);
  const best = all[0];
  return best && best.width > TAG_PLAY && best.deep > TAG_PLAY ? { width: best.width - TAG_PLAY, deep: best.deep } : undefined;
}

function tagIn(area: Area): Tag {
  const { minY, maxY } = boxOf(area.outer);
  const scan = new ScanLines(area);
  const ends = Array.from({ length: LINES + 1 }, (_, i) => {
    // A line along an edge may fall to either side of it: the outermost ones lie a hair inside.
    const level = minY + ((maxY - minY) * Math.min(Math.max(i, 1e-3), LINES - 1e-3)) / LINES;
    const crossings = scan.on(level);
    return { from: crossings.at(-2) ?? 0, to: crossings.at(-1) ?? 0 };
  });
  const step = (maxY - minY) / LINES;
  let best: Tag = { width: 0, deep: 0 };
  for (let low = 0; low < LINES; low++) {
    let [inner, mouth] = [ends[low]!.from, ends[low]!.to];
    for (let high = low + 1; high <= LINES; high++) {
      inner = Math.max(inner, ends[high]!.from);
      mouth = Math.min(mouth, ends[high]!.to);
      const tag = { width: (high - low) * step, deep: mouth - inner };
      if (tag.deep <= 0) break;
      if (tag.width * tag.deep > best.width * best.deep) best = tag;
    }
  }
  return best;
}
