import fc from 'fast-check';
import { assembleCreasePattern, type CreasePattern } from '../assembly/crease-pattern';
import { foldDeg, onFacet, poseOpen, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { parallelogramGrid, vertexPattern } from '../tests/patterns';
import { degToRad, radToDeg } from '../units/angle';
import { leastBending } from './bending';
import { largestGap, placeBodies } from './bodies';
import { creaseMotion, motionAt, pivotMotion, twistAt, type Joint, type Linkage, type Motion } from './joint';
import { shortLoops } from './loops';
import {
  applyRigid,
  compose,
  identity,
  invert,
  norm3,
  placeOnSheet,
  rotationLog,
  sub3,
  turnAbout,
  type Vec3,
} from './rigid';
import { jacobiSvd } from './svd';
import { Travel } from './travel';

const angle = fc.double({ min: -3.1, max: 3.1, noNaN: true });
const point = fc.tuple(
  fc.double({ min: -50, max: 50, noNaN: true }),
  fc.double({ min: -50, max: 50, noNaN: true }),
  fc.double({ min: -50, max: 50, noNaN: true }),
);

/** Folds of a pattern whose first crease is turned to `deg`, by edge number. */
function folded(
  pattern: CreasePattern,
  deg: number,
): { assembly: Assembly; pose: Pose; fold: (edge: number) => number } {
  const { assembly } = assembleCreasePattern(pattern);
  const pose = poseOpen(assembly, 180 - deg);
  return {
    assembly,
    pose,
    fold: (edge) =>
      foldDeg(
        pose,
        assembly.creases.find((c) => c.id === `pattern.e${edge}`)!,
      ),
  };
}

describe('rigid motions', () => {
  test('lengths stay, inverses undo, the logarithm gives the turn back', () => {
    fc.assert(
      fc.property(point, point, point, angle, (p, a, b, q) => {
        fc.pre(norm3(a) > 1);
        const axis: Vec3 = [a[0] / norm3(a), a[1] / norm3(a), a[2] / norm3(a)];
        const m = turnAbout(p, axis, q);
        expect(norm3(sub3(applyRigid(m, a), applyRigid(m, b)))).toBeCloseTo(norm3(sub3(a, b)), 9);
        expect([...compose(m, invert(m))].map((x) => Math.round(x * 1e9) / 1e9 + 0)).toEqual([...identity()]);
        const log = rotationLog(m);
        log.forEach((x, i) => expect(x).toBeCloseTo(axis[i] * q, 7));
      }),
    );
  });
  test('half turns are exact: closed leaves no trace', () => {
    expect(applyRigid(turnAbout([0, 0, 0], [1, 0, 0], Math.PI), [3, 4, 0])).toEqual([3, -4, 0]);
  });
});

describe('joints', () => {
  const track: Motion = {
    kind: 'track',
    start: [10, 0, 0],
    heading: [1, 0, 0],
    normal: [0, 0, 1],
    runs: [
      { lengthMm: 20, curvature: 0 },
      { lengthMm: 15 * Math.PI, curvature: 1 / 15 },
    ],
  };
  test('a track runs straight and then along its arc', () => {
    expect(applyRigid(motionAt(track, 12), [10, 0, 0])).toEqual([22, 0, 0]);
    // Half a turn of radius 15, left: it ends 30 above where the arc begins, heading back.
    const end = applyRigid(motionAt(track, 20 + 15 * Math.PI), [10, 0, 0]);
    [30, 30, 0].forEach((x, i) => expect(end[i]).toBeCloseTo(x, 9));
  });
  test.each<[string, Motion, number]>([
    ['crease', creaseMotion([1, 2], [4, 6]), 0.7],
    ['pivot', pivotMotion([5, -3]), 1.1],
    ['track, straight', track, 7],
    ['track, arc', track, 33],
  ])('the twist of a %s is the rate of its motion', (_, motion, q) => {
    const h = 1e-6;
    const { w, v } = twistAt(motion, q);
    for (const p of [
      [0, 0, 0],
      [10, 5, 0],
      [3, -8, 2],
    ] as Vec3[]) {
      const [before, now, after] = [q - h, q, q + h].map((x) => applyRigid(motionAt(motion, x), p));
      const rate = [
        w[1] * now[2] - w[2] * now[1] + v[0],
        w[2] * now[0] - w[0] * now[2] + v[1],
        w[0] * now[1] - w[1] * now[0] + v[2],
      ];
      rate.forEach((x, i) => expect(x).toBeCloseTo((after[i] - before[i]) / (2 * h), 5));
    }
  });
  test('a slider and two turns make a slider-crank that obeys the law of cosines', () => {
    // Base with a driven slide along x, crank 30 from the origin, rod 50 to the slide. Loop: slide, turn, turn, turn.
    const turn = (id: string, a: number, b: number, at: [number, number], role: -1 | 0 | 1): Joint => ({
      id,
      a,
      b,
      motion: { ...pivotMotion(at), kind: 'hinge' } as Motion,
      placement: null,
      role,
      ends: [undefined, undefined],
      span: [
        [at[0], at[1], 0],
        [at[0], at[1], 1],
      ],
    });
    const slide: Joint = {
      id: 'slide',
      a: 0,
      b: 3,
      motion: {
        kind: 'track',
        start: [80, 0, 0],
        heading: [-1, 0, 0],
        normal: [0, 0, 1],
        runs: [{ lengthMm: 70, curvature: 0 }],
      },
      placement: null,
      role: 0,
      driven: { drive: 0, at: 0, rate: 1 },
      ends: [0, undefined],
      span: [
        [80, 0, 0],
        [70, 0, 0],
      ],
    };
    const linkage: Linkage = {
      bodies: 4,
      drives: [{ range: [40, 0.01], rest: 40, flat: 0 }],
      joints: [
        slide,
        { ...turn('crank', 0, 1, [0, 0], 1), ends: [undefined, undefined] },
        turn('knee', 1, 2, [30, 0], -1),
        turn('wrist', 2, 3, [80, 0], 1),
      ],
    };
    const { folds, stop } = new Travel(linkage).at(30);
    expect(stop).toBeUndefined();
    const base = 80 - 30;
    expect(Math.abs(folds.q[1])).toBeCloseTo(Math.acos((30 ** 2 + base ** 2 - 50 ** 2) / (2 * 30 * base)), 9);
  });
});

test('singular values agree with a matrix of known ones, and null directions are null', () => {
  const columns = [
    [3, 0, 0],
    [0, 4, 0],
    [3, 4, 0],
  ].map((c) => Float64Array.from(c));
  const { values, right } = jacobiSvd(columns);
  const sorted = [...values].sort((a, b) => b - a);
  // A Aᵀ = [[18, 12], [12, 32]]: its eigenvalues are the squares (closed form).
  const root = Math.sqrt((32 - 18) ** 2 / 4 + 144);
  [Math.sqrt(25 + root), Math.sqrt(25 - root), 0].forEach((s, i) => expect(sorted[i]).toBeCloseTo(s, 12));
  const k = values.indexOf(Math.min(...values));
  [0, 1, 2].forEach((r) => expect(columns.reduce((s, c, i) => s + c[r] * right[k][i], 0)).toBeCloseTo(0, 12));
});

test('short loops: as many as joints - bodies + 1, and a grid’s are its vertices', () => {
  const { assembly } = assembleCreasePattern(parallelogramGrid(6, 5));
  const loops = shortLoops(assembly.linkage);
  expect(loops).toHaveLength(assembly.linkage.joints.length - assembly.linkage.bodies + 1);
  expect(loops.every((l) => l.steps.length === 4)).toBe(true);
});

describe('degree-4 vertex, sectors 70 100 110 80', () => {
  // Source: rigid flat-foldable degree-4 vertex, tan(slow/2) = p tan(fast/2), p from the sectors (Huffman; Hull;
  // Tachi 2009).
  test.each([
    ['+-++', Math.cos(degToRad(85)) / Math.cos(degToRad(15))],
    ['+---', Math.sin(degToRad(85)) / Math.sin(degToRad(15))],
  ])('roles %s follow the half-angle relation over the whole travel', (roles, p) => {
    for (const deg of [0.5, 2, 10, 30, 60, 90, 120, 150, 170, 179]) {
      const { fold, pose } = folded(vertexPattern([70, 100, 110, 80], roles), deg);
      const expected = -2 * radToDeg(Math.atan(p * Math.tan(degToRad(deg) / 2)));
      expect(fold(1)).toBeCloseTo(expected, 6);
      expect(Math.abs(fold(2))).toBeCloseTo(deg, 6);
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
    }
  });
  test('driven by a slow crease it finds the fast ones', () => {
    const pattern = vertexPattern([70, 100, 110, 80], '+-++', 1);
    expect(folded(pattern, 1).fold(1)).toBeCloseTo(2 * radToDeg(Math.atan(Math.tan(degToRad(0.5)) / 0.0902302645)), 5);
  });
  test('any flat-foldable vertex folds exactly flat', () => {
    // Kawasaki-Justin: alternating sectors sum to 180. Big-little-big: the creases of the one smallest sector differ;
    // Maekawa: |M - V| = 2.
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 75 }), fc.integer({ min: 5, max: 25 }), (a, more) => {
        const b = a + more;
        const { pose, assembly } = folded(vertexPattern([a, b, 180 - a, 180 - b], '+-++'), 180);
        expect(pose.stop).toBeUndefined();
        assembly.creases.forEach((c) => expect(Math.abs(foldDeg(pose, c))).toBe(180));
        assembly.facets.forEach((f, i) =>
          f.polygon.outer.forEach((p) => expect(Math.abs(onFacet(pose, i, p)[2])).toBeLessThan(1e-9)),
        );
      }),
      { numRuns: 30 },
    );
  });
});

