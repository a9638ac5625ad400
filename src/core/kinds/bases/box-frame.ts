/**
 * Two partial boxes glued round a display panel, that shear flat both ways (docs/mechanisms.md). The back lies still;
 * its two sides carry the panel, on that stand the sides of the front. Each partial box is a strip, seen from inside,
 * mm: tab, side, wall, side, tab along x, the wall about x = 0; y up from the floor.
 */
import { partId, CARD } from '../../ids';
import { OPEN } from '../../drives';
import { compose, shiftBy, turnAbout, type Rigid } from '../../linkage';
import { rectangle, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import {
  LABEL_STEP,
  listOf,
  num,
  type Base,
  type BaseContext,
  type BaseKind,
  type Bond,
  type CreaseLine,
  type GlueArea,
  type Host,
  type ParameterValues,
  type Piece,
  THE_REST,
} from '../kind';
import { lengths } from '../parameters';
import {
  checkInner,
  GLUE_INSET_MM,
  HANDS,
  INNER,
  innerBond,
  innerMeasures,
  innerName,
  innerOf,
  innerPiece,
  innerSteps,
  pieceOf,
  type Box,
  type BoxSizes as Sizes,
  type Hand,
} from './box-panels';
import { GUTTER, POSTED } from './fold-card';

const PANEL = 'panel';
const BACK_PARTS = ['back', 'backLeft', 'backRight', 'backLeftTab', 'backRightTab'];
const FRONT_PARTS = ['front', 'frontLeft', 'frontRight', 'frontLeftTab', 'frontRightTab'];
/** A flap at the foot of the panel, and the drive that folds it under. */
const TONGUE = partId(CARD, 'tongue');
function sizesOf(values: ParameterValues): Sizes {
  const [wide, depth, wall, panel, tab] = ['displayWidth', 'depth', 'wallHeight', 'panelHeight', 'tab'].map((k) =>
    num(values, k),
  );
  return { wide, depth, side: depth / 2, wall, panel, tab };
}

function build(values: ParameterValues, { stock, pageStock, outline, refuse }: BaseContext): Base {
  const sizes = sizesOf(values);
  const { wide, depth, wall, panel, tab } = sizes;
  if (2 * tab >= wide) refuse(`its tabs of ${tab} mm meet behind a panel ${wide} mm wide; make them narrower`);
  const inner = listOf(values, 'panels').map((item) => innerOf(item, outline));
  const tongue = num(values, 'tongue');
  inner.forEach((one, k) => checkInner(one, k, sizes, refuse));
  if (panel < wall) refuse(`its panel of ${panel} mm is lower than its walls of ${wall} mm; make it higher`);
  const display: Piece = {
    id: PANEL,
    title: 'Panel',
    mechanism: CARD,
    stock: pageStock,
    outline: panelOutline(sizes, tongue),
    lines: [],
    creases: tongue > 0 ? [tongueCrease(sizes)] : [],
    glue: [],
    labels: [
      { name: PANEL, at: [-wide / 2 + LABEL_STEP, panel - LABEL_STEP], mechanism: CARD },
      ...(tongue > 0 ? [{ name: 'tongue', at: [0, LABEL_STEP - tongue] as Vec2, mechanism: CARD }] : []),
    ],
  };
  return {
    pieces: [
      strip('back', sizes, stock),
      strip('front', sizes, stock),
      display,
      ...inner.map((one, k) => innerPiece(one, k, sizes, pageStock)),
    ],
    bonds: [
      ...(['back', 'front'] as const).flatMap((box) => [bond(box, 'Left', sizes), bond(box, 'Right', sizes)]),
      ...inner.flatMap((one, k) => HANDS.map((hand) => innerBond(one, k, hand, sizes))),
    ],
    drives: tongue > 0 ? [{ id: TONGUE, label: 'tongue', unit: 'deg', from: 0, to: 90, rest: 0 }] : [],
    hosts: (['back', 'front'] as const).flatMap((box) => hostsOf(box, sizes, stock)),
    lead: { crease: GUTTER, still: 'back', turning: 'backLeft', covers: ['front'] },
    landmarks: [
      { name: 'panel_top', piece: PANEL, facet: PANEL, at: [0, panel] },
      { name: 'front', piece: pieceOf('front'), facet: 'front', at: [0, 0] },
      ...inner.map(({ from, high }, k) => ({
        ...{ name: `panel_${k + 2}_top`, piece: innerName(k), facet: innerName(k), at: [0, from + high] as const },
      })),
    ],
    measures: (pose) => {
      const front = pose.local('front');
      return {
        flat_width_mm: wide + depth,
        flat_height_mm: Math.max(panel, wall) + tongue,
        ...(front ? { apart_mm: front[2] } : {}),
        ...innerMeasures(inner, pose),
      };
    },
    interruptions: [],
  };
}

const creaseOf = (box: Box, hand: Hand, part: 'side' | 'tab'): string =>
  box === 'back' && hand === 'Left' && part === 'side'
    ? GUTTER
    : partId(CARD, `${box}${hand}${part === 'tab' ? 'Tab' : ''}`);

/**
 * One partial box. Sheared to `open`, the left side folds by 180 - open and the right by open, their tabs the other way
 * round: all valleys.
 */
function strip(box: Box, { wide, side, wall, tab }: Sizes, stock: string): Piece {
  const ends = [wide / 2, wide / 2 + side, wide / 2 + side + tab];
  const out = (hand: Hand): 1 | -1 => (hand === 'Left' ? -1 : 1);
  const crease = (id: string, x: number, at: CreaseLine['ends']): CreaseLine => ({
    id,
    role: 'valley',
    mechanism: CARD,
    // What turns lies on the right of the crease that leads.
    ...(x < 0 ? { a: [x, wall], b: [x, 0] } : { a: [x, 0], b: [x, wall] }),
    ends: at,
  });
  const [shut, flat] = [Math.PI, 0];
  const label = (name: string, x: number) => ({ name, at: [x, LABEL_STEP] as Vec2, mechanism: CARD });
  return {
    id: pieceOf(box),
    title: box === 'back' ? 'Back' : 'Front',
    mechanism: CARD,
    stock,
    outline: { outer: rectangle(-ends[2], 0, ends[2], wall), holes: [] },
    lines: [],
    creases: HANDS.flatMap((hand) => [
      // The left side leads: it turns as the gutter of a card does.
      crease(creaseOf(box, hand, 'side'), out(hand) * ends[0], hand === 'Left' ? [shut, flat] : [flat, shut]),
      crease(creaseOf(box, hand, 'tab'), out(hand) * ends[1], hand === 'Left' ? [flat, undefined] : [shut, undefined]),
    ]),
    glue: HANDS.map((hand) => glueOn(box, hand, ends, wall, wide)),
    labels: [
      label(box, 0),
      ...HANDS.flatMap((hand) => [
        label(`${box}${hand}`, out(hand) * (ends[0] + LABEL_STEP)),
        label(`${box}${hand}Tab`, out(hand) * (ends[2] - LABEL_STEP)),
      ]),
    ],
  };
}

function glueOn(box: Box, hand: Hand, ends: readonly number[], wall: number, wide: number): GlueArea {
  const [x0, x1] = [ends[1] + GLUE_INSET_MM, ends[2] - GLUE_INSET_MM];
  const [y0, y1] = [GLUE_INSET_MM, wall - GLUE_INSET_MM];
  const own = hand === 'Left' ? rectangle(-x1, y0, -x0, y1) : rectangle(x0, y0, x1, y1);
  // On the panel it runs in from the edge as far as on the tab out from the crease; the back's lies behind it.
  const edge = wide / 2 - (x1 - ends[1]);
  const [near, far] = [edge, wide / 2 - (x0 - ends[1])];
  const right = (hand === 'Right') === (box === 'back');
  return {
    id: partId(CARD, `glue${box === 'back' ? 'Back' : 'Front'}${hand}`),
    mechanism: CARD,
    outline: own,
    facet: `${box}${hand}Tab`,
    onto: {
      piece: PANEL,
      facet: PANEL,
      outline: right ? rectangle(near, y0, far, y1) : rectangle(-far, y0, -near, y1),
    },
  };
}

/** Tucked below the box it holds that square; narrower than the panel, so that the sides stay free. */
const TONGUE_INSET_MM = 4;
function panelOutline({ wide, panel }: Sizes, tongue: number): Polygon {
  const [x, t] = [wide / 2, wide / 2 - TONGUE_INSET_MM];
  const foot: Vec2[] =
    tongue > 0
      ? [
          [-t, 0],
          [-t, -tongue],
          [t, -tongue],
          [t, 0],
        ]
      : [];
  return { outer: [[-x, 0], ...foot, [x, 0], [x, panel], [-x, panel]], holes: [] };
}
const tongueCrease = ({ wide }: Sizes): CreaseLine => ({
  id: TONGUE,
  role: 'valley',
  mechanism: CARD,
  // What a hand turns lies on the left.
  a: [wide / 2 - TONGUE_INSET_MM, 0],
  b: [TONGUE_INSET_MM - wide / 2, 0],
  ends: [0, undefined],
  drive: { id: TONGUE, at: 0, rate: 1 },
});

const TURNED: Rigid = turnAbout([0, 0, 0], [0, 1, 0], Math.PI);
/** The panel in the axes of a strip, as it lies on the tab there: before the back's tabs, behind the front's. */
function bond(box: Box, hand: Hand, { wide, side }: Sizes): Bond {
  const away = (hand === 'Right' ? 1 : -1) * (wide + side);
  return {
    id: partId(CARD, `bond${box === 'back' ? 'Back' : 'Front'}${hand}`),
    a: { piece: pieceOf(box), facet: `${box}${hand}Tab` },
    b: { piece: PANEL, facet: PANEL },
    placement: box === 'back' ? compose(shiftBy([away, 0, 0]), TURNED) : shiftBy([away, 0, 0]),
  };
}

/** Creases between wall and side: others stand there. */
function hostsOf(box: Box, { wide, side, wall }: Sizes, stock: string): Host[] {
  const host = (hand: Hand): Host => ({
    crease: creaseOf(box, hand, 'side'),
    piece: pieceOf(box),
    // Up the crease: what lies left of it is on its left.
    frame: { origin: [((hand === 'Left' ? -1 : 1) * wide) / 2, wall / 2], along: [0, 1] },
    lengthMm: wall,
    sideA: hand === 'Left' ? `${box}Left` : box,
    sideB: hand === 'Left' ? box : `${box}Right`,
    sign: 1,
    ends: hand === 'Left' ? [Math.PI, 0] : [0, Math.PI],
    reachA: hand === 'Left' ? side : wide,
    reachB: hand === 'Left' ? wide : side,
    stock,
  });
  return [host('Left'), host('Right')];
}

const size = lengths(2, 1000);

export const boxFrame: BaseKind = {
  id: 'box-frame',
  mount: 'base',
  title: 'Box card',
  says: 'Two partial boxes round a display panel: pressed sideways it lies flat for the post, square it stands.',
  sign: 'M2 14 H14 M2 14 L4 5 H16 L14 14 M3 9.5 H15',
  parameters: [
    size('displayWidth', 'Width of the panel', 69.85, 'Of front, panel and back.'),
    size('depth', 'Depth', 38.1, 'From front to back; the sides are creased half way, at the panel.'),
    size('wallHeight', 'Height of the walls', 50, 'Of front, back and sides.'),
    size('panelHeight', 'Height of the panel', 120, 'From the floor: it stands above the walls.'),
    size('tab', 'Tabs', 10, 'Of the sides, glued to the panel.'),
    size('tongue', 'Tongue', 0, 'At the foot of the panel, tucked below the box to hold it square; 0 for none.', 0),
    {
      key: 'panels',
      label: 'Further panels and shelves',
      unit: 'list',
      entry: 'Panel or shelf',
      default: [],
      fields: INNER,
      note: 'Between the sides, by tabs on both: they shear flat with the box. Low ones serve as shelves.',
    },
  ],
  order: (values) => [
    {
      title: 'Fold the back and the front',
      text: 'Fold every crease forward and press it flat.',
      openDeg: 0,
      parts: [...BACK_PARTS, ...FRONT_PARTS],
      folds: [THE_REST],
    },
    {
      title: 'Glue the back to the panel',
      text: 'Lie the back sheared flat and glue its tabs behind the panel, edge to edge.',
      openDeg: 0,
      parts: BACK_PARTS,
      glue: ['glueBackLeft', 'glueBackRight'],
    },
    {
      title: 'Glue the front to the panel',
      text: 'Its tabs before the panel, sheared the same way as the back; press while it lies flat.',
      openDeg: 0,
      parts: FRONT_PARTS,
      glue: ['glueFrontLeft', 'glueFrontRight'],
    },
    ...innerSteps(values),
    {
      title: 'Press it square',
      text: 'Shear it both ways, then let it stand: what is inside takes flat adhesive only.',
      openDeg: 90,
      parts: [PANEL],
    },
  ],
  brief: ['displayWidth', 'depth', 'wallHeight', 'panelHeight', 'tab'],
  fitting: ({ gutter, reach }) => {
    const depth = Math.round(reach * 0.35);
    const tab = Math.max(6, Math.round((reach - depth) * 0.14));
    return {
      displayWidth: reach - depth,
      depth,
      wallHeight: Math.round(gutter * 0.4),
      panelHeight: gutter,
      tab,
    };
  },
  sizes: (v) => ({
    gutter: Math.max(num(v, 'panelHeight'), num(v, 'wallHeight')),
    reach: num(v, 'displayWidth') + num(v, 'depth'),
  }),
  turns: () => ({
    away: ['displayWidth', 'depth'],
    along: ['panelHeight', 'wallHeight', 'tongue'],
    size: ['displayWidth', 'panelHeight'],
    tabs: ['tab'],
    weight: ['depth', 'panelHeight'],
  }),
  sizeOf: (v, say) => `${say(num(v, 'displayWidth'))} × ${say(num(v, 'panelHeight'))}`,
  states: (values) => [
    POSTED,
    {
      id: 'shelf',
      name: 'On the shelf',
      drives: { [OPEN]: 90, ...(num(values, 'tongue') > 0 ? { [TONGUE]: 90 } : {}) },
      stance: 'upright',
    },
  ],
  stands: 'upright',
  crease: GUTTER,
  face: (_, side) => (side === 'outside' ? 'front' : PANEL),
  up: () => [0, 1],
  build,
};
