/** The plain base: two leaves that meet at the gutter, with or without a liner glued inside (docs/mechanisms.md). */
import type { Interruption } from '../../pattern/facets';
import {
  contains,
  insidePoint,
  intersect,
  largest,
  mapRegion,
  offset as grow,
  rectangle,
  regionBox,
  unite,
  type Polygon,
  type Region,
} from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { levelAt, widthOfAll, withoutIntervals } from '../../shapes/level';
import { withFoot } from '../../shapes/contact';
import { ShapeError } from '../../shapes/shape';
import { identity } from '../../linkage';
import { cutByCorners, edgeParameters, isShapedBySides } from './edges';
import {
  LABEL_STEP,
  num,
  shapeOf,
  type Base,
  type BaseContext,
  type BaseKind,
  type Bond,
  type Host,
  type NamedState,
  type Parameter,
  type ParameterValues,
  type Piece,
  THE_REST,
  type BaseStep,
} from '../kind';
import { openTo } from '../../drives';
import { CARD } from '../../ids';
import { GLUE_SET_BACK_MM } from '../on-crease/step-fold';
import { SAME_LEVEL_MM } from '../../tolerance';

export const GUTTER = 'card.gutter';
/**
 * Adhesive under a liner stays this far off the gutter (mm), so that both folds stay free; common practice, no
 * source.
 */
const LINER_RELIEF_MM = 2;

const FOLD_STEP: BaseStep = {
  title: 'Fold the base',
  text: 'Fold it along its score, press the fold flat, and open it again.',
  openDeg: 120,
  parts: ['leafA', 'leafB'],
  folds: [THE_REST],
};
/** Glue of a liner ends so far from its fold (common practice, no source). */
const OFF_THE_GUTTER_MM = 2;
/** What a reader turns. */
const FRONTS: ReadonlySet<string> = new Set(['leafB', 'coverLeafB']);
const LINER_STEP: BaseStep = {
  title: 'Glue the liner in',
  text: (length) =>
    `One leaf at a time, adhesive ${length(OFF_THE_GUTTER_MM)} off the gutter; ` +
    'fold the card before the second leaf sets.',
  openDeg: 150,
  parts: ['leafA', 'leafB', 'coverLeafA', 'coverLeafB'],
  glue: [THE_REST],
};

const foldCardParameters: readonly Parameter[] = [
  { key: 'gutter', label: 'Gutter', unit: 'mm', default: 200, min: 10, max: 2000, note: 'Length of the fold.' },
  {
    key: 'reachA',
    label: 'Reach of the back',
    unit: 'mm',
    default: 140,
    min: 10,
    max: 1000,
    note: 'From the gutter to the fore edge of the leaf that lies still.',
  },
  {
    key: 'reachB',
    label: 'Reach of the front',
    unit: 'mm',
    default: 140,
    min: 10,
    max: 1000,
    note: 'From the gutter to the fore edge of the leaf that turns.',
  },
  {
    key: 'fold',
    label: 'Fold at the',
    unit: 'choice',
    default: 'side',
    choices: ['side', 'top'],
    note: 'Where the fold lies when the card is read.',
  },
  {
    key: 'shape',
    label: 'Shape',
    unit: 'shape',
    default: null,
    highAs: 'reachA',
    note:
      'A silhouette doubled about its foot: front and back joined along the fold, as high as the ' +
      'reach of the back before its foot is trimmed. A plain card unless set.',
  },
  {
    key: 'hinge',
    label: 'Least joined fold',
    unit: 'mm',
    default: 40,
    min: 5,
    max: 2000,
    note:
      'Of a shaped card: front and back are joined along at least this; the foot is trimmed by ' +
      'the least that gives it.',
  },
  {
    key: 'liner',
    label: 'Liner margin',
    unit: 'mm',
    default: 0,
    min: 0,
    max: 100,
    note: 'The pop-up page as a sheet of its own, this much smaller on every side; 0 for none.',
  },
  ...edgeParameters,
];

