/**
 * A wheel that turns before one that is glued down, with carriers on rivets that hang upright whatever the turn
 * (docs/mechanisms.md). Mount axes, mm; the wheel about `centre`.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { pivotMotion, shiftBy, type Rigid } from '../../linkage';
import { rectangle, subtract, unite, type Polygon, type Region } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import {
  EMPTY,
  groupOf,
  listOf,
  num,
  type Contribution,
  type FaceContext,
  type FaceKind,
  type MovingJoint,
  type ParameterValues,
} from '../kind';
import {
  CLEARANCE,
  CUSHION,
  cushionUnder,
  demand,
  disc,
  leftOf,
  movedBy,
  placeParameter,
  RIVET,
  rivetDemand,
} from './common';
import type { Hardware } from '../contribution';
import { facetOf, firstLevel, gluedOn, sheet, type Sheet, headOver, over } from './sheets';

/** Chords of a circle lie inside it by up to this much, mm. */
const CHORDS_MM = 0.02;
/** Places of the turn at which gaps are measured, before the least is closed in on. */
const TURNS = 720;

interface Carrier {
  readonly width: number;
  readonly height: number;
  /** From its upper edge down to its rivet. */
  readonly hang: number;
}

/** Gap between two upright boxes of one size whose middles are so far apart; negative by how far they overlap. */
function boxGap({ width, height }: Carrier, [x, y]: Vec2): number {
  const [dx, dy] = [Math.abs(x) - width, Math.abs(y) - height];
  return dx < 0 && dy < 0 ? Math.max(dx, dy) : Math.hypot(Math.max(0, dx), Math.max(0, dy));
}
/** Gap between an upright box hung from a point and the origin's disc; negative where it lies over the middle. */
function hubGap({ width, height, hang }: Carrier, [x, y]: Vec2, radius: number): number {
  const dx = Math.max(x - width / 2, 0, -(x + width / 2));
  const dy = Math.max(y + hang - height, 0, -(y + hang));
  return Math.hypot(dx, dy) - radius;
}

/** Least of a measure over the whole turn, closed in on by thirds between its neighbours. */
function leastOverTurn(measure: (turn: number) => number): { value: number; turnDeg: number } {
  const at = (k: number): number => (2 * Math.PI * k) / TURNS;
  let best = 0;
  for (let k = 1; k < TURNS; k++) if (measure(at(k)) < measure(at(best))) best = k;
  let [low, high] = [at(best - 1), at(best + 1)];
  for (let i = 0; i < 60; i++) {
    const third = (high - low) / 3;
    if (measure(low + third) < measure(high - third)) high -= third;
    else low += third;
  }
  const turn = (low + high) / 2;
  return { value: Math.min(measure(turn), measure(at(best))), turnDeg: ((turn * 180) / Math.PI + 360) % 360 };
}

const along = (mm: number, turn: number): Vec2 => [mm * Math.cos(turn), mm * Math.sin(turn)];

