/** A small block by singular values: rank, free directions and least change in one decomposition. */
import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import type { BlockState, Block } from './block';
import { loopCurvature } from './curvature';
import type { Linkage } from './joint';
import { buildSystem, leastChange, type System } from './system';

/** Eigenvalues of the reduced energy count as at least this part of the largest. */
const LEAST_EIGENVALUE = 1e-3;

/** A block that is small enough to be taken apart whole. */
export interface DenseState extends BlockState {
  /**
   * Step down the energy along what the loops leave free, for a gradient and a diagonal of second derivatives (scaled
   * units); the loops' own curvature is added. Null where nothing is free, or the gradient along it is settled.
   */
  descend(
    held: ReadonlySet<number>,
    gradient: Float64Array,
    diagonal: Float64Array,
    settled: number,
  ): Float64Array | null;
}

/** A class, since one is made for every step of every block: closures would be made anew each time. */
class Dense implements DenseState {
  private readonly system: System;

  constructor(
    linkage: Linkage,
    private readonly block: Block,
    q: Float64Array,
  ) {
    this.system = buildSystem(linkage, block.loops, block.unknowns, q);
  }

  get sizeMm(): number {
    return this.system.sizeMm;
  }
  get scale(): Float64Array {
    return this.system.scale;
  }

  newton(held: ReadonlySet<number>, sizes?: Float64Array): { delta: Float64Array; condition: number } {
    if (held.size === 0 && !sizes) return leastChange(this.system);
    const keep = this.without(held);
    const { delta, condition } = leastChange(this.part(keep, sizes));
    return { delta: this.spread(keep, delta, sizes), condition };
  }

  descend(
    held: ReadonlySet<number>,
    gradient: Float64Array,
    diagonal: Float64Array,
    settled: number,
  ): Float64Array | null {
    const keep = this.without(held);
    const { free } = leastChange(this.part(keep));
    if (free.length === 0) return null;
    const g = keep.map((k) => gradient[k]);
    const Z = new Matrix(free.map((d) => [...d])).transpose();
    const along = Z.transpose().mmul(Matrix.columnVector(g));
    const size = Math.hypot(...g);
    if (size === 0 || along.norm() <= settled * size) return null;
    const H = hessian(this.block, this.system, keep, g, diagonal);
    const reduced = Z.transpose().mmul(H).mmul(Z);
    return this.spread(keep, Z.mmul(newtonStep(reduced, along)).to1DArray());
  }

  private without(held: ReadonlySet<number>): number[] {
    return this.block.unknowns.flatMap((j, k) => (held.has(j) ? [] : [k]));
  }
  private part(keep: readonly number[], sizes?: Float64Array): Pick<System, 'columns' | 'error'> {
    const { columns, error } = this.system;
    return { error, columns: keep.map((k) => (sizes ? columns[k].map((x) => x * sizes[k]) : columns[k])) };
  }
  private spread(keep: readonly number[], values: ArrayLike<number>, sizes?: Float64Array): Float64Array {
    const out = new Float64Array(this.block.unknowns.length);
    keep.forEach((k, i) => (out[k] = values[i] * (sizes?.[k] ?? 1)));
    return out;
  }
}

export const denseAlgebra =
  (linkage: Linkage, block: Block): ((q: Float64Array) => DenseState) =>
  (q) =>
    new Dense(linkage, block, q);

/** Second derivatives of the energy under closure: its own, and the loops' along their multipliers. */
function hessian(
  block: Block,
  { columns, error, states, scale }: System,
  keep: readonly number[],
  g: readonly number[],
  diagonal: Float64Array,
): Matrix {
  const n = keep.length;
  const H = Matrix.diag(
    keep.map((k) => diagonal[k]),
    n,
    n,
  );
  const rows = Array.from({ length: error.length }, (_, r) => Float64Array.from(keep, (k) => columns[k][r]));
  const multipliers = leastChange({ columns: rows, error: Float64Array.from(g) }).delta;
  const at = new Map(keep.map((k, i) => [block.unknowns[k], i]));
  block.loops.forEach(({ steps }, l) =>
    loopCurvature(states[l], steps.length, multipliers.subarray(6 * l, 6 * l + 6), (i, k, value) => {
      const [a, b] = [at.get(steps[i].joint), at.get(steps[k].joint)];
      if (a === undefined || b === undefined || a === b) return;
      const add = value * scale[keep[a]] * scale[keep[b]];
      H.set(a, b, H.get(a, b) + add);
      H.set(b, a, H.get(b, a) + add);
    }),
  );
  return H;
}

/** Newton's step by absolute eigenvalues, so that it always leads down. */
function newtonStep(reduced: Matrix, along: Matrix): Matrix {
  const { realEigenvalues: values, eigenvectorMatrix: E } = new EigenvalueDecomposition(reduced, {
    assumeSymmetric: true,
  });
  const floor = LEAST_EIGENVALUE * Math.max(...values.map(Math.abs));
  const c = E.transpose()
    .mmul(along)
    .to1DArray()
    .map((x, i) => -x / Math.max(Math.abs(values[i]), floor));
  return E.mmul(Matrix.columnVector(c));
}
