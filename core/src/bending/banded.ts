/**
 * A symmetric matrix whose entries lie near its diagonal, row by row: entry (i, i − k) at i·band + k. What lies farther
 * away than `band` − 1 is nothing.
 */
export class BandedMatrix {
  readonly entries: Float64Array;
  private readonly factor: Float64Array;
  private readonly between: Float64Array;

  constructor(
    readonly size: number,
    readonly band: number,
  ) {
    this.entries = new Float64Array(size * band);
    this.factor = new Float64Array(size * band);
    this.between = new Float64Array(size);
  }

  /** Adds to the entry (i, j); the half above the diagonal is the same as the one below it and is left out. */
  add(i: number, j: number, value: number): void {
    if (j <= i) this.entries[i * this.band + i - j]! += value;
  }

  /**
   * Cholesky’s factor of the matrix with `shift` added along its diagonal.
   * @returns false when that is not positive definite
   */
  factorise(shift: number): boolean {
    const { size, band, entries, factor } = this;
    for (let i = 0; i < size; i++) {
      const row = i * band;
      const from = Math.max(0, i - band + 1);
      for (let j = from; j <= i; j++) {
        const other = j * band;
        let sum = entries[row + i - j]! + (i === j ? shift : 0);
        for (let k = Math.max(from, j - band + 1); k < j; k++) sum -= factor[row + i - k]! * factor[other + j - k]!;
        if (i !== j) factor[row + i - j] = sum / factor[other]!;
        else if (sum > 0) factor[row] = Math.sqrt(sum);
        else return false;
      }
    }
    return true;
  }

  /** Solves with the factor last made. @param out becomes the solution; may not be `right` */
  solve(out: Float64Array, right: Float64Array): void {
    const { size, band, factor, between } = this;
    for (let i = 0; i < size; i++) {
      let sum = right[i]!;
      for (let k = Math.max(0, i - band + 1); k < i; k++) sum -= factor[i * band + i - k]! * between[k]!;
      between[i] = sum / factor[i * band]!;
    }
    for (let i = size - 1; i >= 0; i--) {
      let sum = between[i]!;
      for (let k = i + 1; k < Math.min(size, i + band); k++) sum -= factor[k * band + k - i]! * out[k]!;
      out[i] = sum / factor[i * band]!;
    }
  }
}
