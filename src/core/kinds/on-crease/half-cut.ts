/**
 * A silhouette that stays up when the leaf behind it folds away (docs/mechanisms.md): what of it lies past the fold is
 * cut free on side B and stays with side A; the score stops at its outline.
 */
import { partId, wordsOfPart } from '../../ids';
import type { Rigid } from '../../linkage';
import {
  insidePoint,
  intersect,
  mapRegion,
  offset as grow,
  rectangle,
  regionBox,
  ringsOf,
  subtract,
  unite,
  type Region,
} from '../../plane/polygon';
import { frameAt, type Vec2 } from '../../plane/vec2';
import { joinIntervals, levelAt, widthOfAll, withoutIntervals } from '../../shapes/level';
import { standing } from '../../shapes/outline';
import { BESIDE_MM, WELD_MM } from '../../tolerance';
import {
  EMPTY,
  laidOnto,
  num,
  placedOn,
  shapeOf,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type GlueArea,
  type Lack,
  type ParameterValues,
  type PatternLine,
  type Piece,
} from '../kind';
import { alongCrease, scaledHeight } from '../parameters';
import { strandedPaper } from '../figures/page-figure';
import { GLUE_SET_BACK_MM } from './step-fold';

/** Gap between the figure and the leaf it is cut from; common practice, no source. */
export const RELIEF_MM = 1.27;

function build(values: ParameterValues, context: BuildContext): Contribution {
  const { id, host, outline, say } = context;
  const [rise, offset, relief] = ['rise', 'offset', 'relief'].map((k) => num(values, k));
  const whole = mapRegion(
    standing(outline(shapeOf(values, 'shape')!), values.figureHeight as number | null),
    ([x, h]) => [x + offset, h],
  );
  const height = regionBox(whole).max[1];
  // In (x, h) with h up from the fold; the page's y runs the other way.
  const figure = mapRegion(whole, ([x, h]) => [x, h - (height - rise)]);
  const far = 10 + height + Math.abs(offset) + regionBox(whole).max[0] - regionBox(whole).min[0];
  const past: Region = [{ outer: rectangle(-far * 4, 0, far * 4, far * 4), holes: [] }];
  const standingUp = intersect(figure, past);
  const hole = relief > 0 ? intersect(grow(standingUp, relief, 'round'), past) : standingUp;
  const gap = subtract(hole, standingUp);
  const onPage = ([x, h]: Vec2): Vec2 => frameAt(host.frame, x, -h);

  const lines: PatternLine[] = [];
  // Without a gap one cut parts the figure from its leaf.
  for (const ring of [...standingUp, ...(relief > 0 ? hole : [])].flatMap(ringsOf)) {
    ring.forEach((a, i) => {
      const b = ring[(i + 1) % ring.length];
      // Along the fold it is joined to side A.
      if (Math.abs(a[1]) <= WELD_MM && Math.abs(b[1]) <= WELD_MM) return;
      lines.push({ role: 'cut', a: onPage(a), b: onPage(b), mechanism: id });
    });
  }
  const stranded = strandedPaper(hole, host, 0);
  const waste = unite([...gap, ...stranded]);
  const gone = unite([...hole, ...waste]);
  const half = host.lengthMm / 2;
  const open = joinIntervals(levelAt(gone, BESIDE_MM), WELD_MM);
  const scores = withoutIntervals([{ from: -half, to: half }], open);
  const joined = widthOfAll(levelAt(standingUp, BESIDE_MM));
  const unheld: Lack[] = standingUp
    .filter((p) => widthOfAll(levelAt([p], BESIDE_MM)) < WELD_MM)
    .map((p, k) => {
      const past = say(regionBox([p]).min[1]);
      return { key: `part ${k}`, what: `a part of it ${past} past the fold is tied to nothing and falls out` };
    });
  if (standingUp.length === 0) unheld.push({ key: 'rise', what: 'no part of the figure lies past the fold' });
  const reach = host.reachA;
  const over = figuresOver(values, context, figure);
  return {
    ...EMPTY,
    lines,
    pieces: over.pieces,
    bonds: over.pieces.map((piece) => ({
      id: `${piece.id}-bond`,
      a: { piece: host.piece, facet: host.sideA },
      b: { piece: piece.id, facet: piece.id },
      placement: over.placement,
    })),
    interruptions: open.map((i) => ({ crease: host.crease, from: i.from + half, to: i.to + half })),
    waste: mapRegion(waste, onPage, true),
    claims: mapRegion(gone, onPage, true),
    unheld,
    contradictions:
      rise > height + WELD_MM
        ? [
            {
              key: 'rise',
              what: `it rises ${say(rise)} past the fold but is only ${say(height)} high.`,
              mm: rise - height,
            },
          ]
        : [],
    landmarks: [
      { name: 'tip', piece: host.piece, facet: host.sideA, at: onPage(highest(figure)) },
      ...over.pieces.map((piece) => ({
        name: wordsOfPart(piece.id),
        piece: piece.id,
        facet: piece.id,
        at: topOf(piece),
      })),
    ],
    measures: () => ({
      rise_mm: rise,
      folded_height_mm: reach + rise,
      fold_left_mm: scores.length > 0 && scores[0].from <= -half + WELD_MM ? scores[0].to - scores[0].from : 0,
      fold_right_mm:
        scores.length > 0 && scores[scores.length - 1].to >= half - WELD_MM
          ? scores[scores.length - 1].to - scores[scores.length - 1].from
          : 0,
      joined_mm: joined,
    }),
  };
}

