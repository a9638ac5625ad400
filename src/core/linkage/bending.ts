/** Where loops do not close as rigid facets: the poses of least gap, as a measure of how much the paper must bend. */
import { largestGap, pointPairs, type Gap } from './bodies';
import { jointTransform, type Linkage } from './joint';
import {
  applyRigid,
  compose,
  cross3,
  dot3,
  identity,
  invert,
  norm3,
  rotateOnly,
  sub3,
  turnAbout,
  type Rigid,
  type Vec3,
} from './rigid';
import { DenseNormal } from './dense-normal';
import { SparseSymmetric } from './sparse';
import { BENDING_FLOOR, BENDING_GAINED_MM2, BENDING_GAINED_PART } from '../tolerance';

/** Bodies at a least misfit: the largest gap that is left, and the sum of squares of all, mm². */
export interface Bent {
  readonly bodies: Rigid[];
  readonly gap: Gap;
  readonly cost: number;
}

/**
 * A sheet that is held, as a wall, and a point of a body that stays in front of it: on the side that the wall's own z
 * points to. Planes and points in the frames of their bodies, mm.
 */
export interface Wall {
  readonly wall: { readonly body: number; readonly plane: Rigid };
  readonly point: { readonly body: number; readonly at: Vec3 };
}

const MOST_ITERATIONS = 60;
const FIRST_DAMPING = 1e-3;
/** Damping goes down by this after a step that helped, and up after one that did not. */
const DAMPING_FACTOR = 5;
const MOST_DAMPING = 1e8;
/** A millimetre behind a wall counts as so many of a gap: paper bends long before it goes through paper. */
const WALL_WEIGHT = 10;

/**
 * Least sum of squared gaps over all creases, driven bodies held; Levenberg-Marquardt from the given poses. Rivets and
 * tracks stay as they are: what they tie is as one body. A measure that does not depend on where a loop is cut. Paper
 * follows it only in the mean: it is a measure, not a shape.
 * @param q value of every joint, rad or mm
 * @param walls what it may not be bent through
 * @returns bodies and the gap that is left
 */
export function leastBending(
  linkage: Linkage,
  from: readonly Rigid[],
  q: Float64Array,
  walls: readonly Wall[] = [],
): Bent {
  const { costOf, equations, whole } = bendingOf(linkage, from, q, walls);
  let bodies = [...from];
  let cost = costOf(bodies);
  let damping = FIRST_DAMPING;
  for (let k = 0; k < MOST_ITERATIONS && equations.size > 0 && damping <= MOST_DAMPING; k++) {
    const step = equations.step(bodies, damping);
    // So nearly free that rounding decides: a shorter step is held better. What hangs on nothing at all stays.
    const trial = step && bodies.map((body, b) => nudge(body, step(b)));
    const next = trial ? costOf(trial) : Infinity;
    if (!trial || next >= cost) {
      damping *= DAMPING_FACTOR;
      continue;
    }
    const gained = cost - next;
    [bodies, cost, damping] = [trial, next, damping / DAMPING_FACTOR];
    if (gained < BENDING_GAINED_PART * cost + BENDING_GAINED_MM2) break;
  }
  bodies = whole(bodies);
  return { bodies, gap: largestGap(linkage, bodies), cost };
}

/**
 * How the poses of least gap move, to first order: one step of the same equations, without damping, from poses that
 * almost close. Of a linkage that lies beside a closed one by so little that squares do not count, it is the
 * derivative.
 */
export function bentBy(linkage: Linkage, from: readonly Rigid[], q: Float64Array): readonly Rigid[] {
  const { equations, whole } = bendingOf(linkage, from, q);
  if (equations.size === 0) return from;
  const step = equations.step(from, 0) ?? equations.step(from, FIRST_DAMPING);
  return step ? whole(from.map((body, b) => nudge(body, step(b)))) : from;
}

