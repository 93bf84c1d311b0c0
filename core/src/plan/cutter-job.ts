import type { Mm } from '../measure/units.js';
import type { Point } from '../plane/point.js';

/** What a line is made with, in the order in which a machine makes them: what is cut free can no longer be scored. */
export const CUTTER_TOOLS = ['draw', 'score', 'perforate', 'cut'] as const;
export type CutterTool = (typeof CUTTER_TOOLS)[number];

/** One line that a machine follows, mm from the upper left corner of the bed, y down. */
export interface CutterLine {
  tool: CutterTool;
  points: readonly Point[];
  /** its end is its beginning, which is not said again */
  closed: boolean;
}

/** A drawing as a machine gets it. */
export interface CutterJob {
  width: Mm;
  height: Mm;
  lines: readonly CutterLine[];
}

/** A machine: its bed, how fast it moves, what its blade takes away, and how far past its beginning it closes a line. */
export interface CutterMachine {
  width: Mm;
  height: Mm;
  /** mm a second, for each tool and for moving above the paper */
  speed: Readonly<Record<CutterTool | 'travel', number>>;
  kerf: Mm;
  overcut: Mm;
  /** tools that it has */
  tools: readonly CutterTool[];
}

/** A small machine for a table, as makers have. */
export const USUAL_CUTTER: CutterMachine = {
  width: 600,
  height: 600,
  speed: { draw: 120, score: 80, perforate: 60, cut: 50, travel: 200 },
  kerf: 0.2,
  overcut: 0.5,
  tools: CUTTER_TOOLS,
};

/** One stretch of the way of the head: above the paper, or along a line. */
export interface CutterMove {
  tool: CutterTool | 'travel';
  points: readonly Point[];
  length: Mm;
  seconds: number;
  /** which line of the job it follows */
  line?: number;
}

/**
 * The way of the head: tool by tool, of each the line that begins nearest to where the head is, of cuts those that lie inside
 * others before them; a closed line goes on past its beginning by the overcut.
 */
export function cutterMoves({ lines }: CutterJob, machine: CutterMachine): CutterMove[] {
  const moves: CutterMove[] = [];
  let at: Point = [0, 0];
  for (const tool of CUTTER_TOOLS) {
    const own = lines.flatMap((line, i) => (line.tool === tool ? [{ line, i, depth: tool === 'cut' ? depthOf(line, lines) : 0 }] : []));
    for (const depth of [...new Set(own.map((one) => one.depth))].sort((a, b) => b - a)) {
      const open = own.filter((one) => one.depth === depth);
      while (open.length > 0) {
        const next = open.reduce((near, one) => (distance(at, one.line.points[0]!) < distance(at, near.line.points[0]!) ? one : near));
        open.splice(open.indexOf(next), 1);
        const way = wayOf(next.line, machine.overcut);
        moves.push(move('travel', [at, way[0]!], machine), move(tool, way, machine, next.i));
        at = way.at(-1)!;
      }
    }
  }
  return moves.filter(({ length }) => length > 0);
}

/** In how many closed cuts the beginning of a line lies. */
function depthOf(line: CutterLine, lines: readonly CutterLine[]): number {
  return lines.filter((other) => other !== line && other.tool === 'cut' && other.closed && contains(other.points, line.points[0]!)).length;
}

/** Whether a point lies inside a closed line. */
export function contains(loop: readonly Point[], point: Point): boolean {
  const [x, y] = point;
  let inside = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const a = loop[i]!;
    const b = loop[j]!;
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
  }
  return inside;
}

function wayOf({ points, closed }: CutterLine, overcut: Mm): Point[] {
  if (!closed) return [...points];
  const way = [...points, points[0]!];
  let left = overcut;
  for (let i = 1; i < way.length && left > 0; i++) {
    const [a, b] = [way[i - 1]!, way[i]!];
    const long = distance(a, b);
    if (long === 0) continue;
    const share = Math.min(1, left / long);
    way.push([a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
    left -= long;
    if (i >= points.length) break;
  }
  return way;
}

const distance = (a: Point, b: Point): Mm => Math.hypot(a[0] - b[0], a[1] - b[1]);
export const lengthOf = (points: readonly Point[]): Mm => points.slice(1).reduce((sum, point, i) => sum + distance(points[i]!, point), 0);

function move(tool: CutterMove['tool'], points: readonly Point[], { speed }: CutterMachine, line?: number): CutterMove {
  const length = lengthOf(points);
  return { tool, points, length, seconds: length / speed[tool], ...(line !== undefined && { line }) };
}
