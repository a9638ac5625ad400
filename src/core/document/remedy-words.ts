/** What a remedy does, for people. */
import type { Remedy } from '../rules';
import type { Design } from './design';
import { settingOf } from './settings';
import { isAngle, labelOfLever, sayAngle } from './words';
import { formatSaid, numberSaid } from '../units/length';

/** "Depth: 18.0 → 13.8 mm", "Brief, sheet of Smooth card: A4 → A3": the unit stands once, behind what it becomes. */
export function remedyWords(design: Design, { mechanism, parameter, value }: Remedy, now: number): string {
  const setting = settingOf(design, mechanism, parameter);
  const label = setting?.label ?? labelOfLever(design, mechanism, parameter);
  const { choices } = setting ?? {};
  if (choices) return `${label}: ${choices[now] ?? ''} → ${choices[value] ?? ''}`;
  const turns = setting ? setting.unit === 'deg' : isAngle(design, mechanism, parameter);
  const [from, to] = turns
    ? [sayAngle(now), sayAngle(value)]
    : [numberSaid(now, design.units), formatSaid(value, design.units)];
  return `${label}: ${from} → ${to}`;
}
