/** `sheet-fit`: every piece fits its stock's sheet; that its creases run along the grain there is asked by `grain`. */
import type { Piece } from '../pattern/pattern';
import { boxOf } from '../plane/polygon';
import { dist2 } from '../plane/vec2';
import { SHEETS, stockSetting } from '../ids';
import { SIZE_ROUNDING_MM } from '../tolerance';
import type { FlatSize } from '../paper/sizes';
import { finding, isBase, leversOf, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/**
 * Size of a piece: along its longest crease, and across it. Creases run along the x or y axis of their piece more
 * often than not.
 */
export function pieceSize(piece: Piece): { widthMm: number; heightMm: number; creaseAlongX: boolean } {
  const { min, max } = boxOf(piece.outline.outer);
  const longest = piece.creases.reduce<Piece['creases'][number] | null>(
    (best, c) => (!best || dist2(c.a, c.b) > dist2(best.a, best.b) ? c : best),
    null,
  );
  const creaseAlongX = !longest || Math.abs(longest.b[0] - longest.a[0]) >= Math.abs(longest.b[1] - longest.a[1]);
  return { widthMm: max[0] - min[0], heightMm: max[1] - min[1], creaseAlongX };
}

/** How a piece lies on its stock's sheet: the grain along its longest crease where there is room for that. */
export interface Laid {
  readonly sheet: FlatSize;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Room inside the margins. */
  readonly short: number;
  readonly long: number;
  /** It fits only with its longest crease across the grain. */
  readonly turned: boolean;
  readonly sheetTooSmall: boolean;
  /** The way of the grain in the axes of the piece. */
  readonly grainAlongX: boolean;
}

/** Null where the stock's sheet is not known. */
export function laidOn({ brief }: Pick<Evidence, 'brief'>, piece: Piece): Laid | null {
  const stock = brief.stock(piece.stock);
  const sheet = brief.sheet(stock);
  if (!sheet) return null;
  const { widthMm, heightMm, creaseAlongX } = pieceSize(piece);
  const margins = 2 * brief.sheetMarginMm(stock);
  const [short, long] = [sheet.shortMm - margins, sheet.longMm - margins];
  const [along, across] = creaseAlongX ? [widthMm, heightMm] : [heightMm, widthMm];
  const fits = (grainRoom: number, crossRoom: number): boolean =>
    along <= grainRoom + SIZE_ROUNDING_MM && across <= crossRoom + SIZE_ROUNDING_MM;
  const [withLong, withShort] = [fits(long, short), fits(short, long)];
  const good = stock.grain === 'long' ? withLong : stock.grain === 'short' ? withShort : withLong || withShort;
  const turned = !good && (withLong || withShort);
  const grainAlongX = creaseAlongX !== turned;
  return { sheet, widthMm, heightMm, short, long, turned, sheetTooSmall: !good && !turned, grainAlongX };
}

export const sheetFit: Rule = {
  id: 'sheet-fit',
  needs: 'pattern',
  check: (evidence) => {
    const { assembly, brief } = evidence;
    const say = wordsFor(evidence);
    return assembly.pieces.flatMap((piece): Finding[] => {
      const laid = laidOn(evidence, piece);
      if (!laid?.sheetTooSmall) return [];
      const { sheet, widthMm, heightMm, short, long } = laid;
      const own = stockSetting(piece.stock);
      const room = `${sheet.name} has ${say.mm(short)} x ${say.mm(long)} inside its margins`;
      const ofCard = isBase(assembly, piece.mechanism);
      const title = ofCard ? piece.title : `${piece.title} of ${say.title(piece.mechanism)}`;
      return [
        finding({
          rule: 'sheet-fit',
          severity: 'blocks',
          mechanism: piece.mechanism,
          piece: piece.id,
          measured: Math.max(widthMm, heightMm),
          limit: long,
          aspect: `size ${piece.id}`,
          subjects: [piece.id],
          levers: [
            ...leversOf(brief.stock(piece.stock).marginMm === undefined ? SHEETS : own, 'marginMm'),
            ...leversOf(own, 'sheet'),
            ...turnsOf(assembly, piece.mechanism, 'size'),
          ],
          message: `${title} is ${say.mm(widthMm)} x ${say.mm(heightMm)}; ${room}.`,
        }),
      ];
    });
  },
};
