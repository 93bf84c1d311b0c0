import { readLength } from '../measure/print.js';
import { rulerStep, type Mm, type Notation } from '../measure/units.js';
import type { Box, Loop } from '../plane/outline.js';
import type { Point } from '../plane/point.js';

/** So many heights are marked at most, and about so many where the outline is tall enough. */
const LEVELS = 8;
/** Up to so many corners are told as corners. */
const MOST_CORNERS = 12;
const SAME: Mm = 1e-6;

/**
 * How an outline is drawn without its template: where it crosses lines straight across the blank, so far up, from the left edge
 * of the blank; or its corners, where it has few. Each is told on the nearest mark of the ruler.
 * @param within the part of it that no rule makes
 */
export function ordinateWords(outline: Loop, notation: Notation, within: Pick<Box, 'minY' | 'maxY'>): string {
  const say = (mm: Mm): string => readLength(mm, notation).text;
  if (outline.length <= MOST_CORNERS) {
    const corners = outline.map(([x, y]) => `${say(x)} across, ${say(y)} up`);
    return `Or mark its corners, counted from the left and the lower edge of the blank, and join them: ${corners.join('; ')}.`;
  }
  const levels = crossings(outline, notation, within).map(({ up, across }) => `${say(up)} up: ${across.map(say).join(' and ')}`);
  return `Or draw it: so far up from the lower edge of the blank, so far from its left edge, joined as in the drawing. ${levels.join('; ')}.`;
}

/** Where an outline crosses lines straight across, a ruler's marks apart, from the lowest to the highest of a part of it. */
export function crossings(outline: Loop, notation: Notation, { minY, maxY }: Pick<Box, 'minY' | 'maxY'>): { up: Mm; across: Mm[] }[] {
  const mark = rulerStep(notation);
  const step = Math.max(1, Math.round((maxY - minY) / LEVELS / mark)) * mark;
  const first = Math.ceil(minY / step + SAME) * step;
  const between = Array.from({ length: Math.max(0, Math.ceil((maxY - first) / step - SAME)) }, (_, i) => first + i * step);
  // A level near the very top or bottom would crowd the highest and lowest points.
  const roomy = between.filter((up) => up - minY > step / 4 && maxY - up > step / 4);
  return [minY, ...roomy, maxY].map((up) => ({ up, across: acrossAt(outline, up) }));
}

/** Where an outline crosses a line straight across, from left to right; a stretch that lies on it by both its ends. */
function acrossAt(outline: Loop, up: Mm): Mm[] {
  const found = outline.flatMap((from, i): Mm[] => crossing(from, outline[(i + 1) % outline.length]!, up));
  return found.sort((a, b) => a - b).filter((x, i, all) => i === 0 || x - all[i - 1]! > 0.05);
}

function crossing([x1, y1]: Point, [x2, y2]: Point, up: Mm): Mm[] {
  const [low, high] = [Math.min(y1, y2), Math.max(y1, y2)];
  if (up < low - SAME || up > high + SAME) return [];
  if (high - low < SAME) return [x1, x2];
  return [x1 + ((up - y1) / (y2 - y1)) * (x2 - x1)];
}
