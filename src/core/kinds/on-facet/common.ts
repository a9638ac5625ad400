/** What kinds on a face share: front panels, foam, rivets, and what is asked of each. Lengths in mm. */
import { partId } from '../../ids';
import { boxOf, contains, distanceToEdge, largest, mapRegion, type Polygon, type Region } from '../../plane/polygon';
import { add2, type Vec2 } from '../../plane/vec2';
import { ellipse } from '../../shapes/curve';
import { ShapeError } from '../../shapes/shape';
import { rectShape } from '../../shapes/basics';
import { num, shapeOf, type Demand, type FaceContext, type Parameter, type ParameterValues } from '../kind';

/** Room above what moves between two sheets; common practice, no source. */
const ABOVE_MM = 0.2;
/** Paper that keeps a part in, each side; common practice, no source. */
export const CAPTIVE_MM = 2;

/** Tab that can be taken hold of at rest; common practice, no source. */
export const GRIP_TAB_MM = 8;

export const PANEL: readonly Parameter[] = [
  { key: 'width', label: 'Panel width', unit: 'mm', default: 100, min: 5, max: 1000, note: 'Of its front panel.' },
  { key: 'height', label: 'Panel height', unit: 'mm', default: 100, min: 5, max: 1000, note: 'Of its front panel.' },
  { key: 'corner', label: 'Corners', unit: 'mm', default: 3, min: 0, max: 500, note: 'Radius of the panel’s corners.' },
  {
    key: 'panel',
    label: 'Panel shape',
    unit: 'shape',
    default: null,
    note: 'Of front and back, as large as it is drawn, in place of a rectangle.',
  },
];
/** What says nothing of a panel of any shape. */
export const panelSilent = (values: ParameterValues): string[] =>
  shapeOf(values, 'panel') ? ['width', 'height', 'corner'] : [];
export const FOAM: readonly Parameter[] = [
  {
    key: 'foam',
    label: 'Foam',
    unit: 'mm',
    default: 1,
    min: 0.2,
    max: 6,
    note: 'Its thickness: how far front and back are apart.',
  },
  {
    key: 'foamInset',
    label: 'Foam inside by',
    unit: 'mm',
    default: 2,
    min: 0,
    max: 100,
    note: 'From the edge of the panel.',
  },
];
export const CLEARANCE: Parameter = {
  key: 'clearance',
  label: 'Clearance',
  unit: 'mm',
  default: 1,
  min: 0.1,
  max: 20,
  note: 'Kept free beside what moves. Common practice, no source: 1 mm.',
};
/** Foam or card under a carrier, that keeps it off what it moves over. */
export const CUSHION: Parameter = {
  key: 'cushion',
  label: 'Cushion under a carrier',
  unit: 'mm',
  default: 0,
  min: 0,
  max: 10,
  note: 'Thickness of foam or card stuck under each carrier; 0 for none.',
};
/** The cushion of a carrier, where it has one: `under` its sheet, in the axes of that. */
export const cushionUnder = (values: ParameterValues, caliperMm: number, region: Region) => {
  const thickMm = num(values, 'cushion');
  const own = { name: 'Cushion', look: 'spacer', lever: 'cushion' } as const;
  return thickMm > 0 ? [{ ...own, region, fromMm: -caliperMm / 2 - thickMm, thickMm }] : [];
};

export const RIVET: readonly Parameter[] = [
  { key: 'hole', label: 'Rivet hole', unit: 'mm', default: 3, min: 0.5, max: 30, note: 'Its diameter.' },
  { key: 'rivet', label: 'Rivet head', unit: 'mm', default: 8, min: 0.5, max: 60, note: 'Diameter of its head.' },
];

