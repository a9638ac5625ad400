/**
 * Sheets of paper fixed on a face, one above the other. Mount axes: x to the reader's right, y up, z off the paper; a
 * sheet's level is how far its middle lies above the middle of the face's own sheet, mm.
 */
import { partId } from '../../ids';
import { compose, identity, shiftBy, type Rigid } from '../../linkage';
import {
  insidePoint,
  largest,
  mapRegion,
  offset,
  ringsOf,
  type Polygon,
  type Region,
  type Ring,
  intersect,
  regionArea,
} from '../../plane/polygon';
import { adhesive } from '../../paper/adhesives';
import type { Vec2 } from '../../plane/vec2';
import { WELD_MM } from '../../tolerance';
import type { Bond, CreaseLine, Face, FaceContext, FacetLabel, Filler, FoamPad, GlueArea, Piece } from '../kind';

/** Glue keeps this far from the edge of a sheet (mm); common practice, no source. */
const GLUE_INSET_MM = 3;
/** Foam narrower than this cannot be cut and laid (mm; docs/mechanisms.md, `foam`). */
export const LEAST_FOAM_MM = 3;

export interface Sheet {
  readonly piece: Piece;
  readonly levelMm: number;
}

/**
 * A sheet of the mechanism's own stock: one facet, `ID.NAME`, which is also the id of its piece.
 * @param drawn what is drawn on it, not cut
 * @param folded its creases, and its facets where those make several
 */
export function sheet(
  { id, stock }: Pick<FaceContext, 'id' | 'stock'>,
  name: string,
  title: string,
  outline: Polygon,
  levelMm: number,
  drawn: Region = [],
  folded: { readonly creases: readonly CreaseLine[]; readonly labels: readonly FacetLabel[] } | null = null,
): Sheet {
  const own = partId(id, name);
  const lines = drawn
    .flatMap(ringsOf)
    .flatMap((r) => r.map((a, i) => ({ role: 'mark' as const, a, b: r[(i + 1) % r.length], mechanism: id })));
  const piece: Piece = {
    id: own,
    title,
    mechanism: id,
    stock,
    outline,
    levelMm,
    lines,
    ...(drawn.length > 0 ? { drawn: [{ side: 'inside' as const, region: drawn }] } : {}),
    creases: folded?.creases ?? [],
    glue: [],
    labels: folded?.labels ?? [{ name: own, at: insidePoint(outline), mechanism: id }],
  };
  return { piece, levelMm };
}

export const facetOf = ({ piece }: Sheet): Bond['a'] => ({ piece: piece.id, facet: piece.labels[0].name });
/** Level of the first sheet on a face, and of a sheet on another. */
export const firstLevel = ({ face, caliperMm }: FaceContext): number => (face.caliperMm + caliperMm) / 2;
/** A region of the mount's axes in those of the face's piece. */
export const toPiece = (face: Face, region: Region): Region =>
  mapRegion(region, there(face.placement), face.side === 'outside');
const there =
  (m: Rigid) =>
  ([x, y]: Vec2): Vec2 => [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]];

/** Glue of a sheet ends so far inside its edge, mm: further in where that leaves it wide enough to hold. */
const GLUE_INSETS_MM = [GLUE_INSET_MM, 1.5, 0.5, 0.2];
function glueIn(outline: Polygon): Polygon | undefined {
  const holds = GLUE_INSETS_MM.map((mm) => offset([outline], -mm)).find(
    (region) => region.length === 1 && offset(region, WELD_MM - adhesive('wet').leastWideMm / 2).length > 0,
  );
  return largest(holds ?? offset([outline], -GLUE_INSET_MM));
}

/** The glue of a sheet that is stuck on a face all over. */
export function glueUnder(face: Face, piece: Piece): GlueArea[] {
  const inner = glueIn(piece.outline);
  if (!inner) return [];
  const onto = { piece: face.piece, facet: face.facet, outline: toPiece(face, [inner])[0].outer };
  const { mechanism } = piece;
  return [{ id: `${piece.id}-glue`, mechanism, outline: inner.outer, facet: piece.labels[0].name, onto }];
}

