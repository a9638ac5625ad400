/**
 * Closed outlines that lie side by side and have an edge in common, as a program writes the panels of one piece each by
 * itself: what they share becomes an open line of its own, once, and may be a fold or a cut; the rest stays as it is.
 *
 *     ┌───────┐┌─────┐          ┌─────── ─────┐
 *     │       ││     │          │       │     │    the stroke in the middle was drawn twice,
 *     │       │└─────┘    →     │       │─────┘    as far as both outlines run along it
 *     └───────┘                 └───────
 */
import Flatbush from 'flatbush';
import { ringArea } from '../plane/polygon';
import { cross2, dist2, distToSegment, dot2, lerp2, sub2, type Vec2 } from '../plane/vec2';

export interface ClosedLine {
  readonly id: string;
  readonly points: readonly Vec2[];
}
/** What a closed line is taken apart into. */
export interface OpenPart {
  readonly id: string;
  readonly points: readonly Vec2[];
  /** Two lines have it in common. */
  readonly shared: boolean;
}

/** Edges this near to each other are one: what drawing programs round to, mm. */
const SAME_EDGE_MM = 0.02;
/** Less in common is a corner that touches, mm. */
const LEAST_SHARED_MM = 1;
/** Edges that are compared; outlines with more in each other's way are a pattern, not panels. */
const MOST_COMPARED = 400_000;

/** An edge of a ring that runs to the left of its paper. */
interface Edge {
  readonly line: number;
  readonly a: Vec2;
  readonly b: Vec2;
}
/** Part of an edge, in parts of its length, that is an edge of another line too. */
interface Shared {
  readonly from: number;
  readonly to: number;
  readonly other: number;
}
/** A stretch of a ring: of its own, or shared with another line. */
interface Stretch {
  readonly other: number | null;
  readonly points: Vec2[];
}

/** Only the lines that share something, each with what it becomes; a stretch that is shared is given to one of both. */
export function withoutSharedEdges(lines: readonly ClosedLine[]): ReadonlyMap<string, readonly OpenPart[]> {
  const rings = lines.map(({ points }) => (ringArea(points) < 0 ? points.toReversed() : points));
  const edges = rings.map((ring, line) => edgesOf(ring, line));
  const shared = sharedBy(edges.flat());
  if (shared.size === 0) return new Map();
  const stretches = edges.map((own) => joined(own.flatMap((e) => stretchesOf(e, shared.get(e) ?? []))));
  const sharedMm = (s: Stretch): number => s.points.slice(1).reduce((sum, p, k) => sum + dist2(p, s.points[k]), 0);
  const counts = stretches.map((own) => own.filter((s) => s.other !== null && sharedMm(s) >= LEAST_SHARED_MM));
  return new Map(
    lines.flatMap(({ id }, line): [string, OpenPart[]][] => {
      if (counts[line].length === 0) return [];
      // The line that comes first has what two share.
      const kept = stretches[line].filter((s) => s.other === null || s.other > line);
      return [[id, kept.map((s, k) => ({ id: `${id}~part-${k + 1}`, points: s.points, shared: s.other !== null }))]];
    }),
  );
}

/** Whether a stretch runs along lines that are drawn there already: all of its corners lie on one of them. */
export const isDrawnOver = (points: readonly Vec2[], lines: readonly (readonly Vec2[])[]): boolean =>
  lines.some((line) => points.every((p) => line.slice(1).some((b, k) => distToSegment(p, line[k], b) <= SAME_EDGE_MM)));

const edgesOf = (ring: readonly Vec2[], line: number): Edge[] =>
  ring
    .map((a, k): Edge => ({ line, a, b: ring[(k + 1) % ring.length] }))
    .filter(({ a, b }) => dist2(a, b) > SAME_EDGE_MM);

/** Two rings with paper on different sides of what they share run along it in opposite ways. */
function sharedBy(edges: readonly Edge[]): Map<Edge, Shared[]> {
  const found = new Map<Edge, Shared[]>();
  if (edges.length === 0) return found;
  const index = new Flatbush(edges.length);
  for (const { a, b } of edges)
    index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  index.finish();
  let compared = 0;
  for (const edge of edges) {
    const [low, high] = [0, 1].map((k) => [Math.min(edge.a[k], edge.b[k]), Math.max(edge.a[k], edge.b[k])]);
    const near = index.search(
      low[0] - SAME_EDGE_MM,
      high[0] - SAME_EDGE_MM,
      low[1] + SAME_EDGE_MM,
      high[1] + SAME_EDGE_MM,
    );
    compared += near.length;
    if (compared > MOST_COMPARED) return new Map();
    const own = near.flatMap((k) => (edges[k].line === edge.line ? [] : (alongBoth(edge, edges[k]) ?? [])));
    if (own.length > 0) found.set(edge, own);
  }
  return found;
}

function alongBoth({ a, b }: Edge, other: Edge): Shared | null {
  const way = sub2(b, a);
  const long = dist2(a, b);
  if (dot2(way, sub2(other.b, other.a)) >= 0) return null;
  const off = (p: Vec2): number => Math.abs(cross2(way, sub2(p, a))) / long;
  if (off(other.a) > SAME_EDGE_MM || off(other.b) > SAME_EDGE_MM) return null;
  const part = (p: Vec2): number => dot2(sub2(p, a), way) / (long * long);
  const [from, to] = [Math.max(0, part(other.b)), Math.min(1, part(other.a))];
  return (to - from) * long > SAME_EDGE_MM ? { from, to, other: other.line } : null;
}

/** An edge cut up where what it shares begins and ends; a hair of its own between is none. */
function stretchesOf({ a, b }: Edge, shared: readonly Shared[]): Stretch[] {
  const hair = SAME_EDGE_MM / dist2(a, b);
  const out: Stretch[] = [];
  let at = 0;
  const add = (other: number | null, to: number): void => {
    out.push({ other, points: [lerp2(a, b, at), lerp2(a, b, to)] });
    at = to;
  };
  for (const s of [...shared].sort((p, q) => p.from - q.from)) {
    if (s.to <= at + hair) continue;
    if (s.from > at + hair) add(null, s.from);
    add(s.other, 1 - s.to < hair ? 1 : s.to);
  }
  if (1 - at > hair || out.length === 0) add(null, 1);
  return out;
}

/** Neighbours of one sort as one stretch, all round. */
function joined(parts: readonly Stretch[]): Stretch[] {
  const out: Stretch[] = [];
  for (const { other, points } of parts) {
    const last = out[out.length - 1];
    if (last && last.other === other) last.points.push(...points.slice(1));
    else out.push({ other, points: [...points] });
  }
  const [first, last] = [out[0], out[out.length - 1]];
  if (out.length > 1 && first.other === last.other) {
    last.points.push(...first.points.slice(1));
    out.shift();
  }
  return out;
}
