/**
 * A short flap, a long back and an insert that folds out: check values of the trade, closed forms of both turns over
 * random sizes, and what is cut and posted.
 */
import fc from 'fast-check';
import { CLOSED, moved, openTo, restOf } from '../../drives';
import type { Assembly } from '../../assembly/assembly';
import { allMeasures, landmarksOf, onFacet, poseAt, type Pose } from '../../assembly/pose';
import { buildAssembly, DesignError } from '../../build/build';
import { blankDesign, type Design } from '../../document/design';
import { checkDesign } from '../../document/schema';
import { prove } from '../../proof/prove';
import { closedSize } from '../../rules';
import { findings, stand } from '../../tests/cards';
import { BASES, type ParameterValues } from '..';

const INCH = 25.4;
const gate = (parameters: ParameterValues): Design => {
  const plain = blankDesign('gate');
  return { ...plain, card: { ...plain.card, construction: 'gate-insert', parameters } };
};
const trade = gate({
  ...{ length: 8.5 * INCH, height: 4.25 * INCH, score: 3 * INCH, mat: INCH / 8 },
  ...{ insertLength: 8.5 * INCH, insertHeight: 3.25 * INCH, insertScore: 4.25 * INCH },
});
const at = (a: Assembly, open: number, insert: number): Pose =>
  poseAt(a, moved({ ...restOf(a.drives), ...openTo(open) }, 'card.insert', insert));
const measures = (d: Design): Record<string, number> => {
  const a = buildAssembly(d);
  return allMeasures(a, at(a, 90, 0), null).card;
};

test('panels and mats of a base of 8 1/2 by 4 1/4 in scored at 3 (handbook check value, practice)', () => {
  const inches = Object.fromEntries(Object.entries(measures(trade)).map(([k, v]) => [k, v / INCH]));
  expect(inches).toMatchObject({
    flap_mm: expect.closeTo(3, 9),
    back_mm: expect.closeTo(5.5, 9),
    flap_mat_width_mm: expect.closeTo(2.875, 9),
    back_mat_width_mm: expect.closeTo(5.375, 9),
    mat_height_mm: expect.closeTo(4.125, 9),
    insert_mat_width_mm: expect.closeTo(4.125, 9),
    insert_mat_height_mm: expect.closeTo(3.125, 9),
    shut_width_mm: expect.closeTo(5.5, 9),
    overhang_mm: 0,
  });
});

test.each([
  // Glued half way between the fold and the fore edge: its fold lies (back + glued) / 2 from that of the card.
  [
    'behind the fold',
    { insertLength: 107.95 + 123.7 },
    { insertLength: 107.95 + 123.825 },
    { insertLength: 107.95 + 126.7 },
    'insert spine',
  ],
  ['past the head', { insertHeight: 107.8 }, { insertHeight: 107.95 }, { insertHeight: 111.95 }, 'insert head'],
] as const)(
  'an insert that sticks out %s is found: just inside, at the edge, and past it',
  (_, inside, at, past, aspect) => {
    const sizes = {
      length: 215.9,
      height: 107.95,
      score: 76.2,
      insertLength: 215.9,
      insertHeight: 82.55,
      insertScore: 107.95,
    };
    const told = (change: ParameterValues) =>
      findings(gate({ ...sizes, ...change }), 'overhang').map((f) => `${f.severity} ${f.aspect}`);
    expect(told(inside)).toEqual([]);
    expect(told(at)).toEqual([]);
    expect(told(past)).toContain(`blocks ${aspect}`);
  },
);
test('a step on the fold of its insert lies on the card as that is spread, and not in it', () => {
  const d = stand(
    gate({ ...TRADE_MM, insertHeight: 82.55 }),
    'step-fold',
    { depth: 20, height: 20 },
    'card.insertFold',
  );
  expect(findings(d, 'collision').filter((f) => f.severity === 'blocks')).toEqual([]);
});
test('of those findings the size that is posted tells', () => {
  const { width_mm, height_mm } = prove(gate({ ...TRADE_MM, insertHeight: 111.95 }), 4).closed!;
  expect([width_mm, height_mm]).toEqual([expect.closeTo(139.7, 6), expect.closeTo(111.95, 6)]);
});
const TRADE_MM = { length: 215.9, height: 107.95, score: 76.2, insertLength: 215.9, insertScore: 107.95 };

const sizes = fc
  .record({
    back: fc.double({ min: 60, max: 160, noNaN: true }),
    part: fc.double({ min: 0.2, max: 0.95, noNaN: true }),
    height: fc.double({ min: 40, max: 180, noNaN: true }),
    glued: fc.double({ min: 0.3, max: 1, noNaN: true }),
    free: fc.double({ min: 10, max: 150, noNaN: true }),
    tall: fc.double({ min: 0.3, max: 1, noNaN: true }),
  })
  .map(({ back, part, height, glued, free, tall }) => ({
    ...{ length: back * (1 + part), height, score: back * part, mat: 3 },
    ...{ insertLength: back * glued + free, insertHeight: height * tall, insertScore: back * glued },
  }));

