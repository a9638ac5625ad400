/**
 * A disc that turns behind windows (docs/mechanisms.md). From the face up: the backing, the disc on its rivet, foam
 * round it, the front panel with the windows. Mount axes, mm; angles about the pivot, counter-clockwise, degrees.
 */
import type { Drive } from '../../drives';
import { partId } from '../../ids';
import { pivotMotion } from '../../linkage';
import {
  boxOf,
  contains,
  distanceToEdge,
  mapRegion,
  offset,
  subtract,
  type Polygon,
  type Region,
  type Ring,
} from '../../plane/polygon';
import { dist2, nearestOnSegment, type Vec2 } from '../../plane/vec2';
import { arcPoints } from '../../shapes/curve';
import { PLAIN_FONT } from '../../shapes/fonts';
import { ShapeError, type Shape } from '../../shapes/shape';
import { turned } from '../../shapes/steps';
import { WELD_MM } from '../../tolerance';
import { degToRad, radToDeg } from '../../units/angle';
import {
  EMPTY,
  listOf,
  num,
  groupOf,
  shapeOf,
  type Contribution,
  type Demand,
  type FaceContext,
  type FaceKind,
  type ListItem,
  type Parameter,
  type ParameterValues,
  THE_REST,
} from '../kind';
import {
  centred,
  CLEARANCE,
  demand,
  disc,
  distanceTo,
  FOAM,
  leftOf,
  movedBy,
  PANEL,
  placeParameter,
  panelOutline,
  panelSilent,
  RIVET,
  rivetDemand,
  roomAbove,
} from './common';
import { above, cutAsFoam, facetOf, foamOn, gluedOn, headOver, heldBy, sheet, sharing } from './sheets';

/** Paper of the disc beyond a window all round; common practice, no source. */
const COVER_MM = 1;
/** Edge of a disc that a finger can turn; common practice, no source. */
const GRIP_MM = 6;

interface Window {
  readonly region: Region;
  /** Nearest to and furthest from the pivot, mm, and how wide it is as seen from there, degrees. */
  readonly inner: number;
  readonly outer: number;
  readonly spanDeg: number;
  /** Where its middle is, mm and degrees. */
  readonly middleMm: number;
  readonly atDeg: number;
}

function windowOf(item: ListItem, outline: FaceContext['outline']): Window {
  const shape = shapeOf(item, 'shape');
  if (!shape) {
    const [inner, outer, span, at] = ['inner', 'outer', 'span', 'at'].map((key) => item[key] as number);
    const region = [{ outer: ringSector(inner, outer, span, at), holes: [] }];
    return { region, inner, outer, spanDeg: span, middleMm: (inner + outer) / 2, atDeg: at };
  }
  const region = movedBy(centred(outline(shape)), [item.x as number, item.y as number]);
  const points = region.flatMap((p) => p.outer);
  const inner = distanceTo(region, [0, 0]);
  const { min, max } = boxOf(points);
  const middle: Vec2 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const about = Math.atan2(middle[1], middle[0]);
  return {
    region,
    inner,
    outer: Math.max(...points.map((p) => Math.hypot(...p))),
    spanDeg: inner === 0 ? 360 : spanOf(points, about),
    middleMm: Math.hypot(...middle),
    atDeg: radToDeg(about),
  };
}

/** Everything between two radii, over `span` degrees about `at`. */
function ringSector(inner: number, outer: number, span: number, at: number): Ring {
  if (outer <= inner)
    throw new ShapeError(`a window reaches from ${inner} to ${outer} mm; its outer radius must be the greater one`);
  const turn = degToRad(span);
  const from = degToRad(at) - turn / 2;
  return [
    ...arcPoints([0, 0], outer, outer, from, turn),
    ...(inner > 0 ? arcPoints([0, 0], inner, inner, from + turn, -turn) : [[0, 0] as const]),
  ];
}

/** How wide points are as seen from the pivot, degrees; `about` is a direction among them, rad. */
function spanOf(points: readonly Vec2[], about: number): number {
  const turns = points.map(([x, y]) => {
    const t = Math.atan2(y, x) - about;
    return t - 2 * Math.PI * Math.round(t / (2 * Math.PI));
  });
  return radToDeg(Math.max(...turns) - Math.min(...turns));
}

