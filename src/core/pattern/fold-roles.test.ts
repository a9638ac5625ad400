/**
 * Mountains and valleys at flat vertices: against a brute force over all orders of the layers, against counts of the
 * literature (Hull, "The combinatorics of flat folds", from memory), and over whole grids.
 */
import fc from 'fast-check';
import type { TemplateLine } from './mending';
import { foldChoices, foldsFlat, foldVertices, MOST_CHOICES, type Fold } from './fold-roles';
import type { Vec2 } from '../plane/vec2';

const DEG = Math.PI / 180;
const rad = (...deg: number[]): number[] => deg.map((d) => d * DEG);
const choicesOf = (n: number): Fold[][] =>
  Array.from({ length: 2 ** n }, (_, k) =>
    Array.from({ length: n }, (_x, i) => ((k >> i) & 1 ? 'mountain' : 'valley')),
  );
const wordOf = (folds: readonly Fold[]): string => folds.map((f) => f[0]).join('');
const flat = (sectors: readonly number[]): Set<string> =>
  new Set(
    choicesOf(sectors.length)
      .filter((c) => foldsFlat(sectors, c))
      .map(wordOf),
  );

function* orders(n: number, taken: readonly number[] = []): Generator<readonly number[]> {
  if (taken.length === n) return yield taken;
  for (let k = 0; k < n; k++) if (!taken.includes(k)) yield* orders(n, [...taken, k]);
}

/**
 * Folded flat the sectors lie along a line, to and fro. An order of layers is sound where no sector lies across a fold
 * between its two layers, and folds in one place lie within or beside each other.
 */
function bruteForce(sectors: readonly number[]): Set<string> {
  const n = sectors.length;
  const x = [0];
  sectors.forEach((a, i) => x.push(x[i] + (i % 2 === 0 ? a : -a)));
  const out = new Set<string>();
  if (Math.abs(x[n]) > 1e-6) return out;
  const side = (crease: number): 1 | -1 => (crease % 2 === 0 ? 1 : -1);
  const between = (v: number, p: number, q: number): boolean => v > Math.min(p, q) && v < Math.max(p, q);
  for (const layer of orders(n)) {
    const of = (crease: number): [number, number] => [layer[(crease + n - 1) % n], layer[crease]];
    const sound = Array.from({ length: n }, (_, c) => {
      const [p, q] = of(c);
      const crossed = sectors.some((_a, j) => {
        const [from, to] = [Math.min(x[j], x[j + 1]), Math.max(x[j], x[j + 1])];
        return j !== c && j !== (c + n - 1) % n && from < x[c] - 1e-9 && to > x[c] + 1e-9 && between(layer[j], p, q);
      });
      const tangled = Array.from({ length: n }, (_b, d) => {
        if (d === c || Math.abs(x[d] - x[c]) > 1e-9 || side(d) !== side(c)) return false;
        const [r, s] = of(d);
        return between(r, p, q) !== between(s, p, q);
      }).some(Boolean);
      return !crossed && !tangled;
    }).every(Boolean);
    if (!sound) continue;
    out.add(
      wordOf(
        Array.from({ length: n }, (_, c): Fold => {
          const [p, q] = of(c);
          return q > p === (c % 2 === 0) ? 'mountain' : 'valley';
        }),
      ),
    );
  }
  return out;
}
/** Which of the two is called a valley does not matter for a set that holds every choice turned over. */
const turnedOver = (words: ReadonlySet<string>): Set<string> =>
  new Set([...words].map((w) => [...w].map((f) => (f === 'v' ? 'm' : 'v')).join('')));

const degrees = (n: number) =>
  fc.tuple(...Array.from({ length: n }, () => fc.integer({ min: 2, max: 9 }))).map((parts) => {
    // Every second sector adds up to half a turn (Kawasaki).
    const scaled = (from: number): number[] => {
      const own = parts.filter((_, i) => i % 2 === from);
      const sum = own.reduce((s, p) => s + p, 0);
      return own.map((p) => (180 * p) / sum);
    };
    const [even, odd] = [scaled(0), scaled(1)];
    return parts.map((_, i) => (i % 2 === 0 ? even : odd)[i >> 1] * DEG);
  });

