/** `sheet-fit`: every piece fits its stock's sheet, in some rotation allowed by grain. */
import type { Piece } from '../pattern/pattern';
import { boxOf } from '../plane/polygon';
import { dist2 } from '../plane/vec2';
import { leversOf, mm, titleOf, type Finding, type Rule } from './rule';

/** Size of a piece: along its longest crease, and across it. Creases run along the x or y axis of their piece more often than not. */
export function pieceSize(piece: Piece): { widthMm: number; heightMm: number; creaseAlongX: boolean } {
  const { min, max } = boxOf(piece.outline.outer);
  const longest = piece.creases.reduce<Piece['creases'][number] | null>((best, c) => (!best || dist2(c.a, c.b) > dist2(best.a, best.b) ? c : best), null);
  const creaseAlongX = !longest || Math.abs(longest.b[0] - longest.a[0]) >= Math.abs(longest.b[1] - longest.a[1]);
  return { widthMm: max[0] - min[0], heightMm: max[1] - min[1], creaseAlongX };
}

export const sheetFit: Rule = {
  id: 'sheet-fit',
  needs: 'pattern',
  check: ({ assembly, brief }) => assembly.pieces.flatMap((piece): Finding[] => {
    const stock = brief.stock(piece.stock);
    const sheet = brief.sheet(stock.sheet);
    if (!sheet) return [];
    const { widthMm, heightMm, creaseAlongX } = pieceSize(piece);
    const [short, long] = [sheet.shortMm - 2 * brief.sheetMarginMm, sheet.longMm - 2 * brief.sheetMarginMm];
    const fits = (along: number, across: number, grainRoom: number, crossRoom: number): boolean => along <= grainRoom + 1e-6 && across <= crossRoom + 1e-6;
    const [along, across] = creaseAlongX ? [widthMm, heightMm] : [heightMm, widthMm];
    const withLong = fits(along, across, long, short);
    const withShort = fits(along, across, short, long);
    const good = stock.grain === 'long' ? withLong : stock.grain === 'short' ? withShort : withLong || withShort;
    if (good) return [];
    const size = `${mm(widthMm)} x ${mm(heightMm)}`;
    const turned = withLong || withShort;
    return [{
      rule: 'sheet-fit', severity: turned ? 'note' : 'blocks', mechanism: piece.mechanism, piece: piece.id, measured: Math.max(widthMm, heightMm), limit: long, unit: 'mm', drive: { open: 180 }, aspect: piece.id, subjects: [piece.id],
      levers: turned ? [] : piece.mechanism === 'card' ? leversOf('card', 'reach', 'gutter') : leversOf(piece.mechanism, 'width', 'size'),
      message: turned
        ? `${piece.title} (${size}) fits ${sheet.name} only with its longest crease across the grain of ${stock.name}.`
        : `${piece.title} of ${titleOf(assembly, piece.mechanism)} is ${size}; ${sheet.name} has ${mm(short)} x ${mm(long)} inside its margins.`,
    }];
  }),
};
