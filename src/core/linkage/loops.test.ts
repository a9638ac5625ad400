/** Cycle bases of random joint graphs against the theorems of graph theory. */
import fc from 'fast-check';
import { OPENING_RANGE, type Joint, type Linkage } from './joint';
import { jointsAt, shortLoops, type Loop } from './loops';

const joint = (a: number, b: number): Joint => ({
  id: `${a}-${b}`,
  a,
  b,
  motion: { kind: 'hinge', point: [0, 0, 0], axis: [0, 0, 1] },
  placement: null,
  role: 0,
  ends: [undefined, undefined],
  span: [
    [0, 0, 0],
    [0, 0, 1],
  ],
});

/** A random graph: bodies, and pairs of different ones. */
const graph = fc.integer({ min: 2, max: 12 }).chain((bodies) =>
  fc.record({
    bodies: fc.constant(bodies),
    pairs: fc.array(
      fc
        .tuple(fc.integer({ min: 0, max: bodies - 1 }), fc.integer({ min: 0, max: bodies - 1 }))
        .filter(([a, b]) => a !== b),
      { maxLength: 30 },
    ),
  }),
);
const linkageOf = ({ bodies, pairs }: { bodies: number; pairs: [number, number][] }): Linkage => ({
  bodies,
  joints: pairs.map(([a, b]) => joint(a, b)),
  drives: [OPENING_RANGE],
});

function parts({ bodies, joints }: Linkage): number {
  const group = Array.from({ length: bodies }, (_, i) => i);
  const find = (i: number): number => (group[i] === i ? i : find(group[i]));
  joints.forEach((j) => {
    group[find(j.a)] = find(j.b);
  });
  return new Set(group.map((_, i) => find(i))).size;
}

/** Rank over GF(2) of the loops as sets of joints, by elimination on whole numbers. */
function rank(loops: readonly Loop[]): number {
  let rows = loops.map((l) => l.steps.reduce((bits, s) => bits ^ (1n << BigInt(s.joint)), 0n)).filter((r) => r !== 0n);
  let count = 0;
  while (rows.length > 0) {
    const [pivot, ...rest] = rows;
    const low = pivot & -pivot;
    rows = rest.map((r) => ((r & low) !== 0n ? r ^ pivot : r)).filter((r) => r !== 0n);
    count++;
  }
  return count;
}

test('there are joints - bodies + parts of them (the cyclomatic number), and they are independent', () => {
  fc.assert(
    fc.property(graph, (g) => {
      const linkage = linkageOf(g);
      const loops = shortLoops(linkage);
      expect(loops).toHaveLength(linkage.joints.length - linkage.bodies + parts(linkage));
      expect(rank(loops)).toBe(loops.length);
    }),
    { numRuns: 200 },
  );
});

test('each one really goes round: every step begins where the last one ended', () => {
  fc.assert(
    fc.property(graph, (g) => {
      const { joints } = linkageOf(g);
      for (const { steps } of shortLoops(linkageOf(g))) {
        const from = (k: number): number => (steps[k].forward ? joints[steps[k].joint].a : joints[steps[k].joint].b);
        const to = (k: number): number => (steps[k].forward ? joints[steps[k].joint].b : joints[steps[k].joint].a);
        steps.forEach((_, k) => expect(to(k)).toBe(from((k + 1) % steps.length)));
        expect(new Set(steps.map((s) => s.joint)).size).toBe(steps.length);
      }
    }),
    { numRuns: 100 },
  );
});

test('joints at a body: each joint stands at its two ends (handshake lemma)', () => {
  fc.assert(
    fc.property(graph, (g) => {
      const linkage = linkageOf(g);
      expect(jointsAt(linkage).reduce((n, list) => n + list.length, 0)).toBe(2 * linkage.joints.length);
    }),
  );
});
