/**
 * Solves A·x = b for a symmetric positive definite n×n matrix by Cholesky, in place: A is overwritten
 * by its factor and b by x.
 * @returns false when A is not positive definite
 */
export function solveSymmetric(a: Float64Array, b: Float64Array, n: number): boolean {
  for (let j = 0; j < n; j++) {
    let pivot = a[j * n + j]!;
    for (let k = 0; k < j; k++) pivot -= a[j * n + k]! ** 2;
    if (!(pivot > 0)) return false;
    const root = Math.sqrt(pivot);
    a[j * n + j] = root;
    for (let i = j + 1; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      a[i * n + j] = sum / root;
    }
  }
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) b[i]! -= a[i * n + k]! * b[k]!;
    b[i]! /= a[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) b[i]! -= a[k * n + i]! * b[k]!;
    b[i]! /= a[i * n + i]!;
  }
  return true;
}

/**
 * Rank of a rows×columns matrix by Gaussian elimination with full pivoting.
 * @param tolerance pivots below this share of the largest entry count as zero
 */
export function rank(matrix: Float64Array, rows: number, columns: number, tolerance = 1e-7): number {
  const m = Float64Array.from(matrix.subarray(0, rows * columns));
  const scale = m.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
  if (scale === 0) return 0;
  const usedRows = new Set<number>();
  const usedColumns = new Set<number>();
  while (usedRows.size < Math.min(rows, columns)) {
    let [best, br, bc] = [tolerance * scale, -1, -1];
    for (let r = 0; r < rows; r++) {
      if (usedRows.has(r)) continue;
      for (let c = 0; c < columns; c++) {
        if (!usedColumns.has(c) && Math.abs(m[r * columns + c]!) > best) [best, br, bc] = [Math.abs(m[r * columns + c]!), r, c];
      }
    }
    if (br < 0) break;
    usedRows.add(br);
    usedColumns.add(bc);
    for (let r = 0; r < rows; r++) {
      if (usedRows.has(r)) continue;
      const share = m[r * columns + bc]! / m[br * columns + bc]!;
      for (let c = 0; c < columns; c++) m[r * columns + c]! -= share * m[br * columns + c]!;
    }
  }
  return usedRows.size;
}
