/** Sheets with many freedoms, sheets with none, and the algebra under both. */
import fc from 'fast-check';
import { Matrix, EigenvalueDecomposition, solve as denseSolve } from 'ml-matrix';
import { assembleCreasePattern, type CreasePattern } from '../assembly/crease-pattern';
import { foldDeg, onFacet, poseOpen } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { squaresInSquares, squareTwist, triangleGrid, vertexPattern, waterbombGrid } from '../tests/patterns';
import { card, stand } from '../tests/cards';
import { degToRad } from '../units/angle';
import { closeBlock } from './close';
import { denseAlgebra } from './dense-algebra';
import { jointLength } from './joint';
import { seeded } from './random';
import { SparseSymmetric } from './sparse';
import { sparseAlgebra, sparseRank } from './sparse-algebra';
import { jacobiSvd } from './svd';
import { buildSystem } from './system';

describe('sparse factors, against a general linear algebra package', () => {
  const quasiDefinite = fc.record({
    seed: fc.integer({ min: 1, max: 1e6 }),
    n: fc.integer({ min: 2, max: 14 }),
    m: fc.integer({ min: 1, max: 9 }),
  });
  test('random quasi-definite systems are solved alike, and pivots count the signs', () => {
    fc.assert(
      fc.property(quasiDefinite, ({ seed, n, m }) => {
        const random = seeded(seed);
        const size = n + m;
        const A = Matrix.zeros(size, size);
        const places: [number, number][] = [];
        const values: number[] = [];
        const put = (i: number, j: number, x: number): void => {
          places.push([i, j]);
          values.push(x);
          A.set(i, j, A.get(i, j) + x);
          if (i !== j) A.set(j, i, A.get(j, i) + x);
        };
        for (let k = 0; k < size; k++) put(k, k, k < n ? 0.5 + random() : -0.1 - random());
        for (let k = 0; k < 3 * size; k++) put(Math.floor(random() * n), n + Math.floor(random() * m), random() - 0.5);
        const sparse = new SparseSymmetric(size, places);
        expect(sparse.factor(values)).toBe(true);
        const right = Array.from({ length: size }, () => random() - 0.5);
        const x = sparse.solve(right);
        const y = denseSolve(A, Matrix.columnVector(right)).to1DArray();
        x.forEach((v, k) => expect(v).toBeCloseTo(y[k], 9));
        // Sylvester's law of inertia: signs of pivots are signs of eigenvalues.
        const eigen = new EigenvalueDecomposition(A, { assumeSymmetric: true }).realEigenvalues;
        expect([...sparse.pivots].filter((p) => p > 0)).toHaveLength(eigen.filter((e) => e > 0).length);
      }),
      { numRuns: 60 },
    );
  });
  test('a grid of n nodes fills its factor by far less than n²', () => {
    const at = (i: number, j: number): number => 30 * i + j;
    const places: [number, number][] = [];
    for (let i = 0; i < 30; i++)
      for (let j = 0; j < 30; j++) {
        places.push([at(i, j), at(i, j)]);
        if (i < 29) places.push([at(i, j), at(i + 1, j)]);
        if (j < 29) places.push([at(i, j), at(i, j + 1)]);
      }
    expect(new SparseSymmetric(900, places).fill).toBeLessThan(900 * 30);
  });
  test('a pivot that vanishes is told', () =>
    expect(
      new SparseSymmetric(2, [
        [0, 0],
        [1, 1],
      ]).factor([1, 0]),
    ).toBe(false));
});

describe('one block, two ways', () => {
  const { assembly } = assembleCreasePattern(triangleGrid(3, 4));
  const [block] = assembly.travel.order.blocks;
  const { linkage } = assembly;
  test('least change and rank agree with singular values', () => {
    const q = poseOpen(assembly, 120).folds.q.slice();
    const random = seeded(3);
    block.unknowns.forEach((j) => (q[j] += 0.02 * (random() - 0.5)));
    const [dense, sparse] = [denseAlgebra, sparseAlgebra].map(
      (make) => make(linkage, block)(q).newton(new Set()).delta,
    );
    dense.forEach((x, k) => expect(sparse[k]).toBeCloseTo(x, 5));
    const s = jacobiSvd(buildSystem(linkage, block.loops, block.unknowns, q).columns).values;
    const rank = s.filter((x) => x > 1e-7 * Math.max(...s)).length;
    expect(sparseRank(linkage, block.loops, block.unknowns, q)).toBe(rank);
    expect(block.freedoms).toBe(block.unknowns.length - rank);
  });
  test('the pose it settles at is of least energy: no small legal change has less', () => {
    const drive = degToRad(50);
    const { q } = poseOpen(assembly, 130).folds;
    const rest = (j: number): number => linkage.joints[j].role * drive;
    const energy = (p: Float64Array): number =>
      block.unknowns.reduce((sum, j) => sum + Math.max(1, jointLength(linkage.joints[j])) * (p[j] - rest(j)) ** 2, 0);
    const random = seeded(9);
    for (let k = 0; k < 25; k++) {
      const p = q.slice();
      block.unknowns.forEach((j) => (p[j] += 0.03 * (random() - 0.5)));
      // Closed again without the energy having a say, it may not lie lower.
      const closing = closeBlock(linkage, { ...block, freedoms: 0, overdetermined: false }, p, rest);
      if (closing.closed) expect(energy(p)).toBeGreaterThanOrEqual(energy(q) - 1e-9);
    }
  });
});

