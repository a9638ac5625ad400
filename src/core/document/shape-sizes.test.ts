/** A typed size is the size that is cut: boxes of the pieces against the numbers that were typed. */
import fc from 'fast-check';
import { buildAssembly } from '../build/build';
import { regionBox } from '../plane/polygon';
import type { Shape } from '../shapes/shape';
import { closedSize } from '../rules';
import { closedPose } from '../proof/evidence';
import { card, layered, stand } from '../tests/cards';
import { setParameter, valuesIn } from './fields';
import { chooseShape, putShape, withHeights } from './shape-sizes';
import { KINDS } from '../kinds';
import type { Design } from './design';

const INCH = 25.4;
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const cloud = (width: number, height: number, bumps = 13): Shape => ({ cloud: { width, height, bumps } });
const boxOfPiece = (d: Design, id: string): { wide: number; high: number } => {
  const { min, max } = regionBox([buildAssembly(d).pieces.find((p) => p.id === id)!.outline]);
  return { wide: max[0] - min[0], high: max[1] - min[1] };
};
/** What a round card loses at its fold: rise of a chord (theorem of Pythagoras). */
const riseMm = (radius: number, chord: number): number => radius - Math.sqrt(radius ** 2 - (chord / 2) ** 2);

test('a scalloped card of 6 in is 6 in wide, however its foot is trimmed', () => {
  const d = chooseShape(card(200, 140), 'card', 'shape', cloud(6 * INCH, 5 * INCH));
  expect(valuesIn(d, 'card')!.reachA).toBeCloseTo(5 * INCH, 4);
  // Curves are drawn within 0.01 mm.
  expect(Math.abs(boxOfPiece(d, 'card').wide - 6 * INCH)).toBeLessThan(0.02);
  expect(boxOfPiece(d, 'card').high).toBeLessThanOrEqual(2 * 5 * INCH + 1e-6);
});

test('a round card is as wide as its disc, and as high but for the chord it is joined over', () => {
  fc.assert(
    fc.property(real(60, 150), real(10, 40), (diameter, hinge) => {
      const round = chooseShape(card(200, 140), 'card', 'shape', { circle: diameter });
      const { wide, high } = boxOfPiece(setParameter(round, 'card', 'hinge', hinge), 'card');
      expect(Math.abs(wide - diameter)).toBeLessThan(0.03);
      expect(Math.abs(high / 2 - (diameter - riseMm(diameter / 2, hinge)))).toBeLessThan(0.1);
    }),
    { numRuns: 25 },
  );
});

test('the closed size of a shaped card is the box round it: what lies in a missing corner does not count', () => {
  const round = chooseShape(card(200, 140), 'card', 'shape', { circle: 120 });
  const sizeOf = (d: Design): number[] => {
    const assembly = buildAssembly(d);
    const { alongMm, awayMm } = closedSize({ assembly, closed: closedPose(assembly) });
    return [alongMm, awayMm];
  };
  const bar = { facet: 'leafA', shape: { width: 16, height: 16 } } as const;
  const plain = sizeOf(round);
  expect(plain[0]).toBeCloseTo(120, 1);
  // Past the circle, inside its box; then 3 mm past the box too.
  expect(sizeOf(layered(round, { ...bar, x: 48, y: 48 }))).toEqual(plain);
  expect(sizeOf(layered(round, { ...bar, x: 55, y: 0 }))[0]).toBeCloseTo(123, 1);
});

test('a shape brought into a plane keeps its proportions, and its height is that of the plane', () => {
  const plain = stand(card(200, 140), 'plane-stack', {
    planes: [{ depth: 20, base: 0, height: 40, width: 60, offset: 0 }],
  });
  const id = 'plane-stack-1';
  const d = putShape(plain, id, 'planes[0].shape', { rect: { width: 30, height: 55 } });
  expect(valuesIn(d, id)!.planes).toMatchObject([{ height: 55, width: null, depth: 20 }]);
  // What is chosen from the shelf stands as high as the plane did.
  const shelved: Design = { ...plain, shapes: [{ id: 'moon', name: 'Moon', source: { circle: 12 }, steps: [] }] };
  const chosen = chooseShape(shelved, id, 'planes[0].shape', { asset: 'moon' });
  expect(valuesIn(chosen, id)!.planes).toMatchObject([{ height: 40 }]);
});

test('only a height that nobody gave follows from the shape', () => {
  const { parameters } = KINDS.get('leaf-bundle')!;
  const d = card();
  const shape = { ellipse: { width: 20, height: 33 } };
  expect(withHeights(parameters, { shape }, d)).toEqual({ shape, height: 33 });
  expect(withHeights(parameters, { shape, height: 50 }, d)).toEqual({ shape, height: 50 });
  expect(withHeights(parameters, { height: 50 }, d)).toEqual({ height: 50 });
  const planes = KINDS.get('plane-stack')!.parameters;
  expect(withHeights(planes, { planes: [{ shape, depth: 9 }] }, d)).toEqual({
    planes: [{ shape, depth: 9, height: 33 }],
  });
});
