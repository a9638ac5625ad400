/** Second derivatives of loops: C_ij = ½ [X_i, X_j] of a loop's twists, of a product of exponentials. */
import type { LoopState } from './loop-error';
import { cross3, type Vec3 } from './rigid';

/**
 * The loop's curvature along its multipliers, for every pair of its steps (i before k) as a symmetric contribution.
 * Twists are taken about the loop's centre, before the turning rows are scaled by its radius L.
 */
export function loopCurvature(
  { columns: X, radiusMm: L }: LoopState,
  steps: number,
  multipliers: ArrayLike<number>,
  add: (i: number, k: number, value: number) => void,
): void {
  const w = Array.from({ length: steps }, (_, i): Vec3 => [X[6 * i] / L, X[6 * i + 1] / L, X[6 * i + 2] / L]);
  const v = Array.from({ length: steps }, (_, i): Vec3 => [X[6 * i + 3], X[6 * i + 4], X[6 * i + 5]]);
  for (let i = 0; i < steps; i++) {
    for (let k = i + 1; k < steps; k++) {
      const turn = cross3(w[i], w[k]);
      const left = cross3(w[i], v[k]);
      const right = cross3(w[k], v[i]);
      let bent = 0;
      for (let r = 0; r < 3; r++) bent += multipliers[r] * L * turn[r] + multipliers[3 + r] * (left[r] - right[r]);
      add(i, k, 0.5 * bent);
    }
  }
}
