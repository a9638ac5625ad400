/**
 * Box step, cut through the fold or glued over it (docs/mechanisms.md).
 *
 *        y = a   ── base, valley ──      riser r, from base to ridge
 *        y = a-r ── ridge, mountain ──   tread t, from ridge to wall
 *        y = -b  ── wall, valley ──
 *
 * Cut from the page the paper between the creases is a + b long, so the tread is a + b - r.
 */
import type { CreaseLine, CreaseRole } from '../../pattern/pattern';
import { min } from 'd3-array';
import { stretchesInside, type Stretch } from '../../plane/chord';
import { contains, intersect, rectangle, type Polygon, type Region } from '../../plane/polygon';
import { frameAt, type Vec2 } from '../../plane/vec2';
import { compose, shiftBy } from '../../linkage';
import { LENGTH_EQUAL_MM } from '../../tolerance';
import {
  EMPTY,
  LABEL_STEP,
  num,
  placedOn,
  type BuildContext,
  type Contribution,
  type Host,
  type CreaseKind,
  type ParameterValues,
  type Piece,
} from '../kind';
import { alongCrease } from '../parameters';

/** Adhesive stays this far off a crease (mm); common practice, no source. */
export const GLUE_SET_BACK_MM = 1;

interface Step {
  readonly a: number;
  readonly b: number;
  readonly r: number;
  readonly t: number;
  /** Its sides, along the host's crease from the middle. */
  readonly x0: number;
  readonly x1: number;
}

function measure(values: ParameterValues, host: Host): Step {
  const [a, b, width] = [num(values, 'depth'), num(values, 'height'), num(values, 'width')];
  const r = values.riser === null ? b : num(values, 'riser');
  const glued = values.build === 'glued';
  const t = values.tread !== null ? num(values, 'tread') : glued ? a : a + b - r;
  const half = host.lengthMm / 2;
  const x0 =
    values.edge === 'left' ? -half : values.edge === 'right' ? half - width : num(values, 'offset') - width / 2;
  return { a, b, r, t, x0, x1: x0 + width };
}

function build(values: ParameterValues, context: BuildContext): Contribution {
  return values.build === 'glued' ? glued(values, context) : cut(values, context);
}

function cut(values: ParameterValues, { id, host, paper, say }: BuildContext): Contribution {
  const step = measure(values, host);
  const { a, b, r, x0, x1 } = step;
  const ridgeY = a - r;
  const at = (x: number, y: number): Vec2 => frameAt(host.frame, x, y);
  const over = values.tread === null ? 0 : r + num(values, 'tread') - (a + b);
  const open = openEnd(values.edge, step, host, paper);
  const runs = { base: open.run(a), ridge: open.run(ridgeY), wall: open.run(-b) };
  const crease = (name: keyof typeof runs, y: number, sign: 1 | -1): CreaseLine[] => {
    const run = runs[name];
    return run ? [creaseOf(id, host, name, at(run.from, y), at(run.to, y), sign, true)] : [];
  };
  const slit = (x: number) => ({ role: 'cut' as const, a: at(x, -b), b: at(x, a), mechanism: id });
  const half = host.lengthMm / 2;
  const middle = (name: keyof typeof runs, y: number): Vec2 =>
    at(runs[name] ? (runs[name].from + runs[name].to) / 2 : (x0 + x1) / 2, y);
  const gutter = { from: open.side === 'left' ? -half : x0, to: open.side === 'right' ? half : x1 };
  const inner = open.side === 'left' ? x1 - LABEL_STEP : x0 + LABEL_STEP;
  return {
    ...EMPTY,
    contradictions:
      Math.abs(over) < LENGTH_EQUAL_MM
        ? []
        : [
            {
              key: 'sum',
              what:
                `cut from the page its riser and tread must add up to depth + height ` +
                `(${say(a + b)}), not ${say(a + b + over)}.`,
              mm: Math.abs(over),
            },
          ],
    unheld: (['base', 'ridge', 'wall'] as const)
      .filter((name) => !runs[name])
      .map((name) => {
        const short = open.shortMm({ base: a, ridge: ridgeY, wall: -b }[name]);
        const edge =
          short === null ? 'the page does not reach there' : `the edge of the page lies ${say(short)} short of it`;
        return { key: name, what: `its ${name} has no paper: ${edge}` };
      }),
    lines: [...(open.side === 'left' ? [] : [slit(x0)]), ...(open.side === 'right' ? [] : [slit(x1)])],
    hostCreases: [...crease('base', a, 1), ...crease('ridge', ridgeY, -1), ...crease('wall', -b, 1)],
    interruptions: [{ crease: host.crease, from: gutter.from + half, to: gutter.to + half }],
    claims: open.claims(rectangle(x0, -b, x1, a).map(([x, y]) => at(x, y))),
    labels: [
      { name: `${id}.riser`, at: at(inner, a - LABEL_STEP), mechanism: id },
      { name: `${id}.tread`, at: at(inner, -b + LABEL_STEP), mechanism: id },
    ],
    hosts: hostsOf(
      id,
      host,
      { base: middle('base', a), ridge: middle('ridge', ridgeY), wall: middle('wall', -b) },
      host.piece,
      { a, b, r, t: a + b - r },
      (name) => (runs[name] ? runs[name].to - runs[name].from : 0),
      host.frame.along,
      host.stock,
    ),
    landmarks: [{ name: 'ridge', piece: host.piece, facet: `${id}.riser`, at: middle('ridge', ridgeY) }],
    measures: measuresOf({ a, b, r, t: values.tread === null ? a + b - r : num(values, 'tread'), x0, x1 }, host),
  };
}

