/** What is solved together, in the order of solving. */
import type { Loop } from './loops';

export interface Block {
  readonly loops: readonly Loop[];
  readonly unknowns: readonly number[];
  /** Freedoms the loops leave; above 0 crease stiffness decides. */
  readonly freedoms: number;
  /**
   * The loops ask more than the unknowns can give at a generic pose: it closes only if the lengths agree, else it
   * bends.
   */
  readonly overdetermined: boolean;
}
export interface SolveOrder {
  readonly blocks: readonly Block[];
  /** Loops whose joints are all known by then: they are checked, not solved. */
  readonly checks: readonly Loop[];
  /** Joints in no loop that nothing drives: they stand as their crease's stiffness has it. */
  readonly loose: readonly number[];
}

/** A block's loops at given joint values. */
export interface BlockState {
  /** Greatest loop error, mm. */
  readonly sizeMm: number;
  /** What one scaled unit is in the joint's own unit: 1 for turns, the loop's radius (mm) for tracks. */
  readonly scale: Float64Array;
  /**
   * Least change of the unknowns (scaled units) that closes the loops to first order. `sizes`: each is measured
   * against its own size. Held unknowns do not change.
   */
  newton(held: ReadonlySet<number>, sizes?: Float64Array): { delta: Float64Array; condition: number };
}

/** How a block's loops are evaluated. One for each block: the sparse one keeps its structure. */
export type BlockAlgebra = (q: Float64Array) => BlockState;
