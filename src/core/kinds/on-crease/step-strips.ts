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
  type Bond,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type Host,
  type Landmark,
  type ListItem,
  type Parameter,
  type ParameterValues,
  type Piece,
} from '../kind';

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
  readonly landmark: Landmark;
}

function strip({ p, q, from, to, tab }: Tier, k: number, { id, host, stock }: BuildContext): Strip {
  const own = (part: string): string => partId(id, `tier-${k + 1}${part}`);
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
  return {
    piece: {
      id: piece,
      title: `Tier ${k + 1}`,
      mechanism: id,
      stock,
      outline: { outer: rectangle(from, -q - tab, to, q + tab), holes: [] },
      lines: [],
      creases: [crease('-foldA', q, tabEnds), crease('-ridge', 0, middle), crease('-foldB', -q, tabEnds)],
      glue: [glue('A'), glue('B')],
      labels: [
        label('-tabA', q + tab - LABEL_STEP),
        label('-halfA', LABEL_STEP),
        label('-halfB', -LABEL_STEP),
        label('-tabB', -q - tab + LABEL_STEP),
      ],
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
    landmark: { name: `ridge_${k + 1}`, piece, facet: own('-halfA'), at: [(from + to) / 2, 0] },
  };
}

function build(values: ParameterValues, context: BuildContext): Contribution {
  const { host, say } = context;
  const tab = num(values, 'tab');
  const tiers = listOf(values, 'tiers').map((item) => tierOf(item, tab));
  const strips = tiers.map((tier, k) => strip(tier, k, context));
  const reach = Math.min(host.reachA, host.reachB);
  const room = tiers.map(({ p, q }) => reach - (p + q));
  return {
    ...EMPTY,
    pieces: strips.map((s) => s.piece),
    bonds: strips.flatMap((s) => s.bonds),
    hosts: strips.map((s) => s.host),
    landmarks: strips.map((s) => s.landmark),
    unheld: tiers.flatMap(({ p, from, to }, k) => [
      ...(to > from ? [] : [{ key: `tier ${k}`, what: `tier ${k + 1} ends at ${say(to)}, where it begins` }]),
      ...(tab < p ? [] : [{ key: `tab ${k}`, what: `the tabs of tier ${k + 1} meet under it: they are ${say(tab)}` }]),
    ]),
    measures: () => ({
      room_mm: Math.min(...room),
      ...Object.fromEntries(room.map((mm, k) => [`tiers[${k}].room_mm`, mm])),
    }),
  };
}

const TIER: readonly Parameter[] = [
  { key: 'p', label: 'Glued at', unit: 'mm', default: 30, min: 2, max: 500, note: 'From the crease, on both sides.' },
  {
    key: 'q',
    label: 'Half length',
    unit: 'mm',
    default: null,
    min: 2,
    max: 500,
    note: 'From there to its middle: as far as it is glued from the crease unless set, then it lies flat open.',
    optional: true,
  },
  { key: 'from', label: 'From', unit: 'mm', default: -60, min: -1000, max: 1000, note: 'Along the crease.' },
  { key: 'to', label: 'To', unit: 'mm', default: 60, min: -1000, max: 1000, note: 'Along the crease.' },
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
    const each = (...keys: string[]): string[] =>
      listOf(values, 'tiers').flatMap((_, k) => keys.map((key) => `tiers[${k}].${key}`));
    return {
      away: each('p', 'q'),
      along: each('from', 'to'),
      closing: each('q', 'p'),
      tabs: ['tab'],
      size: each('to'),
    };
  },
  sizeOf: (v) => {
    const { length } = listOf(v, 'tiers');
    return `${length} ${length === 1 ? 'tier' : 'tiers'}`;
  },
  raises: true,
  ownPiece: () => true,
  parameters: [
    {
      key: 'tiers',
      label: 'Tiers',
      unit: 'list',
      default: [{ p: 30, q: null, from: -60, to: 60 }],
      fields: TIER,
      note: 'Each a strip of its own.',
    },
    { key: 'tab', label: 'Tabs', unit: 'mm', default: 10, min: 3, max: 100, note: 'Tucked under the strips.' },
  ],
  build,
};
