import type { Mm } from '../measure/units.js';
import type { Box } from '../plane/outline.js';
import type { ClosedCard } from './closed-card.js';
import type { Design } from './join.js';
import { thicknessAt } from './pile.js';

/** Thickness of the closed card over a grid, row by row from the lower left; 0 where nothing lies. */
export interface ThicknessMap {
  box: Box;
  columns: number;
  rows: number;
  cell: Mm;
  values: Float64Array;
  most: Mm;
}

const MOST_CELLS = 20_000;

/** @param cell wanted width of a square of the grid, mm; made wider for a large card so that the map stays small */
export function thicknessMap(design: Design, closed: ClosedCard, cell: Mm = 2): ThicknessMap {
  const { box, pile } = closed;
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const side = Math.max(cell, Math.sqrt((width * height) / MOST_CELLS));
  const [columns, rows] = [Math.max(1, Math.ceil(width / side)), Math.max(1, Math.ceil(height / side))];
  const values = new Float64Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const y = box.minY + ((row + 0.5) / rows) * height;
    for (let column = 0; column < columns; column++) {
      const x = box.minX + ((column + 0.5) / columns) * width;
      values[row * columns + column] = thicknessAt(design, pile, [x, y]).thickness;
    }
  }
  return { box, columns, rows, cell: side, values, most: values.reduce((most, value) => Math.max(most, value), 0) };
}