/** How a step ends toward the edge it is open to: on the edge itself, whatever its outline. */
interface OpenEnd {
  readonly side: 'none' | 'left' | 'right';
  /** Where a crease at a level runs, along the host; null where it has no paper. */
  run(y: number): Stretch | null;
  /** How far short of the step's inner end the paper of that level ends, mm; null where there is none. */
  shortMm(y: number): number | null;
  claims(plain: readonly Vec2[]): Region;
}

/**
 * A side step on the outline of its page follows it, however that is shaped; one that is nested ends on its host's
 * slit, which is straight.
 */
function openEnd(edge: unknown, { x0, x1 }: Step, host: Host, paper: Polygon): OpenEnd {
  const side = edge === 'left' || edge === 'right' ? edge : 'none';
  const beyond = side === 'left' ? x0 - LABEL_STEP : x1 + LABEL_STEP;
  const straight: OpenEnd = {
    side,
    run: () => ({ from: x0, to: x1 }),
    shortMm: () => 0,
    claims: (plain) => [{ outer: plain, holes: [] }],
  };
  if (side === 'none' || contains(paper, frameAt(host.frame, beyond, 0))) return straight;
  const inner = side === 'left' ? x1 : x0;
  const solid = { outer: paper.outer, holes: [] };
  const inside = (y: number): Stretch[] => stretchesInside(solid, frameAt(host.frame, 0, y), host.frame.along);
  return {
    side,
    run: (y) => {
      const around = inside(y).find((s) => s.from < inner && s.to > inner);
      if (!around) return null;
      return side === 'left' ? { from: around.from, to: inner } : { from: inner, to: around.to };
    },
    shortMm: (y) => {
      const short = inside(y).map((s) => (side === 'left' ? s.from - inner : inner - s.to));
      return min(short.filter((mm) => mm > 0)) ?? null;
    },
    claims: (plain) => intersect([{ outer: plain, holes: [] }], [solid]),
  };
}

