/**
 * Cuts, creases and windows that a person adds, and a kind turned into plain lines (docs/mechanisms.md). Axes: on a
 * crease x along it from its middle, y into side A; on a face those of its mount.
 */
import { partId } from '../../ids';
import { placeOnSheet } from '../../linkage';
import {
  EMPTY,
  listOf,
  THE_REST,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type FaceContext,
  type FaceStep,
  type Landmark,
  type ParameterValues,
  type Piece,
} from '../kind';
import { namesIn, type Numbers } from './amount';
import { drawOn, type Ground } from './on-piece';
import { amountsOf, heldBy, type OwnLine } from './own-line';
import { changeText, movedParts, named, OWN_STOCK, type Parts } from './parts';

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

/** A number that lines ask for and nobody has named; null where all are known. */
function unknownNumbers(known: Numbers, lines: readonly OwnLine[]): string | null {
  for (const line of lines)
    for (const asked of amountsOf(line).flatMap(namesIn))
      if (!known.has(asked)) return `line ${line.name} is measured by "${asked}", which is no size of it`;
  return null;
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

const PIECES_STEP: FaceStep = {
  id: 'pieces',
  text: 'Put its own pieces together, and glue each where its area is drawn.',
  parts: [THE_REST],
  glue: [THE_REST],
  takes: THE_REST,
  foam: true,
};

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
    order: (values) => [
      {
        id: 'lines',
        text: 'Cut and score its lines with the piece they are on, and fold what it creases.',
        parts: [],
        folds: [THE_REST],
      },
      ...(partsOf(values)?.pieces.length ? [PIECES_STEP] : []),
    ],
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
      entry: 'Size',
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
  hangsOn: (values) => linesOf(values).flatMap(heldBy),
  wrong: (values) => unknownNumbers(numbersOf(values), linesOf(values)),
  namedEntry: (values, list, k) => (list === 'numbers' ? (listOf(values, list)[k]?.name as string) : undefined),
  editors: ['lines'],
  build: buildOnCrease,
};
