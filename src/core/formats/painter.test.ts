/** What is painted over what, against the distances along rays through the page (brute force of the test's own). */
import fc from 'fast-check';
import { poseAt, facetOutline, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from '../build/build';
import { blankDesign, type Design } from '../document/design';
import { cross3, dot3, sub3, unit3, type Vec3 } from '../linkage';
import { contains } from '../plane/polygon';
import { card, stand } from '../tests/cards';
import { drawPicture, READER } from './picture';

/** Distance toward the eye at which a ray through a place of the page meets a facet; null where it misses. */
function meets(assembly: Assembly, pose: Pose, facet: number, right: Vec3, up: Vec3, [x, y]: [number, number]) {
  const m = pose.placed[facet];
  const normal: Vec3 = [m[2], m[6], m[10]];
  const facing = dot3(normal, READER);
  if (Math.abs(facing) < 0.02) return null;
  const on: Vec3 = [0, 1, 2].map((k) => right[k] * x - up[k] * y) as unknown as Vec3;
  const t = dot3(normal, sub3([m[3], m[7], m[11]], on)) / facing;
  const at = [0, 1, 2].map((k) => on[k] + READER[k] * t - [m[3], m[7], m[11]][k]);
  const [u, v] = [m[0] * at[0] + m[4] * at[1] + m[8] * at[2], m[1] * at[0] + m[5] * at[1] + m[9] * at[2]];
  return contains(assembly.facets[facet].polygon, [u, v]) ? t : null;
}

/** Share of places of the page where what is painted last is more than a sheet behind something else. */
function wrong(design: Design, open: number): number {
  const assembly = buildAssembly(design);
  const pose = poseAt(assembly, { open });
  const { parts, box } = drawPicture(design, assembly, pose);
  const right = unit3(cross3([0, 0, 1], READER));
  const up = cross3(READER, right);
  const order = parts.map((p) => assembly.facets.findIndex((f) => f.id === p.id));
  let [seen, bad] = [0, 0];
  for (let i = 0; i < 40; i++)
    for (let j = 0; j < 40; j++) {
      const at: [number, number] = [box.x + ((i + 0.37) * box.width) / 40, box.y + ((j + 0.61) * box.height) / 40];
      const hits = order.flatMap((facet) => {
        const t = meets(assembly, pose, facet, right, up, at);
        return t === null ? [] : [t];
      });
      if (hits.length < 2) continue;
      seen++;
      if (Math.max(...hits) > hits[hits.length - 1] + 0.5) bad++;
    }
  return seen === 0 ? 0 : bad / seen;
}

const easel = (): Design => {
  const plain = blankDesign('easel');
  const parameters = { width: 108, height: 108, stop: 70 };
  return { ...plain, card: { ...plain.card, construction: 'easel', parameters } };
};

test.each([0, 10, 30, 180])('a plate before its strut, opened to %d°', (open) => {
  expect(wrong(easel(), open)).toBe(0);
});

test('steps, planes and the card they stand on, at any opening', () => {
  const steps = stand(
    stand(card(180, 110), 'step-fold', { depth: 40, height: 30, width: 60, offset: -40 }),
    'step-fold',
    { depth: 25, height: 40, width: 50, offset: 40 },
  );
  const planes = stand(card(180, 110), 'plane-stack', {});
  fc.assert(
    fc.property(fc.constantFrom(steps, planes), fc.double({ min: 5, max: 175, noNaN: true }), (design, open) => {
      expect(wrong(design, open)).toBeLessThan(0.01);
    }),
    { numRuns: 20 },
  );
});

test('every corner of a facet is on the page where it is seen', () => {
  const design = card(100, 60);
  const assembly = buildAssembly(design);
  const pose = poseAt(assembly, { open: 90 });
  const { parts } = drawPicture(design, assembly, pose);
  const right = unit3(cross3([0, 0, 1], READER));
  parts.forEach(({ id, points }) => {
    const corners = facetOutline(
      pose,
      assembly.facets,
      assembly.facets.findIndex((f) => f.id === id),
    );
    points.forEach(([x], k) => expect(x).toBeCloseTo(dot3(corners[k], right), 9));
  });
});
