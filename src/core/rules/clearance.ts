/** Least distance between mechanisms that do not carry each other, for the travel's chart. */
import Flatbush from 'flatbush';
import type { Assembly } from '../assembly/assembly';
import { facetOutline, type Pose } from '../assembly/pose';
import { applyRigid, boxGap3, boxOf3, dot3, invert, norm3, sub3, type Box3, type Rigid, type Vec3 } from '../linkage';
import { ownerOfId } from '../ids';
import { contains, type Polygon } from '../plane/polygon';
import { PARALLEL_PART } from '../tolerance';
import { isBase } from './rule';

interface Placed extends Box3 {
  readonly facet: number;
  readonly mechanism: string;
  readonly points: readonly Vec3[];
}
interface Edge extends Box3 {
  readonly a: Vec3;
  readonly b: Vec3;
}

/** A gap between two mechanisms, and the facets it is between. */
export interface Gap {
  readonly mm: number;
  readonly a: string;
  readonly b: string;
}

/** Of every two mechanisms that stand side by side and come nearer than so many mm, the least gap. */
export function gapsBelow(assembly: Assembly, pose: Pose, mm: number): Gap[] {
  const placed = placedFacets(assembly, pose);
  const apart = standApart(assembly);
  const gaps = new Map<string, Gap>();
  for (const [i, p] of placed.entries())
    for (const q of placed.slice(i + 1)) {
      const key = [p.mechanism, q.mechanism].sort().join(' ');
      const bound = gaps.get(key)?.mm ?? mm;
      if (!apart(p, q) || boxGap3(p, q) >= bound) continue;
      const gap = polygonGap(pose, assembly, p, q, bound);
      if (gap < bound) gaps.set(key, { mm: gap, a: assembly.facets[p.facet].id, b: assembly.facets[q.facet].id });
    }
  return [...gaps.values()];
}

const placedFacets = (assembly: Assembly, pose: Pose): Placed[] =>
  assembly.facets.flatMap((f, facet) => {
    if (isBase(assembly, f.mechanism) || assembly.leafBodies.has(f.body)) return [];
    const points = facetOutline(pose, assembly.facets, facet);
    return [{ facet, mechanism: f.mechanism, points, ...boxOf3(points) }];
  });

/** Whether neither of two stands on the other. */
function standApart(assembly: Assembly): (p: Placed, q: Placed) => boolean {
  const carries = carriers(assembly);
  return (p, q) =>
    p.mechanism !== q.mechanism && !carries(p.mechanism, q.mechanism) && !carries(q.mechanism, p.mechanism);
}

/** Least gap in mm and the facets it is between; null when no two mechanisms stand side by side. */
export function leastClearance(assembly: Assembly, pose: Pose): Gap | null {
  const placed = placedFacets(assembly, pose);
  if (placed.length < 2) return null;
  const index = new Flatbush(placed.length);
  for (const { min, max } of placed) index.add(min[0], min[1], max[0], max[1]);
  index.finish();
  let best: Gap | null = null;
  const apart = standApart(assembly);
  const look = (p: Placed, k: number): void => {
    const q = placed[k];
    const bound = best?.mm ?? Infinity;
    if (!apart(p, q) || boxGap3(p, q) >= bound) return;
    const gap = polygonGap(pose, assembly, p, q, bound);
    if (gap < bound) best = { mm: gap, a: assembly.facets[p.facet].id, b: assembly.facets[q.facet].id };
  };
  // A first bound from the nearest neighbours, then everything that could still be nearer.
  placed.forEach((p) =>
    index
      .neighbors((p.min[0] + p.max[0]) / 2, (p.min[1] + p.max[1]) / 2, 4, Infinity, (k) => apart(p, placed[k]))
      .forEach((k) => look(p, k)),
  );
  if (!best) return null;
  placed.forEach((p, i) => {
    const r = best!.mm;
    for (const k of index.search(p.min[0] - r, p.min[1] - r, p.max[0] + r, p.max[1] + r)) if (k > i) look(p, k);
  });
  return best;
}

/** Whether one mechanism stands, at any depth, on another. */
function carriers(assembly: Assembly): (lower: string, upper: string) => boolean {
  const hostOf = new Map(assembly.mechanisms.map((m) => [m.id, m.host && ownerOfId(m.host.crease)]));
  return (lower, upper) => {
    for (let at = hostOf.get(upper); at; at = hostOf.get(at) ?? null) if (at === lower) return true;
    return false;
  };
}

/** Edges of an outline that come nearer to a box than `bound`. */
function edgesNear(points: readonly Vec3[], box: Box3, bound: number): Edge[] {
  const out: Edge[] = [];
  points.forEach((a, i) => {
    const b = points[(i + 1) % points.length];
    const around = boxOf3([a, b]);
    if (boxGap3(around, box) < bound) out.push({ a, b, ...around });
  });
  return out;
}

/** Least distance between two polygons in space, where it is less than `bound`. */
function polygonGap(pose: Pose, assembly: Assembly, p: Placed, q: Placed, bound: number): number {
  let least = bound;
  const others = edgesNear(q.points, p, bound);
  for (const e of edgesNear(p.points, q, bound))
    for (const f of others) if (boxGap3(e, f) < least) least = Math.min(least, segmentGap(e.a, e.b, f.a, f.b));
  for (const [from, onto] of [
    [p, q],
    [q, p],
  ] as const) {
    const back: Rigid = invert(pose.placed[onto.facet]);
    const polygon: Polygon = assembly.facets[onto.facet].polygon;
    for (const point of from.points) {
      const local = applyRigid(back, point);
      if (Math.abs(local[2]) < least && contains(polygon, [local[0], local[1]])) least = Math.abs(local[2]);
    }
  }
  return least;
}

/** Distance between two segments in space. Source: closest points of two lines, clamped to the segments. */
function segmentGap(a: Vec3, b: Vec3, c: Vec3, d: Vec3): number {
  const u = sub3(b, a);
  const v = sub3(d, c);
  const w = sub3(a, c);
  const [uu, uv, vv, uw, vw] = [dot3(u, u), dot3(u, v), dot3(v, v), dot3(u, w), dot3(v, w)];
  const clamp = (x: number): number => Math.min(1, Math.max(0, x));
  const den = uu * vv - uv * uv;
  let s = den > PARALLEL_PART * uu * vv ? clamp((uv * vw - vv * uw) / den) : 0;
  const t = vv > 0 ? clamp((uv * s + vw) / vv) : 0;
  s = uu > 0 ? clamp((uv * t - uw) / uu) : 0;
  return norm3([w[0] + u[0] * s - v[0] * t, w[1] + u[1] * s - v[1] * t, w[2] + u[2] * s - v[2] * t]);
}
