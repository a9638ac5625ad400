/**
 * Tiers of strips over a folded base (docs/mechanisms.md): each is glued on both sides by a tab that is tucked under
 * it, and folded in its middle over the crease. Local axes: x along the crease, y into side A; a strip is drawn
 * unfolded: tab, half, half, tab along y.
 */
import { partId } from '../../ids';
import type { CreaseLine, GlueArea } from '../../pattern/pattern';
import { rectangle } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { compose, shiftBy, turnAbout, type Rigid } from '../../linkage';
import {
  EMPTY,
  LABEL_STEP,
  laidOnto,
  listOf,
  num,
  placedOn,
  type Bend,
  type Bond,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type Group,
  type Host,
  type Landmark,
  type ListItem,
  type Parameter,
  type ParameterValues,
  type Piece,
  type PoseReader,
} from '../kind';
import { lengths } from '../parameters';

/** Its parts are named after it. */
const BOW = 'bow';
/** Adhesive stays this far off creases and edges, mm; common practice, no source. */
const GLUE_INSET_MM = 1.5;

/** Where a tier lies, mm. */
interface Tier {
  /** From the crease to where it is glued, and from there to its middle. */
  readonly p: number;
  readonly q: number;
  readonly from: number;
  readonly to: number;
  readonly tab: number;
}

const tierOf = (item: ListItem, tab: number): Tier => ({
  p: num(item, 'p'),
  q: (item.q as number | null) ?? num(item, 'p'),
  from: num(item, 'from'),
  to: num(item, 'to'),
  tab,
});

/** Turned over about the crease's direction. */
const OVER: Rigid = turnAbout([0, 0, 0], [1, 0, 0], Math.PI);

interface Strip {
  readonly piece: Piece;
  readonly bonds: readonly Bond[];
  readonly host: Host;
}

/** A strip as its parts are named, with or without a crease in its middle. */
function strip(
  { p, q, from, to, tab }: Tier,
  name: string,
  title: string,
  bows: boolean,
  { id, host, stock }: BuildContext,
): Strip {
  const own = (part: string): string => partId(id, `${name}${part}`);
  const piece = own('');
  const full = host.ends[0] === Math.PI && host.ends[1] === 0;
  const flat = q === p;
  const crease = (part: string, y: number, ends: CreaseLine['ends']): CreaseLine => ({
    id: own(part),
    role: 'mountain',
    mechanism: id,
    a: [from, y],
    b: [to, y],
    standsOn: host.crease,
    ends: full ? ends : [host.ends[0] === Math.PI ? ends[0] : undefined, undefined],
  });
  // Shut, the halves lie on the leaves past their tabs; open flat they lie back over them, where they reach.
  const tabEnds: CreaseLine['ends'] = [0, flat ? -Math.PI : undefined];
  // Tucked under, a tab lies turned over on the page, from the glue line toward the crease.
  const placement = (sign: 1 | -1): Rigid => compose(placedOn(host), compose(shiftBy([0, sign * (p + q), 0]), OVER));
  const glue = (side: 'A' | 'B'): GlueArea => {
    const sign = side === 'A' ? 1 : -1;
    const [y0, y1] = [q + GLUE_INSET_MM, q + tab - GLUE_INSET_MM];
    const outline = rectangle(from + GLUE_INSET_MM, sign > 0 ? y0 : -y1, to - GLUE_INSET_MM, sign > 0 ? y1 : -y0);
    return {
      id: own(`-glue${side}`),
      mechanism: id,
      outline,
      facet: own(`-tab${side}`),
      onto: {
        piece: host.piece,
        facet: side === 'A' ? host.sideA : host.sideB,
        outline: laidOnto(placement(sign), outline),
      },
    };
  };
  const bond = (side: 'A' | 'B'): Bond => ({
    id: own(`-bond${side}`),
    a: { piece: host.piece, facet: side === 'A' ? host.sideA : host.sideB },
    b: { piece, facet: own(`-tab${side}`) },
    placement: placement(side === 'A' ? 1 : -1),
  });
  const label = (part: string, y: number) => ({ name: own(part), at: [from + LABEL_STEP, y] as Vec2, mechanism: id });
  const middle: CreaseLine['ends'] = [-Math.PI, flat ? 0 : undefined];
  const halves = bows ? [label('-front', 0)] : [label('-halfA', LABEL_STEP), label('-halfB', -LABEL_STEP)];
  return {
    piece: {
      id: piece,
      title,
      mechanism: id,
      stock,
      outline: { outer: rectangle(from, -q - tab, to, q + tab), holes: [] },
      lines: [],
      creases: [
        crease('-foldA', q, tabEnds),
        ...(bows ? [] : [crease('-ridge', 0, middle)]),
        crease('-foldB', -q, tabEnds),
      ],
      glue: [glue('A'), glue('B')],
      labels: [label('-tabA', q + tab - LABEL_STEP), ...halves, label('-tabB', -q - tab + LABEL_STEP)],
    },
    bonds: [bond('A'), bond('B')],
    host: {
      crease: own('-ridge'),
      piece,
      frame: { origin: [(from + to) / 2, 0], along: [1, 0] },
      lengthMm: to - from,
      sideA: own('-halfA'),
      sideB: own('-halfB'),
      sign: -1,
      ends: full ? [Math.PI, flat ? 0 : undefined] : [undefined, undefined],
      reachA: q,
      reachB: q,
      stock,
    },
  };
}

