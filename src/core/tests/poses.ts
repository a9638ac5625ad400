/** Poses of tests: where paper lies in space, and how far two cards' paper lies apart. */
import type { Assembly } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { restOf, type State } from '../drives';
import { applyRigid, dist3, sub3, dot3, add3, scale3, type Vec3 } from '../linkage';

/** Outlines of all facets in a state, by facet. */
export function paperAt(assembly: Assembly, state: State): Map<string, Vec3[]> {
  const { placed } = poseAt(assembly, { ...restOf(assembly.drives), ...state });
  return new Map(
    assembly.facets.map((f, i) => [
      `${f.piece} ${f.id}`,
      f.polygon.outer.map(([x, y]) => applyRigid(placed[i], [x, y, 0])),
    ]),
  );
}

/** Greatest distance of a corner of one card's facets from the outline of the other's facet of that name, mm. */
export function apart(a: Assembly, b: Assembly, state: State): number {
  const [p, q] = [paperAt(a, state), paperAt(b, state)];
  expect([...q.keys()].sort()).toEqual([...p.keys()].sort());
  let most = 0;
  for (const [id, ring] of p) for (const corner of ring) most = Math.max(most, toRing(corner, q.get(id)!));
  return most;
}

const toRing = (p: Vec3, ring: readonly Vec3[]): number =>
  ring.reduce((least, a, i) => Math.min(least, toSegment(p, a, ring[(i + 1) % ring.length])), Infinity);

function toSegment(p: Vec3, a: Vec3, b: Vec3): number {
  const way = sub3(b, a);
  const long = dot3(way, way);
  const t = long > 0 ? Math.min(1, Math.max(0, dot3(sub3(p, a), way) / long)) : 0;
  return dist3(p, add3(a, scale3(way, t)));
}
