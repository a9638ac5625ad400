/** The cut list: what is cut from what, how large, how many, with which creases and glue. */
import type { Assembly } from '../assembly/assembly';
import { stockOf, type Design } from '../document/design';
import { drawPieces, makingOf } from './drawing';

export interface CutListRow {
  readonly piece: string;
  readonly title: string;
  readonly width_mm: number;
  readonly height_mm: number;
  readonly stock: string;
  readonly colour: string;
  readonly count: number;
  readonly creases: readonly { readonly id: string; readonly role: string; readonly made: string }[];
  readonly glue: readonly string[];
}

export function cutList(design: Design, assembly: Assembly): CutListRow[] {
  return drawPieces(design, assembly).map((d) => {
    const piece = assembly.pieces.find((p) => p.id === d.id);
    const stock = stockOf(design, d.stock);
    return {
      piece: d.id,
      title: d.title,
      width_mm: round(d.box.max[0] - d.box.min[0]),
      height_mm: round(d.box.max[1] - d.box.min[1]),
      stock: stock.name,
      colour: assembly.layers.find((l) => l.id === d.id)?.colour ?? stock.insideColour,
      count: d.count,
      creases: (piece?.creases ?? []).map((c) => {
        const making = makingOf(design, c.id, c.role);
        return {
          id: c.id,
          role: c.role,
          made: making.way === 'score' ? 'score' : `perforate ${making.cutMm}:${making.gapMm}`,
        };
      }),
      glue: (piece?.glue ?? []).map((g) => `${g.id} onto ${g.onto.facet}`),
    };
  });
}
const round = (x: number): number => Math.round(x * 1000) / 1000;
