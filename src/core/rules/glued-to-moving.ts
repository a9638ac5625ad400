/**
 * Glue that would land on what moves: between an area and the facet it is meant for lies a part that is carried by
 * that facet and drawn, turned or lifted by a hand. Where such a part rests on its facet is the same in every opening,
 * so the shut card tells.
 */
import { carrierOf, sameFace } from '../assembly/carrier';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import type { GlueArea, Piece } from '../pattern/pattern';
import { intersect, regionArea, ringArea, type Region } from '../plane/polygon';
import { overIn, seenOver } from './meeting';
import type { Evidence } from './rule';
import { solidsOf } from './solids';

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
export function gluedToMoving(
  evidence: Pick<Evidence, 'assembly' | 'brief'>,
  closed: Pose,
  on: Piece,
  glue: GlueArea,
): GluedToMoving | null {
  const { assembly } = evidence;
  const { facets } = assembly;
  const sheets = solidsOf(evidence);
  const meant = facets.findIndex((f) => f.id === glue.onto.facet && f.piece === glue.onto.piece);
  if (meant < 0) return null;
  const face = { facet: facets[meant].id, side: sideOf(assembly, on, facets[meant].id) };
  const { outline } = glue.onto;
  const area: Region = [{ outer: ringArea(outline) > 0 ? outline : [...outline].reverse(), holes: [] }];
  let most: GluedToMoving | null = null;
  facets.forEach((f, moving) => {
    if (f.mechanism === glue.mechanism || f.body === facets[meant].body || !sameFace(carrierOf(assembly, moving), face))
      return;
    const over = overIn(closed, sheets[meant], sheets[moving]);
    const areaMm2 = over ? regionArea(intersect(area, seenOver(sheets[moving], over))) : 0;
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
  return carried?.facet === facet ? carried.side : 'inside';
}
