/** Outlines with fewer corners that hold all of the paper: what is laid out by them never overlaps in truth. */
import { regionFromRings, ringArea, type Polygon, type Ring } from '../../plane/polygon';
import { cross2, dist2, distToLine, sub2, type Vec2 } from '../../plane/vec2';

/**
 * A polygon with fewer corners, grown by at most `mm` anywhere and nowhere shrunk. Dents are bridged, blunt corners run
 * on to a point; long straight edges stay where they are.
 */
export function thinOutward(polygon: Polygon, mm: number): Polygon {
  const holes = polygon.holes.map((h) => thinRing(h, mm)).filter((h) => ringArea(h) < 0);
  const region = regionFromRings([thinRing(polygon.outer, mm), ...holes], 'nonzero');
  // A bridge may have run into another; the greatest then holds the rest.
  return [...region].sort((a, b) => Math.abs(ringArea(b.outer)) - Math.abs(ringArea(a.outer)))[0] ?? polygon;
}

/** A corner, and how far the outline beside it has moved already, mm. */
interface Corner {
  readonly p: Vec2;
  readonly moved: number;
}
interface Change {
  /** How far the outline has moved with it, mm. */
  readonly mm: number;
  /** First corner that goes, and what comes in place of it and, where an edge goes, of the next. */
  readonly at: number;
  readonly takes: 1 | 2;
  readonly puts: readonly Corner[];
}

/** The paper lies to the left of the ring, so that outlines and holes are one case. */
function thinRing(ring: Ring, mm: number): Ring {
  let left = ring.map((p): Corner => ({ p, moved: 0 }));
  for (;;) {
    const changes = left.map((_, i) => changeAt(left, i)).filter((c): c is Change => c !== null && c.mm <= mm);
    const fewer = taken(left, changes);
    if (fewer.length === left.length) return left.map(({ p }) => p);
    left = fewer;
  }
}

/** The smallest changes first; none beside another of the same round, and four corners stay. */
function taken(ring: readonly Corner[], changes: readonly Change[]): Corner[] {
  const touched = new Set<number>();
  const made = new Map<number, Change>();
  for (const c of [...changes].sort((a, b) => a.mm - b.mm)) {
    const reach = [-1, 0, 1, 2, 3].map((k) => (c.at + k + ring.length) % ring.length);
    if (ring.length - made.size <= 4) break;
    if (reach.some((k) => touched.has(k))) continue;
    reach.forEach((k) => touched.add(k));
    made.set(c.at, c);
  }
  const gone = new Set([...made.values()].flatMap((c) => (c.takes === 2 ? [(c.at + 1) % ring.length] : [])));
  // What a bridge starts from has moved with it.
  const beside = new Map([...made.values()].map((c) => [(c.at - 1 + ring.length) % ring.length, c.mm]));
  return ring.flatMap((corner, i) => {
    if (made.has(i)) return made.get(i)!.puts;
    return gone.has(i) ? [] : [{ ...corner, moved: Math.max(corner.moved, beside.get(i) ?? 0) }];
  });
}

function changeAt(ring: readonly Corner[], i: number): Change | null {
  const near = [-1, 0, 1, 2].map((k) => ring[(i + k + ring.length) % ring.length]);
  const [a, b, c, d] = near.map(({ p }) => p);
  const moved = Math.max(...near.map((n) => n.moved));
  const turnB = cross2(sub2(b, a), sub2(c, b));
  // A dent, or a corner on a straight line, is bridged.
  if (turnB <= 0) {
    const mm = dist2(a, c) > 0 ? moved + distToLine(b, a, c) : Infinity;
    return { mm, at: i, takes: 1, puts: [] };
  }
  const turnC = cross2(sub2(c, b), sub2(d, c));
  const tip = turnC > 0 ? meet(a, b, d, c) : null;
  if (!tip) return null;
  const mm = moved + distToLine(tip, b, c);
  return { mm, at: i, takes: 2, puts: [{ p: tip, moved: mm }] };
}

/** Where the ways on from a through b and from d through c meet, if they do ahead of both. */
function meet(a: Vec2, b: Vec2, d: Vec2, c: Vec2): Vec2 | null {
  const [u, v] = [sub2(b, a), sub2(c, d)];
  const across = cross2(u, v);
  if (across === 0) return null;
  const t = cross2(sub2(c, b), v) / across;
  const s = cross2(sub2(c, b), u) / across;
  return t > 0 && s > 0 ? [b[0] + u[0] * t, b[1] + u[1] * t] : null;
}