/** Every drive at rest. */
export const POSTED: NamedState = { id: 'post', name: 'For the post', drives: {} };
/** How far a card is opened to look into it, degrees; common practice, no source. */
const SEEN_DEG = 90;

const isLined = (values: ParameterValues): boolean => num(values, 'liner') > 0;

export const foldCard: BaseKind = {
  id: 'fold-card',
  mount: 'base',
  title: 'Plain card',
  says: 'Two leaves that meet at the gutter, with or without a liner, or a silhouette doubled about its fold.',
  sign: 'M1 13 L8 5 L15 13',
  parameters: foldCardParameters,
  order: (values) => (isLined(values) ? [FOLD_STEP, LINER_STEP] : [FOLD_STEP]),
  // A shaped base is as wide as its shape makes it.
  silent: (values) => (shapeOf(values, 'shape') ? ['gutter', 'reachB', 'fold', 'edges', 'corners'] : ['hinge']),
  briefOnly: ['fold'],
  brief: [
    'fold',
    'gutter',
    {
      keys: ['reachA', 'reachB'],
      label: 'Reach of each leaf',
      note: 'From the gutter to the fore edge. Each leaf has its own in the panel of the base.',
    },
    'liner',
  ],
  fitting: ({ gutter, reach }) => ({ gutter, reachA: reach, reachB: reach, fold: 'side', liner: 0 }),
  sizes: (v) => ({ gutter: num(v, 'gutter'), reach: Math.max(num(v, 'reachA'), num(v, 'reachB')) }),
  turns: () => ({ away: ['reach'], along: ['gutter'], size: ['reach', 'gutter'] }),
  levers: { reach: ['reachA', 'reachB'] },
  sizeOf: (v, say) => (shapeOf(v, 'shape') ? 'shaped' : `${say(num(v, 'gutter'))} × ${say(num(v, 'reachA'))}`),
  // It is held, or lies on a table: that it is left standing is for its maker to say.
  states: () => [POSTED, { id: 'shelf', name: 'As it is looked at', drives: openTo(SEEN_DEG) }],
  crease: GUTTER,
  words: { leafA: 'back', leafB: 'front', coverLeafA: 'back cover', coverLeafB: 'front cover' },
  // Of a card that hangs from its fold the leaf before its reader is the one that lies still: its foot is a fore edge.
  face: (values, side) =>
    side === 'outside' ? (isLined(values) ? 'coverLeafB' : 'leafB') : values.fold === 'top' ? 'leafA' : 'leafB',
  behind: 'leafA',
  // Folded at the side it is a book with its spine at the left of the cover, leaf B; at the top it hangs from its fold.
  up: ({ fold }, facet, side) =>
    fold === 'side' ? [-1, 0] : side === 'outside' && FRONTS.has(facet) ? [0, 1] : [0, -1],
  build: buildFoldCard,
};

const LEAD = { crease: GUTTER, still: 'leafA', turning: 'leafB' };

