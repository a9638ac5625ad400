/** What would stand in the way of a hand that glues: paper over a glue area, on the side it is reached from. */
import type { Assembly } from '../assembly/assembly';
import { onFacet, type Pose } from '../assembly/pose';
import { applyRigid, dot3, invert, sub3, type Vec3 } from '../linkage';
import { contains, insidePoint, ringArea, type Ring } from '../plane/polygon';
import { lerp2, type Vec2 } from '../plane/vec2';
import { ownerOfId } from '../ids';

/** A hand with a burnisher needs this much room over what it presses, mm; common practice, no source. */
const HAND_MM = 25;
/** Paper nearer than this lies on the area, or is the sheet it is stuck to, mm. */
const ON_IT_MM = 0.6;

/** For each mechanism that is glued, those others that would cover some of its glue in a pose. */
export function coveredBy(assembly: Assembly, pose: Pose): ReadonlyMap<string, ReadonlySet<string>> {
  const out = new Map<string, Set<string>>();
  for (const { mechanism, onto } of assembly.pieces.flatMap((p) => p.glue)) {
    const facet = assembly.facets.findIndex((f) => f.id === onto.facet && f.piece === onto.piece);
    if (facet < 0) continue;
    const covering = out.get(mechanism) ?? new Set<string>();
    for (const spot of spotsOf(onto.outline))
      for (const owner of over(assembly, pose, facet, spot)) if (owner !== mechanism) covering.add(owner);
    out.set(mechanism, covering);
  }
  return out;
}

/** The middle of an area, and places between that and its corners. */
function spotsOf(outline: Ring): Vec2[] {
  const ring = ringArea(outline) > 0 ? outline : [...outline].reverse();
  const middle = insidePoint({ outer: ring, holes: [] });
  return [middle, ...ring.map((p): Vec2 => lerp2(middle, p, 0.8))];
}

/** Owners of the paper within a hand's room over a spot of a facet's inside. */
function over(assembly: Assembly, pose: Pose, facet: number, spot: Vec2): Set<string> {
  const from = onFacet(pose, facet, spot);
  const m = pose.placed[facet];
  const up: Vec3 = [m[2], m[6], m[10]];
  const out = new Set<string>();
  assembly.facets.forEach((f, i) => {
    if (i === facet || ownerOfId(f.id) === f.id) return;
    const n = pose.placed[i];
    const normal: Vec3 = [n[2], n[6], n[10]];
    const rise = dot3(up, normal);
    if (Math.abs(rise) < STEEP) return;
    const away = dot3(sub3(onFacet(pose, i, [0, 0]), from), normal) / rise;
    if (away < ON_IT_MM || away > HAND_MM) return;
    const at: Vec3 = [from[0] + up[0] * away, from[1] + up[1] * away, from[2] + up[2] * away];
    const [x, y] = applyRigid(invert(n), at);
    if (contains(f.polygon, [x, y])) out.add(f.mechanism);
  });
  return out;
}
/** Paper seen on edge covers nothing (sine). */
const STEEP = 0.05;
