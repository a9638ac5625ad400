/**
 * A vertex of six creases whose arms swing out as the card closes (docs/mechanisms.md). Local axes: x along the crease,
 * y into side A; the strip lies along the crease, its vertex at the origin. Its two triangles, between the diagonals,
 * are glued to the sides; a train of panels may tie one half of one arm to the other half of the other.
 */
import { partId } from '../../ids';
import type { CreaseLine, FacetLabel, GlueArea } from '../../pattern/pattern';
import { intersect, largest, offset as grow, rectangle, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { OPEN } from '../../drives';
import { identity, type Vec3 } from '../../linkage';
import { radToDeg } from '../../units/angle';
import {
  EMPTY,
  LABEL_STEP,
  laidOnto,
  num,
  placedOn,
  type Bond,
  type BuildContext,
  type Contribution,
  type Group,
  type CreaseKind,
  type Host,
  type MovingJoint,
  type ParameterValues,
  type Piece,
} from '../kind';
import { alongCrease, lengths } from '../parameters';
import { GLUE_SET_BACK_MM } from './step-fold';

/** Where its parts lie, mm. */
interface Sizes {
  readonly half: number;
  readonly arm: number;
  readonly relief: number;
  readonly at: number;
  /** Of the train: a panel's length and width; null without one. */
  readonly train: { readonly panel: number; readonly width: number } | null;
}

function sizesOf(values: ParameterValues): Sizes {
  const [half, arm, relief, at] = ['half', 'arm', 'relief', 'offset'].map((k) => num(values, k));
  const train = values.train as Group | null;
  return { half, arm, relief, at, train: train && { panel: train.panel, width: train.width ?? half } };
}

type End = 'Right' | 'Left';
type Half = 'A' | 'B';
const ENDS: readonly End[] = ['Right', 'Left'];
const HALVES: readonly Half[] = ['A', 'B'];
const signOf = (which: End | Half): 1 | -1 => (which === 'Right' || which === 'A' ? 1 : -1);

function build(values: ParameterValues, context: BuildContext): Contribution {
  const { id, host, say } = context;
  const sizes = sizesOf(values);
  const { half, arm, at, train } = sizes;
  const strip = stripPiece(sizes, context);
  const panels = train && trainPiece(sizes, train, context);
  const toHost = placedOn(host);
  const own = (part: string): string => partId(id, part);
  const bond = (part: string, a: Bond['a'], facet: string): Bond => ({
    id: own(part),
    a,
    b: { piece: strip.id, facet: own(facet) },
    placement: toHost,
  });
  return {
    ...EMPTY,
    pieces: panels ? [strip, panels] : [strip],
    bonds: [
      bond('bondA', { piece: host.piece, facet: host.sideA }, 'triangleA'),
      bond('bondB', { piece: host.piece, facet: host.sideB }, 'triangleB'),
    ],
    joints: panels && train ? [patch('first', sizes, train, id), patch('last', sizes, train, id)] : [],
    hosts: hostsOf(strip, sizes, context),
    landmarks: [
      { name: 'arm_end', piece: strip.id, facet: own('armRightA'), at: [at + arm, 0] },
      { name: 'vertex', piece: strip.id, facet: own('triangleA'), at: [at, 0] },
    ],
    unheld: [
      ...(arm > half
        ? []
        : [{ key: 'arm', what: `its arms end at ${say(arm)}, before the diagonals do at ${say(half)}` }]),
      ...(train && train.panel < half
        ? [{ key: 'panel', what: `its train would be glued past the diagonals, which end at ${say(half)}` }]
        : []),
      ...(train && train.panel >= arm
        ? [{ key: 'train', what: 'its train has nothing of the arms to be glued to' }]
        : []),
    ],
    measures: (pose) => {
      const [end, vertex] = [pose.local('arm_end'), pose.local('vertex')];
      const reached = end && vertex ? [end[0] - vertex[0], Math.hypot(end[1] - vertex[1], end[2] - vertex[2])] : null;
      return {
        ...(reached ? { arm_deg: radToDeg(Math.atan2(reached[1], reached[0])) } : {}),
        closed_reach_mm: arm + sizes.relief,
        open_span_mm: Math.max(2 * arm, train ? 4 * train.panel : 0),
      };
    },
  };
}

/** The strip: two triangles, and two arms folded along their middle. */
function stripPiece({ half, arm, relief, at }: Sizes, { id, host, stock }: BuildContext): Piece {
  const own = (part: string): string => partId(id, part);
  const full = host.ends[0] === Math.PI && host.ends[1] === 0;
  const crease = (part: string, to: Vec2, valley: boolean): CreaseLine => ({
    id: own(part),
    role: valley ? 'valley' : 'mountain',
    mechanism: id,
    // Every one runs to the right, as what stands on a midline counts along it.
    ...(to[0] > 0 ? { a: [at, 0], b: [at + to[0], to[1]] } : { a: [at + to[0], to[1]], b: [at, 0] }),
    standsOn: host.crease,
    ends: full ? [valley ? Math.PI : -Math.PI, 0] : [undefined, undefined],
  });
  const label = (part: string, x: number, y: number): FacetLabel => ({
    name: own(part),
    at: [at + x, y],
    mechanism: id,
  });
  const toHost = placedOn(host);
  const triangle = (which: Half): GlueArea[] => {
    const s = signOf(which);
    const whole: Polygon = {
      outer:
        s > 0
          ? [
              [at, 0],
              [at + half, half],
              [at - half, half],
            ]
          : [
              [at, 0],
              [at - half, -half],
              [at + half, -half],
            ],
      holes: [],
    };
    // Off the fold by the relief too: what is stacked there needs room.
    const off: Polygon = {
      outer: s > 0 ? rectangle(at - half, relief, at + half, half) : rectangle(at - half, -half, at + half, -relief),
      holes: [],
    };
    const area = largest(intersect(grow([whole], -GLUE_SET_BACK_MM), [off]));
    if (!area) return [];
    return [
      {
        id: own(`glue${which}`),
        mechanism: id,
        outline: area.outer,
        facet: own(`triangle${which}`),
        onto: {
          piece: host.piece,
          facet: which === 'A' ? host.sideA : host.sideB,
          outline: laidOnto(toHost, area.outer),
        },
      },
    ];
  };
  return {
    id: own('strip'),
    title: 'Twisting strip',
    mechanism: id,
    stock,
    outline: { outer: rectangle(at - arm, -half, at + arm, half), holes: [] },
    lines: [],
    creases: [
      ...ENDS.map((end) => crease(`middle${end}`, [signOf(end) * arm, 0], false)),
      ...ENDS.flatMap((end) =>
        HALVES.map((which) => crease(`diagonal${end}${which}`, [signOf(end) * half, signOf(which) * half], true)),
      ),
    ],
    glue: HALVES.flatMap(triangle),
    labels: [
      ...HALVES.map((which) => label(`triangle${which}`, 0, signOf(which) * (half - LABEL_STEP))),
      ...ENDS.flatMap((end) =>
        HALVES.map((which) => label(`arm${end}${which}`, signOf(end) * (arm - LABEL_STEP), signOf(which) * LABEL_STEP)),
      ),
    ],
  };
}

/** Four panels over the vertex: valley, mountain, valley. */
function trainPiece(
  { half, arm, at }: Sizes,
  { panel, width }: NonNullable<Sizes['train']>,
  { id, host, stock }: BuildContext,
): Piece {
  const own = (part: string): string => partId(id, part);
  const full = host.ends[0] === Math.PI && host.ends[1] === 0;
  const crease = (k: number): CreaseLine => {
    const valley = k !== 0;
    return {
      id: own(`train${k + 2}`),
      role: valley ? 'valley' : 'mountain',
      mechanism: id,
      a: [at + k * panel, -width / 2],
      b: [at + k * panel, width / 2],
      standsOn: host.crease,
      ends: full ? [valley ? Math.PI : -Math.PI, 0] : [undefined, undefined],
    };
  };
  const set = GLUE_SET_BACK_MM;
  const glue = (part: 'first' | 'last'): GlueArea[] => {
    const { x0, x1, y0, y1 } = overlapOf(part, { half, arm, at }, { panel, width });
    const outline = rectangle(x0 + set, y0 + set, x1 - set, y1 - set);
    if (outline[2][0] <= outline[0][0] || outline[2][1] <= outline[0][1]) return [];
    return [
      {
        id: own(`glue-${part}`),
        mechanism: id,
        outline,
        facet: own(part === 'first' ? 'panel1' : 'panel4'),
        onto: { piece: own('strip'), facet: own(part === 'first' ? 'armLeftA' : 'armRightB'), outline },
      },
    ];
  };
  return {
    id: own('train'),
    title: 'Train',
    mechanism: id,
    stock,
    outline: { outer: rectangle(at - 2 * panel, -width / 2, at + 2 * panel, width / 2), holes: [] },
    lines: [],
    creases: [crease(-1), crease(0), crease(1)],
    glue: [...glue('first'), ...glue('last')],
    labels: [-2, -1, 0, 1].map((k, n) => ({
      name: own(`panel${n + 1}`),
      at: [at + (k + 0.5) * panel, -width / 2 + LABEL_STEP] as Vec2,
      mechanism: id,
    })),
  };
}

/** Where the train lies on an arm, mm: along, and across from the midline. */
function overlapOf(
  part: 'first' | 'last',
  { half, arm, at }: Pick<Sizes, 'half' | 'arm' | 'at'>,
  { panel, width }: NonNullable<Sizes['train']>,
) {
  const [near, far] = [panel, Math.min(arm, 2 * panel)];
  const high = Math.min(width / 2, half);
  return part === 'first'
    ? { x0: at - far, x1: at - near, y0: 0, y1: high }
    : { x0: at + near, x1: at + far, y0: -high, y1: 0 };
}

/** The glue between train and arm: it holds, and is where the paper parts first if it must bend. */
function patch(part: 'first' | 'last', sizes: Sizes, train: NonNullable<Sizes['train']>, id: string): MovingJoint {
  const { x0, x1, y0, y1 } = overlapOf(part, sizes, train);
  const corner = (x: number, y: number): Vec3 => [x, y, 0];
  return {
    id: partId(id, `train-${part}`),
    a: { piece: partId(id, 'strip'), facet: partId(id, part === 'first' ? 'armLeftA' : 'armRightB') },
    b: { piece: partId(id, 'train'), facet: partId(id, part === 'first' ? 'panel1' : 'panel4') },
    motion: { kind: 'hinge', point: corner(x0, 0), axis: [1, 0, 0] },
    placement: identity(),
    role: 0,
    ends: [0, 0],
    span: [corner(x0, 0), corner(x1, 0)],
    patch: [corner(x0, y0), corner(x1, y0), corner(x1, y1), corner(x0, y1)],
    driven: { drive: OPEN, at: 0, rate: 0 },
  };
}

/** Its midlines: others stand there. */
function hostsOf(strip: Piece, { half, arm, at }: Sizes, { id, host, stock }: BuildContext): Host[] {
  const full = host.ends[0] === Math.PI && host.ends[1] === 0;
  return ENDS.map((end): Host => ({
    crease: partId(id, `middle${end}`),
    piece: strip.id,
    frame: { origin: [at + (signOf(end) * arm) / 2, 0], along: [1, 0] },
    lengthMm: arm,
    sideA: partId(id, `arm${end}A`),
    sideB: partId(id, `arm${end}B`),
    sign: -1,
    ends: full ? [Math.PI, 0] : [undefined, undefined],
    reachA: half,
    reachB: half,
    stock,
  }));
}

const size = lengths(1, 1000);

export const twistFold: CreaseKind = {
  id: 'twist-fold',
  mount: 'crease',
  title: 'Twist fold',
  says: 'A strip along the fold whose two arms swing out to the reader as the card closes, and a train of panels.',
  sign: 'M1 11 H15 M8 11 L3 6 M8 11 L13 6 M8 11 L4 15 M8 11 L12 15',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const arm = whole(Math.min(Math.min(reachA, reachB) * 0.75, lengthMm * 0.3), 14);
    const half = whole(arm * 0.48, 6);
    return { arm, half };
  },
  turns: () => ({
    away: ['arm', 'half'],
    along: ['offset', 'arm', 'panel'],
    closing: ['train.width', 'train.panel', 'half'],
    relief: ['relief'],
    tabs: ['half', 'arm'],
    size: ['arm', 'half'],
  }),
  words: Object.fromEntries(
    ENDS.flatMap((end) => [
      [`middle${end}`, `midline of the ${end.toLowerCase()} arm`],
      ...HALVES.flatMap((half) => [
        [`diagonal${end}${half}`, `${end.toLowerCase()} diagonal on side ${half}`],
        [`arm${end}${half}`, `${end.toLowerCase()} arm, half ${half}`],
      ]),
    ]),
  ),
  sizeOf: (v, say) => `arms of ${say(num(v, 'arm'))}`,
  raises: true,
  ownPiece: () => true,
  charts: [{ measure: 'arm_deg', label: 'Arms from the fold' }],
  parameters: [
    size('half', 'Half width', 30, 'Of the strip: the size of its two triangles.'),
    size('arm', 'Arm', 70, 'From the vertex to the end of the strip.'),
    size('relief', 'Glue off the fold', 1, 'At the triangles: room for what is stacked in the fold.', 0),
    alongCrease('Its vertex, from the middle of the crease.'),
    {
      key: 'train',
      label: 'Train of panels',
      unit: 'group',
      default: null,
      fields: [
        { ...size('panel', 'Train, panel', 45, 'Length of each of the four, never less than the half width.') },
        {
          ...size('width', 'Train, width', 30, 'The half width unless said: the narrower, the less it bends.'),
          optional: true,
        },
        {
          key: 'panels',
          label: 'Train, panels',
          unit: 'count',
          default: 4,
          min: 4,
          max: 4,
          optional: true,
          note: 'Always four: valley, mountain, valley.',
        },
      ],
      note: 'From one arm to the other: it closes exactly at both ends of the travel, and bends between.',
    },
  ],
  build,
};
