import type { CardDocument } from '../card/document.js';
import { outlineTrouble } from '../card/own-outlines.js';
import { crossingsOf } from '../plane/crossings.js';
import { boxOf, signedArea, type Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';
import { MOST_CORNERS, thinned, tidied } from '../plane/tidy-outline.js';
import { outlineId, shortName } from './outline-name.js';
import { drawnIn, linesOfShape, type SvgLine } from './svg-lines.js';

export type OwnOutline = NonNullable<CardDocument['outlines']>[number];

export type OutlineReading =
  { ok: true; outline: OwnOutline; /** what was left out, in a sentence */ note?: string } | { ok: false; says: string };

/** Outlines are brought to this size, the longer way: they are scaled to the wished size when they are used. */
const LONGER = 1000;
/** Curves are followed to this share of it: a fiftieth of a mm on a shape of 100 mm. */
const CLOSE_ENOUGH = LONGER * 2e-4;
/** Points of a line, curves followed: more is a traced picture. */
const MOST_POINTS = 20_000;
/** An outline goes round once. A few crossings are slips of a pen and are taken out; more is no outline. */
const MOST_CROSSINGS = 200;
const MOST_SHAPES = 400;

/**
 * Reads one closed outline out of an SVG drawing: its largest. Transforms are applied, curves become
 * short straight lines, and y is turned up. Text of the file never reaches a page; only numbers are kept.
 * @param name how the maker calls it, from the file's name
 */
export function readOutlineSvg(text: string, name: string): OutlineReading {
  const read = drawnIn(text);
  if (!read.ok) return refuse(name, read.why);
  const shapes = read.shapes.slice(0, MOST_SHAPES);
  if (shapes.length === 0)
    return refuse(name, 'holds no path, polygon, rectangle, circle or ellipse; text and pictures must be turned into paths first');
  const paths: SvgLine[] = [];
  try {
    for (const shape of shapes) paths.push(...linesOfShape(shape).filter(({ points }) => points.length > 2));
  } catch (error) {
    return refuse(name, error instanceof Error ? error.message : 'cannot be read');
  }
  const closed = paths.filter((path) => path.closed).map((path) => path.points);
  const largest = closed.reduce<Loop | undefined>((most, loop) => (sizeOf(loop) > sizeOf(most) ? loop : most), undefined);
  if (!largest || sizeOf(largest) < 1e-9) {
    return refuse(name, `holds ${paths.length === 0 ? 'no line' : 'only open lines'}; allowed: a closed path, whose end meets its start`);
  }
  if (largest.length > MOST_POINTS)
    return refuse(name, `follows its outline with ${largest.length} points; allowed: at most ${MOST_POINTS}, so trace it more coarsely`);
  const placed = thinned(upright(largest), CLOSE_ENOUGH);
  if (crossingsOf(placed, MOST_CROSSINGS + 1) > MOST_CROSSINGS)
    return refuse(name, `crosses itself more than ${MOST_CROSSINGS} times; allowed: a line that goes round its shape once`);
  const { outline, tolerance } = tidied(placed, CLOSE_ENOUGH);
  if (outline.length < 3) return refuse(name, 'encloses nothing; allowed: a closed path round an area');
  const points = outline.map(([x, y]): [number, number] => [Number(x.toFixed(2)), Number(y.toFixed(2))]);
  const trouble = outlineTrouble(points);
  if (trouble) return refuse(name, `holds an outline whose points ${trouble}`);
  const others = closed.length - 1;
  const notes = [
    ...(others > 0
      ? [`The largest of ${closed.length} closed lines was taken; ${others === 1 ? 'the other one was' : 'the others were'} left out.`]
      : []),
    ...(tolerance > CLOSE_ENOUGH
      ? [
          `It was simplified to ${outline.length} corners, at most ${MOST_CORNERS}: nowhere more than ${((100 * tolerance) / LONGER).toFixed(1)} % of its longer side from the drawing.`,
        ]
      : []),
  ];
  return {
    ok: true,
    outline: { id: outlineId(name), name: shortName(name), points },
    ...(notes.length > 0 && { note: notes.join(' ') }),
  };
}

function refuse(name: string, why: string): OutlineReading {
  return { ok: false, says: `${name} ${why}.` };
}

function sizeOf(loop: Loop | undefined): number {
  return loop ? Math.abs(signedArea(loop)) : 0;
}

/** Turned y up, counter-clockwise, and brought to a common size. */
function upright(loop: Loop): Loop {
  const { minX, maxX, minY, maxY } = boxOf(loop);
  const scale = LONGER / Math.max(maxX - minX, maxY - minY);
  const placed = loop.map(([x, y]): Point => [(x - minX) * scale, (maxY - y) * scale]);
  return signedArea(placed) > 0 ? placed : placed.reverse();
}
