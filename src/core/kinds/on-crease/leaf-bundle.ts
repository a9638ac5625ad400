/**
 * Equal shapes, each folded on its axis and glued back to back, on a crease or a flat face (docs/mechanisms.md). Leaf 1
 * is glued to side A by one half, the next to the other half of that, the last to side B. Local axes: x along the
 * crease, which is every leaf's axis; y into side A. Bundles that are stacked stand on the same axis, one past the
 * other. On a face they are spread by hand, and pressed to one side when the card is shut.
 */
import type { CreaseLine, GlueArea } from '../../pattern/pattern';
import { intersect, largest, mapRegion, offset as grow, rectangle, regionBox, type Polygon } from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { compose, turnAbout, type Rigid, type Vec3 } from '../../linkage';
import { partId } from '../../ids';
import { axisOf, centreOfArea } from '../../shapes/axis';
import { sized } from '../../shapes/steps';
import { levelAt } from '../../shapes/level';
import { ShapeError, type Shape } from '../../shapes/shape';
import { BESIDE_MM } from '../../tolerance';
import { degToRad, radToDeg } from '../../units/angle';
import {
  EMPTY,
  LABEL_STEP,
  laidOnto,
  listOf,
  num,
  placedOn,
  shapeOf,
  type Bond,
  type BuildContext,
  type Contribution,
  type CreaseKind,
  type FaceContext,
  type Host,
  type Landmark,
  type Parameter,
  type ParameterValues,
  type Piece,
  THE_REST,
  type FaceStep,
} from '../kind';
import { alongCrease } from '../parameters';
import { firstLevel, onFace } from '../on-facet/sheets';
import { GLUE_SET_BACK_MM } from './step-fold';

/** A bundle on the axis. */
interface Bundle {
  readonly shape: Shape;
  readonly count: number;
  readonly heightMm: number;
  /** Before the names of its parts: none of the first. */
  readonly name: string;
}

/** Leaf by leaf back to back: turned over about the axis. */
const BACK_TO_BACK: Rigid = turnAbout([0, 0, 0], [1, 0, 0], Math.PI);
/** Drawings are turned about this much to find their axis once (deg). */
const UPRIGHT_DEG = 90;

function bundlesOf(values: ParameterValues): Bundle[] {
  const first = { shape: shapeOf(values, 'shape')!, count: num(values, 'count'), heightMm: num(values, 'height') };
  const more = listOf(values, 'stack').map((item, k) => ({
    shape: shapeOf(item, 'shape')!,
    count: num(item, 'count'),
    heightMm: num(item, 'height'),
    name: `tier-${k + 2}-`,
  }));
  return [{ ...first, name: '' }, ...more];
}

/** Put on a face: leaves are glued to each other first, then the first and the last half of each bundle to the face. */
function bundleSteps(values: ParameterValues): FaceStep[] {
  const ends = bundlesOf(values).flatMap(({ name, count }) => [`${name}glue-1A`, `${name}glue-${count}B`]);
  return [
    {
      id: 'bundle',
      text: 'Fold each shape on its axis, stack them and glue them back to back, all folds to one side.',
      parts: [THE_REST],
      folds: [THE_REST],
      glue: [THE_REST],
    },
    {
      id: 'face',
      text: 'Glue the first half down, its fold on the axis; fan the others out and glue the last half down beside it.',
      parts: bundlesOf(values).flatMap(({ name, count }) => [`${name}leaf-1A`, `${name}leaf-${count}B`]),
      glue: ends,
    },
  ];
}

