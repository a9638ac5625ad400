/**
 * Leaving a flat sheet with every fold going its own way: a closed pose whose folds keep the signs they are given and
 * are as near to the sizes given as closing allows, measured by their ratios.
 *
 * At a flat sheet the loops are quadratic in the folds, so Newton from there runs into poses with folds the wrong way.
 * In the logarithms of the sizes no fold can pass through flat, and what is left is one well conditioned problem
 * (sequential quadratic programming, the curvature of the loops left out).
 */
import { approachFor } from './block-algebra';
import type { Block } from './block';
import { closeKeepingSigns } from './close';
import type { Linkage } from './joint';
import { SIZE_ARRIVED } from '../tolerance';

const MOST_STEPS = 60;
/** Change of a size's natural logarithm in one step, at most. */
const STEP_CAP = 0.5;
const NONE: ReadonlySet<number> = new Set();

/**
 * In place.
 * @param q value of every joint, rad; none of the block's may be 0
 * @returns Newton steps, and whether the loops close
 */
export function closeBySizes(
  linkage: Linkage,
  block: Block,
  q: Float64Array,
): { readonly ok: boolean; readonly iterations: number } {
  const { unknowns } = block;
  const step = approachFor(linkage, block);
  const asked = unknowns.map((j) => Math.abs(q[j]));
  let iterations = 0;
  for (let size = Infinity; size > SIZE_ARRIVED && iterations < MOST_STEPS; iterations++) {
    const gradient = Float64Array.from(unknowns, (j, k) => (2 * Math.log(Math.abs(q[j]) / asked[k])) / q[j]);
    const diagonal = Float64Array.from(unknowns, (j) => 2 / q[j] ** 2);
    const next = step(q, NONE, gradient, diagonal, null);
    if (!next) break;
    const ratios = next.delta.map((d, k) => d / q[unknowns[k]]);
    size = ratios.reduce((m, x) => Math.max(m, Math.abs(x)), 0);
    const part = Math.min(1, STEP_CAP / size);
    unknowns.forEach((j, k) => (q[j] *= Math.exp(part * ratios[k])));
  }
  const closed = closeKeepingSigns(linkage, block, q);
  return { ok: closed.ok, iterations: iterations + closed.iterations };
}