/** Content k, about the pivot: where the first window is, turned back so that it stands upright there at its stop. */
function contentOf(item: ListItem, k: number, sectors: number, at: Window, outline: FaceContext['outline']): Region {
  const size = item.size as number;
  const text = typeof item.text === 'string' && item.text.trim() !== '' ? item.text : null;
  const shape: Shape | null = text ? { text: { string: text, font: PLAIN_FONT, size } } : shapeOf(item, 'shape');
  if (!shape) return [];
  const drawn = centred(outline(shape));
  const { min, max } = boxOf(drawn.flatMap((p) => p.outer));
  const scale = text ? 1 : size / Math.max(max[0] - min[0], max[1] - min[1]);
  const middle = degToRad(at.atDeg);
  const by: Vec2 = [at.middleMm * Math.cos(middle), at.middleMm * Math.sin(middle)];
  return turned(
    movedBy(
      mapRegion(drawn, ([x, y]): Vec2 => [x * scale, y * scale]),
      by,
    ),
    (-360 * k) / sectors,
  );
}

/**
 * A finger notch in the panel's nearest edge, so deep that the disc passes it by `reach`; none where the disc reaches
 * past the edge that far without.
 */
function notchOf(panel: Polygon, pivot: Vec2, radius: number, reach: number): Region {
  if (reach <= 0 || !contains(panel, pivot)) return [];
  const at = nearestEdge(panel, pivot);
  const deep = dist2(at, pivot) - radius + reach;
  return deep > 0 ? [disc(deep, at)] : [];
}

/** The place on a panel's edge nearest to a point; of several as near the one at its right, left, foot, head. */
function nearestEdge({ outer }: Polygon, p: Vec2): Vec2 {
  const places = outer.map((a, k) => nearestOnSegment(p, a, outer[(k + 1) % outer.length]));
  const least = Math.min(...places.map((at) => dist2(at, p)));
  const [first, ...others] = places.filter((at) => dist2(at, p) < least + WELD_MM);
  const rank = ([x, y]: Vec2): number =>
    Math.abs(x - p[0]) > Math.abs(y - p[1]) ? (x > p[0] ? 0 : 1) : y < p[1] ? 2 : 3;
  return others.reduce((best, at) => (rank(at) < rank(best) ? at : best), first);
}

/** How far the disc passes the panel's edge where it passes it most, mm; negative where it stays inside. */
const protrusionOf = ({ outer }: Polygon, pivot: Vec2, radius: number): number =>
  radius - distanceToEdge({ outer, holes: [] }, pivot);

/** Paper of the disc all round a window; what shows past it would be its edge. */
const covered = (part: string, k: number, mm: number): Demand =>
  demand('covered', `window ${k + 1}`, `its disc reaches past window ${k + 1} by`, mm, {
    least: COVER_MM,
    levers: ['radius', `windows[${k}].outer`, `windows[${k}].inner`],
    part,
  });
/** The head of the rivet stays on the panel's paper: in a window it shows, and has less to hold on to. */
const clearOfRivet = (part: string, k: number, mm: number): Demand => ({
  ...demand('covered', `rivet ${k + 1}`, `the head of its rivet keeps off window ${k + 1} by`, mm, {
    least: 0,
    blocksUnder: -Infinity,
    levers: ['rivet', `windows[${k}].inner`],
    part,
  }),
  ofRivet: true,
});
/** A window no wider than a sector; a wider one shows its neighbours too. */
const alone = (part: string, k: number, sparedDeg: number): Demand => ({
  ...demand(
    'covered',
    `neighbours ${k + 1}`,
    `between window ${k + 1} and the neighbouring sectors there are`,
    sparedDeg,
    {
      least: 0,
      blocksUnder: -Infinity,
      levers: [`windows[${k}].span`],
      part,
    },
  ),
  unit: 'deg',
});

