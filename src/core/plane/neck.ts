/**
 * The least distance across paper between two cuts, or a cut and an edge. A neck is a pair of places on the sheet's
 * boundary, seen from each other over paper, from which the distance grows whichever way either is moved: so corners,
 * where it only shrinks to nothing, are none.
 */
import Flatbush from 'flatbush';
import { NECK_SIDEWAYS, WELD_MM } from '../tolerance';
import { arrange, type Segment } from './arrangement';
import { contains, insidePoint, ringArea, ringsOf, type Polygon, type Region, type Ring } from './polygon';
import { cross2, dist2, dot2, lerp2, sub2, type Vec2 } from './vec2';

export interface Neck {
  /** Least width, mm. */
  readonly widthMm: number;
  readonly at: Vec2;
}
export interface Sheet {
  readonly paper: Region;
  /** Slits, as open lines. */
  readonly cuts: readonly Ring[];
}

/** A side of the boundary, with paper on its left. */
interface Side {
  readonly ring: number;
  readonly place: number;
  readonly a: Vec2;
  readonly b: Vec2;
}
interface Candidate {
  readonly from: Side;
  readonly to: Side;
  /** The far end of the neck, on `to`; it begins at `from.a`. */
  readonly end: Vec2;
  readonly widthMm: number;
}

/** A dead end is a strip, and its root a neck, where it holds more paper than this many squares of its width. */
export const STRIP_SQUARES = 2;

/** Narrowest neck below `limitMm`, exact; null where there is none. */
export function narrowestGap(sheet: Sheet, limitMm: number): Neck | null {
  return facesOf(sheet).reduce<Neck | null>((best, face) => {
    const neck = narrowestOf(face, best?.widthMm ?? limitMm);
    return neck ?? best;
  }, null);
}

/** Connected paper: rings walk both sides of slits. */
function facesOf({ paper, cuts }: Sheet): Polygon[] {
  const rings = paper.flatMap(ringsOf);
  const segments: Segment[] = [
    ...rings.flatMap((r) => r.map((a, i): Segment => ({ a, b: r[(i + 1) % r.length] }))),
    ...cuts.flatMap((line) => line.slice(1).map((b, i): Segment => ({ a: line[i], b }))),
  ];
  return arrange(segments).faces.filter((f) => {
    const p = insidePoint(f);
    return paper.some((part) => contains(part, p));
  });
}

function narrowestOf(face: Polygon, limitMm: number): Neck | null {
  const rings = ringsOf(face);
  const sides = rings.map((ring, r) =>
    ring.map((a, i): Side => ({ ring: r, place: i, a, b: ring[(i + 1) % ring.length] })),
  );
  const all = sides.flat();
  const index = new Flatbush(all.length);
  for (const { a, b } of all)
    index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  index.finish();
  const before = ({ ring, place }: Side): Side => sides[ring][(place + sides[ring].length - 1) % sides[ring].length];
  const near = (a: Vec2, b: Vec2, by: number): Side[] =>
    index
      .search(
        Math.min(a[0], b[0]) - by,
        Math.min(a[1], b[1]) - by,
        Math.max(a[0], b[0]) + by,
        Math.max(a[1], b[1]) + by,
      )
      .map((k) => all[k]);

  const found: Candidate[] = [];
  for (const from of all) {
    if (!isReflex(before(from), from)) continue;
    for (const to of near(from.a, from.a, limitMm)) {
      const end = closest(from.a, to);
      const widthMm = dist2(from.a, end);
      if (widthMm >= limitMm || widthMm <= WELD_MM) continue;
      if (!leaves(before(from), from, end) || !arrives(to, before(to), end, from.a)) continue;
      found.push({ from, to, end, widthMm });
    }
  }
  found.sort((p, q) => p.widthMm - q.widthMm);
  const neck = found.find(
    (c) => isBridge(c, rings) && !near(c.from.a, c.end, 0).some((s) => crosses(s, c.from.a, c.end)),
  );
  return neck ? { widthMm: neck.widthMm, at: lerp2(neck.from.a, neck.end, 0.5) } : null;
}

/** Paper goes more than half way round the corner between two sides; all the way round the end of a slit. */
function isReflex(before: Side, after: Side): boolean {
  const [u, v] = [sub2(before.b, before.a), sub2(after.b, after.a)];
  return cross2(u, v) < 0 || (dot2(u, v) < 0 && cross2(u, v) === 0);
}

function closest(p: Vec2, { a, b }: Side): Vec2 {
  const along = sub2(b, a);
  const t = dot2(sub2(p, a), along) / dot2(along, along);
  return t <= 0 ? a : t >= 1 ? b : lerp2(a, b, t);
}

/** Moving the corner along either of its sides takes it no nearer to `end`. */
function leaves(before: Side, after: Side, end: Vec2): boolean {
  const way = sub2(end, after.a);
  const slack = NECK_SIDEWAYS * Math.hypot(...way);
  const nearer = (to: Vec2): boolean => {
    const side = sub2(to, after.a);
    return dot2(way, side) > slack * Math.hypot(...side);
  };
  return !nearer(after.b) && !nearer(before.a);
}

/** The far end lies inside a side that has the paper toward us, or at a corner that we are nearest to. */
function arrives(to: Side, beforeTo: Side, end: Vec2, from: Vec2): boolean {
  // The end of a side is the beginning of the next, which is looked at by itself.
  if (end === to.b) return false;
  if (end === to.a) return isReflex(beforeTo, to) && leaves(beforeTo, to, from);
  return cross2(sub2(to.b, to.a), sub2(from, to.a)) > 0;
}

/** Between two rings it always ties; on one ring it ties what would fall off, unless that is a mere bump. */
function isBridge({ from, to, end, widthMm }: Candidate, rings: readonly Ring[]): boolean {
  if (from.ring !== to.ring) return true;
  const ring = rings[from.ring];
  const way: Vec2[] = [];
  for (let i = from.place; ; i = (i + 1) % ring.length) {
    way.push(ring[i]);
    if (i === to.place) break;
  }
  const one = ringArea([...way, end]);
  const other = ringArea(ring) - one;
  const cutOff = Math.min(...[one, other].filter((area) => area > 0));
  return cutOff > STRIP_SQUARES * widthMm * widthMm;
}

function crosses({ a, b }: Side, p: Vec2, q: Vec2): boolean {
  const apart = (x: Vec2, y: Vec2, u: Vec2, v: Vec2): boolean =>
    cross2(sub2(y, x), sub2(u, x)) > 0 !== cross2(sub2(y, x), sub2(v, x)) > 0;
  const touches = [p, q].some((x) => dist2(x, closest(x, { ring: 0, place: 0, a, b })) <= WELD_MM);
  return !touches && apart(a, b, p, q) && apart(p, q, a, b);
}
