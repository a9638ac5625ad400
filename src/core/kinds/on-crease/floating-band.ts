/**
 * A band between two slits that lifts a figure off the crease (docs/mechanisms.md).
 *
 *        y =  S/2  ── endA, in ──
 *        y =  q    ── innerA, out ──
 *        y =  0    ── middle, in ──      the figure folds on its axis here, glued to both facets beside it
 *        y = -q    ── innerB, out ──
 *        y = -S/2  ── endB, in ──
 *
 * One freedom is left beside symmetry: crease stiffness decides it (docs/mechanisms.md).
 */
import { intersect, mapRegion, offset as grow, rectangle, regionArea, regionBox } from '../../plane/polygon';
import { frameAt, type Vec2 } from '../../plane/vec2';
import { sized } from '../../shapes/steps';
import { centreOfArea, axisOf } from '../../shapes/axis';
import { levelAt } from '../../shapes/level';
import {
  EMPTY,
  LABEL_STEP,
  num,
  placedOn,
  shapeOf,
  type BuildContext,
  type Contribution,
  type CreaseLine,
  type GlueArea,
  type Host,
  type CreaseKind,
  type ParameterValues,
  type Piece,
} from '../kind';
import { alongCrease, scaledHeight } from '../parameters';
import { GLUE_SET_BACK_MM } from './step-fold';
import { BESIDE_MM } from '../../tolerance';

function build(values: ParameterValues, context: BuildContext): Contribution {
  const { id, host, say } = context;
  const [slit, width, offset] = ['slit', 'width', 'offset'].map((k) => num(values, k));
  const q = values.quarter === null ? slit / 4 : num(values, 'quarter');
  const half = slit / 2;
  const [x0, x1] = [offset - width / 2, offset + width / 2];
  const at = (x: number, y: number): Vec2 => frameAt(host.frame, x, y);
  const CREASES = [
    ['endA', half, 1],
    ['innerA', q, -1],
    ['middle', 0, 1],
    ['innerB', -q, -1],
    ['endB', -half, 1],
  ] as const;
  const FACETS = ['outerA', 'bandA', 'bandB', 'outerB'] as const;
  const [closed, open] = host.ends;
  const signed = (sign: number, size: number | undefined): number | undefined =>
    size === undefined ? undefined : sign * size + 0;
  const creases = CREASES.map(([name, y, turn]): CreaseLine => {
    const sign = turn * host.sign;
    return {
      id: `${id}.${name}`,
      role: sign > 0 ? 'valley' : 'mountain',
      mechanism: id,
      a: at(x0, y),
      b: at(x1, y),
      standsOn: host.crease,
      ends: [signed(sign, closed), signed(sign, open)],
    };
  });
  const sides = [host.sideA, ...FACETS.map((f) => `${id}.${f}`), host.sideB];
  const lengths = [host.reachA - half, half - q, q, q, half - q, host.reachB - half];
  const hosts = CREASES.map(([name, y, turn], i): Host => ({
    crease: `${id}.${name}`,
    piece: host.piece,
    frame: { origin: at(offset, y), along: host.frame.along },
    lengthMm: width,
    sideA: sides[i],
    sideB: sides[i + 1],
    sign: (turn * host.sign) as 1 | -1,
    ends: host.ends,
    reachA: lengths[i],
    reachB: lengths[i + 1],
    stock: host.stock,
  }));
  const ways =
    half - q > 0
      ? []
      : [
          {
            key: 'quarter',
            what: `its inner creases lie ${say(q)} from the crease, past the ends of the slits (${say(half)}).`,
            mm: q - half,
          },
        ];
  const figure = figurePiece(values, context, { x0, x1, q });
  return {
    ...EMPTY,
    lines: [x0, x1].map((x) => ({ role: 'cut' as const, a: at(x, -half), b: at(x, half), mechanism: id })),
    hostCreases: creases,
    interruptions: [{ crease: host.crease, from: x0 + host.lengthMm / 2, to: x1 + host.lengthMm / 2 }],
    claims: [{ outer: rectangle(x0, -half, x1, half).map(([x, y]) => at(x, y)), holes: [] }],
    labels: FACETS.map((name, i) => ({
      name: `${id}.${name}`,
      at: at(x0 + LABEL_STEP, CREASES[i][1] - LABEL_STEP),
      mechanism: id,
    })),
    hosts,
    contradictions: ways,
    ...(figure ? { pieces: [figure.piece], bonds: figure.bonds } : {}),
    landmarks: [{ name: 'middle', piece: host.piece, facet: `${id}.bandA`, at: at(offset, 0) }],
    measures: (pose) => {
      const middle = pose.local('middle');
      const shut = pose.closed('middle');
      return {
        // In the crease's own axes the bisector plane holds the middle crease: its distance from the crease.
        ...(middle ? { float_mm: Math.hypot(middle[1], middle[2]) } : {}),
        inner_creases_mm: q,
        ...(shut ? { closed_middle_mm: Math.hypot(shut[1], shut[2]) } : {}),
        ...(figure
          ? { tip_mm: figure.tipMm, axis_deg: figure.axisDeg, closed_reach_mm: slit - 2 * q + figure.halfHeight }
          : {}),
      };
    },
  };
}

