/**
 * A silhouette cut from the page, held by struts (docs/mechanisms.md). It stands parallel to side B, `depth` in front
 * of it.
 */
import { partId } from '../../ids';
import { mapRegion, regionArea, type Region } from '../../plane/polygon';
import { frameAt } from '../../plane/vec2';
import { standing } from '../../shapes/outline';
import { widthOfAll } from '../../shapes/level';
import {
  EMPTY,
  listOf,
  num,
  shapeOf,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type ListItem,
  type Parameter,
  type ParameterValues,
} from '../kind';
import { alongCrease, scaledHeight } from '../parameters';
import { cutFigure } from '../figures/page-figure';
import { LEAST_STRUT_MM, holdFigure, type HeldFigure, type Placed } from '../figures/struts';

const placed = (items: readonly ListItem[]): Placed[] =>
  items.map((i) => ({ x: i.x as number, width: i.width as number }));

/** The silhouette as it is held, in (x, h) about its own middle; the reader's right is the low end of the crease. */
export function heldFigure(values: ParameterValues, outline: BuildContext['outline']): HeldSilhouette {
  const drawn = outline(shapeOf(values, 'shape')!);
  const key = JSON.stringify(['figureHeight', 'depth', 'strutMin', 'footMin', 'struts', 'feet'].map((k) => values[k]));
  const mine = known.get(drawn) ?? new Map<string, HeldSilhouette>();
  known.set(drawn, mine);
  const found = mine.get(key) ?? hold(values, drawn);
  if (mine.size > MOST_KNOWN) mine.clear();
  mine.set(key, found);
  return found;
}

export interface HeldSilhouette {
  readonly silhouette: Region;
  readonly held: HeldFigure;
}
/** A figure is built again for every change beside it; its struts stay. */
const known = new WeakMap<Region, Map<string, HeldSilhouette>>();
const MOST_KNOWN = 40;

function hold(values: ParameterValues, drawn: Region): HeldSilhouette {
  // Half a turn, not a reflection: seen from the front the page's x runs to the left.
  const silhouette = mapRegion(standing(drawn, values.figureHeight as number | null), ([x, h]) => [-x, h], true);
  const held = holdFigure(silhouette, {
    depth: num(values, 'depth'),
    strutMin: num(values, 'strutMin'),
    footMin: num(values, 'footMin'),
    struts: values.struts === 'auto' ? 'auto' : placed(listOf(values, 'struts')),
    feet: values.feet === 'auto' ? 'auto' : placed(listOf(values, 'feet')),
  });
  return { silhouette, held };
}

function build(values: ParameterValues, { id, host, outline }: BuildContext): Contribution {
  const [depth, offset] = [num(values, 'depth'), num(values, 'offset')];
  const { silhouette, held } = heldFigure(values, outline);
  const along = <T extends { from: number; to: number }>(i: T): T => ({
    ...i,
    from: i.from + offset,
    to: i.to + offset,
  });
  const region = mapRegion(held.region, ([x, h]) => [x + offset, h]);
  const many = region.length > 1;
  const cut = cutFigure({
    id,
    host,
    region,
    depth,
    feet: held.feet.map(along),
    holds: held.holds.map(along),
    names: {
      part: (k) => (many ? `figure-${k + 1}` : 'figure'),
      hold: (k) => `strut-${k + 1}`,
      foot: (k) => `foot-${k + 1}`,
      ridge: (k) => `ridge-${k + 1}`,
      wall: (k) => `wall-${k + 1}`,
    },
  });
  const height = silhouette.flatMap((p) => p.outer).reduce((top, p) => Math.max(top, p[1]), 0);
  const reach = Math.max(host.reachA, host.reachB);
  const narrowest = held.holds.reduce(
    (least, { from, to }, k) => (to - from < least.mm ? { mm: to - from, k } : least),
    { mm: Infinity, k: 0 },
  );
  return {
    ...EMPTY,
    ...cut,
    demands: [
      {
        rule: 'web',
        aspect: 'strut',
        says: 'its narrowest strut has a width of',
        measured: narrowest.mm,
        unit: 'mm',
        least: LEAST_STRUT_MM,
        blocksUnder: LEAST_STRUT_MM / 2,
        levers: values.struts === 'auto' ? ['strutMin'] : [`struts[${narrowest.k}].width`],
        subjects: [partId(id, `ridge-${narrowest.k + 1}`)],
      },
    ],
    unheld: [...cut.unheld, ...held.missed.map((key) => ({ key, what: `${key} does not meet the silhouette` }))],
    landmarks: [
      {
        name: 'tip',
        piece: host.piece,
        facet: cut.tip.facet,
        at: frameAt(host.frame, cut.tip.at[0], depth - cut.tip.at[1]),
      },
    ],
    measures: () => ({
      room_mm: reach - (depth + height),
      strut_count: held.holds.length,
      strut_narrowest_mm: held.holds.reduce(
        (least, s) => Math.min(least, s.to - s.from),
        held.holds.length > 0 ? Infinity : 0,
      ),
      ...freeEnds(silhouette, held.holds),
      ...(Number.isFinite(narrowest.mm) && depth > 0 ? { strut_width_per_depth: narrowest.mm / depth } : {}),
      strut_total_mm: widthOfAll(held.holds),
      foot_mm: widthOfAll(held.feet),
      shape_loss_pct: held.lossPct,
      figure_area_mm2: regionArea(silhouette),
    }),
  };
}

