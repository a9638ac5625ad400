/**
 * Cuts, creases and windows that a person adds, and a kind turned into plain lines (docs/mechanisms.md). Axes: on a
 * crease x along it from its middle, y into side A; on a face those of its mount.
 */
import { partId } from '../../ids';
import { applyRigid, invert, placeOnSheet, type Rigid } from '../../linkage';
import { findFacets, type FlatPattern, type Interruption } from '../../pattern/facets';
import { insidePoint, largest, mapRegion, regionFromRings, subtract, type Region } from '../../plane/polygon';
import { lerp2, type Vec2 } from '../../plane/vec2';
import { ShapeError, type Shape } from '../../shapes/shape';
import { degToRad } from '../../units/angle';
import { hostsIn } from '../hosts-in';
import {
  EMPTY,
  listOf,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type CreaseLine,
  type FaceContext,
  type FacetLabel,
  type Lack,
  type Landmark,
  type ParameterValues,
  type PatternLine,
  type Piece,
  type PieceSoFar,
} from '../kind';
import type { Numbers } from './amount';
import { drawLines, partAlong, stretchesOf, type Run, type Straight, type Surroundings } from './draw';
import type { OwnLine } from './own-line';
import { changeText, movedParts, named, OWN_STOCK, type Parts, type Places } from './parts';

