import fc from 'fast-check';
import { bezierOf, strokesOf } from './arcs';
import { arrange } from './arrangement';
import { chainEdges } from './chain';
import { commonStretches, reachBeside, stretchesInside } from './chord';
import { preparePolygon } from './prepared';
import { contains, distanceToEdge, rectangle, type Polygon } from './polygon';
import { dist2, type Vec2 } from './vec2';

const edgesOf = (points: readonly Vec2[], closed: boolean): string[] =>
  (closed ? [...points, points[0]] : points).slice(1).map((b, i) =>
    [points[i], b]
      .map((p) => p.join())
      .sort()
      .join('|'),
  );

describe('chains', () => {
  // Euler 1736: a connected figure with 2k odd corners is drawn in k strokes, or in one where there are none.
  test('random grid figures: every edge once, in as few lines as Euler allows', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(23), { minLength: 1, maxLength: 24 }), (picked) => {
        const points = Array.from({ length: 16 }, (_, k): Vec2 => [
          (k % 4) * 10 + ((k * 37) % 11) * 0.31,
          Math.floor(k / 4) * 9 + ((k * k * 5) % 13) * 0.23,
        ]);
        const all: [number, number][] = [];
        for (let k = 0; k < 16; k++) {
          if (k % 4 < 3) all.push([k, k + 1]);
          if (k < 12) all.push([k, k + 4]);
        }
        const edges = picked.map((k) => all[k]);
        const chains = chainEdges(points, edges);
        const drawn = chains.flatMap((c) => edgesOf(c.points, c.closed)).sort();
        expect(drawn).toEqual(
          edges
            .map(([a, b]) =>
              [points[a], points[b]]
                .map((p) => p.join())
                .sort()
                .join('|'),
            )
            .sort(),
        );
        const group = points.map((_, i) => i);
        const find = (i: number): number => (group[i] === i ? i : find(group[i]));
        edges.forEach(([a, b]) => (group[find(a)] = find(b)));
        const degree = points.map((_, i) => edges.filter((e) => e.includes(i)).length);
        const parts = [...new Set(edges.map(([a]) => find(a)))];
        const fewest = parts.reduce((n, root) => {
          const odd = degree.filter((d, i) => d % 2 === 1 && find(i) === root).length;
          return n + Math.max(1, odd / 2);
        }, 0);
        expect(chains).toHaveLength(fewest);
      }),
      { numRuns: 120 },
    );
  });
  test('goes straight on where it can, closes what closes, and leaves out middles of straight lines', () => {
    const { vertices, edges } = arrange([
      { a: [0, 0], b: [20, 0] },
      { a: [10, -5], b: [10, 5] },
    ]);
    const chains = chainEdges(
      vertices,
      edges.map((e) => [e.from, e.to]),
    );
    expect(chains.map((c) => c.points.map((p) => p.join()).sort())).toEqual(
      expect.arrayContaining([
        ['0,0', '20,0'],
        ['10,-5', '10,5'],
      ]),
    );
    const ring = chainEdges(
      [
        [0, 0],
        [5, 0],
        [10, 0],
        [10, 8],
      ],
      [
        [0, 1],
        [1, 2],
        [2, 3],
        [3, 0],
      ],
    );
    expect(ring).toHaveLength(1);
    expect(ring[0].closed).toBe(true);
    expect(ring[0].points).toHaveLength(3);
  });
});

describe('arcs', () => {
  const circle = (n: number, r: number, from = 0, to = 2 * Math.PI): Vec2[] =>
    Array.from({ length: n }, (_, k): Vec2 => {
      const t = from + ((to - from) * k) / n;
      return [r * Math.cos(t) + 3, r * Math.sin(t) - 2];
    });
  test('the chords of a circle become arcs of its radius that turn once round', () => {
    const strokes = strokesOf(circle(200, 25), true);
    expect(strokes.length).toBeLessThan(4);
    let turned = 0;
    for (const s of strokes) {
      if (s.kind !== 'arc') throw new Error('a chord was left');
      expect(s.radiusMm).toBeCloseTo(25, 6);
      expect(dist2(s.centre, [3, -2])).toBeLessThan(1e-6);
      turned += s.sweepRad;
    }
    expect(turned).toBeCloseTo(2 * Math.PI, 6);
  });
  test('a polygon with corners stays one: 12 sides are 0.7 mm off their circle', () => {
    expect(strokesOf(circle(12, 20), true).every((s) => s.kind === 'line')).toBe(true);
    expect(
      strokesOf(
        [
          [0, 0],
          [10, 0],
          [10, 10],
          [0, 10],
          [0, 20],
        ],
        false,
      ),
    ).toHaveLength(4);
  });
  test('clockwise arcs turn the other way, and no stroke leaves its chords by more than 0.015 mm', () => {
    const back = strokesOf([...circle(80, 12, 0, 2)].reverse(), false);
    expect(back.every((s) => s.kind === 'line' || (s.kind === 'arc' && s.sweepRad < 0))).toBe(true);
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 10, max: 60, noNaN: true }),
        (flat, r) => {
          // An ellipse is no circle anywhere: its chords are drawn within 0.01 mm.
          const points = Array.from({ length: 720 }, (_, k): Vec2 => [
            r * Math.cos((k * Math.PI) / 360),
            flat * r * Math.sin((k * Math.PI) / 360),
          ]);
          let from = points[0];
          for (const s of strokesOf(points, true)) {
            const ends: Vec2[] = s.kind === 'line' ? [s.to] : bezierOf(from, s).map((b) => b[2]);
            for (const p of ends) expect(Math.abs(Math.hypot(p[0], p[1] / flat) - r)).toBeLessThan(0.02 / flat);
            from = s.to;
          }
          expect(from).toEqual(points[0]);
        },
      ),
      { numRuns: 25 },
    );
  });
  test.each([4, 40, 400])('Bézier curves keep to an arc of radius %f mm within 0.002 mm', (r0) => {
    const [arc] = strokesOf(circle(900, r0, 0.3, 3), false);
    if (arc.kind !== 'arc') throw new Error('no arc');
    let from: Vec2 = circle(900, r0, 0.3, 3)[0];
    for (const [p, q, r] of bezierOf(from, arc)) {
      for (let k = 1; k < 10; k++) {
        const t = k / 10;
        const at = [0, 1].map(
          (i) => (1 - t) ** 3 * from[i] + 3 * t * (1 - t) ** 2 * p[i] + 3 * t * t * (1 - t) * q[i] + t ** 3 * r[i],
        );
        expect(Math.abs(dist2([at[0], at[1]], arc.centre) - r0)).toBeLessThan(0.002);
      }
      from = r;
    }
  });
});

