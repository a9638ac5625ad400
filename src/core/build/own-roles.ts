/** Valleys and mountains for creases of one's own, where flat folding leaves few choices. */
import { findFacets } from '../pattern/facets';
import { foldChoices, foldVertices, type Fold } from '../pattern/fold-roles';
import type { TemplateLine } from '../pattern/mending';
import type { Piece } from '../pattern/pattern';
import { ringsOf } from '../plane/polygon';
import { partId } from '../ids';
import { linesOf, OWN_LINES } from '../kinds';
import { valuesOf } from '../document/fields';
import type { Design } from '../document/design';
import { buildAssembly } from './build';

/** Roles by name of the line; those that the lines have now come first where they are among them. */
export type RoleChoice = Readonly<Record<string, Fold>>;

/**
 * Choices for the creases of a mechanism of one's own in which every vertex they meet at folds flat; all other creases
 * stay as they are. None where nothing fixes them. Throws DesignError.
 */
export function ownRoleChoices(design: Design, id: string): RoleChoice[] {
  const m = design.mechanisms.find((x) => x.id === id && x.kind === OWN_LINES);
  if (!m) return [];
  const free = linesOf(valuesOf(m)).filter((l) => l.role === 'valley' || l.role === 'mountain');
  const nameOf = new Map(free.map((l) => [partId(id, l.partOf ?? l.name), l.name]));
  const { pieces, interruptions } = buildAssembly(design);
  const lines = pieces.flatMap((piece) =>
    piece.creases.some((c) => c.mechanism === id) ? drawingOf(piece, interruptions) : [],
  );
  const vertices = foldVertices(lines).filter((v) => v.creases.some((c) => nameOf.has(c)));
  if (vertices.length === 0) return [];
  const known = new Map(lines.flatMap((l) => (isFixed(l, nameOf) ? [[l.id, foldOf(l)]] : [])));
  return foldChoices(vertices, known).map((choice) =>
    Object.fromEntries(
      [...choice].flatMap(([crease, fold]) => (nameOf.has(crease) ? [[nameOf.get(crease)!, fold]] : [])),
    ),
  );
}

const isFixed = (l: TemplateLine, free: ReadonlyMap<string, string>): boolean => l.role !== 'cut' && !free.has(l.id);
const foldOf = (l: TemplateLine): Fold => (l.role === 'mountain' ? 'mountain' : 'valley');

/** A piece as lines: its creases where they fold, its cuts and its edge. */
function drawingOf(piece: Piece, interruptions: Parameters<typeof findFacets>[1]): TemplateLine[] {
  const { hinges } = findFacets(piece, interruptions);
  const cut = (points: TemplateLine['points'], closed: boolean): TemplateLine => ({
    id: 'cut',
    role: 'cut',
    points,
    closed,
  });
  return [
    ...hinges.flatMap(({ crease, segments }) =>
      segments.map(({ a, b }): TemplateLine => ({ id: crease.id, role: crease.role, points: [a, b], closed: false })),
    ),
    ...piece.lines.filter((l) => l.role === 'cut').map((l) => cut([l.a, l.b], false)),
    ...ringsOf(piece.outline).map((ring) => cut(ring, true)),
  ];
}