/** Glue on one facet of a sheet, onto what shares its axes or lies in those of the face. */
export function patch(
  id: string,
  on: Sheet,
  facet: string,
  onto: { readonly piece: string; readonly facet: string },
  box: Ring,
  face?: Face,
): GlueArea {
  const outline = face ? toPiece(face, [{ outer: box, holes: [] }])[0].outer : box;
  return { id, mechanism: on.piece.mechanism, outline: box, facet, onto: { ...onto, outline } };
}

/** Glued on the face itself, all over: the sheet with its glue, and the bond. */
export function gluedOn(face: Face, on: Sheet): { sheet: Sheet; bond: Bond } {
  const { piece } = on;
  const placement = onFace(face, on.levelMm);
  const glue = glueUnder(face, piece);
  return {
    sheet: { ...on, piece: { ...piece, glue } },
    bond: {
      id: `${piece.id}-bond`,
      a: { piece: face.piece, facet: face.facet },
      b: facetOf(on),
      placement,
    },
  };
}

/** Where the mount's axes, so far above the face, lie in those of the face's piece. */
export const onFace = (face: Face, levelMm: number): Rigid => compose(face.placement, shiftBy([0, 0, levelMm]));
/** Where a sheet lies in the axes of another of the same mount. */
export const above = (lower: Pick<Sheet, 'levelMm'>, upper: Pick<Sheet, 'levelMm'>): Rigid =>
  lower.levelMm === upper.levelMm ? identity() : shiftBy([0, 0, upper.levelMm - lower.levelMm]);

/** Carried by foam, or by whatever else lies between: fixed to the lower sheet. */
export const heldBy = (lower: Sheet, upper: Sheet): Bond => ({
  id: `${upper.piece.id}-bond`,
  a: facetOf(lower),
  b: facetOf(upper),
  placement: above(lower, upper),
});

/** What of a region is wide enough to be cut as foam. */
export function cutAsFoam(region: Region): Region {
  const inner = offset(region, -LEAST_FOAM_MM / 2);
  return offset(inner, LEAST_FOAM_MM / 2, 'round');
}

/** Parts of what was to be foam of which nothing is left, where they are more than a crumb. */
export const leftOutOf = (asked: Region, cut: Region): Region =>
  asked.filter((p) => regionArea([p]) > CRUMB_MM2 && regionArea(intersect([p], cut)) === 0);
const CRUMB_MM2 = 1;

/** A pad of foam on a sheet, of the room there is for it (`cutAsFoam`). */
export const foamOn = (
  { piece }: Sheet,
  region: Region,
  thickMm: number,
  { room, lever, keepOff }: { readonly room: Region; readonly lever: string; readonly keepOff: Region },
): FoamPad => ({
  id: `${piece.id}-foam`,
  piece: piece.id,
  facet: piece.labels[0].name,
  region,
  thickMm,
  lever,
  keepOff,
  leftOut: leftOutOf(room, region),
});

/** A rivet's head is so high, mm; common practice, no source. */
const HEAD_MM = 0.4;
/** Something over a sheet, from so far above the sheet's middle. */
export const over = (
  on: Sheet,
  own: Pick<Filler, 'name' | 'region' | 'fromMm' | 'thickMm' | 'look' | 'lever'>,
): Filler => ({ ...own, ...facetOf(on) });
/** The head of a rivet over a sheet and what lies on that. */
export const headOver = (on: Sheet, region: Region, fromMm: number): Filler =>
  over(on, { name: 'Rivet', region, fromMm, thickMm: HEAD_MM, look: 'rivet' });

/** A sheet that is one with those of other mechanisms that lie over it. */
export const sharing = (on: Sheet, shares: NonNullable<Piece['shares']>): Sheet => ({
  ...on,
  piece: { ...on.piece, shares },
});
