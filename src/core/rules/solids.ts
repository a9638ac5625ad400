/**
 * Paper and hardware as they are thick: what lies between two heights over a facet and goes with it.
 *
 *      ┌────────┐ layer, on its foam      toMm   ─┐
 *      └─┬────┬─┘                         fromMm ─┘  heights over the middle of the facet's sheet,
 *     ═══╧════╧═══════ the facet's sheet             mm; its inside is up
 *
 * Two solids of different bodies never share room, wherever a hand moves them.
 */
import { carrierOf } from '../assembly/carrier';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import { boxOf3, growBox3, rotateOnly, type Box3, type Rigid, type Vec3 } from '../linkage';
import type { Pose } from '../assembly/pose';
import { boxesMeet, intersect, regionBox, type Polygon } from '../plane/polygon';
import { slabOf, type Slab } from './crossing';
import { caliperOf, type Evidence } from './rule';

/** Whether a placement leaves a sheet parallel to the plane it is seen from. */
export const isPlanar = (seen: Rigid): boolean => seen[2] * seen[2] + seen[6] * seen[6] < FLAT_SINE * FLAT_SINE;
/** Whether two sheets lie in parallel planes: what the second one's normal has along the axes of the first is asked. */
export function areParallel(m: Rigid, n: Rigid): boolean {
  const [u, v, w] = [n[2], n[6], n[10]];
  const x = m[0] * u + m[4] * v + m[8] * w;
  const y = m[1] * u + m[5] * v + m[9] * w;
  return x * x + y * y < FLAT_SINE * FLAT_SINE;
}
/** Sine between two planes below which sheets lie flat over each other. */
export const FLAT_SINE = 1e-6;

/** What a solid is made of: a facet's own sheet, what is stuck on it, foam, or hardware of a kind. */
export type Stuff = 'sheet' | 'layer' | 'foam' | 'token' | 'rivet' | 'spacer';

export interface Solid {
  readonly facet: number;
  /** In the axes of the facet's piece. */
  readonly polygon: Polygon;
  readonly fromMm: number;
  readonly toMm: number;
  readonly stuff: Stuff;
  /**
   * It is posed at the height where it lies. What stands on creases is not: sheets that are glued on are posed in the
   * plane of the page, and only their tabs are known to lie on it.
   */
  readonly knownHigh: boolean;
  /** How far its facet lies off the leaf, mm: so much do leaves stay apart when they are shut over it. */
  readonly levelMm: number;
  /** A layer, or what a layer's foam is part of. */
  readonly layer?: AttachedLayer;
}

type Seen = Pick<Evidence, 'assembly' | 'brief'>;
const known = new WeakMap<Assembly, readonly Solid[]>();

/** Everything of a card that takes up room, facets first and in their order. */
export function solidsOf(seen: Seen): readonly Solid[] {
  const solids = known.get(seen.assembly) ?? [...sheets(seen), ...stuck(seen), ...padsAndFillers(seen)];
  known.set(seen.assembly, solids);
  return solids;
}

