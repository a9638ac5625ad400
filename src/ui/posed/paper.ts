/**
 * The card's paper as a few long lists of triangles, whatever the number of its facets: a card of hundreds is drawn in
 * as many calls as one of three. Plain numbers, laid out as graphics take them.
 */
import { slab } from '@/core/formats/solid';
import { stockOf } from '@/core/document/design';
import type { Ring } from '@/core/plane/polygon';
import type { Vec2 } from '@/core/plane/vec2';
import type { Look, Scene } from '@/workers/protocol';

/** Red, green and blue of a colour, 0 to 1, as the graphics reckon light. */
export type Light = readonly [number, number, number];
export type LightOf = (colour: string) => Light;

/** Vertices that move with one facet. */
interface Run {
  readonly facet: number;
  /** What is stuck on the facet, by id, where it is not the facet itself. */
  readonly mat?: string;
  readonly from: number;
  readonly to: number;
}
/** Vertices with a place of their own in the axes of their piece, and where a pose puts them. */
export interface Mesh {
  readonly runs: readonly Run[];
  readonly rest: { readonly points: Float32Array; readonly normals: Float32Array; readonly colours: Float32Array };
  readonly points: Float32Array;
  readonly normals: Float32Array;
  readonly colours: Float32Array;
}
export interface Paper {
  /**
   * Triangles. Facets are dealt out to the first of them in turn, so that paper that lies on paper in one plane can be
   * drawn in an order; the last holds what is stuck on facets.
   */
  readonly sheets: readonly Mesh[];
  /** Pairs of points: the outlines. */
  readonly outlines: Mesh;
}

/** Sheets that lie in one plane are told apart up to this many. */
export const DEALT = 7;
const OUTLINE_LIFT_MM = 0.05;
const FOAM = '#f4f2ec';
/** What is drawn lies this far off its paper, so that it is seen, mm. */
const INK_LIFT_MM = 0.06;
const INK = '#2c3338';
const FILL: Readonly<Record<Look, string>> = { foam: FOAM, spacer: '#8d8a80', rivet: '#b08d3c', token: '#b9a06a' };
const LINE = '#5d615c';

export function paperOf(scene: Scene, lightOf: LightOf): Paper {
  const sheets = Array.from({ length: DEALT }, () => new Stack());
  const outlines = new Stack();
  const line = lightOf(LINE);
  scene.facets.forEach((f, facet) => {
    const stock = stockOf(scene.design, scene.pieces.find((p) => p.id === f.piece)!.stock);
    const [inside, outside] = [f.colours.inside ?? stock.insideColour, f.colours.outside ?? stock.outsideColour].map(
      lightOf,
    );
    const low = f.liftMm - stock.caliperMm;
    const own = sheets[facet % DEALT];
    own.slab(facet, f.rings, f.liftMm, stock.caliperMm, inside, outside);
    const drawn = f.bent === undefined ? undefined : acrossOnly;
    outlines.rings(facet, f.rings, f.liftMm + OUTLINE_LIFT_MM, line, drawn);
    const ink = lightOf(INK);
    for (const { side, rings } of f.drawn)
      outlines.rings(facet, rings, side === 'inside' ? f.liftMm + INK_LIFT_MM : low - INK_LIFT_MM, ink);
    const middle = f.liftMm - stock.caliperMm / 2;
    for (const fill of f.fills) {
      const colour = lightOf(FILL[fill.look]);
      own.slab(facet, fill.rings, middle + fill.to, fill.to - fill.from, colour, colour);
      // Foam lies against the sheet over it: its outline would show through.
      if (fill.look !== 'foam') outlines.rings(facet, fill.rings, middle + fill.to + OUTLINE_LIFT_MM, line);
    }
    for (const mat of f.mats) {
      const [face, foam] = [mat.colour, FOAM].map(lightOf);
      const under = Math.max(0.1, mat.liftMm - mat.caliperMm);
      // What is stuck outside hangs below the facet.
      const [top, foamTop, outline] =
        mat.side === 'inside'
          ? [f.liftMm + mat.liftMm, f.liftMm + mat.liftMm - mat.caliperMm, f.liftMm + mat.liftMm + OUTLINE_LIFT_MM]
          : [low - under, low, low - mat.liftMm - OUTLINE_LIFT_MM];
      own.slab(facet, mat.rings, top, mat.caliperMm, face, face, mat.id);
      if (mat.foam.length > 0) own.slab(facet, mat.foam, foamTop, under, foam, foam);
      outlines.rings(facet, mat.rings, outline, line);
    }
  });
  return { sheets: sheets.map((s) => s.mesh()), outlines: outlines.mesh() };
}

