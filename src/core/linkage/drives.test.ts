/**
 * Several drives: blocks walked in the space of their own. Closed forms: law of cosines for the slider-crank, two
 * circles for the five-bar, Freudenstein's four-bar by the same two circles.
 */
import fc from 'fast-check';
import { leastBending } from './bending';
import { placeBodies } from './bodies';
import {
  OPENING_RANGE,
  pivotMotion,
  type DriveRange,
  type Driven,
  type Joint,
  type Linkage,
  type Motion,
} from './joint';
import { applyRigid, type Vec3 } from './rigid';
import { Travel } from './travel';

type Point = readonly [number, number];
const bar = (id: string, a: number, b: number, at: Point, driven?: Driven, role: -1 | 0 | 1 = 0): Joint => ({
  id,
  a,
  b,
  motion: role === 0 ? pivotMotion(at) : ({ ...pivotMotion(at), kind: 'hinge' } as Motion),
  placement: null,
  role,
  ends: [undefined, undefined],
  span: [
    [...at, 0],
    [...at, 1],
  ],
  ...(driven ? { driven } : {}),
});
/** A slide along x from `from`, driven by a drive one to one. */
const slide = (b: number, from: Point, lengthMm: number, drive: number): Joint => ({
  ...bar('slide', 0, b, from, { drive, at: 0, rate: 1 }),
  motion: {
    kind: 'track',
    start: [...from, 0],
    heading: [-1, 0, 0],
    normal: [0, 0, 1],
    runs: [{ lengthMm, curvature: 0 }],
  },
  ends: [0, undefined],
});
const pull = (to: number): DriveRange => ({ range: [0, to], rest: 0, flat: 0 });
const turn: DriveRange = { range: [0, 2 * Math.PI], rest: 0, flat: 0 };

/** Lift tab of sides l2 and l3: flat at rest, its ridge stands up as the foot is drawn in. */
function crank(l2: number, l3: number, drive: number, bodies: readonly [number, number, number]): Joint[] {
  const [lower, upper, foot] = bodies;
  const flat = (j: Joint): Joint => ({ ...j, ends: [0, undefined] });
  return [
    slide(foot, [l2 + l3, 0], l2 + l3, drive),
    flat(bar('base', 0, lower, [0, 0], undefined, 1)),
    flat(bar('ridge', lower, upper, [l2, 0], undefined, -1)),
    flat(bar('tab', upper, foot, [l2 + l3, 0], undefined, 1)),
  ];
}
/** Height of the ridge: it stands where its two sides meet over the base. */
const lift = (l2: number, l3: number, drawn: number): number => {
  const base = l2 + l3 - drawn;
  const x = (base * base + l2 * l2 - l3 * l3) / (2 * base);
  return Math.sqrt(l2 * l2 - x * x);
};
const ridgeOf = (linkage: Linkage, q: Float64Array, l2: number, body: number): Vec3 =>
  applyRigid(placeBodies(linkage, q)[body], [l2, 0, 0]);

test('a strip that is pulled lifts its ridge by the closed form, from flat on', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 15, max: 90, noNaN: true }),
      fc.double({ min: 15, max: 90, noNaN: true }),
      fc.double({ min: 0.02, max: 0.98, noNaN: true }),
      (l2, l3, part) => {
        // Drawn in further than this the longer side would lie down behind the base's crease.
        const most = (l2 + l3 - Math.sqrt(Math.abs(l2 * l2 - l3 * l3))) * 0.95;
        const linkage: Linkage = {
          bodies: 4,
          drives: [OPENING_RANGE, pull(most)],
          joints: crank(l2, l3, 1, [1, 2, 3]),
        };
        const { folds, stop } = new Travel(linkage).at(Math.PI, part * most);
        expect(stop).toBeUndefined();
        const [, y] = ridgeOf(linkage, folds.q, l2, 1);
        expect(Math.abs(y - lift(l2, l3, part * most))).toBeLessThan(1e-6);
      },
    ),
    { numRuns: 40 },
  );
});

// Reference values: sides 30 and 40; pulled 5, 15 and 25.
test.each([5, 15, 25])('sides 30 and 40 pulled %d mm', (drawn) => {
  const linkage: Linkage = { bodies: 4, drives: [OPENING_RANGE, pull(40)], joints: crank(30, 40, 1, [1, 2, 3]) };
  const { folds } = new Travel(linkage).at(Math.PI, drawn);
  const D = 70 - drawn;
  const x = (D * D + 900 - 1600) / (2 * D);
  expect(ridgeOf(linkage, folds.q, 30, 1)[1]).toBeCloseTo(Math.sqrt(900 - x * x), 9);
});

