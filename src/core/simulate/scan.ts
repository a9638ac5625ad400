/**
 * The simulated scanner: a picture of the printed page as it lies on the mat, shifted, turned, a little scaled, with
 * noise; and the eye that finds the marks in it. Grey, 0 black to 255 white, row by row from the top.
 */
import { randomNormal } from 'd3-random';
import { seeded } from '../linkage/random';
import { contains, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { MARK_MM, moveBy, type Similarity } from '../sheets/registration';

export interface Scan {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly grey: Uint8Array;
  readonly pxPerMm: number;
}
export interface ScanOf {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marks: readonly Vec2[];
  /** What else is printed. */
  readonly printed: Region;
  /** How the print lies: page to mat. */
  readonly lies: Similarity;
  /** Grey levels, one standard deviation. */
  readonly noise: number;
  readonly seed: number;
  readonly pxPerMm: number;
}

/** Room round the page on the mat, mm. */
const ROUND_MM = 12;
const [PAPER, INK] = [235, 30];
/** Printed artwork is lighter than the marks. */
const ART = 150;
/** A pixel is looked at in so many places each way: edges come out grey. */
const SUB = 3;

export function scanPage({ widthMm, heightMm, marks, printed, lies, noise, seed, pxPerMm }: ScanOf): Scan {
  const [w, h] = [widthMm, heightMm].map((mm) => Math.ceil((mm + 2 * ROUND_MM) * pxPerMm));
  const normal = randomNormal.source(seeded(seed))(0, noise);
  const back = inverse(lies);
  const grey = new Uint8Array(w * h);
  for (let row = 0; row < h; row++)
    for (let col = 0; col < w; col++) {
      let sum = 0;
      for (let i = 0; i < SUB; i++)
        for (let j = 0; j < SUB; j++) {
          const x = (col + (i + 0.5) / SUB) / pxPerMm - ROUND_MM;
          const y = heightMm + ROUND_MM - (row + (j + 0.5) / SUB) / pxPerMm;
          sum += toneAt(moveBy(back, [x, y]), marks, printed);
        }
      grey[row * w + col] = Math.max(0, Math.min(255, Math.round(sum / (SUB * SUB) + normal())));
    }
  return { widthPx: w, heightPx: h, grey, pxPerMm };
}

function toneAt(p: Vec2, marks: readonly Vec2[], printed: Region): number {
  if (marks.some(([x, y]) => Math.hypot(p[0] - x, p[1] - y) < MARK_MM / 2)) return INK;
  return printed.some((part) => contains(part, p)) ? ART : PAPER;
}

function inverse({ a, b, dx, dy }: Similarity): Similarity {
  const size = a * a + b * b;
  const [ia, ib] = [a / size, -b / size];
  return { a: ia, b: ib, dx: -(ia * dx - ib * dy), dy: -(ib * dx + ia * dy) };
}

/** Darker than this is ink of a mark. */
const DARK = 110;
/** A mark's spot may differ by this part from the area of a disc, and from filling its box as one does. */
const AREA_PART = 0.35;
const ROUND_PART = 0.12;

/** Middles of the dark round spots of a mark's size, mm on the mat, by the weight of their darkness. */
export function findSpots(scan: Scan): Vec2[] {
  const { widthPx: w, heightPx: h, grey, pxPerMm } = scan;
  const heightMm = h / pxPerMm - 2 * ROUND_MM;
  const seen = new Uint8Array(w * h);
  const wanted = Math.PI * (MARK_MM / 2) ** 2 * pxPerMm ** 2;
  const spots: Vec2[] = [];
  for (let start = 0; start < grey.length; start++) {
    if (seen[start] || grey[start] >= DARK) continue;
    const { count, x0, x1, y0, y1 } = flood(scan, seen, start);
    const box = (x1 - x0 + 1) * (y1 - y0 + 1);
    const isDisc = Math.abs(count / wanted - 1) < AREA_PART && Math.abs(count / box / (Math.PI / 4) - 1) < ROUND_PART;
    if (!isDisc) continue;
    const [x, y] = weighed(scan, x0 - 2, y0 - 2, x1 + 2, y1 + 2);
    spots.push([x / pxPerMm - ROUND_MM, heightMm + ROUND_MM - y / pxPerMm]);
  }
  return spots;
}

function flood({ widthPx: w, heightPx: h, grey }: Scan, seen: Uint8Array, start: number) {
  const queue = [start];
  seen[start] = 1;
  let [count, x0, x1, y0, y1] = [0, w, 0, h, 0];
  while (queue.length > 0) {
    const at = queue.pop()!;
    const [x, y] = [at % w, Math.floor(at / w)];
    count++;
    [x0, x1, y0, y1] = [Math.min(x0, x), Math.max(x1, x), Math.min(y0, y), Math.max(y1, y)];
    for (const [nx, ny] of [
      [x - 1, y],
      [x + 1, y],
      [x, y - 1],
      [x, y + 1],
    ]) {
      // prettier-ignore
      if (nx < 0 || ny < 0 || nx >= w || ny >= h) continue;
      const next = ny * w + nx;
      if (seen[next] || grey[next] >= DARK) continue;
      seen[next] = 1;
      queue.push(next);
    }
  }
  return { count, x0, x1, y0, y1 };
}

/** Middle of the darkness in a box, px from the upper left corner of the picture. */
function weighed({ widthPx: w, heightPx: h, grey }: Scan, x0: number, y0: number, x1: number, y1: number): Vec2 {
  let [sum, sx, sy] = [0, 0, 0];
  for (let y = Math.max(0, y0); y <= Math.min(h - 1, y1); y++)
    for (let x = Math.max(0, x0); x <= Math.min(w - 1, x1); x++) {
      // Half the contrast and darker counts: the noise of the paper round it does not.
      const dark = Math.max(0, (PAPER + INK) / 2 + 40 - grey[y * w + x]);
      sum += dark;
      sx += dark * (x + 0.5);
      sy += dark * (y + 0.5);
    }
  return [sx / sum, sy / sum];
}
