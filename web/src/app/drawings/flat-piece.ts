import { inchDenominator, MM_PER_INCH, type Box, type CutSheet, type Notation, type Point, type Score } from '@diptychon/core';

/** A flat piece fitted into a drawing: from mm on the sheet to px on screen. */
export interface Fit {
  scale: number;
  left: number;
  top: number;
  width: number;
  height: number;
  /** laid the other way round on the table: turned end for end, same face up */
  turned: boolean;
}

export const RULER_HEIGHT = 30;
export const LABEL_HEIGHT = 34;
const SIDE = 18;
const BELOW = 14;

/** Room for a drawing, px; `readings` is what the list beside it takes off its right end. */
export interface Space {
  width: number;
  height: number;
  readings: number;
}

/**
 * The largest scale at which a sheet, its ruler and its labels fit a space.
 * @param drawn what else is drawn of it, mm on the sheet: what stands out past its edges must be seen too
 */
export function fitSheet(sheet: CutSheet, { width, height, readings }: Space, turned: boolean, drawn?: Box): Fit {
  const before = Math.max(0, -(drawn?.minX ?? 0));
  const behind = Math.max(0, (drawn?.maxX ?? 0) - sheet.width);
  const [left, right] = turned ? [behind, before] : [before, behind];
  const below = turned ? Math.max(0, (drawn?.maxY ?? 0) - sheet.height) : Math.max(0, -(drawn?.minY ?? 0));
  const room = { width: Math.max(60, width - 2 * SIDE - readings), height: Math.max(40, height - RULER_HEIGHT - LABEL_HEIGHT - BELOW) };
  const scale = Math.min(room.width / (left + sheet.width + right), room.height / (sheet.height + below), 6);
  return { scale, left: SIDE + left * scale, top: RULER_HEIGHT + LABEL_HEIGHT, width: sheet.width, height: sheet.height, turned };
}

/** Where a point of the sheet is drawn. y runs up on the sheet and down on screen. */
export function toScreen([x, y]: Point, fit: Fit): Point {
  const [u, v] = fit.turned ? [fit.width - x, fit.height - y] : [x, y];
  return [fit.left + u * fit.scale, fit.top + (fit.height - v) * fit.scale];
}

export interface Tick {
  x: number;
  size: number;
  label?: string;
}

/** Ticks of the ruler a sheet lies along, from its left edge. */
export function rulerTicks(fit: Fit, notation: Notation): Tick[] {
  const denominator = inchDenominator(notation);
  const fine = denominator === undefined ? 1 : MM_PER_INCH / Math.min(denominator, 16);
  const perLabel = denominator === undefined ? 10 : Math.min(denominator, 16);
  const stride = fine * fit.scale < 2.5 ? (denominator === undefined ? 5 : perLabel / 4) : 1;
  const labelEvery = perLabel * fine * fit.scale < 17 ? 5 : 1;
  const ticks: Tick[] = [];
  for (let i = 0; i * fine <= fit.width + 1e-6; i += stride) {
    const x = fit.left + i * fine * fit.scale;
    const whole = i % perLabel === 0;
    const half = (i * 2) % perLabel === 0;
    const labelled = whole && (i / perLabel) % labelEvery === 0;
    ticks.push({ x, size: whole ? 12 : half ? 8 : 5, ...(labelled && { label: String(i / perLabel) }) });
  }
  return ticks;
}

/** Moves labels that would cover each other apart, in order, by no more than needed. */
export function spread(wanted: readonly number[], least: number): number[] {
  const placed = [...wanted];
  for (let pass = 0; pass < 20; pass++) {
    for (let i = 1; i < placed.length; i++) {
      const missing = least - (placed[i]! - placed[i - 1]!);
      if (missing <= 0.01) continue;
      placed[i]! += missing / 2;
      placed[i - 1]! -= missing / 2;
    }
  }
  return placed;
}

const WAYS = 16;
const FARTHEST = 24;

/**
 * Places for round labels, each as near to where it is wanted as one finds that is `least` from all before it and inside the
 * picture: on wider and wider rings about its own place.
 */
export function apart(wanted: readonly Point[], least: number, { width, height }: { width: number; height: number }): Point[] {
  const inside = ([x, y]: Point): boolean => x > least / 2 && y > least / 2 && x < width - least / 2 && y < height - least / 2;
  return wanted.reduce<Point[]>((placed, [x, y]) => {
    const rings = Array.from({ length: FARTHEST }, (_, ring) =>
      Array.from({ length: WAYS }, (__, way): Point => {
        const angle = (way / WAYS) * 2 * Math.PI;
        const far = ((ring + 1) * least) / 2;
        return [x + far * Math.cos(angle), y + far * Math.sin(angle)];
      }),
    );
    const places: Point[] = [[x, y], ...rings.flat()];
    const free = places.find((p) => inside(p) && placed.every((q) => Math.hypot(p[0] - q[0], p[1] - q[1]) >= least - 0.01));
    return [...placed, free ?? [x, y]];
  }, []);
}

/** A score's position as read from the edge that lies at the ruler's zero. */
export function reading(score: Score, fit: Pick<Fit, 'turned' | 'width'>): number {
  return fit.turned ? fit.width - score.from[0] : score.from[0];
}
