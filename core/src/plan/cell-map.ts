import type { Mm } from '../measure/units.js';
import { boxOf, type Area } from '../plane/outline.js';
import { ScanLines } from '../plane/scan-line.js';
import type { Rectangle } from './guillotine.js';

const SAME = 1e-6;
const BITS = 32;

/**
 * A rectangle in square cells, each taken or free: row by row from below, a bit for each cell. What is drawn into it takes every
 * cell that it reaches into, so what takes no cell in common lies nowhere over one another.
 */
export class CellMap {
  readonly columns: number;
  readonly rows: number;
  readonly words: number;
  readonly bits: Uint32Array;

  /** @param x @param y of its lower left corner, mm, whole cells from nought */
  constructor(
    width: Mm,
    height: Mm,
    readonly cell: Mm,
    readonly x: Mm = 0,
    readonly y: Mm = 0,
  ) {
    this.columns = Math.max(1, Math.ceil(width / cell - SAME));
    this.rows = Math.max(1, Math.ceil(height / cell - SAME));
    this.words = Math.ceil(this.columns / BITS);
    this.bits = new Uint32Array(this.words * this.rows);
  }

  /** All cells that areas reach into, and no others. */
  static of(areas: readonly Area[], cell: Mm): CellMap {
    const { minX, minY, maxX, maxY } = boxOf(areas.flatMap(({ outer }) => outer));
    const [x, y] = [Math.floor(minX / cell + SAME) * cell, Math.floor(minY / cell + SAME) * cell];
    const map = new CellMap(maxX - x, maxY - y, cell, x, y);
    for (const area of areas) map.fill(area);
    return map;
  }

  isTaken(column: number, row: number): boolean {
    return (this.bits[row * this.words + (column >>> 5)]! & (1 << (column & 31))) !== 0;
  }

  take(column: number, row: number): void {
    this.bits[row * this.words + (column >>> 5)]! |= 1 << (column & 31);
  }

  /** A cell is reached into where an edge runs through it, or its middle lies inside. */
  private fill(area: Area): void {
    const lines = new ScanLines(area);
    for (let row = 0; row < this.rows; row++) {
      const crossed = lines.on(this.y + (row + 0.5) * this.cell);
      for (let i = 0; i + 1 < crossed.length; i += 2) this.takeBetween(row, crossed[i]! + this.cell / 2, crossed[i + 1]! - this.cell / 2);
    }
    for (const loop of [area.outer, ...area.holes]) {
      loop.forEach(([ax, ay], i) => {
        const [bx, by] = loop[(i + 1) % loop.length]!;
        const first = Math.max(0, Math.floor((Math.min(ay, by) - this.y) / this.cell + SAME));
        const last = Math.min(this.rows - 1, Math.ceil((Math.max(ay, by) - this.y) / this.cell - SAME) - 1);
        for (let row = first; row <= last; row++) {
          const [low, high] = [this.y + row * this.cell, this.y + (row + 1) * this.cell];
          const at = (y: Mm): Mm =>
            Math.abs(by - ay) < SAME ? ax : ax + ((bx - ax) * (Math.min(high, Math.max(low, y)) - ay)) / (by - ay);
          const ends = Math.abs(by - ay) < SAME ? [ax, bx] : [at(ay), at(by)];
          this.takeBetween(row, Math.min(...ends), Math.max(...ends));
        }
      });
    }
  }

  /** Every cell of a row whose inside a stretch of x reaches into. */
  private takeBetween(row: number, from: Mm, to: Mm): void {
    const first = Math.max(0, Math.floor((from - this.x) / this.cell + SAME));
    const last = Math.min(this.columns - 1, Math.ceil((to - this.x) / this.cell - SAME) - 1);
    for (let column = first; column <= last; column++) this.take(column, row);
  }

  /** Whether another map, moved by whole cells, takes a cell that is taken here; what lies beside this map does not count. */
  meets(other: CellMap, right: number, up: number): boolean {
    const firstRow = Math.max(0, -up);
    const lastRow = Math.min(other.rows, this.rows - up);
    const skip = Math.floor(right / BITS);
    const shift = right - skip * BITS;
    for (let row = firstRow; row < lastRow; row++) {
      const own = (row + up) * this.words;
      const theirs = row * other.words;
      for (let word = 0; word < other.words; word++) {
        const bits = other.bits[theirs + word]!;
        if (bits === 0) continue;
        const at = word + skip;
        if (at >= 0 && at < this.words && (this.bits[own + at]! & (bits << shift)) !== 0) return true;
        const next = at + 1;
        if (shift > 0 && next >= 0 && next < this.words && (this.bits[own + next]! & (bits >>> (BITS - shift))) !== 0) return true;
      }
    }
    return false;
  }

  /** Takes what another map takes, moved by whole cells. */
  takeAll(other: CellMap, right: number, up: number): void {
    for (let row = 0; row < other.rows; row++) {
      if (row + up < 0 || row + up >= this.rows) continue;
      for (let column = 0; column < other.columns; column++) {
        const at = column + right;
        if (at >= 0 && at < this.columns && other.isTaken(column, row)) this.take(at, row + up);
      }
    }
  }

  /** The largest rectangle of free cells, mm; nothing where none is free. (Largest rectangle under a histogram, row by row.) */
  largestFree(): Rectangle | undefined {
    const heights = new Int32Array(this.columns + 1);
    let best: { cells: number; left: number; right: number; top: number; rows: number } | undefined;
    for (let row = 0; row < this.rows; row++) {
      for (let column = 0; column < this.columns; column++) heights[column] = this.isTaken(column, row) ? 0 : heights[column]! + 1;
      const open: number[] = [];
      for (let column = 0; column <= this.columns; column++) {
        while (open.length > 0 && heights[open.at(-1)!]! >= heights[column]!) {
          const rows = heights[open.pop()!]!;
          const left = open.length > 0 ? open.at(-1)! + 1 : 0;
          const cells = rows * (column - left);
          if (cells > (best?.cells ?? 0)) best = { cells, left, right: column, top: row + 1, rows };
        }
        open.push(column);
      }
    }
    if (!best) return undefined;
    const { left, right, top, rows } = best;
    const { cell } = this;
    return { x: this.x + left * cell, y: this.y + (top - rows) * cell, width: (right - left) * cell, height: rows * cell };
  }

  /** Takes a rectangle, mm. */
  takeRectangle({ x, y, width, height }: Rectangle): void {
    const last = Math.min(this.rows - 1, Math.ceil((y + height - this.y) / this.cell - SAME) - 1);
    for (let row = Math.max(0, Math.floor((y - this.y) / this.cell + SAME)); row <= last; row++) this.takeBetween(row, x, x + width);
  }
}