/** A shape with its axis along x and its foot at x = 0, running to `sign` x. */
function laid({ shape, heightMm }: Bundle, outline: Ground['outline'], sign: 1 | -1): Polygon {
  const drawn = outline(shape);
  const deg = axisOf(drawn);
  // Its axis up, then up to where it runs.
  const turn = degToRad((deg < 0 ? deg + 180 : deg) - UPRIGHT_DEG);
  const [c, s] = [Math.cos(-turn), Math.sin(-turn)];
  const upright = mapRegion(drawn, ([x, y]): Vec2 => [c * x - s * y, s * x + c * y]);
  const own = sized(upright, null, heightMm);
  const [middle] = centreOfArea(own);
  const foot = regionBox(own).min[1];
  const along = mapRegion(own, ([x, y]): Vec2 => [sign * (y - foot), -sign * (x - middle)]);
  const body = largest(along);
  if (!body) throw new ShapeError('its shape has no area; choose another');
  return body;
}

const mirrored = (body: Polygon): Polygon => mapRegion([body], ([x, y]): Vec2 => [x, -y], true)[0];

/** What the bundles of one axis stand on. */
interface Ground {
  readonly id: string;
  readonly stock: string;
  readonly outline: BuildContext['outline'];
  /** Piece and facets that the first and the last half are glued to; the last half stands free where there is none. */
  readonly piece: string;
  readonly sideA: string;
  readonly sideB: string | null;
  readonly placement: Rigid;
  readonly levelMm?: number;
  /** Length of the crease that is its axis: the budget for all that stands on it. */
  readonly axisMm?: number;
  /** Of what is spread over a face: how far at most. */
  readonly spanDeg?: number;
  /** How the crease of leaf k of n folds: by what it stands on, or by a drive. */
  readonly fold: (k: number, n: number) => Pick<CreaseLine, 'standsOn' | 'ends' | 'drive'>;
}

/** On a crease: every fold at rest and open is what its share of the angle leaves. */
function onCrease({ id, stock, outline, host }: BuildContext): Ground {
  const share = (end: number | undefined, n: number): number | undefined =>
    end === undefined ? undefined : Math.PI - (Math.PI - end) / n;
  return {
    ...{ id, stock, outline, piece: host.piece, sideA: host.sideA, sideB: host.sideB, placement: placedOn(host) },
    axisMm: host.lengthMm,
    fold: (_, n) => ({ standsOn: host.crease, ends: [share(host.ends[0], n), share(host.ends[1], n)] }),
  };
}

interface Leaves {
  readonly pieces: readonly Piece[];
  readonly bonds: readonly Bond[];
  readonly hosts: readonly Host[];
  readonly landmarks: readonly Landmark[];
  readonly halfWidthMm: number;
}