function glued(values: ParameterValues, { id, host, stock }: BuildContext): Contribution {
  const step = measure(values, host);
  const { a, b, r, t } = step;
  const tab = num(values, 'tab');
  const width = step.x1 - step.x0;
  // Glued from behind a mountain crease the piece is turned over, and x with it.
  const middle = (host.sign * (step.x0 + step.x1)) / 2;
  const [x0, x1] = [middle - width / 2, middle + width / 2];
  const y = { base: a, ridge: a - r, wall: a - r - t };
  const piece = `${id}.step`;
  const lies = Math.abs(a + b - r - t) < LENGTH_EQUAL_MM;
  const own: Host = { ...host, sign: 1 };
  const crease = (name: string, at: number, sign: 1 | -1): CreaseLine =>
    creaseOf(id, own, name, [x0, at], [x1, at], sign, lies);
  const tabOutline = (from: number, to: number): readonly Vec2[] =>
    rectangle(x0 + GLUE_SET_BACK_MM, from, x1 - GLUE_SET_BACK_MM, to);
  const shift = -b - y.wall;
  const onHost = (ring: readonly Vec2[], dy: number): Vec2[] =>
    ring.map(([px, py]) => frameAt(host.frame, host.sign * px, py + dy));
  const areaA = tabOutline(a + GLUE_SET_BACK_MM, a + tab);
  const areaB = tabOutline(y.wall - tab, y.wall - GLUE_SET_BACK_MM);
  const body: Piece = {
    id: piece,
    title: 'Step',
    mechanism: id,
    stock,
    outline: { outer: rectangle(x0, y.wall - tab, x1, a + tab), holes: [] },
    lines: [],
    creases: [crease('base', y.base, 1), crease('ridge', y.ridge, -1), crease('wall', y.wall, 1)],
    glue: [
      {
        id: `${id}.glueA`,
        mechanism: id,
        outline: areaA,
        facet: `${id}.tabA`,
        onto: { piece: host.piece, facet: host.sideA, outline: onHost(areaA, 0) },
      },
      {
        id: `${id}.glueB`,
        mechanism: id,
        outline: areaB,
        facet: `${id}.tabB`,
        onto: { piece: host.piece, facet: host.sideB, outline: onHost(areaB, shift) },
      },
    ],
    labels: [
      { name: `${id}.tabA`, at: [x0 + LABEL_STEP, a + LABEL_STEP], mechanism: id },
      { name: `${id}.riser`, at: [x0 + LABEL_STEP, a - LABEL_STEP], mechanism: id },
      { name: `${id}.tread`, at: [x0 + LABEL_STEP, y.wall + LABEL_STEP], mechanism: id },
      { name: `${id}.tabB`, at: [x0 + LABEL_STEP, y.wall - LABEL_STEP], mechanism: id },
    ],
  };
  const placement = placedOn(host);
  return {
    ...EMPTY,
    pieces: [body],
    bonds: [
      { id: `${id}.bondA`, a: { piece: host.piece, facet: host.sideA }, b: { piece, facet: `${id}.tabA` }, placement },
      {
        id: `${id}.bondB`,
        a: { piece: host.piece, facet: host.sideB },
        b: { piece, facet: `${id}.tabB` },
        placement: compose(placement, shiftBy([0, shift, 0])),
      },
    ],
    hosts: hostsOf(
      id,
      { ...own, sideA: `${id}.tabA`, sideB: `${id}.tabB`, reachA: tab + a, reachB: tab + b },
      { base: [middle, y.base], ridge: [middle, y.ridge], wall: [middle, y.wall] },
      piece,
      { a, b, r, t },
      () => width,
      [1, 0],
      stock,
    ),
    landmarks: [{ name: 'ridge', piece, facet: `${id}.riser`, at: [middle, y.ridge] }],
    measures: measuresOf(step, host),
  };
}

/** A crease whose folds at the ends go with its host's: full where that is full, flat where that is flat. */
function creaseOf(id: string, host: Host, name: string, a: Vec2, b: Vec2, turn: 1 | -1, liesOpen: boolean): CreaseLine {
  const sign = turn * host.sign;
  const role: CreaseRole = sign > 0 ? 'valley' : 'mountain';
  const [closed, open] = host.ends;
  const signed = (size: number | undefined): number | undefined => (size === undefined ? undefined : sign * size + 0);
  return {
    id: `${id}.${name}`,
    role,
    mechanism: id,
    a,
    b,
    standsOn: host.crease,
    ends: [signed(closed), liesOpen ? signed(open) : undefined],
  };
}

function hostsOf(
  id: string,
  host: Host,
  middles: { base: Vec2; ridge: Vec2; wall: Vec2 },
  piece: string,
  { a, b, r, t }: { a: number; b: number; r: number; t: number },
  lengthOf: (crease: 'base' | 'ridge' | 'wall') => number,
  along: Vec2,
  stock: string,
): Host[] {
  const on = (
    name: 'base' | 'ridge' | 'wall',
    origin: Vec2,
    sign: 1 | -1,
    sideA: string,
    sideB: string,
    reachA: number,
    reachB: number,
  ): Host => ({
    crease: `${id}.${name}`,
    piece,
    frame: { origin, along },
    lengthMm: lengthOf(name),
    sideA,
    sideB,
    sign,
    ends: host.ends,
    reachA,
    reachB,
    stock,
  });
  return [
    on('base', middles.base, host.sign, host.sideA, `${id}.riser`, host.reachA - a, r),
    on('ridge', middles.ridge, host.sign > 0 ? -1 : 1, `${id}.riser`, `${id}.tread`, r, t),
    on('wall', middles.wall, host.sign, `${id}.tread`, host.sideB, t, host.reachB - b),
  ];
}

