/** Where the glue of what is stuck on a facet is drawn to end, against plane geometry. */
import { buildAssembly } from '@/core/build/build';
import type { Design, Layer } from '@/core/document/design';
import { regionArea, regionFromRings } from '@/core/plane/polygon';
import { card, layered, stand } from '@/core/tests/cards';
import { sceneOf } from './scene';

const step = stand(card(190, 140), 'step-fold', { depth: 30, height: 40, width: 60 });
const gluedMm2 = (d: Design): number[] =>
  sceneOf(d, buildAssembly(d)).facets.flatMap((f) => f.mats.map((m) => regionArea(regionFromRings(m.glue))));
const on = (layer: Partial<Layer>): Design => layered(step, { facet: 'step-fold-1.riser', ...layer });

test('a label within its facet is glued all over: nothing is drawn', () => {
  expect(gluedMm2(on({ shape: { rect: { width: 20, height: 20 } } as never }))).toEqual([0]);
});

test('a figure that stands up past the ridge: its glue ends there', () => {
  // On a riser of 60 by 40, 20 mm wide and 50 high, from its lower edge: 10 of it are free.
  const figure = {
    shape: { rect: { width: 20, height: 50 } } as never,
    from: { x: 'middle', y: 'low' } as const,
    x: 0,
  };
  const [area] = gluedMm2(on({ ...figure, y: 0 }));
  expect(area).toBeCloseTo(20 * 40, 3);
});

test('glue that its maker has end 3 mm inside is drawn so', () => {
  const shape = { rect: { width: 20, height: 30 } } as never;
  expect(gluedMm2(on({ shape, glued: { insetMm: 3 } }))).toEqual([expect.closeTo(14 * 24, 3)]);
});

test('what lies on foam shows its foam', () => {
  expect(gluedMm2(on({ shape: { rect: { width: 20, height: 60 } } as never, foamMm: 2, foamInsetMm: 1 }))).toEqual([0]);
});
