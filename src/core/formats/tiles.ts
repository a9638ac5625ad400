/** A plate larger than its page, cut into tiles that overlap. */
import type { FlatSize } from '../paper/sizes';
import type { Plate } from '../sheets/plate';
import { SIZE_ROUNDING_MM } from '../tolerance';

/** Kept free round what is printed: what most printers cannot reach (common practice, no source). */
export const MARGIN_MM = 10;
/** Below it the check bar and the title, mm. */
export const FOOT_MM = 8;
/** Neighbouring tiles repeat this much, so that they can be laid over each other. */
const OVERLAP_MM = 10;

export interface Tile {
  readonly pageWidthMm: number;
  readonly pageHeightMm: number;
  /** Lower left corner of what it shows, in plate axes. */
  readonly x: number;
  readonly y: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly row: number;
  readonly column: number;
  readonly label: string;
}

/** The page each way round, and the room on it. */
export const pagesOf = ({ longMm, shortMm }: FlatSize): { pw: number; ph: number; roomX: number; roomY: number }[] =>
  (
    [
      [longMm, shortMm],
      [shortMm, longMm],
    ] as const
  ).map(([pw, ph]) => ({ pw, ph, roomX: pw - 2 * MARGIN_MM, roomY: ph - 2 * MARGIN_MM - FOOT_MM }));

/** Tiles of a plate, in rows from the top; the page is turned the way that needs fewer. */
export function tilesOf(plate: Plate, paper: FlatSize): Tile[] {
  const layouts = pagesOf(paper).map((page) => {
    const count = (size: number, room: number): number =>
      size <= room + SIZE_ROUNDING_MM ? 1 : Math.ceil((size - OVERLAP_MM) / (room - OVERLAP_MM));
    return { ...page, nx: count(plate.widthMm, page.roomX), ny: count(plate.heightMm, page.roomY) };
  });
  const { pw, ph, roomX, roomY, nx, ny } = layouts.reduce((a, b) => (b.nx * b.ny < a.nx * a.ny ? b : a));
  const tiles: Tile[] = [];
  for (let row = 0; row < ny; row++) {
    for (let column = 0; column < nx; column++) {
      const x = column * (roomX - OVERLAP_MM);
      const top = plate.heightMm - row * (roomY - OVERLAP_MM);
      const heightMm = Math.min(roomY, top);
      tiles.push({
        pageWidthMm: pw,
        pageHeightMm: ph,
        x,
        y: top - heightMm,
        widthMm: Math.min(roomX, plate.widthMm - x),
        heightMm,
        row: row + 1,
        column: column + 1,
        label: nx * ny === 1 ? '' : `row ${row + 1} of ${ny}, column ${column + 1} of ${nx}`,
      });
    }
  }
  return tiles;
}
