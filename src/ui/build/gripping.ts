/** Taking hold of a line of the flat view: the number that follows the pointer, and what it lines up with. */
import type { Snap } from '@/core/build/snaps';
import type { Parameter } from '@/core/kinds';
import type { Vec2 } from '@/core/plane/vec2';
import { MM_PER_INCH, type LengthUnit } from '@/core/units/length';

export interface Dragged {
  readonly value: number;
  /** What it lines up with. */
  readonly at: string | null;
}

export interface Dragging {
  /** Value where the drag began. */
  readonly start: number;
  readonly way: Vec2;
  readonly snaps: readonly Snap[];
  /** Nearer than this, in units of the number, it lines up. */
  readonly within: number;
  readonly parameter: Pick<Parameter, 'unit' | 'min' | 'max'>;
  readonly unit: LengthUnit;
}

/** Whole steps that a number rests on: mm and sixteenths of an inch, degrees. */
export const wholeStep = ({ unit }: Pick<Parameter, 'unit'>, units: LengthUnit): number =>
  unit === 'mm' && units === 'in' ? MM_PER_INCH / 16 : 1;

/** The number for a pointer that has moved so far, in the axes of the piece, mm. */
export function dragged([dx, dy]: Vec2, { start, way, snaps, within, parameter, unit }: Dragging): Dragged {
  const raw = start + (dx * way[0] + dy * way[1]) / (way[0] ** 2 + way[1] ** 2);
  const near = snaps.find(({ by }) => Math.abs(start + by - raw) < within);
  if (near) return { value: bounded(start + near.by, parameter), at: near.name };
  const step = wholeStep(parameter, unit);
  const whole = Math.round(raw / step) * step;
  // Between whole marks a tenth of one.
  const value = Math.abs(whole - raw) < within ? whole : Math.round((raw / step) * 10) * (step / 10);
  return { value: bounded(value, parameter), at: null };
}

export const bounded = (value: number, { min = -Infinity, max = Infinity }: Pick<Parameter, 'min' | 'max'>): number =>
  Number(Math.min(max, Math.max(min, value)).toFixed(6));

/** What an arrow key changes a number by: right and up are more, with Shift ten times, with Alt a tenth. */
export function keyStep(
  e: { readonly key: string; readonly shiftKey: boolean; readonly altKey: boolean },
  parameter: Pick<Parameter, 'unit'>,
  unit: LengthUnit,
): number | null {
  const sign =
    e.key === 'ArrowUp' || e.key === 'ArrowRight' ? 1 : e.key === 'ArrowDown' || e.key === 'ArrowLeft' ? -1 : 0;
  return sign === 0 ? null : sign * wholeStep(parameter, unit) * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
}

/** What is typed while something is held: digits, fractions, units. Null for keys that are none of these. */
export function typedOn(text: string, key: string): string | null {
  if (key === 'Backspace') return text.slice(0, -1);
  return key.length === 1 && /[0-9.,/ \-"inm]/.test(key) && text.length < 20 ? text + key : null;
}
