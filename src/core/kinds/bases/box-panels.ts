/**
 * Further panels and shelves of a box (docs/mechanisms.md, `box-frame`): each between the two sides of a partial box,
 * by a tab on either, parallel to the wall. Drawn as the strip of that box is: x across, y up from the floor.
 */
import { partId, CARD } from '../../ids';
import { shiftBy } from '../../linkage';
import { rectangle, type Ring } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import {
  LABEL_STEP,
  listOf,
  num,
  type BaseContext,
  type Bond,
  type CreaseLine,
  type GlueArea,
  type ListItem,
  type OrderStep,
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
}
export const innerOf = (item: ListItem): Inner => ({
  box: item.between === 'panel and front' ? 'front' : 'back',
  at: num(item, 'at'),
  from: num(item, 'from'),
  high: num(item, 'height'),
});
export const innerName = (k: number): string => `panel-${k + 2}`;

export function checkInner(one: Inner, k: number, { side, wall, tab }: BoxSizes, refuse: BaseContext['refuse']): void {
  const name = `panel ${k + 2}`;
  const { at, from } = one;
  const along = onSide(one, side);
  if (along < 0 || along + tab > side)
    refuse(`${name} at ${at} mm leaves its tabs of ${tab} mm no room on sides of ${side} mm; set it elsewhere`);
  if (from + LEAST_TAB_MM > wall) refuse(`${name} begins at ${from} mm, over walls of ${wall} mm; set it lower`);
}
/** A tab hangs on no less of its fold, mm; common practice, no source. */
const LEAST_TAB_MM = 6;

/** Its tabs run on from it as the sides run on from their wall, so that it goes with them. */
export function innerPiece(one: Inner, k: number, { wide, side, wall, tab }: BoxSizes, stock: string): Piece {
  const { box, from, high } = one;
  const name = innerName(k);
  const [x, low, top] = [wide / 2, from, from + high];
  const tabTop = Math.min(top, wall);
  const sign = (hand: Hand): 1 | -1 => (hand === 'Left' ? -1 : 1);
  const glued = (hand: Hand): GlueArea => {
    const [x0, x1] = [x + GLUE_INSET_MM, x + tab - GLUE_INSET_MM];
    const [y0, y1] = [low + GLUE_INSET_MM, tabTop - GLUE_INSET_MM];
    const on = (by: number): Ring =>
      hand === 'Left' ? rectangle(-x1 - by, y0, -x0 - by, y1) : rectangle(x0 + by, y0, x1 + by, y1);
    return {
      id: partId(CARD, `${name}-glue${hand}`),
      mechanism: CARD,
      outline: on(0),
      facet: `${name}-tab${hand}`,
      onto: { piece: pieceOf(box), facet: `${box}${hand}`, outline: on(onSide(one, side)) },
    };
  };
  return {
    id: name,
    title: `Panel ${k + 2}`,
    mechanism: CARD,
    stock,
    outline: {
      outer: [
        [-x - tab, low],
        [x + tab, low],
        [x + tab, tabTop],
        [x, tabTop],
        ...(top > tabTop
          ? ([
              [x, top],
              [-x, top],
            ] as Vec2[])
          : []),
        [-x, tabTop],
        [-x - tab, tabTop],
      ],
      holes: [],
    },
    lines: [],
    creases: HANDS.map((hand): CreaseLine => ({
      id: partId(CARD, `${name}-fold${hand}`),
      role: 'valley',
      mechanism: CARD,
      a: [sign(hand) * x, hand === 'Left' ? tabTop : low],
      b: [sign(hand) * x, hand === 'Left' ? low : tabTop],
      ends: hand === 'Left' ? [Math.PI, 0] : [0, Math.PI],
    })),
    glue: HANDS.map(glued),
    labels: [
      { name, at: [0, top - LABEL_STEP], mechanism: CARD },
      ...HANDS.map((hand) => ({
        name: `${name}-tab${hand}`,
        at: [sign(hand) * (x + tab - LABEL_STEP), low + LABEL_STEP] as Vec2,
        mechanism: CARD,
      })),
    ],
  };
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
export const innerSteps = (values: ParameterValues): OrderStep[] =>
  listOf(values, 'panels').map((item, k) => ({
    title: `Glue panel ${k + 2} in`,
    text: `By both tabs to the sides between ${String(item.between)}, while the box lies flat.`,
    openDeg: 0,
    parts: [innerName(k), ...HANDS.map((hand) => `${innerName(k)}-tab${hand}`)],
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
];
