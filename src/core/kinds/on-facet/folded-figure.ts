/**
 * A figure folded about a line and glued by one half: the other half stands up by hand, and lies flat in the post
 * (docs/mechanisms.md). Drawn with the fold along v = 0: the free half at v > 0, the glued one below.
 *
 *       ╱╲  free half          v
 *      ╱  ╲                    │
 *     ─────── fold             └── u
 *      ╲░░╱  ░ glue
 *       ╲╱
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { boxOf, insidePoint, intersect, largest, mapRegion, offset, rectangle, regionBox } from '../../plane/polygon';
import type { Polygon, Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { levelAt, widthOfAll } from '../../shapes/level';
import { standing } from '../../shapes/outline';
import { ShapeError } from '../../shapes/shape';
import { SAME_LEVEL_MM } from '../../tolerance';
import { EMPTY, num, shapeOf, type Contribution, type CreaseLine, type FaceContext, type FaceKind } from '../kind';
import type { ParameterValues } from '../kind';
import { centred, demand } from './common';
import { firstLevel, onFace, patch, sheet, type Sheet } from './sheets';

/** Adhesive stays this far off the fold and the edges, mm; common practice, no source. */
const GLUE_INSET_MM = 1.5;
/** A half is held by no narrower a patch, mm; common practice, no source. */
const BOND_MM = 6;
/** The halves hang together along no less of their fold, mm; common practice, no source. */
const FOLD_MM = 5;

const HALVES = ['left', 'right', 'lower', 'upper'] as const;
type Half = (typeof HALVES)[number];
/** From the glued half to the free one, as its reader sees it. */
const TO_FREE: Readonly<Record<Half, Vec2>> = { left: [1, 0], right: [-1, 0], lower: [0, 1], upper: [0, -1] };

/** How a figure lies about its fold. */
interface Laid {
  /** About the fold: u along it, v to the free half. */
  readonly whole: Region;
  readonly free: Polygon;
  readonly glued: Polygon;
  /** From there to the mount's axes. */
  readonly back: (p: Vec2) => Vec2;
}

function laidOut(values: ParameterValues, outline: FaceContext['outline']): Laid {
  const [nx, ny] = TO_FREE[values.glued as Half];
  const at = num(values, 'fold');
  const figure = centred(standing(outline(shapeOf(values, 'shape')!), values.figureHeight as number | null));
  const whole = mapRegion(figure, ([x, y]): Vec2 => [x * ny - y * nx, x * nx + y * ny - at]);
  if (whole.length !== 1) throw new ShapeError(`its figure falls into ${whole.length} parts; choose a shape of one`);
  const { min, max } = regionBox(whole);
  const side = (from: number, to: number): Region =>
    intersect(whole, [{ outer: rectangle(min[0] - 1, from, max[0] + 1, to), holes: [] }]);
  const back = ([u, v]: Vec2): Vec2 => [u * ny + (v + at) * nx, -u * nx + (v + at) * ny];
  return {
    whole,
    free: onePart(side(0, Math.max(max[1], 0) + 1), 'free'),
    glued: onePart(side(Math.min(min[1], 0) - 1, 0), 'glued'),
    back,
  };
}
function onePart(region: Region, which: string): Polygon {
  if (region.length === 1) return region[0];
  throw new ShapeError(
    region.length === 0
      ? `its fold leaves nothing of the ${which} half; set it nearer to the middle`
      : `its fold leaves the ${which} half in ${region.length} parts; set it elsewhere, or choose another shape`,
  );
}
function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, outline } = context;
  const { whole, free, glued, back } = laidOut(values, outline);
  const own = (name: string): string => partId(id, name);
  const lift: Drive = { id: own('lift'), label: 'lift', unit: 'deg', from: 0, to: 180, rest: 0 };
  const [{ outer, holes }] = mapRegion(whole, back);
  const level = firstLevel(context);
  const figure = sheet(context, 'figure', 'Figure', { outer, holes }, level, [], {
    creases: [foldOf(id, whole, lift, back)],
    labels: [
      { name: own('glued'), at: back(insidePoint(glued)), mechanism: id },
      { name: own('free'), at: back(insidePoint(free)), mechanism: id },
    ],
  });
  const { piece, bondMm } = withGlue(context, figure, glued, back);
  const tip = free.outer.reduce((far, p) => (p[1] > far[1] ? p : far));
  const hinge = hingeMm(whole);
  return {
    ...EMPTY,
    pieces: [piece],
    bonds: [
      {
        id: `${piece.id}-bond`,
        a: { piece: face.piece, facet: face.facet },
        b: { piece: piece.id, facet: own('glued') },
        placement: onFace(face, level),
      },
    ],
    drives: [lift],
    unheld: bondMm > 0 ? [] : [{ key: 'glue', what: 'no adhesive fits on the half that is glued' }],
    landmarks: [{ name: 'tip', piece: piece.id, facet: own('free'), at: back(tip) }],
    measures: (pose) => ({
      free_mm: tip[1],
      fold_mm: hinge,
      raised_mm: (pose.local('tip')?.[2] ?? level) - level,
    }),
    demands: [
      demand('captive', 'bond', 'its glued half is held over', bondMm, {
        least: BOND_MM,
        levers: ['fold', 'figureHeight'],
        part: own('glued'),
      }),
      demand('web', 'fold', 'its halves hang together along', hinge, {
        least: FOLD_MM,
        blocksUnder: FOLD_MM / 2,
        levers: ['fold', 'figureHeight'],
        part: own('free'),
      }),
    ],
  };
}

