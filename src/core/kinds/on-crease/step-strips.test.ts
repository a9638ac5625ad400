/** Tiers of strips: ridges by the law of cosines over random sizes, where they go taut, room in the shut card. */
import fc from 'fast-check';
import { allMeasures, foldDeg, landmarksOf, poseAt } from '../../assembly/pose';
import { buildAssembly } from '../../build/build';
import { checkDesign } from '../../document/schema';
import type { Design } from '../../document/design';
import { prove } from '../../proof/prove';
import { card, findings, stand } from '../../tests/cards';
import type { ListItem } from '..';

const strips = (tiers: readonly ListItem[], tab = 8, d = card(200, 100)): Design =>
  stand(d, 'step-strips', { tiers, tab });
const tier = (p: number, q: number | null, from = -40, to = 40): ListItem => ({ p, q, from, to });
const rad = (deg: number): number => (deg * Math.PI) / 180;

test('each ridge stands on the bisector, q from both glue lines (law of cosines), however many tiers', () => {
  const size = fc.double({ min: 12, max: 45, noNaN: true });
  fc.assert(
    fc.property(size, size, size, fc.double({ min: 0, max: 180, noNaN: true }), (p1, p2, more, open) => {
      const a = buildAssembly(strips([tier(p1, null, -60, 0), tier(p2, p2 + more, 5, 60)], 7));
      expect(a.misfits).toEqual([]);
      const pose = poseAt(a, { open });
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      const { ridge_1, ridge_2 } = landmarksOf(a, pose, a.mechanisms[1]);
      const half = rad(open / 2);
      const far = (p: number, q: number): number => p * Math.cos(half) + Math.sqrt(q * q - (p * Math.sin(half)) ** 2);
      for (const [[, y, z], at] of [
        [ridge_1, far(p1, p1)],
        [ridge_2, far(p2, p2 + more)],
      ] as const) {
        expect(y).toBeCloseTo(at * Math.cos(half), 6);
        expect(z).toBeCloseTo(at * Math.sin(half), 6);
      }
    }),
    { numRuns: 50 },
  );
});

test('as long as it is glued far out it lies flat open, folded as mountains, and shut past its tabs', () => {
  const a = buildAssembly(strips([tier(30, null)]));
  const folds = (open: number): number[] =>
    a.creases.filter((c) => c.mechanism === 'step-strips-1').map((c) => foldDeg(poseAt(a, { open }), c) + 0);
  expect(folds(180)).toEqual([-180, 0, -180]);
  expect(folds(0)).toEqual([0, -180, 0]);
  expect(prove(strips([tier(30, null)], 10), 12).verdict).toBe('clear');
});

test('a strip that is too short is pulled taut where the glue lines are twice its half apart', () => {
  const [p, q] = [30, 24];
  const [found] = findings(strips([tier(p, q)]), 'flex');
  expect(found.severity).toBe('blocks');
  expect(found.measured).toBeCloseTo((2 * Math.asin(q / p) * 180) / Math.PI, 2);
});

test('shut, the room is the reach less p and q; past it the tier sticks out', () => {
  const a = buildAssembly(strips([tier(40, null, -60, 0), tier(30, 50, 5, 60)]));
  const measures = allMeasures(a, poseAt(a, { open: 90 }), null)['step-strips-1'];
  expect(measures).toMatchObject({ room_mm: 20, 'tiers[0].room_mm': 20, 'tiers[1].room_mm': 20 });
  const out = (q: number): string[] => findings(strips([tier(40, q)]), 'overhang').map((f) => f.severity);
  expect(out(59.99)).toEqual([]);
  expect(out(60)).toEqual([]);
  expect(out(60.02)).toEqual(['blocks']);
});

test('mirrored along the crease it poses mirrored; a step stands on a ridge; tabs that meet are said', () => {
  const ridge = (from: number, to: number): readonly number[] => {
    const a = buildAssembly(strips([tier(25, 30, from, to)]));
    return landmarksOf(a, poseAt(a, { open: 70 }), a.mechanisms[1]).ridge_1;
  };
  const [p, q] = [ridge(10, 50), ridge(-50, -10)];
  expect(p[0]).toBeCloseTo(-q[0], 9);
  expect(p[1]).toBeCloseTo(q[1], 9);
  const nested = stand(
    strips([tier(40, null)]),
    'step-fold',
    { depth: 10, height: 10, width: 20 },
    'step-strips-1.tier-1-ridge',
  );
  expect(checkDesign(JSON.parse(JSON.stringify(nested))).ok).toBe(true);
  expect(poseAt(buildAssembly(nested), { open: 80 }).folds.residualMm).toBeLessThan(1e-9);
  const meet = (tab: number): number => findings(strips([tier(12, null)], tab), 'loose-part').length;
  expect(meet(11.9)).toBe(0);
  expect(meet(12)).toBe(1);
});