test('flap and insert turn about their own folds, each by its own drive, without bending', () => {
  const angle = fc.double({ min: 0, max: 180, noNaN: true });
  fc.assert(
    fc.property(sizes, angle, angle, (parameters, open, insert) => {
      const a = buildAssembly(gate(parameters));
      expect(a.misfits).toEqual([]);
      const pose = at(a, open, insert);
      expect(pose.stop).toBeUndefined();
      expect(pose.folds.residualMm).toBeLessThan(1e-9);
      const point = (facet: string, p: readonly [number, number]) =>
        onFacet(
          pose,
          a.facets.findIndex((f) => f.id === facet),
          p,
        );
      const rad = (deg: number): number => (deg * Math.PI) / 180;
      // The free edge of the flap: uB = (0, cos open, sin open).
      const flap = point('leafB', [0, -parameters.score]);
      expect(flap[1]).toBeCloseTo(parameters.score * Math.cos(rad(open)), 8);
      expect(flap[2]).toBeCloseTo(parameters.score * Math.sin(rad(open)), 8);
      // The free edge of the insert: shut it lies back toward the fold of the base, spread beyond the fore edge.
      const back = parameters.length - parameters.score;
      const [fold, far] = [(back + parameters.insertScore) / 2, parameters.insertLength - parameters.insertScore];
      const edge = point('insertB', [0, far]);
      expect(edge[1]).toBeCloseTo(fold - far * Math.cos(rad(insert)), 8);
      expect(edge[2]).toBeCloseTo(far * Math.sin(rad(insert)), 8);
      expect(point('insertA', [0, 0])[1]).toBeCloseTo(fold, 8);
    }),
  );
});

test('shut it is as large as it is measured, whatever the insert does to it', () => {
  fc.assert(
    fc.property(sizes, (parameters) => {
      const d = gate(parameters);
      const a = buildAssembly(d);
      const { alongMm, awayMm } = closedSize({ assembly: a, closed: poseAt(a, restOf(a.drives)) });
      const { shut_width_mm, shut_height_mm } = measures(d);
      expect(awayMm).toBeCloseTo(shut_width_mm, 6);
      expect(alongMm).toBeCloseTo(shut_height_mm, 6);
    }),
    { numRuns: 30 },
  );
});

test('a card of the trade is clear, its insert said to be walked, and it fits its envelope', () => {
  const proof = prove({ ...trade, post: { envelope: 'us-a2', format: null } });
  expect(proof.findings.filter((f) => f.severity !== 'note')).toEqual([]);
  expect(Object.keys(proof.travels)).toEqual(['open', 'card.insert']);
  // Spread while the flap is down it stands against the flap: a hand stops there.
  expect(proof.findings.filter((f) => f.rule === 'collision').map((f) => f.severity)).toEqual(['note']);
  expect(proof.closed!.width_mm).toBeCloseTo(5.5 * INCH, 6);
});

test.each([
  ['a flap as long as its back', { length: 150, score: 75 }, /no longer than its flap/],
  ['an insert scored beyond its length', { insertLength: 80, insertScore: 80 }, /beyond its own length/],
])('%s is refused with the reason', (_, wrong, why) => {
  const d = gate({ ...trade.card.parameters, ...wrong });
  expect(() => buildAssembly(d)).toThrow(DesignError);
  expect(() => buildAssembly(d)).toThrow(why);
});

test('an insert that reaches past the fold is measured, and blocks what it no longer fits', () => {
  const long = gate({ ...trade.card.parameters, insertLength: 8.5 * INCH + 30 });
  expect(measures(long).overhang_mm).toBeGreaterThan(0);
  const proof = prove({ ...long, post: { envelope: 'us-a2', format: null } }, 6);
  expect(proof.findings.find((f) => f.rule === 'post-size')?.severity).toBe('blocks');
});

test('a step stands on the fold of the insert, and folds with it: its ridge by the closed form', () => {
  const [depth, height] = [18, 12];
  const d = stand(trade, 'step-fold', { depth, height, width: 30 }, 'card.insertFold');
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  const a = buildAssembly(d);
  const step = a.mechanisms.find((m) => m.id === 'step-fold-1')!;
  for (const insert of [0, 30, 90, 150, 180]) {
    const pose = at(a, 170, insert);
    expect(pose.stop).toBeUndefined();
    const [, y, z] = landmarksOf(a, pose, step).ridge;
    const fold = (5.5 * INCH + 4.25 * INCH) / 2;
    const turn = (insert * Math.PI) / 180;
    // Side A is the part that folds out: a of it and b of the glued part, which points back to the fold of the base.
    expect(y).toBeCloseTo(fold - depth * Math.cos(turn) - height, 6);
    expect(z).toBeCloseTo(depth * Math.sin(turn), 6);
  }
});

test('it is begun from the size of a card, and its numbers are kept apart from those of other bases', () => {
  const base = BASES.get('gate-insert')!;
  const own = base.fitting({ gutter: 120, reach: 150 });
  const a = buildAssembly(gate(own));
  expect(a.misfits).toEqual([]);
  expect(closedSize({ assembly: a, closed: poseAt(a, CLOSED) }).awayMm).toBeCloseTo(150, 6);
  expect(checkDesign(gate({ reachA: 100 })).ok).toBe(false);
});