/** The equations of a linkage at a pose. `whole`: the first body of each group carries the others of it. */
function bendingOf(linkage: Linkage, from: readonly Rigid[], q: Float64Array, walls: readonly Wall[] = []) {
  const tied = rigidGroups(linkage, q);
  const seams = seamsOf(linkage, tied);
  const groups = heldGroups(linkage, tied);
  const keeps = keepsOf(walls, from, tied, groups.held);
  return {
    costOf: (bodies: readonly Rigid[]): number => gapsSquared(seams, bodies) + behindSquared(keeps, bodies),
    equations: isSmall(groups) ? denseEquations(groups, seams, keeps) : normalEquations(groups, seams, keeps),
    whole: (bodies: readonly Rigid[]): Rigid[] =>
      bodies.map((body, b) => (tied[b].to === b ? body : compose(bodies[tied[b].to], tied[b].placed))),
  };
}

/** What is held as it is at `q`, the rest as it was: where bending goes on from. */
export function carriedOn(
  linkage: Linkage,
  q: Float64Array,
  before: readonly Rigid[],
  now: readonly Rigid[],
): readonly Rigid[] {
  const tied = rigidGroups(linkage, q);
  const { held } = heldGroups(linkage, tied);
  return before.map((body, b) => (held.has(tied[b].to) ? now[b] : body));
}

/** The body that carries another by rivets and tracks alone, and where that lies in its frame. */
interface Tied {
  readonly to: number;
  readonly placed: Rigid;
}
function rigidGroups({ bodies, joints }: Linkage, q: Float64Array): Tied[] {
  const tied = Array.from({ length: bodies }, (_, b): Tied => ({ to: b, placed: identity() }));
  joints.forEach((j, k) => {
    const [a, b] = [tied[j.a], tied[j.b]];
    if (j.motion.kind === 'hinge' || a.to === b.to) return;
    // Frame of group b in that of group a, by way of the joint; the lower one carries.
    const between = compose(compose(a.placed, jointTransform(j, q[k])), invert(b.placed));
    const [onto, from, shift] = a.to < b.to ? [a.to, b.to, between] : [b.to, a.to, invert(between)];
    tied.forEach((t, i) => {
      if (t.to === from) tied[i] = { to: onto, placed: compose(shift, t.placed) };
    });
  });
  return tied;
}

/** A point of a crease as its two sides have it, each in the frame of the body that carries that side. */
interface Seam {
  readonly a: number;
  readonly b: number;
  readonly p: Vec3;
  readonly r: Vec3;
}
const seamsOf = ({ joints }: Linkage, tied: readonly Tied[]): Seam[] =>
  joints.flatMap((j) =>
    j.motion.kind === 'hinge' && tied[j.a].to !== tied[j.b].to
      ? pointPairs(j).map(([p, r]) => ({
          a: tied[j.a].to,
          b: tied[j.b].to,
          p: applyRigid(tied[j.a].placed, p),
          r: applyRigid(tied[j.b].placed, r),
        }))
      : [],
  );

/** Body 0 and what hangs on it by driven joints alone; and which bodies carry others. */
function heldGroups({ joints }: Linkage, tied: readonly Tied[]): { held: ReadonlySet<number>; carry: number[] } {
  const held = new Set([tied[0].to]);
  for (let grew = true; grew;) {
    grew = false;
    for (const j of joints) {
      const [a, b] = [tied[j.a].to, tied[j.b].to];
      if (!j.driven || held.has(a) === held.has(b)) continue;
      held.add(a).add(b);
      grew = true;
    }
  }
  return { held, carry: tied.flatMap((t, b) => (t.to === b ? [b] : [])) };
}

const gapsSquared = (seams: readonly Seam[], bodies: readonly Rigid[]): number =>
  seams.reduce((sum, { a, b, p, r }) => sum + norm3(sub3(applyRigid(bodies[a], p), applyRigid(bodies[b], r))) ** 2, 0);

/** A point of a body that stays in front of a plane in the world: on the side of its normal, mm. */
interface Keep {
  readonly body: number;
  readonly at: Vec3;
  readonly normal: Vec3;
  readonly level: number;
}
/** Of walls that are held, where they are, and of points that are not, in the frames of the bodies that carry them. */
const keepsOf = (
  walls: readonly Wall[],
  bodies: readonly Rigid[],
  tied: readonly Tied[],
  held: ReadonlySet<number>,
): Keep[] =>
  walls.flatMap(({ wall, point }): Keep[] => {
    const [on, of] = [tied[wall.body], tied[point.body]];
    if (!held.has(on.to) || held.has(of.to)) return [];
    const plane = compose(compose(bodies[on.to], on.placed), wall.plane);
    const normal: Vec3 = [plane[2], plane[6], plane[10]];
    const level = dot3(normal, [plane[3], plane[7], plane[11]]);
    return [{ body: of.to, at: applyRigid(of.placed, point.at), normal, level }];
  });

