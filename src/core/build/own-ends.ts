/** Ends and corners of lines of one's own, where they lie on their pieces: what a hand drags. */
import { partId } from '../ids';
import { linesOf, numbersOf, OWN_LINES, spotsIn, surroundings, type DrawnSpot } from '../kinds';
import { applyRigid, placeOnSheet, type Rigid } from '../linkage';
import { outlineOf } from '../shapes/outline';
import { valuesOf } from '../document/fields';
import { shelfOf, type Design } from '../document/design';
import { broughtBy } from './build';

export interface OwnEnd {
  readonly line: string;
  readonly end: DrawnSpot['end'];
  readonly piece: string;
  /** In the axes of the piece, mm. */
  readonly at: readonly [number, number];
}
/** A line with more corners is a curve: it is not dragged corner by corner. */
const MOST_CORNERS = 40;

/** None for what is no line of one's own. Throws DesignError. */
export function ownEndsOf(design: Design, id: string): OwnEnd[] {
  const m = design.mechanisms.find((x) => x.id === id && x.kind === OWN_LINES);
  const brought = m && broughtBy(design).get(id);
  if (!m || !brought) return [];
  const values = valuesOf(m);
  const lines = linesOf(values).filter((l) => !('corners' in l) || l.corners.length <= MOST_CORNERS);
  const shelf = shelfOf(design);
  const { piece, interruptions, placement, part, ...sides } = brought;
  const places = { id, piece: piece.id, ...sides };
  const on = (names: readonly (string | undefined)[], so: Parameters<typeof surroundings>[0]['so'], onto: Rigid) => {
    const around = surroundings(
      { so, placement: onto, places, outline: (s) => outlineOf(s, shelf) },
      numbersOf(values),
    );
    return spotsIn(
      lines.filter((l) => names.includes(l.piece)),
      around,
    ).map(({ line, end, at }): OwnEnd => {
      const [x, y] = applyRigid(onto, [...at, 0]);
      return { line: line.name, end, piece: so.piece.id, at: [x, y] };
    });
  };
  const own = part.pieces.flatMap((p) => {
    const names = lines.map((l) => l.piece).filter((name) => name !== undefined && partId(id, name) === p.id);
    return on(names, { piece: p, interruptions: [] }, placeOnSheet([0, 0], [1, 0]));
  });
  return [...on([undefined], { piece, interruptions }, placement), ...own];
}