/** Paper along the fold, mm. */
const hingeMm = (whole: Region): number => widthOfAll(levelAt(whole, SAME_LEVEL_MM));

/** What a hand turns lies on its left. */
function foldOf(id: string, whole: Region, drive: Drive, back: Laid['back']): CreaseLine {
  const { min, max } = regionBox(whole);
  return {
    id: partId(id, 'fold'),
    role: 'valley',
    mechanism: id,
    a: back([min[0], 0]),
    b: back([max[0], 0]),
    ends: [0, undefined],
    drive: { id: drive.id, at: 0, rate: 1 },
  };
}

/** Adhesive under the glued half, off its fold and edges; how wide it is where it is narrower. */
function withGlue(
  { id, face }: FaceContext,
  figure: Sheet,
  glued: Polygon,
  back: Laid['back'],
): { readonly piece: Sheet['piece']; readonly bondMm: number } {
  const under = largest(offset([glued], -GLUE_INSET_MM));
  if (!under) return { piece: figure.piece, bondMm: 0 };
  const { min, max } = boxOf(under.outer);
  const onto = { piece: face.piece, facet: face.facet };
  const area = patch(partId(id, 'glue'), figure, partId(id, 'glued'), onto, under.outer.map(back), face);
  return { piece: { ...figure.piece, glue: [area] }, bondMm: Math.min(max[0] - min[0], max[1] - min[1]) };
}

export const foldedFigure: FaceKind = {
  id: 'folded-figure',
  mount: 'face',
  natural: 'inside',
  title: 'Folded figure',
  says: 'A figure folded about a line and glued by one half: the other half stands up and is laid down by hand.',
  sign: 'M1 13 H15 M2 11 H8 M8 11 L13 4',
  order: () => [
    {
      id: 'fold',
      text: 'Fold the figure both ways before anything is glued.',
      parts: ['glued', 'free'],
      folds: ['fold'],
    },
    {
      id: 'stick',
      text: 'Put adhesive on one half only, short of the fold, and stick that down where the figure belongs.',
      parts: ['glued'],
      glue: ['glue'],
      leaves: ['free'],
    },
    { id: 'lift', text: 'Lift the free half once it has set, and lay it flat again for the post.', parts: ['free'] },
  ],
  fitting: ({ widthMm, heightMm }, whole) => ({
    figureHeight: whole(Math.min(widthMm, heightMm) * 0.4, 12),
  }),
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y', 'figureHeight'],
    along: ['at.x', 'figureHeight'],
    size: ['figureHeight'],
  }),
  words: { free: 'free half', glued: 'glued half', fold: 'fold' },
  sizeOf: (v, say) => (v.figureHeight === null ? 'as drawn' : `${say(num(v, 'figureHeight'))} high`),
  shapeUse: {
    says: 'Fold it, glued by one half',
    ofOnePart: true,
    values: (shape, figureHeight) => ({ shape, figureHeight }),
  },
  parameters: [
    {
      key: 'shape',
      label: 'Shape',
      unit: 'shape',
      default: { circle: 40 },
      highAs: 'figureHeight',
      note: 'Of the whole figure, both halves.',
    },
    {
      key: 'figureHeight',
      label: 'Figure height',
      unit: 'mm',
      default: null,
      min: 2,
      max: 1000,
      note: 'Of the whole figure; as drawn unless set.',
    },
    {
      key: 'glued',
      label: 'Glued by its half',
      unit: 'choice',
      default: 'left',
      choices: HALVES,
      choiceWords: { left: 'at the left', right: 'at the right', lower: 'below', upper: 'above' },
      note: 'As the reader sees it; the fold runs between the halves, upright or level.',
    },
    {
      key: 'fold',
      label: 'Fold off the middle',
      unit: 'mm',
      default: 0,
      min: -500,
      max: 500,
      note: 'Toward the free half.',
    },
  ],
  build,
};
