/**
 * A plate on a broken cover, held by a stop (docs/mechanisms.md). Flat axes, mm: x along the hinge from its middle; the
 * base at y > 0 lies still; the strut at y < 0 turns about the hinge, and beyond the break the flap, which carries the
 * plate. Standing, base, strut and flap are a triangle whose foot slides on the base until it meets the stop.
 */
import { OPEN } from '../../drives';
import { partId, CARD } from '../../ids';
import { compose, identity, shiftBy, turnAbout, type Vec3 } from '../../linkage';
import { intersect, largest, mapRegion, offset, rectangle, regionBox, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { radToDeg } from '../../units/angle';
import {
  LABEL_STEP,
  num,
  shapeOf,
  type Base,
  type BaseContext,
  type BaseKind,
  type Carried,
  type Demand,
  type Host,
  type MovingJoint,
  type ParameterValues,
  type Piece,
  type PoseReader,
} from '../kind';
import { lengths } from '../parameters';
import { GUTTER, POSTED } from './fold-card';

const BREAK = partId(CARD, 'break');
const SLIDE = partId(CARD, 'slide');
const LIFT = partId(CARD, 'plate');
const PLATE = 'plate';
const FLAP = 'flap';
/** Adhesive stays this far off the break and the edges, mm; common practice, no source. */
const GLUE_INSET_MM = 3;
/** A stop this near to an end of where it can stand holds nothing, mm; common practice, no source. */
const STOP_ROOM_MM = 1;

/** Where the parts lie, mm. */
interface Sizes {
  readonly wide: number;
  readonly along: number;
  /** Hinge to break, break to foot, hinge to stop. */
  readonly strut: number;
  readonly flap: number;
  readonly stop: number;
}

function sizesOf(values: ParameterValues): Sizes {
  const [wide, along] = [num(values, 'width'), num(values, 'height')];
  const strut = (values.break as number | null) ?? wide / 2;
  return { wide, along, strut, flap: wide - strut, stop: num(values, 'stop') };
}

function build(values: ParameterValues, context: BaseContext): Base {
  const { stock, pageStock, caliperOf, refuse } = context;
  const sizes = sizesOf(values);
  const { wide, along, strut, flap, stop } = sizes;
  if (flap <= 0) refuse(`its break at ${strut} mm lies past its fore edge at ${wide} mm; break it nearer to the hinge`);
  if (stop >= wide) refuse(`its stop at ${stop} mm lies past its fore edge at ${wide} mm; set it nearer to the hinge`);
  const half = along / 2;
  const card: Piece = {
    id: CARD,
    title: 'Card',
    mechanism: CARD,
    stock,
    outline: { outer: rectangle(-half, -wide, half, wide), holes: [] },
    lines: [],
    glue: [],
    creases: [
      { id: GUTTER, role: 'valley', mechanism: CARD, a: [-half, 0], b: [half, 0], ends: [Math.PI, undefined] },
      { id: BREAK, role: 'valley', mechanism: CARD, a: [-half, -strut], b: [half, -strut], ends: [0, undefined] },
    ],
    labels: [
      { name: 'leafA', at: [-half + LABEL_STEP, wide - LABEL_STEP], mechanism: CARD },
      { name: 'leafB', at: [-half + LABEL_STEP, -strut + LABEL_STEP], mechanism: CARD },
      { name: FLAP, at: [-half + LABEL_STEP, -wide + LABEL_STEP], mechanism: CARD },
    ],
  };
  const outline = plateOutline(values, context, sizes);
  const lieMm = (caliperOf(stock) + caliperOf(pageStock)) / 2;
  const plate = platePiece(outline, sizes, pageStock, lieMm);
  const host = (own: Pick<Host, 'crease' | 'frame' | 'sideA' | 'sideB' | 'reachA' | 'reachB' | 'ends'>): Host => ({
    ...own,
    piece: CARD,
    lengthMm: along,
    sign: 1,
    stock,
  });
  const [stopHigh, stopWide] = [num(values, 'stopHeight'), num(values, 'stopWidth')];
  return {
    pieces: [card, plate],
    bonds: [
      {
        id: partId(CARD, 'plateBond'),
        a: { piece: CARD, facet: FLAP },
        b: { piece: PLATE, facet: PLATE },
        placement: compose(shiftBy([0, -wide, -lieMm]), turnAbout([0, 0, 0], [0, 1, 0], Math.PI)),
      },
    ],
    hosts: [
      host({
        ...{ crease: GUTTER, frame: { origin: [0, 0], along: [1, 0] }, sideA: 'leafA', sideB: 'leafB' },
        ...{ reachA: wide, reachB: strut, ends: [Math.PI, undefined] },
      }),
      host({
        ...{ crease: BREAK, frame: { origin: [0, -strut], along: [1, 0] }, sideA: 'leafB', sideB: FLAP },
        ...{ reachA: strut, reachB: flap, ends: [0, undefined] },
      }),
    ],
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB', follows: true, covers: [PLATE] },
    opening: { until: SLIDE },
    drives: [{ id: LIFT, label: 'plate', unit: 'deg', from: 0, to: 180, rest: 0 }],
    joints: joints(sizes),
    fillers: [
      {
        ...{ name: 'Stop', piece: CARD, facet: 'leafA', look: 'spacer', lever: 'stopHeight' },
        region: [{ outer: rectangle(-half, stop, half, Math.min(wide, stop + stopWide)), holes: [] }],
        fromMm: caliperOf(stock) / 2,
        thickMm: stopHigh,
      },
    ],
    hardware: [{ what: 'Strip for the stop', count: 1 }],
    landmarks: [
      { name: 'foot', piece: CARD, facet: FLAP, at: [0, -wide] },
      { name: 'break', piece: CARD, facet: 'leafB', at: [0, -strut] },
      { name: 'top', piece: PLATE, facet: PLATE, at: [0, regionBox([outline]).max[1]] },
    ],
    demands: demands(sizes, stopHigh, caliperOf(stock) + caliperOf(pageStock)),
    measures: (pose) => measured(pose, sizes, 2 * caliperOf(stock) + caliperOf(pageStock) + stopHigh),
    interruptions: [],
  };
}

/** As its reader sees it: its foot along y = 0, the middle of its width at x = 0. */
function plateOutline(values: ParameterValues, { outline, refuse }: BaseContext, { wide, along }: Sizes): Polygon {
  const shape = shapeOf(values, 'plate');
  if (!shape) return { outer: rectangle(-along / 2, 0, along / 2, wide), holes: [] };
  const drawn = outline(shape);
  const { min, max } = regionBox(drawn);
  const scale = ((values.plateHeight as number | null) ?? max[1] - min[1]) / (max[1] - min[1]);
  const stood = mapRegion(drawn, ([x, y]): Vec2 => [(x - (min[0] + max[0]) / 2) * scale, (y - min[1]) * scale]);
  return largest(stood) ?? refuse('its plate has no area; choose another shape');
}

function platePiece(outline: Polygon, { wide, along, flap }: Sizes, stock: string, levelMm: number): Piece {
  const inset = GLUE_INSET_MM;
  const under: Polygon = { outer: rectangle(-along / 2 + inset, inset, along / 2 - inset, flap - inset), holes: [] };
  const patch = largest(intersect(offset([outline], -inset), [under]));
  const glue = patch && {
    id: partId(CARD, 'plateGlue'),
    mechanism: CARD,
    outline: patch.outer,
    facet: PLATE,
    // The plate lies over the outside: what is right on it is left on the flap as that is seen from inside.
    onto: { piece: CARD, facet: FLAP, outline: patch.outer.map(([x, y]): Vec2 => [-x, y - wide]).reverse() },
  };
  const foot = outline.outer.reduce((low, p) => (p[1] < low[1] ? p : low));
  const top = outline.outer.reduce((high, p) => (p[1] > high[1] ? p : high));
  const inward = 1 - LABEL_STEP / Math.max(LABEL_STEP, top[1] - foot[1]);
  return {
    id: PLATE,
    title: 'Plate',
    mechanism: CARD,
    stock,
    levelMm,
    outline,
    lines: [],
    creases: [],
    glue: glue ? [glue] : [],
    labels: [
      {
        name: PLATE,
        at: [foot[0] + (top[0] - foot[0]) * inward, foot[1] + (top[1] - foot[1]) * inward],
        mechanism: CARD,
      },
    ],
  };
}

/**
 * The foot rests on a ground that is the base, until `plate` lifts it off with all that stands on it. The opening turns
 * the strut against the ground; the foot's shoe slides over that.
 */
function joints({ wide, along, stop }: Sizes): MovingJoint[] {
  const ground: Carried = { carriage: partId(CARD, 'ground') };
  const shoe: Carried = { carriage: partId(CARD, 'shoe') };
  const hinge = (dir: 1 | -1) => ({ kind: 'hinge', point: [0, 0, 0], axis: [dir, 0, 0] }) as const;
  const line = (y: number): readonly [Vec3, Vec3] => [
    [-along / 2, y, 0],
    [along / 2, y, 0],
  ];
  return [
    {
      ...{ id: partId(CARD, 'lift'), a: { piece: CARD, facet: 'leafA' }, b: ground, motion: hinge(1) },
      ...{ placement: identity(), role: 1, ends: [0, Math.PI], span: line(0), driven: { drive: LIFT, at: 0, rate: 1 } },
    },
    {
      ...{ id: partId(CARD, 'prop'), a: ground, b: { piece: CARD, facet: 'leafB' }, motion: hinge(-1) },
      ...{ placement: identity(), role: 1, ends: [Math.PI, undefined], span: line(0) },
      driven: { drive: OPEN, at: 0, rate: 1 },
    },
    {
      ...{ id: SLIDE, a: ground, b: shoe, role: 0, ends: [0, undefined] },
      motion: {
        kind: 'track',
        start: [0, wide, 0],
        heading: [0, -1, 0],
        normal: [0, 0, 1],
        runs: [{ lengthMm: wide - stop, curvature: 0 }],
      },
      placement: shiftBy([0, wide, 0]),
      span: [
        [0, wide, 0],
        [0, stop, 0],
      ],
    },
    {
      ...{ id: partId(CARD, 'foot'), a: shoe, b: { piece: CARD, facet: FLAP }, motion: hinge(-1) },
      // Shut, the flap lies turned over on the base, its free edge at the shoe.
      placement: compose(shiftBy([0, -wide, 0]), turnAbout([0, 0, 0], [1, 0, 0], Math.PI)),
      ...{ role: 1, ends: [0, undefined], span: line(0) },
    },
  ];
}

/**
 * The nearest place of the foot to the hinge: flap and strut laid on each other where the flap is the longer; else
 * where the plate stands upright, past which it would lean over its foot.
 */
const nearest = ({ strut, flap }: Sizes): number =>
  strut > flap ? Math.sqrt(strut * strut - flap * flap) : flap - strut;

function demands(sizes: Sizes, stopHigh: number, footMm: number): Demand[] {
  const { wide, stop } = sizes;
  const room = Math.min(stop - nearest(sizes), wide - stop);
  const common = { rule: 'stands', unit: 'mm', subjects: [FLAP, PLATE] } as const;
  return [
    {
      ...common,
      aspect: 'stop height',
      says: 'its stop is as tall as',
      measured: stopHigh,
      least: footMm,
      blocksUnder: footMm,
      levers: ['stopHeight'],
    },
    {
      ...common,
      aspect: 'stop place',
      says: 'the stop lies inside the places where it can hold by',
      measured: room,
      least: STOP_ROOM_MM,
      blocksUnder: 0,
      levers: ['stop', 'break'],
    },
  ];
}

function measured(pose: PoseReader, sizes: Sizes, closedMm: number): Record<string, number> {
  const fixed = {
    closed_thickness_mm: closedMm,
    shelf_depth_mm: sizes.wide,
    stop_least_mm: nearest(sizes),
    stop_most_mm: sizes.wide,
  };
  const [foot, bent, top] = ['foot', 'break', 'top'].map((name) => pose.local(name));
  if (!foot || !bent || !top) return fixed;
  const lean = Math.atan2(bent[2] - foot[2], foot[1] - bent[1]);
  return { lean_deg: radToDeg(lean), foot_mm: foot[1], top_mm: top[2], ...fixed };
}

const size = lengths(1, 1500);

/** Of the base, where a new stop is set. */
const STOP_PART = 0.74;

export const easel: BaseKind = {
  id: 'easel',
  mount: 'base',
  title: 'Easel card',
  says: 'A plate on a cover that is broken half way: it stands on its own base, its foot against a stop.',
  sign: 'M1 14 H15 M2 14 L9 5 L13 14 M13 14 L6 1',
  parameters: [
    size('width', 'Hinge to fore edge', 107.95, 'Of the base, and of the cover before it is broken.', 10),
    size('height', 'Along the hinge', 107.95, 'Of base and cover.', 10),
    size('break', 'Hinge to break', null, 'Half way unless said.'),
    size('stop', 'Hinge to stop', 80, 'Where the foot of the plate comes to rest: the nearer, the steeper it stands.'),
    size('stopHeight', 'Height of the stop', 2, 'A strip on the base: at least as tall as what leans on it.', 0.1),
    size('stopWidth', 'Width of the stop', 8, 'Of that strip.'),
    {
      key: 'plate',
      label: 'Plate',
      unit: 'shape',
      default: null,
      note: 'Any shape, standing on its foot; as large as the cover unless set.',
    },
    size('plateHeight', 'Height of the plate', null, 'Of its shape; as drawn unless said.', 5),
  ],
  order: () => [
    {
      title: 'Break the cover',
      text: 'Score the hinge and the break, and fold the break forward and back until it gives way by itself.',
      openDeg: 40,
    },
    {
      title: 'Stick the plate to the flap',
      text: 'Shut, its foot along the fore edge; strong tape or wet glue on the flap only, none past the break.',
      openDeg: 0,
    },
    {
      title: 'Set the stop',
      text: 'Stand it up, let the foot down where it leans as wanted, and stick the strip in front of it.',
      openDeg: 180,
    },
  ],
  brief: [['width'], ['height'], ['break'], ['stop'], ['stopHeight'], ['stopWidth']],
  fitting: ({ gutter, reach }) => ({ width: reach, height: gutter, stop: Math.round(reach * STOP_PART) }),
  sizes: (v) => ({ gutter: num(v, 'height'), reach: num(v, 'width') }),
  turns: () => ({
    away: ['width', 'plateHeight'],
    along: ['height'],
    size: ['width', 'height'],
    weight: ['stop', 'plateHeight'],
    closing: ['break', 'stop'],
  }),
  sizeOf: (v, say) => `${say(num(v, 'height'))} × ${say(num(v, 'width'))}`,
  states: () => [
    POSTED,
    { id: 'shelf', name: 'On the shelf', drives: { [OPEN]: 180 }, stance: 'lying' },
    { id: 'writing', name: 'For writing', drives: { [LIFT]: 180 } },
  ],
  stands: 'lying',
  flat: { [OPEN]: 0, [LIFT]: 180 },
  crease: GUTTER,
  face: (_, side) => (side === 'outside' ? PLATE : 'leafA'),
  up: (_, facet) => (facet === 'leafA' ? [0, -1] : [0, 1]),
  build,
};
