/** Finding struts and feet: every promise of the documented `strut-figure`, asked of the search by itself. */
import fc from 'fast-check';
import {
  contains,
  exclude,
  intersect,
  rectangle,
  regionArea,
  regionBox,
  unite,
  type Region,
} from '../../plane/polygon';
import type { Vec2 } from '../../plane/vec2';
import { shelveFonts } from '../../../fonts/shelve';
import { contactsAt, joinIntervals, levelAt, widthOfAll } from '../../shapes/level';
import { outlineOf, standing } from '../../shapes/outline';
import { holdFigure, LEAST_STRUT_MM, topWithin, type StrutWishes } from './struts';

beforeAll(shelveFonts);
const size = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const wishes = (change: Partial<StrutWishes> = {}): StrutWishes => ({
  depth: 20,
  strutMin: 4,
  footMin: 8,
  struts: 'auto',
  feet: 'auto',
  ...change,
});
const polygon = (...outer: Vec2[]): Region => [{ outer, holes: [] }];
/** A skyline: towers of random heights side by side, as a designer would cut them. */
const skyline = fc.array(fc.tuple(size(6, 25), size(10, 70)), { minLength: 1, maxLength: 7 }).map((towers): Region => {
  let x = 0;
  const outer: Vec2[] = [[0, 0]];
  const total = towers.reduce((s, [w]) => s + w, 0);
  outer.push([total, 0]);
  const tops: Vec2[] = [];
  for (const [w, h] of towers) {
    tops.push([x, h], [x + w, h]);
    x += w;
  }
  return [{ outer: [...outer, ...tops.reverse()], holes: [] }];
});

describe('the highest point between two uprights', () => {
  test('is never below any point of the outline there, and is reached', () => {
    fc.assert(
      fc.property(skyline, size(-5, 60), size(1, 30), (region, x0, width) => {
        const top = topWithin(region, x0, x0 + width);
        const samples = Array.from({ length: 60 }, (_, k) => x0 + (width * (k + 0.5)) / 60).map((x) => {
          for (let h = 70; h > 0; h -= 0.5) if (contains(region[0], [x, h])) return h;
          return -1;
        });
        const seen = Math.max(...samples);
        if (seen < 0) expect(top === null || top >= 0).toBe(true);
        else expect(top!).toBeGreaterThanOrEqual(seen - 1e-9);
      }),
      { numRuns: 60 },
    );
    expect(topWithin(polygon([0, 0], [10, 0], [5, 20]), 4, 6)).toBe(20);
    expect(topWithin(polygon([0, 0], [10, 0], [5, 20]), 0, 2)).toBeCloseTo(8, 12);
    expect(topWithin(polygon([0, 0], [10, 0], [5, 20]), 12, 20)).toBeNull();
  });
});

describe('struts', () => {
  test('level, apart, wide enough, free above, on every skyline', () => {
    fc.assert(
      fc.property(skyline, size(LEAST_STRUT_MM, 9), size(5, 40), (region, strutMin, depth) => {
        const { holds, region: held } = holdFigure(region, wishes({ strutMin, depth }));
        expect(holds.length).toBeGreaterThan(0);
        holds.forEach((s, i) => {
          expect(s.to - s.from).toBeGreaterThanOrEqual(strutMin - 1e-9);
          // Level: the whole width is a straight edge of the held figure at its height.
          const contact = contactsAt(held, s.level, 'top').find((c) => c.from <= s.from + 1e-4 && c.to >= s.to - 1e-4);
          expect(contact).toBeDefined();
          // Free: nothing of the silhouette stands where the strut goes.
          expect(
            regionArea(
              intersect(held, [{ outer: rectangle(s.from, s.level + 1e-4, s.to, s.level + depth), holes: [] }]),
            ),
          ).toBeLessThan(1e-3);
          for (const t of holds.slice(i + 1))
            expect(Math.max(s.from, t.from) - Math.min(s.to, t.to)).toBeGreaterThan(0);
        });
        // The highest place is held.
        expect(Math.max(...holds.map((s) => s.level))).toBeCloseTo(regionBox(region).max[1], 6);
      }),
      { numRuns: 50 },
    );
  });
  test('the loss is the area in which the held figure differs from the silhouette', () => {
    fc.assert(
      fc.property(skyline, (region) => {
        const held = holdFigure(region, wishes());
        expect(held.lossPct).toBeCloseTo((100 * regionArea(exclude(held.region, region))) / regionArea(region), 9);
        // Contacts only add.
        expect(regionArea(intersect(held.region, region))).toBeCloseTo(regionArea(region), 3);
      }),
      { numRuns: 20 },
    );
  });
  test('a spire narrower than its strut gets a shelf, no deeper than half the strut', () => {
    const { holds, region } = holdFigure(
      polygon([-20, 0], [20, 0], [20, 30], [1, 30], [1, 60], [-1, 60], [-1, 30], [-20, 30]),
      wishes({ strutMin: 6 }),
    );
    const spire = holds.find((s) => s.level > 59)!;
    expect(spire.to - spire.from).toBeCloseTo(6, 6);
    const shelf = widthOfAll(levelAt(region, 60 - 3 + 0.01));
    expect(shelf).toBeCloseTo(6, 6);
    expect(widthOfAll(levelAt(region, 60 - 3 - 0.01))).toBeCloseTo(2, 6);
  });
  test('no place of a wide part is far from a strut', () => {
    const { holds } = holdFigure(polygon([0, 0], [220, 0], [220, 30], [0, 30]), wishes({ strutMin: 5 }));
    const gaps = joinIntervals(holds).map((s, i, all) => (i === 0 ? s.from : s.from - all[i - 1].to));
    expect(Math.max(...gaps)).toBeLessThanOrEqual(2 * 12 * 5);
    expect(holds.length).toBeGreaterThanOrEqual(2);
  });
  test('by hand they are where they were put, at the height of the outline there', () => {
    fc.assert(
      fc.property(skyline, size(0.1, 0.9), size(3, 6), (region, part, width) => {
        const { max } = regionBox(region);
        const x = max[0] * part;
        const { holds, missed } = holdFigure(
          region,
          wishes({
            struts: [
              { x, width },
              { x: max[0] + 50, width },
            ],
          }),
        );
        expect(holds).toHaveLength(1);
        expect([holds[0].from, holds[0].to]).toEqual([
          expect.closeTo(x - width / 2, 9),
          expect.closeTo(x + width / 2, 9),
        ]);
        expect(holds[0].level).toBeCloseTo(topWithin(region, x - width / 2, x + width / 2)!, 5);
        expect(missed).toEqual(['strut 2']);
      }),
      { numRuns: 30 },
    );
  });
});

