/** Lines of one's own under a hand: where their ends lie, and what they may hang on. Axes of the pieces, mm. */
import { partId } from '../ids';
import { drawLines, linesOf, numbersOf, OWN_LINES, spotsIn, surroundings, type DrawnSpot } from '../kinds';
import { applyRigid, placeOnSheet, type Rigid } from '../linkage';
import { findFacets } from '../pattern/facets';
import type { Ring } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { outlineOf } from '../shapes/outline';
import { valuesOf } from '../document/fields';
import { shelfOf, type Design } from '../document/design';
import { broughtBy, type Brought } from './build';

export interface OwnEnd {
  readonly line: string;
  readonly end: DrawnSpot['end'];
  readonly piece: string;
  readonly at: Vec2;
}
/** What spots on a piece may be measured from: facets as they are without the lines, creases, and the lines by name. */
export interface Around {
  readonly piece: string;
  readonly facets: readonly { readonly id: string; readonly outer: Ring }[];
  readonly lines: readonly { readonly of: string; readonly a: Vec2; readonly b: Vec2 }[];
}
export interface OwnHold {
  readonly ends: readonly OwnEnd[];
  readonly around: readonly Around[];
}
const NOTHING: OwnHold = { ends: [], around: [] };
/** A line with more corners is a curve: it is not dragged corner by corner. */
const MOST_CORNERS = 40;

/** Nothing for what is no line of one's own. Throws DesignError. */
export function ownHoldOf(design: Design, id: string): OwnHold {
  const m = design.mechanisms.find((x) => x.id === id && x.kind === OWN_LINES);
  const brought = m && broughtBy(design).get(id);
  if (!m || !brought) return NOTHING;
  const { piece, interruptions, placement, part } = brought;
  const held = [
    heldOn(design, m, brought, { piece, interruptions }, placement),
    // Pieces of its own are drawn in their own axes.
    ...part.pieces.map((p) =>
      heldOn(design, m, brought, { piece: p, interruptions: [] }, placeOnSheet([0, 0], [1, 0])),
    ),
  ];
  return { ends: held.flatMap((h) => h.ends), around: held.map((h) => h.around) };
}

type Ground = Parameters<typeof surroundings>[0];

function heldOn(
  design: Design,
  m: Design['mechanisms'][number],
  { piece: host, sideA, sideB, crease }: Brought,
  so: Ground['so'],
  placement: Rigid,
): { readonly ends: readonly OwnEnd[]; readonly around: Around } {
  const values = valuesOf(m);
  const { id: piece } = so.piece;
  const lines = linesOf(values).filter((l) => (l.piece === undefined ? host.id : partId(m.id, l.piece)) === piece);
  const shelf = shelfOf(design);
  const places = { id: m.id, piece: host.id, sideA, sideB, crease };
  const outline: Ground['outline'] = (shape) => outlineOf(shape, shelf);
  const around = surroundings({ so, placement, places, outline }, numbersOf(values));
  const onto = (p: Vec2): Vec2 => {
    const [x, y] = applyRigid(placement, [...p, 0]);
    return [x, y];
  };
  const own = drawLines(lines, around).runs.filter((r) => r.name === r.line.name && !r.closed);
  const before = so.piece.creases.filter((c) => c.mechanism !== m.id);
  return {
    ends: spotsIn(lines, around)
      .filter(({ line }) => !('corners' in line) || line.corners.length <= MOST_CORNERS)
      .map(({ line, end, at }) => ({ line: line.name, end, piece, at: onto(at) })),
    around: {
      piece,
      facets: findFacets(so.piece, so.interruptions).facets.map((f) => ({ id: f.id, outer: f.polygon.outer })),
      lines: [
        ...before.map((c) => ({ of: c.id, a: c.a, b: c.b })),
        ...own.map(({ line, points }) => ({
          of: line.name,
          a: onto(points[0]),
          b: onto(points[points.length - 1]),
        })),
      ],
    },
  };
}
