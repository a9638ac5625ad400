/**
 * A large block by sparse factors of the quasi-definite matrix [[W, Jᵀ], [J, -μI]] (Vanderbei 1995): least change and
 * steps toward least energy both come from it. The structure is analysed once for a block.
 */
import type { BlockAlgebra, BlockState, Block } from './block';
import { loopCurvature } from './curvature';
import type { Joint, Linkage } from './joint';
import { loopState, type LoopState } from './loop-error';
import type { Loop } from './loops';
import { dist3 } from './rigid';
import { SparseSymmetric } from './sparse';
import { INDEPENDENT_ROW, KKT_REGULARISATION, RANK_REGULARISATION, SAME_POINT_MM } from '../tolerance';

/** First shift of an energy matrix that is not positive along what is free, over its mean; then ten times as much. */
const FIRST_SHIFT = 1e-3;
const MOST_SHIFTS = 8;

/** An entry of the Jacobian: row of the system, unknown, and where its value is in the loop's columns. */
interface Entry {
  readonly row: number;
  readonly unknown: number;
  readonly loop: number;
  readonly at: number;
}
interface Structure {
  readonly rows: number;
  readonly entries: readonly Entry[];
  /** Pairs of unknowns that share a loop. */
  readonly pairs: readonly (readonly [a: number, b: number])[];
  readonly pairAt: ReadonlyMap<number, number>;
  /** First row of a loop, and of its six rows the first that is used: three for a vertex, which only turns. */
  readonly rowOf: readonly { readonly first: number; readonly count: 3 | 6 }[];
  readonly matrix: SparseSymmetric;
}

export function sparseAlgebra(linkage: Linkage, block: Block): BlockAlgebra {
  const structure = analyse(linkage, block);
  return (q): BlockState => {
    const states = block.loops.map((l) => loopState(linkage, l, q));
    const scale = scalesOf(linkage, block, states);
    const n = block.unknowns.length;
    const sizeMm = states.reduce((m, s) => Math.max(m, s.sizeMm), 0);
    return {
      sizeMm,
      scale,
      newton: (held, sizes) => {
        const J = jacobianOf(block, structure, states, scale, held, sizes);
        const right = new Float64Array(n + structure.rows);
        structure.rowOf.forEach(({ first, count }, l) => {
          for (let r = 0; r < count; r++) right[n + first + r] = -states[l].error[r];
        });
        if (!factor(structure, new Float64Array(n).fill(1), null, J)) return { delta: right.slice(0, n), condition: 0 };
        const delta = structure.matrix.solve(right).subarray(0, n);
        // How near to singular it is these factors do not tell: taken as if it were.
        return { delta: sizes ? delta.map((x, k) => x * sizes[k]) : delta.slice(), condition: 0 };
      },
    };
  };
}

/** A step of sequential quadratic programming: toward least energy on the closed loops, from a pose that is neither. */
export interface Approach {
  readonly delta: Float64Array;
  readonly multipliers: Float64Array;
}
export type ApproachFrom = (
  q: Float64Array,
  held: ReadonlySet<number>,
  gradient: Float64Array,
  diagonal: Float64Array,
  multipliers: Float64Array | null,
) => Approach | null;

/**
 * Steps of a block that is left free: the energy's second derivatives and the loops' own along their multipliers,
 * shifted until they are positive along what the loops leave free. Null where no shift makes them so.
 */
export function approachOf(linkage: Linkage, block: Block): ApproachFrom {
  const structure = analyse(linkage, block);
  const n = block.unknowns.length;
  return (q, held, gradient, diagonal, multipliers) => {
    const states = block.loops.map((l) => loopState(linkage, l, q));
    const scale = scalesOf(linkage, block, states);
    const J = jacobianOf(block, structure, states, scale, held);
    const right = new Float64Array(n + structure.rows);
    gradient.forEach((g, k) => (right[k] = held.has(block.unknowns[k]) ? 0 : -g));
    structure.rowOf.forEach(({ first, count }, l) => {
      for (let r = 0; r < count; r++) right[n + first + r] = -states[l].error[r];
    });
    const curvature = multipliers && curvatureOf(block, structure, states, scale, held, multipliers);
    const mean = diagonal.reduce((sum, x) => sum + x, 0) / n;
    for (let k = 0, shift = 0; k < MOST_SHIFTS; k++, shift = mean * FIRST_SHIFT * 10 ** (k - 1)) {
      const weights = diagonal.map((x) => x + shift);
      if (!factor(structure, weights, curvature, J) || !isPositive(structure, n)) continue;
      const solution = structure.matrix.solve(right);
      return { delta: solution.slice(0, n), multipliers: solution.slice(n) };
    }
    return null;
  };
}

const jacobianOf = (
  block: Block,
  { entries }: Structure,
  states: readonly LoopState[],
  scale: Float64Array,
  held: ReadonlySet<number>,
  sizes?: Float64Array,
): Float64Array =>
  Float64Array.from(entries, ({ unknown, loop, at }) =>
    held.has(block.unknowns[unknown]) ? 0 : states[loop].columns[at] * scale[unknown] * (sizes ? sizes[unknown] : 1),
  );

/** By Sylvester's law: as many positive pivots as unknowns. */
function isPositive({ matrix, rows }: Structure, n: number): boolean {
  let positive = 0;
  for (let k = 0; k < n + rows; k++) if (matrix.pivots[k] > 0) positive++;
  return positive === n;
}

/**
 * Rank of a large set of loops at a generic pose, by sparse factors of J Jᵀ: the pivot of a row is the square of what
 * it has of its own beside the rows before it.
 */
