/**
 * Paper as the judge sees it: points strewn over flat parts of even thickness, each where its pose has it. Nothing here
 * comes from the rules or from the library that clips polygons; points are asked by rays. Lengths in mm.
 */
import type { Assembly } from '../src/core/assembly/assembly';
import type { Pose } from '../src/core/assembly/pose';
import type { Stock } from '../src/core/paper/stocks';

type P2 = readonly [number, number];
type P3 = readonly [number, number, number];
interface Poly {
  readonly outer: readonly P2[];
  readonly holes: readonly (readonly P2[])[];
}

/** A flat part: outline in the axes of a facet's piece, and the heights between which it lies over that. */
export interface Slab {
  readonly facet: number;
  readonly poly: Poly;
  readonly low: number;
  readonly high: number;
  readonly mechanism: string;
  readonly layer: string | null;
  /** Of its inside, with how far each lies from the edge. */
  readonly points: readonly { readonly at: P2; readonly deep: number }[];
}

const STREW_MM = 1.5;
/** Height that two parts must share to run into each other, mm: less is paper that only touches. */
export const GIVE_MM = 0.12;

/** Even-odd over all rings: a ray to the right. */
export function inside({ outer, holes }: Poly, [x, y]: P2): boolean {
  let odd = false;
  for (const ring of [outer, ...holes])
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [ax, ay] = ring[i];
      const [bx, by] = ring[j];
      if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) odd = !odd;
    }
  return odd;
}

export function toEdge({ outer, holes }: Poly, [x, y]: P2): number {
  let least = Infinity;
  for (const ring of [outer, ...holes])
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [ax, ay] = ring[j];
      const [dx, dy] = [ring[i][0] - ax, ring[i][1] - ay];
      const size = dx * dx + dy * dy;
      const t = size === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size));
      least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
    }
  return least;
}

/** A grid over the outline, and points just inside its corners and edges. */
function strewn(poly: Poly): Slab['points'] {
  const xs = poly.outer.map((p) => p[0]);
  const ys = poly.outer.map((p) => p[1]);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const step = Math.max(STREW_MM, Math.sqrt(((x1 - x0) * (y1 - y0)) / 900));
  const out: { at: P2; deep: number }[] = [];
  const take = (at: P2): void => {
    if (inside(poly, at)) out.push({ at, deep: toEdge(poly, at) });
  };
  for (let x = x0 + step / 2; x < x1; x += step) for (let y = y0 + step / 2; y < y1; y += step) take([x, y]);
  const middle: P2 = [(x0 + x1) / 2, (y0 + y1) / 2];
  for (const ring of [poly.outer, ...poly.holes])
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length];
      const parts = Math.max(1, Math.ceil(Math.hypot(q[0] - p[0], q[1] - p[1]) / step));
      for (let k = 0; k < parts; k++) {
        const at: P2 = [p[0] + ((q[0] - p[0]) * k) / parts, p[1] + ((q[1] - p[1]) * k) / parts];
        const far = Math.hypot(middle[0] - at[0], middle[1] - at[1]) || 1;
        for (const by of [0.02, 0.3])
          take([at[0] + ((middle[0] - at[0]) * by) / far, at[1] + ((middle[1] - at[1]) * by) / far]);
      }
    });
  return out;
}

