/**
 * Panels on a belt that turn over a strap one after another (docs/mechanisms.md). Mount axes, mm: the strap's upper
 * edge lies along x below the middle, the belt runs up from it, its tab comes out below.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { identity, shiftBy, type Motion } from '../../linkage';
import { boxOf, rectangle, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { radToDeg } from '../../units/angle';
import {
  EMPTY,
  num,
  type Contribution,
  type FaceContext,
  type FaceKind,
  type GlueArea,
  type MovingJoint,
  type ParameterValues,
  type PoseReader,
  THE_REST,
} from '../kind';
import { CLEARANCE, demand, disc, GRIP_TAB_MM, notchOf, TAB } from './common';
import { facetOf, firstLevel, onFace, sheet, toPiece, type Sheet } from './sheets';

/** Paper of the strap beyond each of its rivets, mm; common practice, no source. */
const RIVET_EDGE_MM = 6;
/** A panel lies over the next one by so much, so that nothing of the belt shows; common practice, no source. */
const OVERLAP_MM = 1;

const box = (x0: number, y0: number, x1: number, y1: number): Polygon => ({
  outer: rectangle(x0, y0, x1, y1),
  holes: [],
});
const track = (from: number, lengthMm: number): Motion => ({
  kind: 'track',
  start: [0, from, 0],
  heading: [0, -1, 0],
  normal: [0, 0, 1],
  runs: [{ lengthMm, curvature: 0 }],
});

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, caliperMm } = context;
  const [n, high, wide, pitch] = ['count', 'panelHeight', 'panelWidth', 'pitch'].map((k) => num(values, k));
  const [beltWidth, strapMm, rivetGap, tabOut] = ['beltWidth', 'strap', 'rivetGap', 'tabOut'].map((k) =>
    num(values, k),
  );
  const own = (name: string): string => partId(id, name);
  const notch = notchOf(values);
  const travel = n * pitch;
  /** The strap's upper edge, so that belt and panels lie about the middle. */
  const edge = -((n - 1) * pitch + high - strapMm) / 2;
  const level = firstLevel(context);
  const foot = boxOf(face.outline.outer).min[1];
  const belt = sheet(context, 'belt', 'Belt', box(-beltWidth / 2, foot - tabOut, beltWidth / 2, edge + travel), level);
  const half = rivetGap / 2 + RIVET_EDGE_MM;
  const strap = sheet(context, 'strap', 'Strap', box(-half, edge - strapMm, half, edge), level + caliperMm);
  // The first to turn lies on top; turned over it is the lowest of those that have.
  const lowest = level + 2 * caliperMm;
  const axleLevel = lowest + ((n - 1) * caliperMm) / 2;
  const panels = Array.from({ length: n }, (_, k) =>
    sheet(
      context,
      `panel-${k + 1}`,
      `Panel ${k + 1}`,
      box(-wide / 2, 0, wide / 2, high),
      lowest + (n - 1 - k) * caliperMm,
    ),
  );
  const drive: Drive = { id: own('pull'), label: 'pull', unit: 'mm', from: 0, to: travel, rest: 0 };
  const clear = rivetGap - beltWidth;
  return {
    ...EMPTY,
    pieces: [belt.piece, strap.piece, ...panels.map((panel, k) => ({ ...panel.piece, glue: [gluedToBelt(panel, k)] }))],
    bonds: [
      {
        id: `${strap.piece.id}-bond`,
        a: { piece: face.piece, facet: face.facet },
        b: facetOf(strap),
        placement: onFace(face, strap.levelMm),
      },
    ],
    joints: [slide(own('belt-slide'), strap, belt, travel, drive.id), ...panels.flatMap(overStrap)],
    drives: [drive],
    waste: notch > 0 ? toPiece(face, [disc(notch, [0, foot])]) : [],
    hardware: [{ what: 'Rivet', count: 2 }],
    landmarks: panels.flatMap(({ piece }, k) => [
      { name: `panel_${k + 1}_low`, piece: piece.id, facet: piece.id, at: [0, 0] as const },
      { name: `panel_${k + 1}_high`, piece: piece.id, facet: piece.id, at: [0, high] as const },
    ]),
    measures: (pose) => ({
      travel_mm: travel,
      grip_mm: tabOut + notch,
      belt_clear_mm: clear,
      stack_layers: n + 2,
      ...Object.fromEntries(panels.map((_, k) => [`panel_deg[${k}]`, turnedDeg(pose, k)])),
    }),
    demands: [
      demand('grip', 'tab', 'a finger finds of the tab', tabOut + notch, {
        least: GRIP_TAB_MM,
        levers: ['notch', 'tabOut'],
        part: belt.piece.id,
      }),
      demand('bind', 'belt', 'beside the belt the rivets leave', clear / 2, {
        least: num(values, 'clearance'),
        levers: ['rivetGap', 'beltWidth'],
        part: belt.piece.id,
      }),
      demand('covered', 'panels', 'each panel lies over the next one by', high - pitch, {
        least: OVERLAP_MM,
        levers: ['pitch', 'panelHeight'],
        part: panels[0].piece.id,
      }),
      demand('captive', 'belt', 'below the strap the belt reaches', edge - strapMm - (foot - tabOut), {
        least: GRIP_TAB_MM,
        levers: ['tabOut'],
        part: belt.piece.id,
      }),
    ],
  };

  /** Each panel is stuck to the belt by a pitch of its lower end: past that the next one lies on the belt. */
  function gluedToBelt(panel: Sheet, k: number): GlueArea {
    const half = beltWidth / 2 - PANEL_GLUE_INSET_MM;
    const outline = rectangle(-half, PANEL_GLUE_INSET_MM, half, Math.min(pitch, high) - PANEL_GLUE_INSET_MM);
    const { id: facet, mechanism } = panel.piece;
    const there = outline.map(([x, y]): Vec2 => [x, y + edge + k * pitch]);
    const onto = { piece: belt.piece.id, facet: belt.piece.id, outline: there };
    return { id: own(`glue-${k + 1}`), mechanism, outline, facet, onto };
  }

  /** Drawn down to the strap with the belt, turned over its edge, and drawn on with the belt under it. */
  function overStrap(panel: Sheet, k: number): MovingJoint[] {
    const carriage = { carriage: own(`carriage-${k + 1}`) };
    const [from, to] = [k * pitch, (k + 1) * pitch];
    const line = axleLevel - strap.levelMm;
    const last = to >= travel;
    const goingOn = { carriage: own(`carriage-on-${k + 1}`) };
    const on: MovingJoint = {
      ...slide(own(`on-${k + 1}`), strap, panel, travel - to, drive.id),
      b: goingOn,
      placement: identity(),
      driven: { drive: drive.id, at: -to, rate: 1, between: [to, travel] },
    };
    return [
      ...(last ? [] : [on]),
      {
        id: own(`turn-${k + 1}`),
        a: last ? facetOf(strap) : goingOn,
        b: carriage,
        motion: { kind: 'hinge', point: [0, edge, line], axis: [1, 0, 0] },
        placement: shiftBy([0, edge, line]),
        role: 1,
        ends: [0, Math.PI],
        span: [
          [-wide / 2, edge, line],
          [wide / 2, edge, line],
        ],
        driven: { drive: drive.id, at: (-Math.PI * from) / pitch, rate: Math.PI / pitch, between: [from, to] },
      },
      {
        ...slide(own(`way-${k + 1}`), strap, panel, Math.max(from, 1), drive.id),
        a: carriage,
        placement: shiftBy([0, from, panel.levelMm - axleLevel]),
        driven: { drive: drive.id, at: 0, rate: 1, between: [0, from] },
      },
    ];
  }
}

