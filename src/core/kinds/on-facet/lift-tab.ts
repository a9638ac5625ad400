/**
 * A strip is pulled and a ridge stands up (docs/mechanisms.md): a slider-crank whose base is the face. Mount axes, mm:
 * creases lie along x, the panel about the middle, and the strip comes out below.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { shiftBy } from '../../linkage';
import { boxOf, rectangle, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import {
  EMPTY,
  num,
  type Contribution,
  type CreaseLine,
  type Face,
  type FaceContext,
  type FaceKind,
  type GlueArea,
  type ParameterValues,
} from '../kind';
import { CLEARANCE, demand, disc, GRIP_TAB_MM, notchOf, TAB } from './common';
import { above, facetOf, firstLevel, onFace, patch, sheet, toPiece, type Sheet } from './sheets';

const box = (x0: number, y0: number, x1: number, y1: number): Polygon => ({
  outer: rectangle(x0, y0, x1, y1),
  holes: [],
});
/** Glued strip at each side of the guide, beside the pulled strip; common practice, no source. */
const GUIDE_GLUE_MM = 6;
const GUIDE_MM = 12;
/** Adhesive stays this far off creases, mm; common practice, no source. */
const OFF_CREASE_MM = 1.5;

/** As far as it can be drawn in at all, and to where its ridge stands highest, mm. */
export const mostPull = (l2: number, l3: number): number => 2 * Math.min(l2, l3);
export const uprightPull = (l2: number, l3: number): number => l2 + l3 - Math.sqrt(Math.abs(l3 * l3 - l2 * l2));

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, caliperMm } = context;
  const [l2, l3, width, glueTab, stripMm] = ['lower', 'upper', 'width', 'glueTab', 'strip'].map((k) => num(values, k));
  const [tabOut, notch] = [num(values, 'tabOut'), notchOf(values)];
  const most = mostPull(l2, l3);
  const pull = Math.min((values.pull as number | null) ?? uprightPull(l2, l3), most * MOST_PART);
  const edge = boxOf(face.outline.outer).min[1];
  const own = (name: string): string => partId(id, name);
  /** Crease of the lower side, ridge, crease of the tab, end of the tab. */
  const base = (GUIDE_MM - l2 - l3 - glueTab) / 2;
  const [ridge, fold, end] = [base + l2, base + l2 + l3, base + l2 + l3 + glueTab];

  // The strip lies on the face, under the guide and the two sides; its end is glued under the tab.
  const level = firstLevel(context);
  const strip = sheet(context, 'strip', 'Strip', box(-stripMm / 2, edge - tabOut, stripMm / 2, end), level);
  const creases = [
    crease(id, 'base', 'valley', width, base),
    crease(id, 'ridge', 'mountain', width, ridge),
    crease(id, 'fold', 'valley', width, fold),
  ];
  const label = (name: string, y: number): { name: string; at: Vec2; mechanism: string } => ({
    name: own(name),
    at: [0.25 * width, y],
    mechanism: id,
  });
  const panel = sheet(
    context,
    'panel',
    'Lifting panel',
    box(-width / 2, base - GUIDE_MM, width / 2, end),
    level + caliperMm,
    [],
    {
      creases,
      labels: [
        label('guide', base - GUIDE_MM / 2),
        label('lower', base + l2 / 2),
        label('upper', ridge + l3 / 2),
        label('tab', fold + glueTab / 2),
      ],
    },
  );
  const drive: Drive = { id: own('pull'), label: 'pull', unit: 'mm', from: 0, to: pull, rest: 0 };
  const beside = (width - stripMm) / 2 - GUIDE_GLUE_MM;
  const bite = notch > 0 ? toPiece(face, [disc(notch, [0, edge])]) : [];
  const glue = [...guideGlue(values, context.face, panel, base), ...tabGlue(values, panel, strip, fold)];
  return {
    ...EMPTY,
    pieces: [strip.piece, { ...panel.piece, glue }],
    bonds: [
      {
        id: own('guide-bond'),
        a: { piece: face.piece, facet: face.facet },
        b: { piece: panel.piece.id, facet: own('guide') },
        placement: onFace(face, panel.levelMm),
      },
      {
        id: own('tab-bond'),
        a: facetOf(strip),
        b: { piece: panel.piece.id, facet: own('tab') },
        placement: above(strip, panel),
      },
    ],
    joints: [
      {
        id: own('slide'),
        a: { piece: panel.piece.id, facet: own('guide') },
        b: facetOf(strip),
        motion: {
          kind: 'track',
          start: [0, 0, 0],
          heading: [0, -1, 0],
          normal: [0, 0, 1],
          runs: [{ lengthMm: most, curvature: 0 }],
        },
        placement: shiftBy([0, 0, strip.levelMm - panel.levelMm]),
        role: 0,
        ends: [0, undefined],
        span: [
          [0, 0, 0],
          [0, -most, 0],
        ],
        driven: { drive: drive.id, at: 0, rate: 1 },
      },
    ],
    drives: [drive],
    waste: bite,
    landmarks: [
      { name: 'ridge', piece: panel.piece.id, facet: own('lower'), at: [0, ridge] },
      { name: 'tab_end', piece: strip.piece.id, facet: own('strip'), at: [0, edge - tabOut] },
    ],
    measures: (pose) => ({
      lift_mm: (pose.local('ridge')?.[2] ?? panel.levelMm) - panel.levelMm,
      max_pull_mm: most,
      tab_out_mm: edge - (pose.local('tab_end')?.[1] ?? edge),
    }),
    demands: [
      demand('grip', 'tab', 'a finger finds of the tab', tabOut + notch, {
        least: GRIP_TAB_MM,
        levers: ['notch', 'tabOut'],
        part: own('strip'),
      }),
      demand('bind', 'beside', 'beside the strip the guide leaves', beside, {
        least: num(values, 'clearance'),
        levers: ['strip', 'width'],
        part: own('strip'),
      }),
      demand('bind', 'pull', 'further than it is drawn its sides would still turn by', most - pull, {
        least: 0,
        levers: ['pull'],
        part: own('upper'),
      }),
    ],
  };
}
/** Beside the strip the guide is stuck to the face. */
function guideGlue(values: ParameterValues, face: Face, panel: Sheet, base: number): GlueArea[] {
  const [inner, outer] = [num(values, 'strip') / 2 + num(values, 'clearance'), num(values, 'width') / 2];
  if (outer <= inner) return [];
  const onto = { piece: face.piece, facet: face.facet };
  const { mechanism } = panel.piece;
  const [y0, y1] = [base - GUIDE_MM + OFF_CREASE_MM, base - OFF_CREASE_MM];
  const on = (name: string, x0: number, x1: number): GlueArea =>
    patch(partId(mechanism, name), panel, partId(mechanism, 'guide'), onto, rectangle(x0, y0, x1, y1), face);
  return [on('glueLeft', -outer, -inner), on('glueRight', inner, outer)];
}