/** Sheets of paper. What is glued on the page lies on it, though its creases are posed in the page's own plane. */
function sheets(seen: Seen): Solid[] {
  const { assembly } = seen;
  const cutWith = new Set(assembly.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  const page = new Set(assembly.facets.flatMap((f) => (f.mechanism === assembly.base.mechanism ? [f.piece] : [])));
  return assembly.facets.map((f, facet): Solid => {
    const caliper = caliperOf(seen, f);
    const liesOn = !page.has(f.piece) && assembly.leafBodies.has(f.body) && carrierOf(assembly, facet) === null;
    const middle = liesOn ? caliper : 0;
    // What another sheet is cut with is that sheet: nothing of it is there twice.
    const polygon = cutWith.has(f.piece) ? NOTHING : f.polygon;
    return {
      ...{ facet, polygon, fromMm: middle - caliper / 2, toMm: middle + caliper / 2 },
      ...{ stuff: 'sheet', levelMm: f.levelMm, knownHigh: isKnownHigh(assembly, facet) },
    };
  });
}
const isKnownHigh = (assembly: Assembly, facet: number): boolean => {
  const { body, levelMm } = assembly.facets[facet];
  return levelMm > 0 || assembly.leafBodies.has(body) || carrierOf(assembly, facet) !== null;
};
const NOTHING: Polygon = { outer: [], holes: [] };

/** Layers over each other where they lap, each with its foam under it. */
function stuck(seen: Seen): Solid[] {
  const { assembly, brief } = seen;
  const done: { readonly layer: AttachedLayer; readonly topMm: number }[] = [];
  return [...assembly.layers]
    .sort((a, b) => a.order - b.order)
    .flatMap((layer): Solid[] => {
      const facet = assembly.facets[layer.facet];
      const ground = caliperOf(seen, facet) / 2;
      const caliper = brief.stock(layer.stock).caliperMm;
      const under = done.reduce((top, d) => (liesOver(layer, d.layer) ? Math.max(top, d.topMm) : top), ground);
      const foamTop = under + layer.foamMm;
      done.push({ layer, topMm: foamTop + caliper });
      const up = layer.side === 'outside' ? -1 : 1;
      const between = (low: number, high: number, stuff: Stuff, polygons: readonly Polygon[], sign = up): Solid[] =>
        polygons.map((polygon) => ({
          ...{ facet: layer.facet, polygon, stuff, layer, levelMm: facet.levelMm },
          knownHigh: isKnownHigh(assembly, layer.facet),
          ...(sign > 0 ? { fromMm: low, toMm: high } : { fromMm: -high, toMm: -low }),
        }));
      return [
        ...between(foamTop, foamTop + caliper, 'layer', layer.region),
        ...(layer.foamMm > 0 ? between(under, foamTop, 'foam', layer.foam) : []),
        ...(layer.doubled ? between(ground, ground + caliper, 'layer', layer.region, -up as 1 | -1) : []),
      ];
    });
}

const liesOver = (p: AttachedLayer, q: AttachedLayer): boolean =>
  p.facet === q.facet &&
  p.side === q.side &&
  p.region.length > 0 &&
  q.region.length > 0 &&
  boxesMeet(regionBox(p.region), regionBox(q.region)) &&
  intersect(p.region, q.region).length > 0;

/** Foam between the sheets of a kind, and its tokens, spacers and heads of rivets. */
function padsAndFillers(seen: Seen): Solid[] {
  const { assembly } = seen;
  const pads = assembly.foam.map((pad) => ({ ...pad, fromMm: null, look: 'foam' as const }));
  return [...pads, ...assembly.fillers].flatMap(({ piece, facet: id, region, fromMm, thickMm, look }): Solid[] => {
    const facet = assembly.facets.findIndex((f) => f.piece === piece && f.id === id);
    if (facet < 0) return [];
    const f = assembly.facets[facet];
    const from = fromMm ?? caliperOf(seen, f) / 2;
    return region.map((polygon) => ({
      ...{ facet, polygon, fromMm: from, toMm: from + thickMm, stuff: look, levelMm: f.levelMm },
      knownHigh: isKnownHigh(assembly, facet),
    }));
  });
}

/** A solid in a pose: the box it fills, and the plane (or, of what is thick, both planes) that it is crossed by. */
export interface PlacedSolid extends Box3 {
  readonly slabs: readonly Slab[];
}

/** Thicker than this a solid is asked by its two faces, and none of its thickness is given away, mm. */
const THICK_MM = 0.6;
const isThick = ({ fromMm, toMm }: Solid): boolean => toMm - fromMm > THICK_MM;
/** What a solid gives before it counts as crossed, mm: paper its thickness, anything thick nothing. */
export const givesMm = (s: Solid): number => (isThick(s) ? 0 : s.toMm - s.fromMm);

export function placeSolid(solid: Solid, pose: Pose): PlacedSolid {
  const { facet, polygon, fromMm, toMm } = solid;
  const heights = isThick(solid) ? [fromMm, toMm] : [(fromMm + toMm) / 2];
  const placed = pose.placed[facet];
  const slabs = heights.map((h) => {
    if (h === 0) return slabOf(polygon, placed);
    const at = placed.slice();
    const [u, v, w] = rotateOnly(placed, [0, 0, h]);
    at[3] += u;
    at[7] += v;
    at[11] += w;
    return slabOf(polygon, at);
  });
  const points: readonly Vec3[] = slabs.flatMap((s) => s.points);
  return { slabs, ...growBox3(boxOf3(points), givesMm(solid) / 2) };
}