function build(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, caliperMm, outline } = context;
  const [radius, sectors, clearance, foamMm] = ['radius', 'sectors', 'clearance', 'foam'].map((k) => num(values, k));
  const holeMm = num(values, 'hole') / 2;
  const { x, y } = groupOf(values, 'pivot');
  const pivot: Vec2 = [x, y];
  const free = (values.foamInner as number | null) ?? radius + clearance;
  const windows = listOf(values, 'windows').map((w) => windowOf(w, outline));
  const contents = listOf(values, 'contents');
  const drawn = windows.slice(0, 1).flatMap((w) => contents.flatMap((c, k) => contentOf(c, k, sectors, w, outline)));

  const whole = panelOutline(values, outline);
  const bitten = leftOf(subtract([whole], notchOf(whole, pivot, radius, num(values, 'notch'))), 'panel');
  const hole = disc(holeMm);
  const without = (holes: Region): Polygon => leftOf(subtract([bitten], movedBy(holes, pivot)), 'panel');
  const backLevel = (face.caliperMm + caliperMm) / 2;
  const backing = sheet(context, 'backing', 'Backing', without([hole]), backLevel);
  const back = gluedOn(face, sharing(backing, 'backing'));
  const turning = sheet(
    context,
    'disc',
    'Disc',
    leftOf(subtract([disc(radius)], [hole]), 'disc'),
    backLevel + caliperMm,
    drawn,
  );
  const panel = without([hole, ...windows.flatMap((w) => w.region)]);
  const front = sharing(sheet(context, 'front', 'Front panel', panel, backLevel + caliperMm + foamMm), 'front');
  const room = subtract(offset([without([])], -num(values, 'foamInset')), [disc(free, pivot)]);
  const pad = cutAsFoam(room);

  const drive: Drive = { id: partId(id, 'turn'), label: 'turn', unit: 'deg', from: 0, to: 360, rest: 0, round: true };
  const placement = above(back.sheet, turning).slice();
  [placement[3], placement[7]] = pivot;
  const part = turning.piece.id;
  const protrusion = protrusionOf(without([]), pivot, radius);
  const span = windows.reduce((widest, w) => Math.max(widest, w.spanDeg), 0);
  const sector = 360 / sectors;
  const covers = windows.map((w) => Math.min(radius - w.outer, w.inner - holeMm));
  return {
    ...EMPTY,
    pieces: [back.sheet.piece, turning.piece, front.piece],
    bonds: [back.bond, heldBy(back.sheet, front)],
    joints: [
      {
        id: partId(id, 'rivet'),
        a: facetOf(back.sheet),
        b: facetOf(turning),
        motion: pivotMotion(pivot),
        placement,
        role: 0,
        ends: [undefined, undefined],
        span: [
          [...pivot, 0],
          [...pivot, 1],
        ],
        driven: { drive: drive.id, at: 0, rate: 1 },
      },
    ],
    drives: [drive],
    foam:
      pad.length > 0 ? [foamOn(back.sheet, pad, foamMm, { room, lever: 'foam', keepOff: [disc(free, pivot)] })] : [],
    fillers: [headOver(front, [disc(num(values, 'rivet') / 2, pivot)], caliperMm / 2)],
    hardware: [{ what: 'Rivet', count: 1 }],
    unheld: pad.length > 0 ? [] : [{ key: 'front', what: 'its front panel has no room for foam round the disc' }],
    landmarks: [
      { name: 'pivot', piece: part, facet: part, at: [0, 0] },
      { name: 'rim', piece: part, facet: part, at: [0, radius] },
    ],
    measures: () => ({
      cover_mm: Math.min(radius - holeMm, ...covers),
      sector_deg: sector,
      bleed_deg: Math.max(0, span - sector),
      foam_gap_mm: free - radius,
      protrusion_mm: protrusion,
      stack_mm: front.levelMm + (caliperMm - face.caliperMm) / 2,
    }),
    demands: [
      ...covers.map((mm, k) => covered(part, k, mm)),
      ...windows.map((w, k) => clearOfRivet(part, k, w.inner - num(values, 'rivet') / 2)),
      ...windows.flatMap((w, k) => (contents.length > 0 ? [alone(part, k, sector - w.spanDeg)] : [])),
      demand('bind', 'foam', 'its foam keeps clear of the disc by', free - radius, {
        least: clearance,
        levers: ['foamInner', 'radius'],
        part,
      }),
      roomAbove(id, 'disc', foamMm - caliperMm),
      rivetDemand(values, id, 'disc'),
      demand('grip', 'edge', 'a finger finds of the disc', protrusion, {
        least: GRIP_MM,
        levers: ['notch', 'radius', 'pivot.x', 'pivot.y'],
        part,
      }),
    ],
  };
}

