/** Facets of a piece: the faces of the arrangement of its edge, cuts and creases. */
import { cutOffId } from '../ids';
import { arrange, type Segment } from '../plane/arrangement';
import { contains, insidePoint, ringsOf, type Polygon } from '../plane/polygon';
import { dist2, dot2, lerp2, sub2, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';
import type { CreaseLine, OwnedArea, Piece } from './pattern';

export interface FlatFacet {
  /** Label of the facet, or `PIECE.facet-N`. */
  readonly id: string;
  readonly polygon: Polygon;
  /** Whose paper it is, where that is not the piece's. */
  readonly mechanism?: string;
}

/** A stretch of a crease with paper on both sides; facet `b` is on the left of a→b. */
export interface FlatHinge {
  readonly crease: CreaseLine;
  readonly segments: readonly Segment[];
  readonly a: number;
  readonly b: number;
}

export interface FlatPattern {
  readonly facets: readonly FlatFacet[];
  readonly hinges: readonly FlatHinge[];
  /** Stretches of creases that lie beside no paper, or have the same facet on both sides. */
  readonly idle: readonly { readonly crease: CreaseLine; readonly segment: Segment }[];
}

/** A part of a crease line, as ways along it (mm), taken out because something stands there. */
export interface Interruption {
  readonly crease: string;
  readonly from: number;
  readonly to: number;
}

/** The stretches of a crease that stay, after what stands on it has interrupted it. */
export function creaseStretches(crease: CreaseLine, interruptions: readonly Interruption[]): Segment[] {
  const length = dist2(crease.a, crease.b);
  const gaps = interruptions.filter((i) => i.crease === crease.id).sort((i, j) => i.from - j.from);
  const out: Segment[] = [];
  let at = 0;
  const keep = (from: number, to: number): void => {
    if (to - from > WELD_MM)
      out.push({ a: lerp2(crease.a, crease.b, from / length), b: lerp2(crease.a, crease.b, to / length) });
  };
  for (const gap of gaps) {
    keep(at, Math.min(gap.from, length));
    at = Math.max(at, gap.to);
  }
  keep(at, length);
  return out;
}

export function findFacets(piece: Piece, interruptions: readonly Interruption[]): FlatPattern {
  const segments: (Segment & { crease?: CreaseLine })[] = [];
  // Creases come first: where points are welded theirs stay as they are, to the last digit, since folds depend on them.
  for (const crease of piece.creases)
    for (const s of creaseStretches(crease, interruptions)) segments.push({ ...s, crease });
  for (const { role, a, b } of piece.lines) if (role === 'cut') segments.push({ a, b });
  for (const ring of [piece.outline, ...(piece.islands ?? [])].flatMap(ringsOf))
    ring.forEach((a, i) => segments.push({ a, b: ring[(i + 1) % ring.length] }));

  const { vertices, edges, faces } = arrange(segments);
  const index = new Int32Array(faces.length).fill(-1);
  const facets: FlatFacet[] = [];
  const parts = new Map<string, number>();
  const papers = [piece.outline, ...(piece.islands ?? [])];
  faces.forEach((polygon, f) => {
    // Paper, and whose, is what lies at a point inside the face, away from its edges.
    const inside = insidePoint(polygon);
    if (!papers.some((paper) => contains(paper, inside))) return;
    index[f] = facets.length;
    const label = piece.labels.find((l) => contains(polygon, l.at));
    if (label) return void facets.push({ id: label.name, polygon, mechanism: label.mechanism });
    const owner = ownerAt(piece, inside);
    if (!owner) return void facets.push({ id: `${piece.id}.facet-${facets.length + 1}`, polygon });
    const n = (parts.get(owner.name) ?? 1) + 1;
    parts.set(owner.name, n);
    facets.push({ id: cutOffId(owner.name, n), polygon, mechanism: owner.mechanism });
  });

  const facetAt = (face: number): number => (face < 0 ? -1 : index[face]);
  const hinges: { crease: CreaseLine; segments: Segment[]; a: number; b: number }[] = [];
  const idle: { crease: CreaseLine; segment: Segment }[] = [];
  const byPair = new Map<string, (typeof hinges)[number]>();
  for (const e of edges) {
    // A cut along the same line wins: there is no crease left to fold.
    if (e.sources.some((s) => segments[s].crease === undefined)) continue;
    const crease = segments[e.sources[0]].crease!;
    const forward = dot2(sub2(vertices[e.to], vertices[e.from]), sub2(crease.b, crease.a)) > 0;
    const segment = forward ? { a: vertices[e.from], b: vertices[e.to] } : { a: vertices[e.to], b: vertices[e.from] };
    const [left, right] = forward ? [facetAt(e.left), facetAt(e.right)] : [facetAt(e.right), facetAt(e.left)];
    if (left < 0 || right < 0 || left === right) {
      idle.push({ crease, segment });
      continue;
    }
    const key = `${crease.id}|${right}|${left}`;
    const known = byPair.get(key);
    if (known) known.segments.push(segment);
    else {
      const hinge = { crease, segments: [segment], a: right, b: left };
      byPair.set(key, hinge);
      hinges.push(hinge);
    }
  }
  for (const h of hinges) h.segments.sort((s, t) => along(h.crease, s.a) - along(h.crease, t.a));
  return { facets, hinges: hinges.map((h) => ({ ...h, segments: joinUp(h.segments) })), idle };
}

const along = (crease: CreaseLine, p: Vec2): number => dot2(sub2(p, crease.a), sub2(crease.b, crease.a));

/** Stretches that follow on each other become one. */
function joinUp(segments: readonly Segment[]): Segment[] {
  const out: Segment[] = [];
  for (const s of segments) {
    const last = out[out.length - 1];
    if (last && dist2(last.b, s.a) <= WELD_MM) out[out.length - 1] = { a: last.a, b: s.b };
    else out.push(s);
  }
  return out;
}

/** The innermost owned area that a point lies in. */
const ownerAt = ({ owned = [] }: Piece, p: Vec2): OwnedArea | undefined =>
  owned.findLast((a) => contains(a.polygon, p));
