/** Where a posed card is looked at from, in world axes: x along the gutter, y away from it, z up. */
export type Direction = readonly [number, number, number];

export const VIEWS: readonly (readonly [name: string, from: Direction])[] = [
  ['reader', [0.62, 1.15, 0.95]],
  ['front', [0, 1, 0.18]],
  ['end', [1, 0.02, 0.12]],
  ['above', [0.001, 0.1, 1]],
  ['cover', [-0.3, -1.1, 0.3]],
];

/** The eye keeps this far from straight above and straight below, rad, so that up stays up. */
const MOST_HEIGHT_RAD = Math.PI / 2 - 0.02;

/** The direction turned by a pointer that moved `dx`, `dy` parts of the height of the view. */
export function turnedBy([x, y, z]: Direction, dx: number, dy: number): Direction {
  const round = Math.atan2(y, x) - dx * 2 * Math.PI;
  const wanted = Math.atan2(z, Math.hypot(x, y)) + dy * 2 * Math.PI;
  const height = Math.min(MOST_HEIGHT_RAD, Math.max(-MOST_HEIGHT_RAD, wanted));
  return [Math.cos(height) * Math.cos(round), Math.cos(height) * Math.sin(round), Math.sin(height)];
}

let known: boolean | null = null;
/** Whether this browser can draw with the graphics of the machine. */
export function hasGraphics(): boolean {
  if (known !== null) return known;
  try {
    const context = document.createElement('canvas').getContext('webgl2');
    known = context !== null;
    context?.getExtension('WEBGL_lose_context')?.loseContext();
  } catch {
    known = false;
  }
  return known;
}