/** Where strips of paper that bends meet there is no edge. */
const acrossOnly = (p: Vec2, q: Vec2): boolean => Math.abs(p[1] - q[1]) > 1e-6;

class Stack {
  private readonly runs: Run[] = [];
  private readonly points: number[] = [];
  private readonly normals: number[] = [];
  private readonly colours: number[] = [];

  slab(
    facet: number,
    rings: readonly Ring[],
    topMm: number,
    caliperMm: number,
    inside: Light,
    outside: Light,
    mat?: string,
  ): void {
    const parts = slab(rings, topMm, caliperMm);
    const from = this.points.length / 3;
    for (const corners of [parts.inside, parts.outside, parts.edge]) {
      const colour = corners === parts.inside ? inside : outside;
      for (let k = 0; k < corners.length; k += 9) {
        const normal = normalOf(corners, k);
        for (let i = 0; i < 9; i++) this.points.push(corners[k + i]);
        for (let i = 0; i < 3; i++) {
          this.normals.push(...normal);
          this.colours.push(...colour);
        }
      }
    }
    this.runs.push({ facet, ...(mat ? { mat } : {}), from, to: this.points.length / 3 });
  }

  rings(
    facet: number,
    rings: readonly Ring[],
    liftMm: number,
    colour: Light,
    shown = (_: Vec2, __: Vec2) => true,
  ): void {
    const from = this.points.length / 3;
    for (const ring of rings)
      ring.forEach((p, i) => {
        const q = ring[(i + 1) % ring.length];
        if (!shown(p, q)) return;
        this.points.push(p[0], p[1], liftMm, q[0], q[1], liftMm);
        this.colours.push(...colour, ...colour);
        this.normals.push(0, 0, 1, 0, 0, 1);
      });
    this.runs.push({ facet, from, to: this.points.length / 3 });
  }

  mesh(): Mesh {
    const rest = [this.points, this.normals, this.colours].map((list) => Float32Array.from(list));
    const [points, normals, colours] = rest.map((list) => list.slice());
    return { runs: this.runs, rest: { points: rest[0], normals: rest[1], colours: rest[2] }, points, normals, colours };
  }
}

function normalOf(c: Float32Array, k: number): Light {
  const [ux, uy, uz] = [c[k + 3] - c[k], c[k + 4] - c[k + 1], c[k + 5] - c[k + 2]];
  const [vx, vy, vz] = [c[k + 6] - c[k], c[k + 7] - c[k + 1], c[k + 8] - c[k + 2]];
  const n = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx] as const;
  const size = Math.hypot(...n) || 1;
  return [n[0] / size, n[1] / size, n[2] / size];
}

/** Puts every vertex where the pose has its facet. @param placed 12 numbers a facet (`ScenePose`) */
export function place(mesh: Mesh, placed: Float64Array): void {
  const { rest, points, normals } = mesh;
  for (const { facet, from, to } of mesh.runs) {
    const m = placed.subarray(12 * facet, 12 * facet + 12);
    for (let v = 3 * from; v < 3 * to; v += 3) {
      const [x, y, z] = [rest.points[v], rest.points[v + 1], rest.points[v + 2]];
      const [a, b, c] = [rest.normals[v], rest.normals[v + 1], rest.normals[v + 2]];
      for (let r = 0; r < 3; r++) {
        points[v + r] = m[4 * r] * x + m[4 * r + 1] * y + m[4 * r + 2] * z + m[4 * r + 3];
        normals[v + r] = m[4 * r] * a + m[4 * r + 1] * b + m[4 * r + 2] * c;
      }
    }
  }
}

/** A colour over some facets, and how much of it (0 to 1); null leaves them as they are. */
export type Tint = { readonly light: Light; readonly part: number } | null;

export function tint(mesh: Mesh, tintOf: (facet: number, mat?: string) => Tint): void {
  const { rest, colours } = mesh;
  for (const { facet, mat, from, to } of mesh.runs) {
    const over = tintOf(facet, mat);
    const part = over?.part ?? 0;
    for (let v = 3 * from; v < 3 * to; v++)
      colours[v] = rest.colours[v] * (1 - part) + (over ? over.light[v % 3] * part : 0);
  }
}

/** What a vertex belongs to. */
export function runOf({ runs }: Mesh, vertex: number): Run {
  let [low, high] = [0, runs.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (runs[middle].from <= vertex) low = middle;
    else high = middle - 1;
  }
  return runs[low];
}
