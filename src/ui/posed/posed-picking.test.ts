/** Picking in the posed view, against plane trigonometry of a folded card. */
import fc from 'fast-check';
import { poseOpen } from '@/core/assembly/pose';
import { buildAssembly } from '@/core/build/build';
import { card } from '@/core/tests/cards';
import { sceneOf } from '@/workers/scene';
import type { ScenePose } from '@/workers/protocol';
import { measureBetween } from '../build/measuring';
import { fittingDistance, pxPerMmAt } from './looking';
import { inWorld, onPiece } from './placing';
import { creaseAt, measuredAt } from './posed-picking';

const [GUTTER_MM, REACH_MM] = [180, 120];
function folded(openDeg: number) {
  const design = card(GUTTER_MM, REACH_MM);
  const assembly = buildAssembly(design);
  const pose = poseOpen(assembly, openDeg);
  const placed = new Float64Array(12 * pose.placed.length);
  pose.placed.forEach((m, i) => placed.set(m, 12 * i));
  return { scene: { ...sceneOf(design, assembly), design }, pose: { placed } as unknown as ScenePose };
}
const leaves = ({ scene }: ReturnType<typeof folded>): [number, number] => [
  scene.facets.findIndex((f) => f.id === 'leafA'),
  scene.facets.findIndex((f) => f.id === 'leafB'),
];
const opening = fc.integer({ min: 2, max: 180 });
const within = (most: number) => fc.double({ min: -most, max: most, noNaN: true });

test('from a piece into the world and back is the same point, whatever it is over', () => {
  fc.assert(
    fc.property(opening, within(90), within(120), within(3), (deg, x, y, z) => {
      const { pose } = folded(deg);
      const back = onPiece(pose, 1, inWorld(pose, 1, [x, y], z));
      expect(back[0]).toBeCloseTo(x, 6);
      expect(back[1]).toBeCloseTo(y, 6);
    }),
    { numRuns: 30 },
  );
});

test('fore corners of the two leaves are as far apart as two sides of an isosceles triangle say', () => {
  fc.assert(
    fc.property(opening, (deg) => {
      const all = folded(deg);
      const { scene, pose } = all;
      const ends = leaves(all).map((facet) => {
        const ring = scene.facets[facet].rings[0];
        const corner = ring.find((p) => p[0] === Math.max(...ring.map((q) => q[0])) && isFore(ring, p))!;
        return measuredAt(scene, pose, facet, inWorld(pose, facet, corner), 2);
      });
      const { trueMm, flatMm } = measureBetween(scene, pose, ends[0], ends[1]);
      expect(trueMm).toBeCloseTo(2 * REACH_MM * Math.sin((deg * Math.PI) / 360), 6);
      expect(flatMm).toBeCloseTo(2 * REACH_MM, 6);
    }),
    { numRuns: 20 },
  );
});
/** Off the gutter, which both leaves have an edge on. */
const isFore = (ring: readonly (readonly [number, number])[], p: readonly [number, number]): boolean => {
  const middle = (Math.min(...ring.map((q) => q[1])) + Math.max(...ring.map((q) => q[1]))) / 2;
  return Math.abs(middle) > 1 && Math.abs(p[1]) > Math.abs(middle);
};

test.each([
  ['just within reach', 1.99, 'card.gutter'],
  ['just out of reach', 2.01, null],
])('a crease is pointed at from %s', (_, off, wanted) => {
  const all = folded(100);
  const [a] = leaves(all);
  const { scene, pose } = all;
  const gutter = scene.creases.find((c) => c.id === 'card.gutter')!.segments[0];
  const ring = scene.facets[a].rings[0];
  const inward = Math.sign(ring.reduce((sum, p) => sum + p[1], 0) / ring.length - gutter.a[1]);
  const at = inWorld(pose, a, [(gutter.a[0] + gutter.b[0]) / 2, gutter.a[1] + inward * off]);
  expect(creaseAt(scene, pose, a, at, 2)).toBe(wanted);
});

test('a ball fitted into the view is seen within it, with the ease that is meant', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 300, noNaN: true }),
      fc.double({ min: 10, max: 90, noNaN: true }),
      fc.double({ min: 0.3, max: 1, noNaN: true }),
      (radius, fov, room) => {
        const far = fittingDistance(radius, fov, room);
        // Half angle that the ball takes up, and that of the narrower way of the view.
        const ball = Math.asin(radius / far);
        const half = Math.atan(Math.tan((fov * Math.PI) / 360) * room);
        expect(Math.sin(half) / Math.sin(ball)).toBeCloseTo(1.15, 9);
      },
    ),
  );
});

test('a millimetre has as many pixels as similar triangles say', () => {
  // A view 800 px high that takes in 90 degrees sees 2 x 500 mm from 500 mm off.
  expect(pxPerMmAt(500, 90, 800)).toBeCloseTo(0.8, 9);
});
