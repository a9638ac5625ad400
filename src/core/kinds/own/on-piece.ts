/** Lines of one's own put on one piece: what they cut, crease and end there, and what facets beside them are called. */
import { partId } from '../../ids';
import { applyRigid, invert, type Rigid } from '../../linkage';
import { findFacets, type FlatPattern, type Interruption } from '../../pattern/facets';
import { insidePoint, largest, mapRegion, regionFromRings, subtract, type Region } from '../../plane/polygon';
import { lerp2, type Vec2 } from '../../plane/vec2';
import { ShapeError, type Shape } from '../../shapes/shape';
import { degToRad } from '../../units/angle';
import { hostsIn } from '../hosts-in';
import type { Contribution, CreaseLine, FacetLabel, Lack, Landmark, PatternLine, Piece, PieceSoFar } from '../kind';
import type { Numbers } from './amount';
import { drawLines, partAlong, stretchesOf, type Run, type Straight, type Surroundings } from './draw';
import type { OwnLine } from './own-line';
import { named, type Parts, type Places } from './parts';

/** What it stands on, as far as lines need it. */
export interface Ground {
  readonly id: string;
  readonly so: PieceSoFar;
  /** From the axes of the lines to those of the piece; z turned where its reader looks at the outside. */
  readonly placement: Rigid;
  readonly places: Places;
  /** Crease whose fold stiffness follows. */
  readonly standsOn: string | undefined;
  /** Everything on the piece lies flat where the card is open. */
  readonly flatOpen: boolean;
  /** Of pieces of its own. */
  readonly stock: string;
  readonly outline: (shape: Shape) => Region;
}

export interface DrawnOn {
  readonly piece: Piece;
  readonly lines: readonly PatternLine[];
  readonly creases: readonly CreaseLine[];
  readonly labels: readonly FacetLabel[];
  readonly interruptions: readonly Interruption[];
  readonly waste: Region;
  readonly hosts: Contribution['hosts'];
  readonly landmarks: readonly Landmark[];
  readonly lacks: readonly Lack[];
}

/** Lines put on one piece, and what they make of it. */
export function drawOn(
  own: readonly OwnLine[],
  numbers: Numbers,
  ground: Ground,
  known: Pick<Parts, 'labels' | 'owned'>,
): DrawnOn {
  const { so, id } = ground;
  const { runs, lacks } = drawLines(own, surroundings(ground, numbers));
  const moved = runs.map((r) => ({ ...r, points: r.points.map(ontoPiece(ground.placement)) }));
  const of = (role: OwnLine['role']): Run[] => moved.filter((r) => r.line.role === role);
  const lines = [...of('cut'), ...of('mark')].flatMap((r) => linesAlong(r, id));
  const creases = moved.flatMap((r) => creasesAlong(r, ground));
  const waste = windowsOf(of('window'));
  const ended = of('open').map((r) => ({ run: r, parts: endedBy(r, so.piece.creases) }));
  const interruptions = ended.flatMap((e) => e.parts);
  const outline = waste.length > 0 ? subtract([so.piece.outline], waste) : null;
  const draft: Piece = {
    ...so.piece,
    outline: outline ? (largest(outline) ?? so.piece.outline) : so.piece.outline,
    lines: [...so.piece.lines, ...lines],
    creases: [...so.piece.creases, ...creases],
    labels: [...so.piece.labels, ...known.labels],
    owned: [...(so.piece.owned ?? []), ...known.owned],
  };
  const flat = findFacets(draft, [...so.interruptions, ...interruptions]);
  const { labels, nameOf } = namesBeside(flat, creases, draft, id);
  return {
    piece: { ...draft, labels: [...draft.labels, ...labels] },
    lines,
    creases,
    labels,
    interruptions,
    waste,
    hosts: hostsIn(so.piece.id, flat, nameOf, so.piece.stock, (h) => creases.includes(h.crease)),
    landmarks: landmarksOf(flat, own, so.piece.id, id, nameOf),
    lacks: [
      ...lacks,
      ...ended
        .filter((e) => e.parts.length === 0)
        .map(({ run: { name } }) => ({ key: `open ${name}`, what: `its line ${name} ends no fold: none runs there` })),
    ],
  };
}

/** What lines may be measured from, in their own axes. */
export function surroundings(
  { so, placement, outline, places }: Pick<Ground, 'so' | 'placement' | 'outline' | 'places'>,
  numbers: Numbers,
): Surroundings {
  const move = ontoPiece(invert(placement));
  const mirrors = placement[10] < 0;
  let facets: FlatPattern['facets'] | undefined;
  const found = (): FlatPattern['facets'] => (facets ??= findFacets(so.piece, so.interruptions).facets);
  return {
    numbers,
    outline,
    crease: (mark: string): Straight | undefined => {
      const crease = so.piece.creases.find((c) => c.id === named(mark, places));
      return crease && { a: move(crease.a), b: move(crease.b) };
    },
    facet: (mark: string) => {
      const facet = found().find((f) => f.id === named(mark, places));
      return facet && mapRegion([facet.polygon], move, mirrors)[0];
    },
  };
}

