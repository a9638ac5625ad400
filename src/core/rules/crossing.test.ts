/**
 * Sheets that pass through each other, against brute force of the test's own: points scattered over one sheet, carried
 * into the plane of the other, and asked there with discs; every pair, every degree.
 */
import fc from 'fast-check';
import { poseOpen, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { applyRigid, compose, growBox3, invert, turnAbout, type Rigid } from '../linkage';
import { contains, distanceToEdge, rectangle, regionBox, type Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { gather } from '../proof/evidence';
import { findings, card, layered, stand } from '../tests/cards';
import { degToRad } from '../units/angle';
import { nearPairs, piercings, placePlates, platesOf, sweptBox, type Plate } from './plates';
import { crossingDepth, slabOf } from './crossing';

const square = (w: number, h: number): Polygon => ({ outer: rectangle(-w / 2, -h / 2, w / 2, h / 2), holes: [] });
const still = turnAbout([0, 0, 0], [0, 0, 1], 0);
/** Turned about x by `deg` and moved. */
const tilted = (deg: number, by: readonly [number, number, number] = [0, 0, 0]): Rigid => {
  const m = turnAbout([0, 0, 0], [1, 0, 0], degToRad(deg));
  const out = m.slice();
  out[3] = by[0];
  out[7] = by[1];
  out[11] = by[2];
  return out;
};
const depth = (a: Polygon, b: Polygon, placed: Rigid, beyond = 0.1): number =>
  crossingDepth(slabOf(a, still), slabOf(b, placed), beyond);

describe('two sheets in space', () => {
  test('an upright cross is as deep as the shorter arm', () => {
    expect(depth(square(40, 30), square(20, 24), tilted(90))).toBeCloseTo(12, 6);
    expect(depth(square(40, 30), square(20, 24), tilted(90, [0, 0, 7]))).toBeCloseTo(5, 6);
    // The sheets cross along 3 mm only: that far they would have to be drawn apart.
    expect(depth(square(40, 30), square(20, 24), tilted(90, [27, 0, 0]))).toBeCloseTo(3, 6);
  });
  test('leaning sheets: the reach beside the line times the sine between them', () => {
    for (const deg of [10, 30, 75, 150])
      expect(depth(square(200, 200), square(20, 24), tilted(deg))).toBeCloseTo(12 * Math.sin(degToRad(deg)), 6);
  });
  test('edge on edge counts: mirrored sheets that meet in their mirror plane', () => {
    expect(depth(square(20, 20), square(20, 20), tilted(90))).toBeCloseTo(10, 6);
  });
  test('what ends on the other, lies in its plane, or stands beside it only touches', () => {
    expect(depth(square(40, 30), square(20, 24), tilted(90, [0, 0, 12]))).toBe(0);
    expect(depth(square(40, 30), square(20, 24), tilted(0))).toBe(0);
    expect(depth(square(40, 30), square(20, 24), tilted(180, [0, 0, 0.2]))).toBe(0);
    expect(depth(square(40, 30), square(20, 24), tilted(90, [31, 0, 0]))).toBe(0);
  });
  test('just below, at and just above what is taken up', () => {
    for (const [past, hit] of [
      [0.499, false],
      [0.5, false],
      [0.501, true],
    ] as const)
      expect(depth(square(40, 30), square(20, 24), tilted(90, [0, 0, 12 - past]), 0.5) > 0).toBe(hit);
  });
  test('a finely drawn curve is a sheet like others', () => {
    const disc = {
      outer: Array.from({ length: 2000 }, (_, k): Vec2 => [
        15 * Math.cos((k * Math.PI) / 1000),
        15 * Math.sin((k * Math.PI) / 1000),
      ]),
      holes: [],
    };
    expect(depth(disc, disc, tilted(60))).toBeCloseTo(15 * Math.sin(degToRad(60)), 2);
    const ring = { ...disc, holes: [[...disc.outer].reverse().map(([x, y]): Vec2 => [x * 0.8, y * 0.8])] };
    // Through the hole of a ring nothing is touched.
    expect(depth(ring, square(10, 10), tilted(90))).toBe(0);
  });
});

/** A point where both sheets have a disc of radius `r` round it, along the lines of a grid: they surely cross there. */
function surelyCross(p: Plate, q: Plate, pose: Pose, r: number): number {
  const seen = compose(invert(pose.placed[q.facet]), pose.placed[p.facet]);
  const sine = Math.hypot(seen[2], seen[6]);
  const { min, max } = regionBox([p.polygon]);
  const clear = (s: Polygon, w: Vec2): boolean => contains(s, w) && distanceToEdge(s, w) > r;
  const STEP = 0.7;
  for (const axis of [0, 1] as const) {
    const place = (along: number, across: number): Vec2 => (axis === 0 ? [along, across] : [across, along]);
    for (let along = min[axis]; along <= max[axis]; along += STEP) {
      // Height over the other sheet is even along a line: it passes through at most once.
      const [low, high] = [min[1 - axis], max[1 - axis]];
      const [u, v] = [low, high].map((c) => applyRigid(seen, [...place(along, c), 0])[2]);
      if (u * v >= 0) continue;
      const at = place(along, low + ((high - low) * u) / (u - v));
      const [x, y] = applyRigid(seen, [at[0], at[1], 0]);
      if (clear(p.polygon, at) && clear(q.polygon, [x, y])) return r * sine;
    }
  }
  return 0;
}
/** Whether the sheets share any point at all, on a fine grid. */
const mayTouch = (p: Plate, q: Plate, pose: Pose): boolean =>
  surelyCross(p, q, pose, 0.02) > 0 || surelyCross(q, p, pose, 0.02) > 0;

const crowd = fc.record({
  a: fc.record({
    lean: fc.integer({ min: 25, max: 70 }),
    size: fc.integer({ min: 30, max: 60 }),
    at: fc.integer({ min: -30, max: 0 }),
  }),
  b: fc.record({
    lean: fc.integer({ min: 25, max: 70 }),
    size: fc.integer({ min: 30, max: 60 }),
    at: fc.integer({ min: 0, max: 30 }),
  }),
  step: fc.option(
    fc.record({
      depth: fc.integer({ min: 10, max: 45 }),
      height: fc.integer({ min: 10, max: 45 }),
      offset: fc.integer({ min: -40, max: 40 }),
    }),
  ),
  reachB: fc.integer({ min: 70, max: 120 }),
});
const design = ({ a, b, step, reachB }: typeof crowd extends fc.Arbitrary<infer T> ? T : never): Design => {
  const both = stand(
    stand(card(200, 110, reachB), 'v-fold', { ...a, at: undefined, fold: 90, offset: a.at, point: 'toward' } as never),
    'v-fold',
    { ...b, at: undefined, fold: 90, offset: b.at, point: 'away' } as never,
  );
  return step ? stand(both, 'step-fold', { ...step, width: 24 }) : both;
};

test('random cards, every degree, every pair: what surely crosses is found, and what is found touches', () => {
  fc.assert(
    fc.property(crowd, fc.integer({ min: 1, max: 9 }), (made, phase) => {
      const d = design(made);
      const assembly = buildAssembly(d);
      const evidence = gather(d, 'pattern', 0, assembly);
      const plates = platesOf(evidence);
      for (let open = phase; open < 180; open += 9) {
        const pose = poseOpen(assembly, open);
        if (pose.stop) continue;
        const hits = new Map(piercings(evidence, pose, plates).map((h) => [`${h.a},${h.b}`, h.depthMm]));
        plates.forEach((p, i) =>
          plates.slice(i + 1).forEach((q, k) => {
            const j = i + 1 + k;
            if (assembly.facets[p.facet].body === assembly.facets[q.facet].body) return;
            const found = hits.get(`${i},${j}`) ?? 0;
            const sure = surelyCross(p, q, pose, 2.5);
            if (sure > 0.7) expect(found).toBeGreaterThanOrEqual(sure * 0.99);
            if (found > 1) expect(mayTouch(p, q, pose)).toBe(true);
          }),
        );
      }
    }),
    { numRuns: 10 },
  );
}, 120_000);

test('V-folds that mirror each other cross exactly where one passes the mirror plane', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 20, max: 70 }),
      fc.integer({ min: 30, max: 60 }),
      fc.integer({ min: 5, max: 60 }),
      (lean, size, apart) => {
        const one = { lean, fold: 90, size };
        const d = stand(stand(card(260, 150), 'v-fold', { ...one, offset: -apart, point: 'toward' }), 'v-fold', {
          ...one,
          offset: apart,
          point: 'away',
        });
        const assembly = buildAssembly(d);
        // The furthest that the first comes past the mirror, anywhere and well inside the travel: near its ends all
        // lies in one plane, where sheets lie on each other and do not cross.
        const past = (from: number, to: number): number => {
          let most = -Infinity;
          for (let open = from; open <= to; open += 5) {
            const pose = poseOpen(assembly, open);
            assembly.facets.forEach((f, i) => {
              if (f.mechanism !== 'v-fold-1' || assembly.leafBodies.has(f.body)) return;
              for (const [x, y] of f.polygon.outer) most = Math.max(most, applyRigid(pose.placed[i], [x, y, 0])[0]);
            });
          }
          return most;
        };
        const found = findings(d, 'collision').filter((f) => f.aspect.startsWith('v-fold') && f.aspect !== f.mechanism);
        if (past(0, 180) < 0) expect(found).toEqual([]);
        if (past(20, 160) > 12) expect(found.length).toBeGreaterThan(0);
      },
    ),
    { numRuns: 25 },
  );
});

