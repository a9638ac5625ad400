/** What rules are given: the design put together, what it is for, and its poses. */
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { stockOf, type Design } from '../document/design';
import { envelopeById, postById, sheetById } from '../paper/sizes';
import type { Brief, Evidence, Rule } from '../rules';

export const DEFAULT_STEPS = 36;
export const MOST_STEPS = 720;

export const briefOf = (design: Design): Brief => ({
  units: design.units,
  stayInside: design.card.stayInside,
  envelope: design.post.envelope ? (envelopeById(design.post.envelope) ?? null) : null,
  post: design.post.format ? (postById(design.post.format) ?? null) : null,
  stock: (id) => stockOf(design, id),
  sheetMarginMm: design.sheets.marginMm,
  sheet: sheetById,
});

/** The closed pose; null where the travel does not reach it. */
export function closedPose(assembly: Assembly): Pose | null {
  const pose = poseAt(assembly, 0);
  return pose.stop ? null : pose;
}

/** Evidence for rules that need no more than `needs`. */
export function gather(
  design: Design,
  needs: Rule['needs'],
  steps = DEFAULT_STEPS,
  assembly = buildAssembly(design),
): Evidence {
  return {
    assembly,
    brief: briefOf(design),
    closed: needs === 'pattern' ? null : closedPose(assembly),
    travel: needs === 'travel' ? [...walk(assembly, steps)] : [],
  };
}

/** Poses from closed to open flat at even steps, leaving out what the travel does not reach. */
export function* walk(assembly: Assembly, steps: number): Generator<Pose> {
  for (let k = 0; k <= steps; k++) {
    const pose = poseAt(assembly, (180 * k) / steps);
    if (!pose.stop) yield pose;
  }
}