export function slabsOf(assembly: Assembly, stock: (id: string) => Stock): Slab[] {
  const caliper = assembly.facets.map((f) => stock(assembly.pieces.find((p) => p.id === f.piece)!.stock).caliperMm);
  const shared = new Set(assembly.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  const slab = (own: Omit<Slab, 'points' | 'mechanism'>): Slab => ({
    ...own,
    mechanism: assembly.facets[own.facet].mechanism,
    points: strewn(own.poly),
  });
  const sheets = assembly.facets.flatMap((f, facet): Slab[] =>
    shared.has(f.piece)
      ? []
      : [slab({ facet, poly: f.polygon, low: -caliper[facet] / 2, high: caliper[facet] / 2, layer: null })],
  );
  const stuck: Slab[] = [];
  for (const l of [...assembly.layers].sort((a, b) => a.order - b.order)) {
    const up = l.side === 'outside' ? -1 : 1;
    const under = stuck.filter(
      (s) =>
        s.facet === l.facet &&
        Math.sign(s.low + s.high) === up &&
        l.region.some((p) => s.points.some((q) => inside(p, q.at))),
    );
    const base = under.reduce((m, s) => Math.max(m, up > 0 ? s.high : -s.low), caliper[l.facet] / 2);
    const add = (poly: Poly, from: number, to: number): void => {
      stuck.push(slab({ facet: l.facet, poly, layer: l.id, low: up > 0 ? from : -to, high: up > 0 ? to : -from }));
    };
    const top = base + l.foamMm;
    for (const poly of l.region) add(poly, top, top + stock(l.stock).caliperMm);
    for (const poly of l.foam) add(poly, base, top);
  }
  const fillers = assembly.fillers.flatMap((f): Slab[] => {
    const facet = assembly.facets.findIndex((g) => g.piece === f.piece && g.id === f.facet);
    return facet < 0
      ? []
      : f.region.map((poly) => slab({ facet, poly, layer: null, low: f.fromMm, high: f.fromMm + f.thickMm }));
  });
  return [...sheets, ...stuck, ...fillers];
}

const put = (m: Float64Array, [x, y, z]: P3): P3 => [
  m[0] * x + m[1] * y + m[2] * z + m[3],
  m[4] * x + m[5] * y + m[6] * z + m[7],
  m[8] * x + m[9] * y + m[10] * z + m[11],
];
const takeBack = (m: Float64Array, [x, y, z]: P3): P3 => {
  const [u, v, w] = [x - m[3], y - m[7], z - m[11]];
  return [m[0] * u + m[4] * v + m[8] * w, m[1] * u + m[5] * v + m[9] * w, m[2] * u + m[6] * v + m[10] * w];
};

export interface Placed {
  readonly slab: Slab;
  readonly middle: P3;
  readonly radius: number;
  readonly m: Float64Array;
}
export function place(slab: Slab, pose: Pose): Placed {
  const m = pose.placed[slab.facet] as Float64Array;
  const height = (slab.low + slab.high) / 2;
  const corners = slab.poly.outer.map((p) => put(m, [p[0], p[1], height]));
  const middle = [0, 1, 2].map((k) => corners.reduce((s, c) => s + c[k], 0) / corners.length) as unknown as P3;
  const radius = Math.max(...corners.map((c) => Math.hypot(c[0] - middle[0], c[1] - middle[1], c[2] - middle[2])));
  return { slab, middle, radius: radius + (slab.high - slab.low) / 2, m };
}

/**
 * How deep the points of one part lie in the other, mm: the most of the least of how far they are from its edge, from
 * their own, and from its faces where it is thick; below 0 none lies in it.
 * @param give how much of both thicknesses together only touches
 */
export function depthIn(a: Placed, b: Placed, give: number): number {
  const gap = Math.hypot(a.middle[0] - b.middle[0], a.middle[1] - b.middle[1], a.middle[2] - b.middle[2]);
  if (gap > a.radius + b.radius) return -1;
  const { low, high, points } = a.slab;
  const heights = [low + give / 2, (low + high) / 2, high - give / 2].filter((h) => h >= low && h <= high);
  let deepest = -1;
  for (const { at, deep } of points) {
    if (deep <= deepest) continue;
    for (const h of heights) {
      const [x, y, z] = takeBack(b.m, put(a.m, [at[0], at[1], h]));
      if (z <= b.slab.low + give / 2 || z >= b.slab.high - give / 2 || !inside(b.slab.poly, [x, y])) continue;
      deepest = Math.max(deepest, Math.min(deep, toEdge(b.slab.poly, [x, y])));
    }
  }
  return deepest;
}
