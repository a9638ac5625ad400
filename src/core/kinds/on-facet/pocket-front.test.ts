/** Fronts of pockets against plane geometry: discs, rectangles, the outline of the leaf. */
import fc from 'fast-check';
import { buildAssembly } from '../../build/build';
import { CENTRE, type Design } from '../../document/design';
import { addMechanism } from '../../document/standing';
import { poseAt } from '../../assembly/pose';
import { prove } from '../../proof/prove';
import { boxOf, regionArea } from '../../plane/polygon';
import { card, shapedCard } from '../../tests/cards';
import { commonArea } from '../../tests/second-polygons';
import type { ParameterValues } from '../index';

const SIZES = { notch: 0, insertWidth: 40, insertHeight: 50, play: 1, tape: 8 };
const pocketOn = (d: Design, values: ParameterValues): Design =>
  addMechanism(d, 'pocket', { on: 'leafB', mount: { ...CENTRE, side: 'inside' } }, { ...SIZES, ...values }).design;
const built = (values: ParameterValues, d = card(190, 140)) => buildAssembly(pocketOn(d, values));
type Built = ReturnType<typeof built>;
const front = (a: Built) => a.pieces.find((p) => p.id === 'pocket-1.front')!;
const measures = (a: Built): Record<string, number> =>
  a.mechanisms.find((m) => m.id === 'pocket-1')!.measures({} as never);
const glueArea = (a: Built): number =>
  front(a).glue.reduce((sum, g) => sum + regionArea([{ outer: g.outline, holes: [] }]), 0);

test('a rectangle that is given as a shape measures as one that is given by its sizes', () => {
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  fc.assert(
    fc.property(mm(60, 120), mm(40, 80), mm(4, 9), mm(10, 35), (width, height, tape, insertWidth) => {
      const values = { tape, insertWidth };
      const own = measures(built({ ...values, width, height }));
      const shape = measures(built({ ...values, shape: { rect: { width, height } } }));
      expect(shape.stick_out_mm).toBeCloseTo(own.stick_out_mm, 4);
      // Beside its mouth the front of another shape is glued up to the play that is asked for, and no further.
      expect(shape.side_play_mm).toBeCloseTo(1, 4);
      expect(own.side_play_mm).toBeGreaterThan(1);
    }),
    { numRuns: 25 },
  );
});

test.each([
  [42, 1, []],
  [42.2, 0.9, ['bind']],
  [44.2, -0.1, ['bind']],
])('an insert of %p in a front of 60 with 8 glued has %p beside it', (insertWidth, play, rules) => {
  const values = { insertWidth, shape: { rect: { width: 60, height: 70 } } };
  expect(measures(built(values)).side_play_mm).toBeCloseTo(play, 4);
  const told = prove(pocketOn(card(190, 140), values)).findings.filter((f) => f.mechanism === 'pocket-1');
  expect(told.filter((f) => f.rule === 'bind').map((f) => f.rule)).toEqual(rules);
});

test('in a disc the insert rests where it has its play between the glue, which is a ring less the mouth', () => {
  fc.assert(
    fc.property(fc.double({ min: 32, max: 60, noNaN: true }), fc.double({ min: 4, max: 8, noNaN: true }), (r, tape) => {
      const a = built({ shape: { circle: 2 * r }, tape, insertWidth: 30, insertHeight: 60 });
      const half = 15 + 1;
      const floor = -Math.sqrt((r - tape) ** 2 - half ** 2);
      // Discs are drawn by chords within 0.01 mm.
      expect(measures(a).stick_out_mm).toBeCloseTo(60 - (r - floor), 1);
      expect(measures(a).side_play_mm).toBeGreaterThan(1 - 0.05);
      const mouth = (R: number): number => half * Math.sqrt(R * R - half * half) + R * R * Math.asin(half / R);
      const [outer, inner] = [r - 1, r - tape + 1];
      const exact = Math.PI * (outer ** 2 - inner ** 2) - (mouth(outer) - mouth(inner));
      expect(Math.abs(glueArea(a) - exact)).toBeLessThan(0.005 * exact + 0.5);
    }),
    { numRuns: 25 },
  );
});

test('as its card: all of the leaf up to the height, on its very edges, and it is clear', () => {
  const d = pocketOn(card(190, 140), { outline: 'card', height: 60, insertWidth: 80, insertHeight: 70 });
  const a = buildAssembly(d);
  const { min, max } = boxOf(front(a).outline.outer);
  // Read as a book, the gutter of 190 is the height of a leaf that is 140 wide.
  expect([max[0] - min[0], max[1] - min[1]]).toEqual([140, 60].map((mm) => expect.closeTo(mm, 6)));
  expect(prove(d).findings.filter((f) => f.severity !== 'note')).toEqual([]);
  const out = poseAt(a, { open: 180, 'pocket-1.draw': 70 });
  expect(out.stop).toBeUndefined();
});

test('as its card on a card of another outline it follows that, and sticks out nowhere', () => {
  const gable = shapedCard('M-60 0 V-70 L0 -110 L60 -70 V0 Z', 110);
  const a = built({ outline: 'card', height: 60, insertWidth: 40, insertHeight: 40 }, gable);
  const leaf = a.facets.find((f) => f.id === 'leafB')!;
  const [glueOnto] = front(a).glue.map((g) => g.onto!);
  expect(glueOnto.facet).toBe('leafB');
  const own = front(a).glue.map((g) => ({ outer: g.onto!.outline, holes: [] }));
  expect(commonArea(own, [leaf.polygon])).toBeCloseTo(regionArea(own), 2);
  // No rectangle: it is as the leaf is there.
  const { min, max } = boxOf(front(a).outline.outer);
  expect(regionArea([front(a).outline])).toBeLessThan((max[0] - min[0]) * (max[1] - min[1]) - 1);
  expect(
    prove(pocketOn(gable, { outline: 'card', height: 60, insertWidth: 40, insertHeight: 40 })).findings.filter(
      (f) => f.rule === 'overhang' && f.mechanism === 'pocket-1',
    ),
  ).toEqual([]);
});
