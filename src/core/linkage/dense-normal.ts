/** Normal equations of few unknowns, as a whole matrix: rows are added one by one, then solved by Cholesky. */
export class DenseNormal {
  private readonly matrix: Float64Array;
  private readonly gradient: Float64Array;

  constructor(readonly size: number) {
    this.matrix = new Float64Array(size * size);
    this.gradient = new Float64Array(size);
  }

  clear(): void {
    this.matrix.fill(0);
    this.gradient.fill(0);
  }

  /** A row of `count` entries at `columns`, and what is left of it; only the lower triangle is kept. */
  add(columns: Int32Array, values: Float64Array, count: number, rest: number): void {
    const { matrix, gradient, size } = this;
    for (let i = 0; i < count; i++) {
      gradient[columns[i]] -= values[i] * rest;
      for (let j = 0; j < count; j++)
        if (columns[j] <= columns[i]) matrix[columns[i] * size + columns[j]] += values[i] * values[j];
    }
  }

  /**
   * The solution with the diagonal scaled by `1 + damping` and raised by a part of its greatest entry; null where that
   * is not positive.
   */
  solve(damping: number, floor: number): Float64Array | null {
    const { matrix: a, size: n } = this;
    let greatest = 0;
    for (let k = 0; k < n; k++) greatest = Math.max(greatest, a[k * n + k]);
    for (let k = 0; k < n; k++) a[k * n + k] = a[k * n + k] * (1 + damping) + floor * greatest;
    return this.factor() ? this.backAndForth() : null;
  }

  private factor(): boolean {
    const { matrix: a, size: n } = this;
    for (let j = 0; j < n; j++) {
      let pivot = a[j * n + j];
      for (let k = 0; k < j; k++) pivot -= a[j * n + k] ** 2;
      if (!(pivot > 0)) return false;
      const root = Math.sqrt(pivot);
      a[j * n + j] = root;
      for (let i = j + 1; i < n; i++) {
        let sum = a[i * n + j];
        for (let k = 0; k < j; k++) sum -= a[i * n + k] * a[j * n + k];
        a[i * n + j] = sum / root;
      }
    }
    return true;
  }

  private backAndForth(): Float64Array {
    const { matrix: a, gradient, size: n } = this;
    const x = gradient.slice();
    for (let i = 0; i < n; i++) {
      for (let k = 0; k < i; k++) x[i] -= a[i * n + k] * x[k];
      x[i] /= a[i * n + i];
    }
    for (let i = n - 1; i >= 0; i--) {
      for (let k = i + 1; k < n; k++) x[i] -= a[k * n + i] * x[k];
      x[i] /= a[i * n + i];
    }
    return x;
  }
}
