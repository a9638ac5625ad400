/** What a remedy does, for people. */
import type { Remedy } from '../rules';
import type { Design } from './design';
import { settingOf } from './settings';
import { labelOfLever, sayNumber } from './words';
import { formatSaid } from '../units/length';

/** "Depth: 18.0 → 13.8 mm", "Brief, sheet of Smooth card: A4 → A3"; a name before the label is parted by a comma. */
export function remedyWords(design: Design, { mechanism, parameter, value }: Remedy, now: number): string {
  const setting = settingOf(design, mechanism, parameter);
  const named = setting?.choices;
  const say = (v: number): string =>
    named ? (named[v] ?? '') : setting ? formatSaid(v, design.units) : sayNumber(design, mechanism, parameter, v);
  const from = named ? say(now) : say(now).replace(/ (mm|in)$/, '');
  const label = setting?.label ?? labelOfLever(design, mechanism, parameter);
  return `${label.replace(':', ',')}: ${from} → ${say(value)}`;
}
