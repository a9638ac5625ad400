/**
 * Further panels and shelves of a box (docs/mechanisms.md, `box-frame`): each between the two sides of a partial box,
 * by a tab on either, parallel to the wall. Drawn as the strip of that box is: x across, y up from the floor.
 */
import { partId, CARD } from '../../ids';
import { shiftBy } from '../../linkage';
import {
  contains,
  insidePoint,
  largest,
  mapRegion,
  rectangle,
  regionBox,
  unite,
  type Polygon,
  type Region,
  type Ring,
} from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { contactsAt, slice, type Interval } from '../../shapes/level';
import { standing } from '../../shapes/outline';
import {
  LABEL_STEP,
  listOf,
  num,
  shapeOf,
  type BaseContext,
  type Bond,
  type CreaseLine,
  type GlueArea,
  type ListItem,
  type BaseStep,
  type Parameter,
  type ParameterValues,
  type Piece,
  type PoseReader,
} from '../kind';
import { lengths } from '../parameters';

/** Adhesive stays this far off creases and edges, mm; common practice, no source. */
export const GLUE_INSET_MM = 1.5;

export type Box = 'back' | 'front';
export type Hand = 'Left' | 'Right';
export const HANDS: readonly Hand[] = ['Left', 'Right'];

export interface BoxSizes {
  readonly wide: number;
  /** From front to back, and of one side: half of that. */
  readonly depth: number;
  readonly side: number;
  readonly wall: number;
  readonly panel: number;
  readonly tab: number;
}

/** The outermost piece has the id of the card. */
export const pieceOf = (box: Box): string => (box === 'back' ? CARD : box);

/** A further panel or a shelf between the sides: how far from the back, or from the panel, its foot and its height. */
export interface Inner {
  readonly box: Box;
  readonly at: number;
  readonly from: number;
  readonly high: number;
  /** What it is cut as, its foot on the floor, its middle at x = 0; null where it is a rectangle. */
  readonly drawn: Region | null;
}
export function innerOf(item: ListItem, outline: BaseContext['outline']): Inner {
  const shape = shapeOf(item, 'shape');
  const drawn = shape && standing(outline(shape), null);
  return {
    box: item.between === 'panel and front' ? 'front' : 'back',
    at: num(item, 'at'),
    from: num(item, 'from'),
    high: drawn ? regionBox(drawn).max[1] : num(item, 'height'),
    drawn,
  };
}
export const innerName = (k: number): string => `panel-${k + 2}`;

export function checkInner(one: Inner, k: number, sizes: BoxSizes, refuse: BaseContext['refuse']): void {
  const { side, wall, tab } = sizes;
  const name = `panel ${k + 2}`;
  const { at, from } = one;
  const along = onSide(one, side);
  if (along < 0 || along + tab > side)
    refuse(`${name} at ${at} mm leaves its tabs of ${tab} mm no room on sides of ${side} mm; set it elsewhere`);
  if (from + LEAST_TAB_MM > wall) refuse(`${name} begins at ${from} mm, over walls of ${wall} mm; set it lower`);
  for (const hand of HANDS) {
    const { from: low, to: top } = heldAt(one, sizes, hand);
    if (top - low < LEAST_TAB_MM)
      refuse(
        `${name} meets its ${hand.toLowerCase()} side along ${round(top - low)} mm of its edge; ` +
          `a tab takes ${LEAST_TAB_MM} mm: choose a wider shape than ${sizes.wide} mm, or one with straight sides`,
      );
  }
}
const round = (mm: number): number => Math.round(mm * 10) / 10;
/** A tab hangs on no less of its fold, mm; common practice, no source. */
const LEAST_TAB_MM = 6;

/** What of it stands between the sides: what a shape has past them is cut off at its folds. */
const between = ({ from, high, drawn }: Inner, { wide }: BoxSizes): Region =>
  drawn
    ? slice(
        mapRegion(drawn, ([x, y]): Vec2 => [x, y + from]),
        -wide / 2,
        wide / 2,
      )
    : [{ outer: rectangle(-wide / 2, from, wide / 2, from + high), holes: [] }];

/** Heights between which it meets a side of the box, the longest stretch of them; both the same where it does not. */
function heldAt(one: Inner, sizes: BoxSizes, hand: Hand): Interval {
  const x = sizes.wide / 2;
  const laid = mapRegion(between(one, sizes), ([u, v]): Vec2 => [v, hand === 'Left' ? u : -u], hand === 'Left');
  const meets = contactsAt(laid, -x, 'bottom')
    .map((i): Interval => ({ from: Math.max(i.from, 0), to: Math.min(i.to, sizes.wall) }))
    .filter((i) => i.to > i.from);
  return meets.reduce((most, i) => (i.to - i.from > most.to - most.from ? i : most), { from: 0, to: 0 });
}

