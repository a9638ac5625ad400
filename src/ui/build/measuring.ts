/** The distance and angle between two things that were picked, on the flat piece and as the card stands. */
import { distToLine, type Vec2 } from '@/core/plane/vec2';
import { contains } from '@/core/plane/polygon';
import type { Scene, ScenePose } from '@/workers/protocol';
import type { Vec3 } from '@/core/linkage';
import { inWorld, turnedToWorld } from '../posed/placing';
import type { Picked } from './picking';

export interface MeasuredBetween {
  /** On the piece, where both are on one, mm. */
  readonly flatMm: number | null;
  /** As the card stands, mm. */
  readonly trueMm: number | null;
  /** Between two lines, degrees: flat, and as the card stands. */
  readonly flatDeg: number | null;
  readonly trueDeg: number | null;
}

export function measureBetween(scene: Scene, pose: ScenePose | null, a: Picked, b: Picked): MeasuredBetween {
  const together = a.piece === b.piece;
  const lines = a.line && b.line ? ([a.line, b.line] as const) : null;
  const [p, q] = pose ? [placeOf(scene, pose, a.piece, a.at), placeOf(scene, pose, b.piece, b.at)] : [null, null];
  const [u, v] = lines && pose ? lines.map((l, k) => wayOf(scene, pose, (k === 0 ? a : b).piece, l)) : [null, null];
  return {
    flatMm: together ? flatApart(a, b) : null,
    trueMm: p && q ? Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) : null,
    flatDeg: together && lines ? angle(flatWay(lines[0]), flatWay(lines[1])) : null,
    trueDeg: u && v ? angle(u, v) : null,
  };
}

const flatWay = ({ a, b }: { readonly a: Vec2; readonly b: Vec2 }): Vec3 => [b[0] - a[0], b[1] - a[1], 0];

/** Of two parallel lines how far they lie apart; else from place to place. */
function flatApart(a: Picked, b: Picked): number {
  if (a.line && b.line && angle(flatWay(a.line), flatWay(b.line)) < 0.01) return distToLine(b.at, a.line.a, a.line.b);
  return Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]);
}

/** Of lines without a direction: 0 to 90 degrees. */
function angle(p: Vec3, q: Vec3): number {
  const dot = Math.abs(p[0] * q[0] + p[1] * q[1] + p[2] * q[2]);
  const cross = Math.hypot(p[1] * q[2] - p[2] * q[1], p[2] * q[0] - p[0] * q[2], p[0] * q[1] - p[1] * q[0]);
  return (Math.atan2(cross, dot) * 180) / Math.PI;
}

/** A place of a piece as the card stands, by the first facet that has it. */
export function placeOf(scene: Scene, pose: ScenePose, piece: string, at: Vec2): Vec3 | null {
  const facet = facetAt(scene, piece, at);
  return facet < 0 || pose.placed.length < 12 * (facet + 1) ? null : inWorld(pose, facet, at);
}
function wayOf(
  scene: Scene,
  pose: ScenePose,
  piece: string,
  { a, b }: { readonly a: Vec2; readonly b: Vec2 },
): Vec3 | null {
  const facet = facetAt(scene, piece, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
  if (facet < 0 || pose.placed.length < 12 * (facet + 1)) return null;
  return turnedToWorld(pose, facet, [b[0] - a[0], b[1] - a[1]]);
}

/** A point on an edge belongs to a facet as well. */
const NEAR_MM = 0.05;
function facetAt(scene: Scene, piece: string, [x, y]: Vec2): number {
  return scene.facets.findIndex(
    ({ piece: own, rings: [outer, ...holes] }) =>
      own === piece &&
      [
        [0, 0],
        [NEAR_MM, NEAR_MM],
        [-NEAR_MM, NEAR_MM],
        [NEAR_MM, -NEAR_MM],
        [-NEAR_MM, -NEAR_MM],
      ].some(([dx, dy]) => contains({ outer, holes }, [x + dx, y + dy])),
  );
}
