/** Where a straight line runs inside a polygon. Lengths in mm. */
import { ringsOf, type Polygon } from './polygon';
import type { Vec2 } from './vec2';

export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/**
 * Stretches of the line `origin + t * along` that run inside a polygon, in order, as values of t (mm where `along` is a
 * unit vector). Where the line runs along an edge either side may be told: callers ask how far the paper reaches
 * beside.
 */
export function stretchesInside(polygon: Polygon, origin: Vec2, along: Vec2): Stretch[] {
  const at: number[] = [];
  for (const ring of ringsOf(polygon)) {
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [px, py] = [ring[j][0] - origin[0], ring[j][1] - origin[1]];
      const [qx, qy] = [ring[i][0] - origin[0], ring[i][1] - origin[1]];
      const p = along[0] * py - along[1] * px;
      const q = along[0] * qy - along[1] * qx;
      if (p > 0 === q > 0) continue;
      const [tp, tq] = [along[0] * px + along[1] * py, along[0] * qx + along[1] * qy];
      at.push(tp + ((tq - tp) * p) / (p - q));
    }
  }
  at.sort((a, b) => a - b);
  const out: Stretch[] = [];
  for (let k = 0; k + 1 < at.length; k += 2) if (at[k + 1] > at[k]) out.push({ from: at[k], to: at[k + 1] });
  return out;
}

/** Where two lists of stretches overlap. */
export function commonStretches(a: readonly Stretch[], b: readonly Stretch[]): Stretch[] {
  return a.flatMap((s) =>
    b.flatMap((t): Stretch[] => {
      const [from, to] = [Math.max(s.from, t.from), Math.min(s.to, t.to)];
      return to > from ? [{ from, to }] : [];
    }),
  );
}

/** How far the paper reaches on both sides of a point of it, along a direction: the shorter of the two, mm. */
export function reachBeside(polygon: Polygon, at: Vec2, across: Vec2): number {
  const around = stretchesInside(polygon, at, across).find((s) => s.from <= 0 && s.to >= 0);
  return around ? Math.min(-around.from, around.to) : 0;
}