describe('parallelogram grid, sector 60', () => {
  // Closed form: tan(straight/2) = cos 60° tan(zigzag/2); the driven crease here is of a line that folds fast.
  test.each([10, 60, 90, 120, 170])('driven to %d every crease agrees with the closed form', (deg) => {
    const { assembly, pose } = folded(parallelogramGrid(6, 6), deg);
    const slow = 2 * radToDeg(Math.atan(0.5 * Math.tan(degToRad(deg) / 2)));
    for (const c of assembly.creases) {
      const size = Math.abs(foldDeg(pose, c));
      expect(Math.min(Math.abs(size - deg), Math.abs(size - slow))).toBeLessThan(1e-7);
    }
    expect(largestGap(assembly.linkage, placeBodies(assembly.linkage, pose.folds.q)).mm).toBeLessThan(1e-6);
  });
  test('folded fully it is exactly flat', () => {
    const { assembly, pose } = folded(parallelogramGrid(6, 6), 180);
    assembly.creases.forEach((c) => expect(Math.abs(foldDeg(pose, c))).toBe(180));
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
  });
});

describe('what stays free and what bends', () => {
  test('a degree-6 vertex settles at least crease energy: no nearby closed pose has less', () => {
    const { assembly, pose } = folded(vertexPattern([60, 60, 60, 60, 60, 60], '+-+-+-'), 60);
    const { linkage, travel } = assembly;
    expect(travel.order.blocks[0].freedoms).toBe(2);
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
    // Equal lengths: energy is the sum of squares about role x 60; the mirror about the driven crease must hold.
    const q = [...pose.folds.q];
    const deg = (k: number): number => radToDeg(q[linkage.joints.findIndex((j) => j.id === `pattern.e${k}`)]);
    expect(deg(1)).toBeCloseTo(deg(5), 5);
    expect(deg(2)).toBeCloseTo(deg(4), 5);
  });
  test.each([
    ['+++-+', [60, 80, 70, 90, 60], 40],
    ['+-++-+-+', [45, 45, 45, 45, 45, 45, 45, 45], 150],
    ['+--+--', [45, 90, 45, 45, 90, 45], 120],
  ])('roles %s are kept where folds are free', (roles, sectors, deg) => {
    const { assembly, pose } = folded(vertexPattern(sectors, roles), deg);
    expect(pose.stop).toBeUndefined();
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
    assembly.linkage.joints.forEach((j, i) => expect(pose.folds.q[i] * j.role).toBeGreaterThan(-1e-6));
  });
  test('the linkage of a grid whose sectors do not match bends, and says by how much', () => {
    const grid = parallelogramGrid(4, 4);
    const bentVertices = grid.vertices.map((v, i): readonly [number, number] =>
      i === 12 ? [v[0] + 1.2, v[1] + 0.8] : v,
    );
    const { assembly } = assembleCreasePattern({ ...grid, vertices: bentVertices });
    const pose = poseOpen(assembly, 120);
    expect(pose.flexMm).toBeGreaterThan(1e-3);
    expect(pose.flexMm).toBeLessThan(5);
    expect(poseOpen(assembly, 180).flexMm).toBe(0);
  });
  test('least bending leaves a rigid pose as it is', () => {
    const { assembly, pose } = folded(parallelogramGrid(4, 4), 70);
    const bodies = placeBodies(assembly.linkage, pose.folds.q);
    expect(leastBending(assembly.linkage, bodies, pose.folds.q).gap.mm).toBeLessThan(1e-6);
  });
});

