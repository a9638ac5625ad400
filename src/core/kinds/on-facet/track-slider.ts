/**
 * A token that runs in a slot (docs/mechanisms.md). From the face up: the backing, the token between strips of foam,
 * the front panel with the slot, and in front of it what the token carries. Mount axes, mm; the path about the middle.
 */
import type { Drive } from '../../drives';
import { COINS } from '../../paper/coins';
import { partId } from '../../ids';
import type { Vec3 } from '../../linkage';
import {
  contains,
  distanceToEdge,
  intersect,
  offset,
  regionArea,
  subtract,
  thicken,
  type Polygon,
  type Region,
} from '../../plane/polygon';
import { outlineGap } from '../../plane/gap';
import { ShapeError } from '../../shapes/shape';
import {
  EMPTY,
  groupOf,
  num,
  shapeOf,
  type Contribution,
  type FaceContext,
  type FaceKind,
  type ParameterValues,
  type Path,
  THE_REST,
} from '../kind';
import {
  CAPTIVE_MM,
  centred,
  CLEARANCE,
  CUSHION,
  cushionUnder,
  demand,
  disc,
  leftOf,
  PANEL,
  panelOutline,
  panelSilent,
  roomAbove,
} from './common';
import { above, cutAsFoam, facetOf, firstLevel, foamOn, gluedOn, heldBy, over, sheet, sharing } from './sheets';
import { alongWay, lengthOfPath, partOfWay, wayOf } from './track-path';

/** Room to run that is worth a slot, mm. */
const LEAST_TRAVEL_MM = 1;

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, caliperMm, outline } = context;
  const [slot, clearance, layers] = ['slot', 'clearance', 'layers'].map((k) => num(values, k));
  const { diameter, thickness } = groupOf(values, 'token');
  const gap = num(values, 'foamThickness') * layers;
  const way = wayOf(values.path as Path, outline);
  const [from, to] = [num(values, 'start'), (values.end as number | null) ?? way.lengthMm];
  if (!way.ring && to - from < LEAST_TRAVEL_MM)
    throw new ShapeError(
      `its token has ${(to - from).toFixed(1)} mm to run, from ${from} to ${to}; end must be further on`,
    );

  const whole = panelOutline(values, outline);
  /** Everything within `by` of where the token's middle goes. */
  const along = (by: number): Region => thicken([partOfWay(way, from, to)], by);
  const swept = along(diameter / 2);
  const parts = subtract([whole], alongWay(way, slot / 2));
  const frontOutline = leftOf(parts, 'front panel');
  // Paper that the slot frees is glued to the base on foam of its own.
  const islands = parts.filter((p) => p !== frontOutline);

  const level = firstLevel(context);
  const back = gluedOn(context.face, sharing(sheet(context, 'backing', 'Backing', whole, level), 'backing'));
  const tokenLevel = level + (caliperMm + Math.min(gap, thickness)) / 2;
  const token = sheet(context, 'token', 'Token', disc(diameter / 2), tokenLevel);
  const frontLevel = level + caliperMm + gap;
  const front = sharing(sheet(context, 'front', 'Front panel', frontOutline, frontLevel), 'front');
  const loose = islands.map((p, k) => sheet(context, `island-${k + 1}`, `Island ${k + 1}`, p, frontLevel));
  const borne = carried(values, outline);
  const carrier = sheet(context, 'carrier', 'Carrier', borne, frontLevel + caliperMm + num(values, 'cushion'));

  const room = offset([whole], -num(values, 'foamInset'));
  const free = diameter / 2 + clearance;
  const near = along(free + num(values, 'foamWidth'));
  const besideIt = intersect(subtract(room, along(free)), near);
  const pad = cutAsFoam(besideIt);
  const drive: Drive = {
    id: partId(id, 'slide'),
    label: 'slide',
    unit: 'mm',
    from: way.ring ? 0 : from,
    to: way.ring ? way.lengthMm : to,
    rest: way.ring ? 0 : from,
    ...(way.ring ? { round: true as const } : {}),
  };
  const placement = above(back.sheet, token).slice();
  [placement[3], placement[7]] = way.points[0];
  const retain = (diameter - slot) / 2;
  return {
    ...EMPTY,
    pieces: [back.sheet, token, front, carrier, ...loose].map((s) => s.piece),
    bonds: [back.bond, heldBy(back.sheet, front), heldBy(token, carrier), ...loose.map((i) => heldBy(back.sheet, i))],
    joints: [
      {
        id: partId(id, 'track'),
        a: facetOf(back.sheet),
        b: facetOf(token),
        motion: way.track,
        placement,
        role: 0,
        ends: [undefined, undefined],
        span: [
          [...way.points[0], 0],
          [...way.points[way.points.length - 1], 0],
        ],
        driven: { drive: drive.id, at: 0, rate: 1 },
      },
    ],
    drives: [drive],
    foam:
      pad.length > 0
        ? [foamOn(back.sheet, pad, gap, { room: besideIt, lever: 'foamThickness', keepOff: along(free) })]
        : [],
    fillers: [
      over(token, {
        ...{ name: 'Token', region: [disc(diameter / 2)], look: 'token', lever: 'token.thickness' },
        ...{ fromMm: -Math.min(gap, thickness) / 2, thickMm: Math.min(gap, thickness) },
      }),
      ...cushionUnder(values, caliperMm, [disc(num(values, 'spacer') / 2)]).map((f) => over(carrier, f)),
    ],
    unheld: [
      ...(pad.length > 0 ? [] : [{ key: 'front', what: 'its front panel has no room for foam beside the token' }]),
      ...islands.flatMap((p, k) =>
        regionArea(intersect(pad, [p])) > 0
          ? []
          : [{ key: `island ${k + 1}`, what: `no foam fits under island ${k + 1}, so nothing holds it` }],
      ),
    ],
    landmarks: [{ name: 'token', piece: token.piece.id, facet: token.piece.id, at: [0, 0] }],
    // Worked out when it is first asked for, and then for every pose alike.
    measures: once(() => ({
      travel_mm: way.ring ? way.lengthMm : to - from,
      retain_mm: retain,
      gap_mm: gap,
      foam_gap_mm: foamGap(pad, swept),
      web_mm: webOf(frontOutline, whole),
    })),
    demands: [
      demand('captive', 'token', 'the token holds beyond its slot by', retain, {
        least: CAPTIVE_MM,
        levers: ['slot', 'token.diameter'],
        part: token.piece.id,
      }),
      demand('captive', 'carrier', 'its carrier holds beyond its slot by', besideSlot(borne, way.track, slot), {
        least: CAPTIVE_MM,
        levers: ['slot', 'carrier', 'figureHeight'],
        part: carrier.piece.id,
      }),
      demand('captive', 'panel', 'where it goes, the token stays inside its panel by', insideBy(whole, swept), {
        least: CAPTIVE_MM,
        levers: ['width', 'height', 'end', 'token.diameter'],
        part: token.piece.id,
      }),
      { ...roomAbove(id, 'token', gap - thickness), levers: ['foamThickness', 'layers', 'token.thickness'] },
      demand('bind', 'carrier', 'the slot is wider than what holds the carrier by', slot - num(values, 'spacer'), {
        least: clearance,
        levers: ['spacer', 'slot'],
        part: carrier.piece.id,
      }),
    ],
  };
}

