/**
 * How one solid moves as another sees it: what carries both along brings neither nearer to the other.
 *
 *      the greater one's own sheet          the lesser one, in the greater one's axes
 *     ┌──────────────────────────┐            ┌────┐  →  ┌────┐
 *     │                          │            └────┘     └────┘   its way, its turn
 *     └──────────────────────────┘
 *
 * Invariant: where the lesser one's box, swept in those axes, stays beside the greater one's, they meet nowhere.
 */
import type { Pose } from '../assembly/pose';
import { compose, invert, squaredDist3, type Box3, type Rigid } from '../linkage';
import { boxOf } from '../plane/polygon';
import { radToDeg } from '../units/angle';
import type { Solid } from './solids';

/** A way between two poses bows out by less than this part of its chord: an arc of half a turn by half of it. */
export const BOW_PART = 0.5;
/** Between two looks nothing that is near something turns or goes further than this, as that sees it. */
export const LOOK_DEG = 5;
export const LOOK_MM = 2;

/** A solid's box in the axes of its own facet. */
interface Extent {
  readonly box: Box3;
  readonly diagonal: number;
}
const extents = new WeakMap<Solid, Extent>();
function extentOf(solid: Solid): Extent {
  const found = extents.get(solid) ?? measured(solid);
  extents.set(solid, found);
  return found;
}
function measured({ polygon, fromMm, toMm }: Solid): Extent {
  const { min, max } = boxOf(polygon.outer);
  const box: Box3 = { min: [min[0], min[1], fromMm], max: [max[0], max[1], toMm] };
  return { box, diagonal: Math.sqrt(squaredDist3(box.min, box.max)) };
}

/** Where the lesser of two solids is in a pose, in the axes of the greater one; the box is its corners'. */
export interface Seen extends Box3 {
  readonly turned: Rigid;
  /** Of its corners x, y and z by turns. */
  readonly corners: Float64Array;
}

/** Two solids, and how the lesser one is seen from the greater one. */
export interface Sight {
  readonly ground: Box3;
  readonly at: (pose: Pose) => Seen;
}
export function sightOf(p: Solid, q: Solid): Sight {
  const [greater, lesser] = extentOf(p).diagonal >= extentOf(q).diagonal ? [p, q] : [q, p];
  const { box } = extentOf(lesser);
  const known = new WeakMap<Pose, Seen>();
  const look = ({ placed }: Pose): Seen => placedBox(compose(invert(placed[greater.facet]), placed[lesser.facet]), box);
  const at = (pose: Pose): Seen => {
    const seen = known.get(pose) ?? look(pose);
    known.set(pose, seen);
    return seen;
  };
  return { ground: extentOf(greater).box, at };
}

/** The corners of a box where a motion takes them, and the box round those; written out, it is asked for so often. */
function placedBox(turned: Rigid, { min, max }: Box3): Seen {
  const corners = new Float64Array(CORNERS * 3);
  const box: { min: [number, number, number]; max: [number, number, number] } = {
    min: [Infinity, Infinity, Infinity],
    max: [-Infinity, -Infinity, -Infinity],
  };
  for (let c = 0; c < CORNERS; c++) {
    const [x, y, z] = [c & 4 ? max[0] : min[0], c & 2 ? max[1] : min[1], c & 1 ? max[2] : min[2]];
    for (let k = 0; k < 3; k++) {
      const at = turned[4 * k] * x + turned[4 * k + 1] * y + turned[4 * k + 2] * z + turned[4 * k + 3];
      corners[3 * c + k] = at;
      if (at < box.min[k]) box.min[k] = at;
      if (at > box.max[k]) box.max[k] = at;
    }
  }
  return { turned, corners, ...box };
}
const CORNERS = 8;

/** How far the corner goes that goes furthest from one place to another, mm. */
export function wayOf(a: Seen, b: Seen): number {
  const [p, q] = [a.corners, b.corners];
  let most = 0;
  for (let k = 0; k < p.length; k += 3) {
    const [x, y, z] = [p[k] - q[k], p[k + 1] - q[k + 1], p[k + 2] - q[k + 2]];
    const squared = x * x + y * y + z * z;
    if (squared > most) most = squared;
  }
  return Math.sqrt(most);
}
/** Looks that it takes from one place to another, so that none misses more than it may; one or less: none between. */
export const looksFor = (a: Seen, b: Seen, wayMm = wayOf(a, b)): number =>
  Math.max(wayMm / LOOK_MM, turnBetween(a.turned, b.turned) / LOOK_DEG);

/** Whether the lesser one's box, over all these places and the ways between them, is beside the ground's. */
export function staysBeside({ ground }: Sight, places: readonly Seen[], bowMm: number): boolean {
  for (let k = 0; k < 3; k++) {
    let [low, high] = [Infinity, -Infinity];
    for (const { min, max } of places) {
      if (min[k] < low) low = min[k];
      if (max[k] > high) high = max[k];
    }
    if (low - bowMm >= ground.max[k] || high + bowMm <= ground.min[k]) return true;
  }
  return false;
}

/** Angle between two placements, degrees: from the trace of the rotation that takes one to the other. */
export function turnBetween(m: Rigid, n: Rigid): number {
  let trace = 0;
  for (const k of [0, 1, 2, 4, 5, 6, 8, 9, 10]) trace += m[k] * n[k];
  return radToDeg(Math.acos(Math.min(1, Math.max(-1, (trace - 1) / 2))));
}