/** How far a figure, seen from its front, reaches past its outermost struts: it bends there. */
function freeEnds(
  silhouette: Region,
  holds: readonly { readonly from: number; readonly to: number }[],
): Record<string, number> {
  if (holds.length === 0) return {};
  const xs = silhouette.flatMap((p) => p.outer.map(([x]) => x));
  return {
    beyond_struts_left_mm: Math.max(...xs) - Math.max(...holds.map((h) => h.to)),
    beyond_struts_right_mm: Math.min(...holds.map((h) => h.from)) - Math.min(...xs),
  };
}

/** How a figure's struts trade: the fewer and wider, the stronger and the further from the outline. */
export interface StrutTrade {
  readonly strutMin: number;
  readonly count: number;
  readonly narrowestMm: number;
  readonly totalMm: number;
  readonly lossPct: number;
}
/** Least widths of struts that are weighed against each other, mm. */
export const TRADED_MM: readonly number[] = [4, 6, 9, 14, 20];
/** The same figure with its struts chosen for several least widths. */
export const strutTrade = (
  values: ParameterValues,
  outline: BuildContext['outline'],
  widths: readonly number[] = TRADED_MM,
): StrutTrade[] =>
  widths.map((strutMin) => {
    const { held } = heldFigure({ ...values, strutMin, struts: 'auto' }, outline);
    return {
      strutMin,
      count: held.holds.length,
      narrowestMm: Math.min(...held.holds.map((s) => s.to - s.from)),
      totalMm: widthOfAll(held.holds),
      lossPct: held.lossPct,
    };
  });

const PLACE: readonly Parameter[] = [
  {
    key: 'x',
    label: 'Along',
    unit: 'mm',
    default: 0,
    min: -1000,
    max: 1000,
    note: 'Its middle, from the middle of the figure, along the crease.',
  },
  { key: 'width', label: 'Width', unit: 'mm', default: 6, min: 0.5, max: 1000, note: 'Along the crease.' },
];

export const strutFigure: CreaseKind = {
  id: 'strut-figure',
  mount: 'crease',
  title: 'Strutted figure',
  says: 'A silhouette cut free from the page, on feet, held from its high points by struts.',
  sign: 'M2 2 V14 H15 M8 14 V5 M2 7 H8',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const reach = Math.min(reachA, reachB);
    const height = whole(reach * 0.5, 6);
    return {
      shape: { arch: { width: whole(Math.min(reach, lengthMm) * 0.4, 6), height } },
      figureHeight: height,
      depth: whole(reach * 0.2, 2),
    };
  },
  turns: (values) => {
    const each = (list: 'struts' | 'feet', key: string): string[] =>
      values[list] === 'auto' ? [] : listOf(values, list).map((_, k) => `${list}[${k}].${key}`);
    return {
      away: ['depth', 'figureHeight'],
      along: ['offset', 'figureHeight', ...each('struts', 'x'), ...each('feet', 'x')],
      closing: ['depth'],
      strength: ['strutMin', 'footMin', ...each('struts', 'width'), ...each('feet', 'width')],
      size: ['figureHeight'],
    };
  },
  sizeOf: (v, say) => `${say(num(v, 'depth'))} deep`,
  editors: ['struts'],
  raises: true,
  shapeUse: {
    says: 'Stand it on struts',
    values: (shape, figureHeight) => ({ shape, figureHeight }),
    letters: {
      says: 'Each letter on its own struts',
      values: (shape, { reachA }, offset) => ({ shape, depth: Math.max(4, Math.round(reachA * 0.15)), offset }),
    },
  },
  parameters: [
    {
      key: 'shape',
      label: 'Silhouette',
      unit: 'shape',
      default: { arch: { width: 60, height: 60 } },
      note: 'Its foot is its lowest line.',
    },
    scaledHeight('Height', 'silhouette'),
    {
      key: 'depth',
      label: 'Depth',
      unit: 'mm',
      default: 20,
      min: 1,
      max: 1000,
      note: 'How far in front of side B it stands; its struts are as long.',
    },
    alongCrease(),
    {
      key: 'strutMin',
      label: 'Narrowest strut',
      unit: 'mm',
      default: 4,
      min: 1,
      max: 200,
      note: 'Common practice, no source: 4 mm.',
    },
    {
      key: 'footMin',
      label: 'Least foot',
      unit: 'mm',
      default: 8,
      min: 1,
      max: 500,
      note: 'Joined width at the foot of each part, at least.',
    },
    {
      key: 'struts',
      label: 'Struts',
      unit: 'list',
      entry: 'Strut',
      default: 'auto',
      word: 'auto',
      fields: PLACE,
      note: 'Chosen on the high points, or a list of places.',
    },
    {
      key: 'feet',
      label: 'Feet',
      unit: 'list',
      entry: 'Foot',
      default: 'auto',
      word: 'auto',
      fields: PLACE,
      note: 'The straight parts of its lowest line, or a list of places.',
    },
  ],
  build,
};
