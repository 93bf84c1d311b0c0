/**
 * Rigid motions of space as twelve numbers: a 3×3 rotation row by row with the translation behind
 * each row. Output first, inputs after, as in every function of this file; outputs may not alias
 * inputs. Nothing is allocated, so these serve in hot loops.
 */
export type Rigid = number[];

export type Vec3 = readonly [x: number, y: number, z: number];

/**
 * Begun with halves: a list of whole numbers only would be made anew with the first number that is none. Plain lists, because
 * an array of typed numbers of this length takes ten times as long to make, and a card makes thousands.
 */
const IDENTITY: Rigid = Array.from({ length: 12 }, () => 0.5);
IDENTITY.forEach((_, k) => (IDENTITY[k] = k % 5 === 0 ? 1 : 0));

export function rigidIdentity(): Rigid {
  return IDENTITY.slice();
}

/** out = a ∘ b: first b, then a. */
export function multiply(out: Rigid, a: Rigid, b: Rigid): void {
  for (let r = 0; r < 12; r += 4) {
    const x = a[r]!;
    const y = a[r + 1]!;
    const z = a[r + 2]!;
    out[r] = x * b[0]! + y * b[4]! + z * b[8]!;
    out[r + 1] = x * b[1]! + y * b[5]! + z * b[9]!;
    out[r + 2] = x * b[2]! + y * b[6]! + z * b[10]!;
    out[r + 3] = x * b[3]! + y * b[7]! + z * b[11]! + a[r + 3]!;
  }
}

/** Rotation by `angle` about the line through (px, py, 0) along the unit vector (ux, uy, 0). */
export function rotateAboutFlatLine(out: Rigid, px: number, py: number, ux: number, uy: number, angle: number): void {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  const k = 1 - c;
  out[0] = c + ux * ux * k;
  out[1] = ux * uy * k;
  out[2] = uy * s;
  out[4] = ux * uy * k;
  out[5] = c + uy * uy * k;
  out[6] = -ux * s;
  out[8] = -uy * s;
  out[9] = ux * s;
  out[10] = c;
  out[3] = px - (out[0] * px + out[1] * py);
  out[7] = py - (out[4] * px + out[5] * py);
  out[11] = -(out[8] * px + out[9] * py);
}

export function inverse(out: Rigid, m: Rigid): void {
  for (let r = 0; r < 3; r++) {
    for (let c = 0; c < 3; c++) out[4 * r + c] = m[4 * c + r]!;
    out[4 * r + 3] = -(m[r]! * m[3]! + m[4 + r]! * m[7]! + m[8 + r]! * m[11]!);
  }
}

/** The motion that undoes another. */
export function inverted(m: Rigid): Rigid {
  const out = rigidIdentity();
  inverse(out, m);
  return out;
}

/** Where a point of a flat piece comes to lie, seen along z: for panels in the plane of the closed card. */
export function carryFlat(m: Rigid, [x, y]: readonly [x: number, y: number]): readonly [x: number, y: number] {
  return [m[0]! * x + m[1]! * y + m[3]!, m[4]! * x + m[5]! * y + m[7]!];
}

/** The image of a point. */
export function carry(m: Rigid, x: number, y: number, z: number): Vec3 {
  return [
    m[0]! * x + m[1]! * y + m[2]! * z + m[3]!,
    m[4]! * x + m[5]! * y + m[6]! * z + m[7]!,
    m[8]! * x + m[9]! * y + m[10]! * z + m[11]!,
  ];
}

/** The image of a direction. */
export function carryDirection(m: Rigid, x: number, y: number, z: number): Vec3 {
  return [m[0]! * x + m[1]! * y + m[2]! * z, m[4]! * x + m[5]! * y + m[6]! * z, m[8]! * x + m[9]! * y + m[10]! * z];
}

export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const minus = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const along = (a: Vec3, u: Vec3, t: number): Vec3 => [a[0] + u[0] * t, a[1] + u[1] * t, a[2] + u[2] * t];
export const norm = (a: Vec3): number => Math.sqrt(dot(a, a));
export const cross = (a: Vec3, b: Vec3): Vec3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