describe('feet', () => {
  test('a straight foot is joined whole; a round one gets the least foot, once', () => {
    expect(holdFigure(polygon([0, 0], [30, 0], [30, 40], [0, 40]), wishes()).feet).toEqual([{ from: 0, to: 30 }]);
    const disc = holdFigure(standing(outlineOf({ circle: 50 }), 50), wishes({ footMin: 11 }));
    expect(widthOfAll(disc.feet)).toBeCloseTo(11, 4);
    expect(disc.feet).toHaveLength(1);
  });
  test('a part on two points gets two feet that together are wide enough', () => {
    const { feet } = holdFigure(
      polygon([0, 0], [10, 30], [20, 30], [30, 0], [30, 45], [0, 45]),
      wishes({ footMin: 12 }),
    );
    expect(feet.length).toBe(2);
    expect(widthOfAll(feet)).toBeGreaterThanOrEqual(11);
  });
  test('a part that floats above another is tied down to it: the dot of an i', () => {
    const region = standing(outlineOf({ text: { string: 'i', font: 'fredoka', size: 60 } }), 45);
    expect(region).toHaveLength(2);
    const { region: held, feet, holds } = holdFigure(region, wishes({ footMin: 4 }));
    expect(held).toHaveLength(1);
    expect(feet.length).toBeGreaterThan(0);
    expect(holds.length).toBeGreaterThan(0);
  });
  test('by hand, feet that do not meet the silhouette are named', () => {
    const { feet, missed } = holdFigure(
      polygon([0, 0], [30, 0], [30, 40], [0, 40]),
      wishes({
        feet: [
          { x: 10, width: 12 },
          { x: 80, width: 9 },
        ],
      }),
    );
    expect(feet).toEqual([{ from: 4, to: 16 }]);
    expect(missed).toEqual(['foot 2']);
  });
});

test('every letter of a word is held on its own, neighbours never share a strut', () => {
  for (const font of ['alfa-slab-one', 'bebas-neue', 'fredoka', 'righteous']) {
    const region = standing(outlineOf({ text: { string: 'NIGHT', font, size: 50, spacing: 5 } }), 40);
    const { region: held, feet, holds } = holdFigure(region, wishes({ footMin: 6 }));
    for (const part of held) {
      expect(holds.some((s) => contains(part, [(s.from + s.to) / 2, s.level - 1e-3]))).toBe(true);
      expect(feet.some((f) => contains(part, [(f.from + f.to) / 2, 1e-3]))).toBe(true);
    }
  }
});
test('the same silhouette gives the same struts; order of parts does not matter', () => {
  const parts = [...polygon([0, 0], [20, 0], [20, 50], [0, 50]), ...polygon([40, 0], [60, 0], [60, 30], [40, 30])];
  const [a, b] = [parts, [...parts].reverse()].map((r) => holdFigure(unite(r), wishes()));
  expect(a.holds).toEqual(b.holds);
  expect(a.feet).toEqual(b.feet);
});
