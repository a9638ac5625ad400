/** Which pieces may lie with their longest crease across the grain of their sheet. */
import type { Design } from './design';

/** A piece that is let turn is laid anew, unless it was locked where it lies. */
export function lyingAcross(design: Design, piece: string, may: boolean): Design {
  const { anyGrain = [], places, ...sheets } = design.sheets;
  const others = anyGrain.filter((id) => id !== piece);
  const now = may ? [...others, piece] : others;
  const kept = may ? places?.filter((p) => p.piece !== piece || p.locked) : places;
  return {
    ...design,
    sheets: { ...sheets, ...(now.length > 0 ? { anyGrain: now } : {}), ...(kept ? { places: kept } : {}) },
  };
}
