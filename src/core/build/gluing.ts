/** Glue areas as their maker wants them: what they are stuck with, and set in further from their edges. */
import type { Misfit } from '../assembly/misfit';
import type { Design, Gluing } from '../document/design';
import { adhesive } from '../paper/adhesives';
import type { GlueArea, Piece } from '../pattern/pattern';
import { largest, offset, ringArea, type Ring } from '../plane/polygon';

/** Pieces with their glue as it is asked for, and the areas of which nothing is left. */
export function withGluing(design: Design, pieces: readonly Piece[]): { pieces: Piece[]; lost: Misfit[] } {
  const asked = new Map((design.gluing ?? []).map((g) => [g.glue, g]));
  const lost: Misfit[] = [];
  const glued = (piece: string, area: GlueArea): GlueArea[] => {
    const own = asked.get(area.id);
    if (!own) return [area];
    const outline = setIn(area.outline, own);
    const onto = setIn(area.onto.outline, own);
    if (!outline || !onto) {
      lost.push(nothingLeft(piece, area));
      return [];
    }
    return [
      {
        ...area,
        outline,
        onto: { ...area.onto, outline: onto },
        adhesive: own.adhesive,
        thickMm: own.adhesive === 'foam' && own.foamMm ? own.foamMm : adhesive(own.adhesive).thickMm,
      },
    ];
  };
  if (asked.size === 0) return { pieces: [...pieces], lost };
  return { pieces: pieces.map((p) => ({ ...p, glue: p.glue.flatMap((area) => glued(p.id, area)) })), lost };
}

function setIn(ring: Ring, { insetMm = 0 }: Gluing): Ring | undefined {
  if (insetMm === 0) return ring;
  const way = ringArea(ring) > 0;
  const inner = largest(offset([{ outer: way ? ring : [...ring].reverse(), holes: [] }], -insetMm))?.outer;
  return inner && (way ? inner : [...inner].reverse());
}

const nothingLeft = (piece: string, { id, mechanism, outline }: GlueArea): Misfit => ({
  kind: 'unheld',
  mechanism,
  piece,
  key: `glue ${id}`,
  what: 'a glue area is set in so far that nothing of it is left',
  at: outline[0],
  sizeMm: 0,
});
