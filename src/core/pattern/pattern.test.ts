import fc from 'fast-check';
import { contains, insidePoint, polygonArea, rectangle, type Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { creaseStretches, findFacets } from './facets';
import type { CreaseLine, PatternLine, Piece } from './pattern';

const crease = (id: string, a: Vec2, b: Vec2, role: 'valley' | 'mountain' = 'valley'): CreaseLine => ({
  id,
  role,
  mechanism: 'test',
  a,
  b,
  ends: [Math.PI, 0],
});
const cut = (a: Vec2, b: Vec2): PatternLine => ({ role: 'cut', a, b, mechanism: 'test' });
const sheet = (
  creases: readonly CreaseLine[],
  lines: readonly PatternLine[] = [],
  labels: Piece['labels'] = [],
): Piece => ({
  id: 'sheet',
  title: 'Sheet',
  mechanism: 'test',
  stock: 'any',
  outline: { outer: rectangle(-50, -40, 50, 40), holes: [] },
  creases,
  lines,
  glue: [],
  labels,
});

describe('stretches of an interrupted crease', () => {
  const gutter = crease('gutter', [-50, 0], [50, 0]);

  test('what is taken out and what stays make up the whole', () => {
    const gap = fc.tuple(fc.integer({ min: 0, max: 90 }), fc.integer({ min: 1, max: 30 }));
    fc.assert(
      fc.property(fc.array(gap, { maxLength: 5 }), (gaps) => {
        const taken = new Array<boolean>(100).fill(false);
        for (const [from, size] of gaps) for (let x = from; x < Math.min(100, from + size); x++) taken[x] = true;
        const interruptions = gaps.map(([from, size]) => ({ crease: 'gutter', from, to: from + size }));
        const kept = creaseStretches(gutter, interruptions).reduce((sum, s) => sum + s.b[0] - s.a[0], 0);
        expect(kept).toBeCloseTo(taken.filter((t) => !t).length, 6);
      }),
    );
  });

  test('gaps of other creases do not count', () => {
    expect(creaseStretches(gutter, [{ crease: 'other', from: 0, to: 100 }])).toHaveLength(1);
  });

  test('wholly taken up, nothing stays', () => {
    expect(creaseStretches(gutter, [{ crease: 'gutter', from: -5, to: 105 }])).toHaveLength(0);
  });
});

describe('facets', () => {
  test('a crease across a sheet parts it in two, the facet on its left being b', () => {
    const { facets, hinges, idle } = findFacets(sheet([crease('c', [-50, 0], [50, 0])]), []);
    expect(facets).toHaveLength(2);
    expect(idle).toHaveLength(0);
    const above = facets.findIndex((f) => contains(f.polygon, [0, 20]));
    expect(hinges).toHaveLength(1);
    expect(hinges[0].b).toBe(above);
  });

  test('turned round, the crease has the other facet on its left', () => {
    const { facets, hinges } = findFacets(sheet([crease('c', [50, 0], [-50, 0])]), []);
    expect(hinges[0].b).toBe(facets.findIndex((f) => contains(f.polygon, [0, -20])));
  });

  test('any parallel creases: one facet more than creases, areas adding up to the sheet', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: -39, max: 39 }), { maxLength: 12 }), (ys) => {
        const { facets, hinges } = findFacets(sheet(ys.map((y, i) => crease(`c${i}`, [-50, y], [50, y]))), []);
        expect(facets).toHaveLength(ys.length + 1);
        expect(hinges).toHaveLength(ys.length);
        expect(facets.reduce((sum, f) => sum + polygonArea(f.polygon), 0)).toBeCloseTo(8000, 6);
      }),
      { numRuns: 40 },
    );
  });

  test('a crease that ends in air folds nothing, and is kept as idle', () => {
    const { facets, hinges, idle } = findFacets(sheet([crease('c', [-50, 0], [10, 0])]), []);
    expect(facets).toHaveLength(1);
    expect(hinges).toHaveLength(0);
    expect(idle.map((i) => i.crease.id)).toEqual(['c']);
  });

  test('where a cut runs along a crease there is nothing left to fold', () => {
    const { hinges } = findFacets(sheet([crease('c', [-50, 0], [50, 0])], [cut([-50, 0], [0, 0])]), []);
    expect(hinges[0].segments).toEqual([{ a: [0, 0], b: [50, 0] }]);
  });

  test('a crease crossed by slits keeps one hinge for each pair of facets', () => {
    const slits = [cut([-20, -30], [-20, 30]), cut([20, -30], [20, 30])];
    const { facets, hinges } = findFacets(sheet([crease('c', [-50, 0], [50, 0])], slits), []);
    // The slits end inside the paper: both halves stay whole, and the crease is one hinge in three stretches joined up.
    expect(facets).toHaveLength(2);
    expect(hinges).toHaveLength(1);
    expect(hinges[0].segments).toEqual([{ a: [-50, 0], b: [50, 0] }]);
  });

  test('facets take the name of the label inside them', () => {
    const labels = [{ name: 'upper', at: [0, 20] as Vec2, mechanism: 'test' }];
    const { facets } = findFacets(sheet([crease('c', [-50, 0], [50, 0])], [], labels), []);
    expect(facets).toHaveLength(2);
    expect(contains(facets.find((f) => f.id === 'upper')!.polygon, [0, 20])).toBe(true);
  });

  test('a hole in the outline is not paper', () => {
    const holed = {
      ...sheet([]),
      outline: { outer: rectangle(-50, -40, 50, 40), holes: [[...rectangle(-10, -10, 10, 10)].reverse()] },
    };
    const { facets } = findFacets(holed, []);
    expect(facets).toHaveLength(1);
    expect(polygonArea(facets[0].polygon)).toBeCloseTo(8000 - 400, 6);
  });
});

test('the inside point of a polygon is inside it, however thin or bent', () => {
  const shape = fc.constantFrom<Polygon>(
    {
      outer: [
        [0, 0],
        [100, 0],
        [100, 0.2],
        [0, 0.2],
      ],
      holes: [],
    },
    {
      outer: [
        [0, 0],
        [40, 0],
        [40, 2],
        [2, 2],
        [2, 40],
        [0, 40],
      ],
      holes: [],
    },
    {
      outer: [
        [0, 0],
        [30, 0],
        [15, 1],
      ],
      holes: [],
    },
    {
      outer: rectangle(0, 0, 10, 10),
      holes: [
        [
          [2, 2],
          [2, 8],
          [8, 8],
          [8, 2],
        ],
      ],
    },
  );
  fc.assert(fc.property(shape, (polygon) => expect(contains(polygon, insidePoint(polygon))).toBe(true)));
});
