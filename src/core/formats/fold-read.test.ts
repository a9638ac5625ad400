import fc from 'fast-check';
import { assembleCreasePattern, PatternError } from '../assembly/crease-pattern';
import { poseOpen } from '../assembly/pose';
import { foldText, vertexPattern } from '../tests/patterns';
import { readFold } from './fold-read';

const good = JSON.parse(foldText(vertexPattern([70, 100, 110, 80], '+-++'))) as Record<string, unknown>;
const tried = (change: object) => readFold(JSON.stringify({ ...good, ...change }));

test('what it takes: extra keys, heights of zero, fold angles that agree', () => {
  expect(tried({ file_title: 'x', custom: [1, 2, 3] }).ok).toBe(true);
  expect(tried({ vertices_coords: (good.vertices_coords as number[][]).map((v) => [...v, 0]) }).ok).toBe(true);
  const angles = (good.edges_assignment as string[]).map((a) => (a === 'V' ? 90 : a === 'M' ? -90 : 0));
  const read = tried({ edges_foldAngle: angles });
  if (!read.ok) throw new Error(read.why);
  // The first crease is meant to reach the angle the file gives it.
  expect(assembleCreasePattern(read.pattern).leadDeg).toBe(90);
});

test('joins and flat edges are paper that goes on', () => {
  for (const letter of ['F', 'J']) {
    const read = tried({
      vertices_coords: [
        [0, 0],
        [20, 0],
        [20, 10],
        [0, 10],
        [10, 0],
        [10, 10],
        [15, 0],
        [15, 10],
      ],
      edges_vertices: [
        [4, 5],
        [6, 7],
        [0, 4],
        [4, 6],
        [6, 1],
        [1, 2],
        [2, 7],
        [7, 5],
        [5, 3],
        [3, 0],
      ],
      edges_assignment: ['V', letter, 'B', 'B', 'B', 'B', 'B', 'B', 'B', 'B'],
    });
    if (!read.ok) throw new Error(read.why);
    expect(assembleCreasePattern(read.pattern).assembly.facets).toHaveLength(2);
  }
});

test('angles that contradict their assignment are refused', () => {
  const angles = (good.edges_assignment as string[]).map((a) => (a === 'M' ? 90 : 0));
  expect(tried({ edges_foldAngle: angles })).toMatchObject({
    ok: false,
    why: expect.stringMatching(/valley angles are positive/),
  });
});

test('border that does not close, and creases that drive nothing, are refused when folded', () => {
  const open = tried({
    edges_assignment: (good.edges_assignment as string[]).map((a, i) => (a === 'B' && i === 4 ? 'C' : a)),
  });
  if (open.ok) expect(() => assembleCreasePattern(open.pattern)).toThrow(PatternError);
  const dangling = tried({
    vertices_coords: [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
      [5, 5],
      [6, 6],
    ],
    edges_vertices: [
      [4, 5],
      [0, 1],
      [1, 2],
      [2, 3],
      [3, 0],
    ],
    edges_assignment: ['M', 'B', 'B', 'B', 'B'],
  });
  if (!dangling.ok) throw new Error(dangling.why);
  expect(() => assembleCreasePattern(dangling.pattern)).toThrow(/edge 0/);
});

test('any JSON at all gives an answer, never an exception', () => {
  const value = fc.oneof(
    fc.jsonValue(),
    fc.array(fc.array(fc.double())),
    fc.array(fc.constantFrom('M', 'V', 'B', 'U', '', 'ZZ')),
  );
  fc.assert(
    fc.property(value, value, value, (coords, edges, assigned) => {
      const read = readFold(
        JSON.stringify({ vertices_coords: coords, edges_vertices: edges, edges_assignment: assigned }),
      );
      expect(typeof read.ok).toBe('boolean');
    }),
    { numRuns: 200 },
  );
});

test('random vertices, assigned at random, either fold with loops closed or say why they stop', () => {
  const sectors = fc.array(fc.integer({ min: 25, max: 120 }), { minLength: 4, maxLength: 6 }).map((list) => {
    const sum = list.reduce((a, b) => a + b);
    return list.map((s) => (s * 360) / sum);
  });
  fc.assert(
    fc.property(
      sectors,
      fc.array(fc.constantFrom('+', '-'), { minLength: 6, maxLength: 6 }),
      fc.integer({ min: 1, max: 180 }),
      (list, roles, deg) => {
        fc.pre(list.every((s) => s < 175));
        const { assembly } = assembleCreasePattern(vertexPattern(list, roles.join('').slice(0, list.length)));
        const pose = poseOpen(assembly, 180 - deg);
        if (!pose.stop) expect(pose.folds.residualMm).toBeLessThan(1e-6);
        else expect(pose.stop.reason).toMatch(/taut|reversed|past-180|wrong-branch|no-start|not-rigid/);
        // Far enough from flat the bending shows.
        if (pose.stop?.reason === 'not-rigid' && deg > 20) expect(pose.flexMm).toBeGreaterThan(0);
        pose.placed.forEach((m) => m.forEach((x) => expect(Number.isFinite(x)).toBe(true)));
      },
    ),
    { numRuns: 40 },
  );
});

test('so many creases at one point are folded and no more', () => {
  const star = (n: number): string => {
    const at = Array.from({ length: n }, (_, k) => [Math.cos, Math.sin].map((f) => 100 * f((2 * Math.PI * k) / n)));
    const rim = at.map((_, k) => [k + 1, ((k + 1) % n) + 1]);
    return JSON.stringify({
      vertices_coords: [[0, 0], ...at],
      edges_vertices: [...rim, ...at.map((_, k) => [0, k + 1])],
      edges_assignment: [...rim.map(() => 'B'), ...at.map((_, k) => 'MV'[k % 2])],
    });
  };
  const folded = (n: number): number => {
    const read = readFold(star(n));
    if (!read.ok) throw new Error(read.why);
    return assembleCreasePattern(read.pattern).assembly.creases.length;
  };
  expect([198, 200].map(folded)).toEqual([198, 200]);
  expect(() => folded(202)).toThrow('202 creases meet at vertex 0; at most 200 are folded together');
});
