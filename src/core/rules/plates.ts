/** Paper as `collision` sees it: facets, and what is stuck on them, each a plate of its body. */
import Flatbush from 'flatbush';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { openOf } from '../drives';
import { boxOf3, dist3, growBox3, uniteBox3, type Box3 } from '../linkage';
import type { Polygon } from '../plane/polygon';
import { CONTACT_MM } from '../tolerance';
import { crossingDepth, slabOf, type Slab } from './crossing';
import { caliperOf, type Evidence } from './rule';
import { BOW_PART } from './seen-from';

/**
 * Paper in the plane of a facet: the facet itself, or one polygon of a layer on it. A layer is taken to lie in its
 * facet's plane: what it and its foam add in height is asked by `thickness` and `foam`.
 */
export interface Plate {
  readonly facet: number;
  readonly polygon: Polygon;
  readonly caliperMm: number;
  /** How far it lies off its leaf, mm. */
  readonly levelMm: number;
  readonly layer?: AttachedLayer;
}

export function platesOf(evidence: Pick<Evidence, 'assembly' | 'brief'>): Plate[] {
  const { assembly, brief } = evidence;
  return [
    ...assembly.facets.map((f, facet): Plate => ({
      facet,
      polygon: f.polygon,
      caliperMm: caliperOf(evidence, f),
      levelMm: f.levelMm,
    })),
    ...assembly.layers.flatMap((layer) =>
      layer.region.map((polygon): Plate => ({
        facet: layer.facet,
        polygon,
        caliperMm: brief.stock(layer.stock).caliperMm,
        levelMm: assembly.facets[layer.facet].levelMm,
        layer,
      })),
    ),
  ];
}

/** Two plates by index (`platesOf`), the smaller first; facets come before layers. */
export type Pair = readonly [a: number, b: number];

export interface Hit {
  readonly a: number;
  readonly b: number;
  /** How far one stands through the other, mm. */
  readonly depthMm: number;
}

/** Opened less than this a card is pressed on what lies between its leaves, degrees; common practice, no source. */
export const PRESSED_BELOW_DEG = 60;

/**
 * What two plates may cross by before it counts, mm: their thickness, and a hair for paper that only touches. Between
 * leaves that are nearly shut also as far as they lie off these, which then stay apart by that much.
 */
export function takenUpMm(p: Plate, q: Plate, openDeg: number): number {
  const apartMm = openDeg < PRESSED_BELOW_DEG ? p.levelMm + q.levelMm : 0;
  return p.caliperMm + q.caliperMm + apartMm + CONTACT_MM;
}

export interface Placed extends Box3 {
  readonly slab: Slab;
}
export const placePlate = ({ facet, polygon }: Plate, pose: Pose): Placed => {
  const slab = slabOf(polygon, pose.placed[facet]);
  return { slab, ...boxOf3(slab.points) };
};
export const placePlates = (plates: readonly Plate[], pose: Pose): Placed[] =>
  plates.map((plate) => placePlate(plate, pose));

/**
 * What a plate passes through on its way between two poses lies inside. Its corners say how far it goes: a plate that
 * turns in its place may fill the same box before and after.
 */
export function sweptBox(p: Placed, q: Placed): Box3 {
  const moved = p.slab.points.reduce((most, a, k) => Math.max(most, dist3(a, q.slab.points[k])), 0);
  return growBox3(uniteBox3(p, q), BOW_PART * moved);
}

/** Pairs of different bodies whose boxes meet. Never leaves out a pair that does. */
export function* nearPairs(
  assembly: Assembly,
  plates: readonly Pick<Plate, 'facet'>[],
  placed: readonly Box3[],
): Generator<Pair> {
  if (placed.length === 0) return;
  const index = new Flatbush(placed.length);
  for (const { min, max } of placed) index.add(min[0], min[1], max[0], max[1]);
  index.finish();
  const body = (k: number): number => assembly.facets[plates[k].facet].body;
  for (let a = 0; a < placed.length; a++) {
    const { min, max } = placed[a];
    for (const b of index.search(min[0], min[1], max[0], max[1])) {
      if (b <= a || body(a) === body(b)) continue;
      if (placed[b].min[2] > max[2] || placed[b].max[2] < min[2]) continue;
      yield [a, b];
    }
  }
}

/** How far the plates of a pair pass through each other at an opening, mm; 0 where they do not. */
export const depthOf = (plates: readonly Plate[], placed: readonly Placed[], [a, b]: Pair, openDeg: number): number =>
  crossingDepth(placed[a].slab, placed[b].slab, takenUpMm(plates[a], plates[b], openDeg));

/** Pairs of plates that pass through each other in a pose, further than their paper is thick. */
export function piercings(
  evidence: Pick<Evidence, 'assembly' | 'brief'>,
  pose: Pose,
  plates = platesOf(evidence),
): Hit[] {
  const placed = placePlates(plates, pose);
  const hits: Hit[] = [];
  for (const pair of nearPairs(evidence.assembly, plates, placed)) {
    const depthMm = depthOf(plates, placed, pair, openOf(pose.state));
    if (depthMm > 0) hits.push({ a: pair[0], b: pair[1], depthMm });
  }
  return hits;
}

/** Pairs of which neither lies on a leaf or carries the other: what could pass by each other between two poses. */
export function distinctPairs(assembly: Assembly, plates: readonly Plate[], [a, b]: Pair): boolean {
  const [p, q] = [plates[a], plates[b]];
  const [f, g] = [assembly.facets[p.facet], assembly.facets[q.facet]];
  if (assembly.leafBodies.has(f.body) || assembly.leafBodies.has(g.body)) return false;
  return f.mechanism !== g.mechanism || p.layer !== undefined || q.layer !== undefined;
}
