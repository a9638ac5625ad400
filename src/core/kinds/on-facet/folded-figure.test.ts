/** A figure glued by one half: where its free half goes (a turn about the fold), what holds it, what is refused. */
import fc from 'fast-check';
import { allMeasures, onFacet, poseAt } from '../../assembly/pose';
import { buildAssembly } from '../../build/build';
import type { Design } from '../../document/design';
import { polygonArea, regionBox, contains } from '../../plane/polygon';
import { degToRad } from '../../units/angle';
import { card, findings, layered, stand } from '../../tests/cards';
import type { ParameterValues } from '../kind';

const on = (parameters: ParameterValues, reachB = 140): Design =>
  stand(card(200, 140, reachB), 'folded-figure', parameters, 'leafB');
const lifted = (lift: number, open = 180) => ({ open, 'folded-figure-1.lift': lift });
const HALVES = ['left', 'right', 'lower', 'upper'] as const;
const square = (side: number) => ({ rect: { width: side, height: side } });

test.each(HALVES)('glued at the %s: a point r from the fold goes r cos and r sin of the lift', (glued) => {
  fc.assert(
    fc.property(
      fc.double({ min: 30, max: 80, noNaN: true }),
      fc.double({ min: -8, max: 8, noNaN: true }),
      fc.double({ min: 0, max: 180, noNaN: true }),
      fc.constantFrom(90, 140),
      (side, fold, lift, reachB) => {
        const a = buildAssembly(on({ glued, fold, shape: square(side) }, reachB));
        expect(a.misfits).toEqual([]);
        const facet = (name: string): number => a.facets.findIndex((f) => f.id === `folded-figure-1.${name}`);
        const [free, still] = [facet('free'), facet('glued')];
        const [flat, turned] = [poseAt(a, lifted(0)), poseAt(a, lifted(lift))];
        const reach = side / 2 - fold;
        const measured = allMeasures(a, turned, null)['folded-figure-1'];
        expect(measured.free_mm).toBeCloseTo(reach, 6);
        expect(measured.fold_mm).toBeCloseTo(side, 6);
        expect(measured.raised_mm).toBeCloseTo(reach * Math.sin(degToRad(lift)), 6);
        // The farthest corner flat, and how far the turn has taken it back.
        const corner = a.facets[free].polygon.outer.reduce((far, p) =>
          Math.hypot(...p) > Math.hypot(...far) ? p : far,
        );
        const [p, q] = [onFacet(flat, free, corner), onFacet(turned, free, corner)];
        expect(Math.hypot(...p.map((x, k) => x - q[k]))).toBeCloseTo(2 * reach * Math.sin(degToRad(lift / 2)), 5);
        const [r, s] = [onFacet(flat, still, [0, 0]), onFacet(turned, still, [0, 0])];
        r.forEach((x, k) => expect(s[k]).toBeCloseTo(x, 9));
      },
    ),
    { numRuns: 15 },
  );
});

test('mirrored it is the mirror image: glued at the left and at the right', () => {
  for (const lift of [0, 40, 120]) {
    const raised = (['left', 'right'] as const).map((glued) => {
      const a = buildAssembly(on({ glued, fold: 5, shape: { circle: 50 } }));
      return allMeasures(a, poseAt(a, lifted(lift)), null)['folded-figure-1'];
    });
    Object.keys(raised[0]).forEach((key) => expect(raised[1][key]).toBeCloseTo(raised[0][key], 6));
  }
});

test('its paper is the shape, its glue lies on the glued half, 1.5 mm off the fold and the edges', () => {
  const a = buildAssembly(on({ shape: square(40), glued: 'lower' }));
  const [piece] = a.pieces.filter((p) => p.id === 'folded-figure-1.figure');
  expect(polygonArea(piece.outline)).toBeCloseTo(1600, 6);
  const [{ outline, facet }] = piece.glue;
  expect(facet).toBe('folded-figure-1.glued');
  expect(regionBox([{ outer: outline, holes: [] }])).toMatchObject({ min: [-18.5, -18.5], max: [18.5, -1.5] });
  expect(outline.every((p) => contains(piece.outline, p))).toBe(true);
});

test.each([
  // 6 mm of glue are 9 mm of paper beside the fold.
  ['captive', 20 - 9.05, 0],
  ['captive', 20 - 9, 0],
  ['captive', 20 - 8.95, 1],
] as const)('%s with the fold %d mm off the middle', (rule, fold, count) => {
  expect(findings(on({ shape: square(40), fold: -fold }), rule)).toHaveLength(count);
});

test('halves that hang together along less than 5 mm are weak, along less than half of that they fall off', () => {
  // A bow tie whose waist is the fold.
  const bow = (waist: number) => `M0 0 V40 L20 ${20 + waist / 2} L40 40 V0 L20 ${20 - waist / 2} Z`;
  const told = (waist: number) =>
    findings(on({ shape: { path: bow(waist) } }), 'web')
      .filter((f) => f.aspect === 'fold')
      .map((f) => f.severity);
  expect(told(5.01)).toEqual([]);
  expect(told(4.99)).toEqual(['risk']);
  expect(told(2.51)).toEqual(['risk']);
  expect(told(2.49)).toEqual(['blocks']);
});

test('what stands on the page where its free half lies is told, beside it is not', () => {
  const at = (x: number): Design =>
    layered(on({ shape: square(40) }), {
      facet: 'leafB',
      shape: { width: 4, height: 20 },
      foamMm: 3,
      foamInsetMm: 1,
      x,
    });
  const told = (x: number) => findings(at(x), 'collision').filter((f) => f.severity === 'blocks');
  expect(told(12)).toHaveLength(1);
  // The free half reaches 20 mm, the bar 2 mm to either side.
  expect(told(20.5)).toHaveLength(1);
  expect(told(22.5)).toEqual([]);
});

test('a fold off the figure, or through two legs of it, is refused by name', () => {
  const make = (parameters: ParameterValues) => () => buildAssembly(on(parameters));
  expect(make({ shape: square(40), fold: 20 })).toThrow(/nothing of the free half/);
  expect(make({ shape: square(40), fold: -20 })).toThrow(/nothing of the glued half/);
  const apart = { path: 'M0 0 H18 V40 H0 Z M22 0 H40 V40 H22 Z' };
  expect(make({ shape: apart })).toThrow(/falls into 2 parts/);
  const legs = { path: 'M0 0 H40 V40 H30 V10 H10 V40 H0 Z' };
  expect(make({ shape: legs, glued: 'upper' })).toThrow(/free half in 2 parts/);
});