/** Spokes from the hub to a round end about each rivet, `spoke` wide on both sides of its line. */
function wheelOutline(values: ParameterValues, hole: number): Polygon {
  const [n, arm, hub, spoke] = ['spokes', 'arm', 'hub', 'spoke'].map((k) => num(values, k));
  const spokes = Array.from({ length: n }, (_, k): Region => {
    const turn = (2 * Math.PI * k) / n;
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const bar = rectangle(0, -spoke, arm, spoke).map(([x, y]): Vec2 => [c * x - s * y, s * x + c * y]);
    return [{ outer: bar, holes: [] }, disc(hole + spoke + CHORDS_MM, along(arm, turn))];
  });
  const holes = [disc(hole), ...Array.from({ length: n }, (_, k) => disc(hole, along(arm, (2 * Math.PI * k) / n)))];
  return leftOf(subtract(unite([disc(hub / 2), ...spokes.flat()]), holes), 'wheel');
}

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, caliperMm } = context;
  const [n, arm, hub, clearance, cushion] = ['spokes', 'arm', 'hub', 'clearance', 'cushion'].map((k) => num(values, k));
  const hole = num(values, 'hole') / 2;
  const carrier = groupOf(values, 'carrier') as unknown as Carrier;
  const { x, y } = groupOf(values, 'centre');
  const spacers = spacersOf(values);
  const apart = spacers.reduce((sum, t) => sum + t, 0);

  const outline = wheelOutline(values, hole);
  const level = firstLevel(context);
  const back = gluedOn(context.face, sheet(context, 'back', 'Back wheel', movedBy([outline], [x, y])[0], level));
  const wheel = sheet(context, 'wheel', 'Wheel', outline, level + caliperMm + apart);
  const hung: Polygon = {
    outer: rectangle(-carrier.width / 2, carrier.hang - carrier.height, carrier.width / 2, carrier.hang),
    holes: [disc(hole).outer.toReversed()],
  };
  const carriers = Array.from({ length: n }, (_, k) =>
    sheet(context, `carrier-${k + 1}`, `Carrier ${k + 1}`, hung, wheel.levelMm + caliperMm + cushion),
  );
  const drive: Drive = { id: partId(id, 'turn'), label: 'turn', unit: 'deg', from: 0, to: 360, rest: 0, round: true };
  const pivot = (name: string, a: Sheet, b: Sheet, at: Vec2, rate: number, origin: Vec2 = at): MovingJoint => ({
    id: partId(id, name),
    a: facetOf(a),
    b: facetOf(b),
    motion: pivotMotion(at),
    placement: shifted(origin, b.levelMm - a.levelMm),
    role: 0,
    ends: [undefined, undefined],
    span: [
      [...at, 0],
      [...at, 1],
    ],
    driven: { drive: drive.id, at: 0, rate },
  });
  const neighbours = Array.from({ length: Math.floor(n / 2) }, (_, k) => 2 * arm * Math.sin((Math.PI * (k + 1)) / n));
  const between = leastOverTurn((t) =>
    neighbours.reduce((g, d) => Math.min(g, boxGap(carrier, along(d, t))), Infinity),
  );
  const toHub = leastOverTurn((t) => hubGap(carrier, along(arm, t), hub / 2));
  const corner = Math.hypot(carrier.width / 2, Math.max(carrier.height - carrier.hang, carrier.hang));
  const part = carriers[0].piece.id;
  const spacerAt = (at: Vec2): Region => subtract([disc(hub / 2, at)], [disc(hole, at)]);
  // As large as the round end of a spoke under it.
  const cushionRing = subtract([disc(hole + num(values, 'spoke'))], [disc(hole)]);
  const asked = { least: clearance, part };
  return {
    ...EMPTY,
    pieces: [back.sheet, wheel, ...carriers].map((s) => s.piece),
    bonds: [back.bond],
    joints: [
      pivot('axle', back.sheet, wheel, [x, y], 1),
      ...carriers.map((c, k) => pivot(`rivet-${k + 1}`, wheel, c, along(arm, (2 * Math.PI * k) / n), -1)),
    ],
    drives: [drive],
    fillers: [
      ...spacers.map((thickMm, k) =>
        over(back.sheet, {
          ...{ name: `Spacer ${k + 1}`, region: spacerAt([x, y]), look: 'spacer', lever: `spacers[${k}].thickness` },
          ...{ fromMm: caliperMm / 2 + spacers.slice(0, k).reduce((sum, t) => sum + t, 0), thickMm },
        }),
      ),
      headOver(wheel, [disc(num(values, 'rivet') / 2)], caliperMm / 2),
      ...carriers.flatMap((c) => cushionUnder(values, caliperMm, cushionRing).map((f) => over(c, f))),
      ...carriers.map((c) => headOver(c, [disc(num(values, 'rivet') / 2)], caliperMm / 2)),
    ],
    hardware: [{ what: RIVETED, count: n + 1 }, ...spacers.map(spacerOf), ...cushionsOf(values)],
    landmarks: carriers.map(({ piece }, k) => ({
      name: `carrier_${k + 1}`,
      piece: piece.id,
      facet: piece.id,
      at: [0, 0] as const,
    })),
    measures: () => ({
      ...(n > 1 ? { carrier_gap_mm: between.value } : {}),
      hub_gap_mm: toHub.value,
      sweep_mm: arm + corner,
      stack_mm: carriers[0].levelMm + (caliperMm - context.face.caliperMm) / 2,
    }),
    demands: [
      ...(n > 1
        ? [
            {
              ...demand('bind', 'carriers', 'its carriers keep apart by', between.value, {
                ...asked,
                levers: ['arm', 'carrier.width', 'carrier.height'],
              }),
              at: { drive: drive.id, value: between.turnDeg },
            },
          ]
        : []),
      {
        ...demand('bind', 'hub', 'its carriers keep off the hub by', toHub.value, {
          ...asked,
          levers: ['arm', 'hub', 'carrier.height', 'carrier.width'],
        }),
        at: { drive: drive.id, value: toHub.turnDeg },
      },
      demand('bind', 'spacers', 'between the wheels there are', apart, {
        least: 0.2,
        levers: [],
        part: wheel.piece.id,
      }),
      rivetDemand(values, id, 'wheel'),
    ],
  };
}

const shifted = ([x, y]: Vec2, z: number): Rigid => shiftBy([x, y, z]);

const RIVETED = 'Rivet';
const spacersOf = (values: ParameterValues): number[] => listOf(values, 'spacers').map((s) => s.thickness as number);
const spacerOf = (mm: number): Omit<Hardware, 'mechanism'> => ({ what: 'Spacer', sizesMm: [mm], count: 1 });
/** One under each carrier, where there are any. */
const cushionsOf = (values: ParameterValues): Omit<Hardware, 'mechanism'>[] => {
  const mm = num(values, 'cushion');
  return mm > 0 ? [{ what: 'Cushion', sizesMm: [mm], count: num(values, 'spokes') }] : [];
};

