/** Pieces on stock sheets, by their bounding boxes; rotation as the grain allows. */
import { MaxRectsPacker } from 'maxrects-packer';
import type { Assembly } from '../assembly/assembly';
import { sheetById, type FlatSize } from '../paper/sizes';
import type { Stock } from '../paper/stocks';
import { stockOf, type Design } from '../document/design';
import { pieceSize } from '../rules';
import { ringArea } from '../plane/polygon';
import { drawPieces, type Drawing } from './drawing';
import { foamDrawings, foamStock } from './foam';
import { SIZE_ROUNDING_MM } from '../tolerance';

export interface PlacedPiece {
  readonly drawing: Drawing;
  /** Lower left corner of its box on the sheet, mm. */
  readonly x: number;
  readonly y: number;
  /** Turned a quarter to the left. */
  readonly turned: boolean;
}
export interface SheetLayout {
  readonly stock: Stock;
  readonly size: FlatSize;
  /** Sheets lie with their longer side across. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly placed: readonly PlacedPiece[];
  /** Part of the sheet's area that becomes pieces, percent. */
  readonly usePercent: number;
}
export interface Layout {
  readonly sheets: readonly SheetLayout[];
  /** Pieces larger than their sheet. */
  readonly unplaced: readonly Drawing[];
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
  rot: boolean;
  drawing: Drawing;
  preturned: boolean;
}

export function layOut(design: Design, assembly: Assembly): Layout {
  const sheets: SheetLayout[] = [];
  const unplaced: Drawing[] = [];
  for (const { stock, drawings } of byStock(design, assembly)) {
    const size = sheetById(stock.sheet)!;
    const { marginMm, spacingMm } = design.sheets;
    const [width, height] = [size.longMm - 2 * marginMm, size.shortMm - 2 * marginMm];
    // One spacing more than the room: the last piece in a row needs none beside it.
    const packer = new MaxRectsPacker<Box>(width + spacingMm, height + spacingMm, 0, {
      smart: false,
      pot: false,
      square: false,
      allowRotation: stock.grain === 'none',
      border: 0,
    });
    const boxes = drawings.flatMap((drawing) => {
      const box = boxFor(drawing, assembly, stock, width, height, spacingMm);
      if (!box) unplaced.push(drawing);
      return box ? [box] : [];
    });
    packer.addArray(boxes.sort((a, b) => b.width * b.height - a.width * a.height));
    for (const bin of packer.bins) {
      const placed = bin.rects.map((r): PlacedPiece => ({
        drawing: r.drawing,
        x: marginMm + r.x,
        y: marginMm + r.y,
        turned: r.preturned !== r.rot,
      }));
      const used = placed.reduce((sum, p) => sum + paperArea(p.drawing), 0);
      sheets.push({
        stock,
        size,
        widthMm: size.longMm,
        heightMm: size.shortMm,
        placed,
        usePercent: (100 * used) / (size.longMm * size.shortMm),
      });
    }
  }
  return { sheets, unplaced };
}

/** What is cut from each stock, as often as it is cut; paper first, foam by its thickness after it. */
function byStock(design: Design, assembly: Assembly): { readonly stock: Stock; readonly drawings: Drawing[] }[] {
  const groups = new Map<string, { readonly stock: Stock; readonly drawings: Drawing[] }>();
  const put = (stock: Stock, drawing: Drawing): void => {
    const group = groups.get(stock.id) ?? { stock, drawings: [] };
    group.drawings.push(...Array.from({ length: drawing.count }, () => drawing));
    groups.set(stock.id, group);
  };
  for (const d of drawPieces(design, assembly)) put(stockOf(design, d.stock), d);
  for (const d of foamDrawings(design, assembly)) put(foamStock(design, d.thickMm), d);
  return [...groups.values()];
}

/** With the grain if it fits so, across it if only that fits. */
function boxFor(
  drawing: Drawing,
  assembly: Assembly,
  stock: Stock,
  width: number,
  height: number,
  spacing: number,
): Box | null {
  const w = drawing.box.max[0] - drawing.box.min[0];
  const h = drawing.box.max[1] - drawing.box.min[1];
  const piece = assembly.pieces.find((p) => p.id === drawing.id);
  const alongX = piece ? pieceSize(piece).creaseAlongX : true;
  // Sheets lie with the longer side across: long grain runs along x.
  const wantTurn = stock.grain === 'none' ? false : stock.grain === 'long' ? !alongX : alongX;
  for (const turned of [wantTurn, !wantTurn]) {
    const [a, b] = turned ? [h, w] : [w, h];
    if (a <= width + SIZE_ROUNDING_MM && b <= height + SIZE_ROUNDING_MM)
      return {
        x: 0,
        y: 0,
        width: Math.min(a, width) + spacing,
        height: Math.min(b, height) + spacing,
        rot: false,
        drawing,
        preturned: turned,
      };
  }
  return null;
}

export const paperArea = (d: Drawing): number =>
  Math.abs(
    d.lines
      .filter((l) => l.closed && (l.role === 'cut' || l.role === 'window'))
      .reduce((sum, l) => sum + (l.role === 'cut' ? 1 : -1) * Math.abs(ringArea(l.points)), 0),
  );

/** Where a point of a piece lies on its sheet. */
export function onSheet(
  { drawing, x, y, turned }: PlacedPiece,
  [px, py]: readonly [number, number],
): readonly [number, number] {
  const { min, max } = drawing.box;
  return turned ? [x + max[1] - py, y + px - min[0]] : [x + px - min[0], y + py - min[1]];
}