/** Worst change of an edge's length between the flat sheet and a pose, mm. */
function stretch(pattern: CreasePattern, openDeg: number): number {
  const { assembly } = assembleCreasePattern(pattern);
  const pose = poseOpen(assembly, openDeg);
  expect(pose.stop).toBeUndefined();
  expect(pose.folds.residualMm).toBeLessThan(1e-9);
  for (const c of assembly.creases)
    expect(foldDeg(pose, c) * (c.role === 'valley' ? 1 : -1)).toBeGreaterThanOrEqual(-1e-4);
  // The two facets of a crease agree where it lies.
  return assembly.creases.reduce((worst, c) => {
    const gap = [c.segments[0].a, c.segments[0].b].map((p) => {
      const [u, v] = [onFacet(pose, c.a, p), onFacet(pose, c.b, p)];
      return Math.hypot(u[0] - v[0], u[1] - v[1], u[2] - v[2]);
    });
    return Math.max(worst, ...gap);
  }, 0);
}

test.each([
  ['waterbomb 3 x 3', waterbombGrid(3, 3)],
  ['waterbomb 4 x 4', waterbombGrid(4, 4)],
  ['triangles 4 x 6', triangleGrid(4, 6)],
  ['triangles 8 x 20', triangleGrid(8, 20)],
])('%s folds with its loops closed and its roles kept', (_, pattern) => {
  for (const open of [165, 120, 90]) expect(stretch(pattern, open)).toBeLessThan(1e-6);
});

/** The same sheet with its creases written in another order: another one drives. */
function shuffled(pattern: CreasePattern, seed: number): CreasePattern {
  const random = seeded(seed);
  const edges = pattern.edges.map((e) => ({ e, at: random() })).sort((a, b) => a.at - b.at);
  return { ...pattern, edges: edges.map(({ e }) => e) };
}

test.each<[name: string, pattern: CreasePattern]>([
  ['waterbomb 5 x 4', waterbombGrid(5, 4)],
  ['waterbomb 4 x 5', waterbombGrid(4, 5)],
  ['waterbomb 6 x 6', waterbombGrid(6, 6)],
  // Orders that were given up at the start, or on the way where the evenest pose leaps.
  ...[2, 5, 7].map((seed): [string, CreasePattern] => [`4 x 4, order ${seed}`, shuffled(waterbombGrid(4, 4), seed)]),
  ...[3, 12].map((seed): [string, CreasePattern] => [`5 x 5, order ${seed}`, shuffled(waterbombGrid(5, 5), seed)]),
])('%s leaves the flat sheet whichever crease leads, and folds on', (_, pattern) => {
  for (const open of [175, 130, 95]) expect(stretch(pattern, open)).toBeLessThan(1e-6);
});

