/**
 * Areas of many or long rings. The clipping library goes through all from top to bottom and searches what it meets at
 * one height one by one, which takes n² where much lies there. So rings are parted first into groups whose boxes do
 * not meet; and a long ring that lies alone and never meets itself is an area as it is.
 *
 *     ┌──┐  ┌──┐  ┌─────┐
 *     └──┘  └──┘  │ ┌───┼─┐     three groups: two that are done, and one that is united in halves
 *                 └─┼───┘ │
 *                   └─────┘
 *
 * Invariant: where no box of one group meets one of another, no point lies in rings of both; so the area of all is
 * those of the groups side by side, whatever the rule that fills them.
 */
import Flatbush from 'flatbush';
import { boxOf, ringArea, type Box2, type Region, type Ring } from './ring';
import { sideOf, type Vec2 } from './vec2';

export type Filling = 'evenodd' | 'nonzero';

/** So few corners the library does in no time, and in its own order. */
const FEW_CORNERS = 1500;
/** So many rings of a group are united at once; more in halves. */
const FEW_RINGS = 64;

/**
 * The area of rings as they come.
 * @param grid steps of the library's whole numbers in a mm, to which corners are rounded
 * @param united the library's own union
 */
export function uniteRings(
  rings: readonly Ring[],
  rule: Filling,
  grid: number,
  united: (rings: readonly Ring[]) => Region,
): Region {
  if (rings.reduce((n, r) => n + r.length, 0) <= FEW_CORNERS) return united(rings);
  return groupsApart(rings.filter((r) => r.length > 2)).flatMap((group): Region => {
    const alone = group.length === 1 ? asItIs(group[0], grid) : null;
    if (alone) return alone;
    // A ring that others lie in may be their hole: only what each is an area of its own is united in parts.
    return rule === 'nonzero' && group.every(isOutline) ? inHalves(group, united) : united(group);
  });
}
const isOutline = (ring: Ring): boolean => ringArea(ring) > 0;

/** What lies near together first: so much of it is gone before the halves meet. */
function inHalves(rings: readonly Ring[], united: (rings: readonly Ring[]) => Region): Region {
  if (rings.length <= FEW_RINGS) return united(rings);
  const middle = rings.length >> 1;
  const halves = [rings.slice(0, middle), rings.slice(middle)].map((half) => inHalves(half, united));
  return united(halves.flat().flatMap((p) => [p.outer, ...p.holes]));
}

/** Lines, or rings, of which few are done in one go, however near they lie; more in groups that lie apart. */
export const fewOrApart = (lines: readonly Ring[], by: number): Ring[][] =>
  lines.reduce((n, r) => n + r.length, 0) <= FEW_CORNERS ? [[...lines]] : groupsApart(lines, by);

/**
 * Rings parted so that boxes of different parts never meet; each part in the order of its places.
 * @param by how much they are to grow, mm
 */
function groupsApart(rings: readonly Ring[], by = 0): Ring[][] {
  if (rings.length < 2) return rings.map((r) => [r]);
  const boxes = rings.map((r) => grown(boxOf(r), by));
  const index = new Flatbush(rings.length);
  for (const { min, max } of boxes) index.add(min[0], min[1], max[0], max[1]);
  index.finish();
  const group = new Int32Array(rings.length).fill(-1);
  const groups: number[][] = [];
  boxes.forEach((_, first) => {
    if (group[first] >= 0) return;
    const members = [first];
    group[first] = groups.length;
    for (let k = 0; k < members.length; k++)
      for (const other of index.search(...cornersOf(boxes[members[k]]), (i) => group[i] < 0)) {
        group[other] = groups.length;
        members.push(other);
      }
    groups.push(members);
  });
  return groups.map((members) => members.map((k) => rings[k]));
}
const grown = ({ min, max }: Box2, by: number): Box2 => ({
  min: [min[0] - by, min[1] - by],
  max: [max[0] + by, max[1] + by],
});
const cornersOf = ({ min, max }: Box2): [number, number, number, number] => [min[0], min[1], max[0], max[1]];

/** A ring that never meets itself, as an area; null where it does, or where it has none. */
function asItIs(ring: Ring, grid: number): Region | null {
  const rounded: Vec2[] = [];
  for (const [x, y] of ring) {
    const p: Vec2 = [Math.round(x * grid) / grid, Math.round(y * grid) / grid];
    const last = rounded.at(-1);
    if (!last || last[0] !== p[0] || last[1] !== p[1]) rounded.push(p);
  }
  const [first, last] = [rounded[0], rounded[rounded.length - 1]];
  if (first[0] === last[0] && first[1] === last[1]) rounded.pop();
  if (rounded.length < 3 || meetsItself(rounded)) return null;
  const area = ringArea(rounded);
  return area === 0 ? null : [{ outer: area > 0 ? rounded : rounded.reverse(), holes: [] }];
}

/** Whether two sides of a ring share a point that is not the corner between them. */
function meetsItself(ring: Ring): boolean {
  const n = ring.length;
  const index = new Flatbush(n);
  const boxes = ring.map((a, i) => boxOf([a, ring[(i + 1) % n]]));
  for (const { min, max } of boxes) index.add(min[0], min[1], max[0], max[1]);
  index.finish();
  return ring.some((a, i) => {
    const b = ring[(i + 1) % n];
    return index
      .search(...cornersOf(boxes[i]), (j) => j > i)
      .some((j) => {
        const [c, d] = [ring[j], ring[(j + 1) % n]];
        if (j === i + 1) return foldsBack(a, b, d);
        if (i === 0 && j === n - 1) return foldsBack(c, a, b);
        return share(a, b, c, d);
      });
  });
}

/** Whether a way turns on its heel at its middle point. */
const foldsBack = (a: Vec2, b: Vec2, c: Vec2): boolean =>
  sideOf(a, b, c) === 0 && (b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1]) < 0;

/** Whether two stretches whose boxes meet share a point; decided exactly. */
function share(a: Vec2, b: Vec2, c: Vec2, d: Vec2): boolean {
  const [atC, atD] = [Math.sign(sideOf(a, b, c)), Math.sign(sideOf(a, b, d))];
  if (atC === atD && atC !== 0) return false;
  const [atA, atB] = [Math.sign(sideOf(c, d, a)), Math.sign(sideOf(c, d, b))];
  // On one line they share what their boxes do.
  return atA !== atB || atA === 0;
}