/**
 * The separate figure that is glued over the silhouette, cut so much larger or smaller: on the side that the leaf
 * behind folds away from, so that what of it reaches past the silhouette is met by nothing.
 *
 * @param figure the silhouette, (x, h) with h up from the fold, mm
 */
function figuresOver(
  values: ParameterValues,
  { id, host, stock }: BuildContext,
  figure: Region,
): { readonly pieces: Piece[]; readonly placement: Rigid } {
  const placement = placedOn({ ...host, sign: host.sign > 0 ? -1 : 1 });
  const margin = values.figureMargin as number | null;
  if (margin === null) return { pieces: [], placement };
  const own = (region: Region): Region => mapRegion(region, ([x, h]): Vec2 => [-host.sign * x, -h], host.sign < 0);
  const { min, max } = regionBox(figure);
  // Where the leaf ends there is nothing to stick it to.
  const leaf = [{ outer: rectangle(min[0] - 1, -host.reachA, max[0] + 1, max[1] + 1), holes: [] }];
  const stuck = intersect(grow(figure, -GLUE_SET_BACK_MM), leaf);
  const pieces = own(grow(figure, margin, 'round')).map((outline, k): Piece => {
    const name = partId(id, k === 0 ? 'figure' : `figure-${k + 1}`);
    const glue = intersect(own(stuck), grow([outline], -GLUE_SET_BACK_MM)).map(({ outer }, n): GlueArea => ({
      id: `${name}-glue${n === 0 ? '' : `-${n + 1}`}`,
      mechanism: id,
      outline: outer,
      facet: name,
      onto: { piece: host.piece, facet: host.sideA, outline: laidOnto(placement, outer) },
    }));
    const labels = [{ name, at: insidePoint(outline), mechanism: id }];
    return {
      id: name,
      title: 'Figure',
      mechanism: id,
      stock,
      outline,
      behindFold: true,
      lines: [],
      creases: [],
      glue,
      labels,
    };
  });
  return { pieces, placement };
}

/** The place of a separate figure that lies furthest past the fold. */
const topOf = ({ outline }: Piece): Vec2 => outline.outer.reduce((top, p) => (p[1] < top[1] ? p : top));

const highest = (region: Region): Vec2 => {
  const top = regionBox(region).max[1];
  const level = region.flatMap((p) => p.outer).filter((p) => p[1] > top - WELD_MM);
  return [(Math.min(...level.map((p) => p[0])) + Math.max(...level.map((p) => p[0]))) / 2, top];
};

export const halfCut: CreaseKind = {
  id: 'half-cut',
  mount: 'crease',
  title: 'Half-cut figure',
  says: 'The part of a silhouette past the fold stays up when the leaf behind folds away.',
  sign: 'M2 9 H5 M11 9 H14 M5 9 A3 5 0 0 1 11 9 M3 9 V14 H13 V9',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    // As wide as it is high: on a short fold some of that is left on both sides.
    const height = whole(Math.min(reachA * 0.5, reachB * 0.5, lengthMm * 0.6), 6);
    return { shape: { circle: height }, figureHeight: height, rise: whole(height * 0.4, 3) };
  },
  turns: () => ({
    away: ['figureHeight', 'rise'],
    along: ['offset', 'figureHeight'],
    relief: ['relief'],
    size: ['figureHeight'],
  }),
  sizeOf: (v, say) => `rises ${say(num(v, 'rise'))}`,
  foldedSo:
    'Fold the sheet behind it and let the figure stay up past the fold; press the fold flat on both sides of it.',
  raises: true,
  ownPiece: (v) => v.figureMargin !== null,
  shapeUse: { says: 'Half-cut over the fold', values: (shape, figureHeight) => ({ shape, figureHeight }) },
  parameters: [
    {
      key: 'shape',
      label: 'Silhouette',
      unit: 'shape',
      default: { circle: 60 },
      note: 'Its upper part stands up past the fold.',
    },
    scaledHeight('Height', 'silhouette'),
    {
      key: 'rise',
      label: 'Past the fold',
      unit: 'mm',
      default: 25,
      min: 0.5,
      max: 1000,
      note: 'How far it stands past the fold.',
    },
    alongCrease(),
    {
      key: 'relief',
      label: 'Gap',
      unit: 'mm',
      default: RELIEF_MM,
      min: 0,
      max: 20,
      note: 'Between the figure and the leaf it is cut from. Common practice, no source: 1.27 mm.',
    },
    {
      key: 'figureMargin',
      label: 'Separate figure, past it',
      unit: 'mm',
      default: null,
      min: -20,
      max: 100,
      note: 'A figure of its own is glued over it, so much larger all round; below 0 smaller. None where it is empty.',
    },
  ],
  build,
};
