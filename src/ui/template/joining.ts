/** Joins made by hand: an edge put to an edge, a piece dropped on another. Points as drawn in the file, mm, y up. */
import { freeJoinId, type JoinEnd, type TemplateJoin } from '@/core/document/template';
import { segmentsOf } from '@/core/pattern/mending';
import type { Segment } from '@/core/plane/arrangement';
import { contains, type Ring } from '@/core/plane/polygon';
import { cross2, dist2, distToSegment, dot2, lerp2, sub2, type Vec2 } from '@/core/plane/vec2';

export type Edge = Segment;
/** Edges that are to meet differ in length by less than this, mm. */
const SAME_LENGTH_MM = 0.3;
/** Shorter edges are corners of curves, mm. */
const LEAST_EDGE_MM = 4;
/** Edges that are to meet lie nearly along each other when a piece is dropped, sine. */
const ALONG_SINE = 0.06;
/** Inside the edge of a piece, mm. */
const INSIDE_MM = 0.8;

const edgesOfLine = (line: Parameters<typeof segmentsOf>[0]): Edge[] => segmentsOf(line).map(([a, b]) => ({ a, b }));
export const edgesOf = (ring: Ring): Edge[] => edgesOfLine({ points: ring, closed: true });

/** The edge of some lines that is nearest to a place; null where there is none. */
export function nearestEdge(lines: readonly Parameters<typeof segmentsOf>[0][], at: Vec2): Edge | null {
  const far = ({ a, b }: Edge): number => distToSegment(at, a, b);
  return lines.flatMap(edgesOfLine).reduce<Edge | null>((best, e) => (best && far(best) <= far(e) ? best : e), null);
}

const sheetAt = (sheets: readonly Ring[], p: Vec2): number =>
  sheets.findIndex((s) => contains({ outer: s, holes: [] }, p));

/** Beside an edge, on paper; null where there is none on either side. */
function besideEdge(sheets: readonly Ring[], { a, b }: Edge): Vec2 | null {
  const [dx, dy] = sub2(b, a);
  const long = Math.hypot(dx, dy);
  const middle = lerp2(a, b, 0.5);
  const sides = [1, -1].map((s): Vec2 => [
    middle[0] - (s * INSIDE_MM * dy) / long,
    middle[1] + (s * INSIDE_MM * dx) / long,
  ]);
  return sides.find((p) => sheetAt(sheets, p) >= 0) ?? null;
}

/** An edge of one piece glued along an edge of another, end on end; why not, where that cannot be. */
export function joinEdges(
  sheets: readonly Ring[],
  joins: readonly TemplateJoin[],
  first: Edge,
  second: Edge,
): TemplateJoin | string {
  const [one, two] = [besideEdge(sheets, first), besideEdge(sheets, second)];
  if (!one || !two) return 'One of the edges has no paper beside it';
  if (sheetAt(sheets, one) === sheetAt(sheets, two)) return 'Both edges are of one piece; take edges of two pieces';
  // Paper of both lies on one side: the second lies over the first.
  const side = ({ a, b }: Edge, p: Vec2): number => Math.sign(cross2(sub2(b, a), sub2(p, a)));
  const along = side(first, one) === side(second, two);
  const b: JoinEnd = { inside: two, from: along ? second.a : second.b, to: along ? second.b : second.a };
  return {
    id: freeJoinId(joins, 'join'),
    kind: 'bond',
    a: { inside: one, from: first.a, to: first.b },
    b,
    turned: false,
  };
}

/** The same join the other way round along its edge, or turned over about it. */
export const reversed = (join: TemplateJoin): TemplateJoin => ({
  ...join,
  b: { ...join.b, from: join.b.to, to: join.b.from },
});
export const turnedOver = (join: TemplateJoin): TemplateJoin => ({ ...join, turned: !join.turned });

/**
 * A piece dropped on another: an edge of it that comes to lie near an equal one is put to that; else it is glued just
 * where it was let go, the facets under the hand on each other. Null where it was let go over no other piece.
 */
export function dropped(
  sheets: readonly Ring[],
  joins: readonly TemplateJoin[],
  piece: number,
  by: Vec2,
  hand: Vec2,
  nearMm: number,
): TemplateJoin | null {
  const moved = (p: Vec2): Vec2 => [p[0] + by[0], p[1] + by[1]];
  let best: { first: Edge; second: Edge; mm: number } | null = null;
  for (const own of edgesOf(sheets[piece])) {
    const long = dist2(own.a, own.b);
    if (long < LEAST_EDGE_MM) continue;
    sheets.forEach((sheet, k) => {
      if (k === piece) return;
      for (const other of edgesOf(sheet)) {
        const [u, v] = [sub2(own.b, own.a), sub2(other.b, other.a)];
        const size = dist2(other.a, other.b);
        if (Math.abs(size - long) > SAME_LENGTH_MM || Math.abs(cross2(u, v)) > ALONG_SINE * long * size) continue;
        const mm = dist2(lerp2(moved(own.a), moved(own.b), 0.5), lerp2(other.a, other.b, 0.5));
        if (mm < nearMm && (!best || mm < best.mm)) best = { first: other, second: own, mm };
      }
    });
  }
  const met = best as { first: Edge; second: Edge } | null;
  if (met) {
    const way = dot2(sub2(met.first.b, met.first.a), sub2(met.second.b, met.second.a)) > 0;
    const second = way ? met.second : { a: met.second.b, b: met.second.a };
    const join = joinEdges(sheets, joins, met.first, met.second);
    // It was laid so by hand, whichever side its paper is on.
    return typeof join === 'string' ? null : { ...join, b: { ...join.b, from: second.a, to: second.b } };
  }
  const under = sheets.findIndex((s, k) => k !== piece && contains({ outer: s, holes: [] }, hand));
  if (under < 0) return null;
  const end = (p: Vec2): JoinEnd => ({ inside: p, from: p, to: [p[0] + 1, p[1]] });
  const own: Vec2 = [hand[0] - by[0], hand[1] - by[1]];
  return { id: freeJoinId(joins, 'join'), kind: 'bond', a: end(hand), b: end(own), turned: false };
}
