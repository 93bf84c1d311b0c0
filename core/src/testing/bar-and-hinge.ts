import { cross, dot, minus, norm, type Vec3 } from '../linkage/rigid.js';
import { onFold, rowCount, rowSpacing, type SheetRow } from '../bending/sheet.js';

/**
 * A sheet as it is often drawn by others: triangles, stiff bars along their sides, and a spring at each side between two of
 * them that is not a fold. A second way of working out how a sheet bends, which shares nothing with the first but the places
 * of its nodes. Diagonals run alternately, one way and the other.
 */
export interface BarAndHinge {
  bars: { a: number; b: number; length: number }[];
  hinges: { edge: [number, number]; wings: [number, number]; stiffness: number }[];
}

const BAR = 1500;

export function barAndHinge(sheet: SheetRow): BarAndHinge {
  const { across: m } = sheet.cells;
  const rows = rowCount(sheet);
  const dv = sheet.width / m;
  const node = (i: number, j: number): number => i * (m + 1) + j;
  const triangles: number[][] = [];
  const bars: BarAndHinge['bars'] = [];
  for (let i = 0; i <= rows; i++) {
    for (let j = 0; j <= m; j++) {
      const du = rowSpacing(sheet, Math.min(i, rows - 1));
      if (i < rows) bars.push({ a: node(i, j), b: node(i + 1, j), length: du });
      if (j < m) bars.push({ a: node(i, j), b: node(i, j + 1), length: dv });
      if (i === rows || j === m) continue;
      const [p, q, r, s] = [node(i, j), node(i + 1, j), node(i + 1, j + 1), node(i, j + 1)];
      const rising = (i + j) % 2 === 0;
      bars.push({ a: rising ? p : q, b: rising ? r : s, length: Math.hypot(du, dv) });
      triangles.push(
        ...(rising
          ? [
              [p, q, r],
              [p, r, s],
            ]
          : [
              [p, q, s],
              [q, r, s],
            ]),
      );
    }
  }
  const sides = new Map<string, { edge: [number, number]; wings: number[] }>();
  for (const triangle of triangles) {
    triangle.forEach((a, k) => {
      const [b, c] = [triangle[(k + 1) % 3]!, triangle[(k + 2) % 3]!];
      const key = a < b ? `${a}-${b}` : `${b}-${a}`;
      const side = sides.get(key) ?? { edge: [a, b] as [number, number], wings: [] };
      side.wings.push(c);
      sides.set(key, side);
    });
  }
  const hinges = [...sides.values()].flatMap(({ edge, wings }): BarAndHinge['hinges'] => {
    if (wings.length < 2) return [];
    const [i, k] = edge.map((n) => Math.floor(n / (m + 1))) as [number, number];
    const du = rowSpacing(sheet, Math.min(i, k, rows - 1));
    const isAcross = i === k;
    const isAlong = edge[0] % (m + 1) === edge[1] % (m + 1);
    if (isAcross && onFold(sheet, i)) return [];
    // A rolled sheet: ½·stiffness·angle² = ½·(angle ÷ distance)² · distance · length of the side. A twisted one folds at its
    // diagonals alone, by twist · diagonal, and has twist² for every square millimetre.
    const stiffness = isAcross ? dv / du : isAlong ? du / dv : (2 * du * dv) / (du * du + dv * dv);
    return [{ edge, wings: wings as [number, number], stiffness }];
  });
  return { bars, hinges };
}