export function sparseRank(
  linkage: Linkage,
  loops: readonly Loop[],
  unknowns: readonly number[],
  q: Float64Array,
): number {
  const block: Block = { loops, unknowns, freedoms: 0, overdetermined: false };
  const { entries, rows } = analyse(linkage, block);
  const states = loops.map((l) => loopState(linkage, l, q));
  const scale = scalesOf(linkage, block, states);
  const byUnknown: { row: number; value: number }[][] = unknowns.map(() => []);
  for (const { row, unknown, loop, at } of entries)
    byUnknown[unknown].push({ row, value: states[loop].columns[at] * scale[unknown] });
  const places = Array.from({ length: rows }, (_, r): [number, number] => [r, r]);
  const values = new Array<number>(rows).fill(0);
  let trace = 0;
  for (const list of byUnknown) {
    list.forEach((a, i) => {
      trace += a.value * a.value;
      for (const b of list.slice(i)) {
        places.push([Math.min(a.row, b.row), Math.max(a.row, b.row)]);
        values.push(a.value * b.value);
      }
    });
  }
  values.fill((RANK_REGULARISATION * trace) / rows, 0, rows);
  const matrix = new SparseSymmetric(rows, places);
  if (!matrix.factor(values)) return unknowns.length;
  const greatest = matrix.pivots.reduce((m, p) => Math.max(m, p), 0);
  const independent = matrix.pivots.reduce((count, p) => (p > INDEPENDENT_ROW * greatest ? count + 1 : count), 0);
  return Math.min(unknowns.length, independent);
}

function factor(
  { matrix, rows, pairs }: Structure,
  weights: Float64Array,
  curvature: Float64Array | null,
  J: Float64Array,
): boolean {
  let sum = 0;
  for (const x of J) sum += x * x;
  const mu = (KKT_REGULARISATION * sum) / Math.max(1, rows) || KKT_REGULARISATION;
  const values = new Float64Array(weights.length + rows + pairs.length + J.length);
  values.set(weights);
  values.fill(-mu, weights.length, weights.length + rows);
  if (curvature) values.set(curvature, weights.length + rows);
  values.set(J, weights.length + rows + pairs.length);
  return matrix.factor(values);
}

function analyse(linkage: Linkage, block: Block): Structure {
  const n = block.unknowns.length;
  const column = new Map(block.unknowns.map((j, k) => [j, k]));
  const entries: Entry[] = [];
  const pairs: [number, number][] = [];
  const pairAt = new Map<number, number>();
  let rows = 0;
  const rowOf = block.loops.map((loop, l) => {
    const count = isVertex(linkage, loop) ? (3 as const) : (6 as const);
    const first = rows;
    rows += count;
    const unknowns = loop.steps.map((s) => column.get(s.joint));
    unknowns.forEach((unknown, i) => {
      if (unknown === undefined) return;
      for (let r = 0; r < count; r++) entries.push({ row: first + r, unknown, loop: l, at: 6 * i + r });
      for (const other of unknowns.slice(i + 1)) {
        if (other === undefined || other === unknown) continue;
        const key = Math.min(unknown, other) * n + Math.max(unknown, other);
        if (pairAt.has(key)) continue;
        pairAt.set(key, pairs.length);
        pairs.push([unknown, other]);
      }
    });
    return { first, count };
  });
  const places: [number, number][] = [
    ...Array.from({ length: n + rows }, (_, k): [number, number] => [k, k]),
    ...pairs,
    ...entries.map((e): [number, number] => [e.unknown, n + e.row]),
  ];
  return { rows, entries, pairs, pairAt, rowOf, matrix: new SparseSymmetric(n + rows, places) };
}

/** All joints turn about lines through one point of one flat sheet: only turning has to close. */
function isVertex({ joints }: Linkage, { steps }: Loop): boolean {
  const ring = steps.map((s) => joints[s.joint]);
  if (ring.some((j: Joint) => j.placement || j.motion.kind === 'track')) return false;
  return ring[0].span.some((p) => ring.every((j) => j.span.some((r) => dist3(p, r) < SAME_POINT_MM)));
}

function scalesOf(linkage: Linkage, block: Block, states: readonly LoopState[]): Float64Array {
  return Float64Array.from(block.unknowns, (j) => {
    if (linkage.joints[j].motion.kind !== 'track') return 1;
    const l = block.loops.findIndex((loop) => loop.steps.some((s) => s.joint === j));
    return l < 0 ? 1 : states[l].radiusMm;
  });
}

function curvatureOf(
  block: Block,
  { rowOf, pairs, pairAt }: Structure,
  states: readonly LoopState[],
  scale: Float64Array,
  held: ReadonlySet<number>,
  multipliers: Float64Array,
): Float64Array {
  const n = block.unknowns.length;
  const out = new Float64Array(pairs.length);
  const column = new Map(block.unknowns.map((j, k) => [j, k]));
  block.loops.forEach(({ steps }, l) => {
    const { first, count } = rowOf[l];
    const own = new Float64Array(6);
    own.set(multipliers.subarray(first, first + count));
    loopCurvature(states[l], steps.length, own, (i, k, value) => {
      const [a, b] = [column.get(steps[i].joint), column.get(steps[k].joint)];
      if (a === undefined || b === undefined || a === b) return;
      if (held.has(steps[i].joint) || held.has(steps[k].joint)) return;
      out[pairAt.get(Math.min(a, b) * n + Math.max(a, b))!] += value * scale[a] * scale[b];
    });
  });
  return out;
}
