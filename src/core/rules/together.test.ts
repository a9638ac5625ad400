/** Two things moved by hand at once: what neither does alone is found, against brute force over a finer grid. */
import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { onFacet, poseAt, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { CENTRE, type Design } from '../document/design';
import { openTo } from '../drives';
import { prove, setLever } from '../proof/prove';
import { card, findings } from '../tests/cards';

const WHEEL = { spokes: 3, arm: 36, hub: 26, carrier: { width: 14, height: 24, hang: 8 } };
/** Two wheels on one face, one above the other: at rest neither has a carrier on the line between their axles. */
const { card: base, ...rest } = card(280, 95);
const plain: Design = {
  ...rest,
  card: { ...base, stock: 'card-240', parameters: base.parameters },
};
const wheels = (apart: number): Design =>
  [-1, 1].reduce((d, side) => {
    const mount = { ...CENTRE, side: 'inside' as const, y: (side * apart) / 2 };
    return addMechanism(d, 'carrier-wheel', { on: 'leafB', mount }, WHEEL).design;
  }, plain);

/** Area that carriers of one wheel share with those of the other in a pose of the flat card, mm². */
function sharedMm2(a: Assembly, pose: Pose): number {
  const carriers = (owner: string) =>
    a.facets.flatMap((f, i) => {
      if (!f.id.startsWith(`${owner}.carrier-`)) return [];
      const ring = f.polygon.outer.map((p): [number, number] => {
        const [x, y] = onFacet(pose, i, p);
        return [x, y];
      });
      return [[ring]];
    });
  const shared = polygonClipping.intersection(
    carriers('carrier-wheel-1') as polygonClipping.Geom,
    carriers('carrier-wheel-2') as polygonClipping.Geom,
  );
  const area = (ring: readonly (readonly number[])[]): number =>
    Math.abs(
      ring.reduce((s, p, k) => s + p[0] * ring[(k + 1) % ring.length][1] - ring[(k + 1) % ring.length][0] * p[1], 0),
    ) / 2;
  return shared.reduce((s, [outer]) => s + area(outer), 0);
}
/** The most they share while the drives take every value of a grid, degrees. */
function mostShared(d: Design, stepDeg: number, alone = false): number {
  const a = buildAssembly(d);
  let most = 0;
  for (let x = 0; x < 360; x += stepDeg)
    for (let y = 0; y < 360; y += stepDeg) {
      if (alone && x !== 0 && y !== 0) continue;
      const state = { ...openTo(180), 'carrier-wheel-1.turn': x, 'carrier-wheel-2.turn': y };
      most = Math.max(most, sharedMm2(a, poseAt(a, state)));
    }
  return most;
}
const between = (d: Design) =>
  findings(d, 'collision', 4).filter((f) => f.aspect.includes('by hand') && f.aspect.includes('carrier-wheel'));

test('wheels that meet only when both are turned are found, with both values', () => {
  const d = wheels(93);
  expect(mostShared(d, 15, true)).toBe(0);
  expect(mostShared(d, 15)).toBeGreaterThan(5);
  const [finding] = between(d);
  expect(finding.severity).toBe('blocks');
  const a = buildAssembly(d);
  expect(sharedMm2(a, poseAt(a, finding.drive))).toBeGreaterThan(1);
  expect(finding.drive['carrier-wheel-1.turn']).not.toBe(0);
  expect(finding.drive['carrier-wheel-2.turn']).not.toBe(0);
});

test('at any distance they are found where brute force finds them, and not where a finer grid finds nothing', () => {
  fc.assert(
    fc.property(fc.integer({ min: 86, max: 100 }), (apart) => {
      const d = wheels(apart);
      const [coarse, fine] = [mostShared(d, 15), mostShared(d, 7.5)];
      const found = between(d).length > 0;
      // What is below a square millimetre is paper that touches.
      if (coarse > 1) expect(found).toBe(true);
      if (fine === 0) expect(found).toBe(false);
    }),
    { numRuns: 6 },
  );
});

test('the proof says which pairs it walked, and every remedy keeps the wheels apart', () => {
  const proof = prove(wheels(93), 4);
  expect(proof.pairs.map((p) => p.drives)).toEqual([['carrier-wheel-1.turn', 'carrier-wheel-2.turn']]);
  // Over one face they are as near at every opening: once is enough. A carrier's corner goes round at 36 mm and no
  // further than 2 mm between two looks: at least 114 values of each.
  const { openings, states } = proof.pairs[0];
  expect(openings).toEqual([180]);
  expect(states).toBeGreaterThanOrEqual(114 ** 2);
  expect(proof.threes).toEqual([]);
  const remedies = proof.findings.find((f) => f.aspect.includes('by hand'))!.remedies!;
  expect(remedies.length).toBeGreaterThan(1);
  for (const { mechanism, parameter, value } of remedies)
    expect(mostShared(setLever(wheels(93), mechanism, parameter, value), 7.5)).toBeLessThan(1);
});

test('what never comes near is not walked together, and the proof claims no more', () => {
  const far = prove(wheels(112), 4);
  expect(far.pairs).toEqual([]);
  expect(far.findings.filter((f) => f.rule === 'collision')).toEqual([]);
});
