/** Faces of facets that mechanisms are fixed on: where their axes lie, as their reader sees them. */
import { ownerOfId } from '../ids';
import type { Face, Side } from '../kinds';
import type { Rigid } from '../linkage';
import { findFacets, type Interruption } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import { boxOf, mapRegion, type Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { degToRad } from '../units/angle';
import { baseKindOf, cardValues, isBase } from '../document/fields';
import { stockOf, type Design, type Mount } from '../document/design';

/** Pieces as they are while the design is put together. */
export interface PiecesSoFar {
  /** As their owners cut them, before anything else was cut from them: a face's middle stays where it is. */
  readonly plain: ReadonlyMap<string, Piece>;
  readonly now: ReadonlyMap<string, Piece>;
  readonly interruptions: readonly Interruption[];
}

/** The face `mount` names, or null where the design has no such facet. */
export function faceOf(design: Design, pieces: PiecesSoFar, facet: string, mount: Mount): Face | null {
  const found =
    facetIn([...pieces.plain.values()], [], facet) ?? facetIn([...pieces.now.values()], pieces.interruptions, facet);
  if (!found) return null;
  const { piece, polygon } = found;
  const axes = readingAxes(design, piece, facet, mount.side);
  const { right, up } = turnedAxes(axes, mount.turnDeg);
  const { min, max } = boxOf(polygon.outer);
  const from = (k: 0 | 1): number => (min[k] + max[k]) / 2 + mount.x * axes.right[k] + mount.y * axes.up[k];
  const origin: Vec2 = [from(0), from(1)];
  const out = mount.side === 'inside' ? 1 : -1;
  const placement: Rigid = Float64Array.of(
    ...[right[0], up[0], 0, origin[0]],
    ...[right[1], up[1], 0, origin[1]],
    ...[0, 0, out, 0],
  );
  const back = ([x, y]: Vec2): Vec2 => {
    const [dx, dy] = [x - origin[0], y - origin[1]];
    return [dx * right[0] + dy * right[1], dx * up[0] + dy * up[1]];
  };
  return {
    facet,
    piece: piece.id,
    side: mount.side,
    placement,
    outline: mapRegion([polygon], back, out < 0)[0],
    caliperMm: stockOf(design, piece.stock).caliperMm,
    stock: piece.stock,
  };
}

function facetIn(
  pieces: readonly Piece[],
  interruptions: readonly Interruption[],
  facet: string,
): { piece: Piece; polygon: Polygon } | null {
  for (const piece of pieces) {
    if (!piece.labels.some((l) => l.name === facet)) continue;
    const found = findFacets(piece, interruptions).facets.find((f) => f.id === facet);
    if (found) return { piece, polygon: found.polygon };
  }
  return null;
}

interface Axes {
  readonly right: Vec2;
  readonly up: Vec2;
}
/**
 * The way a facet is read, in the axes of its piece: of the base as its kind says, what is cut from its page standing
 * up, a piece of its own as it is drawn.
 */
export function readingAxes(design: Design, piece: Pick<Piece, 'mechanism'>, facet: string, side: Side): Axes {
  const up = readingUp(design, piece, facet, side);
  return { up, right: side === 'inside' ? [up[1], -up[0]] : [-up[1], up[0]] };
}
export function readingUp(design: Design, piece: Pick<Piece, 'mechanism'>, facet: string, side: Side): Vec2 {
  if (!isBase(piece.mechanism) || design.card.template) return [0, 1];
  const ofBase = ownerOfId(facet) === facet;
  return ofBase ? baseKindOf(design).up(cardValues(design), facet, side) : [0, -1];
}

/** Turned counter-clockwise, as the reader sees it. */
function turnedAxes({ right, up }: Axes, turnDeg: number): Axes {
  const [s, c] = [Math.sin(degToRad(turnDeg)), Math.cos(degToRad(turnDeg))];
  return {
    right: [c * right[0] + s * up[0], c * right[1] + s * up[1]],
    up: [c * up[0] - s * right[0], c * up[1] - s * right[1]],
  };
}
