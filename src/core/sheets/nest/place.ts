/** The best free place for a shape on a sheet, beside what lies there. */
import { dist2, dot2, lerp2, sub2, type Vec2 } from '../../plane/vec2';
import { NEST_TOUCH_MM } from '../../tolerance';
import { crossing, overlapsAt, type NoFit, type NoFits, type Turned } from './no-fit';

/** A shape that lies, the lower left of its box at `at`. */
export interface Lying {
  readonly shape: Turned;
  readonly at: Vec2;
}
export interface Room {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Ways to prefer one place to another: as far left, as low, or in as small a box as can be. */
export const PREFERENCES = ['left', 'low', 'box'] as const;
export type Preference = (typeof PREFERENCES)[number];

export interface Place {
  readonly at: Vec2;
  /** Less is better, first number first. */
  readonly score: readonly [number, number];
}

/** Null where the shape has no place. What it may touch at is a corner of a no-fit polygon or a crossing of two. */
export function bestPlace(
  shape: Turned,
  lying: readonly Lying[],
  room: Room,
  prefer: Preference,
  noFits: NoFits,
): Place | null {
  const used = usedBox(lying);
  return firstFree(
    shape,
    lying,
    room,
    noFits,
    () => [],
    (at) => scoreOf(prefer, at, shape, used),
  );
}

/** The free place nearest to another, within a reach; null where there is none. */
export function bestNear(
  shape: Turned,
  lying: readonly Lying[],
  room: Room,
  from: Vec2,
  reachMm: number,
  noFits: NoFits,
): Vec2 | null {
  const onEdges = (edges: readonly Edge[]): Vec2[] => [from, ...edges.map((e) => nearestOn(e, from))];
  const found = firstFree(shape, lying, room, noFits, onEdges, (at) => [dist2(at, from), 0]);
  return found && found.score[0] <= reachMm ? found.at : null;
}

function nearestOn([a, b]: Edge, p: Vec2): Vec2 {
  const along = sub2(b, a);
  const length2 = dot2(along, along);
  return length2 === 0 ? a : lerp2(a, b, Math.min(1, Math.max(0, dot2(sub2(p, a), along) / length2)));
}

/** Of all places worth a try, those of `more` among them, the one of the least score that is free. */
function firstFree(
  shape: Turned,
  lying: readonly Lying[],
  room: Room,
  noFits: NoFits,
  more: (edges: readonly Edge[]) => readonly Vec2[],
  scored: (at: Vec2) => Place['score'],
): Place | null {
  const [right, top] = [room.widthMm - shape.width, room.heightMm - shape.height];
  if (right < -NEST_TOUCH_MM || top < -NEST_TOUCH_MM) return null;
  const inRoom = ([x, y]: Vec2): boolean =>
    x >= -NEST_TOUCH_MM && y >= -NEST_TOUCH_MM && x <= right + NEST_TOUCH_MM && y <= top + NEST_TOUCH_MM;
  const around = lying.map(({ shape: still, at }) => ({ noFit: noFits.of(still, shape), at }));
  const places = placesToTry(around, Math.max(0, right), Math.max(0, top), more)
    .filter(inRoom)
    .map((at): Place => ({ at, score: scored(at) }))
    .sort((a, b) => compareScores(a.score, b.score));
  const isFree = ([x, y]: Vec2): boolean =>
    !around.some(({ noFit, at }) => overlapsAt(noFit, [x - at[0], y - at[1]], NEST_TOUCH_MM));
  return places.find(({ at }) => isFree(at)) ?? null;
}

export const compareScores = (a: Place['score'], b: Place['score']): number => a[0] - b[0] || a[1] - b[1];

const usedBox = (lying: readonly Lying[]): Vec2 => [
  lying.reduce((m, { at, shape }) => Math.max(m, at[0] + shape.width), 0),
  lying.reduce((m, { at, shape }) => Math.max(m, at[1] + shape.height), 0),
];

function scoreOf(prefer: Preference, [x, y]: Vec2, shape: Turned, [w, h]: Vec2): readonly [number, number] {
  const [right, top] = [x + shape.width, y + shape.height];
  if (prefer === 'left') return [Math.round(right / LEVEL_MM), top + x / 1e3];
  if (prefer === 'low') return [Math.round(top / LEVEL_MM), right + y / 1e3];
  return [Math.max(w, right) * Math.max(h, top), right + top];
}
/** Places that differ by less are equal, and the other way decides, mm. */
const LEVEL_MM = 0.01;

interface Around {
  readonly noFit: NoFit;
  readonly at: Vec2;
}

/** Corners of the room and of what is round, and where their edges cross each other. */
function placesToTry(
  around: readonly Around[],
  right: number,
  top: number,
  more: (edges: readonly Edge[]) => readonly Vec2[],
): Vec2[] {
  const out: Vec2[] = [[0, 0], [right, 0], [0, top], [right, top]]; // prettier-ignore
  const edges = around.map(edgesWithin(right, top));
  const border: Edge[] = [
    [
      [0, 0],
      [right, 0],
    ],
    [
      [right, 0],
      [right, top],
    ],
    [
      [right, top],
      [0, top],
    ],
    [[0, top], [0, 0]], // prettier-ignore
  ];
  out.push(...more([...border, ...edges.flat()]));
  edges.forEach((own, i) => {
    for (const [a] of own) out.push(a);
    for (const other of [border, ...edges.slice(i + 1)]) addCrossings(own, other, out);
  });
  return out;
}

type Edge = readonly [Vec2, Vec2];
/** Edges of a no-fit polygon that come near the room. */
const edgesWithin =
  (right: number, top: number) =>
  ({ noFit, at: [dx, dy] }: Around): Edge[] =>
    noFit.rings.flatMap((ring) => {
      const moved = ring.map(([x, y]): Vec2 => [x + dx, y + dy]);
      return moved
        .map((p, i): Edge => [p, moved[(i + 1) % moved.length]])
        .filter(([[ax, ay], [bx, by]]) => {
          const apartX = Math.max(ax, bx) < 0 || Math.min(ax, bx) > right;
          return !apartX && !(Math.max(ay, by) < 0 || Math.min(ay, by) > top);
        });
    });

function addCrossings(a: readonly Edge[], b: readonly Edge[], out: Vec2[]): void {
  for (const [p, q] of a) {
    const [x0, x1] = p[0] < q[0] ? [p[0], q[0]] : [q[0], p[0]];
    const [y0, y1] = p[1] < q[1] ? [p[1], q[1]] : [q[1], p[1]];
    for (const [r, s] of b) {
      if ((r[0] < x0 && s[0] < x0) || (r[0] > x1 && s[0] > x1)) continue;
      if ((r[1] < y0 && s[1] < y0) || (r[1] > y1 && s[1] > y1)) continue;
      const at = crossing(p, q, r, s);
      if (at) out.push(at);
    }
  }
}
