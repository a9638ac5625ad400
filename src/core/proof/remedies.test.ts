/** A remedy is a promise: applied and proved in full it clears its finding and brings no new one that blocks. */
import fc from 'fast-check';
import type { Design } from '../document/design';
import type { ParameterValues } from '../kinds';
import type { Finding } from '../rules';
import { card, layered, stand } from '../tests/cards';
import { prove, setLever } from './prove';

const mm = (min: number, max: number) => fc.integer({ min: min * 2, max: max * 2 }).map((x) => x / 2);
const offset = mm(-70, 70);
const part: fc.Arbitrary<readonly [string, ParameterValues]> = fc.oneof(
  fc
    .record({
      depth: mm(5, 90),
      height: mm(5, 90),
      width: mm(10, 80),
      offset,
      build: fc.constantFrom('cut', 'glued'),
      tab: mm(4, 14),
    })
    .map((p) => ['step-fold', p] as const),
  fc
    .record({ lean: mm(20, 80), fold: mm(20, 110), size: mm(15, 80), offset, relief: mm(0, 3) })
    .map((p) => ['v-fold', p] as const),
  fc
    .record({ shape: fc.record({ circle: mm(20, 80) }), depth: mm(5, 50), offset })
    .map((p) => ['strut-figure', p] as const),
  fc.record({ slit: mm(20, 160), width: mm(6, 30), offset }).map((p) => ['floating-band', p] as const),
);
const cards = fc.record({
  gutter: mm(120, 220),
  reachA: mm(70, 150),
  reachB: mm(70, 150),
  parts: fc.array(part, { minLength: 1, maxLength: 2 }),
  inside: fc.boolean(),
  envelope: fc.constantFrom(null, 'C6'),
});

const STEPS = 18;
const made = ({
  gutter,
  reachA,
  reachB,
  parts,
  inside,
  envelope,
}: typeof cards extends fc.Arbitrary<infer T> ? T : never): Design => {
  const base = card(gutter, reachA, reachB);
  const stood = parts.reduce((d, [kind, p]) => stand(d, kind, p), base);
  return { ...stood, card: { ...stood.card, stayInside: inside }, post: { envelope, format: null } };
};
const blocking = (list: readonly Finding[]): Set<string> =>
  new Set(list.filter((f) => f.severity === 'blocks').map((f) => f.id));

function keepsPromises(design: Design): void {
  const { findings } = prove(design, STEPS);
  const before = blocking(findings);
  for (const f of findings) {
    for (const r of f.remedies ?? []) {
      const after = prove(setLever(design, r.mechanism, r.parameter, r.value), STEPS).findings;
      expect(after.map((x) => x.id)).not.toContain(f.id);
      expect([...blocking(after)].filter((id) => !before.has(id))).toEqual([]);
    }
    // With a remedy there is nothing left to say of the nearest try; without one it names what it leaves.
    if (f.remedies?.length) expect(f.nearest).toBeUndefined();
    if (f.nearest) expect(f.nearest.left.length).toBeGreaterThan(10);
  }
}

test('over random cards, unequal leaves, envelopes and what must stay inside', () => {
  fc.assert(
    fc.property(cards, (c) => keepsPromises(made(c))),
    { numRuns: 5, seed: 20 },
  );
}, 240_000);

test(
  'a narrow strip is not cleared by moving a step to the very edge, nor a piece made too large ' + 'for its sheet',
  () => {
    const beside = stand(
      stand(card(190, 130), 'step-fold', { depth: 40, height: 40, width: 40, offset: -21 }),
      'step-fold',
      { depth: 30, height: 30, width: 40, offset: 21 },
    );
    keepsPromises(beside);
    // The card is as large as A4 takes it: making it larger would clear the overhang and no longer fit the sheet.
    keepsPromises(stand(card(180, 140), 'step-fold', { depth: 80, height: 70, width: 40 }));
  },
);

test('layers: what clears a collision is proved with every other rule', () => {
  const step = stand(card(190, 130), 'step-fold', { depth: 40, height: 15, width: 60 });
  keepsPromises(layered(step, { shape: { width: 40, height: 8 }, from: { x: 'middle', y: 'low' }, x: 40, y: 5 }));
  keepsPromises(layered(card(), { shape: { width: 60, height: 30 }, from: { x: 'middle', y: 'low' }, y: -7 }));
});

test('findings keep their ids while their numbers change', () => {
  const ids = (depth: number): string[] =>
    prove(stand(card(), 'step-fold', { depth, height: 60, width: 40, riser: 30, tread: 70 }), 4)
      .findings.map((f) => f.id)
      .sort();
  expect(ids(61)).toEqual(ids(62));
  expect(new Set(ids(61)).size).toBe(ids(61).length);
});

test('where no one number clears it the nearest try is told, with what it leaves', () => {
  // Two V-folds wind through each other: no size that is left makes them clear.
  const fold = { lean: 80, fold: 90, size: 60 };
  const both = stand(stand(card(180, 130), 'v-fold', { ...fold, offset: -2, point: 'toward' }), 'v-fold', {
    ...fold,
    offset: 2,
    point: 'away',
  });
  const open = prove(both, STEPS).findings.filter((f) => f.levers.length > 0 && !f.remedies?.length);
  for (const f of open) if (f.nearest) expect(f.nearest.left).toMatch(/\.$/);
  keepsPromises(both);
});
