/** Marks printed in the corners of a sheet, by which a cutter finds where the print lies. */
import { dist2, type Vec2 } from '../plane/vec2';
import type { SheetLayout } from './layout';

/** Across, mm; their middles lie this far in from the edges. */
export const MARK_MM = 5;
export const MARK_INSET_MM = 6;

/** Three discs: both lower corners and the upper left. No two sides of their triangle are alike, but on a square. */
export const marksOf = ({ widthMm: w, heightMm: h }: Pick<SheetLayout, 'widthMm' | 'heightMm'>): readonly Vec2[] => [
  [MARK_INSET_MM, MARK_INSET_MM],
  [w - MARK_INSET_MM, MARK_INSET_MM],
  [MARK_INSET_MM, h - MARK_INSET_MM],
];

/** Turned, scaled alike in every direction, and shifted: x' = a x - b y + dx, y' = b x + a y + dy. */
export interface Similarity {
  readonly a: number;
  readonly b: number;
  readonly dx: number;
  readonly dy: number;
}
export const moveBy = ({ a, b, dx, dy }: Similarity, [x, y]: Vec2): Vec2 => [a * x - b * y + dx, b * x + a * y + dy];
export const turnOf = ({ a, b }: Similarity): number => (Math.atan2(b, a) * 180) / Math.PI;
export const scaleOf = ({ a, b }: Similarity): number => Math.hypot(a, b);

/** The similarity that brings points nearest to others, least squares (Umeyama 1991, in the plane). */
export function similarityBetween(from: readonly Vec2[], to: readonly Vec2[]): Similarity {
  const mean = (points: readonly Vec2[], k: 0 | 1): number => points.reduce((s, p) => s + p[k], 0) / points.length;
  const [fx, fy, tx, ty] = [mean(from, 0), mean(from, 1), mean(to, 0), mean(to, 1)];
  let [along, across, spread] = [0, 0, 0];
  from.forEach(([x, y], i) => {
    const [u, v] = [x - fx, y - fy];
    const [p, q] = [to[i][0] - tx, to[i][1] - ty];
    along += u * p + v * q;
    across += u * q - v * p;
    spread += u * u + v * v;
  });
  const [a, b] = [along / spread, across / spread];
  return { a, b, dx: tx - a * fx + b * fy, dy: ty - b * fx - a * fy };
}

/** Triangles that differ by more than this in a side are not the same, parts of the side. */
const SIDE_PART = 0.04;

/**
 * Which of the spots are the marks: the three whose triangle is that of the marks, with the same way round; null where
 * there are none. A print on a square sheet may fit four ways: the one that is turned least is taken.
 */
export function matchMarks(spots: readonly Vec2[], marks: readonly Vec2[]): Similarity | null {
  const side = (p: readonly Vec2[], i: number, j: number): number => dist2(p[i], p[j]);
  const alike = (found: number, wanted: number): boolean => Math.abs(found / wanted - 1) < SIDE_PART;
  let best: { fit: Similarity; off: number; turn: number } | null = null;
  for (const p of spots)
    for (const q of spots)
      for (const r of spots) {
        const three = [p, q, r];
        if (p === q || q === r || p === r) continue;
        const pairs = [[0, 1], [0, 2], [1, 2]] as const; // prettier-ignore
        if (!pairs.every(([i, j]) => alike(side(three, i, j), side(marks, i, j)))) continue;
        const fit = similarityBetween(marks, three);
        const off = Math.max(...marks.map((m, k) => dist2(moveBy(fit, m), three[k])));
        const turn = Math.abs(turnOf(fit));
        if (!best || (off < 1 && turn < best.turn)) best = { fit, off, turn };
      }
  return best && best.off < 1 ? best.fit : null;
}