/** How far a point is in front of its plane, mm; below 0 behind it. */
const inFrontMm = ({ body, at, normal, level }: Keep, bodies: readonly Rigid[]): number =>
  dot3(normal, applyRigid(bodies[body], at)) - level;

function behindSquared(keeps: readonly Keep[], bodies: readonly Rigid[]): number {
  let sum = 0;
  for (const keep of keeps) sum += (WALL_WEIGHT * Math.min(0, inFrontMm(keep, bodies))) ** 2;
  return sum;
}

/** Rows of the points that are behind their walls: the motion of a body from its first column on, and what is left. */
function* wallRows(
  keeps: readonly Keep[],
  bodies: readonly Rigid[],
  columns: ReadonlyMap<number, number>,
): Generator<{ readonly column: number; readonly values: readonly number[]; readonly rest: number }> {
  for (const keep of keeps) {
    const mm = inFrontMm(keep, bodies);
    const column = columns.get(keep.body);
    if (mm >= 0 || column === undefined) continue;
    const turn = cross3(rotateOnly(bodies[keep.body], keep.at), keep.normal);
    yield { column, values: [...turn, ...keep.normal].map((v) => WALL_WEIGHT * v), rest: WALL_WEIGHT * mm };
  }
}

/** A body turned about its own origin and shifted: small step [turn (rad), shift (mm)]. */
function nudge(body: Rigid, s: ArrayLike<number> | null): Rigid {
  if (!s) return body;
  const angle = Math.hypot(s[0], s[1], s[2]);
  const here: Vec3 = [body[3], body[7], body[11]];
  const turned = angle === 0 ? body : compose(turnAbout(here, [s[0] / angle, s[1] / angle, s[2] / angle], angle), body);
  const out = turned.slice();
  out[3] += s[3];
  out[7] += s[4];
  out[11] += s[5];
  return out;
}

/** Column, lever and sign of one side of a joint's point. */
type Side = readonly [column: number, lever: Vec3, sign: number];
type Step = (body: number) => Float64Array | null;

interface NormalEquations {
  readonly size: number;
  /** Six numbers for each body that may move; null where the matrix is not positive. */
  step(bodies: readonly Rigid[], damping: number): Step | null;
}

type Groups = ReturnType<typeof heldGroups>;
/** Bodies that may move up to this number are solved for as a whole. */
const MOST_DENSE = 40;
const isSmall = ({ held, carry }: Groups): boolean => carry.length - held.size <= MOST_DENSE;

/** The first column of each body that may move. */
function columnsOf({ held, carry }: Groups): Map<number, number> {
  const column = new Map<number, number>();
  for (const b of carry) if (!held.has(b)) column.set(b, 6 * column.size);
  return column;
}

/** The normal equations of few bodies. */
function denseEquations(groups: Groups, seams: readonly Seam[], keeps: readonly Keep[]): NormalEquations {
  const column = columnsOf(groups);
  const normal = new DenseNormal(6 * column.size);
  const [columns, values] = [new Int32Array(8), new Float64Array(8)];
  /** One row of a point's motion: turn × lever + shift. */
  const put = (at: number, c: number, row: number, sign: number, [x, y, z]: Vec3): number => {
    const [i, j, u, v] = row === 0 ? [1, 2, z, -y] : row === 1 ? [0, 2, -z, x] : [0, 1, y, -x];
    columns.set([c + i, c + j, c + 3 + row], at);
    values.set([sign * u, sign * v, sign], at);
    return at + 3;
  };
  return {
    size: normal.size,
    step: (bodies, damping) => {
      normal.clear();
      for (const { a, b, p, r } of seams) {
        const [A, B] = [applyRigid(bodies[a], p), applyRigid(bodies[b], r)];
        const sides = [...sideOf(column, bodies, a, A, 1), ...sideOf(column, bodies, b, B, -1)];
        const gap = sub3(A, B);
        for (let row = 0; row < 3; row++) {
          const count = sides.reduce((at, [c, lever, sign]) => put(at, c, row, sign, lever), 0);
          normal.add(columns, values, count, gap[row]);
        }
      }
      for (const { column: first, values: row, rest } of wallRows(keeps, bodies, column)) {
        columns.set(row.map((_, i) => first + i));
        values.set(row);
        normal.add(columns, values, row.length, rest);
      }
      const x = normal.solve(damping, BENDING_FLOOR);
      return (
        x &&
        ((body) => {
          const c = column.get(body);
          return c === undefined ? null : x.subarray(c, c + 6);
        })
      );
    },
  };
}

