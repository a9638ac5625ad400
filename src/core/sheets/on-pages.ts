/** Every piece on pages of a printer, laid out anew: whole where it fits a page at any turn, the rest by itself. */
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import type { FlatSize } from '../paper/sizes';
import { regionBox } from '../plane/polygon';
import { roomOf } from './lay-out';
import { onSheet } from './layout';
import { nesting, type Nesting } from './nest/nest';
import { rotated } from '../plane/turning';
import { plateOfPieces, type Plate } from './plate';
import { batchesOf } from './slots';

/** Turns a piece is tried at on a page: quarters first, then as it may just fit slantwise. */
const QUARTERS = [0, 90, 180, 270];
const SLANTS = Array.from({ length: 179 }, (_, k) => k + 1);

export interface Margins {
  readonly sideMm: number;
  readonly footMm: number;
}

/** Pages as plates of their own size, then what is larger than a page. */
export function pagesOfPieces(design: Design, assembly: Assembly, page: FlatSize, margins: Margins): Plate[] {
  const room = {
    widthMm: page.longMm - 2 * margins.sideMm,
    heightMm: page.shortMm - 2 * margins.sideMm - margins.footMm,
    cost: 1,
  };
  return batchesOf([{ design, assembly }]).flatMap(({ stock, drawings }) => {
    const copies = drawings.flatMap((d) => Array.from({ length: d.count }, () => d));
    const rooms = new Map(drawings.map((d) => [d, roomOf(d.region, 0)]));
    const turns = new Map(drawings.map((d) => [d, QUARTERS.filter((t) => fits(rooms.get(d)!, t, room))]));
    for (const [d, own] of turns)
      if (own.length === 0) turns.set(d, SLANTS.filter((t) => fits(rooms.get(d)!, t, room)).slice(0, 1));
    const laid = copies.filter((d) => turns.get(d)!.length > 0);
    const large = drawings.filter((d) => turns.get(d)!.length === 0);
    const items = laid.map((d) => ({ key: d.id, region: roomOf(d.region, 2), turns: turns.get(d)! }));
    const grown = { ...room, widthMm: room.widthMm + 2, heightMm: room.heightMm + 2 };
    const { placed } = nesting(
      items,
      laid.map(() => grown),
      1,
    ).next().value as Nesting;
    const [dx, dy] = [margins.sideMm - 1, margins.sideMm + margins.footMm - 1];
    const count = Math.max(0, ...placed.map((p) => p.sheet + 1));
    const pages = Array.from({ length: count }, (_, k): Plate => {
      const on = placed.filter((p) => p.sheet === k);
      return {
        title: `${design.name}, ${stock.name}, page ${k + 1} of ${count}`,
        widthMm: page.longMm,
        heightMm: page.shortMm,
        page: true,
        items: on.map(({ item, at, turnDeg }) => ({
          drawing: laid[item],
          place: (p) => onSheet({ x: at[0] + dx, y: at[1] + dy, turnDeg }, p),
        })),
      };
    });
    return [...pages, ...large.map((d) => plateOfPieces(`${design.name}, ${d.title}`, [d]))];
  });
}

function fits(
  region: ReturnType<typeof roomOf>,
  turnDeg: number,
  room: { widthMm: number; heightMm: number },
): boolean {
  const { min, max } = regionBox(rotated(region, turnDeg));
  return max[0] - min[0] <= room.widthMm && max[1] - min[1] <= room.heightMm;
}
