/** The lines of a piece as they are cut: each stretch of paper once, by arrangement, chained into the fewest paths. */
import { creaseStretches, type Interruption } from '../pattern/facets';
import type { CreaseLine, Piece } from '../pattern/pattern';
import { arrange, type Arrangement, type Segment } from '../plane/arrangement';
import { chainEdges, type Chain } from '../plane/chain';
import { insidePoint, ringsOf, type Ring } from '../plane/polygon';
import { preparePolygon } from '../plane/prepared';
import { dist2, dot2, sub2, type Vec2 } from '../plane/vec2';
import { WELD_MM } from '../tolerance';

export interface CutPath {
  readonly role: 'cut' | 'window';
  readonly points: Ring;
  readonly closed: boolean;
  /** The edge of the piece, or the mechanism whose cut it begins with. */
  readonly id: string;
}
export interface ScoreStretch {
  readonly crease: CreaseLine;
  readonly a: Vec2;
  readonly b: Vec2;
}
export interface LineWork {
  readonly cuts: readonly CutPath[];
  /** Creases where they have paper on both sides, each as few stretches as it has. */
  readonly scores: readonly ScoreStretch[];
}

interface Source extends Segment {
  readonly kind: 'edge' | 'hole' | 'cut' | 'crease';
  readonly id: string;
  readonly crease?: CreaseLine;
}

export function lineWork(piece: Piece, interruptions: readonly Interruption[]): LineWork {
  const sources = sourcesOf(piece, interruptions);
  const plane = arrange(sources);
  const paper = paperOf(piece, plane);
  const isPaper = (face: number): boolean => face >= 0 && paper[face];
  const cuts: { edge: readonly [number, number]; role: CutPath['role']; id: string }[] = [];
  const creased = new Map<CreaseLine, Segment[]>();
  for (const { from, to, left, right, sources: along } of plane.edges) {
    const sides = Number(isPaper(left)) + Number(isPaper(right));
    // In waste, or off the paper, nothing is cut.
    if (sides === 0) continue;
    const here = along.map((s) => sources[s]);
    const hole = here.find((s) => s.kind === 'hole');
    const cut = here.find((s) => s.kind === 'edge') ?? hole ?? here.find((s) => s.kind === 'cut');
    if (cut) {
      cuts.push({ edge: [from, to], role: cut === hole ? 'window' : 'cut', id: cut.id });
      continue;
    }
    const crease = here[0].crease!;
    // Along an edge there is nothing to fold.
    if (sides === 2)
      creased.set(crease, [...(creased.get(crease) ?? []), { a: plane.vertices[from], b: plane.vertices[to] }]);
  }
  return {
    cuts: (['cut', 'window'] as const).flatMap((role) => {
      const own = cuts.filter((c) => c.role === role);
      return chainEdges(
        plane.vertices,
        own.map((c) => c.edge),
      ).map(({ points, closed, first }: Chain): CutPath => ({ role, points, closed, id: own[first].id }));
    }),
    scores: [...creased].flatMap(([crease, parts]) => joinAlong(crease, parts)),
  };
}

function sourcesOf(piece: Piece, interruptions: readonly Interruption[]): Source[] {
  const ring = (points: Ring, kind: Source['kind'], id: string): Source[] =>
    points.map((a, i) => ({ a, b: points[(i + 1) % points.length], kind, id }));
  return [
    // Creases come first: where points are welded theirs stay as they are.
    ...piece.creases.flatMap((crease) =>
      creaseStretches(crease, interruptions).map((s): Source => ({ ...s, kind: 'crease', id: crease.id, crease })),
    ),
    ...ring(piece.outline.outer, 'edge', `${piece.id}.edge`),
    ...piece.outline.holes.flatMap((h) => ring(h, 'hole', `${piece.id}.edge`)),
    ...(piece.islands ?? []).flatMap((p) => ringsOf(p).flatMap((r) => ring(r, 'cut', `${piece.id}.island`))),
    ...piece.lines
      .filter((l) => l.role === 'cut')
      .map(({ a, b, mechanism }): Source => ({ a, b, kind: 'cut', id: mechanism })),
  ];
}

/** Which faces are paper. */
function paperOf(piece: Piece, { faces }: Arrangement): boolean[] {
  const sheets = [piece.outline, ...(piece.islands ?? [])].map(preparePolygon);
  return faces.map((face) => {
    const p = insidePoint(face);
    return sheets.some((s) => s.contains(p));
  });
}

/** Parts of a crease in order along it, those that follow on each other as one. */
function joinAlong(crease: CreaseLine, parts: readonly Segment[]): ScoreStretch[] {
  const along = (p: Vec2): number => dot2(sub2(p, crease.a), sub2(crease.b, crease.a));
  const ordered = parts
    .map(({ a, b }): Segment => (along(a) <= along(b) ? { a, b } : { a: b, b: a }))
    .sort((s, t) => along(s.a) - along(t.a));
  const out: ScoreStretch[] = [];
  for (const { a, b } of ordered) {
    const last = out[out.length - 1];
    if (last && dist2(last.b, a) <= WELD_MM) out[out.length - 1] = { ...last, b };
    else out.push({ crease, a, b });
  }
  return out;
}
