/**
 * What small closed lines of a drawing are by their shape: round holes for rivets and pins, slots for what slides,
 * areas of glue that are alike. mm.
 */
import { centreOf, ringArea } from '../plane/polygon';
import { dist2, distToSegment, dot2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { SIZE_ROUNDING_MM } from '../tolerance';
import type { TemplateLine } from './mending';

/** Larger holes are windows, wider slots too; common practice, no source. */
export const WIDEST_HOLE_MM = 12;
const WIDEST_SLOT_MM = 15;
/** A slot is so much longer than wide. */
const SLOT_PART = 1.5;
/** What is drawn strays this far from its shape, part of its size and mm. */
const STRAYS_PART = 0.02;
const STRAYS_MM = 0.02;

export interface RoundHole {
  readonly line: string;
  readonly centre: Vec2;
  readonly diameterMm: number;
}
export interface Slot {
  readonly line: string;
  readonly widthMm: number;
  /** Ends of the way of a pin that fills its width. */
  readonly from: Vec2;
  readonly to: Vec2;
}

const closedRing = ({ closed, points }: TemplateLine): readonly Vec2[] | null => {
  const ends = closed || dist2(points[0], points[points.length - 1]) < STRAYS_MM;
  return ends && points.length >= 3 ? points : null;
};

export function roundHole(line: TemplateLine): RoundHole | null {
  const ring = closedRing(line);
  if (!ring || ring.length < LEAST_SIDES) return null;
  const centre = centreOf(ring);
  const radii = ring.map((p) => dist2(p, centre));
  const [least, most] = [Math.min(...radii), Math.max(...radii)];
  if (2 * most > WIDEST_HOLE_MM + SIZE_ROUNDING_MM || most - least > STRAYS_MM + STRAYS_PART * most) return null;
  // Corners lie on the circle; it is the circle that was drawn.
  return { line: line.id, centre, diameterMm: 2 * most };
}
/** Fewer make a polygon that is meant as one. */
const LEAST_SIDES = 8;

/** A straight slot, its ends round or square. */
export function slotOf(line: TemplateLine): Slot | null {
  const ring = closedRing(line);
  if (!ring) return null;
  const centre = centreOf(ring);
  const along = longWay(ring);
  const across: Vec2 = [-along[1], along[0]];
  const reach = (u: Vec2): number => Math.max(...ring.map((p) => Math.abs(dot2(sub2(p, centre), u))));
  const [half, wide] = [reach(along), reach(across)];
  if (2 * wide > WIDEST_SLOT_MM || half < SLOT_PART * wide) return null;
  const [from, to] = [-1, 1].map((s): Vec2 => {
    const way = scale2(along, s * (half - wide));
    return [centre[0] + way[0], centre[1] + way[1]];
  });
  const off = ring.map((p) => distToSegment(p, from, to));
  const strays = STRAYS_MM + STRAYS_PART * wide;
  const round = off.every((d) => Math.abs(d - wide) < strays);
  const square = Math.abs(Math.abs(ringArea(ring)) - 4 * half * wide) < 4 * half * strays;
  return round || square ? { line: line.id, widthMm: 2 * wide, from, to } : null;
}

/** Direction of the two corners that lie furthest apart, of its longest side where that is longer than all others. */
function longWay(ring: readonly Vec2[]): Vec2 {
  let [best, way]: [number, Vec2] = [0, [1, 0]];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const long = dist2(a, b);
    if (long > best) [best, way] = [long, scale2(sub2(b, a), 1 / long)];
  });
  return way;
}

/** Two closed lines of one shape, and how one is brought onto the other: its corners in the order of the other's. */
export interface Alike {
  readonly a: string;
  readonly b: string;
  /** Corner 0 and 1 of a, and the corners of b that come onto them; `turned`: only turned over. */
  readonly ways: readonly { readonly from: Vec2; readonly to: Vec2; readonly turned: boolean }[];
  readonly on: { readonly from: Vec2; readonly to: Vec2 };
}

/** How glue areas that are alike can be brought onto each other; null where they are not. */
export function alike(p: TemplateLine, q: TemplateLine): Alike | null {
  const [a, b] = [closedRing(p), closedRing(q)].map((ring) => ring && counterClockwise(open(ring)));
  if (!a || !b || a.length !== b.length || a.length > MOST_CORNERS) return null;
  const sides = (ring: readonly Vec2[]): number[] => ring.map((v, i) => dist2(v, ring[(i + 1) % ring.length]));
  const across = (ring: readonly Vec2[]): number[] => ring.map((v, i) => dist2(v, ring[(i + 2) % ring.length]));
  const [own, diagonals] = [sides(a), across(a)];
  const ways = [false, true].flatMap((turned) => {
    // Turned over, its corners run the other way round.
    const ring = turned ? [...b].reverse() : b;
    return ring.flatMap((_, k) => {
      const shifted = ring.map((_v, i) => ring[(i + k) % ring.length]);
      const same = (u: readonly number[], v: readonly number[]): boolean =>
        u.every((x, i) => Math.abs(x - v[i]) < STRAYS_MM + STRAYS_PART);
      if (!same(own, sides(shifted)) || !same(diagonals, across(shifted))) return [];
      return [{ from: shifted[0], to: shifted[1], turned }];
    });
  });
  return ways.length > 0 ? { a: p.id, b: q.id, ways, on: { from: a[0], to: a[1] } } : null;
}
const MOST_CORNERS = 24;
const open = (ring: readonly Vec2[]): readonly Vec2[] =>
  dist2(ring[0], ring[ring.length - 1]) < STRAYS_MM ? ring.slice(0, -1) : ring;
const counterClockwise = (ring: readonly Vec2[]): readonly Vec2[] => (ringArea(ring) > 0 ? ring : [...ring].reverse());

/** A place inside a small area that is its own paper. */
export const middleOf = (points: readonly Vec2[]): Vec2 =>
  points.length === 2 ? lerp2(points[0], points[1], 0.5) : centreOf(points);
