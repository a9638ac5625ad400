/**
 * A pocket glued along its edge but for the mouth, a piece that slides out of it, and a flap in its front
 * (docs/mechanisms.md). Mount axes, mm: the pocket about the middle, open at the top; the flap hinges at its left.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { creaseMotion, shiftBy } from '../../linkage';
import { boxOf, rectangle, subtract } from '../../plane/polygon';
import { rectShape } from '../../shapes/basics';
import {
  EMPTY,
  num,
  shapeOf,
  type Contribution,
  type FaceContext,
  type FaceKind,
  type MovingJoint,
  type ParameterValues,
  THE_REST,
  type FaceStep,
} from '../kind';
import { centred, demand, disc, GRIP_TAB_MM, leftOf } from './common';
import { pocketFront, type PocketFront } from './pocket-front';
import { above, facetOf, firstLevel, onFace, sheet, toPiece, type Sheet } from './sheets';

/** Paper of the front that a flap leaves to the glued sides; common practice, no source. */
const FRAME_MM = 3;

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, caliperMm, outline } = context;
  const [play, notch] = ['play', 'notch'].map((k) => num(values, k));
  const [insertWidth, insertHeight] = [num(values, 'insertWidth'), num(values, 'insertHeight')];
  const plain = pocketFront(values, context);
  const { floor, top, sidePlay } = plain;
  const flapShape = shapeOf(values, 'flap');
  const flapOutline = flapShape && centred(outline(flapShape));

  const level = firstLevel(context);
  const insert = sheet(
    context,
    'insert',
    'Insert',
    rectShape(insertWidth, insertHeight, num(values, 'corner'))[0],
    level,
  );
  const cut = leftOf(
    subtract(plain.outline, [...(notch > 0 ? [disc(notch, [0, top])] : []), ...(flapOutline ?? [])]),
    'front',
  );
  const front = sheet(context, 'front', 'Pocket front', cut, level + caliperMm);
  const flap = flapOutline && sheet(context, 'flap', 'Flap', flapOutline[0], front.levelMm);

  const atRest = floor + insertHeight / 2;
  const draw: Drive = { id: partId(id, 'draw'), label: 'draw', unit: 'mm', from: 0, to: insertHeight, rest: 0 };
  const shut: Drive = { id: partId(id, 'flap'), label: 'flap', unit: 'deg', from: 0, to: 180, rest: 0 };
  const slide: MovingJoint = {
    id: partId(id, 'slide'),
    a: facetOf(front),
    b: facetOf(insert),
    motion: {
      kind: 'track',
      start: [0, atRest, 0],
      heading: [0, 1, 0],
      normal: [0, 0, 1],
      runs: [{ lengthMm: insertHeight, curvature: 0 }],
    },
    placement: shiftBy([0, atRest, insert.levelMm - front.levelMm]),
    role: 0,
    ends: [0, undefined],
    span: [
      [0, atRest, 0],
      [0, atRest + insertHeight, 0],
    ],
    driven: { drive: draw.id, at: 0, rate: 1 },
  };
  const out = insertHeight - (top - floor);
  const frame = flapOutline ? plain.flapRoom(flapOutline[0]) : Infinity;
  return {
    ...EMPTY,
    pieces: [
      insert.piece,
      gluedFront(context, front, plain),
      ...(flap ? [flap.piece, strip(context, flap, values)] : []),
    ],
    bonds: [
      {
        id: `${front.piece.id}-bond`,
        a: { piece: face.piece, facet: face.facet },
        b: facetOf(front),
        placement: onFace(face, front.levelMm),
      },
    ],
    joints: [slide, ...(flap ? [hinged(id, front, flap, shut)] : [])],
    drives: [draw, ...(flap ? [shut] : [])],
    landmarks: [{ name: 'handle', piece: insert.piece.id, facet: insert.piece.id, at: [0, insertHeight / 2] }],
    measures: () => ({ inner_width_mm: insertWidth + 2 * sidePlay, side_play_mm: sidePlay, stick_out_mm: out }),
    demands: [
      demand('bind', 'insert', 'beside its insert there is play of', sidePlay, {
        least: play,
        levers: ['insertWidth', 'width', 'tape'],
        part: insert.piece.id,
      }),
      demand('grip', 'insert', 'a finger finds of the insert', out + notch, {
        least: GRIP_TAB_MM,
        levers: ['notch', 'insertHeight', 'height'],
        part: insert.piece.id,
      }),
      ...(flap
        ? [
            demand('captive', 'frame', 'the front keeps beside its flap, over the glue,', frame, {
              least: FRAME_MM,
              levers: ['width', 'height', 'tape'],
              part: front.piece.id,
            }),
          ]
        : []),
    ],
  };
}

/** Tape along its edge, open at the top: the middle stays free of it. */
const gluedFront = ({ face }: FaceContext, { piece }: Sheet, { glue }: PocketFront): Sheet['piece'] => ({
  ...piece,
  glue: glue.map(({ name, outline }) => ({
    id: `${piece.id}-tape-${name}`,
    mechanism: piece.mechanism,
    outline,
    facet: piece.id,
    onto: { piece: face.piece, facet: face.facet, outline: toPiece(face, [{ outer: outline, holes: [] }])[0].outer },
  })),
});

