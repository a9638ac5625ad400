/** What a card that is left alone stands on, and how far inside that its weight lies. */
import { polygonHull } from 'd3-polygon';
import type { Assembly } from '../assembly/assembly';
import { onFacet, type Pose } from '../assembly/pose';
import type { Stance } from '../kinds';
import { applyRigid, cross3, dot3, norm3, unit3, type Vec3 } from '../linkage';
import { ringArea } from '../plane/polygon';
import { sideOf, type Vec2 } from '../plane/vec2';
import { ON_TABLE_MM } from '../tolerance';

/** Every corner of its paper in the world. */
function corners(assembly: Assembly, pose: Pose): Vec3[] {
  const facets = assembly.facets.flatMap((f, i) => f.polygon.outer.map((p) => onFacet(pose, i, p)));
  const layers = assembly.layers.flatMap((l) => l.region.flatMap((r) => r.outer.map((p) => onFacet(pose, l.facet, p))));
  return [...facets, ...layers];
}

/** Feet that enclose less than this lie on a line, mm². */
const LINE_MM2 = 1;

/** Leaves that stand nearer to flat than this are no tent. */
const FLAT_SINE = 1e-9;

/** Hull of points, counter-clockwise; fewer than three where they lie on a line. */
function hullOf(points: readonly Vec2[]): Vec2[] {
  const hull = polygonHull(points as [number, number][]);
  if (!hull) return [];
  return ringArea(hull) > 0 ? hull : [...hull].reverse();
}

/**
 * The way down for a card that stands as it is read; `up` is that way in the axes of the still leaf. A tent comes to
 * rest on the side of its hull, seen along the gutter, that looks down most.
 */
function wayDown(assembly: Assembly, pose: Pose, stance: Stance, up: Vec2): Vec3 {
  if (stance === 'lying') return [0, 0, -1];
  if (stance === 'upright') return [-up[0], -up[1], 0];
  const leaf = (id: string): number => assembly.facets.findIndex((f) => f.id === id);
  const away = (id: string, sign: 1 | -1): Vec3 => {
    const i = leaf(id);
    // A leaf without paper is found by `loose-part`.
    if (i < 0) return [0, 0, 0];
    const [a, b] = [applyRigid(pose.placed[i], [0, 0, 0]), applyRigid(pose.placed[i], [0, sign, 0])];
    return [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  };
  const [still, turning] = [away(assembly.lead.still, 1), away(assembly.lead.turning, -1)];
  const between: Vec3 = [0, still[1] + turning[1], still[2] + turning[2]];
  // Opened flat it lies on the table.
  if (norm3(between) < FLAT_SINE) return [0, 0, -1];
  const middle = unit3(between);
  const hull = hullOf(corners(assembly, pose).map(([, y, z]): Vec2 => [y, z]));
  const sides = hull.map((p, i): Vec2 => {
    const q = hull[(i + 1) % hull.length];
    const length = Math.hypot(q[0] - p[0], q[1] - p[1]);
    return [(q[1] - p[1]) / length, (p[0] - q[0]) / length];
  });
  const down = (n: Vec2): number => n[0] * middle[1] + n[1] * middle[2];
  const best = sides.reduce((a, b) => (down(b) > down(a) ? b : a), sides[0]);
  return best ? [0, best[0], best[1]] : middle;
}

export interface Support {
  readonly down: Vec3;
  /** How far a point, seen from above, lies inside what the card stands on, mm; negative: outside. */
  readonly margin: (at: Vec3) => number;
}

export function supportOf(assembly: Assembly, pose: Pose, stance: Stance, up: Vec2): Support {
  const down = wayDown(assembly, pose, stance, up);
  const across = unit3(Math.abs(down[0]) > 0.5 ? cross3(down, [0, 1, 0]) : cross3(down, [1, 0, 0]));
  const along = cross3(down, across);
  const seen = (p: Vec3): Vec2 => [dot3(p, across), dot3(p, along)];
  const all = corners(assembly, pose);
  const lowest = all.reduce((most, p) => Math.max(most, dot3(p, down)), -Infinity);
  const feet = all.filter((p) => dot3(p, down) > lowest - ON_TABLE_MM).map(seen);
  const hull = hullOf(feet);
  return { down, margin: (at) => insideBy(hull, feet, seen(at)) };
}

/** How far inside a hull; on a line or a point nothing stands, and the distance from it is told as outside. */
function insideBy(hull: readonly Vec2[], feet: readonly Vec2[], p: Vec2): number {
  if (hull.length < 3 || ringArea(hull) < LINE_MM2)
    return -Math.min(...feet.map((f) => Math.hypot(f[0] - p[0], f[1] - p[1])));
  return Math.min(
    ...hull.map((a, i) => {
      const b = hull[(i + 1) % hull.length];
      return sideOf(a, b, p) / Math.hypot(b[0] - a[0], b[1] - a[1]);
    }),
  );
}
