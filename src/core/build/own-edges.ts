/**
 * Outer edges of pieces of a kind turned plain: their corners can be moved. What lies in the corner goes with it: ends
 * of creases and cuts, and the glue there, on what it is stuck to as well.
 */
import { linesOf, partsOf, type OwnLine, type Piece, type PlainParts, type Spot } from '../kinds';
import { setParameter, valuesOf } from '../document/fields';
import type { Design } from '../document/design';
import { partOfId } from '../ids';
import { mapRegion, ringsOf, type Ring } from '../plane/polygon';
import { add2, dist2, sub2, type Vec2 } from '../plane/vec2';
import { SAME_POINT_MM, WELD_MM } from '../tolerance';

export interface OwnCorner {
  /** Of the pieces that its mechanism brings. */
  readonly index: number;
  readonly piece: string;
  readonly at: Vec2;
}
/** A piece with more corners is a curve: it is not led corner by corner. */
const MOST_CORNERS = 40;

/** Corners of the outlines of all pieces that it brings. */
export function cornersOf(pieces: readonly Piece[]): OwnCorner[] {
  return pieces.flatMap(({ id: piece, outline }, index) => {
    const corners = ringsOf(outline).flat();
    return corners.length > MOST_CORNERS ? [] : corners.map((at) => ({ index, piece, at }));
  });
}

/** The design with a corner, and all that lies in it, somewhere else in the axes of its piece. */
export function withOwnCorner(design: Design, id: string, { index, piece, at }: OwnCorner, to: Vec2): Design {
  const values = valuesOf(design.mechanisms.find((m) => m.id === id)!);
  const parts = partsOf(values);
  if (!parts?.pieces[index]) return design;
  const isHere = (p: Vec2): boolean => dist2(p, at) < SAME_POINT_MM;
  const move = (p: Vec2): Vec2 => (isHere(p) ? to : p);
  const pieces = parts.pieces.map((p, k): Piece =>
    k === index
      ? {
          ...p,
          outline: mapRegion([p.outline], move)[0],
          glue: p.glue.map((g) => ({
            ...g,
            outline: g.outline.map(move),
            onto: { ...g.onto, outline: carriedOnto(g.outline, g.onto.outline, isHere, sub2(to, at)) },
          })),
        }
      : p,
  );
  const name = partOfId(piece);
  const lines = linesOf(values).map((l) => (l.piece === name ? movedSpots(l, isHere, to) : l));
  const moved = setParameter(design, id, 'parts', { ...parts, pieces } as unknown as PlainParts);
  return setParameter(moved, id, 'lines', lines);
}

/** Spots that say their place by plain numbers, on a piece of its own: in the axes of that piece. */
function movedSpots(line: OwnLine, isHere: (p: Vec2) => boolean, [x, y]: Vec2): OwnLine {
  const move = (s: Spot): Spot => {
    const plain = s.of === undefined && typeof (s.x ?? 0) === 'number' && typeof (s.y ?? 0) === 'number';
    return plain && isHere([Number(s.x ?? 0), Number(s.y ?? 0)]) ? { ...s, x, y } : s;
  };
  if ('from' in line) return { ...line, from: move(line.from), to: move(line.to) };
  return 'corners' in line ? { ...line, corners: line.corners.map(move) } : line;
}

/** The area glued on, as the glue is turned over onto it: a corner that is moved is moved there too. */
function carriedOnto(glue: Ring, onto: Ring, isHere: (p: Vec2) => boolean, by: Vec2): Ring {
  const turned = turnBetween(glue, onto);
  if (!turned) return onto;
  return onto.map((p, k) => (isHere(glue[turned.of(k)]) ? add2(p, turned.way(by)) : p));
}

/** How directions of one outline lie in a congruent one, and which corner is which; null where they are not. */
function turnBetween(a: Ring, b: Ring): { of: (k: number) => number; way: (v: Vec2) => Vec2 } | null {
  const n = a.length;
  if (n !== b.length || n < 3) return null;
  for (const back of [false, true])
    for (let shift = 0; shift < n; shift++) {
      const of = (k: number): number => (back ? shift - k + 2 * n : shift + k) % n;
      const way = directions(a[of(0)], a[of(1)], b[0], b[1], back);
      const fits = b.every((p, k) => dist2(add2(b[0], way(sub2(a[of(k)], a[of(0)]))), p) < WELD_MM);
      if (fits) return { of, way };
    }
  return null;
}
/** Turned, or mirrored, so that one edge lies along another. */
function directions(a0: Vec2, a1: Vec2, b0: Vec2, b1: Vec2, mirrored: boolean): (v: Vec2) => Vec2 {
  const [u, w] = [sub2(a1, a0), sub2(b1, b0)];
  const sign = mirrored ? -1 : 1;
  const turn = Math.atan2(w[1], w[0]) - sign * Math.atan2(u[1], u[0]);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return ([x, y]) => [c * x - s * sign * y, s * x + c * sign * y];
}