test('bodies that hang on nothing stay where they are, and the others bend as they would without them', () => {
  const { assembly, pose } = folded(parallelogramGrid(4, 4), 70);
  const bodies = placeBodies(assembly.linkage, pose.folds.q);
  const pulled = bodies.map((b, i) => (i === 3 ? compose(turnAbout([1, 2, 0], [0, 0, 1], 0.01), b) : b));
  const loose = compose(turnAbout([5, 1, 2], [0, 1, 0], 0.7), identity());
  const alone = leastBending(assembly.linkage, pulled, pose.folds.q);
  const together = leastBending({ ...assembly.linkage, bodies: bodies.length + 1 }, [...pulled, loose], pose.folds.q);
  expect(together.gap.mm).toBeCloseTo(alone.gap.mm, 6);
  together.bodies[bodies.length].forEach((v, i) => expect(v).toBeCloseTo(loose[i], 6));
  // Nothing but loose bodies.
  expect(
    leastBending({ ...assembly.linkage, joints: [], bodies: 3 }, [identity(), loose, loose], pose.folds.q).gap.mm,
  ).toBe(0);
});

test('the same question gives the same answer, whatever was asked before', () => {
  const one = assembleCreasePattern(vertexPattern([70, 100, 110, 80], '+-++')).assembly;
  const two = assembleCreasePattern(vertexPattern([70, 100, 110, 80], '+-++')).assembly;
  [170, 20, 91.5, 3].forEach((d) => poseOpen(one, d));
  expect([...poseOpen(one, 47).folds.q]).toEqual([...poseOpen(two, 47).folds.q]);
});

