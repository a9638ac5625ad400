/**
 * Pieces of a brought-in template joined into a working card: glued facet on facet, on rivets, with pins in slots. What
 * is joined to the card is posed with it; how its creases lie in the shut card follows from that all of it lies flat.
 */
import { CARD, partId } from '../ids';
import type { TemplateJoin } from '../document/template';
import type { Drive } from '../drives';
import { GUTTER, laidOnto, type Bond, type CreaseLine, type GlueArea, type MovingJoint, type Piece } from '../kinds';
import { compose, invert, pivotMotion, placeOnSheet, turnAbout, type Rigid } from '../linkage';
import { findFacets, type FlatPattern, type Interruption } from '../pattern/facets';
import {
  centreOf,
  contains,
  insidePoint,
  intersect,
  largest,
  mapRegion,
  offset,
  type Polygon,
  type Ring,
} from '../plane/polygon';
import { dist2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { ShapeError } from '../shapes/shape';
import { closedFolds, type FlatCard, type LyingShut } from './closed-folds';

export interface JoinedPieces {
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  readonly joints: readonly MovingJoint[];
  readonly drives: readonly Drive[];
  /** Facets and creases of the pieces that are joined to the card, by piece. */
  readonly patterns: readonly (readonly [piece: string, flat: FlatPattern])[];
  /** How a crease lies in the shut card; undefined for cards without joins. */
  readonly endsOf: (crease: string) => CreaseLine['ends'] | undefined;
}

/** A join with the facets it ties, in the axes of the pieces. */
interface Placed {
  readonly join: TemplateJoin;
  readonly a: Tie;
  readonly b: Tie;
  /** Frame of b's piece in that of a's. */
  readonly placement: Rigid;
}
interface Tie {
  readonly piece: string;
  readonly facet: string;
  readonly from: Vec2;
  readonly to: Vec2;
}

/**
 * @param pieces the card first; those that nothing joins to it stay apart
 * @param move from points as drawn to the axes of the pieces
 * @param drawnGlue areas of glue as they are drawn, in the axes of the pieces
 * @param opensTo how far a card of these pieces opens, degrees
 */
export function joinPieces(
  pieces: readonly Piece[],
  interruptions: readonly Interruption[],
  joins: readonly TemplateJoin[],
  move: (p: Vec2) => Vec2,
  opensTo: (joined: JoinedPieces) => number,
  drawnGlue: readonly Ring[] = [],
): JoinedPieces {
  if (joins.length === 0) return { pieces, bonds: [], joints: [], drives: [], patterns: [], endsOf: () => undefined };
  const found = pieces.map((p) => withLabels(p, findFacets(p, interruptions)));
  const named = found.map((f) => f.piece);
  const patterns = new Map(found.map(({ piece, flat }) => [piece.id, flat]));
  const placed = joins.map((join) => placeJoin(join, patterns, move));
  const tied = reached(placed);
  const kept = placed.filter((j) => tied.has(j.a.piece));
  const card: FlatCard = {
    patterns: new Map([...patterns].filter(([id]) => tied.has(id))),
    ties: kept.map(({ a, b, placement }) => ({ a, b, placement })),
  };
  const glue = kept.filter((j) => j.join.kind === 'bond').flatMap((j) => glueOf(j, patterns, drawnGlue));
  const made = (endsOf: JoinedPieces['endsOf']): JoinedPieces => ({
    pieces: named.map((p) =>
      tied.has(p.id) ? { ...asPosed(p, endsOf), glue: glue.flatMap((g) => (g.piece === p.id ? [g.area] : [])) } : p,
    ),
    endsOf,
    patterns: [...patterns]
      .filter(([id]) => id !== CARD && tied.has(id))
      .map(([id, flat]) => [id, withEnds(flat, endsOf)]),
    bonds: kept.filter((j) => j.join.kind === 'bond').map(bondOf),
    joints: kept.filter((j) => j.join.kind !== 'bond').map(jointOf),
    drives: kept.filter((j) => j.join.kind !== 'bond').map(driveOf),
  });
  return bestOf([...firstOf(closedFolds(card), MOST_WAYS)], made, opensTo);
}

/** Ways of lying shut that are looked at. */
const MOST_WAYS = 24;
function* firstOf<T>(all: Iterable<T>, most: number): Generator<T> {
  let n = 0;
  for (const one of all) {
    yield one;
    if (++n === most) return;
  }
}

/**
 * Of the ways of lying shut the one from which the card opens furthest; of several those that keep to its own side of
 * the spine first. Where it cannot lie shut at all, what its creases do there is not known.
 */
function bestOf(
  ways: readonly LyingShut[],
  made: (endsOf: JoinedPieces['endsOf']) => JoinedPieces,
  opensTo: (joined: JoinedPieces) => number,
): JoinedPieces {
  let best = { joined: made(() => undefined), open: -1 };
  for (const { folds } of [...ways].sort((a, b) => a.behindMm - b.behindMm)) {
    const joined = made((crease) => {
      const fold = folds.get(crease);
      return fold === undefined ? undefined : [fold, undefined];
    });
    const open = opensTo(joined);
    if (open > best.open + OPENS_EQUALLY_DEG) best = { joined, open };
    if (best.open >= FLAT_DEG) break;
  }
  return best.joined;
}
const OPENS_EQUALLY_DEG = 0.5;
const FLAT_DEG = 180;

/** A piece whose facets have no names yet gets some. */
function withLabels(piece: Piece, flat: FlatPattern): { readonly piece: Piece; readonly flat: FlatPattern } {
  if (piece.labels.length > 0) return { piece, flat };
  const nameOf = (k: number): string => partId(CARD, `${piece.id.replace('card-', '')}-face-${k + 1}`);
  const facets = flat.facets.map((f, k) => ({ ...f, id: nameOf(k) }));
  const labels = facets.map((f) => ({ name: f.id, at: insidePoint(f.polygon), mechanism: CARD }));
  return { piece: { ...piece, labels }, flat: { ...flat, facets } };
}

function asPosed({ apart: _, ...piece }: Piece, endsOf: JoinedPieces['endsOf']): Piece {
  const creases = piece.creases.map((c): CreaseLine => {
    const ends = endsOf(c.id);
    return ends && c.id !== GUTTER ? { ...c, ends } : c;
  });
  return { ...piece, creases };
}
const withEnds = (flat: FlatPattern, endsOf: JoinedPieces['endsOf']): FlatPattern => ({
  ...flat,
  hinges: flat.hinges.map((h) => ({ ...h, crease: { ...h.crease, ends: endsOf(h.crease.id) ?? h.crease.ends } })),
});

function placeJoin(join: TemplateJoin, patterns: ReadonlyMap<string, FlatPattern>, move: (p: Vec2) => Vec2): Placed {
  const [a, b] = [join.a, join.b].map((end): Tie => {
    const at = move(end.inside);
    for (const [piece, { facets }] of patterns) {
      const facet = facets.find((f) => contains(f.polygon, at));
      if (facet) return { piece, facet: facet.id, from: move(end.from), to: move(end.to) };
    }
    throw new ShapeError(`join ${join.id} has an end where there is no paper; take it away or set it anew`);
  });
  if (a.piece === b.piece) throw new ShapeError(`join ${join.id} ties a piece to itself; its ends lie on one piece`);
  const frame = ({ from, to }: Tie): Rigid => {
    const long = dist2(from, to);
    if (!(long > 0)) throw new ShapeError(`join ${join.id} has two ends in one place, so it has no direction`);
    return placeOnSheet(from, scale2(sub2(to, from), 1 / long));
  };
  const over = turnAbout([0, 0, 0], [1, 0, 0], join.turned ? Math.PI : 0);
  return { join, a, b, placement: compose(compose(frame(a), over), invert(frame(b))) };
}

/** Pieces that joins tie to the card, at any remove. */
function reached(placed: readonly Placed[]): Set<string> {
  const out = new Set([CARD]);
  for (const id of out)
    for (const { a, b } of placed) {
      if (a.piece === id) out.add(b.piece);
      if (b.piece === id) out.add(a.piece);
    }
  return out;
}

/** Adhesive where none is drawn stays this far off edges and creases, mm; common practice, no source. */
const GLUE_INSET_MM = 1.5;

/** Where a bond is glued: as it is drawn on either piece, else wherever its two facets lie on each other. */
function glueOf(
  { join, a, b, placement }: Placed,
  patterns: ReadonlyMap<string, FlatPattern>,
  drawn: readonly Ring[],
): { piece: string; area: GlueArea }[] {
  const [over, under] = [b, a].map(
    ({ piece, facet }) => patterns.get(piece)!.facets.find((f) => f.id === facet)!.polygon,
  );
  const toA = (p: Vec2): Vec2 => laidOnto(placement, [p])[0];
  const back = invert(placement);
  const toB = (p: Vec2): Vec2 => laidOnto(back, [p])[0];
  const on = (polygon: Polygon) => drawn.find((ring) => contains(polygon, centreOf(ring)));
  const [onB, onA] = [on(over), on(under)];
  const shared = (): Ring | undefined =>
    largest(offset(intersect([over], mapRegion([under], toB, join.turned)), -GLUE_INSET_MM))?.outer;
  const outline = onB ?? onA?.map(toB) ?? shared();
  if (!outline) return [];
  const area: GlueArea = {
    id: partId(CARD, `glue-${join.id}`),
    mechanism: CARD,
    outline,
    facet: b.facet,
    onto: { piece: a.piece, facet: a.facet, outline: outline.map(toA) },
  };
  return [{ piece: b.piece, area }];
}

const bondOf = ({ join, a, b, placement }: Placed): Bond => ({
  id: partId(CARD, `join-${join.id}`),
  a: { piece: a.piece, facet: a.facet },
  b: { piece: b.piece, facet: b.facet },
  placement,
});

const driveId = ({ join }: Placed): string => partId(CARD, `${join.kind === 'pivot' ? 'turn' : 'slide'}-${join.id}`);
function driveOf(placed: Placed): Drive {
  const { join, a } = placed;
  return join.kind === 'pivot'
    ? { id: driveId(placed), label: `turn ${join.id}`, unit: 'deg', from: 0, to: 360, rest: 0, round: true }
    : { id: driveId(placed), label: `slide ${join.id}`, unit: 'mm', from: 0, to: dist2(a.from, a.to), rest: 0 };
}

function jointOf(placed: Placed): MovingJoint {
  const { join, a, b, placement } = placed;
  const common = {
    id: partId(CARD, `join-${join.id}`),
    a: { piece: a.piece, facet: a.facet },
    b: { piece: b.piece, facet: b.facet },
    placement,
    role: 0 as const,
    ends: [undefined, undefined] as const,
    driven: { drive: driveId(placed), at: 0, rate: 1 },
  };
  const [x, y] = a.from;
  if (join.kind === 'pivot')
    return {
      ...common,
      motion: pivotMotion(a.from),
      span: [
        [x, y, 0],
        [x, y, 1],
      ],
    };
  const lengthMm = dist2(a.from, a.to);
  const [u, v] = scale2(sub2(a.to, a.from), 1 / lengthMm);
  return {
    ...common,
    motion: {
      kind: 'track',
      start: [x, y, 0],
      heading: [u, v, 0],
      normal: [0, 0, 1],
      runs: [{ lengthMm, curvature: 0 }],
    },
    span: [
      [x, y, 0],
      [a.to[0], a.to[1], 0],
    ],
  };
}