describe('single vertices of four creases', () => {
  // Huffman 1976, Tachi 2009: opposite folds are equal in size, and the tangents of half the neighbours' folds keep the
  // ratio cos((a + b)/2) / cos((a - b)/2) with a, b the sectors beside the odd crease.
  test('every flat-foldable one leaves the flat sheet from any of its creases, however slow', () => {
    const near = fc.double({ min: -2, max: 2, noNaN: true });
    const any = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(fc.oneof(fc.tuple(near, near), fc.tuple(any, any)), fc.nat(3), fc.nat(3), ([u, v], odd, first) => {
        const sectors = [90 + u, 90 + v, 90 - u, 90 - v];
        const [a, b] = [sectors[(odd + 3) % 4], sectors[odd]];
        fc.pre(a + b < 179.98 && sectors.every((s) => s > 8));
        const roles = [0, 1, 2, 3].map((i) => (i === odd ? '-' : '+')).join('');
        const { assembly } = assembleCreasePattern(vertexPattern(sectors, roles, first));
        const pose = poseOpen(assembly, 150);
        expect(pose.stop).toBeUndefined();
        const angles = sectors.map((_, i) => sectors.slice(0, i).reduce((s, x) => s + x, 0));
        const fold = (i: number): number => {
          const t = degToRad(angles[i]);
          const [x, y] = [50 * Math.cos(t), 50 * Math.sin(t)];
          const crease = assembly.creases.find(
            ({ segments: [{ a: p, b: q }] }) => Math.hypot(p[0] + q[0] - x, p[1] + q[1] - y) < 1e-6,
          )!;
          return Math.abs(foldDeg(pose, crease));
        };
        const p = Math.abs(Math.cos(degToRad((a + b) / 2)) / Math.cos(degToRad((a - b) / 2)));
        expect(fold(odd)).toBeCloseTo(fold((odd + 2) % 4), 6);
        const [own, beside] = [odd, (odd + 1) % 4].map((i) => Math.tan(degToRad(fold(i) / 2)));
        const ratio = own / beside;
        expect(Math.min(Math.abs(ratio * p - 1), Math.abs(ratio / p - 1))).toBeLessThan(1e-5);
      }),
      { numRuns: 150 },
    );
  });
});

describe('what does not fold rigidly', () => {
  // A square twist whose square is all mountains has no rigid motion (Evans, Lang, Magleby and Howell 2015, from
  // memory);
  // squares in squares have none either (Demaine, Demaine, Hart, Price and Tachi 2011, from memory).
  test.each([
    ['square twist', squareTwist(20, 30)],
    ['square twist, less turned', squareTwist(20, 15)],
    ['squares in squares', squaresInSquares(4)],
  ])('%s: said so, and by how much it would bend', (_, pattern) => {
    const { assembly } = assembleCreasePattern(pattern);
    const [little, more] = [170, 140].map((open) => poseOpen(assembly, open));
    expect([little.stop?.reason, more.stop?.reason]).toEqual(['not-rigid', 'not-rigid']);
    expect(little.flexMm).toBeGreaterThan(1e-3);
    expect(more.flexMm).toBeGreaterThan(little.flexMm);
    expect(more.state.open).toBe(140);
  });
});

test.each([1, 2, 3, 4, 5, 6])('squares in squares never fold rigidly, whichever crease leads (order %d)', (seed) => {
  const { assembly } = assembleCreasePattern(shuffled(squaresInSquares(4), seed));
  const poses = [170, 140, 90].map((open) => poseOpen(assembly, open));
  expect(poses.map((p) => p.stop?.reason)).toEqual(['not-rigid', 'not-rigid', 'not-rigid']);
  // Driven by a diagonal it can be folded across it with nothing bent, all other creases left flat; else it bends.
  const bends = poses.map((p) => p.flexMm);
  if (bends[0] > 0) expect([...bends].sort((a, b) => a - b)).toEqual(bends);
  else expect(bends).toEqual([0, 0, 0]);
});

test('a card whose poses lie anywhere in its travel is found: none needs to be at 54, 90 or 126 degrees', () => {
  // Glued over the fold with a riser and a tread that reach only while the leaves stand within a band of angles.
  for (const [depth, height, riser, tread] of [
    [60, 60, 35, 30],
    [60, 60, 20, 20],
    [50, 70, 60, 20],
    [80, 80, 80, 60],
  ]) {
    const { travel } = buildAssembly(
      stand(card(300, 200), 'step-fold', { build: 'glued', depth, height, riser, tread, width: 40 }),
    );
    // Law of cosines: base and wall are apart by sqrt(a² + b² - 2ab cos open), which riser and tread must span.
    const spans = Array.from({ length: 179 }, (_, k) => k + 1).filter((open) => {
      const apart = Math.sqrt(depth ** 2 + height ** 2 - 2 * depth * height * Math.cos(degToRad(open)));
      return apart < riser + tread && apart > Math.abs(riser - tread);
    });
    const widest = spans.length;
    if (widest < 8) continue;
    const middle = spans[Math.floor(widest / 2)];
    expect([open(travel, middle), middle]).toEqual([middle, middle]);
  }
});
const open = (travel: ReturnType<typeof buildAssembly>['travel'], deg: number): number => {
  const { folds, stop } = travel.at(degToRad(180 - deg));
  return stop ? -1 : Math.round(180 - (folds.drive * 180) / Math.PI);
};
