/** `collision`: no two facets pass through each other at any drive value, beyond paper thickness. */
import Flatbush from 'flatbush';
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { applyRigid, boxOf3, invert, type Vec3 } from '../linkage';
import { contains, distanceToEdge, ringsOf } from '../plane/polygon';
import { CONTACT_MM } from '../tolerance';
import { atDeg, caliperOf, leversOf, mm, titleOf, type Evidence, type Finding, type Rule } from './rule';

export interface Hit {
  /** Facets by index, the smaller first. */
  readonly a: number;
  readonly b: number;
  /** How far one stands through the other, mm. */
  readonly depthMm: number;
}

interface Edge {
  readonly facet: number;
  readonly from: Vec3;
  readonly to: Vec3;
}

/** Facet pairs that pierce each other in a pose. An edge of one must cross the inside of the other, further than the paper is thick. */
export function piercings(evidence: Pick<Evidence, 'assembly' | 'brief'>, pose: Pose): Hit[] {
  const { assembly } = evidence;
  const calipers = assembly.facets.map((f) => caliperOf(evidence, f));
  const joined = joinedPairs(assembly);
  const edges: Edge[] = [];
  assembly.facets.forEach((f, facet) => {
    for (const ring of ringsOf(f.polygon)) {
      const points = ring.map((p) => onFacet(pose, facet, p));
      points.forEach((from, k) => edges.push({ facet, from, to: points[(k + 1) % points.length] }));
    }
  });
  if (edges.length === 0) return [];
  const index = new Flatbush(edges.length);
  for (const { from: p, to: q } of edges) index.add(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1]));
  index.finish();

  const hits = new Map<string, Hit>();
  assembly.facets.forEach((target, j) => {
    const box = boxOf3(target.polygon.outer.map((p) => onFacet(pose, j, p)));
    const back = invert(pose.placed[j]);
    for (const e of index.search(box.min[0], box.min[1], box.max[0], box.max[1])) {
      const { facet: i, from, to } = edges[e];
      if (i === j || assembly.facets[i].body === target.body) continue;
      if (Math.max(from[2], to[2]) < box.min[2] || Math.min(from[2], to[2]) > box.max[2]) continue;
      const p = applyRigid(back, from);
      const q = applyRigid(back, to);
      const through = Math.min(Math.abs(p[2]), Math.abs(q[2]));
      if (p[2] * q[2] >= 0 || through <= calipers[i] + calipers[j]) continue;
      if (joined.has(pairKey(i, j))) continue;
      const t = p[2] / (p[2] - q[2]);
      const at: readonly [number, number] = [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t];
      if (!contains(target.polygon, at)) continue;
      const inside = distanceToEdge(target.polygon, at);
      if (inside <= calipers[i] + CONTACT_MM) continue;
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

export const collision: Rule = {
  id: 'collision',
  needs: 'travel',
  check: (evidence) => {
    const { assembly, travel } = evidence;
    interface Worst { depthMm: number; open: number; a: number; b: number; from: number; to: number }
    const worst = new Map<string, Worst>();
    for (const pose of travel) {
      for (const { a, b, depthMm } of piercings(evidence, pose)) {
        const key = [assembly.facets[a].mechanism, assembly.facets[b].mechanism].sort().join('|');
        const known = worst.get(key);
        const range = { from: Math.min(known?.from ?? 180, pose.openDeg), to: Math.max(known?.to ?? 0, pose.openDeg) };
        worst.set(key, known && known.depthMm >= depthMm ? { ...known, ...range } : { depthMm, open: pose.openDeg, a, b, ...range });
      }
    }
    return [...worst.values()].map(({ depthMm, open, a, b, from, to }): Finding => {
      const [fa, fb] = [assembly.facets[a], assembly.facets[b]];
      const mover = fa.mechanism === 'card' ? fb : fa;
      const other = mover === fa ? fb : fa;
      const own = mover.mechanism === other.mechanism;
      return {
        rule: 'collision', severity: 'blocks', mechanism: mover.mechanism, piece: mover.piece, measured: depthMm, limit: 0, unit: 'mm', drive: { open }, span: { from, to }, aspect: other.mechanism,
        message: `${titleOf(assembly, mover.mechanism)} passes ${mm(depthMm)} through ${own ? 'itself' : titleOf(assembly, other.mechanism).replace(/^The card$/, 'the card')} ${atDeg(open)}${to - from > 1 ? ` (between ${from.toFixed(0)}° and ${to.toFixed(0)}°)` : ''}.`,
        subjects: [fa.id, fb.id],
        levers: [...leversOf(mover.mechanism, 'offset', 'width', 'height', 'depth', 'size'), ...(own || other.mechanism === 'card' ? [] : leversOf(other.mechanism, 'offset', 'width', 'height', 'depth', 'size'))],
      };
    });
  },
};
