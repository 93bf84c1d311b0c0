import type { CardDocument } from '../card/document.js';
import { outlineTrouble } from '../card/own-outlines.js';
import { crossingsOf } from '../plane/crossings.js';
import { outerLine } from '../plane/outer-line.js';
import { boxOf, signedArea, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { drawnIn, linesOfShape, type SvgLine } from './svg-lines.js';

export type OwnOutline = NonNullable<CardDocument['outlines']>[number];

export type OutlineReading =
  { ok: true; outline: OwnOutline; /** what was left out, in a sentence */ note?: string } | { ok: false; says: string };

/** Outlines are brought to this size, the longer way: they are scaled to the wished size when they are used. */
const LONGER = 1000;
/** Curves are followed to this share of it: a fiftieth of a mm on a shape of 100 mm. */
const CLOSE_ENOUGH = LONGER * 2e-4;
/** Corners of an outline that is kept: what a knife or a cutter can follow, and every check stays quick with. */
const MOST_CORNERS = 240;
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
  const placed = thin(upright(largest), CLOSE_ENOUGH);
  if (crossingsOf(placed, MOST_CROSSINGS + 1) > MOST_CROSSINGS)
    return refuse(name, `crosses itself more than ${MOST_CROSSINGS} times; allowed: a line that goes round its shape once`);
  const { outline, tolerance } = tidied(placed);
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
    outline: { id: `own-${slug(name)}`, name: shortName(name), points },
    ...(notes.length > 0 && { note: notes.join(' ') }),
  };
}

/** A name that an outline may have: at most 60 characters, the last one whole. */
function shortName(name: string): string {
  let short = '';
  for (const letter of name) {
    if (short.length + letter.length > 60) break;
    short += letter;
  }
  return short || 'own outline';
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

/** Crossings of the line with itself taken out, and no more corners than may be; with how far it may be off for that. */
function tidied(loop: Loop): { outline: Loop; tolerance: number } {
  const whole = outerLine(loop);
  let tolerance = CLOSE_ENOUGH;
  let outline = thin(whole, tolerance);
  while (outline.length > MOST_CORNERS) outline = thin(whole, (tolerance *= 1.5));
  return { outline, tolerance };
}

/** Leaves out points that lie within a tolerance of the line without them (Ramer–Douglas–Peucker, on both halves of the loop). */
function thin(loop: Loop, tolerance: number): Loop {
  if (loop.length < 4) return loop;
  const first = loop[0]!;
  const off = ([x, y]: Point): number => Math.hypot(x - first[0], y - first[1]);
  const far = loop.reduce((most, p, i) => (off(p) > off(loop[most]!) ? i : most), 0);
  const line = [...loop, first];
  const kept = new Set([0, far]);
  const waiting: (readonly [number, number])[] = [
    [0, far],
    [far, loop.length],
  ];
  for (let stretch = waiting.pop(); stretch; stretch = waiting.pop()) {
    const [from, to] = stretch;
    let worst = { off: tolerance, at: -1 };
    for (let i = from + 1; i < to; i++) {
      const here = distanceToSegment(line[i]!, line[from]!, line[to]!);
      if (here > worst.off) worst = { off: here, at: i };
    }
    if (worst.at < 0) continue;
    kept.add(worst.at);
    waiting.push([from, worst.at], [worst.at, to]);
  }
  return [...kept].sort((a, b) => a - b).map((i) => line[i]!);
}

function slug(name: string): string {
  const plain = name
    .toLowerCase()
    .replace(/\.svg$/, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 36);
  // Letters that an id cannot hold still tell one drawing from another.
  const isWhole = [...name].every((letter) => letter.codePointAt(0)! < 128);
  return isWhole && plain ? plain : `${plain.slice(0, 28) || 'outline'}-${hashed(name)}`;
}

/** A short number for words, by which two are told apart (FNV-1a, 32 bits). */
function hashed(words: string): string {
  let hash = 0x811c9dc5;
  for (const letter of words) hash = Math.imul(hash ^ letter.codePointAt(0)!, 0x01000193);
  return (hash >>> 0).toString(36);
}
