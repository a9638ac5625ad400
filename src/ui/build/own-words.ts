/** Lines of one's own in words: what each is for, and what a spot hangs on. */
import type { OwnLine, OwnRole, Spot } from '@/core/kinds';
import { nameOfPart } from '@/core/document/words';
import type { Design } from '@/core/document/design';

export const OWN_ROLE_WORDS: Readonly<Record<OwnRole, { readonly name: string; readonly says: string }>> = {
  valley: { name: 'valley', says: 'folds toward you' },
  mountain: { name: 'mountain', says: 'folds away from you' },
  cut: { name: 'cut', says: 'cut through' },
  window: { name: 'window', says: 'cut out' },
  open: { name: 'no fold', says: 'the fold that runs there ends' },
  mark: { name: 'mark', says: 'drawn, not cut' },
};

const BOX_WORDS: Readonly<Record<string, string>> = {
  'low low': 'lower left',
  'high low': 'lower right',
  'low high': 'upper left',
  'high high': 'upper right',
  'middle middle': 'middle',
  'low middle': 'left edge',
  'high middle': 'right edge',
  'middle low': 'lower edge',
  'middle high': 'upper edge',
};

/** What a spot is measured from: "end of the gutter", "upper right of the back", "its middle". */
export function spotWords(design: Design, lines: readonly OwnLine[], { of, at }: Spot): string {
  if (of === undefined) return 'its middle';
  const name = lines.some((l) => l.name === of) ? of : `the ${nameOfPart(design, of)}`;
  if (typeof at === 'object') return `${BOX_WORDS[`${at.x} ${at.y}`]} of ${name}`;
  if (typeof at === 'number') return `${Math.round(at * 100)} % along ${name}`;
  return `${at ?? 'start'} of ${name}`;
}