const WINDOW: readonly Parameter[] = [
  {
    key: 'inner',
    label: 'Inner radius',
    unit: 'mm',
    default: 15,
    min: 0,
    max: 500,
    optional: true,
    note: 'From the pivot.',
  },
  {
    key: 'outer',
    label: 'Outer radius',
    unit: 'mm',
    default: 32,
    min: 1,
    max: 500,
    optional: true,
    note: 'From the pivot.',
  },
  { key: 'span', label: 'Span', unit: 'deg', default: 40, min: 1, max: 360, optional: true, note: 'About the pivot.' },
  {
    key: 'at',
    label: 'Its middle',
    unit: 'deg',
    default: 90,
    min: -360,
    max: 360,
    optional: true,
    note: 'About the pivot; 90 is up.',
  },
  { key: 'shape', label: 'Shape', unit: 'shape', default: null, note: 'In place of a ring sector.' },
  {
    key: 'x',
    label: 'Shape across',
    unit: 'mm',
    default: 0,
    min: -500,
    max: 500,
    note: 'From the pivot to its middle.',
  },
  { key: 'y', label: 'Shape up', unit: 'mm', default: 0, min: -500, max: 500, note: 'From the pivot to its middle.' },
];
const CONTENT: readonly Parameter[] = [
  { key: 'text', label: 'Text', unit: 'text', default: '', optional: true, note: 'Drawn on the disc.' },
  { key: 'shape', label: 'Shape', unit: 'shape', default: null, note: 'Drawn on the disc, where there is no text.' },
  {
    key: 'size',
    label: 'Size',
    unit: 'mm',
    default: 6,
    min: 1,
    max: 200,
    optional: true,
    note: 'Its greater side; of text its height.',
  },
];

export const volvelle: FaceKind = {
  id: 'volvelle',
  mount: 'face',
  natural: 'outside',
  order: () => [
    {
      id: 'backing',
      text: 'Draw or stick the contents on the disc while it lies flat, then glue the backing in its place.',
      parts: ['backing', 'disc'],
      glue: ['backing-glue'],
      leaves: ['disc'],
    },
    {
      id: 'disc',
      text: 'Rivet the disc to the backing, loosely: it must turn with one finger.',
      parts: ['disc'],
      takes: THE_REST,
      leaves: ['disc'],
    },
    {
      id: 'front',
      text: 'Stick the foam on the backing outside the disc, and the front panel on the foam.',
      parts: ['front'],
      glue: [THE_REST],
      foam: true,
      leaves: ['disc'],
    },
  ],
  title: 'Turning disc',
  says: 'A disc on a rivet, turned by its edge, that shows sector after sector behind windows.',
  sign: 'M2 13 H14 M2 3 H6 M10 3 H14 M4 8 H12 M8 6 V13',
  fitting: ({ widthMm, heightMm }, whole) => {
    const least = Math.min(widthMm, heightMm);
    const panel = whole(least * 0.8, 30);
    const radius = whole(panel * 0.36, 10);
    return {
      width: panel,
      height: panel,
      radius,
      windows: [{ inner: whole(radius * 0.4, 3), outer: whole(radius * 0.85, 6), span: 40, at: 90 }],
    };
  },
  turns: () => ({ place: ['at.x', 'at.y'], away: ['at.y', 'radius'], along: ['at.x', 'radius'], size: ['radius'] }),
  stops: (v) => Array.from({ length: num(v, 'sectors') }, (_, k) => (360 * k) / num(v, 'sectors')),
  silent: panelSilent,
  sizeOf: (v, say) => `disc ${say(2 * num(v, 'radius'))}`,
  parameters: [
    ...PANEL,
    { key: 'radius', label: 'Disc radius', unit: 'mm', default: 38, min: 3, max: 500, note: 'Of the disc.' },
    placeParameter('pivot', 'Pivot', 'From the middle of the panel.'),
    {
      key: 'sectors',
      label: 'Sectors',
      unit: 'count',
      default: 8,
      min: 1,
      max: 60,
      note: 'Stops of the disc, evenly round.',
    },
    {
      key: 'windows',
      label: 'Windows',
      unit: 'list',
      entry: 'Window',
      default: [{ inner: 15, outer: 32, span: 40, at: 90 }],
      fields: WINDOW,
      note: 'Cut out of the front panel, about the pivot.',
    },
    {
      key: 'contents',
      label: 'Contents',
      unit: 'list',
      entry: 'Content',
      default: 'none',
      word: 'none',
      fields: CONTENT,
      note: 'One for each sector, from the one that shows at rest, against the turn.',
    },
    {
      key: 'notch',
      label: 'Finger edge',
      unit: 'mm',
      default: 8,
      min: 0,
      max: 100,
      note: 'How far the disc reaches past the panel’s nearest edge, or past the notch cut into it.',
    },
    ...RIVET,
    ...FOAM,
    {
      key: 'foamInner',
      label: 'Free of foam',
      unit: 'mm',
      default: null,
      min: 1,
      max: 600,
      note: 'Radius about the pivot that foam keeps out of; left empty, the disc and its clearance.',
    },
    CLEARANCE,
  ],
  build,
};
