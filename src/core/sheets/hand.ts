/** A piece in a hand: where it comes to lie when it is let go, and what would be wrong there. */
import { boxOf, regionBox, type Box2 } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { roomOf } from './lay-out';
import { paperOnSheet, type PlacedPiece } from './layout';
import { NoFits, turnedShape } from './nest/no-fit';
import { bestNear, type Lying } from './nest/place';
import { rotated } from '../plane/turning';
import { troubleOfPiece, type SheetRoom, type Trouble } from './trouble';

/** What is this near to a line it could keep to is drawn to it, mm. */
const SNAP_MM = 2.5;
/** A piece that lies badly is moved to where it lies well, if that is this near, mm. */
const FREE_MM = 8;

export interface InHand {
  readonly x: number;
  readonly y: number;
  readonly trouble: Trouble | null;
}

/** Drawn to margins, to the edges of others, and a spacing away from them; then to where it lies free, if near. */
export function letGo(piece: PlacedPiece, others: readonly PlacedPiece[], room: SheetRoom): InHand {
  const drawn = drawnToLines(piece, others, room);
  const trouble = troubleOfPiece(drawn, others, room);
  if (!trouble) return { x: drawn.x, y: drawn.y, trouble };
  const free = nearestFree(piece, others, room);
  if (!free) return { x: piece.x, y: piece.y, trouble: troubleOfPiece(piece, others, room) };
  const there = { ...piece, x: free[0], y: free[1] };
  const left = troubleOfPiece(there, others, room);
  return left ? { x: piece.x, y: piece.y, trouble } : { x: there.x, y: there.y, trouble: null };
}

const boxOfPiece = (p: PlacedPiece): Box2 => boxOf(paperOnSheet(p).flatMap((q) => q.outer));

function drawnToLines(piece: PlacedPiece, others: readonly PlacedPiece[], room: SheetRoom): PlacedPiece {
  const own = boxOfPiece(piece);
  const boxes = others.map(boxOfPiece);
  const shift = ([0, 1] as const).map((axis) => {
    const size = axis === 0 ? room.widthMm : room.heightMm;
    const { marginMm, spacingMm } = room;
    // Its low edge to a line, or its high edge.
    const lows = [marginMm, ...boxes.flatMap((b) => [b.min[axis], b.max[axis] + spacingMm])];
    const highs = [size - marginMm, ...boxes.flatMap((b) => [b.max[axis], b.min[axis] - spacingMm])];
    const ways = [...lows.map((v) => v - own.min[axis]), ...highs.map((v) => v - own.max[axis])];
    const best = ways.reduce((m, v) => (Math.abs(v) < Math.abs(m) ? v : m), Infinity);
    return Math.abs(best) <= SNAP_MM ? best : 0;
  });
  return { ...piece, x: piece.x + shift[0], y: piece.y + shift[1] };
}

/** The nearest place at which it touches what is round it and overlaps nothing. */
function nearestFree(piece: PlacedPiece, others: readonly PlacedPiece[], room: SheetRoom): Vec2 | null {
  const { marginMm, spacingMm } = room;
  const edge = marginMm - spacingMm / 2;
  const shapeOf = (p: PlacedPiece) => {
    const region = rotated(roomOf(p.drawing.region, spacingMm), p.turnDeg);
    return { shape: turnedShape(`${p.drawing.id}@${p.turnDeg}`, region), corner: regionBox(region).min };
  };
  const lying = others.map((p): Lying => {
    const { shape, corner } = shapeOf(p);
    return { shape, at: [p.x + corner[0] - edge, p.y + corner[1] - edge] };
  });
  const { shape, corner } = shapeOf(piece);
  const from: Vec2 = [piece.x + corner[0] - edge, piece.y + corner[1] - edge];
  const inside = { widthMm: room.widthMm - 2 * edge, heightMm: room.heightMm - 2 * edge };
  const at = bestNear(shape, lying, inside, from, FREE_MM, new NoFits());
  return at && [at[0] - corner[0] + edge, at[1] - corner[1] + edge];
}