test('the card of the first look: mirrored V-folds are blocked, with the openings between which they cross', () => {
  const fold = { lean: 45, fold: 90, size: 50 };
  const d = stand(stand(card(180, 130), 'v-fold', { ...fold, offset: -15, point: 'toward' }), 'v-fold', {
    ...fold,
    offset: 15,
    point: 'away',
  });
  const [found] = findings(d, 'collision');
  expect(found.severity).toBe('blocks');
  expect(found.measured).toBeGreaterThan(20);
  expect(found.span!.to - found.span!.from).toBeGreaterThan(90);
});

test('what passes between two steps of the travel is seen: a thin flag meets another for a few degrees only', () => {
  // A narrow layer that stands out of one step is passed by another on the way: found at coarse steps as at fine ones.
  const steps = stand(
    stand(card(200, 140), 'step-fold', { depth: 60, height: 12, width: 30, offset: -18 }),
    'step-fold',
    { depth: 25, height: 50, width: 30, offset: 18 },
  );
  const flag = layered(steps, { facet: 'step-fold-1.riser', shape: { width: 40, height: 2 }, x: 22, y: 5 });
  const [coarse, fine] = [12, 144].map((n) =>
    findings(flag, 'collision', n)
      .map((f) => f.id)
      .sort(),
  );
  expect(coarse).toEqual(fine);
});

