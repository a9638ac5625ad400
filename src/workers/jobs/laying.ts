/** Pieces on their sheets, with other cards beside them. */
import type { Design } from '@/core/document/design';
import { ringsOf } from '@/core/plane/polygon';
import { layOnBeds } from '@/core/sheets/beds';
import { cutList } from '@/core/sheets/cutlist';
import type { Layout } from '@/core/sheets/layout';
import { batchesOf, type CardOnSheets } from '@/core/sheets/slots';
import type { Engine, Laid } from '../protocol';
import { inHand, layoutNow, search, together, troublesOf } from '../sheet-jobs';
import { answer, assemblyOf, breathe, fontsFor } from './at-hand';

let latest = 0;

/** The card, put together, and those that share its sheets. */
async function onSheets(design: Design, guests: readonly Design[]): Promise<readonly CardOnSheets[]> {
  await fontsFor(guests);
  const key = keyOf(design, guests);
  if (shared?.key !== key) shared = { key, cards: together(design, await assemblyOf(design), guests) };
  return shared.cards;
}
let shared: { readonly key: string; readonly cards: readonly CardOnSheets[] } | null = null;
/** Designs stay the same objects while they are not changed; guests are told apart by what they are. */
const keyOf = (design: Design, guests: readonly Design[]): string => {
  if (!numbers.has(design)) numbers.set(design, ++counted);
  return `${numbers.get(design)} ${guests.map((g) => JSON.stringify(g)).join()}`;
};
const numbers = new WeakMap<Design, number>();
let counted = 0;

function laid(design: Design, layout: Layout): Laid {
  const { bed } = design.sheets;
  return { layout, beds: bed ? layOnBeds(layout, bed) : null, troubles: troublesOf(design, layout) };
}

export const laying: Pick<Engine, 'layout' | 'cutList' | 'nest' | 'stopNest' | 'held'> = {
  layout: (design, guests) =>
    answer(async () => laid(design, layoutNow(keyOf(design, guests), await onSheets(design, guests)))),
  cutList: (design) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const drawings = batchesOf([{ design, assembly }]).flatMap((b) => b.drawings);
      const outlines = Object.fromEntries(drawings.map((d) => [d.id, d.region.flatMap(ringsOf)]));
      return { rows: cutList(design, assembly), outlines };
    }),
  async nest(design, guests, seconds, onRound) {
    const mine = ++latest;
    return answer(async () => {
      const cards = await onSheets(design, guests);
      const tell = (layout: Layout, part: number): void => {
        if (mine === latest) onRound(laid(design, layout), part);
      };
      return laid(design, await search(cards, seconds, () => mine === latest, breathe, tell));
    });
  },
  stopNest: () => {
    latest++;
    return answer(() => null);
  },
  held: (design, guests, piece) =>
    answer(async () => inHand(keyOf(design, guests), await onSheets(design, guests), piece)),
};
