/**
 * A cover that is broken, with a plate on its flap: standing, ground, strut and flap are a triangle whose foot slides
 * on the ground until it meets the stop (docs/mechanisms.md, `easel`). Flat axes, mm: x along the hinge from its
 * middle, the ground at y > 0, strut and flap at y < 0. An easel is one of these, and so is each of its levels.
 */
import { partId, CARD } from '../../ids';
import { compose, cross3, dot3, norm3, shiftBy, sub3, turnAbout, type Rigid, type Vec3 } from '../../linkage';
import { intersect, largest, offset, rectangle, regionBox, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { SIZE_ROUNDING_MM } from '../../tolerance';
import { standing } from '../../shapes/outline';
import type { Shape } from '../../shapes/shape';
import { radToDeg } from '../../units/angle';
import {
  LABEL_STEP,
  type BaseContext,
  type Bond,
  type Carried,
  type CreaseLine,
  type Demand,
  type FacetLabel,
  type Filler,
  type Footing,
  type GlueArea,
  type Hardware,
  type Landmark,
  type MovingJoint,
  type Piece,
  type PoseReader,
} from '../kind';

import { acrossAt, acrossBetween, asPlate, bothOf, placeAt, type Ground } from './stand-cover';

/** Adhesive stays this far off the break and the edges, mm; common practice, no source. */
const GLUE_INSET_MM = 3;
/** A stop this near to an end of where it can stand holds nothing, mm; common practice, no source. */
const STOP_ROOM_MM = 1;

/** What holds the foot: a strip on the ground, a tab folded up from it, or the edge of what lies on it. */
export const STOPS = ['strip', 'tab', 'edge'] as const;
export type StopKind = (typeof STOPS)[number];

/** Where the parts lie, mm. */
export interface StandSizes {
  readonly wide: number;
  readonly along: number;
  /** Hinge to break, break to foot, hinge to stop. */
  readonly strut: number;
  readonly flap: number;
  readonly stop: number;
  readonly stopHigh: number;
  readonly stopWide: number;
  readonly stopBy: StopKind;
  /** Base and cover. */
  readonly base: Ground;
  readonly plate: Shape | null;
  readonly plateHigh: number | null;
}

/** How its parts are called. */
export interface StandNames {
  readonly piece: string;
  readonly ground: string;
  readonly strut: string;
  readonly flap: string;
  readonly plate: string;
  readonly hinge: string;
  readonly bend: string;
  /** Before the names of what is not cut: joints, landmarks, glue. */
  readonly own: string;
  /** What it is called beside the base itself, which has no name of its own: "level 1". */
  readonly called: string | null;
  /** Key of one of its numbers. */
  readonly lever: (key: string) => string;
}

const named = ({ own }: StandNames, part: string): string => partId(CARD, `${own}${part}`);
export const slideOf = (names: StandNames): string => named(names, 'slide');
export const tabOf = (names: StandNames): string => named(names, 'tab');

export function checkSizes(
  { wide, strut, flap, stop, stopHigh, stopWide, stopBy, base }: StandSizes,
  refuse: BaseContext['refuse'],
): void {
  if (flap <= 0) refuse(`its break at ${strut} mm lies past its fore edge at ${wide} mm; break it nearer to the hinge`);
  if (stop >= wide) refuse(`its stop at ${stop} mm lies past its fore edge at ${wide} mm; set it nearer to the hinge`);
  if (stopBy === 'tab' && stopHigh >= stop)
    refuse(`its tab of ${stopHigh} mm reaches past the hinge from a stop at ${stop} mm; make it lower`);
  const room = roomOfStop(base, { stop, stopWide, stopHigh, stopBy });
  if (room < LEAST_STOP_MM)
    refuse(
      `the shape of its base leaves its stop at ${stop} mm a length of ${Math.max(0, room).toFixed(1)} mm; ` +
        `${LEAST_STOP_MM} mm are asked: set it nearer to the hinge, or choose another shape`,
    );
}
/** A foot is held by no shorter a stop, mm; common practice, no source. */
const LEAST_STOP_MM = 6;

/** How long the stop can be on the shape of its base, mm; any length on a rectangle, or where an edge is one. */
function roomOfStop(
  base: Ground,
  { stop, stopWide, stopHigh, stopBy }: Pick<StandSizes, 'stop' | 'stopWide' | 'stopHigh' | 'stopBy'>,
): number {
  if (stopBy === 'edge' || !base.drawn) return Infinity;
  if (stopBy === 'tab') return 2 * Math.min(tabHalfAt(base, stop), halfAt(base, stop - stopHigh));
  const { from, to } = acrossBetween(base, stop, stop + stopWide);
  return to - from;
}

/** The ground with its strut and flap, in one piece. */
export function coverPiece(
  names: StandNames,
  sizes: StandSizes,
  own: Pick<Piece, 'title' | 'stock'> & Pick<Partial<Piece>, 'levelMm' | 'glue'>,
  hingeDrive?: string,
): Piece {
  const { wide, along, strut, stop, stopHigh, stopBy, base } = sizes;
  const half = along / 2;
  const label = (name: string, y: number): FacetLabel => {
    const [x] = placeAt(base, Math.abs(y), LABEL_STEP);
    return { name, at: [x, y], mechanism: CARD };
  };
  const tabHalf = tabHalfAt(base, stop);
  const tab = stopBy === 'tab';
  const crease = (id: string, y: number, ends: CreaseLine['ends'], x = half): CreaseLine => ({
    ...{ id, role: 'valley', mechanism: CARD, a: [-x, y], b: [x, y], ends },
  });
  return {
    id: names.piece,
    mechanism: CARD,
    outline: bothOf(base),
    glue: [],
    ...own,
    lines: tab
      ? cutLines([
          [-tabHalf, stop],
          [-tabHalf, stop - stopHigh],
          [tabHalf, stop - stopHigh],
          [tabHalf, stop],
        ])
      : [],
    creases: [
      {
        ...crease(names.hinge, 0, [Math.PI, undefined]),
        ...(hingeDrive ? handed(half, 0, { id: hingeDrive, at: Math.PI, rate: -1 }) : {}),
      },
      crease(names.bend, -strut, [0, undefined]),
      ...(tab
        ? [
            {
              ...crease(tabOf(names), stop, [0, undefined], tabHalf),
              ...handed(tabHalf, stop, { id: tabOf(names), at: 0, rate: 1 }),
            },
          ]
        : []),
    ],
    labels: [
      label(names.ground, wide - LABEL_STEP),
      label(names.strut, -strut + LABEL_STEP),
      label(names.flap, -wide + LABEL_STEP),
      ...(tab ? [{ name: `${names.own}tab`, at: [0, stop - LABEL_STEP] as Vec2, mechanism: CARD }] : []),
    ],
  };
}

/** How far the paper reaches to both sides of the middle, so far from the hinge. */
function halfAt(base: Ground, mm: number): number {
  const { from, to } = acrossAt(base, mm);
  return Math.min(-from, to);
}

/** A tab is half as wide as the paper that it is folded up out of. */
const tabHalfAt = (base: Ground, stop: number): number => halfAt(base, stop) / 2;

/** What a hand turns lies on the left of its crease. */
const handed = (
  x: number,
  y: number,
  drive: NonNullable<CreaseLine['drive']>,
): Pick<CreaseLine, 'a' | 'b' | 'drive'> => ({
  a: [x, y],
  b: [-x, y],
  drive,
});

const cutLines = (points: readonly Vec2[]): Piece['lines'] =>
  points.slice(1).map((b, k) => ({ role: 'cut', mechanism: CARD, a: points[k], b }));

/** The plate as its reader sees it: its foot along y = 0, the middle of its width at x = 0. */
export function plateOutline(
  { plate, plateHigh, base }: StandSizes,
  { outline, refuse }: Pick<BaseContext, 'outline' | 'refuse'>,
): Polygon {
  if (!plate) return asPlate(base);
  return largest(standing(outline(plate), plateHigh)) ?? refuse('its plate has no area; choose another shape');
}

/** The plate with its glue, and how it is bonded to the flap. */
export function platePiece(
  names: StandNames,
  sizes: StandSizes,
  outline: Polygon,
  own: Pick<Piece, 'title' | 'stock'> & { readonly levelMm: number },
): Piece {
  const glue = plateGlue(names, sizes, outline);
  const foot = outline.outer.reduce((low, p) => (p[1] < low[1] ? p : low));
  const top = outline.outer.reduce((high, p) => (p[1] > high[1] ? p : high));
  const inward = 1 - LABEL_STEP / Math.max(LABEL_STEP, top[1] - foot[1]);
  const at: Vec2 = [foot[0] + (top[0] - foot[0]) * inward, foot[1] + (top[1] - foot[1]) * inward];
  return {
    id: names.plate,
    mechanism: CARD,
    ...own,
    outline,
    lines: [],
    creases: [],
    glue: glue ? [glue] : [],
    labels: [{ name: names.plate, at, mechanism: CARD }],
  };
}

function plateGlue(names: StandNames, { along, flap, wide, base }: StandSizes, outline: Polygon): GlueArea | null {
  const inset = GLUE_INSET_MM;
  const below: Polygon = { outer: rectangle(-along / 2, inset, along / 2, flap - inset), holes: [] };
  const under = intersect(offset([asPlate(base)], -inset), [below]);
  const patch = largest(intersect(offset([outline], -inset), under));
  if (!patch) return null;
  return {
    id: partId(CARD, `${names.plate}-glue`),
    mechanism: CARD,
    outline: patch.outer,
    facet: names.plate,
    // The plate lies over the outside: what is right on it is left on the flap as that is seen from inside.
    onto: {
      piece: names.piece,
      facet: names.flap,
      outline: patch.outer.map(([x, y]): Vec2 => [-x, y - wide]).reverse(),
    },
  };
}

/** @param lieMm from the middle of the flap's sheet to that of the plate's */
export const plateBond = (names: StandNames, { wide }: StandSizes, lieMm: number): Bond => ({
  id: partId(CARD, `${names.plate}-bond`),
  a: { piece: names.piece, facet: names.flap },
  b: { piece: names.plate, facet: names.plate },
  placement: compose(shiftBy([0, -wide, -lieMm]), turnAbout([0, 0, 0], [0, 1, 0], Math.PI)),
});

/** Its id is also that of the piece that a strip is cut as. */
const stopIdOf = ({ own }: StandNames): string => `${own}stop`;

/** More sheets are not glued over each other: so tall a strip is of something else; common practice, no source. */
const MOST_SHEETS = 12;

/**
 * A strip glued up from as many sheets as make it tall enough: cut and listed, it lies where its filler is. One that
 * would take too many is got as it is.
 */
export function stopStrip(
  names: StandNames,
  { base, stop, stopWide, stopHigh, stopBy }: StandSizes,
  title: string,
  { stockFor, caliperOf }: Pick<BaseContext, 'stockFor' | 'caliperOf'>,
): { readonly pieces: readonly Piece[]; readonly hardware: readonly Hardware[] } {
  if (stopBy !== 'strip') return { pieces: [], hardware: [] };
  const id = stopIdOf(names);
  const { from, to } = acrossBetween(base, stop, stop + stopWide);
  const along = to - from;
  const stock = stockFor(id);
  const times = Math.ceil((stopHigh - SIZE_ROUNDING_MM) / caliperOf(stock));
  if (times > MOST_SHEETS)
    return {
      pieces: [],
      hardware: [{ what: `${title}: a strip`, sizesMm: [along, stopWide, stopHigh], count: 1 }],
    };
  const piece: Piece = {
    ...{ id, title, mechanism: CARD, stock, times, apart: true },
    outline: { outer: rectangle(0, 0, along, stopWide), holes: [] },
    ...{ lines: [], creases: [], glue: [] },
    labels: [{ name: id, at: [along / 2, stopWide / 2], mechanism: CARD }],
  };
  return { pieces: [piece], hardware: [] };
}

/** The stop as it lies on the ground; none where a tab or an edge does its work. */
export function stopFillers(names: StandNames, sizes: StandSizes, caliperMm: number): Filler[] {
  const { base, stop, stopWide, stopHigh, stopBy } = sizes;
  if (stopBy !== 'strip') return [];
  const { from, to } = acrossBetween(base, stop, stop + stopWide);
  return [
    {
      ...{ name: 'Stop', piece: names.piece, facet: names.ground, look: 'spacer', lever: names.lever('stopHeight') },
      region: [{ outer: rectangle(from, stop, to, stop + stopWide), holes: [] }],
      fromMm: caliperMm / 2,
      thickMm: stopHigh,
    },
  ];
}

const hingeAxis = (dir: 1 | -1) => ({ kind: 'hinge', point: [0, 0, 0], axis: [dir, 0, 0] }) as const;

/** The foot's shoe slides over the ground from the fore edge to the stop; on it the flap turns. */
export function footJoints(names: StandNames, { wide, along, stop }: StandSizes, ground: Carried): MovingJoint[] {
  const shoe: Carried = { carriage: named(names, 'shoe') };
  return [
    {
      ...{ id: slideOf(names), a: ground, b: shoe, role: 0, ends: [0, undefined] },
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
      ...{ id: named(names, 'foot'), a: shoe, b: { piece: names.piece, facet: names.flap }, motion: hingeAxis(-1) },
      // Shut, the flap lies turned over on the ground, its free edge at the shoe.
      placement: compose(shiftBy([0, -wide, 0]), turnAbout([0, 0, 0], [1, 0, 0], Math.PI)),
      ...{ role: 1, ends: [0, undefined], span: hingeSpan(along) },
    },
  ];
}
export const hingeSpan = (along: number): readonly [Vec3, Vec3] => [
  [-along / 2, 0, 0],
  [along / 2, 0, 0],
];

/**
 * The nearest place of the foot to the hinge: flap and strut laid on each other where the flap is the longer; else
 * where the plate stands upright, past which it would lean over its foot.
 */
export const nearest = ({ strut, flap }: StandSizes): number =>
  strut > flap ? Math.sqrt(strut * strut - flap * flap) : flap - strut;

/** Lean of the plate from its ground with its foot at the stop, degrees (law of cosines); 0 where it never stands. */
export function leanDeg({ strut, flap, stop }: StandSizes): number {
  const cosine = (stop * stop + flap * flap - strut * strut) / (2 * stop * flap);
  return Math.abs(cosine) < 1 ? radToDeg(Math.acos(cosine)) : 0;
}

/** @param footMm thickness of what rests against the stop */
export function standDemands(names: StandNames, sizes: StandSizes, footMm: number): Demand[] {
  const { wide, stop, stopHigh, stopBy } = sizes;
  const lean = leanDeg(sizes);
  const room = Math.min(stop - nearest(sizes), wide - stop);
  const common = { rule: 'stands', unit: 'mm', subjects: [names.flap, names.plate] } as const;
  const of = names.called === null ? 'its' : `the ${names.called}'s`;
  return [
    // An edge is as tall as it is: it is looked for where the foot rests.
    ...(stopBy === 'edge'
      ? []
      : [
          {
            ...common,
            aspect: `${names.own}stop height`,
            says: `${of} stop is as tall as`,
            measured: stopHigh,
            least: footMm,
            blocksUnder: footMm,
            levers: [names.lever('stopHeight')],
          },
        ]),
    // A level leans from the plate that it stands on: how far it leans from the table is asked of all together.
    ...(lean > 0 && names.own === ''
      ? [
          leaning(`${names.own}lean least`, `${of} plate leans from its ground by`, lean, LEAST_LEAN_DEG),
          leaning(`${names.own}lean most`, `${of} plate leans back from upright by`, 90 - lean, 90 - MOST_LEAN_DEG),
        ].map((d) => ({ ...common, ...d, levers: [names.lever('stop'), names.lever('break')] }))
      : []),
    {
      ...common,
      aspect: `${names.own}stop place`,
      says: `${of === 'its' ? 'the' : of} stop lies inside the places where it can hold by`,
      measured: room,
      least: STOP_ROOM_MM,
      blocksUnder: 0,
      levers: [names.lever('stop'), names.lever('break')],
    },
  ];
}

/** A plate that leans less lies down, one that leans more falls on its face, degrees; common practice, no source. */
const [LEAST_LEAN_DEG, MOST_LEAN_DEG] = [30, 80];
const leaning = (aspect: string, says: string, measured: number, least: number) =>
  ({ aspect, says, measured, unit: 'deg', least, blocksUnder: -Infinity }) as const;

/** The foot, where an edge is to stop it. */
export const standFootings = (names: StandNames, { stop, along, stopBy }: StandSizes, footMm: number): Footing[] =>
  stopBy === 'edge'
    ? [
        {
          ...{ piece: names.piece, facet: names.ground, foot: names.flap, aspect: names.own },
          ...{ stopMm: stop, halfMm: along / 2, tallMm: footMm, lever: names.lever('stop') },
        },
      ]
    : [];

export const standLandmarks = (names: StandNames, { wide, strut }: StandSizes, plate: Polygon): Landmark[] => {
  const called = (name: string): string => `${names.own}${name}`.replaceAll('-', '_');
  return [
    { name: called('foot'), piece: names.piece, facet: names.flap, at: [0, -wide] },
    { name: called('break'), piece: names.piece, facet: names.strut, at: [0, -strut] },
    { name: called('hinge'), piece: names.piece, facet: names.ground, at: [0, 0] },
    { name: called('top'), piece: names.plate, facet: names.plate, at: [0, regionBox([plate]).max[1]] },
  ];
};

/** Lean of the plate from its ground, foot from the hinge on that, height of its top over the table. */
export function standMeasures(names: StandNames, pose: PoseReader): Record<string, number> {
  const at = (name: string) => pose.local(`${names.own}${name}`.replaceAll('-', '_'));
  const [foot, bent, hinge, top] = ['foot', 'break', 'hinge', 'top'].map(at);
  if (!foot || !bent || !hinge || !top) return {};
  const back = sub3(hinge, foot);
  const up = sub3(bent, foot);
  const lean = Math.atan2(norm3(cross3(back, up)), dot3(back, up));
  return { lean_deg: radToDeg(lean), foot_mm: norm3(back), top_mm: top[2] };
}

/** Where the ground of a level lies on the plate behind it: its fore edge `fromMm` above that plate's foot. */
export const onPlate = ({ wide }: StandSizes, fromMm: number, liftMm: number): Rigid =>
  compose(shiftBy([0, fromMm + wide, liftMm]), turnAbout([0, 0, 0], [0, 0, 1], Math.PI));