/** Its tabs run on from it as the sides run on from their wall, so that it goes with them. */
export function innerPiece(one: Inner, k: number, sizes: BoxSizes, stock: string): Piece {
  const { wide, side, tab } = sizes;
  const name = innerName(k);
  const x = wide / 2;
  const sign = (hand: Hand): 1 | -1 => (hand === 'Left' ? -1 : 1);
  const held = { Left: heldAt(one, sizes, 'Left'), Right: heldAt(one, sizes, 'Right') };
  const outward = (hand: Hand, x0: number, x1: number, y0: number, y1: number): Ring =>
    hand === 'Left' ? rectangle(-x1, y0, -x0, y1) : rectangle(x0, y0, x1, y1);
  const tabOf = (hand: Hand): Ring => outward(hand, x, x + tab, held[hand].from, held[hand].to);
  const glued = (hand: Hand): GlueArea => {
    const [x0, x1] = [x + GLUE_INSET_MM, x + tab - GLUE_INSET_MM];
    const [y0, y1] = [held[hand].from + GLUE_INSET_MM, held[hand].to - GLUE_INSET_MM];
    const on = (by: number): Ring => outward(hand, x0 + by, x1 + by, y0, y1);
    return {
      id: partId(CARD, `${name}-glue${hand}`),
      mechanism: CARD,
      outline: on(0),
      facet: `${name}-tab${hand}`,
      onto: { piece: pieceOf(one.box), facet: `${one.box}${hand}`, outline: on(onSide(one, side)) },
    };
  };
  const whole = unite(
    between(one, sizes),
    HANDS.map((hand): Polygon => ({ outer: tabOf(hand), holes: [] })),
  );
  return {
    id: name,
    title: `Panel ${k + 2}`,
    mechanism: CARD,
    stock,
    outline: largest(whole)!,
    lines: [],
    creases: HANDS.map((hand): CreaseLine => {
      const { from: low, to: top } = held[hand];
      return {
        id: partId(CARD, `${name}-fold${hand}`),
        role: 'valley',
        mechanism: CARD,
        a: [sign(hand) * x, hand === 'Left' ? top : low],
        b: [sign(hand) * x, hand === 'Left' ? low : top],
        ends: hand === 'Left' ? [Math.PI, 0] : [0, Math.PI],
      };
    }),
    glue: HANDS.map(glued),
    labels: [
      { name, at: labelIn(one, sizes), mechanism: CARD },
      ...HANDS.map((hand) => ({
        name: `${name}-tab${hand}`,
        at: [sign(hand) * (x + tab - LABEL_STEP), held[hand].from + LABEL_STEP] as Vec2,
        mechanism: CARD,
      })),
    ],
  };
}
function labelIn(one: Inner, sizes: BoxSizes): Vec2 {
  const near: Vec2 = [0, one.from + one.high - LABEL_STEP];
  const body = largest(between(one, sizes))!;
  return contains(body, near) ? near : insidePoint(body);
}
/** How far along the side its fold lies from the fold of the wall: the front's sides run back from there. */
const onSide = ({ box, at }: Inner, side: number): number => (box === 'back' ? at : side - at);

/** How far from the back they stand. */
export const innerMeasures = (inner: readonly Inner[], pose: PoseReader): Record<string, number> =>
  Object.fromEntries(
    inner.flatMap((_, k) => {
      const top = pose.local(`panel_${k + 2}_top`);
      return top ? [[`panels[${k}].apart_mm`, top[2]]] : [];
    }),
  );

export const innerBond = (one: Inner, k: number, hand: Hand, { side }: BoxSizes): Bond => ({
  id: partId(CARD, `${innerName(k)}-bond${hand}`),
  a: { piece: pieceOf(one.box), facet: `${one.box}${hand}` },
  b: { piece: innerName(k), facet: `${innerName(k)}-tab${hand}` },
  placement: shiftBy([(hand === 'Left' ? -1 : 1) * onSide(one, side), 0, 0]),
});

/** Panels between the sides are glued in before the box is closed round them. */
export const innerSteps = (values: ParameterValues): BaseStep[] =>
  listOf(values, 'panels').map((item, k) => ({
    title: `Glue panel ${k + 2} in`,
    text: `By both tabs to the sides between ${String(item.between)}, while the box lies flat.`,
    openDeg: 0,
    parts: [innerName(k), ...HANDS.map((hand) => `${innerName(k)}-tab${hand}`)],
    folds: HANDS.map((hand) => `${innerName(k)}-fold${hand}`),
    glue: HANDS.map((hand) => `${innerName(k)}-glue${hand}`),
  }));

const size = lengths(2, 1000);
export const INNER: readonly Parameter[] = [
  {
    key: 'between',
    label: 'Between',
    unit: 'choice',
    default: 'back and panel',
    choices: ['back and panel', 'panel and front'],
    note: 'Which of the two boxes it stands in.',
    optional: true,
  },
  size('at', 'Behind it', 8, 'How far before the back, or before the display panel.', 0),
  { ...size('from', 'Foot over the floor', 0, 'Where it begins.', 0), optional: true },
  size('height', 'Height', 40, 'From its foot; its tabs are as high as the walls at most.', 6),
  {
    key: 'shape',
    label: 'Shape',
    unit: 'shape',
    default: null,
    note: 'In place of a rectangle, as large as it is drawn; cut off where it meets the sides, and glued there.',
    optional: true,
  },
];
