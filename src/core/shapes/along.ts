/** Copies along an outline: scalloped edges, rows of stars. mm, y up. */
import { cornerCount, mapRegion, regionBox, subtract, unite, type Region, type Ring } from '../plane/polygon';
import { dist2, lerp2, type Vec2 } from '../plane/vec2';
import { ShapeError } from './shape';
import { ROUNDING_MM } from '../tolerance';

/** Most copies on one outline. */
export const MOST_COPIES = 500;
/** Most points of all copies together, before they are joined. */
const MOST_COPIED_POINTS = 200_000;

export interface Station {
  readonly at: Vec2;
  /** Direction of the outline there, rad; the shape lies on its left. */
  readonly turn: number;
}

export const ringLength = (ring: Ring): number =>
  ring.reduce((s, p, i) => s + dist2(p, ring[(i + 1) % ring.length]), 0);

/** Evenly spaced places on a ring, the first at its first corner. */
export function stations(ring: Ring, count: number): Station[] {
  const step = ringLength(ring) / count;
  const out: Station[] = [];
  let gone = 0;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const length = dist2(a, b);
    while (out.length < count && out.length * step < gone + length - ROUNDING_MM)
      out.push({ at: lerp2(a, b, (out.length * step - gone) / length), turn: Math.atan2(b[1] - a[1], b[0] - a[0]) });
    gone += length;
  });
  return out;
}

/** How many copies a spacing gives on a ring: the nearest whole number, at least one. */
export const countFor = (ring: Ring, spacing: number): number => Math.max(1, Math.round(ringLength(ring) / spacing));

/**
 * Copies of `what` (as wide as `size`, centred on the outline and turned with it), added outside or bitten out
 * inside.
 */
export function distribute(
  region: Region,
  what: Region,
  size: number,
  wanted: { count: number | null; spacing: number | null },
  side: 'outside' | 'inside',
): Region {
  const { min, max } = regionBox(what);
  const scale = size / (max[0] - min[0]);
  const middle: Vec2 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const each = cornerCount(what);
  let points = 0;
  const copies: Region[] = region.flatMap((p) => {
    const count = wanted.count ?? countFor(p.outer, wanted.spacing ?? size);
    if (count > MOST_COPIES)
      throw new ShapeError(
        `${count} copies along one outline; at most ${MOST_COPIES} are made, so take a wider spacing`,
      );
    points += count * each;
    if (points > MOST_COPIED_POINTS)
      throw new ShapeError(
        `the copies would have more than ${MOST_COPIED_POINTS} points; take fewer, or a simpler shape`,
      );
    return stations(p.outer, count).map(({ at, turn }) => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      // Upright means outward: the outline runs with the shape on its left.
      return mapRegion(
        what,
        ([x, y]): Vec2 => {
          const [u, v] = [(x - middle[0]) * scale, -(y - middle[1]) * scale];
          return [at[0] + c * u - s * v, at[1] + s * u + c * v];
        },
        true,
      );
    });
  });
  const all = unite(copies.flat());
  return side === 'outside' ? unite([...region], all) : subtract(region, all);
}
