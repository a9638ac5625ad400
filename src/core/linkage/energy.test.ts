/**
 * Crease energy: the settled pose is compared with what a plain search finds, and with closed forms where there are
 * any.
 */
import fc from 'fast-check';
import { assembleCreasePattern } from '../assembly/crease-pattern';
import { poseOpen } from '../assembly/pose';
import { parallelogramGrid, vertexPattern } from '../tests/patterns';
import { closeBlock } from './close';
import { creaseMotion, jointLength, OPENING_RANGE, type Joint, type Linkage } from './joint';
import { seeded } from './random';
import { Travel } from './travel';

/** A band of five parallel creases between two slits across a gutter: ends in, inner out, middle in. Lengths in mm. */
function band(slit: number, quarter: number): Linkage {
  const turn = (id: string, a: number, b: number, y: number, role: -1 | 0 | 1, driven = false): Joint => ({
    id,
    a,
    b,
    motion: creaseMotion([10, y], [0, y]),
    placement: null,
    role,
    ends: [driven ? Math.PI : role * Math.PI, 0],
    span: [
      [10, y, 0],
      [0, y, 0],
    ],
    ...(driven ? { driven: { drive: 0, at: 0, rate: 1 } } : {}),
  });
  const half = slit / 2;
  // Bodies: 0 leaf A, 1 leaf B, 2 to 5 the band's facets from A to B.
  return {
    bodies: 6,
    drives: [OPENING_RANGE],
    joints: [
      turn('gutter', 0, 1, 0, 1, true),
      turn('endA', 0, 2, half, 1),
      turn('innerA', 2, 3, quarter, -1),
      turn('middle', 3, 4, 0, 1),
      turn('innerB', 4, 5, -quarter, -1),
      turn('endB', 5, 1, -half, 1),
    ],
  };
}

describe('a band between two slits', () => {
  // Source: docs/mechanisms.md: with the rest fold following the drive the even pose costs nothing for every q, so all
  // folds are ±(180 - open); closed the middle lies at S - 2q.
  test.each([
    [114.3, 28.575],
    [114.3, 20],
    [114.3, 35],
    [80, 12],
  ])('slit %d, inner creases at %d: all folds are even over the whole travel', (slit, quarter) => {
    const travel = new Travel(band(slit, quarter));
    for (const open of [5, 30, 90, 150, 175]) {
      const fold = ((180 - open) * Math.PI) / 180;
      const { folds, stop } = travel.at(fold);
      expect(stop).toBeUndefined();
      const expected = [fold, fold, -fold, fold, -fold, fold];
      expected.forEach((x, j) => expect(folds.q[j]).toBeCloseTo(x, 7));
      expect(folds.residualMm).toBeLessThan(1e-9);
    }
  });

  test('it has two freedoms that only stiffness decides', () => {
    const { order } = new Travel(band(114.3, 28.575));
    expect(order.blocks).toHaveLength(1);
    expect(order.blocks[0].freedoms).toBe(2);
  });

  test('both ends are exact', () => {
    const travel = new Travel(band(114.3, 28.575));
    expect([...travel.at(0).folds.q].map(Math.abs)).toEqual([0, 0, 0, 0, 0, 0]);
    expect([...travel.at(Math.PI).folds.q].map(Math.abs)).toEqual(new Array(6).fill(Math.PI));
  });
});

describe('vertices with freedoms', () => {
  const energy = (linkage: Linkage, q: Float64Array, drive: number): number =>
    linkage.joints.reduce(
      (sum, j, i) => (j.driven ? sum : sum + Math.max(jointLength(j), 1) * (q[i] - j.role * drive) ** 2),
      0,
    );

  test.each([
    ['+-+-+-', [60, 60, 60, 60, 60, 60], 70],
    ['+--+--', [45, 90, 45, 45, 90, 45], 50],
  ])('roles %s: no closed pose near the settled one costs less', (roles, sectors, deg) => {
    const { assembly } = assembleCreasePattern(vertexPattern(sectors, roles));
    const pose = poseOpen(assembly, 180 - deg);
    const { linkage, travel } = assembly;
    const [block] = travel.order.blocks;
    const drive = pose.folds.drive;
    const settled = energy(linkage, pose.folds.q, drive);
    const random = seeded(4);
    let compared = 0;
    for (let k = 0; k < 60; k++) {
      const q = pose.folds.q.slice();
      for (const j of block.unknowns) q[j] += 0.02 * (random() - 0.5);
      // Closed again by least change, without settling.
      const closing = closeBlock(linkage, { ...block, freedoms: 0 }, q, () => 0);
      if (!closing.closed || block.unknowns.some((j) => q[j] * linkage.joints[j].role < 0)) continue;
      compared++;
      expect(energy(linkage, q, drive)).toBeGreaterThan(settled - 1e-7 * settled);
    }
    expect(compared).toBeGreaterThan(20);
  });
});

describe('the travel of any grid', () => {
  test('is continuous: folds never jump between neighbouring openings', () => {
    fc.assert(
      fc.property(fc.integer({ min: 35, max: 80 }), (sector) => {
        const { assembly } = assembleCreasePattern(parallelogramGrid(4, 4, sector));
        let last: Float64Array | null = null;
        for (let deg = 4; deg <= 176; deg += 4) {
          const { q } = poseOpen(assembly, 180 - deg).folds;
          if (last) q.forEach((x, j) => expect(Math.abs(x - last![j])).toBeLessThan(0.75));
          last = q;
        }
      }),
      { numRuns: 8 },
    );
  });

  test('keeps every role', () => {
    fc.assert(
      fc.property(fc.integer({ min: 35, max: 80 }), fc.integer({ min: 1, max: 179 }), (sector, deg) => {
        const { assembly } = assembleCreasePattern(parallelogramGrid(5, 3, sector));
        const { q } = poseOpen(assembly, 180 - deg).folds;
        assembly.linkage.joints.forEach((j, i) => expect(q[i] * j.role).toBeGreaterThan(0));
      }),
      { numRuns: 20 },
    );
  });
});

test('a four-bar of lengths that never meet has no start, and says so', () => {
  const bar = (id: string, a: number, b: number, x: number): Joint => ({
    id,
    a,
    b,
    motion: { kind: 'hinge', point: [x, 0, 0], axis: [0, 0, 1] },
    placement: null,
    role: 0,
    ends: [undefined, undefined],
    span: [
      [x, 0, 0],
      [x, 0, 1],
    ],
  });
  // Ground from 0 to 100, bars of 10, 20 and 15: too short to reach. The last joint's line lies at 45 in its own bar,
  // at 100 on the ground.
  const apart = { ...bar('last', 3, 0, 45), placement: Float64Array.of(1, 0, 0, -55, 0, 1, 0, 0, 0, 0, 1, 0) };
  const travel = new Travel({
    bodies: 4,
    drives: [{ range: [1, 0], rest: 1, flat: 0 }],
    joints: [
      { ...bar('first', 0, 1, 0), driven: { drive: 0, at: 0, rate: 1 } },
      bar('second', 1, 2, 10),
      bar('third', 2, 3, 30),
      apart,
    ],
  });
  expect(travel.at(0.5).stop?.reason).toBe('no-start');
});
