/** How corners go in space with the numbers, against closed forms of the step (docs/mechanisms.md) and second poses. */
import fc from 'fast-check';
import { poseAt } from '../assembly/pose';
import { openTo } from '../drives';
import { setParameter } from '../document/fields';
import { applyRigid, dist3, type Vec3 } from '../linkage';
import { card, stand } from '../tests/cards';
import { buildAssembly } from './build';
import { posedGripsOf } from './posed-grips';

const rad = (deg: number): number => (deg * Math.PI) / 180;

test('the top edge of a step goes with its height along leaf B, and with its depth along leaf A', () =>
  fc.assert(
    fc.property(
      fc.double({ min: 10, max: 40, noNaN: true }),
      fc.double({ min: 10, max: 40, noNaN: true }),
      fc.double({ min: 40, max: 150, noNaN: true }),
      (depth, height, open) => {
        fc.pre(Math.abs(depth - height) > 1);
        const d = stand(card(), 'step-fold', { depth, height, width: 40 });
        const assembly = buildAssembly(d);
        const facet = assembly.facets.findIndex((f) => f.id === 'step-fold-1.riser');
        // The ridge of a parallelogram over leaves at `open` (world axes: leaf A lies along +y, still).
        const b: Vec3 = [0, Math.cos(rad(open)), Math.sin(rad(open))];
        const ridge: Vec3 = [20, depth + height * b[1], height * b[2]];
        const found = posedGripsOf(d, assembly, openTo(open), facet, ridge)!;
        expect(dist3(found.corner, ridge)).toBeLessThan(1e-6);
        const way = (key: string) => found.grips.find((g) => g.parameter === key)!.way;
        expect(dist3(way('height'), b)).toBeLessThan(1e-4);
        expect(dist3(way('depth'), [0, 1, 0])).toBeLessThan(1e-4);
      },
    ),
    { numRuns: 20 },
  ));

test('a step of its own number brings the corner there, for what is not straight either', () => {
  const d = stand(card(), 'v-fold', { lean: 50, size: 40 });
  const assembly = buildAssembly(d);
  const state = openTo(90);
  const facet = assembly.facets.findIndex((f) => f.mechanism === 'v-fold-1');
  const { placed } = poseAt(assembly, state);
  const corners = assembly.facets[facet].polygon.outer.map((p) => applyRigid(placed[facet], [...p, 0] as Vec3));
  // The tip: that which stands furthest off.
  const at = corners.reduce((far, p) => (dist3(p, [0, 0, 0]) > dist3(far, [0, 0, 0]) ? p : far));
  const found = posedGripsOf(d, assembly, state, facet, at)!;
  expect(found.grips.map((g) => g.parameter)).toContain('lean');
  for (const { parameter, way } of found.grips) {
    const by = 0.02;
    const value = Number(d.mechanisms[0].parameters[parameter] ?? NaN);
    if (!Number.isFinite(value)) continue;
    const moved = buildAssembly(setParameter(d, 'v-fold-1', parameter, value + by));
    const pose = poseAt(moved, state);
    const k = assembly.facets[facet].polygon.outer.findIndex(
      (p) => dist3(applyRigid(placed[facet], [...p, 0] as Vec3), found.corner) < 1e-9,
    );
    const corner = applyRigid(pose.placed[facet], [...moved.facets[facet].polygon.outer[k], 0] as Vec3);
    const wanted = found.corner.map((v, i) => v + way[i] * by) as unknown as Vec3;
    expect(dist3(corner, wanted)).toBeLessThan(0.002);
  }
});

test('a facet of the base itself has corners, and numbers of the base', () => {
  const d = card(200, 100);
  const assembly = buildAssembly(d);
  const facet = assembly.facets.findIndex((f) => f.id === 'leafA');
  const found = posedGripsOf(d, assembly, openTo(120), facet, [100, 100, 0])!;
  expect(found.grips.map((g) => g.parameter).sort()).toEqual(['gutter', 'reachA']);
});
