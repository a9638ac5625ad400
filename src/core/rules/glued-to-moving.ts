/**
 * Glue that would land on what moves: between an area and the facet it is meant for lies a part that is carried by
 * that facet and drawn, turned or lifted by a hand. Where such a part rests on its facet is the same in every opening,
 * so the shut card tells.
 */
import { carrierOf, faceName } from '../assembly/carrier';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { compose, invert } from '../linkage';
import type { GlueArea, Piece } from '../pattern/pattern';
import { intersect, mapRegion, regionArea, ringArea, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { FLAT_SINE } from './solids';

/** Less than this is the edge of something beside it, mm². */
export const MEETS_FROM_MM2 = 1;

export interface GluedToMoving {
  /** Facet by index that it lands on. */
  readonly moving: number;
  /** And that it is meant for. */
  readonly meant: number;
  readonly areaMm2: number;
}

/** What a glue area lands on that moves over its facet, the most of it; null where nothing does. */
export function gluedToMoving(assembly: Assembly, closed: Pose, on: Piece, glue: GlueArea): GluedToMoving | null {
  const { facets } = assembly;
  const meant = facets.findIndex((f) => f.id === glue.onto.facet && f.piece === glue.onto.piece);
  if (meant < 0) return null;
  const face = faceName(facets[meant].id, sideOf(assembly, on, facets[meant].id));
  const { outline } = glue.onto;
  const area: Region = [{ outer: ringArea(outline) > 0 ? outline : [...outline].reverse(), holes: [] }];
  let most: GluedToMoving | null = null;
  facets.forEach((f, moving) => {
    if (f.mechanism === glue.mechanism || f.body === facets[meant].body || carrierOf(assembly, moving) !== face) return;
    const areaMm2 = regionArea(intersect(area, seenOn(assembly, closed, meant, moving)));
    if (areaMm2 > Math.max(MEETS_FROM_MM2, most?.areaMm2 ?? 0)) most = { moving, meant, areaMm2 };
  });
  return most;
}

/** The side of its facet that a piece is glued on: the one that carries it, or the one that is seen when it opens. */
function sideOf(assembly: Assembly, on: Piece, facet: string): 'inside' | 'outside' {
  const carried = carrierOf(
    assembly,
    assembly.facets.findIndex((f) => f.piece === on.id),
  );
  return carried === faceName(facet, 'outside') ? 'outside' : 'inside';
}

/** A facet where it lies flat over another, in that one's axes; nothing where it does not. */
function seenOn({ facets }: Assembly, { placed }: Pose, ground: number, facet: number): Region {
  const m = compose(invert(placed[ground]), placed[facet]);
  if (Math.hypot(m[2], m[6]) > FLAT_SINE) return [];
  const move = ([x, y]: Vec2): Vec2 => [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]];
  return mapRegion([facets[facet].polygon], move, m[10] < 0);
}