interface FigurePart {
  readonly piece: Piece;
  readonly bonds: Contribution['bonds'];
  /** How far the middle of its weight lies inside the band that carries it, mm. */
  readonly tipMm: number;
  readonly axisDeg: number;
  readonly halfHeight: number;
}

/** The figure: turned so that its axis lies on the middle crease, folded there, glued to both facets beside it. */
function figurePiece(
  values: ParameterValues,
  { id, host, stock, outline }: BuildContext,
  { x0, x1, q }: { x0: number; x1: number; q: number },
): FigurePart | null {
  const shape = shapeOf(values, 'figure');
  if (!shape) return null;
  const drawn = outline(shape);
  const size = values.figureHeight as number | null;
  const own = size === null ? drawn : sized(drawn, null, size);
  const axis = { deg: values.axis === null ? axisOf(drawn) : num(values, 'axis'), through: centreOfArea(own) };
  const t = (-axis.deg * Math.PI) / 180;
  const [c, s] = [Math.cos(t), Math.sin(t)];
  const middle = (x0 + x1) / 2;
  const shift = num(values, 'axisShift');
  const turned = mapRegion(own, ([x, y]): Vec2 => {
    const [u, v] = [x - axis.through[0], y - axis.through[1]];
    return [c * u - s * v, s * u + c * v - shift];
  });
  const { min, max } = regionBox(turned);
  const region = mapRegion(turned, ([x, y]) => [x + middle - (min[0] + max[0]) / 2, y]);
  const body = region.reduce((best, p) => (regionArea([p]) > regionArea([best]) ? p : best));
  const piece = `${id}.figure`;
  const [closed, open] = host.ends;
  const stretch = levelAt([body], BESIDE_MM);
  const folds = stretch.map((i, k): CreaseLine => ({
    id: `${id}.axis${k === 0 ? '' : `-${k + 1}`}`,
    role: 'valley',
    mechanism: id,
    a: [i.from, 0],
    b: [i.to, 0],
    standsOn: host.crease,
    ends: [closed, open],
  }));
  const label = (y: number): Vec2 => [(stretch[0]?.from ?? middle) + LABEL_STEP, y];
  const set = GLUE_SET_BACK_MM;
  const areas = (['A', 'B'] as const).flatMap((side): GlueArea[] => {
    const strip =
      side === 'A' ? rectangle(x0 + set, set, x1 - set, q - set) : rectangle(x0 + set, -q + set, x1 - set, -set);
    if (strip[2][0] <= strip[0][0] || strip[2][1] <= strip[0][1]) return [];
    // Adhesive keeps inside the figure: what peeks out would stick to the leaf.
    return intersect([{ outer: strip, holes: [] }], grow([body], -set)).map((p, k) => ({
      id: `${id}.glue${side}${k === 0 ? '' : k + 1}`,
      mechanism: id,
      outline: p.outer,
      facet: `${id}.half${side}`,
      onto: {
        piece: host.piece,
        facet: `${id}.band${side}`,
        outline: p.outer.map(([x, y]) => frameAt(host.frame, host.sign * x, y)),
      },
    }));
  });
  const placement = placedOn(host);
  const weight = centreOfArea([body]);
  return {
    piece: {
      id: piece,
      title: 'Figure',
      mechanism: id,
      stock,
      outline: body,
      lines: [],
      creases: folds,
      glue: areas,
      labels: [
        { name: `${id}.halfA`, at: label(LABEL_STEP / 4), mechanism: id },
        { name: `${id}.halfB`, at: label(-LABEL_STEP / 4), mechanism: id },
      ],
    },
    bonds: (['A', 'B'] as const).map((side) => ({
      id: `${id}.bond${side}`,
      a: { piece: host.piece, facet: `${id}.band${side}` },
      b: { piece, facet: `${id}.half${side}` },
      placement,
    })),
    tipMm: Math.min(weight[0] - x0, x1 - weight[0], q - Math.abs(weight[1])),
    axisDeg: axis.deg,
    halfHeight: Math.max(regionBox(region).max[1], -regionBox(region).min[1]),
  };
}