test.each([4, 6])('of %d creases: the choices that some order of the layers allows, no others (brute force)', (n) => {
  fc.assert(
    fc.property(degrees(n), (sectors) => {
      const found = flat(sectors);
      const real = bruteForce(sectors);
      expect(new Set([...real, ...turnedOver(real)])).toEqual(found);
    }),
    { numRuns: n === 4 ? 60 : 12 },
  );
});

test('counts of the literature: 4 with one narrowest sector, 8 of right angles, 30 of six, 6 of two pairs', () => {
  expect(flat(rad(50, 80, 130, 100)).size).toBe(4);
  expect(flat(rad(90, 90, 90, 90)).size).toBe(8);
  expect(flat(rad(60, 60, 60, 60, 60, 60)).size).toBe(30);
  expect(flat(rad(60, 60, 120, 120)).size).toBe(6);
  // Not by Kawasaki, not by an odd number.
  expect(flat(rad(50, 80, 100, 130)).size).toBe(0);
  expect(flat(rad(120, 120, 120)).size).toBe(0);
});

const line = (id: string, role: TemplateLine['role'], ...points: Vec2[]): TemplateLine => ({
  id,
  role,
  closed: false,
  points,
});

/** A square of 100 with creases from its middle to points of its edge. */
const star = (...ends: Vec2[]): TemplateLine[] => [
  {
    id: 'edge',
    role: 'cut',
    closed: true,
    points: [
      [-50, -50],
      [50, -50],
      [50, 50],
      [-50, 50],
    ],
  },
  ...ends.map((p, i) => line(`c${i}`, 'valley', [0, 0], p)),
];

test('vertices are where creases meet away from cuts; what is known stays, the rest is offered', () => {
  const lines = star([50, 0], [0, 50], [-50, 0], [0, -50]);
  const [vertex, ...more] = foldVertices(lines);
  expect(more).toEqual([]);
  expect(vertex.sectors.map((a) => Math.round(a / DEG))).toEqual([90, 90, 90, 90]);
  const choices = foldChoices(
    [vertex],
    new Map([
      ['c0', 'valley'],
      ['c2', 'mountain'],
    ]),
  );
  // Opposite creases of right angles that differ: the other two are alike (Maekawa).
  expect(choices.map((c) => [c.get('c1'), c.get('c3')])).toEqual([
    ['valley', 'valley'],
    ['mountain', 'mountain'],
  ]);
  expect(foldVertices([...lines, line('slit', 'cut', [0, 0], [20, 20])])).toEqual([]);
  const through = [lines[0], line('along', 'valley', [-50, 0], [50, 0]), line('across', 'valley', [0, -50], [0, 50])];
  expect(foldChoices(foldVertices(through), new Map())).toEqual([]);
});

test('over a grid of parallelograms every choice folds flat at every vertex; so many are offered at most', () => {
  const at = (i: number, j: number): Vec2 => [20 * i + (j % 2 === 0 ? 0 : 8), 20 * j];
  const lines: TemplateLine[] = [];
  for (let j = 0; j <= 4; j++)
    for (let i = 0; i <= 4; i++) {
      if (i < 4 && j > 0 && j < 4) lines.push(line(`h${i}${j}`, 'valley', at(i, j), at(i + 1, j)));
      if (j < 4 && i > 0 && i < 4) lines.push(line(`v${i}${j}`, 'valley', at(i, j), at(i, j + 1)));
    }
  const edge = [at(0, 0), at(4, 0), at(4, 1), at(4, 2), at(4, 3), at(4, 4), at(0, 4), at(0, 3), at(0, 2), at(0, 1)];
  lines.push({ id: 'edge', role: 'cut', closed: true, points: edge });
  const vertices = foldVertices(lines);
  expect(vertices.length).toBe(9);
  const choices = foldChoices(vertices, new Map([['h01', 'valley']]));
  expect(choices.length).toBe(MOST_CHOICES);
  for (const choice of choices)
    for (const v of vertices)
      expect(
        foldsFlat(
          v.sectors,
          v.creases.map((c) => choice.get(c)!),
        ),
      ).toBe(true);
});
