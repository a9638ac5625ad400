/** Placing of layers by hand: what a drag snaps to, and lining up with gutter, creases, facets and each other. mm. */
import type { Box2 } from '../plane/polygon';
import { sideOf, type Design, type Layer } from '../document/design';
import { ROUNDING_MM } from '../tolerance';

/** A line that a layer may line up with, across (`x`) or along (`y`) the piece. */
export interface Guide {
  readonly axis: 'x' | 'y';
  readonly at: number;
  readonly name: string;
}
export interface Snap {
  readonly dx: number;
  readonly dy: number;
  /** What it snapped to, in words; empty where nothing was near. */
  readonly names: readonly string[];
}

/**
 * A drag's shift, pulled onto the nearest guide of each axis within `withinMm`: a layer's middle or one of its edges.
 */
export function snapShift(box: Box2, dx: number, dy: number, guides: readonly Guide[], withinMm: number): Snap {
  const names: string[] = [];
  const pull = (axis: 'x' | 'y', low: number, high: number, shift: number): number => {
    let best: { by: number; name: string } | null = null;
    for (const [part, word] of [
      [(low + high) / 2, 'middle on'],
      [low, 'edge on'],
      [high, 'edge on'],
    ] as const) {
      for (const g of guides) {
        if (g.axis !== axis) continue;
        const by = g.at - (part + shift);
        // A middle wins over an edge that is as near.
        if (Math.abs(by) <= withinMm && (!best || Math.abs(by) < Math.abs(best.by) - ROUNDING_MM))
          best = { by, name: `${word} ${g.name}` };
      }
    }
    if (best) names.push(best.name);
    return shift + (best?.by ?? 0);
  };
  const x = pull('x', box.min[0], box.max[0], dx);
  const y = pull('y', box.min[1], box.max[1], dy);
  return { dx: x, dy: y, names };
}

/** Layers moved together, by ways in the axes of their piece: on the outside left and right are the other way round. */
export const moveLayers = (design: Design, ids: readonly string[], dx: number, dy: number): Design => ({
  ...design,
  layers: design.layers.map((l) => {
    const across = sideOf(l) === 'outside' ? -dx : dx;
    return ids.includes(l.id) ? { ...l, x: round(l.x + across), y: round(l.y + dy) } : l;
  }),
});
export const setLayer = (design: Design, id: string, change: Partial<Layer>): Design => ({
  ...design,
  layers: design.layers.map((l) => (l.id === id ? { ...l, ...change } : l)),
});
const round = (v: number): number => Math.round(v * 1e4) / 1e4 + 0;
