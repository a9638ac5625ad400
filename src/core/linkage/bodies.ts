/** From joint values to where each body lies: over a spanning tree, and where loops do not close, by least bending. */
import { Matrix, CholeskyDecomposition } from 'ml-matrix';
import { jointTransform, type Joint, type Linkage } from './joint';
import { jointsAt } from './loops';
import { applyRigid, compose, identity, invert, sub3, turnAbout, norm3, type Rigid, type Vec3 } from './rigid';

/** Placement of every body in the frame of body 0, over the tree of shortest paths. Bodies out of reach stay at rest. */
export function placeBodies(linkage: Linkage, q: Float64Array): Rigid[] {
  const at = jointsAt(linkage);
  const placed = Array.from({ length: linkage.bodies }, (): Rigid | undefined => undefined);
  placed[0] = identity();
  const queue = [0];
  for (let h = 0; h < queue.length; h++) {
    for (const k of at[queue[h]]) {
      const j = linkage.joints[k];
      const next = j.a === queue[h] ? j.b : j.a;
      if (placed[next]) continue;
      const step = jointTransform(j, q[k]);
      placed[next] = compose(placed[queue[h]]!, j.a === queue[h] ? step : invert(step));
      queue.push(next);
    }
  }
  return placed.map((p) => p ?? identity());
}

/** Points of a joint in the frames of its two bodies; they coincide when the joint holds. */
function pointPairs(j: Joint): readonly [Vec3, Vec3][] {
  const back = j.placement && invert(j.placement);
  return j.span.map((p): [Vec3, Vec3] => [p, back ? applyRigid(back, p) : p]);
}

export interface Gap {
  readonly mm: number;
  readonly joint: number;
}
/** Largest distance between the two sides of a turning joint's ends. */
export function largestGap(linkage: Linkage, bodies: readonly Rigid[]): Gap {
  let worst: Gap = { mm: 0, joint: -1 };
  linkage.joints.forEach((j, k) => {
    if (j.motion.kind !== 'turn') return;
    for (const [p, r] of pointPairs(j)) {
      const mm = norm3(sub3(applyRigid(bodies[j.a], p), applyRigid(bodies[j.b], r)));
      if (mm > worst.mm) worst = { mm, joint: k };
    }
  });
  return worst;
}

const MOST_ITERATIONS = 60;

/**
 * Least sum of squared gaps over all turning joints, driven bodies held; Levenberg-Marquardt from the given poses.
 * A measure that does not depend on where a loop is cut. Paper follows it only in the mean: it is a measure, not a shape.
 * @returns bodies and the gap that is left
 */
export function leastBending(linkage: Linkage, from: readonly Rigid[]): { bodies: Rigid[]; gap: Gap } {
  const held = heldBodies(linkage);
  const column = new Map<number, number>();
  for (let b = 0; b < linkage.bodies; b++) if (!held.has(b)) column.set(b, 6 * column.size);
  let bodies = [...from];
  let cost = costOf(linkage, bodies);
  let damping = 1e-3;
  for (let k = 0; k < MOST_ITERATIONS && column.size > 0; k++) {
    const { H, g } = normalEquations(linkage, bodies, column);
    // A body held along one line only may turn about it: the floor keeps the matrix positive.
    const floor = 1e-9 * Math.max(...H.diagonal());
    for (let i = 0; i < H.rows; i++) H.set(i, i, H.get(i, i) * (1 + damping) + floor);
    const factors = new CholeskyDecomposition(H);
    if (!factors.isPositiveDefinite()) {
      // So nearly free that rounding decides: a shorter step is held better. What hangs on nothing at all stays where it is.
      damping *= 5;
      if (damping > 1e8) break;
      continue;
    }
    const step = factors.solve(Matrix.columnVector(g)).to1DArray();
    const trial = bodies.map((body, b) => {
      const c = column.get(b);
      return c === undefined ? body : nudge(body, step.slice(c, c + 6));
    });
    const next = costOf(linkage, trial);
    if (next < cost) {
      const gained = cost - next;
      [bodies, cost, damping] = [trial, next, damping / 5];
      if (gained < 1e-10 * cost + 1e-20) break;
    } else {
      damping *= 5;
      if (damping > 1e8) break;
    }
  }
  return { bodies, gap: largestGap(linkage, bodies) };
}

/** Body 0 and what hangs on it by driven joints alone. */
function heldBodies({ joints }: Linkage): Set<number> {
  const held = new Set([0]);
  for (let grew = true; grew; ) {
    grew = false;
    for (const j of joints) {
      if (!j.driven || held.has(j.a) === held.has(j.b)) continue;
      held.add(j.a).add(j.b);
      grew = true;
    }
  }
  return held;
}

function costOf(linkage: Linkage, bodies: readonly Rigid[]): number {
  let sum = 0;
  for (const j of linkage.joints) {
    for (const [p, r] of pointPairs(j)) sum += norm3(sub3(applyRigid(bodies[j.a], p), applyRigid(bodies[j.b], r))) ** 2;
  }
  return sum;
}

/** A body turned about its own origin and shifted: small step [turn (rad), shift (mm)]. */
function nudge(body: Rigid, s: readonly number[]): Rigid {
  const angle = Math.hypot(s[0], s[1], s[2]);
  const here: Vec3 = [body[3], body[7], body[11]];
  const turned = angle === 0 ? body : compose(turnAbout(here, [s[0] / angle, s[1] / angle, s[2] / angle], angle), body);
  const out = turned.slice();
  out[3] += s[3];
  out[7] += s[4];
  out[11] += s[5];
  return out;
}

function normalEquations(linkage: Linkage, bodies: readonly Rigid[], column: ReadonlyMap<number, number>): { H: Matrix; g: number[] } {
  const n = 6 * column.size;
  const H = Matrix.zeros(n, n);
  const g = new Array<number>(n).fill(0);
  for (const j of linkage.joints) {
    for (const [p, r] of pointPairs(j)) {
      const A = applyRigid(bodies[j.a], p);
      const B = applyRigid(bodies[j.b], r);
      const sides: [number, Vec3, number][] = [];
      for (const [body, at, sign] of [[j.a, A, 1], [j.b, B, -1]] as const) {
        const c = column.get(body);
        if (c !== undefined) sides.push([c, sub3(at, [bodies[body][3], bodies[body][7], bodies[body][11]]), sign]);
      }
      const gap = sub3(A, B);
      // d(point) = turn × lever + shift, row by row.
      for (let row = 0; row < 3; row++) {
        const entries: [number, number][] = sides.flatMap(([c, [x, y, z], sign]) => {
          const cross = row === 0 ? [0, z, -y] : row === 1 ? [-z, 0, x] : [y, -x, 0];
          return [...cross.map((v, i): [number, number] => [c + i, sign * v]), [c + 3 + row, sign] as [number, number]];
        });
        for (const [a, va] of entries) {
          g[a] -= va * gap[row];
          for (const [b, vb] of entries) H.set(a, b, H.get(a, b) + va * vb);
        }
      }
    }
  }
  return { H, g };
}
