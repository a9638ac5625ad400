/** Taking hold of a part, against circles and lines of the test's own. */
import fc from 'fast-check';
import { poseAt } from '@/core/assembly/pose';
import { restOf, openTo } from '@/core/drives';
import { buildAssembly } from '@/core/build/build';
import { addMechanism } from '@/core/document/standing';
import { blankDesign, CENTRE } from '@/core/document/design';
import { sceneOf } from '@/workers/scene';
import { valueNear, type Pixel } from './grab';

const values = Array.from({ length: 97 }, (_, k) => (360 * k) / 96);
const circle = values.map((v): Pixel => [
  200 + 80 * Math.cos((v * Math.PI) / 180),
  150 - 80 * Math.sin((v * Math.PI) / 180),
]);

test('a rim that is led round stands where the pointer is, on past its end', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: 40, max: 130, noNaN: true }),
      (start, away) => {
        // From anywhere a little further on, as a pointer moves.
        let last = ((start * 180) / Math.PI + 360) % 360;
        for (let k = 1; k <= 40; k++) {
          const t = start + k * 0.2;
          const at: Pixel = [200 + away * Math.cos(t), 150 - away * Math.sin(t)];
          last = valueNear({ values }, circle, at, last, true);
          const off = Math.abs(((((last - (t * 180) / Math.PI) % 360) + 540) % 360) - 180);
          expect(off).toBeLessThan(3);
        }
      },
    ),
    { numRuns: 30 },
  );
});

test('a slide stops at its ends, and goes on where it is when there is no way', () => {
  const slide = [0, 10, 20];
  const shown: Pixel[] = [
    [0, 0],
    [50, 0],
    [100, 0],
  ];
  expect(valueNear({ values: slide }, shown, [-40, 5], 3, false)).toBe(0);
  expect(valueNear({ values: slide }, shown, [400, 5], 18, false)).toBe(20);
  expect(valueNear({ values: slide }, shown, [25, 90], 5, false)).toBeCloseTo(5, 1);
  expect(valueNear({ values: [] }, [], [1, 2], 7, false)).toBe(7);
});

test('what a hand moves says by which drive; what is glued down says nothing', () => {
  const of = (kind: string, parameters = {}): Record<string, string | undefined> => {
    const d = addMechanism(blankDesign('t', 260, 200), kind, { on: 'leafB', mount: CENTRE }, parameters).design;
    const assembly = buildAssembly(d);
    const scene = sceneOf(d, assembly);
    expect(poseAt(assembly, { ...restOf(assembly.drives), ...openTo(90) }).stop).toBeUndefined();
    return Object.fromEntries(scene.facets.map((f) => [f.id.split('.').at(-1)!, f.moves]));
  };
  expect(of('volvelle')).toMatchObject({
    disc: 'volvelle-1.turn',
    front: undefined,
    backing: undefined,
    leafB: undefined,
  });
  expect(of('lift-tab')).toMatchObject({ strip: 'lift-tab-1.pull', lower: 'lift-tab-1.pull', guide: undefined });
  expect(of('pocket', { flap: { circle: 20 } })).toMatchObject({
    insert: 'pocket-1.draw',
    flap: 'pocket-1.flap',
    front: undefined,
  });
  expect(of('carrier-wheel')['carrier-3']).toBe('carrier-wheel-1.turn');
});
