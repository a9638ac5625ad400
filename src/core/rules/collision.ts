/** `collision`: no two sheets of paper pass through each other at any drive value, beyond paper thickness; what is stuck on facets counts. */
import Flatbush from 'flatbush';
import { foldDeg, onFacet, type Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer, Crease } from '../assembly/assembly';
import { applyRigid, boxOf3, invert, type Vec3 } from '../linkage';
import { contains, distanceToEdge, intersect, ringsOf, type Polygon } from '../plane/polygon';
import { distToLine, sideOf } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { atDeg, caliperOf, leversOf, mm, titleOf, type Evidence, type Finding, type Lever, type Rule } from './rule';

/**
 * Paper in the plane of a facet: the facet itself, or one polygon of a layer on it. A layer is taken to lie in its facet's plane:
 * what it and its foam add in height is asked by `thickness` and `foam`.
 */
export interface Plate {
  readonly facet: number;
  readonly polygon: Polygon;
  readonly caliperMm: number;
  readonly layer?: AttachedLayer;
}

export function platesOf(evidence: Pick<Evidence, 'assembly' | 'brief'>): Plate[] {
  const { assembly, brief } = evidence;
  return [
    ...assembly.facets.map((f, facet): Plate => ({ facet, polygon: f.polygon, caliperMm: caliperOf(evidence, f) })),
    ...assembly.layers.flatMap((layer) => layer.region.map((polygon): Plate => ({ facet: layer.facet, polygon, caliperMm: brief.stock(layer.stock).caliperMm, layer }))),
  ];
}

export interface Hit {
  /** Plates by index (`platesOf`), the smaller first; facets come before layers. */
  readonly a: number;
  readonly b: number;
  /** How far one stands through the other, mm. */
  readonly depthMm: number;
}

interface Edge {
  readonly plate: number;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Pairs of plates that pierce each other in a pose. An edge of one must cross the inside of the other, further than the paper is thick. */
export function piercings(evidence: Pick<Evidence, 'assembly' | 'brief'>, pose: Pose, plates = platesOf(evidence)): Hit[] {
  const { assembly } = evidence;
  const joined = joinedPairs(assembly);
  const edges: Edge[] = [];
  plates.forEach(({ facet, polygon }, plate) => {
    for (const ring of ringsOf(polygon)) {
      const points = ring.map((p) => onFacet(pose, facet, p));
      points.forEach((from, k) => edges.push({ plate, from, to: points[(k + 1) % points.length] }));
    }
  });
  if (edges.length === 0) return [];
  const index = new Flatbush(edges.length);
  for (const { from: p, to: q } of edges) index.add(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1]));
  index.finish();

  const hits = new Map<string, Hit>();
  plates.forEach((target, j) => {
    const box = boxOf3(target.polygon.outer.map((p) => onFacet(pose, target.facet, p)));
    const back = invert(pose.placed[target.facet]);
    for (const e of index.search(box.min[0], box.min[1], box.max[0], box.max[1])) {
      const { plate: i, from, to } = edges[e];
      const other = plates[i];
      if (i === j || assembly.facets[other.facet].body === assembly.facets[target.facet].body) continue;
      if (Math.max(from[2], to[2]) < box.min[2] || Math.min(from[2], to[2]) > box.max[2]) continue;
      const p = applyRigid(back, from);
      const q = applyRigid(back, to);
      const through = Math.min(Math.abs(p[2]), Math.abs(q[2]));
      if (p[2] * q[2] >= 0 || through <= other.caliperMm + target.caliperMm) continue;
      if (joined.has(pairKey(other.facet, target.facet))) continue;
      const t = p[2] / (p[2] - q[2]);
      const at: readonly [number, number] = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
      if (!contains(target.polygon, at)) continue;
      const inside = distanceToEdge(target.polygon, at);
      if (inside <= other.caliperMm + CONTACT_MM) continue;
      const depthMm = Math.min(through, inside);
      const key = pairKey(i, j);
      if (depthMm > (hits.get(key)?.depthMm ?? 0)) hits.set(key, { a: Math.min(i, j), b: Math.max(i, j), depthMm });
    }
  });
  return [...hits.values()];
}

const pairKey = (i: number, j: number): string => (i < j ? `${i},${j}` : `${j},${i}`);

/** Facets that share a joint may touch along it. */
function joinedPairs(assembly: Assembly): Set<string> {
  return new Set(assembly.creases.map((c) => pairKey(c.a, c.b)));
}

export interface Bridge {
  readonly layer: AttachedLayer;
  readonly crease: Crease;
  /** Facet on the far side of the crease, by index. */
  readonly onto: number;
  /** How far the layer lies across the crease, mm. */
  readonly acrossMm: number;
}

