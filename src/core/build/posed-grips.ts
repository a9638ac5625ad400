/** Corners of the posed card that follow numbers: how a corner of a facet goes in space with each number. */
import { poseAt } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import type { State } from '../drives';
import { fieldOf, kindIn, parameterOf, setParameter } from '../document/fields';
import type { Design } from '../document/design';
import { applyRigid, dist3, scale3, sub3, type Vec3 } from '../linkage';
import { tryBuild } from './build';
import { numbersOf } from './grips';

/** How far a corner goes for each mm, or degree, of a number; world axes, mm. */
export interface PosedGrip {
  readonly parameter: string;
  readonly way: Vec3;
}

const NUDGE = 0.05;
const FOLLOWS_FROM = 0.1;

/**
 * The corner of a facet that is nearest to a point, and the numbers of its mechanism that move it while every drive
 * stays where it is. Derivatives are differences of two solved poses.
 * @param at in world axes, mm
 */
export function posedGripsOf(
  design: Design,
  assembly: Assembly,
  state: State,
  facet: number,
  at: Vec3,
): { readonly corner: Vec3; readonly grips: readonly PosedGrip[] } | null {
  const { id, piece, mechanism } = assembly.facets[facet];
  const corners = cornersOf(assembly, state, piece, id);
  if (!corners || corners.length === 0) return null;
  const k = corners.reduce((best, p, i) => (dist3(p, at) < dist3(corners[best], at) ? i : best), 0);
  const grips = numbersOf(design, mechanism).flatMap((parameter): PosedGrip[] => {
    const now = parameterOf(design, mechanism, parameter) as number;
    const { max = Infinity } = fieldOf(kindIn(design, mechanism)!, parameter) ?? {};
    const by = now + NUDGE > max ? -NUDGE : NUDGE;
    const changed = tryBuild(setParameter(design, mechanism, parameter, now + by));
    const moved = changed && cornersOf(changed, state, piece, id);
    // An outline that gains or loses corners has no corner that is the same.
    if (!moved || moved.length !== corners.length) return [];
    const way = scale3(sub3(moved[k], corners[k]), 1 / by);
    return dist3(way, [0, 0, 0]) > FOLLOWS_FROM ? [{ parameter, way }] : [];
  });
  return { corner: corners[k], grips };
}

/** Outline of a facet in space; null where it is not, or the card cannot stand so. */
function cornersOf(assembly: Assembly, state: State, piece: string, id: string): Vec3[] | null {
  const i = assembly.facets.findIndex((f) => f.piece === piece && f.id === id);
  const pose = i < 0 ? null : poseAt(assembly, state);
  if (!pose || pose.stop) return null;
  return assembly.facets[i].polygon.outer.map(([x, y]) => applyRigid(pose.placed[i], [x, y, 0]));
}

/** Outlines of a mechanism's facets in space, for a ghost of it. */
export function ghostOf(assembly: Assembly, state: State, mechanism: string): readonly (readonly Vec3[])[] {
  const { placed } = poseAt(assembly, state);
  return assembly.facets.flatMap((f, i) =>
    f.mechanism === mechanism ? [f.polygon.outer.map(([x, y]) => applyRigid(placed[i], [x, y, 0]))] : [],
  );
}