/** The end of a strip that is pulled, and the notch in the edge where it ends. */
export const TAB: readonly Parameter[] = [
  {
    key: 'tabOut',
    label: 'Tab past the edge',
    unit: 'mm',
    default: 0,
    min: -200,
    max: 200,
    note: 'At rest; below 0 it stays inside.',
  },
  {
    key: 'notch',
    label: 'Finger notch',
    unit: 'mm',
    default: null,
    min: 0,
    max: 100,
    note: 'Its radius, cut into the edge where the tab ends; left empty, 12 mm where the tab does not stand out.',
  },
];
/** A tab that stands out needs no notch. */
export const notchOf = (values: ParameterValues): number =>
  (values.notch as number | null) ?? (num(values, 'tabOut') > 0 ? 0 : PLAIN_NOTCH_MM);
const PLAIN_NOTCH_MM = 12;

/** A place on the panel: x to the reader's right, y up. */
export const placeParameter = (key: string, label: string, note: string): Parameter => ({
  key,
  label,
  unit: 'group',
  default: { x: 0, y: 0 },
  fields: [
    { key: 'x', label: `${label}, across`, unit: 'mm', default: 0, min: -1000, max: 1000, note },
    { key: 'y', label: `${label}, up`, unit: 'mm', default: 0, min: -1000, max: 1000, note },
  ],
  note,
});

export const disc = (radius: number, [x, y]: Vec2 = [0, 0]): Polygon => ({
  outer: ellipse(radius, radius, [x, y]),
  holes: [],
});

/** A panel about its own middle: its shape as large as it is drawn, or a rectangle. */
export function panelOutline(values: ParameterValues, outline: FaceContext['outline']): Polygon {
  const shape = shapeOf(values, 'panel');
  if (!shape) return rectShape(num(values, 'width'), num(values, 'height'), num(values, 'corner'))[0];
  const drawn = outline(shape);
  if (drawn.length !== 1) throw new ShapeError(`its panel falls into ${drawn.length} parts; choose a shape of one`);
  return centred(drawn)[0];
}

/** The largest part of what is left of a sheet; nothing left is a mistake of the sizes. */
export function leftOf(region: Region, what: string): Polygon {
  const left = largest(region);
  if (!left) throw new ShapeError(`nothing is left of its ${what}: make that larger, or what is cut from it smaller`);
  return left;
}

/** A region about its own middle. */
export function centred(region: Region): Region {
  const { min, max } = boxOf(region.flatMap((p) => p.outer));
  const middle: Vec2 = [-(min[0] + max[0]) / 2, -(min[1] + max[1]) / 2];
  return movedBy(region, middle);
}
export const movedBy = (region: Region, by: Vec2): Region => mapRegion(region, (p) => add2(p, by));

/** Least distance from a point to a region; 0 inside. */
export const distanceTo = (region: Region, p: Vec2): number =>
  region.reduce((least, polygon) => Math.min(least, contains(polygon, p) ? 0 : distanceToEdge(polygon, p)), Infinity);

/** What is asked of one part, in mm; below nothing it cannot work at all, unless said otherwise. */
export const demand = (
  rule: Demand['rule'],
  aspect: string,
  says: string,
  measured: number,
  asked: {
    readonly least: number;
    readonly blocksUnder?: number;
    readonly levers: readonly string[];
    readonly part: string;
  },
): Demand => ({
  rule,
  aspect,
  says,
  measured,
  unit: 'mm',
  least: asked.least,
  blocksUnder: asked.blocksUnder ?? 0,
  levers: asked.levers,
  subjects: [asked.part],
});

/** Room over a part that moves between two sheets. */
export const roomAbove = (id: string, part: string, gapMm: number): Demand => ({
  ...demand('bind', `above ${part}`, `above the ${part} there is room of`, gapMm, {
    least: ABOVE_MM,
    levers: ['foam'],
    part: partId(id, part),
  }),
  offPaper: true,
});

/** A rivet's head over its hole. */
export const rivetDemand = (values: ParameterValues, id: string, part: string): Demand => ({
  ...demand(
    'captive',
    'rivet',
    'the rivet’s head holds beyond its hole by',
    (num(values, 'rivet') - num(values, 'hole')) / 2,
    {
      least: CAPTIVE_MM,
      levers: ['rivet', 'hole'],
      part: partId(id, part),
    },
  ),
  ofRivet: true,
});
