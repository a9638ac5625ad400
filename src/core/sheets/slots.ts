/** What is cut from, as it lies on the shelf: offcuts by their own sizes, then whole sheets; each colour by itself. */
import { stockOf, type Design } from '../document/design';
import { sheetOf } from '../document/post';
import type { Stock } from '../paper/stocks';
import type { Assembly } from '../assembly/assembly';
import { drawPieces, type Drawing } from './drawing';
import { foamDrawings, foamStock } from './foam';

/** A sheet or offcut that pieces can be laid on. Sheets lie with their longer side across. */
export interface Slot {
  /** `STOCK/whole/1` or `STOCK/OFFCUT/1`, with the colour after the stock where it is not the stock's own. */
  readonly id: string;
  readonly stock: Stock;
  readonly colour: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly offcut: boolean;
  readonly price: number | null;
}
/** What is cut from one stock in one colour, each piece once, and on what. */
export interface Batch {
  readonly stock: Stock;
  readonly colour: string;
  readonly drawings: readonly Drawing[];
  readonly offcuts: readonly Slot[];
  /** The n-th whole sheet, from 1. */
  readonly whole: (n: number) => Slot;
  /** How many whole sheets there are. */
  readonly wholes: number;
}

/** One card, put together. */
export interface CardOnSheets {
  readonly design: Design;
  readonly assembly: Assembly;
}

/**
 * Paper first, foam by its thickness after it. Of several cards the first keeps its ids; what the others cut from the
 * same stock, as they describe it, is cut from the same sheets.
 */
export function batchesOf(cards: readonly CardOnSheets[]): Batch[] {
  const groups = new Map<string, { stock: Stock; colour: string; drawings: Drawing[] }>();
  const put = (stock: Stock, card: number, drawing: Drawing): void => {
    const colour = drawing.colour ?? stock.insideColour;
    const key = `${stock.name} ${stock.caliperMm} ${stock.sheet} ${colour}`;
    const group = groups.get(key) ?? { stock: ofCard(card, stock), colour, drawings: [] };
    group.drawings.push(card === 0 ? drawing : { ...drawing, ...nameOfGuest(card, cards[card].design, drawing) });
    groups.set(key, group);
  };
  for (const [card, { design, assembly }] of cards.entries()) {
    for (const d of drawPieces(design, assembly)) put(stockOf(design, d.stock), card, d);
    for (const d of foamDrawings(design, assembly)) put(foamStock(design, d.thickMm), card, d);
  }
  return [...groups.values()].map(({ stock, colour, drawings }) => batchOf(stock, colour, drawings));
}

/** Cards count from 1; the first is the one whose sheets they are. */
const ofCard = (card: number, stock: Stock): Stock =>
  card === 0 ? stock : { ...stock, id: `c${card + 1}.${stock.id}` };
const nameOfGuest = (card: number, { name }: Design, { id, title }: Drawing): Pick<Drawing, 'id' | 'title'> => ({
  id: `c${card + 1}.${id}`,
  title: `${title} (${name})`,
});

function batchOf(stock: Stock, colour: string, drawings: readonly Drawing[]): Batch {
  const own = colour === stock.insideColour;
  const prefix = own ? stock.id : `${stock.id}${colour}`;
  const common = { stock, colour };
  const size = sheetOf(stock);
  const offcuts = (stock.offcuts ?? [])
    .filter((o) => (o.colour ?? stock.insideColour) === colour)
    .flatMap((o) =>
      Array.from({ length: o.count ?? 1 }, (_, k): Slot => {
        const { widthMm, heightMm } = o;
        const id = `${prefix}/${o.id}/${k + 1}`;
        return { ...common, id, name: 'offcut', widthMm, heightMm, offcut: true, price: null };
      }),
    )
    .sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm);
  const whole = (n: number): Slot => ({
    ...common,
    id: `${prefix}/whole/${n}`,
    name: size.name,
    widthMm: size.longMm,
    heightMm: size.shortMm,
    offcut: false,
    price: stock.price ?? null,
  });
  return { ...common, drawings, offcuts, whole, wholes: stock.wholes ?? Infinity };
}