/** What it stands on, as far as lines need it. */
interface Ground {
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

export const linesOf = (values: ParameterValues): readonly OwnLine[] => values.lines as readonly OwnLine[];
export const partsOf = (values: ParameterValues): Parts | null => values.parts as unknown as Parts | null;
export const numbersOf = (values: ParameterValues): Numbers =>
  new Map(listOf(values, 'numbers').map((n) => [n.name as string, n.value as number]));

function contribute(values: ParameterValues, ground: Ground): Contribution {
  const numbers = numbersOf(values);
  const lines = linesOf(values);
  const kept = thawed(partsOf(values), ground);
  const onPaper = drawOn(
    lines.filter((l) => l.piece === undefined),
    numbers,
    ground,
    kept ?? NOTHING,
  );
  const pieces = (kept?.pieces ?? []).map((piece) => {
    const own = lines.filter((l) => l.piece !== undefined && partId(ground.id, l.piece) === piece.id);
    return drawOn(own, numbers, onOwnPiece(ground, piece), NOTHING);
  });
  const all = [onPaper, ...pieces];
  const strangers = lines.filter((l) => l.piece && !kept?.pieces.some((p) => p.id === partId(ground.id, l.piece!)));
  const known = new Set(kept?.hosts.map((h) => h.crease));
  return {
    ...EMPTY,
    ...kept,
    pieces: pieces.map(({ piece }) => piece),
    lines: onPaper.lines,
    hostCreases: onPaper.creases,
    labels: [...(kept?.labels ?? []), ...onPaper.labels],
    interruptions: [...(kept?.interruptions ?? []), ...all.flatMap((d) => d.interruptions)],
    waste: [...(kept?.waste ?? []), ...onPaper.waste],
    hosts: [...(kept?.hosts ?? []), ...all.flatMap((d) => d.hosts).filter((h) => !known.has(h.crease))],
    landmarks: [...(kept?.landmarks ?? []), ...all.flatMap((d) => d.landmarks)],
    unheld: [
      ...all.flatMap((d) => d.lacks),
      ...strangers.map((l) => ({ key: `piece ${l.name}`, what: `its line ${l.name} is on a piece it does not have` })),
    ],
    measures: measuresOf([...(kept?.landmarks ?? []), ...all.flatMap((d) => d.landmarks)]),
  };
}

/** The parts beside lines, in the axes of the pieces they are on and under its own names. */
function thawed(parts: Parts | null, { places, placement, stock }: Ground): Parts | null {
  if (!parts) return null;
  const whole = changeText(parts, (text) => named(text, places)) as Parts;
  const typed: Parts = {
    ...whole,
    bonds: whole.bonds.map((b) => ({ ...b, placement: Float64Array.from(b.placement) })),
    joints: whole.joints.map((j) => ({
      ...j,
      placement: Float64Array.from(j.placement),
      ends: [j.ends[0] ?? undefined, j.ends[1] ?? undefined],
    })),
    hosts: whole.hosts.map((h) => ({ ...h, ends: [h.ends[0] ?? undefined, h.ends[1] ?? undefined] })),
    pieces: whole.pieces.map((p) => ({ ...p, stock: p.stock === OWN_STOCK ? stock : p.stock })),
  };
  return movedParts(typed, places.piece, placement);
}

const onOwnPiece = (ground: Ground, piece: Piece): Ground => ({
  ...ground,
  so: { piece, interruptions: [] },
  placement: placeOnSheet([0, 0], [1, 0]),
  flatOpen: false,
});

const NOTHING: Pick<Parts, 'labels' | 'owned'> = { labels: [], owned: [] };

interface DrawnOn {
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
function drawOn(
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

/** Landmarks whose places are told as measures, at most. */
const MOST_MEASURED = 40;
const measuresOf =
  (landmarks: readonly Landmark[]): Contribution['measures'] =>
  (pose) =>
    Object.fromEntries(
      landmarks.slice(0, MOST_MEASURED).flatMap(({ name }) => {
        const at = pose.local(name);
        return at
          ? [
              [`${name}_y`, at[1]],
              [`${name}_z`, at[2]],
            ]
          : [];
      }),
    );

function buildOnCrease(values: ParameterValues, { id, host, so, stock, outline }: BuildContext): Contribution {
  return contribute(values, {
    id,
    so,
    placement: placeOnSheet(host.frame.origin, host.frame.along),
    places: { id, piece: host.piece, sideA: host.sideA, sideB: host.sideB, crease: host.crease },
    standsOn: host.crease,
    flatOpen: host.ends[1] === 0,
    stock,
    outline,
  });
}

function buildOnFace(values: ParameterValues, { id, face, so, stock, outline }: FaceContext): Contribution {
  return contribute(values, {
    id,
    so,
    placement: face.placement,
    places: { id, piece: face.piece, sideA: face.facet, sideB: '', crease: '' },
    standsOn: undefined,
    flatOpen: so.piece.mechanism !== id && so.piece.creases.every((c) => c.ends[1] === 0),
    stock,
    outline,
  });
}

/** The kind that lines of one's own are of. */
export const OWN_LINES = 'own-lines';

const NUMBER_NAME = { key: 'name', label: 'Name', unit: 'text', default: 'size', note: 'Used in amounts.' } as const;

/** A box step with three named numbers: something to begin from. */
const starter = (depth: number, height: number, width: number): ParameterValues => ({
  numbers: [
    { name: 'depth', value: depth },
    { name: 'height', value: height },
    { name: 'width', value: width },
  ],
  lines: [
    {
      name: 'slit',
      role: 'cut',
      from: { x: 'width/2', y: '-height' },
      to: { x: 'width/2', y: 'depth' },
      mirror: 'middle',
    },
    { name: 'gap', role: 'open', from: { x: '-width/2' }, to: { x: 'width/2' } },
    { name: 'base', role: 'valley', from: { x: '-width/2', y: 'depth' }, to: { x: 'width/2', y: 'depth' } },
    {
      name: 'ridge',
      role: 'mountain',
      from: { x: '-width/2', y: 'depth-height' },
      to: { x: 'width/2', y: 'depth-height' },
    },
    { name: 'wall', role: 'valley', from: { x: '-width/2', y: '-height' }, to: { x: 'width/2', y: '-height' } },
  ] satisfies readonly OwnLine[],
});

export const ownLines: CreaseKind = {
  id: OWN_LINES,
  mount: 'crease',
  title: 'Lines of your own',
  says: 'Cuts, creases and windows that you add, measured from what is there; sizes that you name move them.',
  sign: 'M2 13 H14 M4 13 V4 M4 4 L12 8 M12 8 V13 M7 10 L10 11',
  fitting: ({ lengthMm, reachA, reachB }, whole) =>
    starter(whole(reachA * 0.3, 4), whole(reachB * 0.2, 3), whole(lengthMm * 0.3, 5)),
  onFace: {
    natural: 'inside',
    order: ['Cut and score its lines with the piece they are on.'],
    fitting: ({ widthMm, heightMm }, whole) => {
      const [wide, high] = [whole(widthMm * 0.3, 4), whole(heightMm * 0.3, 4)];
      return {
        numbers: [
          { name: 'width', value: wide },
          { name: 'height', value: high },
        ],
        lines: [
          {
            name: 'flap',
            role: 'cut',
            corners: [
              { x: '-width/2', y: '-height/2' },
              { x: '-width/2', y: 'height/2' },
              { x: 'width/2', y: 'height/2' },
              { x: 'width/2', y: '-height/2' },
            ],
          },
          {
            name: 'hinge',
            role: 'valley',
            from: { x: '-width/2', y: '-height/2' },
            to: { x: 'width/2', y: '-height/2' },
          },
        ] satisfies readonly OwnLine[],
      };
    },
    build: buildOnFace,
  },
  turns: (values) => {
    const sizes = listOf(values, 'numbers').map((_, k) => `numbers[${k}].value`);
    return { away: sizes, along: sizes, behind: sizes, closing: sizes, size: sizes, relief: sizes, strength: sizes };
  },
  ownPiece: (v) => (partsOf(v)?.pieces.length ?? 0) > 0,
  sizeOf: (v) => {
    const count = linesOf(v).length;
    return count === 1 ? 'one line' : `${count} lines`;
  },
  parameters: [
    {
      key: 'numbers',
      label: 'Sizes',
      unit: 'list',
      default: [],
      fields: [
        NUMBER_NAME,
        {
          key: 'value',
          label: 'Size',
          unit: 'mm',
          default: 10,
          min: -2000,
          max: 2000,
          note: 'What the name stands for.',
        },
      ],
      note: 'Named numbers that lines are measured by.',
    },
    { key: 'lines', label: 'Lines', unit: 'lines', default: [], note: 'Each with what it is for and how it runs.' },
    {
      key: 'parts',
      label: 'Parts',
      unit: 'parts',
      default: null,
      note: 'Pieces of its own and what is glued and moves, of a kind that was turned into plain lines.',
    },
  ],
  editors: ['lines'],
  build: buildOnCrease,
};
