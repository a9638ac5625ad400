/** The linear system of a set of loops in some of its joints, and its solution of least change. */
import { Matrix, SingularValueDecomposition } from 'ml-matrix';
import { RANK_CUT } from '../tolerance';
import type { Linkage } from './joint';
import { loopState, type LoopState } from './loop-error';
import type { Loop } from './loops';

export interface System {
  readonly states: readonly LoopState[];
  /** 6 rows a loop, one column an unknown; columns of tracks are scaled by `scale` so that all unknowns are angles. */
  readonly jacobian: Matrix;
  readonly error: Float64Array;
  /** What one scaled unit is in the joint's own unit: 1 for turns, the loop's radius (mm) for tracks. */
  readonly scale: Float64Array;
  readonly sizeMm: number;
}

export function buildSystem(linkage: Linkage, loops: readonly Loop[], unknowns: readonly number[], q: Float64Array): System {
  const column = new Map(unknowns.map((j, k) => [j, k]));
  const states = loops.map((l) => loopState(linkage, l, q));
  const scale = Float64Array.from(unknowns, (j) => {
    if (linkage.joints[j].motion.kind === 'turn') return 1;
    const i = loops.findIndex((l) => l.steps.some((s) => s.joint === j));
    return i < 0 ? 1 : states[i].radiusMm;
  });
  const jacobian = Matrix.zeros(6 * loops.length, unknowns.length);
  const error = new Float64Array(6 * loops.length);
  let sizeMm = 0;
  loops.forEach((loop, i) => {
    const state = states[i];
    sizeMm = Math.max(sizeMm, state.sizeMm);
    error.set(state.error, 6 * i);
    loop.steps.forEach(({ joint }, s) => {
      const k = column.get(joint);
      if (k === undefined) return;
      for (let r = 0; r < 6; r++) jacobian.set(6 * i + r, k, jacobian.get(6 * i + r, k) + state.columns[s][r] * scale[k]);
    });
  });
  return { states, jacobian, error, scale, sizeMm };
}

export interface LeastChange {
  /** In scaled units. */
  readonly delta: Float64Array;
  readonly rank: number;
  /** Smallest kept singular value over the largest. */
  readonly condition: number;
  /** Columns span what the loops leave free. */
  readonly free: Matrix | null;
}

/** Minimise |delta| subject to J delta = -e in the least-squares sense; singular values below the cut count as zero. */
export function leastChange({ jacobian, error }: System, cut = RANK_CUT): LeastChange {
  const n = jacobian.columns;
  const svd = new SingularValueDecomposition(jacobian, { autoTranspose: true });
  const s = svd.diagonal;
  const U = svd.leftSingularVectors;
  const V = svd.rightSingularVectors;
  const largest = s.reduce((m, x) => Math.max(m, x), 0);
  const delta = new Float64Array(n);
  let rank = 0;
  let smallest = largest;
  for (let k = 0; k < s.length; k++) {
    if (s[k] <= cut * largest || s[k] === 0) continue;
    rank++;
    smallest = Math.min(smallest, s[k]);
    let along = 0;
    for (let r = 0; r < error.length; r++) along += U.get(r, k) * error[r];
    for (let c = 0; c < n; c++) delta[c] -= (V.get(c, k) * along) / s[k];
  }
  return { delta, rank, condition: largest === 0 ? 0 : smallest / largest, free: rank < n ? complement(V, s, cut * largest, n) : null };
}

/** Orthonormal basis of what the kept right singular vectors leave over. */
function complement(V: Matrix, s: readonly number[], cut: number, n: number): Matrix {
  const kept = s.map((_, k) => k).filter((k) => s[k] > cut && s[k] > 0);
  const basis: number[][] = kept.map((k) => V.getColumn(k));
  const free: number[][] = [];
  const missing = n - kept.length;
  // Unit vectors with the most left over after the projection come first.
  for (let tries = 0; free.length < missing && tries < 2 * n; tries++) {
    let best: number[] = [];
    let size = 0;
    for (let i = 0; i < n; i++) {
      const v = new Array<number>(n).fill(0);
      v[i] = 1;
      for (let pass = 0; pass < 2; pass++) {
        for (const b of basis) {
          const d = b.reduce((sum, x, k) => sum + x * v[k], 0);
          b.forEach((x, k) => (v[k] -= d * x));
        }
      }
      const length = Math.hypot(...v);
      if (length > size) [best, size] = [v.map((x) => x / length), length];
    }
    basis.push(best);
    free.push(best);
  }
  return new Matrix(free).transpose();
}
