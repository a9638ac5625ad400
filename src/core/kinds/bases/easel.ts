/**
 * A plate on a broken cover, held by a stop (docs/mechanisms.md), with smaller ones on its plate where wanted. Each is
 * a stand (`stand.ts`); the base lies still, and the plate can be lifted off it for writing.
 */
import { OPEN, type State } from '../../drives';
import { partId, CARD } from '../../ids';
import { identity } from '../../linkage';
import { intersect, largest, offset, rectangle, type Polygon, type Ring } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import {
  listOf,
  num,
  shapeOf,
  type Base,
  type BaseContext,
  type BaseKind,
  type Carried,
  type Demand,
  type Host,
  type ListItem,
  type MovingJoint,
  type BaseStep,
  type Parameter,
  type ParameterValues,
  type PoseReader,
  THE_REST,
} from '../kind';
import { lengths } from '../parameters';
import { GUTTER, POSTED } from './fold-card';
import { doubled, FOLDS, LEAF, type PlateFold } from './plate-fold';
import {
  checkSizes,
  coverPiece,
  footJoints,
  hingeSpan,
  leanDeg,
  nearest,
  onPlate,
  plateBond,
  plateOutline,
  platePiece,
  slideOf,
  standDemands,
  standFootings,
  standLandmarks,
  standMeasures,
  stopFillers,
  stopStrip,
  STOPS,
  tabOf,
  type StandNames,
  type StandSizes,
  type StopKind,
} from './stand';
import { acrossAt, drawnGround, plainGround } from './stand-cover';

const LIFT = partId(CARD, 'plate');
const PLATE = 'plate';

const MAIN: StandNames = {
  piece: CARD,
  ground: 'leafA',
  strut: 'leafB',
  flap: 'flap',
  plate: PLATE,
  hinge: GUTTER,
  bend: partId(CARD, 'break'),
  own: '',
  called: null,
  lever: (key) => key,
};

/** The ground of any level, as `levelNames` has it. */
const LEVEL_GROUND = /^level-\d+-base$/;
const levelNames = (k: number): StandNames => {
  const own = (part: string): string => `level-${k + 1}-${part}`;
  return {
    piece: `level-${k + 1}`,
    ground: own('base'),
    strut: own('strut'),
    flap: own('flap'),
    plate: own('plate'),
    hinge: partId(CARD, own('hinge')),
    bend: partId(CARD, own('break')),
    own: own(''),
    called: `level ${k + 1}`,
    lever: (key) => `levels[${k}].${key}`,
  };
};
/** What opens a level. */
const levelDrive = (k: number): string => partId(CARD, `level-${k + 1}.open`);

function sizesOf(values: ParameterValues | ListItem, context: BaseContext): StandSizes {
  const shape = shapeOf(values, 'shape');
  const base = shape ? drawnGround(shape, context) : plainGround(num(values, 'width'), num(values, 'height'));
  const { wide, along } = base;
  const strut = (values.break as number | null) ?? wide / 2;
  return {
    wide,
    along,
    base,
    strut,
    flap: wide - strut,
    stop: (values.stop as number | null) ?? wide * STOP_PART,
    stopHigh: num(values, 'stopHeight'),
    stopWide: num(values, 'stopWidth'),
    stopBy: values.stopBy as StopKind,
    plate: shapeOf(values, 'plate'),
    plateHigh: (values.plateHeight as number | null) ?? null,
  };
}

/** One stand with its own cover and plate, put together. */
interface Stand {
  readonly names: StandNames;
  readonly sizes: StandSizes;
  readonly outline: Polygon;
}

