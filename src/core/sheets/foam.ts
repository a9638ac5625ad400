/** Foam to cut: every pad by its true outline, on sheets of its own for each thickness. */
import type { Assembly } from '../assembly/assembly';
import type { Design } from '../document/design';
import { partId } from '../ids';
import { LEAST_FOAM_MM } from '../kinds/on-facet/sheets';
import type { Stock } from '../paper/stocks';
import { regionBox, type Region } from '../plane/polygon';
import { seenOn } from '../build/dressing';
import { countOf, cutLines, type Drawing } from './drawing';

/** Foam as something to cut from: on the sheet of the card, whichever way it lies. */
export const foamStock = (design: Design, thickMm: number): Stock => ({
  id: `foam-${thickMm}`,
  name: `Foam, ${thickMm} mm`,
  gsm: 0,
  caliperMm: thickMm,
  insideColour: '#e9e4d4',
  outsideColour: '#e9e4d4',
  grain: 'none',
  leastWebMm: LEAST_FOAM_MM,
  sheet: (design.stocks.find((s) => s.id === design.card.stock) ?? design.stocks[0]).sheet,
});

export interface FoamDrawing extends Drawing {
  readonly thickMm: number;
}

/** Pads between sheets, and those under mats and layers. */
export function foamDrawings(design: Design, assembly: Assembly): FoamDrawing[] {
  const between = assembly.foam.map(({ id, region, thickMm }) => {
    const mechanism = assembly.pieces.find((p) => id.startsWith(p.id))?.mechanism ?? assembly.base.mechanism;
    return padOf(design, id, 'Foam', mechanism, region, thickMm);
  });
  const under = assembly.layers
    .filter((l) => l.foam.length > 0)
    .map((l) => {
      const region = seenOn(l.side, l.foam);
      return padOf(
        design,
        partId(l.id, 'foam'),
        `Foam under ${l.title}`,
        l.mechanism,
        region,
        l.foamMm,
        l.doubled ? 2 : 1,
      );
    });
  return [...between, ...under];
}

function padOf(
  design: Design,
  id: string,
  title: string,
  mechanism: string,
  region: Region,
  thickMm: number,
  each = 1,
): FoamDrawing {
  const lines = cutLines(region, id);
  const { id: stock } = foamStock(design, thickMm);
  return {
    id,
    title,
    mechanism,
    stock,
    box: regionBox(region),
    region,
    lines,
    outside: [],
    count: countOf(design, id, each),
    thickMm,
  };
}
