/** Which number a hand on the posed card means: that whose corner goes the way the pointer goes. */
import type { PosedGrip } from '@/core/build/posed-grips';
import type { Vec2 } from '@/core/plane/vec2';

/** A number and how far its corner goes on the screen for a unit of it, pixels. */
export interface SeenGrip {
  readonly parameter: string;
  readonly way: Vec2;
}
/** A corner that hardly moves on the screen cannot be led there, pixels a unit. */
const LEAST_PX = 0.15;
/** Of two that go the same way, that which needs less turning wins: its direction counts for this much more. */
const DIRECTION_POWER = 2;

/** @param seen where a place in world axes is seen, pixels */
export function seenGrips(
  corner: readonly [number, number, number],
  grips: readonly PosedGrip[],
  seen: (place: readonly [number, number, number]) => Vec2,
): SeenGrip[] {
  const from = seen(corner);
  return grips.flatMap(({ parameter, way }) => {
    const to = seen([corner[0] + way[0], corner[1] + way[1], corner[2] + way[2]]);
    const px: Vec2 = [to[0] - from[0], to[1] - from[1]];
    return Math.hypot(...px) > LEAST_PX ? [{ parameter, way: px }] : [];
  });
}

/** The number whose way on the screen is nearest to the way of the pointer, forwards or back; null without any. */
export function meant(grips: readonly SeenGrip[], [dx, dy]: Vec2): SeenGrip | null {
  const off = Math.hypot(dx, dy);
  if (off === 0) return null;
  const worth = ({ way }: SeenGrip): number => {
    const long = Math.hypot(...way);
    const along = Math.abs(way[0] * dx + way[1] * dy) / (long * off);
    // Among equals that which moves it most is felt as its own.
    return along ** DIRECTION_POWER * (1 + Math.min(long, 5) / 50);
  };
  return grips.reduce<SeenGrip | null>((best, g) => (best && worth(best) >= worth(g) ? best : g), null);
}
