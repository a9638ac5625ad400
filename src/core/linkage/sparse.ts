/**
 * Sparse symmetric systems by LDLᵀ without pivoting, for quasi-definite matrices: the structure is ordered and analysed
 * once and factored as often as its values change. Source: Davis 2005, "Algorithm 849: a concise sparse Cholesky
 * factorization package"; order by least degree (Tinney and Walker 1967).
 */
export class SparseSymmetric {
  /** Where entry e of the caller goes in the permuted upper triangle. */
  private readonly slot: Int32Array;
  private readonly order: Int32Array;
  private readonly column: Int32Array;
  private readonly row: Int32Array;
  private readonly values: Float64Array;
  private readonly parent: Int32Array;
  private readonly lowerColumn: Int32Array;
  private readonly lowerRow: Int32Array;
  private readonly lower: Float64Array;
  /** Pivots of the last factorisation, in the caller's order. */
  readonly pivots: Float64Array;
  private readonly diagonal: Float64Array;

  /** @param entries places (i, j) of one triangle, diagonal included, in any order; repeated places add up */
  constructor(
    readonly size: number,
    entries: readonly (readonly [i: number, j: number])[],
  ) {
    const n = size;
    this.order = leastDegree(n, entries);
    const rank = new Int32Array(n);
    this.order.forEach((v, k) => (rank[v] = k));
    const places = entries.map(([i, j]): [number, number] => [Math.max(rank[i], rank[j]), Math.min(rank[i], rank[j])]);
    const unique = [...new Set(places.map(([c, r]) => c * n + r))].sort((a, b) => a - b);
    const at = new Map(unique.map((key, k) => [key, k]));
    this.slot = Int32Array.from(places, ([c, r]) => at.get(c * n + r)!);
    this.column = new Int32Array(n + 1);
    for (const key of unique) this.column[Math.floor(key / n) + 1]++;
    for (let k = 0; k < n; k++) this.column[k + 1] += this.column[k];
    this.row = Int32Array.from(unique, (key) => key % n);
    this.values = new Float64Array(unique.length);
    const { parent, counts } = eliminationTree(n, this.column, this.row);
    this.parent = parent;
    this.lowerColumn = new Int32Array(n + 1);
    for (let k = 0; k < n; k++) this.lowerColumn[k + 1] = this.lowerColumn[k] + counts[k];
    this.lowerRow = new Int32Array(this.lowerColumn[n]);
    this.lower = new Float64Array(this.lowerColumn[n]);
    this.diagonal = new Float64Array(n);
    this.pivots = new Float64Array(n);
  }

  /** Non-zeros of the factor below its diagonal. */
  get fill(): number {
    return this.lower.length;
  }

  /** @param values one for each entry given at the start; @returns false where a pivot vanished */
  factor(values: ArrayLike<number>): boolean {
    const { size: n, column, row, parent, lowerColumn, lowerRow, lower, diagonal } = this;
    this.values.fill(0);
    for (let e = 0; e < this.slot.length; e++) this.values[this.slot[e]] += values[e];
    const filled = new Int32Array(n);
    const flag = new Int32Array(n).fill(-1);
    const pattern = new Int32Array(n);
    const y = new Float64Array(n);
    for (let k = 0; k < n; k++) {
      // The pattern of row k of the factor: what the tree passes from the entries of column k.
      let top = n;
      flag[k] = k;
      y[k] = 0;
      for (let p = column[k]; p < column[k + 1]; p++) {
        let i = row[p];
        y[i] += this.values[p];
        let length = 0;
        for (; flag[i] !== k; i = parent[i]) {
          pattern[length++] = i;
          flag[i] = k;
        }
        while (length > 0) pattern[--top] = pattern[--length];
      }
      let d = y[k];
      y[k] = 0;
      for (; top < n; top++) {
        const i = pattern[top];
        const yi = y[i];
        y[i] = 0;
        const end = lowerColumn[i] + filled[i];
        for (let p = lowerColumn[i]; p < end; p++) y[lowerRow[p]] -= lower[p] * yi;
        const l = yi / diagonal[i];
        d -= l * yi;
        lowerRow[end] = k;
        lower[end] = l;
        filled[i]++;
      }
      if (d === 0 || !Number.isFinite(d)) return false;
      diagonal[k] = d;
      this.pivots[this.order[k]] = d;
    }
    return true;
  }

  /** Solution for the matrix factored last. */
  solve(right: ArrayLike<number>): Float64Array {
    const { size: n, order, lowerColumn, lowerRow, lower, diagonal } = this;
    const x = Float64Array.from(order, (v) => right[v]);
    for (let k = 0; k < n; k++)
      for (let p = lowerColumn[k]; p < lowerColumn[k + 1]; p++) x[lowerRow[p]] -= lower[p] * x[k];
    for (let k = 0; k < n; k++) x[k] /= diagonal[k];
    for (let k = n - 1; k >= 0; k--)
      for (let p = lowerColumn[k]; p < lowerColumn[k + 1]; p++) x[k] -= lower[p] * x[lowerRow[p]];
    const out = new Float64Array(n);
    order.forEach((v, k) => (out[v] = x[k]));
    return out;
  }
}

/** Parents of the elimination tree and the number of entries below the diagonal in each column of the factor. */
function eliminationTree(n: number, column: Int32Array, row: Int32Array): { parent: Int32Array; counts: Int32Array } {
  const parent = new Int32Array(n).fill(-1);
  const counts = new Int32Array(n);
  const flag = new Int32Array(n).fill(-1);
  for (let k = 0; k < n; k++) {
    flag[k] = k;
    for (let p = column[k]; p < column[k + 1]; p++) {
      for (let i = row[p]; flag[i] !== k; i = parent[i]) {
        if (parent[i] === -1) parent[i] = k;
        counts[i]++;
        flag[i] = k;
      }
    }
  }
  return { parent, counts };
}

/** Eliminates the vertex with the fewest neighbours first; of equals the one named first. */
function leastDegree(n: number, entries: readonly (readonly [number, number])[]): Int32Array {
  const near = Array.from({ length: n }, () => new Set<number>());
  for (const [i, j] of entries) {
    if (i === j) continue;
    near[i].add(j);
    near[j].add(i);
  }
  const buckets: Set<number>[] = [];
  const put = (v: number): void => void (buckets[near[v].size] ??= new Set()).add(v);
  for (let v = 0; v < n; v++) put(v);
  const order = new Int32Array(n);
  for (let k = 0, least = 0; k < n; k++) {
    while (!buckets[least] || buckets[least].size === 0) least++;
    const v = buckets[least].values().next().value as number;
    buckets[least].delete(v);
    order[k] = v;
    const ring = [...near[v]];
    for (const u of ring) {
      buckets[near[u].size].delete(u);
      near[u].delete(v);
      for (const w of ring) if (w !== u) near[u].add(w);
      put(u);
      least = Math.min(least, near[u].size);
    }
  }
  return order;
}
