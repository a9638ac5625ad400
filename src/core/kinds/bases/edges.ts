/**
 * Edges and corners of a plain card, one by one: scallops or any shape along a side, corners rounded or cut off. A leaf
 * is drawn on its own, mm: x along the gutter from its middle, y from the fold to the fore edge.
 */
import {
  intersect,
  mapRegion,
  rectangle,
  regionBox,
  subtract,
  unite,
  type Polygon,
  type Region,
} from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { ellipse } from '../../shapes/curve';
import type { Shape } from '../../shapes/shape';
import { listOf, num, shapeOf, type BaseContext, type ListItem, type Parameter, type ParameterValues } from '../kind';

type Leaf = 'A' | 'B';
const CORNERS = ['fore', 'leaf A head', 'leaf A foot', 'leaf B head', 'leaf B foot', 'fold'] as const;
const SIDES = ['fore', 'leaf A fore', 'leaf B fore', 'head', 'foot'] as const;
/** Leaves are called as the rest of the application calls them. */
const PLACE_WORDS: Readonly<Record<string, string>> = {
  'leaf A head': 'back, head',
  'leaf A foot': 'back, foot',
  'leaf B head': 'front, head',
  'leaf B foot': 'front, foot',
  'leaf A fore': 'back, fore',
  'leaf B fore': 'front, fore',
};
type CornerPlace = (typeof CORNERS)[number];
type SidePlace = (typeof SIDES)[number];

const SCALLOP: Shape = { circle: 10 };

export const edgeParameters: readonly Parameter[] = [
  {
    key: 'edges',
    label: 'Edges',
    unit: 'list',
    entry: 'Edge',
    default: [],
    fields: [
      {
        key: 'side',
        label: 'Side',
        unit: 'choice',
        default: 'fore',
        choices: SIDES,
        choiceWords: PLACE_WORDS,
        note: 'Fore edges lie away from the fold, head and foot at its ends.',
      },
      {
        key: 'shape',
        label: 'Shape',
        unit: 'shape',
        default: SCALLOP,
        note: 'Stands along the edge, copy by copy, its top on the edge of the card: a disc gives scallops.',
      },
      {
        key: 'pitch',
        label: 'One every',
        unit: 'mm',
        default: 10,
        min: 2,
        max: 500,
        note: 'Width of a copy; rounded so that whole copies fill the side.',
      },
      {
        key: 'depth',
        label: 'Depth',
        unit: 'mm',
        default: null,
        min: 0.5,
        max: 200,
        note: 'How far the card is set back between the copies: half of one unless said.',
        optional: true,
      },
    ],
    note: 'Sides that are not straight: scallops, or any shape of the workshop, within the size of the card.',
  },
  {
    key: 'corners',
    label: 'Corners',
    unit: 'list',
    entry: 'Corner',
    default: [],
    fields: [
      {
        key: 'at',
        label: 'Where',
        unit: 'choice',
        default: 'fore',
        choices: CORNERS,
        choiceWords: PLACE_WORDS,
        note: 'Usually those at the fore edges; at the fold both leaves lose theirs.',
      },
      { key: 'how', label: 'How', unit: 'choice', default: 'round', choices: ['round', 'cut'], note: 'Or cut off.' },
      { key: 'size', label: 'Size', unit: 'mm', default: 8, min: 0.5, max: 200, note: 'Radius, or way cut off.' },
    ],
    note: 'Corners that are not square, one by one.',
  },
];

export const isShapedBySides = (values: ParameterValues): boolean =>
  listOf(values, 'edges').length > 0 || listOf(values, 'corners').length > 0;

/** Both leaves of a plain card with their edges and corners; the fold along y = 0, leaf A above it. */
export function cutByCorners(
  values: ParameterValues,
  { outline, refuse }: Pick<BaseContext, 'outline' | 'refuse'>,
): Polygon {
  const one = (leaf: Leaf): Region => {
    const sizes = { half: num(values, 'gutter') / 2, reach: num(values, `reach${leaf}`) };
    const edged = listOf(values, 'edges')
      .flatMap((edge) => linesOf(edge.side as SidePlace, leaf, sizes).map((line) => ({ edge, line })))
      .reduce((region, { edge, line }) => withEdge(region, line, edge, outline), rectOf(sizes));
    return listOf(values, 'corners').reduce((region, corner) => withoutCorners(region, corner, leaf, sizes), edged);
  };
  const whole = unite(
    one('A'),
    mapRegion(one('B'), ([x, y]): Vec2 => [x, -y], true),
  );
  if (whole.length === 1) return whole[0];
  return refuse(
    whole.length === 0
      ? 'its corners take all of its paper; make them smaller'
      : 'shapes along its edges do not hang together with the card; set it back less than they are high',
  );
}

