/**
 * Contacts: a joint that comes to the end of its track is known there, and the drive is what is solved for (the easel's
 * foot at its stop). The drive goes no further.
 */
import { solveOrder } from './blocks';
import { BlockSolver } from './block-solver';
import { boundsOf, type Joint, type Linkage } from './joint';
import { Travel } from './travel';

/**
 * Value of a drive (rad or mm) at which a joint meets its stop, the others at rest; null where it never does. The drive
 * must lead one joint alone.
 */
export function contactOf(linkage: Linkage, drive: number, joint: number): number | null {
  const leads = linkage.joints.flatMap((j, k) => (j.driven?.drive === drive ? [k] : []));
  if (leads.length !== 1) return null;
  const [lead] = leads;
  const rest = linkage.drives.map((d) => d.rest);
  const { range } = linkage.drives[drive];
  const far = range[0] === rest[drive] ? range[1] : range[0];
  const { folds, stop } = travelOf(linkage).at(...rest.with(drive, far));
  if (!stop || stop.lead !== drive || stop.reason !== 'track-end' || !stop.joints.includes(joint)) return null;
  const [least, most] = boundsOf(linkage.joints[joint]);
  const bound = Math.abs(folds.q[joint] - least) < Math.abs(folds.q[joint] - most) ? least : most;
  return solvedDrive(handedOver(linkage, drive, lead, joint, bound), folds.q, lead, linkage.joints[lead], rest, drive);
}

/** Several drives of one linkage are walked in one travel. */
const travels = new WeakMap<Linkage, Travel>();
function travelOf(linkage: Linkage): Travel {
  const travel = travels.get(linkage) ?? new Travel(linkage);
  travels.set(linkage, travel);
  return travel;
}

/** The linkage with the joint held at its stop, and what the drive led left to be solved for. */
function handedOver(linkage: Linkage, drive: number, lead: number, joint: number, bound: number): Linkage {
  const joints = linkage.joints.map((j, k): Joint => {
    if (k === joint) return { ...j, driven: { drive, at: bound, rate: 0 } };
    if (k !== lead) return j;
    const { driven: _, ...free } = j;
    return free;
  });
  return { ...linkage, joints };
}

function solvedDrive(
  linkage: Linkage,
  near: Float64Array,
  lead: number,
  { driven }: Joint,
  held: readonly number[],
  drive: number,
): number | null {
  const solver = new BlockSolver(linkage, solveOrder(linkage), { drive, held });
  const q = near.slice();
  solver.setDriven(q, held[drive]);
  for (const block of solver.order.blocks) if (!solver.close(block, q, held[drive]).ok) return null;
  return (q[lead] - driven!.at) / driven!.rate;
}