/** The normal equations of the gaps, their structure analysed once. */
function normalEquations(groups: Groups, seams: readonly Seam[], keeps: readonly Keep[]): NormalEquations {
  const column = columnsOf(groups);
  const size = 6 * column.size;
  const places: [number, number][] = Array.from({ length: size }, (_, k): [number, number] => [k, k]);
  const at = new Map(places.map(([i], k) => [i * size + i, k]));
  const place = (i: number, j: number): number => {
    const key = Math.min(i, j) * size + Math.max(i, j);
    if (!at.has(key)) at.set(key, places.push([Math.min(i, j), Math.max(i, j)]) - 1);
    return at.get(key)!;
  };
  for (const { a, b } of seams) {
    const columns = [a, b].flatMap((body) => column.get(body) ?? []);
    for (const c of columns)
      for (const d of columns) for (let r = 0; r < 6; r++) for (let s = 0; s < 6; s++) place(c + r, d + s);
  }
  const matrix = new SparseSymmetric(size, places);
  return {
    size,
    step: (bodies, damping) => {
      const H = new Float64Array(places.length);
      const g = new Float64Array(size);
      for (const { a, b, p, r } of seams) {
        const [A, B] = [applyRigid(bodies[a], p), applyRigid(bodies[b], r)];
        const sides = [...sideOf(column, bodies, a, A, 1), ...sideOf(column, bodies, b, B, -1)];
        addGap(sub3(A, B), sides, H, g, place);
      }
      for (const { column: first, values, rest } of wallRows(keeps, bodies, column))
        addRow(
          values.map((v, i) => [first + i, v]),
          rest,
          H,
          g,
          place,
        );
      let greatest = 0;
      for (let k = 0; k < size; k++) greatest = Math.max(greatest, H[k]);
      for (let k = 0; k < size; k++) H[k] = H[k] * (1 + damping) + BENDING_FLOOR * greatest;
      if (!matrix.factor(H) || matrix.pivots.some((p) => p <= 0)) return null;
      const x = matrix.solve(g);
      return (body) => {
        const c = column.get(body);
        return c === undefined ? null : x.subarray(c, c + 6);
      };
    },
  };
}

function sideOf(
  column: ReadonlyMap<number, number>,
  bodies: readonly Rigid[],
  body: number,
  at: Vec3,
  sign: number,
): Side[] {
  const c = column.get(body);
  const m = bodies[body];
  return c === undefined ? [] : [[c, sub3(at, [m[3], m[7], m[11]]), sign]];
}

/** One gap's part of the equations: d(point) = turn × lever + shift, row by row. */
function addGap(
  gap: Vec3,
  sides: readonly Side[],
  H: Float64Array,
  g: Float64Array,
  place: (i: number, j: number) => number,
): void {
  for (let row = 0; row < 3; row++) {
    const entries = sides.flatMap(([c, [x, y, z], sign]): [number, number][] => {
      const cross = row === 0 ? [0, z, -y] : row === 1 ? [-z, 0, x] : [y, -x, 0];
      return [...cross.map((v, i): [number, number] => [c + i, sign * v]), [c + 3 + row, sign]];
    });
    addRow(entries, gap[row], H, g, place);
  }
}

function addRow(
  entries: readonly (readonly [column: number, value: number])[],
  rest: number,
  H: Float64Array,
  g: Float64Array,
  place: (i: number, j: number) => number,
): void {
  entries.forEach(([a, va], i) => {
    g[a] -= va * rest;
    for (const [b, vb] of entries.slice(i)) H[place(a, b)] += va * vb;
  });
}
