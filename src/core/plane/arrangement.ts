/**
 * Planar arrangement: the lines of a sheet, split where they meet, and the faces between them.
 * Points in mm, y up. Slits that end inside paper stay as edges with the same face on both sides.
 */
import Flatbush from 'flatbush';
import { PARALLEL_PART, WELD_MM } from '../tolerance';
import { contains, ringArea, type Polygon, type Ring } from './polygon';
import { Recall } from './recall';
import { cross2, dist2, distToSegment, dot2, lerp2, norm2, sub2, type Vec2 } from './vec2';

export interface Segment {
  readonly a: Vec2;
  readonly b: Vec2;
}

export interface Arrangement {
  readonly vertices: readonly Vec2[];
  readonly edges: readonly ArrangedEdge[];
  /** Bounded faces: outer boundary counter-clockwise, holes clockwise. Rings walk both sides of a slit. */
  readonly faces: readonly Polygon[];
}
export interface ArrangedEdge {
  readonly from: number;
  readonly to: number;
  /** Indices of the given segments that run along this edge. */
  readonly sources: readonly number[];
  /** Face to the left of from→to, and to its right; -1 outside all. */
  readonly left: number;
  readonly right: number;
}

/** Split `segments` at every meeting, weld vertices, trace faces. Cost about n log n for lines that meet few others. */
export const arrange = (segments: readonly Segment[]): Arrangement =>
  arranged.of(
    segments.map(({ a, b }) => [a, b]),
    [],
    () => arrangeAnew(segments),
  );
/** Each edge is a corner of a face on both of its sides. */
const arranged = new Recall<Arrangement>(({ vertices, edges }) => vertices.length + 2 * edges.length);

function arrangeAnew(segments: readonly Segment[]): Arrangement {
  const live = segments.map((s, i) => ({ ...s, i })).filter((s) => dist2(s.a, s.b) > WELD_MM);
  if (live.length === 0) return { vertices: [], edges: [], faces: [] };
  const weld = new Welder();
  const edges = mergeEdges(
    live.map((s) => s.i),
    splitAll(live, weld),
    weld,
  );
  return traceFaces(weld.points, edges);
}

/** Gives points an index; points within WELD_MM share it. */
class Welder {
  readonly points: Vec2[] = [];
  private readonly cells = new Map<number, number[]>();
  index(p: Vec2): number {
    // Who is near enough lies in the cell of a corner of a square about the point: mostly all in the same one.
    const [x0, x1] = [Math.floor((p[0] - WELD_MM) / CELL), Math.floor((p[0] + WELD_MM) / CELL)];
    const [y0, y1] = [Math.floor((p[1] - WELD_MM) / CELL), Math.floor((p[1] + WELD_MM) / CELL)];
    for (let i = x0; i <= x1; i++) {
      for (let j = y0; j <= y1; j++) {
        const near = this.cells.get(i * ROW + j);
        if (near) for (const k of near) if (dist2(this.points[k], p) <= WELD_MM) return k;
      }
    }
    const key = Math.floor(p[0] / CELL) * ROW + Math.floor(p[1] / CELL);
    const cell = this.cells.get(key);
    if (cell) cell.push(this.points.length);
    else this.cells.set(key, [this.points.length]);
    return this.points.push(p) - 1;
  }
}
/** So wide that few points are near the edge of one, so narrow that few share one. */
const CELL = WELD_MM * 16;
/**
 * Cells of a row, as one number with the row: points of a card stay far inside. Two cells that shared a number would
 * only be searched together.
 */
const ROW = 2 ** 26;

/** Whether a segment lies to one side of another's line, further off than ends that are welded to it could be. */
function isBeside({ a, b }: Segment, { a: p, b: q }: Segment): boolean {
  const [x, y] = [b[0] - a[0], b[1] - a[1]];
  const near = 3 * WELD_MM * Math.sqrt(x * x + y * y);
  const atP = x * (p[1] - a[1]) - y * (p[0] - a[0]);
  const atQ = x * (q[1] - a[1]) - y * (q[0] - a[0]);
  return (atP > near && atQ > near) || (atP < -near && atQ < -near);
}

