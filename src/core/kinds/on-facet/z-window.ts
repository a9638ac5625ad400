/**
 * A focal piece on a pleat behind the cover, seen through a window in that (docs/mechanisms.md). Mount axes, mm: the
 * strip is glued by its first panel, its crease toward the edge at the reader's right; the second panel comes back over
 * that, the third goes out again and carries the piece. Shut, the piece lies in the window.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { applyRigid, invert, shiftBy } from '../../linkage';
import { findFacets } from '../../pattern/facets';
import { edgesGap, edgesOf } from '../../plane/gap';
import {
  boxOf,
  intersect,
  largest,
  mapRegion,
  offset,
  rectangle,
  regionArea,
  regionBox,
  subtract,
} from '../../plane/polygon';
import type { Polygon, Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { ShapeError } from '../../shapes/shape';
import {
  EMPTY,
  num,
  shapeOf,
  type Contribution,
  type CreaseLine,
  type FaceContext,
  type FaceKind,
  type GlueArea,
  type ParameterValues,
} from '../kind';
import { lengths } from '../parameters';
import { centred, demand, movedBy } from './common';
import { firstLevel, onFace, sheet, toPiece } from './sheets';

/** Room round the piece as it passes the window; common practice, no source. */
const PASS_MM = 0.5;
/** Paper of the cover round its window; common practice, no source. */
const FRAME_MM = 6;
/** Least width of the bond that carries the piece; common practice, no source. */
const BOND_MM = 6;
const GLUE_INSET_MM = 3;
/** The leaf that closes over each. */
const OTHER_LEAF: Readonly<Record<string, string>> = { leafA: 'leafB', leafB: 'leafA' };

const box = (x0: number, y0: number, x1: number, y1: number): Polygon => ({
  outer: rectangle(x0, y0, x1, y1),
  holes: [],
});

/** Where the parts lie, mm. */
interface Sizes {
  readonly z: readonly [first: number, second: number, third: number];
  readonly high: number;
  /** The strip's outer crease. */
  readonly crease: number;
}

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, caliperMm, outline } = context;
  if (face.side !== 'inside') throw new ShapeError('it goes inside the card, on the leaf behind the cover');
  const sizes: Sizes = {
    z: [num(values, 'z1'), num(values, 'z2'), num(values, 'z3')],
    high: num(values, 'stripHeight'),
    crease: boxOf(face.outline.outer).max[0] - num(values, 'edgeGap'),
  };
  const { z, high, crease } = sizes;
  const [z1, z2, z3] = z;
  const level = firstLevel(context);
  const strip = sheet(context, 'strip', 'Strip', box(crease - z1, -high / 2, crease + z2 + z3, high / 2), level, [], {
    creases: creasesOf(id, sizes),
    labels: [
      { name: partId(id, 'z1'), at: [crease - z1 / 2, 0], mechanism: id },
      { name: partId(id, 'z2'), at: [crease + z2 / 2, 0], mechanism: id },
      { name: partId(id, 'z3'), at: [crease + z2 + z3 / 2, 0], mechanism: id },
    ],
  });
  const middle: Vec2 = [(values.windowX as number | null) ?? crease - z2 + z3 / 2, num(values, 'windowY')];
  const window = movedBy(centred(outline(shapeOf(values, 'window')!)), middle);
  const focal = largest(movedBy(centred(outline(shapeOf(values, 'piece')!)), middle));
  if (!focal) throw new ShapeError('its piece has no area; choose another shape');
  const piece = sheet(context, 'piece', 'Piece', focal, level + caliperMm);
  const third = box(crease - z2, -high / 2, crease - z2 + z3, high / 2);
  const held = intersect([focal], [third]);
  const cover = coverOf(context, window);
  const drive: Drive = { id: partId(id, 'pull'), label: 'pull', unit: 'deg', from: 0, to: 180, rest: 0 };
  const measures = measured(sizes, { window, focal, held, cover: coverLeaf(context) });
  const stripFacet = (name: string) => ({ piece: strip.piece.id, facet: partId(id, name) });
  const glued = gluesOf(context, sizes, held, [strip.piece.id, piece.piece.id]);
  return {
    ...EMPTY,
    pieces: [
      { ...strip.piece, glue: glued.strip },
      { ...piece.piece, glue: glued.piece },
    ],
    bonds: [
      {
        id: `${strip.piece.id}-bond`,
        a: { piece: face.piece, facet: face.facet },
        b: stripFacet('z1'),
        placement: onFace(face, level),
      },
      {
        id: `${piece.piece.id}-bond`,
        a: stripFacet('z3'),
        b: { piece: piece.piece.id, facet: piece.piece.id },
        // Drawn where it lies in the window, with the pleat folded: the third panel lies back by twice the second.
        placement: shiftBy([2 * z2, 0, caliperMm]),
      },
    ],
    drives: [drive],
    waste: cover ?? [],
    unheld: [
      ...(cover ? [] : [{ key: 'cover', what: 'no cover closes over it: it stands on a leaf of a card of one sheet' }]),
      ...(towardFold(context)
        ? [{ key: 'way', what: 'it would be drawn out toward the fold: turn it half round' }]
        : []),
    ],
    contradictions: [
      ...order('second', z2, 'first', z1, 'would reach past the gutter side of the first'),
      ...order('third', z3, 'second', z2, 'would reach past the edge of the card'),
    ],
    landmarks: [{ name: 'piece', piece: piece.piece.id, facet: piece.piece.id, at: middle }],
    measures: () => measures,
    demands: [
      demand('bind', 'pass', 'round the piece the window leaves', measures.pass_mm, {
        least: PASS_MM,
        levers: ['windowX', 'windowY'],
        part: piece.piece.id,
      }),
      demand('web', 'frame', 'round its window the cover keeps', measures.frame_mm, {
        least: FRAME_MM,
        blocksUnder: FRAME_MM / 2,
        levers: ['windowX', 'windowY', 'at.x', 'at.y'],
        part: strip.piece.id,
      }),
      demand('captive', 'bond', 'the piece is held on the third panel over', measures.bond_width_mm, {
        least: BOND_MM,
        levers: ['z3', 'windowX'],
        part: piece.piece.id,
      }),
    ],
  };
}

