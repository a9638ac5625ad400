/** Laying out behind a worker: the search round by round, and a piece in a hand. */
import { buildAssembly } from '@/core/build/build';
import type { Assembly } from '@/core/assembly/assembly';
import { marginOf, type Design } from '@/core/document/design';
import { letGo, type InHand } from '@/core/sheets/hand';
import { layingOut, layOutCards } from '@/core/sheets/lay-out';
import type { Layout, PlacedPiece, SheetLayout } from '@/core/sheets/layout';
import { batchesOf, type CardOnSheets } from '@/core/sheets/slots';
import { troubleOfPiece, type SheetRoom } from '@/core/sheets/trouble';
import type { HeldPiece, SheetTrouble } from './protocol';

export const together = (design: Design, assembly: Assembly, guests: readonly Design[]): CardOnSheets[] => [
  { design, assembly },
  ...guests.map((guest) => ({ design: guest, assembly: buildAssembly(guest) })),
];

const roomOnSheet = (
  { sheets }: Design,
  { widthMm, heightMm, stock }: Pick<SheetLayout, 'widthMm' | 'heightMm' | 'stock'>,
): SheetRoom => ({
  widthMm,
  heightMm,
  marginMm: marginOf({ sheets }, stock),
  spacingMm: sheets.spacingMm,
});

/** What lies where it should not: that can only be what is locked. */
export function troublesOf(design: Design, layout: Layout): SheetTrouble[] {
  return layout.sheets.flatMap((s) =>
    s.placed.flatMap((p, k) => {
      if (!p.locked) return [];
      const others = s.placed.filter((_, i) => i !== k);
      const trouble = troubleOfPiece(p, others, roomOnSheet(design, s));
      return trouble ? [{ slot: s.slot, piece: p.drawing.id, copy: p.copy, trouble }] : [];
    }),
  );
}

/** Rounds until it is told to stop, the time is over, or nothing is left to search. */
export async function search(
  cards: readonly CardOnSheets[],
  seconds: number,
  wanted: () => boolean,
  breathe: () => Promise<void>,
  onRound: (layout: Layout, part: number) => void,
): Promise<Layout> {
  const rounds = layingOut(cards, true);
  const began = performance.now();
  let [last, said] = [rounds.next().value as Layout, 0];
  onRound(last, 0);
  while (wanted()) {
    const gone = (performance.now() - began) / 1000;
    const { value, done } = rounds.next();
    if (done || gone > seconds) break;
    last = value;
    if (performance.now() - said > TELL_EVERY_MS) {
      onRound(last, gone / seconds);
      said = performance.now();
      await breathe();
    }
  }
  return last;
}
const TELL_EVERY_MS = 120;

let kept: { key: string; cards: readonly CardOnSheets[]; layout: Layout } | null = null;

/** The layout as it stands, kept while a piece is in the hand. */
export function layoutNow(key: string, cards: readonly CardOnSheets[]): Layout {
  if (kept?.key !== key) kept = { key, cards, layout: layOutCards(cards) };
  return kept.layout;
}

/** Where a piece comes to lie when it is let go over a sheet. */
export function inHand(key: string, cards: readonly CardOnSheets[], held: HeldPiece): InHand | null {
  const layout = layoutNow(key, cards);
  const from = layout.sheets.find((s) => s.placed.some((p) => isHeld(p, held)));
  const piece = from?.placed.find((p) => isHeld(p, held));
  const onto = layout.sheets.find((s) => s.slot === held.slot) ?? emptySheet(cards, held.slot);
  if (!piece || !onto) return null;
  const others = onto.placed.filter((p) => !isHeld(p, held));
  return letGo({ ...piece, x: held.x, y: held.y, turnDeg: held.turnDeg }, others, roomOnSheet(cards[0].design, onto));
}
const isHeld = (p: PlacedPiece, held: HeldPiece): boolean => p.drawing.id === held.piece && p.copy === held.copy;

/** A sheet of the shelf that nothing lies on yet. */
function emptySheet(
  cards: readonly CardOnSheets[],
  slot: string,
): Pick<SheetLayout, 'widthMm' | 'heightMm' | 'placed' | 'stock'> | null {
  for (const { offcuts, whole, stock } of batchesOf(cards)) {
    const n = Number(slot.split('/').at(-1));
    const found = [...offcuts, whole(n)].find((s) => s.id === slot);
    if (found) return { widthMm: found.widthMm, heightMm: found.heightMm, placed: [], stock };
  }
  return null;
}