function buildFoldCard(values: ParameterValues, context: BaseContext): Base {
  const { stock, pageStock, outline } = context;
  const shape = shapeOf(values, 'shape');
  if (shape) return shaped(values, silhouette(values, outline(shape)), context);
  if (isShapedBySides(values)) return shaped(values, cutByCorners(values, context), context);
  const [gutter, reachA, reachB, liner] = ['gutter', 'reachA', 'reachB', 'liner'].map((k) => num(values, k));
  const lined = liner > 0;
  const page = leaves(
    lined ? 'liner' : CARD,
    GUTTER,
    'leaf',
    lined ? 'Liner' : 'Card',
    lined ? pageStock : stock,
    gutter - 2 * liner,
    reachA - liner,
    reachB - liner,
  );
  const host: Host = {
    crease: GUTTER,
    piece: page.id,
    frame: { origin: [0, 0], along: [1, 0] },
    lengthMm: gutter - 2 * liner,
    sideA: 'leafA',
    sideB: 'leafB',
    sign: 1,
    ends: [Math.PI, 0],
    reachA,
    reachB,
    stock: page.stock,
  };
  const sizes = {
    hinge_mm: gutter,
    ...(lined ? { liner_width_mm: reachA + reachB - 2 * liner, liner_height_mm: gutter - 2 * liner } : {}),
  };
  if (!lined) return { pieces: [page], bonds: [], hosts: [host], lead: LEAD, measures: () => sizes, interruptions: [] };
  const base = leaves(CARD, 'card.cover', 'coverLeaf', 'Card', stock, gutter, reachA, reachB);
  const half = gutter / 2 - liner - GLUE_SET_BACK_MM;
  const under = (side: 'A' | 'B', reach: number) => {
    const [y0, y1] = [LINER_RELIEF_MM, reach - liner - GLUE_SET_BACK_MM];
    const outline = side === 'A' ? rectangle(-half, y0, half, y1) : rectangle(-half, -y1, half, -y0);
    return {
      id: `card.glue${side}`,
      mechanism: CARD,
      outline,
      facet: `leaf${side}`,
      onto: { piece: CARD, facet: `coverLeaf${side}`, outline },
    };
  };
  const bond = (side: 'A' | 'B'): Bond => ({
    id: `card.liner${side}`,
    a: { piece: 'liner', facet: `leaf${side}` },
    b: { piece: CARD, facet: `coverLeaf${side}` },
    placement: identity(),
  });
  return {
    pieces: [{ ...page, glue: [under('A', reachA), under('B', reachB)] }, base],
    bonds: [bond('A'), bond('B')],
    hosts: [host],
    lead: LEAD,
    measures: () => sizes,
    interruptions: [],
  };
}

/** A silhouette above the fold, the same below it. */
function silhouette(values: ParameterValues, drawn: Region): Polygon {
  const [reach, hinge] = ['reachA', 'hinge'].map((k) => num(values, k));
  // Its size is what was asked for, the trim comes off: scaled back to the reach it would be wider than it was typed.
  const { region: half, missing } = withFoot(drawn, reach, hinge);
  if (missing.length > 0)
    throw new ShapeError(
      `its shape is nowhere ${hinge} mm wide at a reach of ${reach} mm, so front and back cannot be ` +
        `joined over that; ask for a shorter joined fold`,
    );
  const main = largest(half)!;
  return unite(
    [main],
    mapRegion([main], ([x, y]): Vec2 => [x, -y], true),
  )[0];
}

/** A base of any outline that its fold runs through, its liner as far inside it; the gutter where both are joined. */
function shaped(values: ParameterValues, outline: Polygon, { stock, pageStock }: BaseContext): Base {
  const margin = num(values, 'liner');
  const lined = margin > 0;
  // Round where the card runs in: as far from it there as everywhere.
  const page = lined ? largest(grow([outline], -margin, 'round')) : outline;
  if (!page) throw new ShapeError(`a liner margin of ${margin} mm leaves nothing of the shaped liner`);
  const base = shapedPiece(CARD, lined ? 'card.cover' : GUTTER, lined ? 'coverLeaf' : 'leaf', 'Card', stock, outline);
  if (!lined)
    return {
      pieces: [base.piece],
      bonds: [],
      hosts: [base.host],
      lead: LEAD,
      measures: () => ({ hinge_mm: base.joinedMm }),
      interruptions: base.interruptions,
    };
  const top = shapedPiece('liner', GUTTER, 'leaf', 'Liner', pageStock, page);
  const glue = (['A', 'B'] as const).flatMap((side) => {
    const strip =
      side === 'A' ? rectangle(-1e4, LINER_RELIEF_MM, 1e4, 1e4) : rectangle(-1e4, -1e4, 1e4, -LINER_RELIEF_MM);
    return intersect(grow([page], -GLUE_SET_BACK_MM), [{ outer: strip, holes: [] }]).map((p, k) => ({
      id: `card.glue${side}${k === 0 ? '' : k + 1}`,
      mechanism: CARD,
      outline: p.outer,
      facet: `leaf${side}`,
      onto: { piece: CARD, facet: `coverLeaf${side}`, outline: p.outer },
    }));
  });
  const bond = (side: 'A' | 'B'): Bond => ({
    id: `card.liner${side}`,
    a: { piece: 'liner', facet: `leaf${side}` },
    b: { piece: CARD, facet: `coverLeaf${side}` },
    placement: identity(),
  });
  const box = regionBox([page]);
  return {
    pieces: [{ ...top.piece, glue }, base.piece],
    bonds: [bond('A'), bond('B')],
    hosts: [{ ...top.host, reachA: base.host.reachA, reachB: base.host.reachB }],
    lead: LEAD,
    measures: () => ({
      hinge_mm: base.joinedMm,
      liner_width_mm: box.max[1] - box.min[1],
      liner_height_mm: box.max[0] - box.min[0],
    }),
    interruptions: [...top.interruptions, ...base.interruptions],
  };
}

