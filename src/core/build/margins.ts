/** How far what is stuck on a facet lies inside its edges, as a maker measures it on the table. */
import type { Assembly } from '../assembly/assembly';
import { layerId } from '../ids';
import { outlineGap } from '../plane/gap';
import {
  boxOf,
  intersect,
  regionArea,
  regionFromRings,
  subtract,
  unite,
  type Region,
  type Ring,
} from '../plane/polygon';
import type { Side } from '../kinds';
import { HIDDEN_FROM_MM2 } from '../tolerance';

/** Lengths in mm; negative where it reaches past that edge. */
export interface Margins {
  readonly left: number;
  readonly right: number;
  readonly above: number;
  readonly below: number;
  /** From outline to outline; null where it reaches past the facet. */
  readonly least: number | null;
}

/** Less than this past an edge is rounding, mm². */
const PAST_MM2 = 1e-3;

/**
 * @param facet rings of the facet's outline and its holes, mm
 * @param stuck those of what is stuck on it, in the same axes
 * @param side the side that is seen: from the outside left and right change places
 */
export function marginsOf(facet: readonly Ring[], stuck: readonly Ring[], side: Side): Margins {
  const [on, own] = [facet, stuck].map((rings) => boxOf(rings.flat()));
  const [low, high] = [own.min[0] - on.min[0], on.max[0] - own.max[0]];
  const [left, right] = side === 'inside' ? [low, high] : [high, low];
  const [sheet, piece] = [facet, stuck].map((rings) => regionFromRings(rings));
  const past = regionArea(subtract(piece, sheet)) > PAST_MM2;
  return {
    left,
    right,
    above: on.max[1] - own.max[1],
    below: own.min[1] - on.min[1],
    least: past ? null : outlineGap(sheet, piece),
  };
}

/** Share of what is stuck on that its foam carries, 0 to 1; the rest hangs free. */
export const carriedShare = (stuck: readonly Ring[], foam: readonly Ring[]): number =>
  regionArea(regionFromRings(foam)) / regionArea(regionFromRings(stuck));

/** An opening that was cut out of a facet, and what of it is left open. */
export interface Opening {
  /** Of the layer that cuts it. */
  readonly id: string;
  readonly facet: string;
  readonly region: Region;
  readonly openMm2: number;
  /** What nothing is stuck over, on either side. */
  readonly leftMm2: number;
  /** What is stuck over it, that which hides most first, by id. */
  readonly hiddenBy: readonly string[];
}

/** What is left of the openings of a card, in the axes of their pieces. */
export function openingsOf({ pieces, layers }: Pick<Assembly, 'pieces' | 'layers'>): Opening[] {
  return pieces.flatMap((piece) =>
    (piece.openings ?? []).map(({ layer, facet, region }): Opening => {
      const over = layers
        .filter((l) => l.piece === piece.id)
        .map((l) => ({ id: l.id, hidden: intersect(l.region, region) }))
        .filter(({ hidden }) => regionArea(hidden) > HIDDEN_FROM_MM2)
        .sort((a, b) => regionArea(b.hidden) - regionArea(a.hidden));
      const openMm2 = regionArea(region);
      return {
        id: layerId(layer),
        facet,
        region,
        openMm2,
        leftMm2: openMm2 - regionArea(unite(over.flatMap((o) => o.hidden))),
        hiddenBy: over.map((o) => o.id),
      };
    }),
  );
}
