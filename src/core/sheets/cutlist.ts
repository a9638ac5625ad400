/** The cut list: what is cut from what, how large, how many, with which creases and glue. */
import type { Assembly } from '../assembly/assembly';
import { hardwareTitle } from '../build/taken';
import { stockOf, type Design } from '../document/design';
import { nameOfPart } from '../document/words';
import { adhesive } from '../paper/adhesives';
import { drawPieces, makingOf } from './drawing';
import { foamDrawings, foamStock } from './foam';

export interface CutListRow {
  readonly piece: string;
  readonly title: string;
  readonly width_mm: number;
  readonly height_mm: number;
  readonly stock: string;
  readonly colour: string;
  readonly count: number;
  /** `name`: in words, for people. */
  readonly creases: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: string;
    readonly made: string;
  }[];
  readonly glue: readonly string[];
  /** Stuck on the outside of what carries it. */
  readonly side?: 'outside';
  /** Foam, rivets, coins: counted and bought, not cut from a stock of the card. */
  readonly counted?: true;
}

export function cutList(design: Design, assembly: Assembly): CutListRow[] {
  const cut = drawPieces(design, assembly).map((d): CutListRow => {
    const piece = assembly.pieces.find((p) => p.id === d.id);
    const stock = stockOf(design, d.stock);
    const layer = assembly.layers.find((l) => l.id === d.id);
    return {
      piece: d.id,
      title: d.title,
      width_mm: round(d.box.max[0] - d.box.min[0]),
      height_mm: round(d.box.max[1] - d.box.min[1]),
      stock: stock.name,
      colour: layer?.colour ?? stock.insideColour,
      count: d.count,
      creases: (piece?.creases ?? []).map((c) => {
        const making = makingOf(design, c.id, c.role);
        return {
          id: c.id,
          name: nameOfPart(design, c.id),
          role: c.role,
          made: making.way === 'score' ? 'score' : `perforate ${making.cutMm}:${making.gapMm}`,
        };
      }),
      ...(layer?.side === 'outside' ? { side: layer.side } : {}),
      glue: (piece?.glue ?? []).map((g) => {
        const [area, onto] = [nameOfPart(design, g.id), nameOfPart(design, g.onto.facet)];
        return `${area} onto ${onto}, ${adhesive(g.adhesive ?? 'wet').name}`;
      }),
    };
  });
  return [...cut, ...foamRows(design, assembly), ...hardwareRows(assembly)];
}

/** Pads of foam by the box they are cut from. */
const foamRows = (design: Design, assembly: Assembly): CutListRow[] =>
  foamDrawings(design, assembly).map(({ id, title, box: { min, max }, thickMm, count }) => {
    const [width_mm, height_mm] = [round(max[0] - min[0]), round(max[1] - min[1])];
    const { name } = foamStock(design, thickMm);
    return { ...BOUGHT, piece: id, title: `${title}, ${thickMm} mm`, width_mm, height_mm, stock: name, count };
  });

/** Things of one sort are counted together. */
function hardwareRows({ hardware }: Assembly): CutListRow[] {
  const counts = new Map<string, number>();
  for (const thing of hardware) {
    const title = hardwareTitle(thing, 'mm');
    counts.set(title, (counts.get(title) ?? 0) + thing.count);
  }
  return [...counts].map(([title, count]) => ({
    ...BOUGHT,
    piece: title.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
    title,
    width_mm: 0,
    height_mm: 0,
    stock: 'bought',
    count,
  }));
}
const BOUGHT = { colour: '', creases: [], glue: [], counted: true as const };

const round = (x: number): number => Math.round(x * 1000) / 1000;