/** A flap on its strip, at the left of it: it turns out towards the reader. */
function hinged(id: string, front: Sheet, flap: Sheet, drive: Drive): MovingJoint {
  const { min, max } = boxOf(flap.piece.outline.outer);
  // With the line running down the flap is on its left, and turns out towards the reader.
  const motion = creaseMotion([min[0], max[1]], [min[0], min[1]]);
  return {
    id: partId(id, 'hinge'),
    a: facetOf(front),
    b: facetOf(flap),
    motion,
    placement: above(front, flap),
    role: 1,
    ends: [0, Math.PI],
    span: [
      [min[0], max[1], 0],
      [min[0], min[1], 0],
    ],
    driven: { drive: drive.id, at: 0, rate: 1 },
  };
}

/** The strip a flap turns on, glued behind it and the front: cut and listed, it lies in the crease itself. */
function strip(context: FaceContext, flap: Sheet, values: ParameterValues): Sheet['piece'] {
  const { min, max } = boxOf(flap.piece.outline.outer);
  const wide = num(values, 'hinge');
  const outline = { outer: rectangle(0, 0, wide, max[1] - min[1]), holes: [] };
  return { ...sheet(context, 'hinge-strip', 'Hinge strip', outline, 0).piece, apart: true };
}

const FLAP_STEP: FaceStep = {
  id: 'flap',
  text: 'Hinge the flap with its strip behind it and the front.',
  parts: ['front', 'flap'],
};

export const pocket: FaceKind = {
  id: 'pocket',
  mount: 'face',
  natural: 'inside',
  order: (values) => [
    ...(values.flap ? [FLAP_STEP] : []),
    {
      id: 'front',
      text: 'Glue the front along its edge only, not at its mouth; keep adhesive off the middle.',
      parts: ['front'],
      glue: [THE_REST],
      leaves: ['insert'],
    },
    { id: 'insert', text: 'Slide the insert in once the glue has set.', parts: ['insert'], leaves: ['insert'] },
  ],
  title: 'Pocket',
  says: 'A pocket glued on three sides, with a piece to draw out of it and, where wanted, a flap in its front.',
  sign: 'M3 5 V14 H13 V5 M5 2 H11 V10 H5 Z M6 5 H10',
  fitting: ({ widthMm, heightMm }, whole) => {
    const width = whole(widthMm * 0.7, 30);
    const height = whole(heightMm * 0.4, 30);
    return { width, height, insertWidth: whole(width - 20, 5), insertHeight: whole(height * 1.1, 20) };
  },
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y', 'height', 'insertHeight'],
    along: ['at.x', 'width', 'insertWidth'],
    size: ['width', 'height'],
  }),
  silent: (v) => (v.outline === 'card' ? ['shape', 'width'] : shapeOf(v, 'shape') ? ['width', 'height'] : []),
  sizeOf: (v, say) =>
    v.outline === 'card' || shapeOf(v, 'shape')
      ? `insert ${say(num(v, 'insertWidth'))} × ${say(num(v, 'insertHeight'))}`
      : `${say(num(v, 'width'))} × ${say(num(v, 'height'))}`,
  parameters: [
    { key: 'width', label: 'Width', unit: 'mm', default: 104, min: 10, max: 1000, note: 'Of the pocket, outside.' },
    { key: 'height', label: 'Height', unit: 'mm', default: 60, min: 10, max: 1000, note: 'Of the pocket, outside.' },
    {
      key: 'outline',
      label: 'Front',
      unit: 'choice',
      default: 'own',
      choices: ['own', 'card'],
      choiceWords: { own: 'its own', card: 'as its card' },
      note: 'As its card: along the edges of the facet it is glued to, from its foot up to the height.',
    },
    {
      key: 'shape',
      label: 'Shape',
      unit: 'shape',
      default: null,
      note: 'Of its front, in place of a rectangle; the insert is drawn out at its top.',
    },
    {
      key: 'tape',
      label: 'Glued edge',
      unit: 'mm',
      default: 8,
      min: 2,
      max: 100,
      note: 'All round but for the mouth.',
    },
    {
      key: 'insertWidth',
      label: 'Insert width',
      unit: 'mm',
      default: 85.6,
      min: 2,
      max: 1000,
      note: 'A bank card (ISO/IEC 7810 ID-1) is 85.6 by 53.98 mm.',
    },
    {
      key: 'insertHeight',
      label: 'Insert height',
      unit: 'mm',
      default: 53.98,
      min: 2,
      max: 1000,
      note: 'Up and down.',
    },
    { key: 'corner', label: 'Insert corners', unit: 'mm', default: 3, min: 0, max: 100, note: 'Their radius.' },
    {
      key: 'play',
      label: 'Play',
      unit: 'mm',
      default: 1,
      min: 0,
      max: 50,
      note: 'Asked for at each side of the insert.',
    },
    {
      key: 'notch',
      label: 'Finger notch',
      unit: 'mm',
      default: 10,
      min: 0,
      max: 200,
      note: 'Radius, in its upper edge.',
    },
    { key: 'flap', label: 'Flap', unit: 'shape', default: null, note: 'Cut from the front, hinged at its left.' },
    {
      key: 'hinge',
      label: 'Hinge strip',
      unit: 'mm',
      default: 8,
      min: 2,
      max: 100,
      note: 'Width of the strip it turns on.',
    },
  ],
  build,
};