/** Whether the reader's right of the face is nearer to the gutter than its middle. */
function towardFold({ face: { placement, outline } }: FaceContext): boolean {
  const { min, max } = boxOf(outline.outer);
  const [x, y] = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const middle = placement[4] * x + placement[5] * y + placement[7];
  return placement[4] * Math.sign(middle) < -0.5;
}

/** One panel may not be longer than the one under it. */
const order = (longer: string, a: number, shorter: string, b: number, why: string) =>
  a <= b ? [] : [{ key: longer, what: `its ${longer} panel is longer than its ${shorter}, and ${why}.`, mm: a - b }];

/** Both creases turn with the pull, as a pleat: shut, the first is folded forward, the second back. */
function creasesOf(id: string, { z: [, z2], high, crease }: Sizes): CreaseLine[] {
  const drive = { id: partId(id, 'pull'), at: Math.PI, rate: -1 };
  const at = (x: number): Pick<CreaseLine, 'a' | 'b'> => ({ a: [x, -high / 2], b: [x, high / 2] });
  const common = { mechanism: id, drive };
  return [
    { ...common, ...at(crease), id: partId(id, 'fold1'), role: 'valley', ends: [Math.PI, Math.PI] },
    { ...common, ...at(crease + z2), id: partId(id, 'fold2'), role: 'mountain', ends: [-Math.PI, -Math.PI] },
  ];
}

/**
 * The window in the axes of the face's piece, on the leaf that closes over the face: its mirror image about the gutter.
 * Null where no such leaf is of the same sheet.
 */
function coverOf({ face }: FaceContext, window: Region): Region | null {
  if (!OTHER_LEAF[face.facet]) return null;
  return mapRegion(toPiece(face, window), ([x, y]): Vec2 => [x, -y], true);
}

/** The leaf that closes over the face, in the mount's axes; where there is none, the face itself. */
function coverLeaf({ face, so }: FaceContext): Polygon {
  const leaf = findFacets(so.piece, so.interruptions).facets.find((f) => f.id === OTHER_LEAF[face.facet]);
  if (!leaf) return face.outline;
  const back = invert(face.placement);
  const shut = ([x, y]: Vec2): Vec2 => {
    const [u, v] = applyRigid(back, [x, -y, 0]);
    return [u, v];
  };
  return mapRegion([{ outer: leaf.polygon.outer, holes: [] }], shut, face.side === 'inside')[0];
}

function measured(
  { z: [, z2, z3] }: Sizes,
  { window, focal, held, cover }: { window: Region; focal: Polygon; held: Region; cover: Polygon },
): Record<string, number> {
  const beyond = (inner: Region, outer: Region): number => Math.sqrt(regionArea(subtract(inner, outer)));
  const inside = (inner: Region, outer: Region): number => {
    const past = beyond(inner, outer);
    return past > 1e-3 ? -past : edgesGap(edgesOf(inner), edgesOf(outer));
  };
  const bond = held.length > 0 ? regionBox(held) : null;
  return {
    pass_mm: inside([focal], window),
    frame_mm: inside(window, [cover]),
    bond_width_mm: bond ? bond.max[0] - bond.min[0] : 0,
    extension_mm: z2 + z3,
    closed_layers: 4,
  };
}

