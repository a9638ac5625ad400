/** How much of the plane a drawing of lines takes, as an SVG shows it: y down, a margin all round. */
import type { Vec2 } from '@/core/plane/vec2';

const MARGIN = 0.03;
export interface DrawingView {
  readonly min: Vec2;
  readonly max: Vec2;
  /** The larger of width and height, and the margin, mm. */
  readonly size: number;
  readonly pad: number;
  readonly box: string;
}
export function viewOf(lines: readonly { readonly points: readonly Vec2[] }[]): DrawingView {
  const [x0, y0, x1, y1] = lines
    .flatMap((l) => l.points)
    .reduce(
      ([a, b, c, d], [x, y]) => [Math.min(a, x), Math.min(b, y), Math.max(c, x), Math.max(d, y)],
      [Infinity, Infinity, -Infinity, -Infinity],
    );
  const size = Math.max(x1 - x0, y1 - y0);
  const pad = size * MARGIN;
  const box = [x0 - pad, -y1 - pad, x1 - x0 + 2 * pad, y1 - y0 + 2 * pad].join(' ');
  return { min: [x0, y0], max: [x1, y1], size, pad, box };
}