const slide = (id: string, a: Sheet, b: Sheet, lengthMm: number, drive: string): MovingJoint => ({
  id,
  a: facetOf(a),
  b: facetOf(b),
  motion: track(0, lengthMm),
  placement: shiftBy([0, 0, b.levelMm - a.levelMm]),
  role: 0,
  ends: [0, undefined],
  span: [
    [0, 0, 0],
    [0, -lengthMm, 0],
  ],
  driven: { drive, at: 0, rate: 1 },
});

/** How far a panel has turned over, degrees. */
function turnedDeg(pose: PoseReader, k: number): number {
  const [low, high] = [pose.local(`panel_${k + 1}_low`), pose.local(`panel_${k + 1}_high`)];
  return low && high ? Math.abs(radToDeg(Math.atan2(high[2] - low[2], high[1] - low[1]))) : 0;
}

/** Adhesive under a panel keeps this far off the edges of the belt and of its pitch, mm; common practice, no source. */
const PANEL_GLUE_INSET_MM = 0.5;

/** A new one: how many panels, the width of its strap, mm, and its pitch as part of a panel. */
const PANELS = 4;
const STRAP_MM = 12;
const PITCH_PART = 0.25;

export const waterfall: FaceKind = {
  id: 'waterfall',
  mount: 'face',
  natural: 'inside',
  order: () => [
    {
      id: 'strap',
      text: 'Rivet the strap over the belt, so that the belt slides between the rivets.',
      parts: ['belt', 'strap'],
      takes: THE_REST,
      leaves: ['belt'],
    },
    {
      id: 'panels',
      text: 'Glue the panels to the belt from the last to the first, each one pitch nearer to the strap.',
      parts: ['panel'],
      glue: ['glue'],
    },
    {
      id: 'pull',
      text: 'Pull the tab once to its end and back before anything is stuck on the panels.',
      parts: ['belt', 'panel'],
    },
  ],
  title: 'Waterfall',
  says: 'Panels on a belt that turn over a strap one after another as its tab is pulled.',
  sign: 'M2 14 H14 M3 11 H13 M4 8 H12 M5 5 H11 M8 14 V16',
  fitting: ({ widthMm, heightMm }, whole) => {
    // All panels and the strap lie on the face, and the belt reaches on below them for its tab.
    const stairs = 1 + PITCH_PART * (PANELS - 1);
    const side = whole(
      Math.min(widthMm * 0.4, heightMm * 0.4, (heightMm - STRAP_MM - 2 * GRIP_TAB_MM) / stairs - 2.5),
      16,
    );
    const beltWidth = whole(side * 0.3, 6);
    return {
      panelHeight: side,
      panelWidth: side,
      pitch: whole(side * PITCH_PART, 7.5),
      beltWidth,
      rivetGap: whole(beltWidth * 1.2, beltWidth + 4),
    };
  },
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y', 'panelHeight', 'pitch'],
    along: ['at.x', 'panelWidth'],
    size: ['panelWidth'],
  }),
  sizeOf: (v, say) => `${num(v, 'count')} panels of ${say(num(v, 'panelWidth'))}`,
  parameters: [
    {
      key: 'count',
      label: 'Panels',
      unit: 'count',
      default: PANELS,
      min: 1,
      max: 20,
      note: 'They turn one after another.',
    },
    { key: 'panelHeight', label: 'Panel height', unit: 'mm', default: 50, min: 5, max: 500, note: 'Of each panel.' },
    { key: 'panelWidth', label: 'Panel width', unit: 'mm', default: 50, min: 5, max: 500, note: 'Of each panel.' },
    {
      key: 'pitch',
      label: 'Pitch',
      unit: 'mm',
      default: 12,
      min: 2,
      max: 300,
      note: 'From one panel to the next along the belt: so far the tab is pulled for each.',
    },
    { key: 'beltWidth', label: 'Belt', unit: 'mm', default: 20, min: 3, max: 300, note: 'Its width.' },
    { key: 'strap', label: 'Strap', unit: 'mm', default: STRAP_MM, min: 3, max: 100, note: 'Its width.' },
    {
      key: 'rivetGap',
      label: 'Between rivets',
      unit: 'mm',
      default: 24,
      min: 4,
      max: 400,
      note: 'The belt runs there.',
    },
    ...TAB,
    CLEARANCE,
  ],
  build,
};
