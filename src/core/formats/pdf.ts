/**
 * PDF at true scale. A sheet is a page of its own size; a piece is a page where it fits one, turned however it must be;
 * only what is larger than the page is tiled, with a map of its tiles. A 50 mm check bar is on each.
 */
import type { FlatSize } from '../paper/sizes';
import { boxesMeet, boxOf, intersect, mapRegion, rectangle, regionArea, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import type { Plate } from '../sheets/plate';
import { beginPdf, CHECK_SIZE, checkBar, drawPlate, rule, write, pt, type Paper } from './pdf-draw';
import { onOnePage } from './one-page';
import { MARGIN_MM, tilesOf, type Tile } from './tiles';

export async function toPdf(plates: readonly Plate[], paper: FlatSize): Promise<Uint8Array> {
  const out = await beginPdf(plates[0]?.title ?? '');
  for (const plate of plates) addPlate(out, plate, paper);
  return out.pdf.save();
}

/** The pages of a plate, after those that are there. */
export function addPlate(out: Paper, plate: Plate, paper: FlatSize): void {
  if (plate.page) return drawSheet(out, plate);
  const turned = onOnePage(plate, paper);
  if (turned) return drawTile(out, turned, tilesOf(turned, paper)[0]);
  const tiles = tilesOf(plate, paper);
  drawMap(out, plate, tiles);
  for (const tile of tiles) drawTile(out, plate, tile);
}

/** A sheet as it is: the bar where no paper of a piece is, on a page of its own where there is no such place. */
function drawSheet({ pdf, font }: Paper, plate: Plate): void {
  const { widthMm, heightMm, title } = plate;
  const page = pdf.addPage([pt(widthMm), pt(heightMm)]);
  drawPlate(page, plate, { x0: 0, y0: 0, x1: widthMm, y1: heightMm }, (p) => p);
  const free = freePlace(plate);
  if (free) checkBar(page, font, title, free);
  else checkBar(pdf.addPage([pt(widthMm), pt(heightMm)]), font, `Check of: ${title}`, [MARGIN_MM, MARGIN_MM]);
}

/** Places for the bar are tried this far apart, mm, and kept this far from paper. */
const TRIED_MM = 3;
const CLEAR_MM = 1;

/** The lowest free place, the leftmost of those. */
function freePlace({ items, widthMm, heightMm }: Plate): Vec2 | null {
  const paper = items.map(({ drawing, place }) => mapRegion(drawing.region, place));
  const boxes = paper.map((r) => boxOf(r.flatMap((p) => p.outer)));
  const [w, h] = CHECK_SIZE;
  for (let y = CLEAR_MM; y + h + CLEAR_MM <= heightMm; y += TRIED_MM)
    for (let x = TRIED_MM; x + w + CLEAR_MM <= widthMm; x += TRIED_MM) {
      const at: Region = [
        { outer: rectangle(x - CLEAR_MM, y - CLEAR_MM, x + w + CLEAR_MM, y + h + CLEAR_MM), holes: [] },
      ];
      const box = boxOf(at[0].outer);
      const over = paper.some((r, k) => boxesMeet(boxes[k], box) && regionArea(intersect(r, at)) > 0);
      if (!over) return [x, y];
    }
  return null;
}

function drawTile({ pdf, font }: Paper, plate: Plate, tile: Tile): void {
  const page = pdf.addPage([pt(tile.pageWidthMm), pt(tile.pageHeightMm)]);
  const base = tile.pageHeightMm - MARGIN_MM - tile.heightMm;
  const window = { x0: MARGIN_MM, y0: base, x1: MARGIN_MM + tile.widthMm, y1: base + tile.heightMm };
  drawPlate(page, plate, window, ([x, y]) => [MARGIN_MM + x - tile.x, base + y - tile.y]);
  if (tile.label) cutMarks(page, window);
  checkBar(page, font, `${plate.title}${tile.label ? ` - ${tile.label}` : ''}`, [MARGIN_MM, MARGIN_MM - 1.4]);
}

type Page = ReturnType<Paper['pdf']['addPage']>;
function cutMarks(page: Page, { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number }): void {
  for (const [x, y, sx, sy] of [
    [x0, y0, -1, -1],
    [x1, y0, 1, -1],
    [x0, y1, -1, 1],
    [x1, y1, 1, 1],
  ]) {
    rule(page, [x, y + 2 * sy], [x, y + 5 * sy]);
    rule(page, [x + 2 * sx, y], [x + 5 * sx, y]);
  }
}

/** The whole, small, with its tiles over it by row and column. */
function drawMap({ pdf, font }: Paper, plate: Plate, tiles: readonly Tile[]): void {
  const [{ pageWidthMm: pw, pageHeightMm: ph }] = tiles;
  const page = pdf.addPage([pt(pw), pt(ph)]);
  const scale = Math.min((pw - 4 * MARGIN_MM) / plate.widthMm, (ph - 6 * MARGIN_MM) / plate.heightMm);
  const [x0, y0] = [2 * MARGIN_MM, 3 * MARGIN_MM];
  const place = ([x, y]: Vec2): Vec2 => [x0 + x * scale, y0 + y * scale];
  drawPlate(page, plate, { x0, y0, x1: x0 + plate.widthMm * scale, y1: y0 + plate.heightMm * scale }, place);
  for (const { x, y, widthMm, heightMm, row, column } of tiles) {
    const corners = rectangle(x, y, x + widthMm, y + heightMm).map(place);
    corners.forEach((c, k) => rule(page, c, corners[(k + 1) % 4], 0.8));
    write(page, font, `${row}.${column}`, place([x + widthMm / 2, y + heightMm / 2]), 14);
  }
  const words = `Map of the tiles, small, not to scale: ${plate.title}. Tiles overlap; cut along the marks.`;
  write(page, font, words, [x0, ph - 2 * MARGIN_MM], 9);
  checkBar(page, font, plate.title, [MARGIN_MM, MARGIN_MM - 1.4]);
}