const ontoPiece =
  (placement: Rigid) =>
  ([x, y]: Vec2): Vec2 => {
    const [u, v] = applyRigid(placement, [x, y, 0]);
    return [u, v];
  };

const linesAlong = (run: Run, mechanism: string): PatternLine[] =>
  stretchesOf(run).map(({ a, b }) =>
    run.line.role === 'mark'
      ? { role: 'mark', ...(run.line.side ? { side: run.line.side } : {}), a, b, mechanism }
      : { role: 'cut', a, b, mechanism },
  );

/** Creases of a run, one for each of its stretches. A valley of what is seen from the outside is a mountain inside. */
function creasesAlong(run: Run, { id, placement, standsOn, flatOpen, places }: Ground): CreaseLine[] {
  const { line, name } = run;
  if (line.role !== 'valley' && line.role !== 'mountain') return [];
  const valley = (line.role === 'valley') === placement[10] > 0;
  const sign = valley ? 1 : -1;
  const [closed, open] = line.lies ?? [null, flatOpen ? 0 : null];
  const folded = (deg: number | null): number | undefined => (deg === null ? undefined : sign * degToRad(deg) + 0);
  const follows =
    line.standsOn === null ? undefined : line.standsOn === undefined ? standsOn : named(line.standsOn, places);
  return stretchesOf(run).map(({ a, b }, k): CreaseLine => ({
    id: partId(id, line.partOf ?? (k === 0 ? name : `${name}-s${k + 1}`)),
    role: valley ? 'valley' : 'mountain',
    mechanism: id,
    a,
    b,
    ends: [folded(closed), folded(open)],
    ...(follows === undefined ? {} : { standsOn: follows }),
    ...(line.drive ? { drive: { ...line.drive, id: named(line.drive.id, places) } } : {}),
  }));
}

function windowsOf(runs: readonly Run[]): Region {
  for (const { closed, name } of runs)
    if (!closed) throw new ShapeError(`window ${name} is not closed: give it corners or a shape all round`);
  const byLine = new Map<OwnLine, Run[]>();
  for (const run of runs) byLine.set(run.line, [...(byLine.get(run.line) ?? []), run]);
  return [...byLine.values()].flatMap((own) => regionFromRings(own.map((r) => r.points)));
}

const endedBy = (run: Run, creases: readonly CreaseLine[]): Interruption[] =>
  stretchesOf(run).flatMap((stretch) =>
    creases.flatMap((crease) => {
      const part = partAlong(crease, stretch);
      return part ? [{ crease: crease.id, ...part }] : [];
    }),
  );

/** Facets beside new creases that have no name yet are called by the crease: `fold-left`, `fold-right`. */
function namesBeside(
  flat: FlatPattern,
  creases: readonly CreaseLine[],
  draft: Piece,
  id: string,
): { readonly labels: readonly FacetLabel[]; readonly nameOf: (facet: number) => string } {
  const taken = new Set(draft.labels.map((l) => l.name));
  const names = new Map<number, string>();
  for (const crease of creases)
    for (const { a, b } of flat.hinges.filter((h) => h.crease === crease))
      for (const [facet, side] of [
        [b, 'left'],
        [a, 'right'],
      ] as const) {
        // What has a name, or lies in paper that is someone's, keeps it.
        if (names.has(facet) || flat.facets[facet].mechanism !== undefined) continue;
        const stem = `${crease.id}-${side}`;
        let name = stem;
        for (let n = 2; taken.has(name); n++) name = `${stem}${n}`;
        names.set(facet, name);
        taken.add(name);
      }
  const labels = [...names].map(([facet, name]) => ({
    name,
    at: insidePoint(flat.facets[facet].polygon),
    mechanism: id,
  }));
  return { labels, nameOf: (facet) => names.get(facet) ?? flat.facets[facet].id };
}

/** The middle of each crease, by the name of its line. */
function landmarksOf(
  flat: FlatPattern,
  own: readonly OwnLine[],
  piece: string,
  id: string,
  nameOf: (facet: number) => string,
): Landmark[] {
  return own.flatMap(({ name }): Landmark[] => {
    const hinge = flat.hinges.find((h) => h.crease.id === partId(id, name));
    return hinge
      ? [
          {
            name: name.replace(/-/g, '_'),
            piece,
            facet: nameOf(hinge.b),
            at: lerp2(hinge.crease.a, hinge.crease.b, 0.5),
          },
        ]
      : [];
  });
}
