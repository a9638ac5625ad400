/**
 * The order of solving: loops become determinate one after another, and what stays free is left to crease stiffness.
 * Biconnected parts are too coarse: nested mechanisms share two facets with what they stand on.
 */
import { GENERIC_RANK_CUT } from '../tolerance';
import type { Linkage } from './joint';
import { shortLoops, type Loop } from './loops';
import { seeded } from './random';
import { sparseRank } from './sparse-algebra';
import type { Block, SolveOrder } from './block';
import { jacobiSvd } from './svd';
import { buildSystem } from './system';

/** From so many unknowns the rank is found sparsely. */
const SPARSE_RANK_FROM = 60;
/** Sets of loops up to this size are tried together before the whole rest is taken as one. */
const LARGEST_SET = 4;

export function solveOrder(linkage: Linkage): SolveOrder {
  const loops = shortLoops(linkage);
  const generic = genericPose(linkage);
  const known = linkage.joints.map((j) => j.driven !== undefined);
  const loopsOf: number[][] = linkage.joints.map(() => []);
  loops.forEach((l, i) => l.steps.forEach((s) => loopsOf[s.joint].push(i)));
  const open = new Set(loops.keys());
  const blocks: Block[] = [];
  const checks: Loop[] = [];

  const unknownsOf = (set: readonly number[]): number[] =>
    [...new Set(set.flatMap((i) => loops[i].steps.map((s) => s.joint)))].filter((j) => !known[j]);
  const take = (set: readonly number[], unknowns: number[], rank: number): void => {
    const chosen = set.map((i) => loops[i]);
    const all = [...new Set(chosen.flatMap((l) => l.steps.map((s) => s.joint)))];
    const rows = rankAt(linkage, chosen, all, generic);
    blocks.push({ loops: chosen, unknowns, freedoms: unknowns.length - rank, overdetermined: rows > rank });
    set.forEach((i) => open.delete(i));
    unknowns.forEach((j) => (known[j] = true));
  };
  const determinate = (set: readonly number[]): { unknowns: number[]; rank: number } | null => {
    const unknowns = unknownsOf(set);
    if (unknowns.length === 0 || unknowns.length > 6 * set.length) return null;
    const rank = rankAt(
      linkage,
      set.map((i) => loops[i]),
      unknowns,
      generic,
    );
    return rank === unknowns.length ? { unknowns, rank } : null;
  };

  let queue = [...loops.keys()];
  for (;;) {
    // Single loops first; a loop is looked at again only when one of its joints has become known.
    for (let h = 0; h < queue.length; h++) {
      const i = queue[h];
      if (!open.has(i)) continue;
      if (unknownsOf([i]).length === 0) {
        open.delete(i);
        checks.push(loops[i]);
        continue;
      }
      const found = determinate([i]);
      if (!found) continue;
      take([i], found.unknowns, found.rank);
      queue.push(...found.unknowns.flatMap((j) => loopsOf[j]));
    }
    if (open.size === 0) break;
    const set = smallestSet(open, loopsOf, unknownsOf, determinate) ?? connectedRest(open, loopsOf, unknownsOf);
    const unknowns = unknownsOf(set);
    take(
      set,
      unknowns,
      rankAt(
        linkage,
        set.map((i) => loops[i]),
        unknowns,
        generic,
      ),
    );
    queue = unknowns.flatMap((j) => loopsOf[j]);
  }
  const inLoop = new Set(loops.flatMap((l) => l.steps.map((s) => s.joint)));
  const loose = linkage.joints.map((_, j) => j).filter((j) => !inLoop.has(j) && !linkage.joints[j].driven);
  return { blocks, checks, loose };
}

/** Grow a set from each open loop, by the neighbour that brings the fewest new unknowns, until it is determinate. */
function smallestSet(
  open: ReadonlySet<number>,
  loopsOf: readonly number[][],
  unknownsOf: (set: readonly number[]) => number[],
  determinate: (set: readonly number[]) => unknown,
): number[] | null {
  for (let size = 2; size <= Math.min(LARGEST_SET, open.size); size++) {
    for (const seed of open) {
      const set = [seed];
      while (set.length < size) {
        const have = new Set(unknownsOf(set));
        const near = [...new Set([...have].flatMap((j) => loopsOf[j]))].filter((i) => open.has(i) && !set.includes(i));
        if (near.length === 0) break;
        const added = (i: number): number => unknownsOf([i]).filter((j) => !have.has(j)).length;
        set.push(near.reduce((best, i) => (added(i) < added(best) ? i : best)));
      }
      if (set.length === size && determinate(set)) return set;
    }
  }
  return null;
}

function connectedRest(
  open: ReadonlySet<number>,
  loopsOf: readonly number[][],
  unknownsOf: (set: readonly number[]) => number[],
): number[] {
  const first = open.values().next().value as number;
  const seen = new Set([first]);
  const queue = [first];
  for (let h = 0; h < queue.length; h++) {
    for (const j of unknownsOf([queue[h]])) {
      for (const i of loopsOf[j]) {
        if (!open.has(i) || seen.has(i)) continue;
        seen.add(i);
        queue.push(i);
      }
    }
  }
  return queue;
}

/** Folds around 60 degrees with their roles' signs: a pose with nothing special about it. */
function genericPose(linkage: Linkage): Float64Array {
  const random = seeded(11);
  return Float64Array.from(linkage.joints, (j) => {
    const size = 0.9 + 0.4 * random();
    return j.motion.kind !== 'track' ? (j.role || (random() < 0.5 ? -1 : 1)) * size : size;
  });
}

function rankAt(linkage: Linkage, loops: readonly Loop[], unknowns: readonly number[], q: Float64Array): number {
  if (unknowns.length >= SPARSE_RANK_FROM) return sparseRank(linkage, loops, unknowns, q);
  const s = jacobiSvd(buildSystem(linkage, loops, unknowns, q).columns).values;
  const largest = Math.max(...s);
  return s.filter((x) => x > GENERIC_RANK_CUT * largest).length;
}