export const floatingBand: CreaseKind = {
  id: 'floating-band',
  mount: 'crease',
  title: 'Floating band',
  says: 'A band between two slits lifts a figure off the crease, folded on its own axis.',
  sign: 'M1 13 H15 M3 13 L5 7 L8 9 L11 7 L13 13 M5 4 L8 6 L11 4',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const reach = Math.min(reachA, reachB);
    // As wide as its band needs it for its glue, however short the fold is.
    const figure = Math.min(reach * 0.5, Math.max(lengthMm * 0.35, 32));
    return {
      slit: whole(reach * 0.6, 8),
      width: whole(Math.min(Math.max(lengthMm * 0.16, 14), 24), 8),
      figure: { star: { points: 5, outer: whole(figure, 8), inner: whole(figure * 0.45, 4) } },
    };
  },
  turns: () => ({
    away: ['slit'],
    along: ['offset', 'width'],
    weight: ['width', 'quarter', 'slit', 'axisShift'],
    size: ['width'],
  }),
  words: {
    bandA: 'band on side A',
    bandB: 'band on side B',
    endA: 'end on side A',
    endB: 'end on side B',
    innerA: 'inner fold on side A',
    innerB: 'inner fold on side B',
  },
  sizeOf: (v, say) => `slits ${say(num(v, 'slit'))}`,
  raises: true,
  ownPiece: (v) => v.figure !== null,
  charts: [{ measure: 'float_mm', label: 'Float over the opening' }],
  shapeUse: { says: 'Float it on a band', values: (figure, figureHeight) => ({ figure, figureHeight }) },
  parameters: [
    {
      key: 'slit',
      label: 'Slits',
      unit: 'mm',
      default: 80,
      min: 4,
      max: 1000,
      note: 'Length of each, centred across the crease.',
    },
    { key: 'width', label: 'Width', unit: 'mm', default: 16, min: 2, max: 500, note: 'Of the band between the slits.' },
    {
      key: 'quarter',
      label: 'Inner creases',
      unit: 'mm',
      default: null,
      min: 1,
      max: 500,
      note: 'From the crease; a quarter of the slit unless set.',
    },
    alongCrease('Middle of the band, from the middle of the crease.'),
    {
      key: 'figure',
      label: 'Figure',
      unit: 'shape',
      default: null,
      note: 'Folded on its axis and glued to the two middle facets.',
    },
    scaledHeight('Figure height', 'figure'),
    {
      key: 'axis',
      label: 'Axis of the figure',
      unit: 'deg',
      default: null,
      min: -180,
      max: 180,
      note: 'Direction in the drawing that lies on the middle crease; found from its symmetry unless set.',
    },
    {
      key: 'axisShift',
      label: 'Shift of the axis',
      unit: 'mm',
      default: 0,
      min: -500,
      max: 500,
      note: 'How far beside the middle of the figure it folds.',
    },
  ],
  build,
};