/** A new wheel with shorter arms than this has fewer spokes, mm. */
const SMALL_MM = 25;

export const carrierWheel: FaceKind = {
  id: 'carrier-wheel',
  mount: 'face',
  natural: 'inside',
  order: (values) => {
    const cushioned = num(values, 'cushion') > 0;
    const rivets = (count: number) => ({ what: RIVETED, count });
    const over = cushioned ? 'each over its cushion, ' : '';
    return [
      {
        id: 'back',
        text: 'Glue the back wheel in its place and stack the spacers over its middle.',
        parts: ['back'],
        glue: ['back-glue'],
        takes: spacersOf(values).map(spacerOf),
      },
      {
        id: 'carriers',
        text: `Rivet the carriers to the wheel, ${over}loosely: they swing by their own weight.`,
        parts: ['wheel', 'carrier'],
        takes: [rivets(num(values, 'spokes')), ...cushionsOf(values)],
        leaves: ['carrier'],
      },
      {
        id: 'axle',
        text: 'Rivet the wheel over the spacers and turn it once round.',
        parts: ['wheel'],
        takes: [rivets(1)],
        leaves: ['wheel'],
      },
    ];
  },
  title: 'Carrier wheel',
  says: 'A wheel whose carriers hang from their rivets and stay upright all the way round.',
  sign: 'M8 8 V2 M8 8 H14 M8 8 V14 M8 8 H2 M6 2 H10 V5 H6 Z M12 8 H15 V11 H12 Z',
  fitting: ({ widthMm, heightMm }, whole) => {
    const arm = whole(Math.min(widthMm, heightMm) * 0.295, 12);
    // Small carriers hang by little of their weight: fewer of them may be higher.
    const spokes = arm < SMALL_MM ? 4 : 6;
    const [width, height] = [
      whole(arm * (spokes === 4 ? 0.45 : 0.5), 10),
      whole(arm * (spokes === 4 ? 0.84 : 0.74), 5),
    ];
    return { spokes, arm, carrier: { width, height, hang: whole(height * 0.25, 5) }, hub: whole(arm * 0.4, 10) };
  },
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y', 'arm', 'carrier.height'],
    along: ['at.x', 'arm', 'carrier.width'],
    size: ['arm'],
    weight: ['carrier.hang', 'carrier.height'],
  }),
  sizeOf: (v, say) => `${num(v, 'spokes')} at ${say(num(v, 'arm'))}`,
  parameters: [
    {
      key: 'spokes',
      label: 'Spokes',
      unit: 'count',
      default: 6,
      min: 1,
      max: 24,
      note: 'A carrier at the end of each.',
    },
    {
      key: 'arm',
      label: 'Arm',
      unit: 'mm',
      default: 40,
      min: 2,
      max: 500,
      note: 'From the axle to a carrier’s rivet.',
    },
    {
      key: 'carrier',
      label: 'Carrier',
      unit: 'group',
      default: { width: 20, height: 24, hang: 5 },
      fields: [
        { key: 'width', label: 'Carrier, width', unit: 'mm', default: 20, min: 1, max: 300, note: 'Across.' },
        { key: 'height', label: 'Carrier, height', unit: 'mm', default: 24, min: 1, max: 300, note: 'Up and down.' },
        {
          key: 'hang',
          label: 'Carrier, rivet',
          unit: 'mm',
          default: 5,
          min: 0,
          max: 300,
          note: 'How far below its upper edge it hangs.',
        },
      ],
      note: 'A piece that hangs from its rivet; what it shows is stuck on it.',
    },
    { key: 'hub', label: 'Hub', unit: 'mm', default: 16, min: 2, max: 300, note: 'Its diameter.' },
    {
      key: 'spoke',
      label: 'Paper beside the spoke',
      unit: 'mm',
      default: 3.2,
      min: 0.5,
      max: 50,
      note: 'On each side of its line. Common practice, no source: 3.2 mm.',
    },
    {
      key: 'spacers',
      label: 'Spacers',
      unit: 'list',
      entry: 'Spacer',
      default: [{ thickness: 1 }],
      fields: [
        {
          key: 'thickness',
          label: 'Thickness',
          unit: 'mm',
          default: 1,
          min: 0.1,
          max: 10,
          note: 'Between the wheels.',
        },
      ],
      note: 'Stacked between the back wheel and the one that turns.',
    },
    CUSHION,
    placeParameter('centre', 'Centre', 'Of the wheel, from where it is fixed.'),
    ...RIVET,
    CLEARANCE,
  ],
  build,
};
