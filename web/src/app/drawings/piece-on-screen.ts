import { pieceDrawing, type CutSheet, type DrawingRole, type Face, type Point } from '@diptychon/core';

/** A line or area of a flat piece as it is drawn on screen. */
export interface OnScreen {
  id: string;
  role: DrawingRole;
  face: Face;
  points: readonly Point[];
  path: string;
}

/** A flat piece put on screen: the paper as one outline with its windows, and everything drawn on it by its role. */
export interface PieceOnScreen {
  paper: string;
  of: (...roles: readonly DrawingRole[]) => OnScreen[];
}

/** A loop or a line of points as an SVG path. */
export function pathThrough(points: readonly Point[], closed: boolean): string {
  return `M${points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}${closed ? 'Z' : ''}`;
}

/** @param at where a point of the sheet stands on screen, px */
export function pieceOnScreen(sheet: CutSheet, at: (point: Point) => Point): PieceOnScreen {
  const drawn = pieceDrawing(sheet).map(({ id, role, face, points, closed }): OnScreen => {
    const placed = points.map(at);
    return { id, role, face, points: placed, path: pathThrough(placed, closed) };
  });
  const of = (...roles: readonly DrawingRole[]): OnScreen[] => drawn.filter(({ role }) => roles.includes(role));
  return {
    paper: of('outline', 'window')
      .map(({ path }) => path)
      .join(''),
    of,
  };
}