function gluesOf(
  { id, face }: FaceContext,
  { z: [z1, z2], high, crease }: Sizes,
  held: Region,
  [strip, piece]: readonly string[],
): { strip: GlueArea[]; piece: GlueArea[] } {
  const under = box(
    crease - z1 + GLUE_INSET_MM,
    -high / 2 + GLUE_INSET_MM,
    crease - GLUE_INSET_MM,
    high / 2 - GLUE_INSET_MM,
  );
  const patch = largest(offset(held, -GLUE_INSET_MM / 2));
  const onto = { piece: face.piece, facet: face.facet, outline: toPiece(face, [under])[0].outer };
  return {
    strip: [{ id: `${strip}-glue`, mechanism: id, outline: under.outer, facet: partId(id, 'z1'), onto }],
    piece: patch
      ? [
          {
            id: `${piece}-glue`,
            mechanism: id,
            outline: patch.outer,
            facet: piece,
            onto: {
              piece: strip,
              facet: partId(id, 'z3'),
              outline: patch.outer.map(([x, y]): Vec2 => [x + 2 * z2, y]),
            },
          },
        ]
      : [],
  };
}

const size = lengths(1, 1000);

export const zWindow: FaceKind = {
  id: 'z-window',
  mount: 'face',
  natural: 'inside',
  behindCover: true,
  title: 'Window on a pleat',
  says: 'A piece that shows through a window in the cover and stays on a pleat that is drawn out behind it.',
  sign: 'M1 13 H15 L5 10 H15 M1 4 H5 M11 4 H15 M6 7 H10',
  order: () => [
    {
      id: 'window',
      text: 'Cut the window before anything covers the leaf, and keep what falls out as a gauge.',
      parts: [],
    },
    {
      id: 'strip',
      text: 'Fold the strip back and out again; glue its first panel in the back leaf, its crease at the fore edge.',
      parts: ['z1', 'z2', 'z3'],
      folds: ['fold1', 'fold2'],
      glue: ['strip-glue'],
      leaves: ['z2', 'z3'],
    },
    {
      id: 'piece',
      text: 'Shut the card, put glue on the third panel only, and press the piece onto it through the window.',
      parts: ['piece', 'z3'],
      glue: ['piece-glue'],
    },
  ],
  fitting: ({ widthMm, heightMm }, whole) => {
    const z1 = whole(widthMm * 0.92, 20);
    const z2 = whole(widthMm * 0.46, 10);
    const rect = (part: number) => ({
      rect: { width: whole(widthMm * part, 8), height: whole(heightMm * part, 8) },
    });
    return { z1, z2, z3: z2, stripHeight: whole(heightMm * 0.9, 20), window: rect(0.32), piece: rect(0.28) };
  },
  turns: () => ({
    place: ['at.x', 'at.y', 'windowX', 'windowY'],
    away: ['z3', 'z2', 'z1'],
    along: ['stripHeight'],
    closing: ['z2', 'z3'],
    size: ['stripHeight', 'z3'],
  }),
  words: {
    z1: 'first panel',
    z2: 'second panel',
    z3: 'third panel',
    fold1: 'outer fold',
    fold2: 'inner fold',
  },
  sizeOf: (v, say) => `pleat of ${say(num(v, 'z2'))} and ${say(num(v, 'z3'))}`,
  parameters: [
    size('z1', 'First panel', 101.6, 'Glued inside the back leaf, its crease toward the edge.'),
    size('z2', 'Second panel', 50.8, 'Comes back over the first.'),
    size('z3', 'Third panel', 50.8, 'Goes out again, and carries the piece.'),
    size('stripHeight', 'Height of the strip', 127, 'Along its creases.'),
    {
      key: 'edgeGap',
      label: 'Crease off the edge',
      unit: 'mm',
      default: 1,
      min: 0,
      max: 200,
      note: 'From the edge of the leaf.',
    },
    {
      key: 'window',
      label: 'Window',
      unit: 'shape',
      default: { rect: { width: 40, height: 58 } },
      note: 'Cut out of the cover, as it is seen from the front.',
    },
    {
      key: 'piece',
      label: 'Piece',
      unit: 'shape',
      default: { rect: { width: 36, height: 54 } },
      note: 'In the middle of the window: it must pass it all round.',
    },
    {
      key: 'windowX',
      label: 'Window, across',
      unit: 'mm',
      default: null,
      min: -1000,
      max: 1000,
      note: 'From the middle of the place; over the middle of the third panel unless said.',
    },
    { key: 'windowY', label: 'Window, up', unit: 'mm', default: 0, min: -1000, max: 1000, note: 'From the same.' },
  ],
  build,
};
