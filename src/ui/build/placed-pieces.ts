/** Where the pieces lie on the flat drawing. */
import { CARD } from '@/core/ids';
import type { Scene, ScenePiece } from '@/workers/protocol';
import type { Box } from '../views/viewport';

const GAP = 14;

export interface Placed {
  readonly piece: ScenePiece;
  /** Shift of the piece on the drawing; y up. */
  readonly dx: number;
  readonly dy: number;
}

/** The page first, its glued pieces in columns to the right of it. */
export function placePieces(pieces: readonly ScenePiece[]): { placed: Placed[]; width: number; height: number } {
  const boxes = pieces.map(({ rings }) => {
    const xs = rings[0].map((p) => p[0]);
    const ys = rings[0].map((p) => p[1]);
    return {
      x0: Math.min(...xs),
      y0: Math.min(...ys),
      w: Math.max(...xs) - Math.min(...xs),
      h: Math.max(...ys) - Math.min(...ys),
    };
  });
  const placed: Placed[] = [];
  const tall = boxes[0]?.h ?? 0;
  let [x, y, column] = [0, 0, 0];
  pieces.forEach((piece, i) => {
    const { x0, y0, w, h } = boxes[i];
    if (i > 0 && y > 0 && y + h > tall) {
      x += column + GAP;
      [y, column] = [0, 0];
    }
    // Columns hang from the top edge of the page.
    placed.push({ piece, dx: x - x0, dy: tall - y - h - y0 });
    y += h + GAP;
    column = Math.max(column, w);
    if (i === 0) {
      x += w + GAP;
      [y, column] = [0, 0];
    }
  });
  const lowest = Math.min(0, ...placed.map((p, i) => p.dy + boxes[i].y0));
  return {
    placed,
    width: Math.max(1, ...placed.map((p, i) => p.dx + boxes[i].x0 + boxes[i].w)),
    height: tall - lowest,
  };
}

/** Height of the page: y of the drawing is measured down from its top edge. */
export const placedTop = (placed: readonly Placed[], height: number): number => {
  const first = placed[0];
  if (!first) return height;
  const ys = first.piece.rings[0].map((p) => p[1]);
  return Math.max(...ys) + first.dy;
};

/** The box of what is selected, on the drawing; null where nothing of it is flat. */
export function partShown(
  placed: readonly Placed[],
  top: number,
  scene: Scene,
  mechanism: string,
  /** Width of the drawing, where it is turned over. */
  mirrored: number | null,
): Box | null {
  if (mechanism === CARD) return null;
  const points = placed.flatMap(({ piece, dx, dy }) => {
    const rings = [
      ...scene.facets.filter((f) => f.piece === piece.id && f.mechanism === mechanism).flatMap((f) => f.rings),
      ...scene.cuts.filter((c) => c.piece === piece.id && c.mechanism === mechanism).map((c) => [c.a, c.b]),
      ...scene.creases
        .filter((c) => c.piece === piece.id && c.mechanism === mechanism)
        .flatMap((c) => c.segments.map((s) => [s.a, s.b])),
    ];
    return rings.flat().map(([x, y]) => [mirrored === null ? x + dx : mirrored - x - dx, top - dy - y] as const);
  });
  if (points.length === 0) return null;
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y };
}
