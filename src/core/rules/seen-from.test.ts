/**
 * How one solid sees another, against points strewn over both and placed by the definition of a rigid motion (matrix
 * times point): a pair that is said to stay beside each other shares no point in any place that was looked at.
 */
import fc from 'fast-check';
import type { Pose } from '../assembly/pose';
import { compose, shiftBy, turnAbout, unit3, type Rigid, type Vec3 } from '../linkage';
import { rectangle } from '../plane/polygon';
import { looksFor, sightOf, staysBeside, turnBetween, wayOf, LOOK_DEG, LOOK_MM } from './seen-from';
import type { Solid } from './solids';

const solid = (facet: number, width: number, height: number, fromMm: number, toMm: number): Solid => ({
  ...{ facet, polygon: { outer: rectangle(0, 0, width, height), holes: [] }, fromMm, toMm },
  ...{ stuff: 'sheet', knownHigh: true, levelMm: 0 },
});
const posed = (...placed: Rigid[]): Pose => ({ placed }) as unknown as Pose;
const motion = (axis: Vec3, angle: number, by: Vec3): Rigid => compose(shiftBy(by), turnAbout([0, 0, 0], axis, angle));

const length = (most: number) => fc.double({ min: -most, max: most, noNaN: true });
const anyMotion = fc
  .tuple(fc.tuple(length(1), length(1), length(1)), length(3), fc.tuple(length(40), length(40), length(40)))
  .filter(([axis]) => Math.hypot(...axis) > 0.1)
  .map(([axis, angle, by]) => motion(unit3(axis), angle, by));

/** Corners and the points between them, over a solid. */
const strewn = ({ polygon, fromMm, toMm }: Solid): Vec3[] => {
  const [, , [width, height]] = polygon.outer;
  const parts = [0, 0.25, 0.5, 0.75, 1];
  return parts.flatMap((u) => parts.flatMap((v) => [fromMm, toMm].map((z): Vec3 => [u * width, v * height, z])));
};
const placedAt = (m: Rigid, [x, y, z]: Vec3): Vec3 =>
  [0, 4, 8].map((r) => m[r] * x + m[r + 1] * y + m[r + 2] * z + m[r + 3]) as unknown as Vec3;

/** Whether a point of the world lies inside a solid: its axes asked one by one. */
function holds({ polygon, fromMm, toMm }: Solid, m: Rigid, at: Vec3): boolean {
  const [, , [width, height]] = polygon.outer;
  const [x, y, z] = [0, 1, 2].map((c) => [0, 4, 8].reduce((sum, r, k) => sum + m[r + c] * (at[k] - m[r + 3]), 0));
  const [low, high] = [fromMm + NEAR, toMm - NEAR];
  return x > NEAR && x < width - NEAR && y > NEAR && y < height - NEAR && z > low && z < high;
}
const NEAR = 1e-9;

test('what is carried along by the other needs no look, however far both go', () => {
  const [p, q] = [solid(0, 60, 40, -0.2, 0.2), solid(1, 20, 10, 0.3, 0.7)];
  fc.assert(
    fc.property(anyMotion, anyMotion, anyMotion, (from, to, on) => {
      const sight = sightOf(p, q);
      const [a, b] = [from, to].map((m) => sight.at(posed(m, compose(m, on))));
      expect(wayOf(a, b)).toBeLessThan(1e-9);
      expect(looksFor(a, b)).toBeLessThan(1e-6);
    }),
  );
});

test('what goes or turns alone takes a look for every 2 mm or 5 degrees, whichever are more', () => {
  const [p, q] = [solid(0, 60, 40, -0.2, 0.2), solid(1, 20, 10, 0.3, 0.7)];
  const still = motion([0, 0, 1], 0, [0, 0, 0]);
  const looks = (m: Rigid): number => {
    const sight = sightOf(p, q);
    return looksFor(sight.at(posed(still, still)), sight.at(posed(still, m)));
  };
  expect([1.99, 2, 2.01].map((mm) => looks(motion([0, 0, 1], 0, [mm, 0, 0])) * LOOK_MM)).toEqual([1.99, 2, 2.01]);
  const degrees = (deg: number): number => turnBetween(still, motion([1, 0, 0], (deg * Math.PI) / 180, [0, 0, 0]));
  for (const deg of [0.5, 4.99, 5, 5.01, 179]) expect(degrees(deg)).toBeCloseTo(deg, 6);
  // A corner 22 mm from the axis goes 1.9 mm in five degrees: the turn decides.
  expect(looks(motion([0, 0, 1], (5 * Math.PI) / 180, [0, 0, 0]))).toBeCloseTo(degrees(5) / LOOK_DEG, 6);
});

test('a pair that stays beside each other shares no point, in places or on straight ways between them', () => {
  const sizes = fc.tuple(fc.double({ min: 2, max: 60, noNaN: true }), fc.double({ min: 2, max: 60, noNaN: true }));
  let beside = 0;
  fc.assert(
    fc.property(sizes, sizes, anyMotion, anyMotion, anyMotion, ([w, h], [v, g], on, from, to) => {
      const [p, q] = [solid(0, w, h, -0.2, 0.2), solid(1, v, g, -0.2, 1.4)];
      const sight = sightOf(p, q);
      const poses = [from, to].map((m) => posed(on, m));
      const seen = poses.map(sight.at);
      if (!staysBeside(sight, seen, wayOf(seen[0], seen[1]) / 2)) return;
      beside++;
      for (const c of strewn(q)) {
        const [a, b] = [from, to].map((m) => placedAt(m, c));
        const middle = a.map((x, k) => (x + b[k]) / 2) as unknown as Vec3;
        for (const at of [a, b, middle]) expect(holds(p, on, at)).toBe(false);
      }
    }),
    { numRuns: 400 },
  );
  expect(beside).toBeGreaterThan(40);
});

test('a sheet over another stays beside it just until it lies in its heights', () => {
  const [p, q] = [solid(0, 60, 40, -0.25, 0.25), solid(1, 20, 10, 0, 0.5)];
  const at = (z: number): boolean => {
    const sight = sightOf(p, q);
    return staysBeside(sight, [sight.at(posed(shiftBy([0, 0, 0]), shiftBy([5, 5, z])))], 0);
  };
  expect([0.26, 0.25, 0.24, 0].map(at)).toEqual([true, true, false, false]);
  expect([-0.74, -0.75, -0.76].map(at)).toEqual([false, true, true]);
});