function build(values: ParameterValues, context: BaseContext): Base {
  const { stock, pageStock, caliperOf, refuse } = context;
  const main = standOf(MAIN, sizesOf(values, context), context);
  const lieMm = (caliperOf(stock) + caliperOf(pageStock)) / 2;
  const plain = platePiece(MAIN, main.sizes, main.outline, { title: 'Plate', stock: pageStock, levelMm: lieMm });
  const plate = doubled(plain, values.plateFold as PlateFold, refuse);
  const levels = listOf(values, 'levels').map((item, k) => ({
    ...standOf(levelNames(k), sizesOf(item, context), context),
    fromMm: num(item, 'from'),
  }));
  const on = levels.map((level, k) => onLevel(level, k, levels[k - 1]?.names ?? MAIN, lieMm, context));
  const all = [main, ...levels];
  const strips = all.map((s, k) => stopStrip(s.names, s.sizes, k === 0 ? 'Stop' : `Level ${k}, stop`, context));
  const footMm = caliperOf(stock) + caliperOf(pageStock);
  const covers = [PLATE, ...(values.plateFold === 'none' ? [] : [LEAF])];
  return {
    pieces: [
      coverPiece(MAIN, main.sizes, { title: 'Card', stock }),
      plate.piece,
      ...on.flatMap((l) => l.pieces),
      ...strips.flatMap((s) => s.pieces),
    ],
    bonds: [plateBond(MAIN, main.sizes, lieMm), ...on.flatMap((l) => l.bonds)],
    hosts: all.flatMap((s) => hostsOf(s, stock)),
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB', follows: true, covers },
    opening: { until: slideOf(MAIN) },
    drives: [
      { id: LIFT, label: 'plate', unit: 'deg', from: 0, to: 180, rest: 0 },
      ...levels.map(({ names }, k) => ({
        ...{ id: levelDrive(k), label: `level ${k + 1}`, unit: 'deg' as const, from: 0, to: 180, rest: 0 },
        until: slideOf(names),
      })),
      ...all
        .filter((s) => s.sizes.stopBy === 'tab')
        .map(({ names }) => ({
          ...{
            id: tabOf(names),
            needs: names === MAIN ? OPEN : levelDrive(levels.findIndex((l) => l.names === names)),
            label: names.called === null ? 'tab of the stop' : `tab of ${names.called}`,
          },
          ...{ unit: 'deg' as const, from: 0, to: 90, rest: 0 },
        })),
      ...(plate.drive
        ? [{ id: plate.drive, label: 'leaf of the plate', unit: 'deg' as const, from: 0, to: 180, rest: 0 }]
        : []),
    ],
    joints: [...joints(main.sizes), ...levels.flatMap((l) => footJoints(l.names, l.sizes, groundOf(l.names)))],
    hardware: strips.flatMap((s) => s.hardware),
    fillers: all.flatMap((s) => stopFillers(s.names, s.sizes, caliperOf(stock))),
    landmarks: all.flatMap((s) => standLandmarks(s.names, s.sizes, s.outline)),
    demands: [...all.flatMap((s) => standDemands(s.names, s.sizes, footMm)), ...leanBack(all)],
    footings: all.flatMap((s) => standFootings(s.names, s.sizes, footMm)),
    measures: (pose) => measured(pose, all, 2 * caliperOf(stock) + caliperOf(pageStock)),
    inner: [plate.piece.id, ...on.flatMap((l) => l.pieces.map((p) => p.id))],
    interruptions: [],
  };
}

function standOf(names: StandNames, sizes: StandSizes, context: BaseContext): Stand {
  checkSizes(sizes, context.refuse);
  return { names, sizes, outline: plateOutline(sizes, context) };
}
/** Leans add up from level to level: past upright a plate falls on its face. */
function leanBack(all: readonly Stand[]): Demand[] {
  const leans = all.map((s) => leanDeg(s.sizes));
  return all.slice(1).map(({ names }, k) => ({
    rule: 'stands',
    aspect: `${names.own}lean`,
    says: `the plate of level ${k + 1} leans back from upright by`,
    measured: UPRIGHT_DEG - leans.slice(0, k + 2).reduce((sum, deg) => sum + deg, 0),
    unit: 'deg',
    least: 0,
    blocksUnder: 0,
    levers: [names.lever('stop'), all[k].names.lever('stop')],
    subjects: [names.flap, names.plate],
  }));
}
const UPRIGHT_DEG = 90;

const groundOf = ({ piece, ground }: StandNames): Carried => ({ piece, facet: ground });
/** A strip lies between the sheets of the shut card. */
const stripMm = ({ stopBy, stopHigh }: StandSizes): number => (stopBy === 'strip' ? stopHigh : 0);