/** The leaves of one bundle, its foot at `from` along the crease. */
function leaves(bundle: Bundle, ground: Ground, from: number, sign: 1 | -1): Leaves {
  const { id, stock, piece: under, sideA, sideB, placement: toHost, levelMm } = ground;
  const { count, name } = bundle;
  const outline = mapRegion([laid(bundle, ground.outline, sign)], ([x, y]): Vec2 => [x + from, y])[0];
  const named = (part: string, k: number, half = ''): string => `${id}.${name}${part}-${k + 1}${half}`;
  const pieces = Array.from({ length: count }, (_, k): Piece => {
    // Turned over from one to the next: halves that are glued are alike whatever the shape.
    const own = k % 2 === 0 ? outline : mirrored(outline);
    const stretch = levelAt([own], BESIDE_MM);
    const folds = stretch.map((i, n): CreaseLine => ({
      id: `${named('fold', k)}${n === 0 ? '' : `-${n + 1}`}`,
      role: 'valley',
      mechanism: id,
      a: [i.from, 0],
      b: [i.to, 0],
      ...ground.fold(k, count),
    }));
    const at = (stretch[0]?.from ?? from) + LABEL_STEP;
    const glued = (half: 'A' | 'B', onto: (area: Polygon) => GlueArea['onto']): GlueArea[] =>
      areasOf(own, half).map((area, n) => ({
        id: `${named('glue', k, half)}${n === 0 ? '' : `-${n + 1}`}`,
        mechanism: id,
        outline: area.outer,
        facet: named('leaf', k, half),
        onto: onto(area),
      }));
    const onHost = (facet: string) => (area: Polygon) => ({
      piece: under,
      facet,
      outline: laidOnto(toHost, area.outer),
    });
    const onLeaf = (area: Polygon): GlueArea['onto'] => ({
      piece: named('leaf', k - 1),
      facet: named('leaf', k - 1, 'B'),
      outline: mirrored(area).outer,
    });
    return {
      id: named('leaf', k),
      title: `Leaf ${k + 1}`,
      mechanism: id,
      stock,
      ...(levelMm === undefined ? {} : { levelMm }),
      outline: own,
      lines: [],
      creases: folds,
      glue: [
        ...glued('A', k === 0 ? onHost(sideA) : onLeaf),
        ...(k === count - 1 && sideB !== null ? glued('B', onHost(sideB)) : []),
      ],
      labels: [
        { name: named('leaf', k, 'A'), at: [at, LABEL_STEP / 4], mechanism: id },
        { name: named('leaf', k, 'B'), at: [at, -LABEL_STEP / 4], mechanism: id },
      ],
    };
  });
  const bond = (part: string, a: Bond['a'], b: Bond['b'], placement: Rigid): Bond => ({
    id: `${id}.${name}${part}`,
    a,
    b,
    placement,
  });
  const half = (k: number, side: 'A' | 'B'): Bond['b'] => ({ piece: pieces[k].id, facet: named('leaf', k, side) });
  const { min, max } = regionBox([outline]);
  const widest = (k: number): Vec2 => pieces[k].outline.outer.reduce((low, p) => (p[1] < low[1] ? p : low));
  return {
    pieces,
    bonds: [
      bond('bondA', { piece: under, facet: sideA }, half(0, 'A'), toHost),
      ...pieces.slice(1).map((_, k) => bond(`bond-${k + 1}`, half(k, 'B'), half(k + 1, 'A'), BACK_TO_BACK)),
      ...(sideB === null ? [] : [bond('bondB', { piece: under, facet: sideB }, half(count - 1, 'B'), toHost)]),
    ],
    hosts: pieces.map((piece, k): Host => {
      const [first] = piece.creases;
      const [x0, x1] = first ? [first.a[0], first.b[0]] : [from, from];
      return {
        crease: named('fold', k),
        piece: piece.id,
        frame: { origin: [(x0 + x1) / 2, 0], along: [1, 0] },
        lengthMm: x1 - x0,
        sideA: named('leaf', k, 'A'),
        sideB: named('leaf', k, 'B'),
        sign: 1,
        ends: first?.ends ?? [undefined, undefined],
        reachA: max[1],
        reachB: -min[1],
        stock,
      };
    }),
    landmarks: pieces.map(({ id: piece }, k) => ({
      name: `${name}edge_${k + 1}`.replaceAll('-', '_'),
      piece,
      facet: named('leaf', k, 'B'),
      at: widest(k),
    })),
    halfWidthMm: Math.max(max[1], -min[1]),
  };
}

/** Where glue goes on a half of a leaf: inside its edges and off its fold. */
function areasOf(own: Polygon, half: 'A' | 'B'): Polygon[] {
  const { min, max } = regionBox([own]);
  const set = GLUE_SET_BACK_MM;
  const strip = half === 'A' ? rectangle(min[0], set, max[0], max[1]) : rectangle(min[0], min[1], max[0], -set);
  if (strip[2][1] <= strip[0][1]) return [];
  return intersect(grow([own], -set), [{ outer: strip, holes: [] }]).map((p) => ({ outer: p.outer, holes: [] }));
}

function build(values: ParameterValues, context: BuildContext): Contribution {
  const spread = values.span === OPEN_SPAN ? [] : [{ key: 'span', what: SPAN_ON_CREASE }];
  const part = bundled(values, onCrease(context));
  return { ...part, unheld: [...part.unheld, ...spread] };
}

