/** The lines of a template as its file has them, before they are sorted. mm, y up. */
import type { Vec2 } from '../plane/vec2';

export interface RawLine {
  readonly id: string;
  readonly layer: string;
  readonly colour: string;
  readonly dashed: boolean;
  readonly dashDot: boolean;
  readonly said: string;
  readonly points: readonly Vec2[];
  readonly closed: boolean;
}
export interface Raw {
  readonly lines: readonly RawLine[];
  readonly leftOut: readonly string[];
}