const ridge = ({ piece, host }: Strip, k: number): Landmark => ({
  name: `ridge_${k + 1}`,
  piece: piece.id,
  facet: host.sideA,
  at: host.frame.origin,
});

/** The bowed front: as a tier whose half is half its length, without a crease in its middle. */
interface Front extends Tier {
  readonly lengthMm: number;
}
function frontOf(values: ParameterValues, tab: number): Front | null {
  const bow = values.bow as Group | null;
  if (!bow) return null;
  const lengthMm = (bow.length as number | null) ?? 2 * bow.p;
  return { p: bow.p, q: lengthMm / 2, from: bow.from, to: bow.to, tab, lengthMm };
}

function bendOf({ lengthMm, from }: Front, id: string): Bend {
  const own = (part: string): string => partId(id, `${BOW}${part}`);
  return {
    id: own(''),
    piece: own(''),
    facet: own('-front'),
    ends: [own('-tabA'), own('-tabB')],
    creases: [own('-foldA'), own('-foldB')],
    lengthMm,
    from,
  };
}

function build(values: ParameterValues, context: BuildContext): Contribution {
  const { host, say, id } = context;
  const tab = num(values, 'tab');
  const tiers = listOf(values, 'tiers').map((item) => tierOf(item, tab));
  const front = frontOf(values, tab);
  const strips = tiers.map((tier, k) => strip(tier, `tier-${k + 1}`, `Tier ${k + 1}`, false, context));
  const bowed = front ? [strip(front, BOW, 'Bowed front', true, context)] : [];
  const all = [...strips, ...bowed];
  const reach = Math.min(host.reachA, host.reachB);
  const room = tiers.map(({ p, q }) => reach - (p + q));
  const named = tiers.map((tier, k) => ({ tier, what: `tier ${k + 1}` }));
  return {
    ...EMPTY,
    pieces: all.map((s) => s.piece),
    bonds: all.flatMap((s) => s.bonds),
    bends: front ? [bendOf(front, id)] : [],
    hosts: strips.map((s) => s.host),
    landmarks: strips.map(ridge),
    unheld: [...named, ...(front ? [{ tier: front, what: 'the bowed front' }] : [])].flatMap(
      ({ tier: { p, from, to }, what }) => [
        ...(to > from ? [] : [{ key: `ends ${what}`, what: `${what} ends at ${say(to)}, where it begins` }]),
        ...(tab < p ? [] : [{ key: `tab ${what}`, what: `the tabs of ${what} meet under it: they are ${say(tab)}` }]),
      ],
    ),
    measures: (pose) => ({
      room_mm: Math.min(...room, ...(front ? [reach - (front.p + front.q)] : [])),
      ...Object.fromEntries(room.map((mm, k) => [`tiers[${k}].room_mm`, mm])),
      ...(front ? bowMeasures(front, reach, strips.length, id, pose) : {}),
    }),
  };
}

/**
 * How far the front bulges as a strip pinned at both lines, how much of it rests on the leaves, how far it stands from
 * the crease with that, and how much further than the tier that stands out most.
 */