/** Layers that lie across a crease of their own facet: bonded to one side, they are in the way when it folds up towards them. */
export function bridges({ assembly, brief }: Pick<Evidence, 'assembly' | 'brief'>): Bridge[] {
  return assembly.layers.flatMap((layer) => assembly.creases.flatMap((crease): Bridge[] => {
    if (crease.piece !== layer.piece || (crease.a !== layer.facet && crease.b !== layer.facet)) return [];
    const onto = crease.a === layer.facet ? crease.b : crease.a;
    const [line] = crease.segments;
    if (!line || onto === layer.facet) return [];
    const over = intersect(layer.region, [assembly.facets[onto].polygon]).flatMap((p) => p.outer);
    // Beside the crease, on the facet's own side of its line, it swings up with the facet.
    const far = onto === crease.b ? 1 : -1;
    const acrossMm = over.reduce((most, p) => (sideOf(line.a, line.b, p) * far > 0 ? Math.max(most, distToLine(p, line.a, line.b)) : most), 0);
    return acrossMm > brief.stock(layer.stock).caliperMm + CONTACT_MM ? [{ layer, crease, onto, acrossMm }] : [];
  }));
}

/** Folding up to this much only bows what lies across the crease, degrees; common practice, no source. */
const BOWS_DEG = 5;

/** Worst of what one pair does over the travel, and the openings between which it does. */
interface Worst {
  readonly measure: number;
  readonly open: number;
  readonly from: number;
  readonly to: number;
}
function worsened(known: Worst | undefined, measure: number, open: number): Worst {
  const range = { from: Math.min(known?.from ?? 180, open), to: Math.max(known?.to ?? 0, open) };
  return known && known.measure >= measure ? { ...known, ...range } : { measure, open, ...range };
}
const between = ({ from, to }: Worst): string => (to - from > 1 ? ` (between ${from.toFixed(0)}° and ${to.toFixed(0)}°)` : '');

export const collision: Rule = {
  id: 'collision',
  needs: 'travel',
  check: (evidence) => [...pierced(evidence), ...bridged(evidence)],
};

function pierced(evidence: Evidence): Finding[] {
  const { assembly, travel } = evidence;
  const plates = platesOf(evidence);
  const owner = ({ facet, layer }: Plate): string => layer?.id ?? assembly.facets[facet].mechanism;
  const worst = new Map<string, Worst & { a: number; b: number }>();
  for (const pose of travel) {
    for (const { a, b, depthMm } of piercings(evidence, pose, plates)) {
      const key = [owner(plates[a]), owner(plates[b])].sort().join('|');
      const known = worst.get(key);
      const next = worsened(known, depthMm, pose.openDeg);
      worst.set(key, known && next.measure === known.measure ? { ...next, a: known.a, b: known.b } : { ...next, a, b });
    }
  }
  return [...worst.values()].map((w): Finding => {
    // A layer is what moves of the pair, then a mechanism, then the card.
    const rank = (p: Plate): number => (p.layer ? 2 : owner(p) === 'card' ? 0 : 1);
    const [first, second] = [plates[w.a], plates[w.b]];
    const [mover, other] = rank(first) === 0 || second.layer ? [second, first] : [first, second];
    const name = (p: Plate): string => p.layer?.title ?? titleOf(assembly, owner(p)).replace(/^The card$/, 'the card');
    const own = owner(mover) === owner(other);
    return {
      rule: 'collision', severity: 'blocks', mechanism: assembly.facets[mover.facet].mechanism, piece: assembly.facets[mover.facet].piece, measured: w.measure, limit: 0, unit: 'mm', drive: { open: w.open }, span: { from: w.from, to: w.to },
      aspect: mover.layer ? `${owner(mover)} ${owner(other)}` : owner(other),
      message: `${name(mover)} passes ${mm(w.measure)} through ${own ? 'itself' : name(other)} ${atDeg(w.open)}${between(w)}.`,
      subjects: [mover, other].map((p) => p.layer?.id ?? assembly.facets[p.facet].id),
      levers: [...plateLevers(assembly, mover), ...(own || owner(other) === 'card' ? [] : plateLevers(assembly, other))],
    };
  });
}

function plateLevers(assembly: Assembly, { facet, layer }: Plate): Lever[] {
  const own = leversOf(assembly.facets[facet].mechanism, 'offset', 'width', 'height', 'depth', 'size');
  return layer ? [...leversOf(layer.id, 'x', 'y', 'width', 'height'), ...own] : own;
}

function bridged(evidence: Evidence): Finding[] {
  const { assembly, travel } = evidence;
  return bridges(evidence).flatMap(({ layer, crease, onto, acrossMm }): Finding[] => {
    const folded = travel.reduce<Worst | undefined>((known, pose) => {
      const up = foldDeg(pose, crease);
      return up > BOWS_DEG ? worsened(known, up, pose.openDeg) : known;
    }, undefined);
    if (!folded) return [];
    const [line] = crease.segments;
    const along = Math.abs(line.b[0] - line.a[0]) > Math.abs(line.b[1] - line.a[1]);
    return [{
      rule: 'collision', severity: 'blocks', mechanism: layer.mechanism, piece: layer.piece, measured: acrossMm, limit: 0, unit: 'mm', drive: { open: folded.open }, span: { from: folded.from, to: folded.to },
      aspect: `${layer.id} ${crease.id}`,
      message: `${layer.title} lies ${mm(acrossMm)} across ${crease.id}, stuck to one side of a crease that folds up to ${folded.measure.toFixed(0)}° towards it${between(folded)}.`,
      subjects: [layer.id, assembly.facets[onto].id, crease.id], levers: leversOf(layer.id, ...(along ? ['y', 'height', 'x', 'width'] : ['x', 'width', 'y', 'height'])),
    }];
  });
}