/** A level, bonded by its ground to the plate behind. */
function onLevel(
  { names, sizes, outline, fromMm }: Stand & { readonly fromMm: number },
  k: number,
  behind: StandNames,
  lieMm: number,
  context: BaseContext,
): Pick<Base, 'pieces' | 'bonds'> {
  const { stock, pageStock } = context;
  const levelMm = (2 * k + 2) * lieMm;
  const title = `Level ${k + 1}`;
  const placement = onPlate(sizes, fromMm, lieMm);
  const outer = coverGround(sizes) ?? context.refuse(`the shape of level ${k + 1} leaves no room for its glue`);
  const glue = {
    ...{ id: partId(CARD, `${names.ground}-glue`), mechanism: CARD, outline: outer, facet: names.ground },
    onto: {
      piece: behind.plate,
      facet: behind.plate,
      outline: outer.map(([x, y]): Vec2 => [-x, fromMm + sizes.wide - y]),
    },
  };
  return {
    pieces: [
      coverPiece(names, sizes, { title, stock, levelMm, glue: [glue] }, levelDrive(k)),
      platePiece(names, sizes, outline, { title: `${title}, plate`, stock: pageStock, levelMm: levelMm + lieMm }),
    ],
    bonds: [
      {
        id: partId(CARD, `${names.ground}-bond`),
        a: { piece: behind.plate, facet: behind.plate },
        b: { piece: names.piece, facet: names.ground },
        placement,
      },
      plateBond(names, sizes, lieMm),
    ],
  };
}
/** Adhesive of a level's ground stays this far off its hinge, stop and edges, mm; common practice, no source. */
const GLUE_INSET_MM = 3;
/** Under the ground, short of a tab that is folded up out of it. */
function coverGround({ along, wide, stop, stopHigh, stopBy, base }: StandSizes): Ring | undefined {
  const most = stopBy === 'tab' ? stop - stopHigh - GLUE_INSET_MM : wide - GLUE_INSET_MM;
  const x = along / 2 - GLUE_INSET_MM;
  if (!base.drawn) return rectangle(-x, GLUE_INSET_MM, x, most);
  const room: Polygon = { outer: rectangle(-along / 2, 0, along / 2, most), holes: [] };
  return largest(intersect(offset([base.outline], -GLUE_INSET_MM), [room]))?.outer;
}

/** Creases that others can stand on. */
function hostsOf({ names, sizes }: Stand, stock: string): Host[] {
  const { wide, strut, flap, base } = sizes;
  const host = (y: number, own: Pick<Host, 'crease' | 'sideA' | 'sideB' | 'reachA' | 'reachB' | 'ends'>): Host => {
    const { from, to } = acrossAt(base, -y);
    return {
      ...own,
      piece: names.piece,
      frame: { origin: [(from + to) / 2, y], along: [1, 0] },
      lengthMm: to - from,
      sign: 1,
      stock,
    };
  };
  return [
    host(0, {
      ...{ crease: names.hinge, sideA: names.ground, sideB: names.strut },
      ...{ reachA: wide, reachB: strut, ends: [Math.PI, undefined] },
    }),
    host(-strut, {
      ...{ crease: names.bend, sideA: names.strut, sideB: names.flap },
      ...{ reachA: strut, reachB: flap, ends: [0, undefined] },
    }),
  ];
}

/**
 * The foot rests on a ground that is the base, until `plate` lifts it off with all that stands on it. The opening turns
 * the strut against the ground; the foot's shoe slides over that.
 */
function joints(sizes: StandSizes): MovingJoint[] {
  const ground: Carried = { carriage: partId(CARD, 'ground') };
  const hinge = (dir: 1 | -1) => ({ kind: 'hinge', point: [0, 0, 0], axis: [dir, 0, 0] }) as const;
  const span = hingeSpan(sizes.along);
  return [
    {
      ...{ id: partId(CARD, 'lift'), a: { piece: CARD, facet: 'leafA' }, b: ground, motion: hinge(1) },
      ...{ placement: identity(), role: 1, ends: [0, Math.PI], span, driven: { drive: LIFT, at: 0, rate: 1 } },
    },
    {
      ...{ id: partId(CARD, 'prop'), a: ground, b: { piece: CARD, facet: 'leafB' }, motion: hinge(-1) },
      ...{ placement: identity(), role: 1, ends: [Math.PI, undefined], span },
      driven: { drive: OPEN, at: 0, rate: 1 },
    },
    ...footJoints(MAIN, sizes, ground),
  ];
}