function shapedPiece(
  id: string,
  crease: string,
  leaf: string,
  title: string,
  stock: string,
  outline: Polygon,
): { piece: Piece; host: Host; joinedMm: number; interruptions: Interruption[] } {
  const joined = levelAt([outline], SAME_LEVEL_MM);
  const [x0, x1] = [joined[0].from, joined[joined.length - 1].to];
  const label = (sign: 1 | -1): Vec2 => {
    // Just inside the tip, where nothing that stands on the gutter reaches.
    const tip = outline.outer.reduce((best, p) => (sign * p[1] > sign * best[1] ? p : best));
    const near: Vec2[] = [
      [0, -1],
      [0.5, -1],
      [-0.5, -1],
    ].map(([dx, dy]) => [tip[0] + dx * LABEL_STEP, tip[1] + sign * dy * LABEL_STEP]);
    return near.find((p) => contains(outline, p)) ?? insidePoint(outline);
  };
  const host: Host = {
    crease,
    piece: id,
    frame: { origin: [(x0 + x1) / 2, 0], along: [1, 0] },
    lengthMm: x1 - x0,
    sideA: `${leaf}A`,
    sideB: `${leaf}B`,
    sign: 1,
    ends: [Math.PI, 0],
    reachA: regionBox([outline]).max[1],
    reachB: -regionBox([outline]).min[1],
    stock,
  };
  const gaps = withoutIntervals([{ from: x0, to: x1 }], joined);
  return {
    host,
    joinedMm: widthOfAll(joined),
    interruptions: gaps.map((g) => ({ crease, from: g.from - x0, to: g.to - x0 })),
    piece: {
      id,
      title,
      stock,
      mechanism: CARD,
      outline,
      lines: [],
      glue: [],
      creases: [{ id: crease, role: 'valley', mechanism: CARD, a: [x0, 0], b: [x1, 0], ends: [Math.PI, 0] }],
      labels: [
        { name: `${leaf}A`, at: label(1), mechanism: CARD },
        { name: `${leaf}B`, at: label(-1), mechanism: CARD },
      ],
    },
  };
}

function leaves(
  id: string,
  crease: string,
  leaf: string,
  title: string,
  stock: string,
  length: number,
  reachA: number,
  reachB: number,
): Piece {
  const half = length / 2;
  return {
    id,
    title,
    stock,
    mechanism: CARD,
    outline: { outer: rectangle(-half, -reachB, half, reachA), holes: [] },
    lines: [],
    creases: [{ id: crease, role: 'valley', mechanism: CARD, a: [-half, 0], b: [half, 0], ends: [Math.PI, 0] }],
    glue: [],
    labels: [
      { name: `${leaf}A`, at: [-half + LABEL_STEP, reachA - LABEL_STEP], mechanism: CARD },
      { name: `${leaf}B`, at: [-half + LABEL_STEP, -reachB + LABEL_STEP], mechanism: CARD },
    ],
  };
}
