/**
 * Many and long rings, against the clipping library asked for all of them at once (its own union is the judge), and
 * against areas known from plane geometry.
 */
import fc from 'fast-check';
import { booleanOpDWithPolyTree, ClipType, FillRule, PolyTreeD, areaPathsD, type PathsD } from 'clipper2-ts';
import { CLIP_PRECISION_DIGITS } from '../tolerance';
import { seeded } from '../linkage/random';
import { uniteRings } from './many-rings';
import { exclude, rectangle, regionArea, regionFromRings, ringArea, thicken, unite, type Ring } from './polygon';

/** Area of all rings at once, by the library alone. */
function judged(rings: readonly Ring[], rule: 'evenodd' | 'nonzero'): number {
  const paths: PathsD = rings.map((r) => r.map(([x, y]) => ({ x, y })));
  const tree = new PolyTreeD();
  const filled = rule === 'evenodd' ? FillRule.EvenOdd : FillRule.NonZero;
  booleanOpDWithPolyTree(ClipType.Union, paths, [], tree, filled, CLIP_PRECISION_DIGITS);
  const all: PathsD = [];
  const gather = (node: PolyTreeD | ReturnType<PolyTreeD['child']>): void => {
    for (let i = 0; i < node.count; i++) {
      all.push(node.child(i).poly!);
      gather(node.child(i));
    }
  };
  gather(tree);
  return areaPathsD(all);
}

/** So many that they are parted, drawn by a seed: more than 1500 corners. */
const seeds = fc.integer({ min: 1, max: 1e6 });
function boxes(seed: number, turned: boolean, count = 400): Ring[] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => {
    const [x, y, w, h] = [90 * random(), 90 * random(), 0.5 + 11 * random(), 0.5 + 11 * random()];
    const ring = rectangle(x, y, x + w, y + h);
    return turned && random() < 0.5 ? [...ring].reverse() : ring;
  });
}

test.each(['evenodd', 'nonzero'] as const)('hundreds of rectangles, %s: the area of the whole', (rule) => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const rings = boxes(seed, true);
      expect(regionArea(regionFromRings(rings, rule))).toBeCloseTo(judged(rings, rule), 2);
    }),
    { numRuns: 12 },
  );
});

test('hundreds of outlines united in halves are the outlines united at once', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const rings = boxes(seed, false);
      const region = unite(rings.map((outer) => ({ outer, holes: [] })));
      expect(regionArea(region)).toBeCloseTo(judged(rings, 'nonzero'), 2);
      // No part is there twice: united once more nothing is lost.
      expect(regionArea(exclude(region, unite(region)))).toBeLessThan(1e-3);
    }),
    { numRuns: 12 },
  );
});

/** A ring of so many corners, in and out by turns. */
const toothed = (n: number, turn = 1): Ring =>
  Array.from({ length: n }, (_, k) => {
    const [r, a] = [k % 2 ? 45 : 44, (turn * 2 * Math.PI * k) / n];
    return [r * Math.cos(a), r * Math.sin(a)] as const;
  });

test('a long ring that never meets itself stays as it is, whichever way it runs', () => {
  // Triangles from the middle: n of them, of sides 44 and 45.
  const area = (2000 / 2) * 44 * 45 * Math.sin((2 * Math.PI) / 2000);
  const asked: number[] = [];
  for (const turn of [1, -1]) {
    const region = uniteRings([toothed(2000, turn)], 'nonzero', 1e6, (some) => {
      asked.push(some.length);
      return [];
    });
    expect(region.map((p) => ringArea(p.outer))).toEqual([expect.closeTo(area, 3)]);
  }
  expect(asked).toEqual([]);
});

test('one that crosses, touches or folds back on itself is left to the library', () => {
  const long = toothed(2000).slice(0, 1900);
  const [first, last] = [long[0], long[long.length - 1]];
  const left = (ring: Ring): boolean => {
    let asked = false;
    uniteRings([ring], 'nonzero', 1e6, () => ((asked = true), []));
    return asked;
  };
  expect(left(long)).toBe(false);
  // Across the ring and out again.
  expect(left([...long, [-60, 0.01], [-60, -60]])).toBe(true);
  // To a corner that is there already, and back.
  expect(left([...long, [0, 0], long[500], [1, 0]])).toBe(true);
  // Out and back on one line.
  expect(left([...long, [first[0] + 9, first[1]], [last[0] + 40, first[1]], [first[0] + 5, first[1]]])).toBe(true);
});

test('lines grown apart are lines grown together', () => {
  fc.assert(
    fc.property(seeds, fc.double({ min: 0.05, max: 1, noNaN: true }), (seed, by) => {
      const lines = boxes(seed, true, 515).map((ring) => ring.slice(0, 3));
      const each = lines.flatMap((l) => thicken([l], by));
      expect(regionArea(exclude(thicken(lines, by), unite(each)))).toBeLessThan(0.02);
    }),
    { numRuns: 4 },
  );
});
