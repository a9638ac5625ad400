/** Taking hold of a part: the value of its drive that brings the point held nearest to the pointer. */
import type { Way } from '@/workers/protocol';

export type Pixel = readonly [x: number, y: number];

/**
 * Pixels that a value further off by the whole range counts as much as, and by its square less: of two places alike the
 * one near at hand is taken, and a hand is followed without lag.
 */
const RANGE_PX = 240;

/**
 * @param shown where each place of the way is seen, pixels
 * @param last the value it has now; round ways go on past their end
 * @returns the value on the way that is nearest to `at`, between the places too; `last` where there is no way
 */
export function valueNear(
  { values }: Pick<Way, 'values'>,
  shown: readonly Pixel[],
  at: Pixel,
  last: number,
  round: boolean,
): number {
  const range = Math.max(1e-9, Math.abs((values.at(-1) ?? 0) - (values[0] ?? 0)));
  const off = (value: number): number => {
    const way = Math.abs(value - last);
    return ((round ? Math.min(way, range - way) : way) / range) ** 2 * RANGE_PX;
  };
  let best = { value: last, cost: Infinity };
  for (let k = 0; k + 1 < values.length; k++) {
    const t = partNear(shown[k], shown[k + 1], at);
    const value = values[k] + (values[k + 1] - values[k]) * t;
    const [x, y] = [0, 1].map((i) => shown[k][i] + (shown[k + 1][i] - shown[k][i]) * t - at[i]);
    const cost = Math.hypot(x, y) + off(value);
    if (cost < best.cost) best = { value, cost };
  }
  return best.value;
}

/** How far along a stretch the nearest point to `at` lies, 0 to 1. */
function partNear(a: Pixel, b: Pixel, at: Pixel): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = dx * dx + dy * dy;
  if (length === 0) return 0;
  return Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / length));
}