describe('cubics', () => {
  const size = fc.double({ min: -60, max: 60, noNaN: true });
  const control = fc.array(fc.tuple(size, size), { minLength: 4, maxLength: 4 });
  /** De Casteljau, straight from the definition. */
  const pointOf = (c: readonly Vec2[], t: number): Vec2 => {
    if (c.length === 1) return c[0];
    const next = c.slice(1).map((p, i): Vec2 => [0, 1].map((a) => c[i][a] + (p[a] - c[i][a]) * t) as unknown as Vec2);
    return pointOf(next, t);
  };
  test('what was drawn from a cubic goes out as the same cubic, in one stroke', () => {
    let found = 0;
    fc.assert(
      fc.property(control, (c) => {
        const points = Array.from({ length: 161 }, (_, k) => pointOf(c, k / 160));
        const strokes = strokesOf(points, false);
        if (strokes.length !== 1 || strokes[0].kind !== 'cubic') return;
        found++;
        expect(dist2(strokes[0].c1, c[1])).toBeLessThan(1e-3);
        expect(dist2(strokes[0].c2, c[2])).toBeLessThan(1e-3);
      }),
      { numRuns: 200, seed: 4 },
    );
    // The others turn so sharply somewhere that 160 chords leave the curve by more than curves are drawn with.
    expect(found).toBeGreaterThan(150);
  });
  test('a part of a cubic is a cubic: cut at two parameters, it is still one stroke within 0.002 mm', () => {
    const c: Vec2[] = [
      [0, 0],
      [20, 60],
      [50, -30],
      [80, 20],
    ];
    const ts = [0.131, ...Array.from({ length: 70 }, (_, k) => 0.14 + k * 0.01), 0.8345];
    const [stroke, ...more] = strokesOf(
      ts.map((t) => pointOf(c, t)),
      false,
    );
    if (stroke.kind !== 'cubic') throw new Error(`a ${stroke.kind}`);
    expect(more).toEqual([]);
    const mine = [pointOf(c, 0.131), stroke.c1, stroke.c2, stroke.to];
    for (let k = 0; k <= 20; k++) {
      // The same parameter, for a part of a cubic runs evenly with the whole.
      const [p, q] = [pointOf(mine, k / 20), pointOf(c, 0.131 + (k / 20) * (0.8345 - 0.131))];
      expect(dist2(p, q)).toBeLessThan(0.002);
    }
  });
  test('a zigzag and a polygon of 30 sides stay as they are', () => {
    const zigzag = Array.from({ length: 40 }, (_, k): Vec2 => [k, k % 2]);
    expect(strokesOf(zigzag, false).every((s) => s.kind === 'line')).toBe(true);
    const polygon = Array.from({ length: 30 }, (_, k): Vec2 => [
      50 * Math.cos((k * Math.PI) / 15),
      30 * Math.sin((k * Math.PI) / 15),
    ]);
    expect(strokesOf(polygon, true).every((s) => s.kind === 'line')).toBe(true);
  });
});

describe('lines through a polygon', () => {
  const frame: Polygon = { outer: rectangle(0, 0, 30, 20), holes: [[...rectangle(10, 5, 20, 15)].reverse()] };
  test('stretches inside, holes left out; what two have in common; reach to both sides', () => {
    expect(stretchesInside(frame, [-5, 10], [1, 0])).toEqual([
      { from: 5, to: 15 },
      { from: 25, to: 35 },
    ]);
    expect(
      commonStretches(
        [{ from: 0, to: 5 }],
        [
          { from: 4, to: 9 },
          { from: 5, to: 6 },
        ],
      ),
    ).toEqual([{ from: 4, to: 5 }]);
    expect(reachBeside(frame, [5, 10], [0, 1])).toBe(10);
    expect(reachBeside(frame, [15, 2], [0, 1])).toBe(2);
    expect(reachBeside(frame, [15, 10], [0, 1])).toBe(0);
  });
  test('a prepared polygon answers as the plain questions do', () => {
    const ready = preparePolygon(frame);
    fc.assert(
      fc.property(
        fc.double({ min: -9, max: 40, noNaN: true }),
        fc.double({ min: -9, max: 30, noNaN: true }),
        (x, y) => {
          expect(ready.contains([x, y])).toBe(contains(frame, [x, y]));
          expect(ready.distanceToEdge([x, y])).toBeCloseTo(distanceToEdge(frame, [x, y]), 9);
        },
      ),
    );
  });
});