test('between two poses of the travel nothing leaves the box that was swept', () => {
  fc.assert(
    fc.property(
      fc.record({
        lean: fc.double({ min: 25, max: 70, noNaN: true }),
        fold: fc.double({ min: 75, max: 110, noNaN: true }),
        size: fc.double({ min: 15, max: 50, noNaN: true }),
      }),
      fc.double({ min: 5, max: 170, noNaN: true }),
      // The steps of a proof, and the coarsest that can be asked for.
      fc.constantFrom(5, 30, 90),
      (values, start, step) => {
        const from = Math.min(start, 180 - step);
        const d = stand(card(200, 140), 'v-fold', values);
        const assembly = buildAssembly(d);
        const plates = platesOf(gather(d, 'pattern', 0, assembly));
        const at = (openDeg: number) => placePlates(plates, poseOpen(assembly, openDeg));
        const [before, after] = [at(from), at(from + step)];
        for (const part of [0.2, 0.5, 0.8])
          at(from + step * part).forEach((p, k) => {
            const { min, max } = sweptBox(before[k], after[k]);
            for (const axis of [0, 1, 2]) {
              expect(p.min[axis]).toBeGreaterThanOrEqual(min[axis] - 1e-6);
              expect(p.max[axis]).toBeLessThanOrEqual(max[axis] + 1e-6);
            }
          });
      },
    ),
    { numRuns: 40 },
  );
});

test('pairs that come within a distance of each other are never left out, and bodies of one are no pair', () => {
  const d = stand(stand(card(200, 120), 'step-fold', { depth: 30, height: 30, width: 30, offset: -40 }), 'step-fold', {
    depth: 20,
    height: 40,
    width: 30,
    offset: 40,
  });
  const assembly = buildAssembly(d);
  const plates = platesOf(gather(d, 'pattern', 0, assembly));
  const placed = placePlates(plates, poseOpen(assembly, 70));
  for (const grow of [0, 8, 25, 60]) {
    const grown = placed.map((p) => growBox3(p, grow / 2));
    const near = new Set([...nearPairs(assembly, plates, grown)].map((p) => p.join()));
    placed.forEach((p, i) =>
      placed.slice(i + 1).forEach((q, k) => {
        const j = i + 1 + k;
        const gap = Math.max(...[0, 1, 2].map((a) => Math.max(p.min[a] - q.max[a], q.min[a] - p.max[a])));
        const apart = assembly.facets[plates[i].facet].body !== assembly.facets[plates[j].facet].body;
        if (gap < grow - 1e-9 && apart) expect(near.has(`${i},${j}`)).toBe(true);
        if (gap > grow + 1e-9 || !apart) expect(near.has(`${i},${j}`)).toBe(false);
      }),
    );
  }
});
