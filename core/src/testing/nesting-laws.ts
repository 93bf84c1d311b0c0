import type { Blank, PlacedBlank } from '../plan/guillotine.js';
import { onSheet, type BlankShape } from '../plan/outline-nesting.js';
import { areaContains, type Area, type Loop } from '../plane/outline.js';
import { distanceToSegment, type Point } from '../plane/point.js';
import { notOnce } from './sheet-laws.js';

/** Shapes round a middle, notched and pointed, some with a window; and a sheet that holds each of them. */
export function anyShapes(next: () => number): {
  blanks: Blank[];
  shapes: Map<string, BlankShape>;
  sheet: { width: number; height: number };
} {
  const within = (from: number, to: number): number => Math.round(from + next() * (to - from));
  const sheet = { width: within(150, 320), height: within(150, 320) };
  const shapes = new Map<string, BlankShape>();
  const blanks = Array.from({ length: within(1, 5) }, (_, kind): Blank[] => {
    const [radius, corners] = [within(8, 70), within(3, 12)];
    const round = (share: number): Loop =>
      Array.from({ length: corners }, (_unused, i): Point => {
        const angle = (2 * Math.PI * i) / corners;
        const far = radius * share * (share < 1 ? 1 : 0.5 + next());
        return [far * Math.cos(angle), far * Math.sin(angle)];
      });
    const outer = round(1);
    const least = Math.min(...outer.map(([x, y]) => Math.hypot(x, y)));
    // A window well inside: of an even outline with a third of the least distance to a corner.
    const holes = next() < 0.4 ? [round(least / 3 / radius)] : [];
    const [left, low] = [Math.min(...outer.map(([x]) => x)), Math.min(...outer.map(([, y]) => y))];
    const moved = (loop: Loop): Loop => loop.map(([x, y]): Point => [x - left, y - low]);
    const area: Area = { outer: moved(outer), holes: holes.map(moved) };
    const [width, height] = [Math.max(...area.outer.map(([x]) => x)), Math.max(...area.outer.map(([, y]) => y))];
    const lies = next() < 0.3 ? 'upright' : 'either';
    const mayTurnEnd = next() < 0.7;
    return Array.from({ length: within(1, 8) }, (_unused, copy): Blank => {
      const id = `${kind}#${copy}`;
      shapes.set(id, { area, mayTurnEnd });
      return { id, width, height, lies };
    });
  }).flat();
  const fitting = blanks.filter(({ width, height }) => Math.max(width, height) <= Math.min(sheet.width, sheet.height));
  return { blanks: fitting, shapes, sheet };
}

/** How near two outlines come to each other, mm: every corner of one to every edge of the other; 0 where they cross or one covers the other. */
export function apartBy(a: Area, b: Area): number {
  if (covers(a, b) || covers(b, a)) return 0;
  const edges = ({ outer, holes }: Area): [Point, Point][] =>
    [outer, ...holes].flatMap((loop) => loop.map((from, i): [Point, Point] => [from, loop[(i + 1) % loop.length]!]));
  let least = Infinity;
  for (const [p, q] of edges(a)) {
    for (const [r, s] of edges(b)) {
      if (cross(p, q, r, s)) return 0;
      least = Math.min(least, distanceToSegment(p, r, s), distanceToSegment(r, p, q));
    }
  }
  return least;
}

const covers = (a: Area, b: Area): boolean => areaContains(a, b.outer[0]!);

/** Whether two edges cross in their insides. */
function cross(p: Point, q: Point, r: Point, s: Point): boolean {
  const side = (a: Point, b: Point, c: Point): number => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  return side(p, q, r) * side(p, q, s) < 0 && side(r, s, p) * side(r, s, q) < 0;
}

/** What is wrong with where shapes lie: each once, on its sheet, a way it may lie, and so far from every other. */
export function wrongWithOutlines(
  sheets: readonly (readonly PlacedBlank[])[],
  blanks: readonly Blank[],
  shapes: ReadonlyMap<string, BlankShape>,
  sheet: { width: number; height: number },
  gap: number,
): string[] {
  const placed = sheets.flatMap((on, i) => {
    const lying = on.map((one): Area => {
      const { area } = shapes.get(one.blank.id)!;
      const carry = (loop: Loop): Loop => loop.map((point) => onSheet(point, one));
      return { outer: carry(area.outer), holes: area.holes.map(carry) };
    });
    return on.flatMap((one, k) => {
      const off = lying[k]!.outer.filter(([x, y]) => x < -1e-6 || y < -1e-6 || x > sheet.width + 1e-6 || y > sheet.height + 1e-6);
      const mayLie = one.blank.lies === 'either' || (one.blank.lies === 'turned') === one.turned;
      const mayTurn = !one.endForEnd || shapes.get(one.blank.id)!.mayTurnEnd;
      return [
        ...(off.length > 0 ? [`sheet ${i}: ${one.blank.id} reaches past the sheet`] : []),
        ...(mayLie && mayTurn ? [] : [`sheet ${i}: ${one.blank.id} lies as it may not`]),
        ...lying.slice(k + 1).flatMap((other, n) => {
          const far = apartBy(lying[k]!, other);
          return far < gap - 1e-6 ? [`sheet ${i}: ${one.blank.id} and ${on[k + 1 + n]!.blank.id} are ${far} apart`] : [];
        }),
      ];
    });
  });
  return [...notOnce(sheets, blanks), ...placed];
}
