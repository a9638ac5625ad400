/** Short cycles of the joint graph: what must close. */
import type { Joint, Linkage } from './joint';

/** One step round a loop: through `joint`, from a to b (`forward`) or back. */
export interface LoopStep {
  readonly joint: number;
  readonly forward: boolean;
}
export interface Loop {
  readonly steps: readonly LoopStep[];
}

/**
 * A basis of short cycles: for every joint off a spanning tree the shortest way round through it, kept while
 * independent.
 * Short loops keep the equations sparse; cycles of a tree alone were measured 12 times denser (see docs/decisions.md).
 * @returns joints - bodies + parts loops
 */
export function shortLoops(linkage: Linkage): Loop[] {
  const { joints } = linkage;
  const at = jointsAt(linkage);
  const { inTree, parts } = spanningForest(linkage, at);
  const wanted = joints.length - linkage.bodies + parts;
  const basis = new CycleBasis();
  const loops: Loop[] = [];
  const consider = (loop: Loop | null): void => {
    if (loop && loops.length < wanted && basis.add(loop.steps.map((s) => s.joint))) loops.push(loop);
  };
  for (let j = 0; j < joints.length; j++) if (!inTree[j]) consider(shortestThrough(linkage, at, j));
  // Shortest loops of the joints off the tree can repeat each other; the rest is found through the others.
  for (let j = 0; j < joints.length && loops.length < wanted; j++)
    if (inTree[j]) consider(shortestThrough(linkage, at, j));
  if (loops.length < wanted)
    for (let j = 0; j < joints.length; j++) if (!inTree[j]) consider(treeLoop(linkage, at, inTree, j));
  return loops;
}

export function jointsAt({ bodies, joints }: Linkage): number[][] {
  const at: number[][] = Array.from({ length: bodies }, () => []);
  joints.forEach((j, i) => {
    at[j.a].push(i);
    if (j.b !== j.a) at[j.b].push(i);
  });
  return at;
}

const other = (j: Joint, body: number): number => (j.a === body ? j.b : j.a);

function spanningForest({ bodies, joints }: Linkage, at: number[][]): { inTree: boolean[]; parts: number } {
  const inTree = joints.map(() => false);
  const seen = new Uint8Array(bodies);
  let parts = 0;
  for (let root = 0; root < bodies; root++) {
    if (seen[root]) continue;
    parts++;
    seen[root] = 1;
    const queue = [root];
    for (let h = 0; h < queue.length; h++) {
      for (const j of at[queue[h]]) {
        const next = other(joints[j], queue[h]);
        if (seen[next]) continue;
        seen[next] = 1;
        inTree[j] = true;
        queue.push(next);
      }
    }
  }
  return { inTree, parts };
}

const shortestThrough = (linkage: Linkage, at: number[][], j: number): Loop | null =>
  loopThrough(linkage, at, j, () => true);
const treeLoop = (linkage: Linkage, at: number[][], inTree: boolean[], j: number): Loop | null =>
  loopThrough(linkage, at, j, (k) => inTree[k]);

/** Breadth first from b to a without joint j, then closed through j. */
function loopThrough({ joints }: Linkage, at: number[][], j: number, allowed: (joint: number) => boolean): Loop | null {
  const { a, b } = joints[j];
  const cameBy = new Map<number, number>([[b, -1]]);
  const queue = [b];
  for (let h = 0; h < queue.length && !cameBy.has(a); h++) {
    for (const k of at[queue[h]]) {
      if (k === j || !allowed(k)) continue;
      const next = other(joints[k], queue[h]);
      if (cameBy.has(next)) continue;
      cameBy.set(next, k);
      queue.push(next);
    }
  }
  if (!cameBy.has(a)) return null;
  const back: LoopStep[] = [];
  for (let body = a; body !== b;) {
    const k = cameBy.get(body)!;
    // Walked from a towards b here, so the loop a→b (through j), b→…→a takes it the other way.
    back.push({ joint: k, forward: joints[k].b === body });
    body = other(joints[k], body);
  }
  return { steps: [{ joint: j, forward: true }, ...back.reverse()] };
}

/** Independence over GF(2) by elimination on sparse rows. */
class CycleBasis {
  private readonly rows = new Map<number, number[]>();
  add(joints: readonly number[]): boolean {
    let row = new Set(joints);
    while (row.size > 0) {
      const pivot = Math.max(...row);
      const known = this.rows.get(pivot);
      if (!known) {
        this.rows.set(pivot, [...row]);
        return true;
      }
      row = new Set(row);
      for (const k of known) if (!row.delete(k)) row.add(k);
    }
    return false;
  }
}
