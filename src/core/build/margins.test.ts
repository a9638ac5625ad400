/** Against plane geometry. */
import fc from 'fast-check';
import { outlineOf } from '../shapes/outline';
import { rectangle, ringsOf, type Ring } from '../plane/polygon';
import { card, layered } from '../tests/cards';
import type { Design, Layer } from '../document/design';
import { buildAssembly } from './build';
import { carriedShare, marginsOf, openingsOf } from './margins';

const circle = (r: number): Ring[] => outlineOf({ circle: 2 * r }, undefined as never).flatMap((p) => [...ringsOf(p)]);
const moved = (rings: readonly Ring[], dx: number, dy: number): Ring[] =>
  rings.map((ring) => ring.map(([x, y]) => [x + dx, y + dy]));
const mm = fc.double({ min: 1, max: 40, noNaN: true });

test('a rectangle in a rectangle: four margins, the least of them, and mirrored from the outside', () => {
  fc.assert(
    fc.property(mm, mm, mm, mm, (left, right, above, below) => {
      const facet = [rectangle(0, 0, left + 30 + right, below + 20 + above)];
      const own = [rectangle(left, below, left + 30, below + 20)];
      const near = (v: number) => expect.closeTo(v, 6);
      expect(marginsOf(facet, own, 'inside')).toEqual({
        ...{ left: near(left), right: near(right), above: near(above), below: near(below) },
        // Outlines are put together on a grid of 1e-6 mm.
        least: expect.closeTo(Math.min(left, right, above, below), 5),
      });
      const outside = marginsOf(facet, own, 'outside');
      expect([outside.left, outside.right]).toEqual([near(right), near(left)]);
    }),
  );
});

test('a disc in a disc is nearest along the line of both centres', () => {
  // Discs are drawn by chords within 0.01 mm.
  const { least, left } = marginsOf(circle(40), moved(circle(10), 6, 8), 'inside');
  expect(least).toBeCloseTo(40 - 10 - 10, 1);
  expect(left).toBeCloseTo(40 + 6 - 10, 1);
});

test('past an edge its margin is negative and there is no least; beside a hole that is the nearest', () => {
  const facet = [rectangle(0, 0, 100, 60)];
  expect(marginsOf(facet, [rectangle(90, 10, 102.5, 20)], 'inside')).toMatchObject({ right: -2.5, least: null });
  expect(marginsOf(facet, [rectangle(90, 10, 100, 20)], 'inside')).toMatchObject({ right: 0, least: 0 });
  const holed = [...facet, [...rectangle(40, 20, 60, 40)].reverse()];
  expect(marginsOf(holed, [rectangle(63, 25, 80, 35)], 'inside').least).toBeCloseTo(3, 9);
});

test('foam 3 mm inside a sheet of 30 by 20 carries 24 by 14 of it', () => {
  expect(carriedShare([rectangle(0, 0, 30, 20)], [rectangle(3, 3, 27, 17)])).toBeCloseTo((24 * 14) / 600, 9);
  expect(carriedShare([rectangle(0, 0, 30, 20)], [])).toBe(0);
});

describe('what is left of a window', () => {
  const rect = (width: number, height: number): Layer['shape'] => ({ rect: { width, height } });
  const pane: Partial<Layer> = { id: 'pane', facet: 'leafB', as: 'window', shape: rect(40, 30) };
  const window = (...more: Partial<Layer>[]): Design => layered(card(190, 140), pane, ...more);
  const left = (d: Design): [number, number, readonly string[]] => {
    const [{ openMm2, leftMm2, hiddenBy }] = openingsOf(buildAssembly(d));
    return [openMm2, leftMm2, hiddenBy];
  };

  test('is all of it where nothing is stuck over it, on paper of its own', () => {
    expect(left(window())).toEqual([expect.closeTo(1200, 6), expect.closeTo(1200, 6), []]);
    expect(left(window({ id: 'label', facet: 'leafA', shape: rect(40, 30) }))[1]).toBeCloseTo(1200, 6);
    expect(openingsOf(buildAssembly(card(190, 140)))).toEqual([]);
  });

  test('is less by what each layer hides, counted once, on either side: that which hides most first', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 18, noNaN: true }), fc.double({ min: 1, max: 13, noNaN: true }), (x, y) => {
        // A strip x wide from the left side of it, and one y high from its lower side, on the other side of the leaf.
        const strip = { id: 'strip', facet: 'leafB', shape: rect(60, 60), x: -20 - 30 + x, y: 0 };
        const sill = {
          id: 'sill',
          facet: 'leafB',
          side: 'outside',
          shape: rect(60, 60),
          x: 0,
          y: -15 - 30 + y,
        } as const;
        const [all, some, by] = left(window(strip, sill));
        expect(all).toBeCloseTo(1200, 4);
        expect(some).toBeCloseTo((40 - x) * (30 - y), 3);
        expect(by).toEqual(30 * x > 40 * y ? ['layer.strip', 'layer.sill'] : ['layer.sill', 'layer.strip']);
      }),
      { numRuns: 20 },
    );
  });

  test('a window over the fold is one opening, of both leaves', () => {
    const d = layered(card(190, 140), { ...pane, from: { x: 'middle', y: 'high' }, y: 10 });
    expect(left(d)[0]).toBeCloseTo(1200, 4);
  });
});
