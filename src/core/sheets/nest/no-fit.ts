/** Where one shape may not lie because of another: no-fit polygons, kept for each pair of shapes and turns. */
import { boxOf, regionBox, ringsOf, unite, type Box2, type Region, type Ring } from '../../plane/polygon';
import { add2, cross2, sub2, type Vec2 } from '../../plane/vec2';
import { convexParts, convexSum, reflected } from './convex';

/** A shape at one of its turns, its box from 0, 0. */
export interface Turned {
  /** The same for all shapes of one outline at one turn. */
  readonly key: string;
  /** Convex parts of its paper: as it lies, something may lie in its holes. */
  readonly parts: readonly Ring[];
  /** Convex parts of it with its holes filled: as it is laid down, it is not laid over something. */
  readonly filled: readonly Ring[];
  /** The lower left of its box, seen from the origin of its outline. */
  readonly corner: Vec2;
  readonly width: number;
  readonly height: number;
}

/** Places of a shape's corner at which it overlaps another that lies at 0, 0: the inside of these rings. */
export interface NoFit {
  /** The whole as its outlines, those of the pockets that the shape fits in among them. */
  readonly rings: readonly Ring[];
  /** Convex parts that cover it; they overlap. */
  readonly parts: readonly { readonly ring: Ring; readonly box: Box2 }[];
  readonly box: Box2;
}

export const turnedShape = (key: string, region: Region): Turned => {
  const { min, max } = regionBox(region);
  const partsOf = (r: Region): Ring[] => r.flatMap(convexParts).map((ring) => ring.map((p) => sub2(p, min)));
  const parts = partsOf(region);
  const whole = region.every((p) => p.holes.length === 0);
  const filled = whole ? parts : partsOf(region.map(({ outer }) => ({ outer, holes: [] })));
  return { key, parts, filled, corner: min, width: max[0] - min[0], height: max[1] - min[1] };
};

/** Kept in one life of a nesting. */
export class NoFits {
  private readonly known = new Map<string, NoFit>();

  of(still: Turned, moving: Turned): NoFit {
    const key = `${still.key}|${moving.key}`;
    const known = this.known.get(key) ?? noFit(still, moving);
    this.known.set(key, known);
    return known;
  }
}

export function noFit(still: Turned, moving: Turned): NoFit {
  const away = moving.filled.map(reflected);
  const rows = still.parts.map((a) => away.map((b) => convexSum(a, b)));
  const sums = rows.flat();
  const rings = sums.length === 1 ? sums : united(rows.map(solids).map((row) => unite(row))).flatMap(ringsOf);
  const parts = sums.map((ring) => ({ ring, box: boxOf(ring) }));
  return { rings, parts, box: boxOf(rings.flat()) };
}

const solids = (rings: readonly Ring[]): Region => rings.map((outer) => ({ outer, holes: [] }));

/** By halves: fewer edges cross than in all at once. */
function united(regions: readonly Region[]): Region {
  if (regions.length <= 2) return unite(regions[0], regions[1]);
  const half = regions.length >> 1;
  return unite(united(regions.slice(0, half)), united(regions.slice(half)));
}

/** Whether a place lies inside by more than `slack`, mm. */
export function overlapsAt({ parts, box }: NoFit, [x, y]: Vec2, slack: number): boolean {
  if (outOf(box, x, y, slack)) return false;
  return parts.some((part) => !outOf(part.box, x, y, slack) && isInside(part.ring, x, y, slack));
}

const outOf = ({ min, max }: Box2, x: number, y: number, slack: number): boolean =>
  x <= min[0] + slack || x >= max[0] - slack || y <= min[1] + slack || y >= max[1] - slack;

function isInside(ring: Ring, x: number, y: number, slack: number): boolean {
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [ax, ay] = ring[j];
    const [ux, uy] = [ring[i][0] - ax, ring[i][1] - ay];
    if (ux * (y - ay) - uy * (x - ax) <= slack * Math.hypot(ux, uy)) return false;
  }
  return true;
}

/** Where two segments cross or touch, those that are parallel left out: their ends are corners anyway. */
export function crossing(a: Vec2, b: Vec2, c: Vec2, d: Vec2): Vec2 | null {
  const [u, v, w] = [sub2(b, a), sub2(d, c), sub2(c, a)];
  const across = cross2(u, v);
  if (across === 0) return null;
  const [t, s] = [cross2(w, v) / across, cross2(w, u) / across];
  return t < 0 || t > 1 || s < 0 || s > 1 ? null : add2(a, [u[0] * t, u[1] * t]);
}