/** Whether a segment is taken from its end to its start, so that it runs to the right, or upwards. */
const isTurned = ({ a, b }: Segment): boolean => (a[0] !== b[0] ? a[0] > b[0] : a[1] > b[1]);
/** The same for a segment and for one that runs the other way. */
const keyOf = (s: Segment): string => (isTurned(s) ? [...s.b, ...s.a] : [...s.a, ...s.b]).join();

/** Vertex chain of each segment, in order along it. A line that is drawn many times over is split once. */
function splitAll(segments: readonly Segment[], weld: Welder): number[][] {
  const first = new Map<string, number>();
  const once: Segment[] = [];
  const same = segments.map((s): { readonly k: number; readonly turned: boolean } => {
    const key = keyOf(s);
    const known = first.get(key);
    const k = known ?? once.push(s) - 1;
    if (known === undefined) first.set(key, k);
    const { a } = once[k];
    return { k, turned: a[0] !== s.a[0] || a[1] !== s.a[1] };
  });
  const chains = splitOnce(once, weld);
  return same.map(({ k, turned }) => (turned ? [...chains[k]].reverse() : chains[k]));
}

function splitOnce(segments: readonly Segment[], weld: Welder): number[][] {
  const index = new Flatbush(segments.length);
  for (const { a, b } of segments) {
    index.add(
      Math.min(a[0], b[0]) - WELD_MM,
      Math.min(a[1], b[1]) - WELD_MM,
      Math.max(a[0], b[0]) + WELD_MM,
      Math.max(a[1], b[1]) + WELD_MM,
    );
  }
  index.finish();
  const ends = segments.map(({ a, b }) => [weld.index(a), weld.index(b)] as const);
  return segments.map((s, i) => {
    const on = new Set<number>(ends[i]);
    const near = index.search(
      Math.min(s.a[0], s.b[0]),
      Math.min(s.a[1], s.b[1]),
      Math.max(s.a[0], s.b[0]),
      Math.max(s.a[1], s.b[1]),
    );
    for (const j of near.sort((x, y) => x - y)) {
      if (j === i || isBeside(s, segments[j])) continue;
      for (const v of ends[j]) if (!on.has(v) && distToSegment(weld.points[v], s.a, s.b) <= WELD_MM) on.add(v);
      const at = crossing(s, segments[j]);
      if (at) on.add(weld.index(at));
    }
    const along = sub2(s.b, s.a);
    const place = (v: number): number => dot2(sub2(weld.points[v], s.a), along);
    return [...on].sort((u, v) => place(u) - place(v));
  });
}

/** So many pairs whose boxes meet are asked for each crossing that is allowed: more take as long as those. */
const PAIRS_EACH = 100;
/** Whether segments cross or lie side by side at more than so many places; it stops to count when they do. */
export function meetMoreThan(drawn: readonly Segment[], most: number): boolean {
  const segments = [...new Map(drawn.map((s) => [keyOf(s), s])).values()];
  if (segments.length === 0) return false;
  const index = new Flatbush(segments.length);
  for (const { a, b } of segments)
    index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  index.finish();
  let [count, asked] = [0, 0];
  return segments.some((s, i) => {
    const box = [Math.min(s.a[0], s.b[0]), Math.min(s.a[1], s.b[1])] as const;
    index.search(...box, Math.max(s.a[0], s.b[0]), Math.max(s.a[1], s.b[1]), (j) => {
      if (j > i && count <= most && asked++ <= PAIRS_EACH * most)
        if (!isBeside(s, segments[j]) && crossing(s, segments[j])) count++;
      return false;
    });
    return count > most || asked > PAIRS_EACH * most;
  });
}

/** Where two segments cross inside both; null when they only touch at ends, are parallel or apart. */
function crossing(s: Segment, t: Segment): Vec2 | null {
  const d = sub2(s.b, s.a);
  const e = sub2(t.b, t.a);
  const turn = cross2(d, e);
  if (Math.abs(turn) < PARALLEL_PART * norm2(d) * norm2(e)) return null;
  const gap = sub2(t.a, s.a);
  const u = cross2(gap, e) / turn;
  const v = cross2(gap, d) / turn;
  if (u <= 0 || u >= 1 || v <= 0 || v >= 1) return null;
  // Always computed from the segment that sorts first, so that both sides get the same rounding.
  const sFirst = s.a[0] !== t.a[0] ? s.a[0] < t.a[0] : s.a[1] <= t.a[1];
  return sFirst ? lerp2(s.a, s.b, u) : lerp2(t.a, t.b, v);
}

