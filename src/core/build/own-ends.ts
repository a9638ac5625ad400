/** Lines of one's own under a hand: where their ends lie, and what they may hang on. Axes of the pieces, mm. */
import { partId } from '../ids';
import {
  drawLines,
  linesOf,
  numbersOf,
  OWN_LINES,
  spotsIn,
  surroundings,
  type DrawnSpot,
  type OwnLine,
} from '../kinds';
import { applyRigid, placeOnSheet, type Rigid } from '../linkage';
import { findFacets } from '../pattern/facets';
import type { Ring } from '../plane/polygon';
import { lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { outlineOf } from '../shapes/outline';
import { valuesOf } from '../document/fields';
import { shelfOf, type Design } from '../document/design';
import { broughtBy, type Brought } from './build';
import { cornersOf, type OwnCorner } from './own-edges';

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
/** A line that one amount moves as a whole: beside another, or at a part of a facet. */
export interface OwnSlide {
  readonly line: string;
  readonly key: 'mm' | 'part';
  readonly value: number;
  readonly piece: string;
  /** Its middle, and how far that goes for a unit of the amount. */
  readonly at: Vec2;
  readonly way: Vec2;
}
export interface OwnHold {
  readonly ends: readonly OwnEnd[];
  readonly slides: readonly OwnSlide[];
  /** Corners of pieces of its own, as a kind turned plain has them. */
  readonly corners: readonly OwnCorner[];
  readonly around: readonly Around[];
}
const NOTHING: OwnHold = { ends: [], slides: [], corners: [], around: [] };
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
  return {
    ends: held.flatMap((h) => h.ends),
    slides: held.flatMap((h) => h.slides),
    corners: cornersOf(part.pieces),
    around: held.map((h) => h.around),
  };
}

/** An amount is moved by this much to see where the line goes, mm and parts. */
const NUDGE = { mm: 0.5, part: 0.01 } as const;

/** An amount of a line that is a plain number, and how the middle of the line follows it; axes of its mechanism. */
function slideOf(
  line: OwnLine,
  lines: readonly OwnLine[],
  around: ReturnType<typeof surroundings>,
): Omit<OwnSlide, 'piece'> | null {
  const key = 'beside' in line ? 'mm' : 'facet' in line ? 'part' : null;
  const value = key && (line as Partial<Record<string, unknown>>)[key];
  if (!key || typeof value !== 'number') return null;
  const middleAt = (amount: number): Vec2 | null => {
    const changed = lines.map((l) => (l === line ? ({ ...l, [key]: amount } as OwnLine) : l));
    const run = drawLines(changed, around).runs.find((r) => r.name === line.name);
    return run ? lerp2(run.points[0], run.points[run.points.length - 1], 0.5) : null;
  };
  const [at, next] = [middleAt(value), middleAt(value + NUDGE[key])];
  return at && next ? { line: line.name, key, value, at, way: scale2(sub2(next, at), 1 / NUDGE[key]) } : null;
}

type Ground = Parameters<typeof surroundings>[0];

function heldOn(
  design: Design,
  m: Design['mechanisms'][number],
  { piece: host, sideA, sideB, crease }: Brought,
  so: Ground['so'],
  placement: Rigid,
): Pick<OwnHold, 'ends' | 'slides'> & { readonly around: Around } {
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
    slides: lines.flatMap((line): OwnSlide[] => {
      const found = slideOf(line, lines, around);
      return found ? [{ ...found, piece, at: onto(found.at), way: sub2(onto(found.way), onto([0, 0])) }] : [];
    }),
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
