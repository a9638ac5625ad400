/** Pieces cut from another stock than their kind has them from, as their maker wants them. */
import { stockOf, type Design } from '../document/design';
import { ownerOfId } from '../ids';
import type { Piece } from '../pattern/pattern';

/** A piece as it is cut: of its own stock, where its maker gave it one. */
export function ofOwnStock(design: Design): (piece: Piece) => Piece {
  const asked = stocksAsked(design);
  return (piece) => {
    const stock = asked.get(piece.id);
    return stock === undefined || stock === piece.stock ? piece : { ...piece, stock };
  };
}

const stocksAsked = ({ cutFrom = [] }: Design): ReadonlyMap<string, string> =>
  new Map(cutFrom.map(({ piece, stock }) => [piece, stock]));

/** The stock that a piece is cut from, where its kind has it from `usual`. */
export const stockOfPiece = (design: Design, piece: string, usual: string): string =>
  stocksAsked(design).get(piece) ?? usual;

/** The thickest sheet of a mechanism, mm: its own sheets are laid over each other as if all were so thick. */
export function thickestMm(design: Design, mechanism: string, usual: string): number {
  const own = (design.cutFrom ?? []).filter(({ piece }) => ownerOfId(piece) === mechanism);
  return Math.max(...[usual, ...own.map((c) => c.stock)].map((stock) => stockOf(design, stock).caliperMm));
}
