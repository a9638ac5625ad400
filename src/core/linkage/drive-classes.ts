/** Which drives a block depends on: those of the known joints that reach it, by way of other blocks too. */
import type { SolveOrder } from './block';
import type { Linkage } from './joint';
import type { Loop } from './loops';

/** Blocks that depend on the same drives. */
export interface DrivesOrder {
  /** Indices of the drives, ascending. */
  readonly drives: readonly number[];
  readonly own: SolveOrder;
  /** With every block that these depend on. */
  readonly all: SolveOrder;
}

/** The opening: of what depends on no drive, and of creases that nothing holds. */
const FIRST = 0;

/** The order of solving, parted by the drives its blocks depend on; the opening's part comes first. */
export function drivesOfOrder(linkage: Linkage, order: SolveOrder): DrivesOrder[] {
  const byJoint = linkage.joints.map(({ driven }): readonly number[] => (driven ? [driven.drive] : []));
  const ofLoops = (loops: readonly Loop[]): readonly number[] => {
    const found = new Set(loops.flatMap((l) => l.steps.flatMap((s) => byJoint[s.joint])));
    return found.size === 0 ? [FIRST] : [...found].sort((a, b) => a - b);
  };
  const blocks = order.blocks.map((block) => {
    const drives = ofLoops(block.loops);
    for (const j of block.unknowns) byJoint[j] = drives;
    return { drives, block };
  });
  const checks = order.checks.map((loop) => ({ drives: ofLoops([loop]), loop }));
  const all: Of[] = [{ drives: [FIRST] }, ...blocks, ...checks];
  const sets = new Map(all.map(({ drives }) => [drives.join(), drives] as const));
  return [...sets.values()]
    .sort((a, b) => a[0] - b[0] || a.length - b.length)
    .map((drives) => {
      const same = (of: Of): boolean => of.drives.join() === drives.join();
      const inside = (of: Of): boolean => of.drives.every((d) => drives.includes(d));
      const part = (keep: (of: Of) => boolean, loose: readonly number[]): SolveOrder => ({
        blocks: blocks.filter(keep).map((b) => b.block),
        checks: checks.filter(keep).map((c) => c.loop),
        loose,
      });
      const loose = drives.join() === String(FIRST) ? order.loose : [];
      return { drives, own: part(same, loose), all: part(inside, loose) };
    });
}
interface Of {
  readonly drives: readonly number[];
}
