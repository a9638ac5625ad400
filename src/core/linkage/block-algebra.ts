/** The linear algebra of closing one block: small blocks by singular values, large ones by sparse factors. */
import type { Block, BlockAlgebra } from './block';
import { denseAlgebra } from './dense-algebra';
import type { Linkage } from './joint';
import { approachOf, sparseAlgebra } from './sparse-algebra';

/** From so many unknowns a block is taken sparsely: measured, the dense way costs their cube (docs/decisions.md). */
export const SPARSE_FROM = 20;

export const isLarge = (block: Block): boolean => block.unknowns.length >= SPARSE_FROM;

/** Remembers what is made once for a block of a linkage. */
function once<T>(make: (linkage: Linkage, block: Block) => T): (linkage: Linkage, block: Block) => T {
  const made = new WeakMap<Linkage, WeakMap<Block, T>>();
  return (linkage, block) => {
    const blocks = made.get(linkage) ?? new WeakMap<Block, T>();
    made.set(linkage, blocks);
    const known = blocks.get(block);
    if (known) return known;
    const value = make(linkage, block);
    blocks.set(block, value);
    return value;
  };
}

export const algebraOf = once<BlockAlgebra>((linkage, block) =>
  isLarge(block) ? sparseAlgebra(linkage, block) : denseAlgebra(linkage, block),
);
export const approachFor = once(approachOf);
