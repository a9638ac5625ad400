/** Where a walk begins: a pose whose folds are all known exactly, or one found by search. */
import { FOLLOW_ITERATIONS } from './close';
import type { BlockSolver, Folds } from './block-solver';
import { seeded } from './random';

/** Random poses tried for a block when no end of the travel is known. */
const SEARCH_TRIES = 40;
/** Places of the range at which a pose is looked for: halves, then quarters, and so on down to 1/32. */
const SEARCH_LEVELS = 5;

/** Closed where every loop closes there, else open flat; else somewhere between. Null where nothing was found. */
export function findStart(solver: BlockSolver): Folds | null {
  for (const side of [0, 1] as const) {
    const q = solver.statedAt(side);
    const { blocks } = solver.order;
    if (!q || blocks.some((b) => !b.overdetermined && !solver.closesExactly(b.loops, q))) continue;
    if (blocks.some((b) => solver.roleFault(b, q))) continue;
    const drive = solver.range[side];
    solver.setLoose(q, drive);
    return solver.measured(q, drive, 0);
  }
  const [closed, open] = solver.range;
  for (const part of searchedParts()) {
    const found = searchAt(solver, closed + (open - closed) * part);
    if (found) return found;
  }
  return null;
}

/** 1/2, 1/4, 3/4, 1/8 … : any range of poses wider than 6 degrees of the opening is met. */
function* searchedParts(): Generator<number> {
  for (let level = 1; level <= SEARCH_LEVELS; level++) for (let k = 1; k < 2 ** level; k += 2) yield k / 2 ** level;
}

/** Folds of any size with the roles' signs, until every block closes. */
function searchAt(solver: BlockSolver, drive: number): Folds | null {
  const { q } = solver.still(drive);
  const { joints } = solver.linkage;
  let iterations = 0;
  for (const block of solver.order.blocks) {
    const random = seeded(block.unknowns[0] + 7);
    let found = false;
    for (let k = 0; k < SEARCH_TRIES && !found; k++) {
      block.unknowns.forEach((j) => {
        const { role, motion } = joints[j];
        const sign = role || (random() < 0.5 ? -1 : 1);
        const size = k === 0 ? Math.min(solver.evenFold(drive), 3) : 0.1 + 3 * random();
        q[j] = motion.kind === 'track' ? q[j] : sign * size;
      });
      const closing = solver.close(block, q, drive, FOLLOW_ITERATIONS);
      iterations = Math.max(iterations, closing.iterations);
      found = closing.ok && !solver.roleFault(block, q);
    }
    if (!found) return null;
  }
  solver.setLoose(q, drive);
  return solver.measured(q, drive, iterations);
}
