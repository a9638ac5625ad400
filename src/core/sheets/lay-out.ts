/** A design's pieces laid on its sheets: what was put somewhere stays there, the rest is nested round it. */
import type { Assembly } from '../assembly/assembly';
import { marginOf, type Design, type Place } from '../document/design';
import { grownAround, intersect, rectangle, regionBox, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { pieceSize } from '../rules';
import { NEST_TOUCH_MM, SIZE_ROUNDING_MM } from '../tolerance';
import type { Drawing } from './drawing';
import { sheetUse, type Layout, type PlacedPiece, type RefusedForGrain, type SheetLayout } from './layout';
import { nesting, type Nested, type NestItem, type NestSheet } from './nest/nest';
import { thinOutward } from './nest/thin-outward';
import { rotated } from '../plane/turning';
import { repeated } from './repeated';
import { batchesOf, type Batch, type CardOnSheets, type Slot } from './slots';
import { troubleOfPiece } from './trouble';

/** Curves are laid out by fewer corners, this much further out at most, mm. */
const OUTLINE_ROOM_MM = 0.25;
/** More pieces than this on one stock are laid as sheets that repeat. */
const MOST_NESTED = 120;

/** What is laid: its drawing, which copy, and of which card where several share the sheets. */
interface Copy {
  readonly drawing: Drawing;
  readonly copy: number;
}

/** The layout at once: the first of the search. */
export const layOut = (design: Design, assembly: Assembly): Layout => layOutCards([{ design, assembly }]);
export const layOutCards = (cards: readonly CardOnSheets[]): Layout => layingOut(cards).next().value as Layout;

/** The best layout known after each round of the search, the first at once; every stock gets a round in turn. */
export function* layingOut(cards: readonly CardOnSheets[], anew = false): Generator<Layout, undefined> {
  const works = batchesOf(cards).map((batch) => new BatchWork(cards, batch, anew));
  for (let rounds = 0; ; rounds++) {
    const live = works.map((w) => w.step());
    yield together(works, rounds);
    if (live.every((more) => !more)) return undefined;
  }
}

function together(works: readonly BatchWork[], rounds: number): Layout {
  const sheets = works.flatMap((w) => w.sheets());
  const prices = sheets.flatMap(({ price }) => (price === null ? [] : [price]));
  return {
    sheets,
    unplaced: works.flatMap((w) => w.unplaced()),
    refused: works.flatMap((w) => w.refused()),
    rounds,
    price: prices.length > 0 ? prices.reduce((a, b) => a + b, 0) : null,
  };
}

/** The search over one stock in one colour. */
class BatchWork {
  private readonly copies: readonly Copy[];
  private readonly items: readonly NestItem[];
  private readonly slots: readonly Slot[];
  private readonly search: Iterator<{ readonly placed: readonly Nested[]; readonly unplaced: readonly number[] }>;
  private found: { readonly placed: readonly Nested[]; readonly unplaced: readonly number[] } | null = null;
  private readonly locked = new Set<number>();
  /** Drawings that lie turned by a quarter for the grain. */
  private readonly across: ReadonlySet<Drawing>;
  /** The card whose sheets they are: its margins, its places. */
  private readonly design: Design;

  constructor(
    private readonly cards: readonly CardOnSheets[],
    private readonly batch: Batch,
    anew: boolean,
  ) {
    [{ design: this.design }] = cards;
    const { spacingMm } = this.design.sheets;
    this.copies = batch.drawings.flatMap((drawing) =>
      Array.from({ length: drawing.count }, (_, k): Copy => ({ drawing, copy: k + 1 })),
    );
    const { offcuts, whole, wholes } = batch;
    const most = Math.min(wholes, this.copies.length + this.highestKept());
    this.slots = [...offcuts, ...Array.from({ length: most }, (_, k) => whole(k + 1))];
    this.across = new Set(batch.drawings.filter((d) => this.wantsTurn(d)));
    const shapeOf = new Map(
      batch.drawings.map((d): [Drawing, NestItem] => {
        const region = roomOf(d.region, spacingMm);
        return [d, { key: d.id, region, turns: this.turnsOf(d, region) }];
      }),
    );
    const shapes = this.copies.map(({ drawing }) => shapeOf.get(drawing)!);
    const kept = this.keptPlaces(anew);
    this.items = shapes.map((item, i) => {
      const place = kept.get(i);
      return place ? { ...item, fixed: place } : item;
    });
    const sheets = this.slots.map((slot) => this.roomOn(slot));
    const many = this.items.filter((i) => !i.fixed).length > MOST_NESTED;
    const seed = this.design.sheets.seed ?? 1;
    this.search = many ? repeated(this.items, sheets, seed) : nesting(this.items, sheets, seed);
  }

  /** One round more; false when the search has ended. */
  step(): boolean {
    const { value, done } = this.search.next();
    if (!done) this.found = value;
    return !done;
  }

  private get marginMm(): number {
    return marginOf(this.design, this.batch.stock);
  }

  /** The room inside the margins, half a spacing wider each way: pieces carry theirs with them. */
  private roomOn({ widthMm, heightMm, offcut }: Slot): NestSheet {
    const { spacingMm } = this.design.sheets;
    const [w, h] = [widthMm, heightMm].map((mm) => mm - 2 * this.marginMm + spacingMm + 4 * NEST_TOUCH_MM);
    return { widthMm: w, heightMm: h, cost: (offcut ? OFFCUT_COST : 1) * widthMm * heightMm };
  }

  /** What there is to lay on, each size once. */
  private sizes(): readonly Slot[] {
    const { offcuts, whole, wholes } = this.batch;
    return wholes > 0 ? [...offcuts, whole(1)] : offcuts;
  }

  /** As the grain and the pattern of the stock allow, and as the sheet has room. */
  private turnsOf(drawing: Drawing, region: Region): readonly number[] {
    const { stock } = this.batch;
    const up = stock.oneWay ? [0] : [0, 180];
    const across = stock.oneWay ? [90] : [90, 270];
    if (stock.grain === 'none') return stock.oneWay ? up : [...up, ...across];
    const wanted = this.across.has(drawing) ? across : up;
    if (this.mayLieAcross(drawing)) return [...wanted, ...(wanted === up ? across : up)];
    const fits = this.sizes().some((slot) => this.fitsOn(slot, region, wanted[0]));
    return fits ? wanted : wanted === up ? across : up;
  }

  private mayLieAcross({ id }: Drawing): boolean {
    return this.design.sheets.anyGrain?.includes(id) ?? false;
  }

  /** Whether the box of what a piece takes lies on a sheet that is empty. */
  private fitsOn(slot: Slot, region: Region, turnDeg: number): boolean {
    const { min, max } = regionBox(rotated(region, turnDeg));
    const room = this.roomOn(slot);
    return max[0] - min[0] <= room.widthMm + SIZE_ROUNDING_MM && max[1] - min[1] <= room.heightMm + SIZE_ROUNDING_MM;
  }

  /** Pieces that lie on a whole sheet, or nowhere, while an offcut that nothing lies on would take them turned. */
  refused(): RefusedForGrain[] {
    if (this.batch.stock.grain === 'none') return [];
    const used = new Set((this.found?.placed ?? []).map((n) => n.sheet));
    const free = this.slots.filter((slot, k) => slot.offcut && !used.has(k));
    const onOffcut = new Set(
      (this.found?.placed ?? []).filter((n) => this.slots[n.sheet].offcut).map((n) => this.copies[n.item].drawing),
    );
    return this.batch.drawings.flatMap((drawing): RefusedForGrain[] => {
      if (onOffcut.has(drawing) || this.mayLieAcross(drawing)) return [];
      const region = roomOf(drawing.region, this.design.sheets.spacingMm);
      const [wanted, turned] = this.across.has(drawing) ? [90, 0] : [0, 90];
      const offcut = free.find((s) => !this.fitsOn(s, region, wanted) && this.fitsOn(s, region, turned));
      return offcut
        ? [{ drawing, offcut: { slot: offcut.id, widthMm: offcut.widthMm, heightMm: offcut.heightMm } }]
        : [];
    });
  }

  /** Sheets lie with the longer side across, so that long grain runs along x; creases run along the grain. */
  private wantsTurn(drawing: Drawing): boolean {
    const { grain } = this.batch.stock;
    const piece = this.cards
      .flatMap(({ assembly }, k) => assembly.pieces.map((p) => ({ ...p, id: k === 0 ? p.id : `c${k + 1}.${p.id}` })))
      .find((p) => p.id === drawing.id);
    const alongX = piece ? pieceSize(piece).creaseAlongX : true;
    return grain !== 'none' && (grain === 'long') !== alongX;
  }

  /** Where the room begins, which pieces carry half a spacing into, mm from the edge of the sheet. */
  private get edge(): number {
    const { spacingMm } = this.design.sheets;
    return this.marginMm - spacingMm / 2 - NEST_TOUCH_MM;
  }

  /** Whole sheets that something was put on by hand. */
  private highestKept(): number {
    return Math.max(0, ...(this.design.sheets.places ?? []).map((p) => Number(p.sheet.split('/').at(-1))));
  }

  /** Places that are kept, by item: what is locked always, the rest where it still lies free. */
  private keptPlaces(anew: boolean): Map<number, { sheet: number; at: Vec2; turnDeg: number }> {
    const out = new Map<number, { sheet: number; at: Vec2; turnDeg: number }>();
    const { spacingMm, places = [] } = this.design.sheets;
    const { marginMm } = this;
    const lying = new Map<number, PlacedPiece[]>();
    const index = new Map(this.copies.map((c, i) => [`${c.drawing.id} ${c.copy}`, i]));
    const wanted = [...places].sort((a, b) => Number(b.locked ?? false) - Number(a.locked ?? false));
    for (const place of wanted) {
      const i = index.get(`${place.piece} ${place.copy}`);
      const sheet = this.slots.findIndex((s) => s.id === place.sheet);
      if (i === undefined || sheet < 0 || out.has(i)) continue;
      const { drawing, copy } = this.copies[i];
      const piece = placedPiece(drawing, copy, place, this.isAcross(drawing, place.turnDeg));
      const others = lying.get(sheet) ?? [];
      const { widthMm, heightMm } = this.slots[sheet];
      if (!place.locked) {
        if (anew || troubleOfPiece(piece, others, { widthMm, heightMm, marginMm, spacingMm })) continue;
      } else this.locked.add(i);
      lying.set(sheet, [...others, piece]);
      const at: Vec2 = [place.x - this.edge, place.y - this.edge];
      out.set(i, { sheet, at, turnDeg: place.turnDeg });
    }
    return out;
  }

  private isAcross(drawing: Drawing, turnDeg: number): boolean {
    return this.batch.stock.grain !== 'none' && this.across.has(drawing) !== (turnDeg % 180 === 90);
  }

  /** Made anew only when the search has found something else. */
  sheets(): readonly SheetLayout[] {
    const placed = this.found?.placed ?? [];
    if (this.made?.of !== placed) this.made = { of: placed, sheets: this.laid(placed) };
    return this.made.sheets;
  }
  private made: { readonly of: readonly Nested[]; readonly sheets: readonly SheetLayout[] } | null = null;

  private laid(nested: readonly Nested[]): SheetLayout[] {
    const onSlot = new Map<number, Nested[]>();
    for (const n of nested) onSlot.set(n.sheet, [...(onSlot.get(n.sheet) ?? []), n]);
    return this.slots.flatMap((slot, k): SheetLayout[] => {
      const placed = (onSlot.get(k) ?? []).map(({ item, at, turnDeg }) => {
        const { drawing, copy } = this.copies[item];
        const place = { x: at[0] + this.edge, y: at[1] + this.edge, turnDeg, locked: this.locked.has(item) };
        return placedPiece(drawing, copy, place, this.isAcross(drawing, turnDeg));
      });
      if (placed.length === 0) return [];
      const { id, stock, colour, name, widthMm, heightMm, offcut, price } = slot;
      const use = sheetUse(widthMm, heightMm, placed);
      return [{ slot: id, stock, colour, name, widthMm, heightMm, offcut, price, placed, ...use }];
    });
  }

  unplaced(): Layout['unplaced'] {
    return (this.found?.unplaced ?? []).map((i) => ({ ...this.copies[i], why: this.whyNot(i) }));
  }

  private whyNot(item: number): string {
    const { region, turns } = this.items[item];
    const fits = this.sizes().some((slot) => turns.some((t) => this.fitsOn(slot, region, t)));
    return fits ? 'the sheets at hand are full' : 'larger than its sheet less the margins';
  }
}

/** A square millimetre of an offcut costs so much of one of a whole sheet: what is left over is used up first. */
const OFFCUT_COST = 0.25;

const placedPiece = (
  drawing: Drawing,
  copy: number,
  { x, y, turnDeg, locked = false }: Pick<Place, 'x' | 'y' | 'turnDeg' | 'locked'>,
  acrossGrain: boolean,
): PlacedPiece => ({ drawing, copy, x, y, turnDeg, locked, acrossGrain });

/** What a piece takes: half the spacing round it, corners sharp, curves by few corners that hold all of it. */
export function roomOf(region: Region, spacingMm: number): Region {
  // A hair more, so that rounding never makes them overlap.
  const half = spacingMm / 2 + NEST_TOUCH_MM;
  const grown = grownAround(region, half);
  const { min, max } = regionBox(region);
  const box = [{ outer: rectangle(min[0] - half, min[1] - half, max[0] + half, max[1] + half), holes: [] }];
  // Corners that run on past the box are not needed, so that what just fits its sheet still does.
  return grown.flatMap((p) => intersect([thinOutward(p, OUTLINE_ROOM_MM)], box));
}
