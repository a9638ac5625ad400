/** Where the room of a number ends, on the drawing: the lines that a hand leads, as they would lie there. */
import { gripAt, type Grip } from '../build/grips';
import type { Design } from '../document/design';
import type { Vec2 } from '../plane/vec2';
import { roomOf } from './room';

export interface GripLimit {
  readonly value: number;
  /** What begins there: "fore edge", "narrow", "beside Dome". */
  readonly by: string;
  /** From and to, in the axes of the piece of the grip, mm. */
  readonly lines: readonly (readonly [Vec2, Vec2])[];
}

/** The ends of the room of its number that something sets; none where the number has no room. */
export function gripLimits(design: Design, grip: Grip): GripLimit[] {
  const clear = roomOf(design, grip.mechanism, grip.parameter)?.clear;
  if (!clear) return [];
  return [clear.low, clear.high].flatMap(({ value, by }) => {
    const lines = by === '' ? [] : gripAt(design, grip, value);
    return lines.length === 0 ? [] : [{ value, by, lines }];
  });
}
