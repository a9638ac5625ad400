/** The paper as it is drawn, against the slabs of the core's own posed facets. */
import fc from 'fast-check';
import { poseOpen } from '@/core/assembly/pose';
import { buildAssembly } from '@/core/build/build';
import { stockOf, type Design } from '@/core/document/design';
import { posedSlab } from '@/core/formats/solid';
import { card, stand } from '@/core/tests/cards';
import { sceneOf } from '@/workers/scene';
import { DEALT, runOf, paperOf, place, tint, type Light } from './paper';

const lightOf = (colour: string): Light => [colour.length, 1, 2];
const drawn = (design: Design, openDeg: number) => {
  const assembly = buildAssembly(design);
  const scene = { ...sceneOf(design, assembly), design };
  const pose = poseOpen(assembly, openDeg);
  const placed = new Float64Array(12 * pose.placed.length);
  pose.placed.forEach((m, i) => placed.set(m, 12 * i));
  return { assembly, scene, pose, placed, paper: paperOf(scene, lightOf) };
};
const two = (depth: number): Design =>
  stand(stand(card(200, 130), 'step-fold', { depth, height: 30, width: 40 }), 'v-fold', { size: 30, offset: -60 });

test('every facet is drawn where the pose has it, its faces a caliper apart and turned outwards', () => {
  fc.assert(
    fc.property(fc.integer({ min: 12, max: 60 }), fc.integer({ min: 5, max: 175 }), (depth, openDeg) => {
      const { assembly, scene, pose, placed, paper } = drawn(two(depth), openDeg);
      const seen = new Set<number>();
      for (const mesh of paper.sheets.slice(0, DEALT)) {
        place(mesh, placed);
        for (const { facet, from, to } of mesh.runs) {
          seen.add(facet);
          // What is glued on something lies that much higher.
          if (scene.facets[facet].liftMm !== 0) continue;
          const stock = stockOf(scene.design, assembly.pieces.find((p) => p.id === scene.facets[facet].piece)!.stock);
          const { inside, outside, edge } = posedSlab(assembly.facets, pose, facet, stock.caliperMm);
          const expected = [...inside, ...outside, ...edge];
          expect(3 * (to - from)).toBe(expected.length);
          expected.forEach((x, k) => expect(mesh.points[3 * from + k]).toBeCloseTo(x, 3));
          const m = pose.placed[facet];
          [m[2], m[6], m[10]].forEach((x, k) => expect(mesh.normals[3 * from + k]).toBeCloseTo(x, 5));
        }
      }
      expect(seen.size).toBe(assembly.facets.length);
    }),
    { numRuns: 15 },
  );
});

test('a card of many facets is drawn in as few lists as a small one', () => {
  const many = Array.from({ length: 40 }, (_, i) => i).reduce(
    (d, i) => stand(d, 'step-fold', { depth: 10, height: 10, width: 3, offset: (i - 20) * 6 }),
    card(300, 100),
  );
  expect(drawn(many, 90).paper.sheets).toHaveLength(drawn(card(), 90).paper.sheets.length);
});

test('what the pointer meets is the facet that was drawn there', () => {
  const { paper } = drawn(two(40), 90);
  for (const mesh of [...paper.sheets, paper.outlines])
    for (const { facet, from, to } of mesh.runs)
      for (const vertex of [from, to - 1]) expect(runOf(mesh, vertex).facet).toBe(facet);
});

test('a tint lies over its facets only, and comes off again', () => {
  const { paper } = drawn(two(40), 90);
  const [mesh] = paper.sheets;
  const plain = mesh.colours.slice();
  const { facet, from, to } = mesh.runs[0];
  tint(mesh, (f) => (f === facet ? { light: [0, 0, 10], part: 0.5 } : null));
  mesh.colours.forEach((c, k) => {
    const inside = k >= 3 * from && k < 3 * to;
    expect(c).toBeCloseTo(inside ? plain[k] / 2 + (k % 3 === 2 ? 5 : 0) : plain[k], 5);
  });
  tint(mesh, () => null);
  expect(mesh.colours).toEqual(plain);
});