test.each([4, 40, 400, 4000])('a slide of %d mm takes at most 80 steps', (length) => {
  const linkage: Linkage = {
    bodies: 4,
    drives: [OPENING_RANGE, pull(length * 0.9)],
    joints: crank(length * 0.5, length * 0.5 + length / 7, 1, [1, 2, 3]),
  };
  const travel = new Travel(linkage);
  let steps = 0;
  travel.watch = (_, lead) => {
    if (lead === 1) steps++;
    return true;
  };
  expect(travel.at(Math.PI, length * 0.85).stop).toBeUndefined();
  expect(steps).toBeGreaterThan(5);
  expect(steps).toBeLessThanOrEqual(80);
});

describe('drives that share nothing', () => {
  const alone = (drive: number): Linkage => ({
    bodies: 4,
    drives: [OPENING_RANGE, pull(35), pull(50)],
    joints: drive === 1 ? crank(30, 40, 1, [1, 2, 3]) : crank(45, 35, 2, [1, 2, 3]),
  });
  const both: Linkage = {
    bodies: 7,
    drives: [OPENING_RANGE, pull(35), pull(50)],
    joints: [...crank(30, 40, 1, [1, 2, 3]), ...crank(45, 35, 2, [4, 5, 6])],
  };
  test('stand together as each stands alone', () => {
    const [one, two] = [1, 2].map((d) => new Travel(alone(d)).at(Math.PI, 20, 31).folds.q);
    expect([...new Travel(both).at(Math.PI, 20, 31).folds.q]).toEqual([...one, ...two]);
  });
  test('moving one does not solve the other again', () => {
    const travel = new Travel(both);
    travel.at(Math.PI, 34, 0);
    const seen = new Set<number>();
    travel.watch = (_, lead) => {
      seen.add(lead);
      return true;
    };
    travel.at(Math.PI, 34, 49);
    expect([...seen]).toEqual([2]);
  });
});

/** Two cranks that are driven, 100 apart, and two rods that meet: one block of two drives. */
function fiveBar(): Linkage {
  return {
    bodies: 5,
    drives: [
      { range: [1.2, 0.4], rest: 1.2, flat: 0 },
      { range: [0, 1], rest: 0, flat: 0 },
    ],
    joints: [
      bar('left', 0, 1, [0, 0], { drive: 0, at: 0, rate: 1 }),
      bar('right', 0, 2, [100, 0], { drive: 1, at: 0, rate: 1 }),
      bar('knee', 1, 3, [40, 0]),
      bar('elbow', 2, 4, [60, 0]),
      bar('tip', 3, 4, [50, 60]),
    ],
  };
}
test('a block of two drives is reached by its own way: whatever was asked before, and in any order', () => {
  const states = [
    [1.1, 0.2],
    [0.7, 0.9],
    [0.45, 0.5],
    [1.1, 0.8],
  ] as const;
  const pose = (travel: Travel, [a, b]: readonly [number, number]): readonly number[] => {
    const { folds, stop } = travel.at(a, b);
    expect(stop).toBeUndefined();
    expect(folds.residualMm).toBeLessThan(1e-9);
    return [...folds.q];
  };
  const fresh = states.map((s) => pose(new Travel(fiveBar()), s));
  const forth = new Travel(fiveBar());
  const back = new Travel(fiveBar());
  expect(states.map((s) => pose(forth, s))).toEqual(fresh);
  expect([...states].reverse().map((s) => pose(back, s))).toEqual([...fresh].reverse());
});

