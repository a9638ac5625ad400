/** Looks through the parts of a design for what cannot be made as it stands. */
import { isCutOff } from '../ids';
import type { Bond } from '../kinds';
import type { FlatPattern } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import type { Segment } from '../plane/arrangement';
import { centreOf, polygonArea, ringArea } from '../plane/polygon';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';
import type { Misfit } from './misfit';
import type { FlatPatterns, Parts } from './parts';

/** Everything that cannot be made, of all pieces. */
export function findMisfits(parts: Parts, flat: FlatPatterns, indexOf: ReadonlyMap<string, number>): Misfit[] {
  const out: Misfit[] = [...(parts.contradictions ?? [])];
  for (const piece of parts.pieces) {
    const pattern = flat.get(piece.id)!;
    for (const label of piece.labels) {
      if (indexOf.has(`${piece.id}|${label.name}`)) continue;
      out.push({
        kind: 'missing-facet',
        mechanism: label.mechanism,
        piece: piece.id,
        what: label.name,
        at: label.at,
        sizeMm: 0,
      });
    }
    for (const { crease, segment } of pattern.idle) {
      // Along an edge or slit nothing is meant to fold; only a crease that ends in air, or runs off the paper, is a
      // fault.
      if (onEdge(piece, segment)) continue;
      const sizeMm = Math.hypot(segment.b[0] - segment.a[0], segment.b[1] - segment.a[1]);
      out.push({
        kind: 'idle-crease',
        mechanism: crease.mechanism,
        piece: piece.id,
        what: crease.id,
        at: segment.a,
        sizeMm,
      });
    }
    out.push(...looseParts(piece, pattern, parts.bonds), ...hangingParts(piece, pattern));
  }
  return out;
}

const onEdge = (piece: Piece, { a, b }: Segment): boolean => {
  const mid: Vec2 = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const ring = piece.outline.outer;
  return ring.some((p, i) => distToSegment(mid, p, ring[(i + 1) % ring.length]) < 10 * WELD_MM);
};

/** Groups of facets that nothing ties to the rest of their piece. */
function looseParts(piece: Piece, pattern: FlatPattern, bonds: readonly Bond[]): Misfit[] {
  const group = pattern.facets.map((_, i) => i);
  const find = (i: number): number => (group[i] === i ? i : (group[i] = find(group[i])));
  for (const h of pattern.hinges) group[find(h.a)] = find(h.b);
  const held = (i: number): boolean =>
    bonds.some((b) => [b.a, b.b].some((s) => s.piece === piece.id && s.facet === pattern.facets[i].id));
  const groups = new Map<number, number[]>();
  pattern.facets.forEach((_, i) => groups.set(find(i), [...(groups.get(find(i)) ?? []), i]));
  const all = [...groups.values()];
  const area = (g: number[]): number => g.reduce((s, i) => s + Math.abs(ringArea(pattern.facets[i].polygon.outer)), 0);
  const main = all.reduce<number[]>((best, g) => (area(g) > area(best) ? g : best), all[0] ?? []);
  return all
    .filter((g) => g !== main && !g.some(held))
    .map((g): Misfit => {
      const facet = pattern.facets[g[0]];
      return {
        kind: 'loose-part',
        mechanism: piece.labels.find((l) => l.name === facet.id)?.mechanism ?? piece.mechanism,
        piece: piece.id,
        what: facet.id,
        at: facet.polygon.outer[0],
        sizeMm: Math.sqrt(area(g)),
      };
    });
}

/**
 * Paper that its cuts leave joined along one crease only that others stand on, though nothing of the design moves it:
 * a pocket at the end of the gutter, for instance.
 */
function hangingParts(piece: Piece, pattern: FlatPattern): Misfit[] {
  const named = new Set(piece.labels.map((l) => l.name));
  return pattern.facets.flatMap((facet, i): Misfit[] => {
    if (named.has(facet.id) || isCutOff(facet.id)) return [];
    const ties = pattern.hinges.filter((h) => h.a === i || h.b === i);
    const crease = ties[0]?.crease;
    if (!crease || piece.creases.length < 2 || ties.some((h) => h.crease !== crease)) return [];
    // Whole leaves of a template have no names and hang on nothing else either: only what was cut off counts.
    if (piece.lines.length === 0) return [];
    const areaMm2 = polygonArea(facet.polygon);
    return [
      {
        kind: 'hanging',
        mechanism: piece.mechanism,
        piece: piece.id,
        what: crease.id,
        key: facet.id,
        at: centreOf(facet.polygon.outer),
        sizeMm: Math.sqrt(areaMm2),
        areaMm2,
      },
    ];
  });
}