function measuresOf({ a, b, r, t }: Step, host: Host): Contribution['measures'] {
  const furthest = Math.max(a + r, b + t);
  const reach = Math.max(host.reachA, host.reachB);
  return (pose) => {
    const ridge = pose.local('ridge');
    return {
      ...(ridge ? { ridge_y: ridge[1], ridge_z: ridge[2] } : {}),
      overhang_mm: Math.max(0, furthest - reach),
      room_mm: reach - furthest,
      gap_mm: Math.abs(a + r - b - t),
    };
  };
}

export const stepFold: CreaseKind = {
  id: 'step-fold',
  mount: 'crease',
  title: 'Step',
  says: 'A box step, cut through the fold or glued over it. Stands square when the card is at 90°.',
  sign: 'M2 13 L2 3 M2 13 L14 13 M2 7 L8 7 L8 13',
  fitting: ({ lengthMm, reachA, reachB }, whole) => ({
    depth: whole(reachA * 0.3, 3),
    height: whole(reachB * 0.3, 3),
    width: whole(lengthMm * 0.4, 5),
  }),
  turns: () => ({
    away: ['depth', 'height', 'riser'],
    along: ['offset', 'width'],
    closing: ['riser', 'tread', 'depth', 'height'],
    tabs: ['tab', 'width'],
    size: ['width'],
  }),
  // The ridge lies where depth and riser have it: a hand on it makes the step higher.
  holds: (crease) => (crease === 'ridge' ? ['riser', 'height'] : []),
  sizeOf: (v, say) => `${say(num(v, 'depth'))} × ${say(num(v, 'height'))}`,
  // A cut step has no tabs, a side step keeps to its edge.
  silent: ({ build: how, edge }) => [
    ...(how === 'cut' ? ['tab', 'tread'] : []),
    ...(edge === 'none' ? [] : ['offset']),
  ],
  ownPiece: (v) => v.build === 'glued',
  parameters: [
    {
      key: 'depth',
      label: 'Depth from the crease',
      unit: 'mm',
      default: 25,
      min: 1,
      max: 1000,
      note: 'Base crease on side A, from what it stands on.',
    },
    {
      key: 'height',
      label: 'Height',
      unit: 'mm',
      default: 25,
      min: 1,
      max: 1000,
      note: 'Wall crease on side B, from what it stands on.',
    },
    {
      key: 'width',
      label: 'Width',
      unit: 'mm',
      default: 40,
      min: 1,
      max: 2000,
      note: 'Along the crease; a side step is measured from the edge.',
    },
    alongCrease('Its middle, from the middle of the crease. A side step keeps to its edge.'),
    {
      key: 'edge',
      label: 'Open to the edge',
      unit: 'choice',
      default: 'none',
      choices: ['none', 'left', 'right'],
      note: 'Left and right are the low and the high end along the crease.',
    },
    {
      key: 'build',
      label: 'Made by',
      unit: 'choice',
      default: 'cut',
      choices: ['cut', 'glued'],
      note: 'Cut from the page, or a strip of its own glued over the crease.',
    },
    {
      key: 'riser',
      label: 'Riser',
      unit: 'mm',
      default: null,
      min: 1,
      max: 1000,
      note: 'From base to ridge; the height unless set.',
    },
    {
      key: 'tread',
      label: 'Tread',
      unit: 'mm',
      default: null,
      min: 1,
      max: 1000,
      note: 'From ridge to wall; the depth unless set. Cut from the page it is depth + height - riser.',
    },
    {
      key: 'tab',
      label: 'Glue tab',
      unit: 'mm',
      default: 10,
      min: 2,
      max: 100,
      note: 'Width of each tab of a glued step.',
    },
  ],
  build,
};