/** @param sheetsMm of one stand that lies shut: ground, cover, plate */
function measured(pose: PoseReader, [main, ...levels]: readonly Stand[], sheetsMm: number): Record<string, number> {
  const least = (s: Stand, own: string): Record<string, number> => ({
    [`${own}stop_least_mm`]: nearest(s.sizes),
    [`${own}stop_most_mm`]: s.sizes.wide,
  });
  const of = (s: Stand, k: number): [string, number][] =>
    Object.entries({ ...standMeasures(s.names, pose), ...least(s, '') }).map(([key, v]) => [`levels[${k}].${key}`, v]);
  return {
    ...standMeasures(MAIN, pose),
    closed_thickness_mm: [main, ...levels].reduce((sum, l) => sum + sheetsMm + stripMm(l.sizes), 0),
    shelf_depth_mm: main.sizes.wide,
    ...least(main, ''),
    ...Object.fromEntries(levels.flatMap(of)),
  };
}

const size = lengths(1, 1500);

const STOP_BY: Parameter = {
  key: 'stopBy',
  label: 'Stopped by',
  unit: 'choice',
  default: 'strip',
  choices: STOPS,
  note: 'A strip stuck on, a tab scored and folded up out of the paper, or the edge of what lies there.',
};
const LEVEL_FIELDS: readonly Parameter[] = [
  size('width', 'Level, hinge to fore edge', 60, 'Of its base, and of its cover before it is broken.', 10),
  size('height', 'Level, along the hinge', 60, 'Of base and cover.', 10),
  { ...size('break', 'Level, hinge to break', null, 'Half way unless said.'), optional: true },
  size('stop', 'Level, hinge to stop', 44, 'Where its foot comes to rest.'),
  { ...STOP_BY, label: 'Level, stopped by', optional: true },
  { ...size('stopHeight', 'Level, height of the stop', 2, 'At least as tall as its foot.', 0.1), optional: true },
  { ...size('stopWidth', 'Level, width of the stop', 6, 'Of a strip.'), optional: true },
  {
    ...{ key: 'shape', label: 'Level, shape of the base', unit: 'shape', default: null, optional: true },
    note: 'Of its base and cover, its straight foot along the hinge.',
  },
  { key: 'plate', label: 'Level, plate', unit: 'shape', default: null, note: 'Any shape.', optional: true },
  { ...size('plateHeight', 'Level, height of the plate', null, 'Of its shape.', 5), optional: true },
  {
    ...size('from', 'Level, above the foot behind', 10, 'Its fore edge over the foot of that plate.', 0),
    optional: true,
  },
];

/** Of the base, where a new stop is set. */
const STOP_PART = 80 / 107.95;

const levelStep = (k: number): BaseStep => {
  const { ground, strut, flap, plate } = levelNames(k);
  return {
    title: `Glue level ${k + 1} on`,
    text: 'Put it together as the card itself, then stick its base to the plate behind, hinge up, none past its edges.',
    openDeg: 180,
    parts: [ground, strut, flap, plate],
    folds: [`level-${k + 1}-hinge`, `level-${k + 1}-break`, `level-${k + 1}-tab`],
    glue: [`${plate}-glue`, `${ground}-glue`],
  };
};
const STOP_STEP: Readonly<Record<StopKind, BaseStep>> = {
  strip: {
    title: 'Set the stop',
    text:
      'Glue its strips over each other. Stand the card up, let the foot down where it leans as wanted, and stick the ' +
      'stop in front of it.',
    openDeg: 180,
    parts: [PLATE],
    sticks: 'wet',
    takes: THE_REST,
  },
  tab: {
    title: 'Fold the tab up',
    text: 'Stand it up, fold the tab up out of the base behind the foot, and let that down against it.',
    openDeg: 180,
    parts: ['tab', PLATE],
    folds: ['tab'],
  },
  edge: {
    title: 'Try the stop',
    text: 'Stand it up and let the foot down before the edge that holds it.',
    openDeg: 180,
    parts: [PLATE],
  },
};

