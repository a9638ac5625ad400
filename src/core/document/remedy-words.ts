/** What a remedy does, for people. */
import type { Remedy } from '../rules';
import type { Design } from './design';
import { settingOf } from './settings';
import { labelOfLever, sayAngle, sayNumber } from './words';
import { formatSaid } from '../units/length';

/** "Depth: 18.0 → 13.8 mm", "Brief, sheet of Smooth card: A4 → A3"; a name before the label is parted by a comma. */
export function remedyWords(design: Design, { mechanism, parameter, value }: Remedy, now: number): string {
  const setting = settingOf(design, mechanism, parameter);
  const named = setting?.choices;
  const say = (v: number): string => {
    if (named) return named[v] ?? '';
    if (!setting) return sayNumber(design, mechanism, parameter, v);
    return setting.unit === 'deg' ? sayAngle(v) : formatSaid(v, design.units);
  };
  const from = named ? say(now) : say(now).replace(/ (mm|in)$/, '');
  const label = setting?.label ?? labelOfLever(design, mechanism, parameter);
  return `${label.replace(':', ',')}: ${from} → ${say(value)}`;
}