test('pivots go round: a crank of 10 turns a rocker through 360 degrees by the closed form', () => {
  // Ground 40, coupler 35, rocker 30: Grashof's condition, the shortest link goes round.
  const linkage: Linkage = {
    bodies: 4,
    drives: [OPENING_RANGE, turn],
    joints: [
      bar('crank', 0, 1, [0, 0], { drive: 1, at: 0, rate: 1 }),
      // As it stands with the crank along x: the rods meet at (x, y).
      bar('wrist', 1, 2, [10, 0]),
      bar('elbow', 2, 3, meet(10, 0)),
      bar('foot', 3, 0, [40, 0]),
    ].map((j, k) => (k === 0 ? j : { ...j, ends: [0, undefined] as const })),
  };
  const travel = new Travel(linkage);
  for (let deg = 0; deg <= 360; deg += 15) {
    const t = (deg * Math.PI) / 180;
    const { folds, stop } = travel.at(Math.PI, t);
    expect(stop).toBeUndefined();
    const want = meet(10 * Math.cos(t), 10 * Math.sin(t));
    const elbow = applyRigid(placeBodies(linkage, folds.q)[2], [...meet(10, 0), 0]);
    expect(Math.hypot(elbow[0] - want[0], elbow[1] - want[1])).toBeLessThan(1e-6);
  }
});
/** Where the coupler (35) from a point and the rocker (30) from (40, 0) meet, above the line between them. */
function meet(x: number, y: number): Point {
  const d = Math.hypot(40 - x, y);
  const along = (d * d + 35 * 35 - 30 * 30) / (2 * d);
  const off = Math.sqrt(35 * 35 - along * along);
  const [ux, uy] = [(40 - x) / d, -y / d];
  return [x + along * ux - off * uy, y + along * uy + off * ux];
}

test('a value that is held between two others stays there: a belt that passes its strap', () => {
  const passing: Driven = { drive: 1, at: 0, rate: Math.PI / 10, between: [10, 20] };
  const linkage: Linkage = {
    bodies: 2,
    drives: [OPENING_RANGE, pull(40)],
    joints: [bar('panel', 0, 1, [0, 0], { ...passing, at: -Math.PI })],
  };
  const travel = new Travel(linkage);
  const at = (drawn: number): number => travel.at(Math.PI, drawn).folds.q[0];
  [0, 10, 12.5, 20, 40].forEach((d) =>
    expect(at(d)).toBeCloseTo((Math.PI / 10) * Math.min(10, Math.max(0, d - 10)), 12),
  );
});

test('a solved slide that comes to the end of its track stops there', () => {
  // The foot is free, the crank is driven: its slide of 20 mm ends before the crank stands upright.
  const joints = crank(30, 40, 1, [1, 2, 3]).map((j): Joint => {
    if (j.id === 'base') return { ...j, driven: { drive: 1, at: 0, rate: 1 } };
    if (j.id !== 'slide') return j;
    const { driven: _, ...free } = j;
    return {
      ...free,
      motion: { ...(j.motion as Extract<Motion, { kind: 'track' }>), runs: [{ lengthMm: 20, curvature: 0 }] },
    };
  });
  const linkage: Linkage = { bodies: 4, drives: [OPENING_RANGE, pull(1.5)], joints };
  const { folds, stop } = new Travel(linkage).at(Math.PI, 1.5);
  expect(stop).toMatchObject({ lead: 1, reason: 'track-end' });
  // Base 50: the angle at the base's crease by the law of cosines.
  const angle = Math.acos((900 + 2500 - 1600) / (2 * 30 * 50));
  expect(stop!.drive).toBeCloseTo(angle, 4);
  expect(folds.q[0]).toBeLessThanOrEqual(20 + 1e-5);
});

test('bending leaves rivets and tracks as they are', () => {
  // A strip on a slide, riveted to a sheet that hangs on two creases which do not agree.
  const linkage: Linkage = {
    bodies: 4,
    drives: [OPENING_RANGE],
    joints: [
      bar('one', 0, 1, [0, 0], undefined, 1),
      bar('two', 0, 2, [50, 0], undefined, 1),
      bar('rivet', 1, 2, [30, 5]),
      { ...slide(3, [10, 10], 30, 0), a: 2, driven: undefined } as Joint,
    ],
  };
  const q = Float64Array.of(0.1, 0, 0.3, 12);
  const start = placeBodies(linkage, q);
  const { bodies } = leastBending(linkage, start, q);
  const tie = (of: typeof start, j: Joint, p: Vec3): Vec3 => {
    const [a, b] = [of[j.a], of[j.b]];
    const [u, v] = [applyRigid(a, p), applyRigid(b, p)];
    return [u[0] - v[0], u[1] - v[1], u[2] - v[2]];
  };
  const rivet = linkage.joints[2];
  tie(bodies, rivet, [30, 5, 0]).forEach((x) => expect(Math.abs(x)).toBeLessThan(1e-9));
  // The strip is where its slide has it, in the frame of the sheet that carries it.
  const along = (of: typeof start): number => {
    const foot = applyRigid(of[3], [10, 10, 0]);
    const from = applyRigid(of[2], [10, 10, 0]);
    return Math.hypot(foot[0] - from[0], foot[1] - from[1], foot[2] - from[2]);
  };
  expect(along(bodies)).toBeCloseTo(12, 9);
});