/** Everything as far up as its stop lets it. */
function stoodUp(values: ParameterValues): State {
  const levels = listOf(values, 'levels');
  const tabs = [
    ...(values.stopBy === 'tab' ? [tabOf(MAIN)] : []),
    ...levels.flatMap((item, k) => (item.stopBy === 'tab' ? [tabOf(levelNames(k))] : [])),
  ];
  return {
    [OPEN]: 180,
    ...Object.fromEntries(levels.map((_, k) => [levelDrive(k), 180])),
    ...Object.fromEntries(tabs.map((tab) => [tab, 90])),
  };
}

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
    size(
      'stop',
      'Hinge to stop',
      null,
      'Where its foot comes to rest: the nearer, the steeper it stands. Its share of the base unless said.',
    ),
    {
      key: 'shape',
      label: 'Shape of the base',
      unit: 'shape',
      default: null,
      note: 'Of base and cover, as large as it is drawn, its straight foot along the hinge; a rectangle unless set.',
    },
    STOP_BY,
    size('stopHeight', 'Height of the stop', 2, 'At least as tall as what leans on it.', 0.1),
    size('stopWidth', 'Width of the stop', 8, 'Of a strip.'),
    {
      key: 'plate',
      label: 'Plate',
      unit: 'shape',
      default: null,
      note: 'Any shape, standing on its foot; as large as the cover unless set.',
    },
    size('plateHeight', 'Height of the plate', null, 'Of its shape; as drawn unless said.', 5),
    {
      key: 'plateFold',
      label: 'Plate doubled about its',
      unit: 'choice',
      default: 'none',
      choices: FOLDS,
      note: 'A leaf over the plate, joined along a straight edge of it: a card that stands.',
    },
    {
      key: 'levels',
      label: 'Levels',
      unit: 'list',
      entry: 'Level',
      default: [],
      fields: LEVEL_FIELDS,
      note: 'Smaller easels, each on the plate of the one behind, held by a strip, a tab or the edge before it.',
    },
  ],
  order: (values) => [
    {
      title: 'Break the cover',
      text: 'Score the hinge and the break, and fold the break forward and back until it gives way by itself.',
      openDeg: 40,
      parts: ['leafB', 'flap'],
      folds: ['gutter', 'break'],
    },
    {
      title: 'Stick the plate to the flap',
      text: 'Shut, its foot along the fore edge; strong tape or wet glue on the flap only, none past the break.',
      openDeg: 0,
      parts: [PLATE],
      glue: ['plate-glue'],
    },
    ...listOf(values, 'levels').map((_, k) => levelStep(k)),
    STOP_STEP[values.stopBy as StopKind],
  ],
  silent: (values) => (shapeOf(values, 'shape') ? ['width', 'height'] : []),
  brief: ['width', 'height', 'break', 'stop', 'stopHeight', 'stopWidth'],
  fitting: ({ gutter, reach }) => ({ width: reach, height: gutter, stop: Math.round(reach * STOP_PART) }),
  sizes: (v) => ({ gutter: num(v, 'height'), reach: num(v, 'width') }),
  turns: (values) => {
    const each = (...keys: string[]): string[] =>
      listOf(values, 'levels').flatMap((_, k) => keys.map((key) => `levels[${k}].${key}`));
    return {
      away: ['width', 'plateHeight', ...each('from', 'width', 'plateHeight')],
      along: ['height', ...each('height')],
      size: ['stopWidth', 'width', 'height', ...each('stopWidth', 'width', 'height')],
      weight: ['stop', 'plateHeight', ...each('stop', 'plateHeight')],
      closing: ['break', 'stop', ...each('stop', 'break')],
    };
  },
  sizeOf: (v, say) => (shapeOf(v, 'shape') ? 'shaped' : `${say(num(v, 'height'))} × ${say(num(v, 'width'))}`),
  states: (values) => [
    POSTED,
    { id: 'shelf', name: 'On the shelf', drives: stoodUp(values), stance: 'lying' },
    { id: 'writing', name: 'For writing', drives: { [LIFT]: 180 } },
  ],
  stands: 'lying',
  words: { leafA: 'base', leafB: 'strut' },
  flat: { [OPEN]: 0, [LIFT]: 180 },
  crease: GUTTER,
  face: (_, side) => (side === 'outside' ? PLATE : 'leafA'),
  up: (_, facet) => (facet === MAIN.ground || LEVEL_GROUND.test(facet) ? [0, -1] : [0, 1]),
  build,
};
