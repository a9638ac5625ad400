/** A flat crease pattern as an assembly: its first crease is the drive, everything else is solved. */
import type { Host } from '../kinds';
import { findFacets } from '../pattern/facets';
import type { CreaseLine, PatternLine, Piece } from '../pattern/pattern';
import { arrange } from '../plane/arrangement';
import { insidePoint, regionFromRings, polygonArea, unite, type Polygon } from '../plane/polygon';
import { dist2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { assemble, layOut, type Assembly } from './assembly';

export type Assignment = 'M' | 'V' | 'F' | 'B' | 'C';
export interface CreasePattern {
  readonly vertices: readonly Vec2[];
  readonly edges: readonly {
    readonly from: number;
    readonly to: number;
    readonly assignment: Assignment;
    readonly foldDeg?: number;
  }[];
}

/** Thrown for a pattern that cannot be folded at all: says what and where. */
export class PatternError extends Error {}

/** All creases at a point are solved together, which takes the square of their number; paper has far fewer. */
const MOST_AT_A_POINT = 200;
function checkPoints({ vertices, edges }: CreasePattern): void {
  const count = new Uint32Array(vertices.length);
  for (const { from, to, assignment } of edges)
    if (assignment === 'M' || assignment === 'V') for (const v of [from, to]) count[v]++;
  const crowded = count.findIndex((n) => n > MOST_AT_A_POINT);
  if (crowded >= 0)
    throw new PatternError(
      `${count[crowded]} creases meet at vertex ${crowded}; at most ${MOST_AT_A_POINT} are folded together`,
    );
}

/**
 * @returns the assembly, and the fold (degrees, without sign) its first crease is meant to reach
 */
export function assembleCreasePattern(pattern: CreasePattern): { assembly: Assembly; leadDeg: number } {
  const at = (v: number): Vec2 => pattern.vertices[v];
  const creases: CreaseLine[] = [];
  const lines: PatternLine[] = [];
  let leadDeg = 180;
  pattern.edges.forEach(({ from, to, assignment, foldDeg }, i) => {
    if (assignment === 'C') lines.push({ role: 'cut', a: at(from), b: at(to), mechanism: 'pattern' });
    if (assignment !== 'M' && assignment !== 'V') return;
    if (creases.length === 0 && foldDeg !== undefined) leadDeg = Math.abs(foldDeg);
    creases.push({
      id: `pattern.e${i}`,
      role: assignment === 'V' ? 'valley' : 'mountain',
      mechanism: 'pattern',
      a: at(from),
      b: at(to),
      ends: [undefined, 0],
    });
  });
  checkPoints(pattern);
  if (creases.length === 0)
    throw new PatternError('the pattern has no mountain or valley crease; at least one edge must be assigned M or V');
  const piece: Piece = {
    id: 'pattern',
    title: 'Crease pattern',
    mechanism: 'pattern',
    stock: '',
    outline: outlineOf(pattern),
    lines,
    creases,
    glue: [],
    labels: [],
  };
  const lead = creases[0];
  const flat = findFacets(piece, []);
  const hinge = flat.hinges.find((h) => h.crease.id === lead.id);
  if (!hinge)
    throw new PatternError(
      `the first crease, edge ${lead.id.slice('pattern.e'.length)}, has paper on one side only or ends in air, ` +
        'so it cannot drive the fold',
    );
  const labels = [
    { name: 'still', at: insidePoint(flat.facets[hinge.b].polygon), mechanism: 'pattern' },
    { name: 'turning', at: insidePoint(flat.facets[hinge.a].polygon), mechanism: 'pattern' },
  ];
  const length = dist2(lead.a, lead.b);
  const host: Host = {
    crease: lead.id,
    piece: 'pattern',
    frame: { origin: lerp2(lead.a, lead.b, 0.5), along: scale2(sub2(lead.b, lead.a), 1 / length) },
    lengthMm: length,
    sideA: 'still',
    sideB: 'turning',
    sign: lead.role === 'valley' ? 1 : -1,
    ends: [Math.PI, 0],
    reachA: 0,
    reachB: 0,
    stock: '',
  };
  const laid = layOut({
    pieces: [{ ...piece, labels }],
    bonds: [],
    interruptions: [],
    mechanisms: [],
    hosts: new Map([[lead.id, host]]),
    base: { mechanism: 'pattern', facets: () => [] },
    lead: { crease: lead.id, still: 'still', turning: 'turning' },
  });
  return { assembly: assemble(laid), leadDeg };
}

/** Paper is what the border edges enclose; without any, everything the edges enclose. */
function outlineOf({ vertices, edges }: CreasePattern): Polygon {
  const segments = (list: CreasePattern['edges']) => list.map((e) => ({ a: vertices[e.from], b: vertices[e.to] }));
  const border = edges.filter((e) => e.assignment === 'B');
  const enclosed = arrange(segments(border.length > 0 ? border : edges)).faces;
  // One closed border is taken as it is: clipping would round its corners to the clipping grid.
  if (border.length > 0 && enclosed.length === 1) return enclosed[0];
  const region = border.length > 0 ? regionFromRings(enclosed.flatMap((f) => [f.outer, ...f.holes])) : unite(enclosed);
  if (region.length === 0) throw new PatternError('the border edges (B) do not close round any paper');
  if (region.length > 1)
    throw new PatternError(`the border edges (B) enclose ${region.length} separate sheets; fold one at a time`);
  return region.reduce((best, p) => (polygonArea(p) > polygonArea(best) ? p : best));
}