interface Sizes {
  readonly half: number;
  readonly reach: number;
}
const rectOf = ({ half, reach }: Sizes): Region => [{ outer: rectangle(-half, 0, half, reach), holes: [] }];

/** A side of a leaf: from a corner along it, and out of the card. */
interface Line {
  readonly from: Vec2;
  readonly along: Vec2;
  readonly out: Vec2;
  readonly lengthMm: number;
}
function linesOf(side: SidePlace, leaf: Leaf, { half, reach }: Sizes): Line[] {
  const fore: Line = { from: [-half, reach], along: [1, 0], out: [0, 1], lengthMm: 2 * half };
  // From the fold on both leaves, so that they lie on each other when the card is shut.
  const head: Line = { from: [half, 0], along: [0, 1], out: [1, 0], lengthMm: reach };
  const foot: Line = { from: [-half, 0], along: [0, 1], out: [-1, 0], lengthMm: reach };
  if (side === 'head') return [head];
  if (side === 'foot') return [foot];
  return side === 'fore' || side === `leaf ${leaf} fore` ? [fore] : [];
}

function withEdge(region: Region, line: Line, edge: ListItem, outline: BaseContext['outline']): Region {
  const drawn = outline(shapeOf(edge, 'shape') ?? SCALLOP);
  const { min, max } = regionBox(drawn);
  const count = Math.max(1, Math.round(line.lengthMm / num(edge, 'pitch')));
  const pitch = line.lengthMm / count;
  const scale = pitch / (max[0] - min[0]);
  const depth = (edge.depth as number | null) ?? ((max[1] - min[1]) * scale) / 2;
  const place =
    (k: number) =>
    ([x, y]: Vec2): Vec2 => {
      const [u, v] = [(k + 0.5) * pitch + (x - (min[0] + max[0]) / 2) * scale, (y - max[1]) * scale];
      return [0, 1].map((c) => line.from[c] + u * line.along[c] + v * line.out[c]) as unknown as Vec2;
    };
  const turns = line.along[0] * line.out[1] - line.along[1] * line.out[0] < 0;
  const strip = mapRegion(
    [{ outer: rectangle(0, -depth, line.lengthMm, MORE_MM), holes: [] }],
    ([u, v]): Vec2 => [0, 1].map((c) => line.from[c] + u * line.along[c] + v * line.out[c]) as unknown as Vec2,
    turns,
  );
  const copies = Array.from({ length: count }, (_, k) => mapRegion(drawn, place(k), turns)).flat();
  // Copies hang together under the line the card is set back to.
  return unite(subtract(region, strip), intersect(unite(copies), region));
}
/** So far past its edge there is no card, mm. */
const MORE_MM = 1;

function withoutCorners(region: Region, corner: ListItem, leaf: Leaf, { half, reach }: Sizes): Region {
  const at = corner.at as CornerPlace;
  const size = num(corner, 'size');
  const is = (end: 'head' | 'foot'): boolean => at === 'fore' || at === `leaf ${leaf} ${end}`;
  const places: { at: Vec2; inward: Vec2 }[] = [
    ...(is('head') ? [{ at: [half, reach] as Vec2, inward: [-1, -1] as Vec2 }] : []),
    ...(is('foot') ? [{ at: [-half, reach] as Vec2, inward: [1, -1] as Vec2 }] : []),
    ...(at === 'fold'
      ? [
          { at: [half, 0] as Vec2, inward: [-1, 1] as Vec2 },
          { at: [-half, 0] as Vec2, inward: [1, 1] as Vec2 },
        ]
      : []),
  ];
  return places.reduce((left, place) => subtract(left, cornerPiece(place.at, place.inward, size, corner.how)), region);
}

/** What a corner loses. */
function cornerPiece([x, y]: Vec2, [dx, dy]: Vec2, size: number, how: ListItem[string]): Region {
  const [u, v] = [x + dx * size, y + dy * size];
  const ring = (points: Vec2[]): Vec2[] => (dx * dy > 0 ? points : points.reverse());
  if (how === 'cut')
    return [
      {
        outer: ring([
          [x, y],
          [u, y],
          [x, v],
        ]),
        holes: [],
      },
    ];
  const square = rectangle(Math.min(x, u), Math.min(y, v), Math.max(x, u), Math.max(y, v));
  return subtract([{ outer: square, holes: [] }], [{ outer: ellipse(size, size, [u, v]), holes: [] }]);
}