function once<T>(work: () => T): () => T {
  let known: { readonly value: T } | null = null;
  return () => (known ??= { value: work() }).value;
}

/** A round carrier, or the figure in its place. */
function carried(values: ParameterValues, outline: FaceContext['outline']): Polygon {
  const figure = shapeOf(values, 'figure');
  return figure ? centred(outline(figure))[0] : disc(num(values, 'carrier') / 2);
}

/** Paper of what is carried beyond the slot on its scarcer side, mm. It turns with its way: what holds once holds. */
function besideSlot({ outer }: Polygon, { heading: [x, y] }: { readonly heading: Vec3 }, slot: number): number {
  const across = outer.map((p) => p[1] * x - p[0] * y);
  return Math.min(Math.max(...across), -Math.min(...across)) - slot / 2;
}

/** How far all that is swept stays inside a panel, mm; below 0 by how much it comes out of it. */
function insideBy(panel: Polygon, swept: Region): number {
  const past = subtract(swept, [panel]).flatMap((p) => p.outer.filter((q) => !contains(panel, q)));
  if (past.length === 0) return outlineGap([panel], swept);
  return -Math.max(...past.map((q) => distanceToEdge(panel, q)));
}

/** Least way from foam to what the token sweeps, mm; 0 where there is no foam. */
const foamGap = (pad: Region, swept: Region): number => (pad.length === 0 ? 0 : outlineGap(pad, swept));

/** Least paper between the slot and the edge of the panel, mm; 0 where the slot runs off it. */
const webOf = (front: Polygon, whole: Polygon): number =>
  front.holes.length === 0
    ? 0
    : outlineGap(
        [whole],
        front.holes.map((outer) => ({ outer, holes: [] })),
      );

