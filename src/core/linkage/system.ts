/** The linear system of a set of loops in some of its joints, and its solution of least change. */
import { RANK_CUT } from '../tolerance';
import type { Linkage } from './joint';
import { loopState, type LoopState } from './loop-error';
import type { Loop } from './loops';
import { jacobiSvd } from './svd';

export interface System {
  readonly states: readonly LoopState[];
  /** One column an unknown, 6 rows a loop; columns of tracks are scaled by `scale` so that all unknowns are angles. */
  readonly columns: readonly Float64Array[];
  readonly error: Float64Array;
  /** What one scaled unit is in the joint's own unit: 1 for turns, the loop's radius (mm) for tracks. */
  readonly scale: Float64Array;
  readonly sizeMm: number;
}

export function buildSystem(
  linkage: Linkage,
  loops: readonly Loop[],
  unknowns: readonly number[],
  q: Float64Array,
): System {
  const column = new Map(unknowns.map((j, k) => [j, k]));
  const states = loops.map((l) => loopState(linkage, l, q));
  const scale = Float64Array.from(unknowns, (j) => {
    if (linkage.joints[j].motion.kind !== 'track') return 1;
    const i = loops.findIndex((l) => l.steps.some((s) => s.joint === j));
    return i < 0 ? 1 : states[i].radiusMm;
  });
  const columns = unknowns.map(() => new Float64Array(6 * loops.length));
  const error = new Float64Array(6 * loops.length);
  let sizeMm = 0;
  loops.forEach((loop, i) => {
    const state = states[i];
    sizeMm = Math.max(sizeMm, state.sizeMm);
    error.set(state.error, 6 * i);
    loop.steps.forEach(({ joint }, s) => {
      const k = column.get(joint);
      if (k === undefined) return;
      for (let r = 0; r < 6; r++) columns[k][6 * i + r] += state.columns[6 * s + r] * scale[k];
    });
  });
  return { states, columns, error, scale, sizeMm };
}

export interface LeastChange {
  /** In scaled units. */
  readonly delta: Float64Array;
  readonly rank: number;
  /** Smallest kept singular value over the largest. */
  readonly condition: number;
  /** Orthonormal directions the loops leave free. */
  readonly free: readonly Float64Array[];
}

/** Minimise |delta| subject to J delta = -e in the least-squares sense; singular values below the cut count as zero. */
export function leastChange({ columns, error }: Pick<System, 'columns' | 'error'>, cut = RANK_CUT): LeastChange {
  const n = columns.length;
  const { scaledLeft, values, right } = jacobiSvd(columns);
  const largest = values.reduce((m, x) => Math.max(m, x), 0);
  const delta = new Float64Array(n);
  const free: Float64Array[] = [];
  let rank = 0;
  let smallest = largest;
  values.forEach((s, k) => {
    if (s <= cut * largest || s === 0) {
      free.push(right[k]);
      return;
    }
    rank++;
    smallest = Math.min(smallest, s);
    let along = 0;
    for (let r = 0; r < error.length; r++) along += scaledLeft[k][r] * error[r];
    for (let c = 0; c < n; c++) delta[c] -= (right[k][c] * along) / (s * s);
  });
  return { delta, rank, condition: largest === 0 ? 0 : smallest / largest, free };
}
