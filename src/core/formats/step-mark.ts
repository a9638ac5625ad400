/** What is drawn over the picture of a step. */
import type { Vec2 } from '../plane/vec2';

/** Drawn over a picture, mm, y down. */
export interface StepMark {
  /** Outline of where glue goes; or the way of a fold, an arrow at its end. */
  readonly kind: 'glue' | 'fold';
  readonly points: readonly (readonly [number, number])[];
}
/** A head at the end of a line, of a size. */
export function arrowHead(points: StepMark['points'], size: number): Vec2[] {
  const [b, a] = [points[points.length - 1], points[points.length - 2]];
  const mm = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const [ux, uy] = [(b[0] - a[0]) / mm, (b[1] - a[1]) / mm];
  const back: Vec2 = [b[0] - ux * size * 1.6, b[1] - uy * size * 1.6];
  const wing = (side: 1 | -1): Vec2 => [back[0] - uy * size * 0.6 * side, back[1] + ux * size * 0.6 * side];
  return [b, wing(1), wing(-1)];
}