/** The tab is stuck to the strip. */
function tabGlue(values: ParameterValues, panel: Sheet, strip: Sheet, fold: number): GlueArea[] {
  const across = Math.min(num(values, 'width'), num(values, 'strip')) / 2 - OFF_CREASE_MM;
  const [y0, y1] = [fold + OFF_CREASE_MM, fold + num(values, 'glueTab') - OFF_CREASE_MM];
  if (across <= 0 || y1 <= y0) return [];
  const { mechanism } = panel.piece;
  const ring = rectangle(-across, y0, across, y1);
  return [patch(partId(mechanism, 'glueTab'), panel, partId(mechanism, 'tab'), facetOf(strip), ring)];
}

/** Rigid sides lie on each other at the very end: it is drawn this far at most. */
const MOST_PART = 0.98;

const crease = (id: string, name: string, role: CreaseLine['role'], width: number, y: number): CreaseLine => ({
  id: partId(id, name),
  role,
  mechanism: id,
  a: [-width / 2, y],
  b: [width / 2, y],
  ends: [0, undefined],
});

export const liftTab: FaceKind = {
  id: 'lift-tab',
  mount: 'face',
  natural: 'inside',
  order: () => [
    {
      id: 'strip',
      text: 'Lay the strip in its place, its tab out over the edge, and do not glue it.',
      parts: ['strip'],
      leaves: ['strip'],
    },
    {
      id: 'guide',
      text: 'Fold the panel. Glue its guide over the strip at both its sides only, so that the strip slides.',
      parts: ['guide', 'lower', 'upper', 'tab'],
      folds: ['base', 'ridge', 'fold'],
      glue: ['glueLeft', 'glueRight'],
      leaves: ['strip', 'tab'],
    },
    {
      id: 'tab',
      text: 'Glue the tab to the strip, panel flat, strip at rest; decoration goes on one side of the ridge only.',
      parts: ['tab', 'strip'],
      glue: ['glueTab'],
    },
  ],
  title: 'Lifting tab',
  says: 'Two sides joined by a ridge that stands up when a strip under them is pulled.',
  sign: 'M1 13 H15 M3 12 L8 4 L12 12 M12 12 H15',
  fitting: ({ widthMm, heightMm }, whole) => {
    const side = whole(heightMm * 0.2, 8);
    const width = whole(widthMm * 0.35, 26);
    return {
      lower: side,
      upper: side,
      width,
      strip: whole(width * 0.3, 9),
      glueTab: whole(10, 6),
      notch: whole(12, 9),
    };
  },
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y', 'upper', 'lower'],
    along: ['at.x', 'width'],
    size: ['upper', 'width'],
  }),
  sizeOf: (v, say) => `sides ${say(num(v, 'lower'))} and ${say(num(v, 'upper'))}`,
  charts: [{ measure: 'lift_mm', label: 'Lift' }],
  parameters: [
    {
      key: 'lower',
      label: 'Lower side',
      unit: 'mm',
      default: 30,
      min: 2,
      max: 500,
      note: 'From its crease to the ridge.',
    },
    {
      key: 'upper',
      label: 'Upper side',
      unit: 'mm',
      default: 30,
      min: 2,
      max: 500,
      note: 'From the ridge to the tab.',
    },
    { key: 'width', label: 'Width', unit: 'mm', default: 50, min: 5, max: 1000, note: 'Along the ridge.' },
    { key: 'glueTab', label: 'Glue tab', unit: 'mm', default: 10, min: 3, max: 100, note: 'Glued to the strip.' },
    {
      key: 'strip',
      label: 'Strip',
      unit: 'mm',
      default: 15,
      min: 3,
      max: 500,
      note: 'Width of the strip that is pulled.',
    },
    {
      key: 'pull',
      label: 'Pull',
      unit: 'mm',
      default: null,
      min: 1,
      max: 1000,
      note: 'How far it is drawn out; left empty, until its ridge stands highest.',
    },
    ...TAB,
    CLEARANCE,
  ],
  build,
};
