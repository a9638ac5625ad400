/** A remedy is a promise: applied and proved in full it clears its finding and brings no new one that blocks. */
import fc from 'fast-check';
import type { Design } from '../document/design';
import type { ParameterValues } from '../kinds';
import { finding, type Finding } from '../rules';
import { card, layered, stand } from '../tests/cards';
import { buildAssembly } from '../build/build';
import { closedPose } from './evidence';
import { partFor, TRIED_WHOLE } from './part';
import { examine, prove, seek, setLever } from './prove';

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
    if (!f.nearest) continue;
    expect(f.nearest.left.length).toBeGreaterThan(10);
    // It neither lies off the card nor takes it apart.
    const tried = examine(setLever(design, f.nearest.mechanism, f.nearest.parameter, f.nearest.value), 2).findings;
    const apart = tried.filter((x) => ['loose-part', 'overhang'].includes(x.rule) && x.severity === 'blocks');
    expect(apart.map((x) => x.id).filter((id) => !before.has(id))).toEqual([]);
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

describe('large cards', () => {
  /** Steps beside each other, 8 mm apart; some of other sizes. */
  const row = (count: number, other: Readonly<Record<number, ParameterValues>> = {}): Design =>
    Array.from({ length: count }, (_, i) => i).reduce(
      (d, i) =>
        stand(d, 'step-fold', {
          depth: 20,
          height: 20,
          width: 4,
          offset: (i - (count - 1) / 2) * 8,
          ...other[i],
        }),
      card(count * 8 + 20, 100),
    );
  const about = (findings: readonly Finding[], mechanism: string): Finding =>
    findings.find((f) => f.mechanism === mechanism)!;

  test('what is found in a part of the card is proved on the whole, with unequal leaves', () => {
    const tall = row(30, { 14: { depth: 60, height: 60 } });
    const design = { ...tall, card: { ...tall.card, reachA: 110 } };
    const { findings } = prove(design, STEPS);
    expect(about(findings, 'step-fold-15').rule).toBe('overhang');
    expect(about(findings, 'step-fold-15').remedies!.length).toBeGreaterThan(0);
    keepsPromises(design);
  });

  test('the part is what the finding is about, what it stands on, and what lies near', () => {
    const nested = stand(row(30), 'step-fold', { depth: 6, height: 6, width: 2 }, 'step-fold-20.ridge');
    const assembly = buildAssembly(nested);
    const closed = closedPose(assembly)!;
    const names = (mechanism: string, subjects: string[] = []): string[] => {
      const asked = finding({
        rule: 'web',
        severity: 'risk',
        mechanism,
        measured: 1,
        aspect: '',
        message: '',
        subjects,
      });
      return partFor(nested, assembly, closed, asked)!.mechanisms.map((m) => m.id);
    };
    expect(names('step-fold-5')).toEqual(['step-fold-4', 'step-fold-5', 'step-fold-6']);
    expect(names('step-fold-31')).toEqual(['step-fold-19', 'step-fold-20', 'step-fold-21', 'step-fold-31']);
    expect(names('step-fold-5', ['step-fold-9.tread'])).toContain('step-fold-10');
    expect(partFor(row(TRIED_WHOLE), assembly, closed, about(prove(row(TRIED_WHOLE), 2).findings, 'card'))).toBeNull();
  });

  test('where the same is found elsewhere too no one number clears it, and that is said soon', () => {
    const { findings } = prove(row(30, { 3: { width: 6 }, 20: { width: 6 } }), 4);
    const narrow = findings.find((f) => f.rule === 'web')!;
    expect(narrow.remedies).toBeUndefined();
    expect(narrow.nearest!.left).toMatch(/is only 3\.0 mm wide near .*Step/);
  });

  test('what a proof leaves unsought is looked for when it is asked for', () => {
    const tall = row(60, Object.fromEntries(Array.from({ length: 60 }, (_, i) => [i, { depth: 60, height: 60 }])));
    const { findings } = prove(tall, STEPS);
    const unsought = findings.filter((f) => f.unsought);
    expect(findings[0].remedies!.length).toBeGreaterThan(0);
    expect(unsought.length).toBeGreaterThan(30);
    const asked = seek(tall, unsought[7], findings, STEPS);
    expect(asked.unsought).toBeUndefined();
    expect(asked.remedies!.length).toBeGreaterThan(0);
    const [{ mechanism, parameter, value }] = asked.remedies!;
    const after = prove(setLever(tall, mechanism, parameter, value), STEPS).findings;
    expect(after.map((f) => f.id)).not.toContain(asked.id);
  });
});

test('a card that is only examined has the findings of its proof, without what would clear them', () => {
  fc.assert(
    fc.property(cards, (c) => {
      const design = made(c);
      const { findings, ...proof } = prove(design, 12);
      const { findings: found, ...examined } = examine(design, 12);
      expect(examined).toEqual(proof);
      const plain = findings.map(({ remedies: _r, nearest: _n, unsought: _u, ...rest }) => rest);
      expect(found).toEqual(plain);
    }),
    { numRuns: 6 },
  );
});