/** Energy of its springs; adds slopes of springs and bars to `gradient`. @returns of the springs, and of all */
export function barAndHingeEnergy({ bars, hinges }: BarAndHinge, x: Float64Array, gradient: Float64Array): [bent: number, all: number] {
  gradient.fill(0);
  const at = (n: number): Vec3 => [x[3 * n]!, x[3 * n + 1]!, x[3 * n + 2]!];
  const add = (n: number, way: Vec3, by: number): void => {
    for (let c = 0; c < 3; c++) gradient[3 * n + c]! += by * way[c]!;
  };
  let stretched = 0;
  for (const { a, b, length } of bars) {
    const way = minus(at(b), at(a));
    const now = norm(way);
    const strain = now / length - 1;
    stretched += 0.5 * BAR * length * strain * strain;
    add(b, way, (BAR * strain) / now);
    add(a, way, (-BAR * strain) / now);
  }
  let bent = 0;
  for (const { edge, wings, stiffness } of hinges) {
    const [a, b, c, d] = [at(edge[0]), at(edge[1]), at(wings[0]), at(wings[1])];
    const e = minus(b, a);
    const length = norm(e);
    const [n1, n2] = [cross(e, minus(c, a)), cross(minus(d, a), e)];
    const [s1, s2] = [dot(n1, n1), dot(n2, n2)];
    const angle = Math.atan2(dot(cross(n1, n2), e) / length, dot(n1, n2));
    bent += 0.5 * stiffness * angle * angle;
    const push = stiffness * angle;
    // Of the wings’ tips: side ÷ |normal|² along the normal; the ends of the side take what keeps the whole in balance.
    const [tc, td] = [dot(minus(c, a), e) / (length * length), dot(minus(d, a), e) / (length * length)];
    add(wings[0], n1, (-push * length) / s1);
    add(wings[1], n2, (-push * length) / s2);
    add(edge[0], n1, (push * length * (1 - tc)) / s1);
    add(edge[0], n2, (push * length * (1 - td)) / s2);
    add(edge[1], n1, (push * length * tc) / s1);
    add(edge[1], n2, (push * length * td) / s2);
  }
  return [bent, bent + stretched];
}

/** Lets it go to rest by conjugate gradients, nodes of the first and the last row held. @returns the energy of its springs */
export function barAndHingeAtRest(sheet: SheetRow, x: Float64Array, extra: (x: Float64Array, gradient: Float64Array) => number): number {
  const model = barAndHinge(sheet);
  const held = 3 * (sheet.cells.across + 1);
  const gradient = new Float64Array(x.length);
  const evaluate = (): number => {
    const [, all] = barAndHingeEnergy(model, x, gradient);
    const sum = all + extra(x, gradient);
    gradient.fill(0, 0, held);
    gradient.fill(0, x.length - held);
    return sum;
  };
  // L-BFGS with eight pairs.
  const pairs: { s: Float64Array; y: Float64Array; rho: number }[] = [];
  let value = evaluate();
  for (let pass = 0; pass < 8000; pass++) {
    const g = gradient.slice();
    const size = Math.sqrt(g.reduce((sum, v) => sum + v * v, 0));
    if (size < 1e-4) break;
    const q = g.slice();
    const scale = (v: Float64Array, u: Float64Array): number => v.reduce((sum, value, i) => sum + value * u[i]!, 0);
    const alphas = [...pairs].reverse().map(({ s, y, rho }) => {
      const alpha = rho * scale(s, q);
      for (let i = 0; i < q.length; i++) q[i]! -= alpha * y[i]!;
      return alpha;
    });
    const last = pairs.at(-1);
    const factor = last ? 1 / (last.rho * scale(last.y, last.y)) : 0.01 / size;
    for (let i = 0; i < q.length; i++) q[i]! *= factor;
    pairs.forEach(({ s, y, rho }, k) => {
      const beta = alphas[pairs.length - 1 - k]! - rho * scale(y, q);
      for (let i = 0; i < q.length; i++) q[i]! += beta * s[i]!;
    });
    const slope = -scale(g, q);
    const from = x.slice();
    let share = Math.min(1, 2 / Math.max(...q.map(Math.abs)));
    let next = Infinity;
    for (; share > 1e-12; share /= 2) {
      for (let i = 0; i < x.length; i++) x[i] = from[i]! - share * q[i]!;
      next = evaluate();
      if (next <= value + 1e-4 * share * slope) break;
    }
    if (share <= 1e-12) {
      x.set(from);
      if (pairs.length === 0) break;
      pairs.length = 0;
      value = evaluate();
      continue;
    }
    value = next;
    const s = x.map((v, i) => v - from[i]!);
    const y = gradient.map((v, i) => v - g[i]!);
    const sy = scale(s, y);
    if (sy > 1e-12) pairs.push({ s, y, rho: 1 / sy });
    if (pairs.length > 8) pairs.shift();
  }
  return barAndHingeEnergy(model, x, new Float64Array(x.length))[0];
}