test('placing a sheet on another keeps the plane', () => {
  expect(applyRigid(placeOnSheet([3, 4], [0, 1]), [2, 0, 0])).toEqual([3, 6, 0]);
});

test('a track away from the origin carries its start along straight runs and arcs, and turns with them', () => {
  const track: Motion = {
    kind: 'track',
    start: [3, -4, 2],
    heading: [0, 1, 0],
    normal: [0, 0, 1],
    runs: [
      { lengthMm: 10, curvature: 0 },
      { lengthMm: 40, curvature: 0.05 },
    ],
  };
  // Ten up, then round a centre 20 to the left of (3, 6).
  for (const along of [0, 5, 10, 25, 37]) {
    const t = Math.max(0, along - 10) / 20;
    const moved = motionAt(track, along);
    const at = applyRigid(moved, [3, -4, 2]);
    const want = along <= 10 ? [3, -4 + along, 2] : [-17 + 20 * Math.cos(t), 6 + 20 * Math.sin(t), 2];
    at.forEach((x, k) => expect(x).toBeCloseTo(want[k], 9));
    expect(Math.atan2(moved[4], moved[0])).toBeCloseTo(t, 9);
    // Its velocity is the derivative of that way.
    const { w, v } = twistAt(track, along + 0.001);
    const [x, y] = applyRigid(motionAt(track, along + 0.001), [3, -4, 2]);
    const step = 1e-4;
    const [far, near] = [1, -1].map((s) => applyRigid(motionAt(track, along + 0.001 + s * step), [3, -4, 2]));
    expect((far[0] - near[0]) / (2 * step)).toBeCloseTo(v[0] - w[2] * y, 5);
    expect((far[1] - near[1]) / (2 * step)).toBeCloseTo(v[1] + w[2] * x, 5);
  }
});