const cushioned = (values: ParameterValues): string => (num(values, 'cushion') > 0 ? ' and its cushion' : '');

export const trackSlider: FaceKind = {
  id: 'track-slider',
  mount: 'face',
  natural: 'outside',
  order: (values) => [
    {
      id: 'backing',
      text: 'Glue the backing in its place and stick the foam beside the path, clear of the token.',
      parts: ['backing'],
      glue: ['backing-glue'],
      foam: true,
    },
    {
      id: 'front',
      text: 'Lay the token on the backing and the front panel on the foam; islands go on foam of their own.',
      parts: ['token', 'front', 'island'],
      glue: [THE_REST],
      leaves: ['token'],
    },
    {
      id: 'carrier',
      text: `Fix the carrier to the token through the slot, its spacer${cushioned(values)} between.`,
      parts: ['carrier'],
      takes: THE_REST,
    },
  ],
  title: 'Sliding token',
  says: 'A token held behind a slot, that slides along a line, an arc, a drawn curve or round a ring.',
  sign: 'M2 13 H14 M2 4 H6 M10 4 H14 M5 8 H11 M8 8 V2 M6 2 H10',
  fitting: ({ widthMm, heightMm }, whole) => {
    const width = whole(widthMm * 0.85, 40);
    return {
      width,
      height: whole(Math.min(heightMm * 0.5, 60), 30),
      path: { line: whole(width * 0.55, 10) },
      carrier: whole(16, 8),
    };
  },
  turns: () => ({
    place: ['at.x', 'at.y'],
    away: ['at.y'],
    along: ['at.x'],
    size: ['foamWidth'],
    stops: ['end', 'start'],
  }),
  empty: ({ path }, key) => (key === 'end' ? lengthOfPath(path as Path) : null),
  silent: panelSilent,
  sizeOf: (v, say) => `token ${say(groupOf(v, 'token').diameter)}`,
  parameters: [
    ...PANEL,
    {
      key: 'path',
      label: 'Path',
      unit: 'path',
      default: { line: 60 },
      note: 'A line, an arc, a drawn curve, or round the outline of a shape; about the middle of the panel.',
    },
    { key: 'slot', label: 'Slot', unit: 'mm', default: 6, min: 1, max: 100, note: 'Its width.' },
    {
      key: 'token',
      label: 'Token',
      unit: 'group',
      default: { diameter: 19.05, thickness: 1.52 },
      fields: [
        { key: 'diameter', label: 'Token, diameter', unit: 'mm', default: 19.05, min: 2, max: 300, note: 'A US cent.' },
        {
          key: 'thickness',
          label: 'Token, thickness',
          unit: 'mm',
          default: 1.52,
          min: 0.1,
          max: 20,
          note: 'A US cent.',
        },
      ],
      presets: COINS.map(({ name, diameterMm, thicknessMm }) => ({
        name,
        values: { diameter: diameterMm, thickness: thicknessMm },
      })),
      note: 'What runs behind the slot: a coin, or discs of card.',
    },
    {
      key: 'carrier',
      label: 'Carrier',
      unit: 'mm',
      default: 20,
      min: 2,
      max: 300,
      note: 'Diameter of the disc in front.',
    },
    { key: 'figure', label: 'Figure', unit: 'shape', default: null, note: 'In front, in place of the round carrier.' },
    {
      key: 'spacer',
      label: 'Spacer',
      unit: 'mm',
      default: 4,
      min: 0.5,
      max: 100,
      note: 'Width of what joins them through the slot.',
    },
    CUSHION,
    { key: 'start', label: 'Starts at', unit: 'mm', default: 0, min: 0, max: 5000, note: 'Along the path, at rest.' },
    {
      key: 'end',
      label: 'Ends at',
      unit: 'mm',
      default: null,
      min: 0,
      max: 5000,
      note: 'Along the path, where something stops it; left empty, its end.',
    },
    {
      key: 'foamWidth',
      label: 'Foam width',
      unit: 'mm',
      default: 10,
      min: 1,
      max: 500,
      note: 'Of the strips beside the token.',
    },
    { key: 'foamThickness', label: 'Foam', unit: 'mm', default: 2, min: 0.2, max: 6, note: 'Thickness of one layer.' },
    { key: 'layers', label: 'Layers of foam', unit: 'count', default: 1, min: 1, max: 6, note: 'One on the other.' },
    {
      key: 'foamInset',
      label: 'Foam inside by',
      unit: 'mm',
      default: 2,
      min: 0,
      max: 100,
      note: 'From the edge of the panel.',
    },
    CLEARANCE,
  ],
  build,
};
