/** Turned in the plane: quarter turns exactly. */
import { mapRegion, type Region } from './polygon';
import type { Vec2 } from './vec2';

const QUARTERS: Readonly<Record<number, Vec2>> = { 0: [1, 0], 90: [0, 1], 180: [-1, 0], 270: [0, -1] };

/** Cosine and sine. */
export function cosSin(turnDeg: number): Vec2 {
  const turn = ((turnDeg % 360) + 360) % 360;
  return QUARTERS[turn] ?? [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
}

/** About the origin, to the left. */
export function turnPoint([x, y]: Vec2, turnDeg: number): Vec2 {
  const [c, s] = cosSin(turnDeg);
  return [c * x - s * y, s * x + c * y];
}

export const rotated = (region: Region, turnDeg: number): Region => mapRegion(region, (p) => turnPoint(p, turnDeg));