interface MergedEdge {
  from: number;
  to: number;
  sources: number[];
}
function mergeEdges(ids: readonly number[], chains: readonly number[][], weld: Welder): MergedEdge[] {
  const byEnds = new Map<number, MergedEdge>();
  chains.forEach((chain, s) => {
    for (let k = 1; k < chain.length; k++) {
      const [u, v] = [chain[k - 1], chain[k]];
      if (u === v || dist2(weld.points[u], weld.points[v]) === 0) continue;
      const key = u < v ? u * ROW + v : v * ROW + u;
      const known = byEnds.get(key);
      if (known) known.sources.push(ids[s]);
      else byEnds.set(key, { from: u, to: v, sources: [ids[s]] });
    }
  });
  return [...byEnds.values()];
}

/** Half-edge 2e runs from→to of edge e, 2e+1 back. */
function traceFaces(vertices: readonly Vec2[], edges: readonly MergedEdge[]): Arrangement {
  const origin = (h: number): number => (h % 2 === 0 ? edges[h >> 1].from : edges[h >> 1].to);
  const target = (h: number): number => origin(h ^ 1);
  const heading = (h: number): number => {
    const d = sub2(vertices[target(h)], vertices[origin(h)]);
    return Math.atan2(d[1], d[0]);
  };
  const around: number[][] = vertices.map(() => []);
  const angles = new Float64Array(edges.length * 2);
  for (let h = 0; h < edges.length * 2; h++) {
    angles[h] = heading(h);
    around[origin(h)].push(h);
  }
  const rank = new Int32Array(edges.length * 2);
  for (const fan of around) fan.sort((g, h) => angles[g] - angles[h]).forEach((h, k) => (rank[h] = k));
  // The next half-edge of a face with the face on its left: turn as far right as possible at the target.
  const next = (h: number): number => {
    const fan = around[target(h)];
    return fan[(rank[h ^ 1] - 1 + fan.length) % fan.length];
  };

  const cycleOf = new Int32Array(edges.length * 2).fill(-1);
  const cycles: Ring[] = [];
  for (let h = 0; h < cycleOf.length; h++) {
    if (cycleOf[h] >= 0) continue;
    const ring: Vec2[] = [];
    for (let g = h; cycleOf[g] < 0; g = next(g)) {
      cycleOf[g] = cycles.length;
      ring.push(vertices[origin(g)]);
    }
    cycles.push(ring);
  }
  const { faces, faceOfCycle } = nest(cycles);
  return {
    vertices,
    faces,
    edges: edges.map((e, i) => ({ ...e, left: faceOfCycle[cycleOf[2 * i]], right: faceOfCycle[cycleOf[2 * i + 1]] })),
  };
}

/** Counter-clockwise cycles bound faces; the others are holes of the smallest face around them, or the outside. */
function nest(cycles: readonly Ring[]): { faces: Polygon[]; faceOfCycle: Int32Array } {
  const faceOfCycle = new Int32Array(cycles.length).fill(-1);
  const areas = cycles.map(ringArea);
  const faces: { outer: Ring; holes: Ring[]; area: number }[] = [];
  cycles.forEach((ring, c) => {
    if (areas[c] <= WELD_MM * WELD_MM) return;
    faceOfCycle[c] = faces.length;
    faces.push({ outer: ring, holes: [], area: areas[c] });
  });
  if (faces.length === 0) return { faces, faceOfCycle };
  const index = new Flatbush(faces.length);
  for (const f of faces) {
    const xs = f.outer.map((p) => p[0]);
    const ys = f.outer.map((p) => p[1]);
    index.add(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys));
  }
  index.finish();
  cycles.forEach((ring, c) => {
    if (faceOfCycle[c] >= 0) return;
    const [x, y] = ring[0];
    let best = -1;
    for (const f of index.search(x, y, x, y)) {
      const face = faces[f];
      if (best >= 0 && face.area >= faces[best].area) continue;
      // The cycle's own component never contains it: its outer boundary passes through ring[0].
      if (face.outer.some((p) => p === ring[0])) continue;
      if (contains({ outer: face.outer, holes: [] }, ring[0])) best = f;
    }
    faceOfCycle[c] = best;
    if (best >= 0) faces[best].holes.push(ring);
  });
  return { faces, faceOfCycle };
}
