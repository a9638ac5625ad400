/** A line through points. */
import type { Vec2 } from '../plane/vec2';

export interface PlainLine {
  readonly id: string;
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}

export const segmentsOf = ({ points, closed }: Pick<PlainLine, 'points' | 'closed'>): [Vec2, Vec2][] =>
  points.flatMap((p, i): [Vec2, Vec2][] =>
    i + 1 < points.length ? [[p, points[i + 1]]] : closed ? [[p, points[0]]] : [],
  );