/** The angle of what it stands on. */
const OPEN_SPAN = 'open';
const SPAN_ON_CREASE = 'on a crease it is spread by that; an angle of its own is for a flat face';
/** A whole flat face, on both sides of the axis. */
const FACE_DEG = 180;

/**
 * On a face, its axis upright: pressed to one side at rest, so that the card shuts over it, and spread by hand. Over
 * the whole face the last half is glued down too, and takes up what the others leave.
 */
function buildOnFace(values: ParameterValues, context: FaceContext): Contribution {
  const { id, face, stock, outline } = context;
  const spanDeg = values.span === OPEN_SPAN ? FACE_DEG : num(values, 'span');
  const spread = partId(id, 'spread');
  const whole = spanDeg === FACE_DEG;
  const levelMm = firstLevel(context);
  const fold: Ground['fold'] = (k, n) => {
    const last = whole && k === n - 1;
    const [at, rate] = last ? [0, (n - 1) / n] : [Math.PI, -1 / n];
    return { ends: [at, at + rate * degToRad(spanDeg)], drive: { id: spread, at, rate } };
  };
  const upright = turnAbout([0, 0, 0], [0, 0, 1], Math.PI / 2);
  const part = bundled(values, {
    ...{
      id,
      stock,
      outline,
      piece: face.piece,
      sideA: face.facet,
      sideB: whole ? face.facet : null,
      levelMm,
      spanDeg,
      fold,
    },
    placement: compose(onFace(face, levelMm), upright),
  });
  return { ...part, drives: [{ id: spread, label: 'spread', unit: 'deg', from: 0, to: spanDeg, rest: 0 }] };
}

function bundled(values: ParameterValues, ground: Ground): Contribution {
  const sign = values.top === 'high' ? 1 : -1;
  const bundles = bundlesOf(values);
  const gap = num(values, 'gap');
  const total = bundles.reduce((sum, b) => sum + b.heightMm, 0) + gap * (bundles.length - 1);
  let foot = num(values, 'offset') - (sign * total) / 2;
  const parts = bundles.map((bundle) => {
    const part = leaves(bundle, ground, foot, sign);
    foot += sign * (bundle.heightMm + gap);
    return part;
  });
  const folds = bundles.map((b, k) => ({ bare: parts[k].pieces.some((p) => p.creases.length === 0), k }));
  return {
    ...EMPTY,
    pieces: parts.flatMap((p) => p.pieces),
    bonds: parts.flatMap((p) => p.bonds),
    hosts: parts.flatMap((p) => p.hosts),
    landmarks: parts.flatMap((p) => p.landmarks),
    unheld: folds
      .filter(({ bare }) => bare)
      .map(({ k }) => ({ key: `axis ${k}`, what: 'the axis of its shape has no paper on both sides to be folded' })),
    measures: (pose) => {
      const edge = pose.local('edge_1');
      return {
        ...pitches(edge, ground, bundles[0].count),
        layers: Math.max(...bundles.map((b) => 2 * b.count)),
        total_height_mm: total,
        ...(ground.axisMm === undefined
          ? {}
          : { room_mm: (ground.axisMm - total) / 2 - Math.abs(num(values, 'offset')) }),
        half_width_mm: Math.max(...parts.map((p) => p.halfWidthMm)),
      };
    },
  };
}

/** Angle between neighbours, degrees: as they are now; on a face as it is meant to be, and how far they are spread. */
function pitches(edge: Vec3 | undefined, { spanDeg, levelMm = 0 }: Ground, count: number): Record<string, number> {
  const pitch: Record<string, number> = spanDeg === undefined ? {} : { pitch_deg: spanDeg / count };
  if (!edge) return pitch;
  const [x, y, z] = edge;
  if (spanDeg === undefined) return { pitch_deg: radToDeg(Math.atan2(z, y)) };
  // On a face side A lies at its reader's left; of one leaf alone both halves are glued down.
  return { ...pitch, spread_deg: count > 1 ? count * radToDeg(Math.atan2(z - levelMm, -x)) : spanDeg };
}

