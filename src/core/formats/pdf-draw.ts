/** Drawing on a page of a PDF in millimetres: lines with their strokes, the check bar, words. */
import {
  appendBezierCurve,
  clip,
  closePath,
  endPath,
  lineTo,
  moveTo,
  PDFDocument,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  rgb,
  setDashPattern,
  setLineWidth,
  setStrokingColor,
  StandardFonts,
  stroke,
  type Color,
  type PDFFont,
  type PDFOperator,
  type PDFPage,
} from 'pdf-lib';
import type { Stroke } from '../plane/arcs';
import { bezierOf } from '../plane/arcs';
import { boxOf } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { ROLE_STYLE, walkPlate, type Plate } from '../sheets/plate';
import { WRITTEN_BY } from '../version';

/** PDF user space: 1/72 in. */
const POINT_PER_MM = 72 / 25.4;
export const pt = (mm: number): number => mm * POINT_PER_MM;
export const colourOf = (hex: string): Color =>
  rgb(parseInt(hex.slice(1, 3), 16) / 255, parseInt(hex.slice(3, 5), 16) / 255, parseInt(hex.slice(5, 7), 16) / 255);

export const CHECK_MM = 50;
const CHECK_WORDS = `${CHECK_MM} mm - measure before cutting; print at 100 %`;
/** Smallest type that a printer of the house prints well, points (common practice, no source). */
const SMALL_PT = 7;
const TITLE_LENGTH = 110;

export interface Paper {
  readonly pdf: PDFDocument;
  readonly font: PDFFont;
}
/** A document without a clock: the same design gives the same file. */
export async function beginPdf(title: string): Promise<Paper> {
  const pdf = await PDFDocument.create();
  pdf.setCreationDate(new Date(0));
  pdf.setModificationDate(new Date(0));
  pdf.setTitle(title);
  pdf.setProducer(WRITTEN_BY);
  return { pdf, font: await pdf.embedFont(StandardFonts.Helvetica) };
}

export interface Window {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** What of a plate shows in a window of the page; `place` brings plate to page, mm. */
export function drawPlate(page: PDFPage, plate: Plate, window: Window, place: (p: Vec2) => Vec2): void {
  const { x0, y0, x1, y1 } = window;
  page.pushOperators(pushGraphicsState(), rectangle(pt(x0), pt(y0), pt(x1 - x0), pt(y1 - y0)), clip(), endPath());
  walkPlate(plate, {
    line(role, { points, closed, strokes }) {
      if (outside(points.map(place), window)) return;
      const { colour, dashMm, weightMm } = ROLE_STYLE[role];
      page.pushOperators(
        setStrokingColor(colourOf(colour)),
        setLineWidth(pt(weightMm)),
        setDashPattern(dashMm.map(pt), 0),
        ...pathOf(points[0], strokes, closed, place),
        stroke(),
      );
    },
    finish: () => undefined,
  });
  page.pushOperators(popGraphicsState());
}

/** Nothing of a line shows there. */
function outside(points: readonly Vec2[], { x0, y0, x1, y1 }: Window): boolean {
  const { min, max } = boxOf(points);
  return max[0] < x0 || min[0] > x1 || max[1] < y0 || min[1] > y1;
}

/** One path, its curves as Bézier curves. */
function pathOf(first: Vec2, strokes: readonly Stroke[], closed: boolean, place: (p: Vec2) => Vec2): PDFOperator[] {
  const at = (p: Vec2): [number, number] => {
    const [x, y] = place(p);
    return [pt(x), pt(y)];
  };
  let from = first;
  const out = [moveTo(...at(from))];
  for (const s of strokes) {
    const closes = closed && s === strokes[strokes.length - 1];
    if (s.kind === 'line' && !closes) out.push(lineTo(...at(s.to)));
    else if (s.kind === 'line') break;
    else for (const [p, q, r] of bezierOf(from, s)) out.push(appendBezierCurve(...at(p), ...at(q), ...at(r)));
    from = s.to;
  }
  return closed ? [...out, closePath()] : out;
}

/** A line of the page, mm. */
export function rule(page: PDFPage, [ax, ay]: Vec2, [bx, by]: Vec2, thickness = 0.4): void {
  page.drawLine({ start: { x: pt(ax), y: pt(ay) }, end: { x: pt(bx), y: pt(by) }, thickness });
}

export function write(page: PDFPage, font: PDFFont, words: string, [x, y]: Vec2, size = SMALL_PT): void {
  page.drawText(winAnsi(words), { x: pt(x), y: pt(y), size, font });
}

/** What the check bar and its title take, mm. */
export const CHECK_SIZE: Vec2 = [CHECK_MM + 62, 5.6];

/** The bar of 50 mm with its words, and a title over it, from its lower left. */
export function checkBar(page: PDFPage, font: PDFFont, title: string, [x, y]: Vec2): void {
  const bar = y + 1.4;
  rule(page, [x, bar], [x + CHECK_MM, bar], 0.6);
  for (const end of [x, x + CHECK_MM]) rule(page, [end, bar - 1.4], [end, bar + 1.4], 0.6);
  write(page, font, CHECK_WORDS, [x + CHECK_MM + 2.8, bar - 0.9]);
  write(page, font, fitting(font, winAnsi(title).slice(0, TITLE_LENGTH), CHECK_SIZE[0]), [x, y + 3.6]);
}

/** As much of some words as a width holds, mm. */
export function fitting(font: PDFFont, words: string, widthMm: number, size = SMALL_PT): string {
  const text = winAnsi(words);
  for (let n = text.length; n > 0; n--) {
    const cut = n < text.length ? `${text.slice(0, n - 1)}.` : text;
    if (font.widthOfTextAtSize(cut, size) <= pt(widthMm)) return cut;
  }
  return '';
}

/** The standard fonts hold Latin letters only. */
export const winAnsi = (text: string): string =>
  text
    .replace(/[\u2013\u2014\u2212]/g, '-')
    .replace(/\u2192/g, 'to')
    .replace(/[\u2018\u2019]/g, "'")
    .replace(/[\u201c\u201d]/g, '"')
    .replace(/[^\x20-\x7e\xa0-\xff]/g, '?');