function bowMeasures(front: Front, reach: number, tiers: number, id: string, pose: PoseReader): Record<string, number> {
  const room = { 'bow.room_mm': reach - (front.p + front.q) };
  const bow = pose.bow(partId(id, BOW));
  if (!bow) return room;
  const [[x]] = [bow.at(0)];
  // Its lines lie on a circle about the crease: the middle of their chord is so far from that.
  const topMm = Math.sqrt(Math.max(0, front.p * front.p - x * x)) + bow.bulgeMm;
  const ridges = Array.from({ length: tiers }, (_, k) => pose.local(`ridge_${k + 1}`)).filter((r) => r !== undefined);
  return {
    ...room,
    'bow.bulge_mm': bow.freeBulgeMm,
    'bow.rests_mm': bow.liesMm,
    'bow.top_mm': topMm,
    ...(ridges.length > 0 ? { 'bow.clear_mm': topMm - Math.max(...ridges.map(([, y, z]) => Math.hypot(y, z))) } : {}),
  };
}

const out = lengths(2, 500);
const along = lengths(-1000, 1000);
const TIER: readonly Parameter[] = [
  out('p', 'Glued at', 30, 'From the crease, on both sides.'),
  {
    ...out('q', 'Half length', null, 'From there to its middle: as glued from the crease unless set, then flat open.'),
    optional: true,
  },
  along('from', 'From', -60, 'Along the crease.'),
  along('to', 'To', 60, 'Along the crease.'),
];
const BOW_FIELDS: readonly Parameter[] = [
  out('p', 'Bow, glued at', 45, 'From the crease, on both sides.'),
  {
    ...lengths(4, 1000)(
      'length',
      'Bow, length',
      null,
      'Between its glue lines: unless set, so long that it lies flat open.',
    ),
    optional: true,
  },
  along('from', 'Bow, from', -60, 'Along the crease.'),
  along('to', 'Bow, to', 60, 'Along the crease.'),
];

export const stepStrips: CreaseKind = {
  id: 'step-strips',
  mount: 'crease',
  title: 'Tiers of strips',
  says: 'Strips over the fold, each glued on both sides and folded in its middle: tiers that rise as the card closes.',
  sign: 'M1 14 H15 M3 14 L8 8 L13 14 M5.5 14 L8 11 L10.5 14',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const reach = Math.min(reachA, reachB);
    const half = whole(lengthMm * 0.3, 10);
    const [low, high] = [whole(reach * 0.2, 14), whole(reach * 0.35, 16)];
    return {
      tiers: [
        { p: low, q: null, from: -half, to: 0 },
        { p: high, q: null, from: whole(2, 1), to: half },
      ],
      tab: whole(Math.min(10, low - 2), 9),
    };
  },
  turns: (values) => {
    const ofBow = (...keys: string[]): string[] => (values.bow ? keys.map((key) => `bow.${key}`) : []);
    const each = (...keys: string[]): string[] =>
      listOf(values, 'tiers').flatMap((_, k) => keys.map((key) => `tiers[${k}].${key}`));
    return {
      away: [...each('p', 'q'), ...ofBow('length', 'p')],
      along: [...each('from', 'to'), ...ofBow('from', 'to')],
      closing: [...each('q', 'p'), ...ofBow('length', 'p')],
      tabs: ['tab'],
      size: [...each('to'), ...ofBow('to')],
    };
  },
  sizeOf: (v) => {
    const { length } = listOf(v, 'tiers');
    return `${length} ${length === 1 ? 'tier' : 'tiers'}${v.bow ? ', bowed front' : ''}`;
  },
  raises: true,
  ownPiece: () => true,
  parameters: [
    {
      key: 'tiers',
      label: 'Tiers',
      unit: 'list',
      entry: 'Tier',
      default: [{ p: 30, q: null, from: -60, to: 60 }],
      fields: TIER,
      note: 'Each a strip of its own.',
    },
    {
      key: 'bow',
      label: 'Bowed front',
      unit: 'group',
      default: null,
      fields: BOW_FIELDS,
      note: 'A strip before the tiers without a crease in its middle: it bulges as the card closes.',
    },
    { key: 'tab', label: 'Tabs', unit: 'mm', default: 10, min: 3, max: 100, note: 'Tucked under the strips.' },
  ],
  build,
};