const COUNT: Parameter = {
  key: 'count',
  label: 'Leaves',
  unit: 'count',
  default: 5,
  min: 1,
  max: 24,
  note: 'Shapes that are folded and glued back to back: two layers each when closed.',
};
const shapeField = (value: Shape, note: string): Parameter => ({
  key: 'shape',
  label: 'Shape',
  unit: 'shape',
  default: value,
  highAs: 'height',
  note,
});
const heightField = (value: number): Parameter => ({
  key: 'height',
  label: 'Height',
  unit: 'mm',
  default: value,
  min: 2,
  max: 1000,
  note: 'Along its axis.',
});
const LANTERN: Shape = { ellipse: { width: 50, height: 60 } };

export const leafBundle: CreaseKind = {
  id: 'leaf-bundle',
  mount: 'crease',
  title: 'Leaf bundle',
  says: 'Shapes folded on their axis and glued back to back: they fan out evenly as the card opens.',
  sign: 'M1 14 H15 M8 14 L2 6 M8 14 L5 3 M8 14 V2 M8 14 L11 3 M8 14 L14 6',
  fitting: ({ lengthMm, reachA, reachB }, whole) => {
    const height = whole(Math.min(lengthMm * 0.4, Math.min(reachA, reachB)), 10);
    return { shape: { ellipse: { width: whole(height * 0.8, 8), height } }, height };
  },
  turns: (values) => {
    const tiers = listOf(values, 'stack').map((_, k) => `stack[${k}].height`);
    return { away: ['height', ...tiers], along: ['offset', 'height', 'gap', ...tiers], size: ['height'] };
  },
  sizeOf: (v, say) => `${num(v, 'count')} leaves of ${say(num(v, 'height'))}`,
  raises: true,
  ownPiece: () => true,
  charts: [{ measure: 'pitch_deg', label: 'Angle between leaves' }],
  onFace: {
    natural: 'inside',
    order: bundleSteps,
    fitting: ({ widthMm, heightMm }, whole) => {
      const height = whole(Math.min(heightMm * 0.4, widthMm * 0.8), 10);
      return { shape: { ellipse: { width: whole(height * 0.8, 8), height } }, height, top: 'high' };
    },
    build: buildOnFace,
  },
  shapeUse: { says: 'Fan it out in a bundle', values: (shape, height) => ({ shape, height }) },
  parameters: [
    shapeField(LANTERN, 'Folded on its axis, which is found from it.'),
    COUNT,
    heightField(60),
    {
      key: 'span',
      label: 'Spread over',
      unit: 'deg',
      default: OPEN_SPAN,
      word: OPEN_SPAN,
      min: 10,
      max: FACE_DEG,
      note: 'On a crease its angle; on a face the whole of it, 180°, unless said.',
    },
    alongCrease('Middle of all that stands on the axis, from the middle of the crease.'),
    {
      key: 'top',
      label: 'Top toward',
      unit: 'choice',
      default: 'low',
      choices: ['low', 'high'],
      note: 'Which end of the crease its top looks to: on a card folded at the side the low end is up.',
    },
    {
      key: 'stack',
      label: 'Past it, on the same axis',
      unit: 'list',
      entry: 'Bundle',
      default: [],
      fields: [shapeField(LANTERN, 'Of this bundle.'), COUNT, heightField(30)],
      note: 'Further bundles, as stem, body and top: each begins where the one before ends.',
    },
    {
      key: 'gap',
      label: 'Between bundles',
      unit: 'mm',
      default: 1,
      min: 0,
      max: 200,
      note: 'Room from one to the next along the axis.',
    },
  ],
  build,
};
