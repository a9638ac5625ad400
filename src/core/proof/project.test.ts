import fc from 'fast-check';
import { blankDesign, type Design } from '../document/design';
import { addMechanism, removeMechanism, standingOn } from '../document/standing';
import { fittingParameters } from '../document/fitting';
import { buildAssembly, DesignError, inStandingOrder } from '../build/build';
import { checkDesign, LARGEST_FILE, readDesign } from '../document/schema';
import { readValue } from '../document/values';
import { parametersOf } from '../document/fields';
import { shelveFonts } from '../../fonts/shelve';
import { prove, provingSteps, type Proof } from './prove';
import terrace from '../../../examples/terrace-night.json';
import refractor from '../../../examples/refractor-evening.json';
import survey from '../../../examples/sky-survey.json';

beforeAll(shelveFonts);

const full = (): Design => {
  let d = addMechanism(blankDesign('Round trip'), 'step-fold', 'card.gutter', { depth: 30 }).design;
  d = addMechanism(d, 'v-fold', 'step-fold-1.base', { size: 14, tab: 6 }).design;
  return {
    ...d,
    dressing: [{ facet: 'leafA', colour: '#112233', mats: [{ insetMm: 3, stock: 'card-160' }] }],
    making: { all: { way: 'score' }, creases: { 'card.gutter': { way: 'perforate', cutMm: 3, gapMm: 2 } } },
  };
};
const why = (value: unknown): string => {
  const read = typeof value === 'string' ? readDesign(value) : checkDesign(value);
  if (read.ok) throw new Error('it was taken');
  expect(read.why).not.toMatch(/\n/);
  expect(read.why.length).toBeLessThan(400);
  return read.why;
};

test('a design survives its file byte for byte', () => {
  const text = JSON.stringify(full());
  const read = readDesign(text);
  if (!read.ok) throw new Error(read.why);
  expect(JSON.stringify(read.design)).toBe(text);
});

test('a document of version 1 is brought up, nothing dropped', () => {
  const old = { ...JSON.parse(JSON.stringify(terrace)), rhabdoplex: 1 } as Record<string, unknown>;
  delete old.shapes;
  delete old.layers;
  const read = checkDesign(old);
  expect(read.ok && { ...read.design, rhabdoplex: 1 }).toEqual({ ...old, shapes: [], layers: [] });
});

test.each<[string, (d: Record<string, unknown>) => unknown, RegExp]>([
  ['a newer version', (d) => ({ ...d, rhabdoplex: 3 }), /newer/],
  [
    'a shape that is not one',
    (d) => ({
      ...d,
      mechanisms: [{ ...(d.mechanisms as object[])[0], kind: 'strut-figure', parameters: { shape: { circel: 3 } } }],
    }),
    /shape.*known are circle|circel/,
  ],
  [
    'a shape that is not there',
    (d) => ({
      ...d,
      mechanisms: [
        { ...(d.mechanisms as object[])[0], kind: 'strut-figure', parameters: { shape: { asset: 'dome' } } },
      ],
    }),
    /dome.*not in the document/,
  ],
  [
    'a shape made of itself',
    (d) => ({
      ...d,
      shapes: [
        { id: 'a', name: 'A', source: { asset: 'b' }, steps: [] },
        { id: 'b', name: 'B', source: { asset: 'a' }, steps: [] },
      ],
    }),
    /made of itself/,
  ],
  [
    'an unknown step',
    (d) => ({ ...d, shapes: [{ id: 'a', name: 'A', source: { circle: 3 }, steps: [{ do: 'melt' }] }] }),
    /shapes\[0\].*must be one of/,
  ],
  [
    'a path that is a script',
    (d) => ({ ...d, shapes: [{ id: 'a', name: 'A', source: { path: '<script>' }, steps: [] }] }),
    /path data/,
  ],
  [
    'a list with a field missing',
    (d) => ({
      ...d,
      mechanisms: [{ ...(d.mechanisms as object[])[0], kind: 'plane-stack', parameters: { planes: [{ depth: 3 }] } }],
    }),
    /planes\[0\]\.height/,
  ],
  ['no version', (d) => ({ ...d, rhabdoplex: undefined }), /rhabdoplex/],
  ['an unknown key', (d) => ({ ...d, extra: 1 }), /extra/],
  ['an unknown kind', (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], kind: 'nope' }] }), /kind/],
  [
    'an unknown parameter',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], parameters: { depht: 3 } }] }),
    /depht.*known are depth/,
  ],
  [
    'a negative length',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], parameters: { depth: -3 } }] }),
    /depth/,
  ],
  [
    'a number as text',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], parameters: { depth: '3' } }] }),
    /depth/,
  ],
  [
    'a huge number',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], parameters: { depth: 1e300 } }] }),
    /depth/,
  ],
  [
    'a crease that is no crease',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], on: 'gutter' }] }),
    /crease/,
  ],
  [
    'a host that is not there',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], on: 'gone.base' }] }),
    /gone/,
  ],
  [
    'a mechanism that stands on itself',
    (d) => ({ ...d, mechanisms: [{ ...(d.mechanisms as object[])[0], on: 'step-fold-1.base' }] }),
    /itself/,
  ],
  [
    'two of one id',
    (d) => ({ ...d, mechanisms: [(d.mechanisms as object[])[0], (d.mechanisms as object[])[0]] }),
    /duplicate/,
  ],
  ['a stock that is not there', (d) => ({ ...d, card: { ...(d.card as object), stock: 'gone' } }), /gone.*not among/],
  ['a colour that is code', (d) => ({ ...d, dressing: [{ facet: 'leafA', colour: 'url(x)', mats: [] }] }), /colour/],
])('%s is refused, naming the place', (_, change, pattern) =>
  expect(why(change(JSON.parse(JSON.stringify(full())) as Record<string, unknown>))).toMatch(pattern),
);

test.each<[string, string, RegExp]>([
  ['an empty file', '', /JSON/],
  ['a truncated one', JSON.stringify(full()).slice(0, 300), /cut short/],
  ['a binary one', 'PK\u0003\u0004\0\0', /binary/],
  ['a list', '[]', /object/],
  ['deep nesting', '['.repeat(100_000), /nested/],
  ['a large one', ' '.repeat(LARGEST_FILE + 1), /MB/],
  ['a prototype trick', '{"rhabdoplex":1,"__proto__":{"x":1}}', /__proto__/],
  ['a constructor trick', '{"rhabdoplex":1,"card":{"constructor":{}}}', /constructor/],
])('%s is refused', (_, text, pattern) => expect(why(text)).toMatch(pattern));

test('no text at all makes the door throw', () => {
  fc.assert(
    fc.property(
      fc.oneof(
        fc.string(),
        fc.json(),
        fc.json().map((j) => `{"rhabdoplex":1,"card":${j}}`),
      ),
      (text) => {
        expect(typeof readDesign(text).ok).toBe('boolean');
      },
    ),
    { numRuns: 300 },
  );
  expect(({} as Record<string, unknown>).x).toBeUndefined();
});

test('a crease that a mechanism does not have is refused when it is built', () => {
  const d = full();
  expect(() =>
    buildAssembly({
      ...d,
      mechanisms: d.mechanisms.map((m) => (m.id === 'v-fold-1' ? { ...m, on: 'step-fold-1.nowhere' } : m)),
    }),
  ).toThrow(DesignError);
});

test('what stands on something goes with it; order of standing is kept', () => {
  const d = full();
  expect(standingOn(d, 'step-fold-1')).toEqual(['step-fold-1', 'v-fold-1']);
  expect(removeMechanism(d, 'step-fold-1').mechanisms).toHaveLength(0);
  expect(inStandingOrder({ ...d, mechanisms: [...d.mechanisms].reverse() }).map((m) => m.id)).toEqual([
    'step-fold-1',
    'v-fold-1',
  ]);
});

test('starting sizes fit the crease they are for', () => {
  fc.assert(
    fc.property(fc.integer({ min: 60, max: 300 }), fc.integer({ min: 50, max: 200 }), (gutter, reach) => {
      for (const kind of ['step-fold', 'v-fold']) {
        const host = { lengthMm: gutter, reachA: reach, reachB: reach };
        const proof = prove(
          addMechanism(blankDesign('x', gutter, reach), kind, 'card.gutter', fittingParameters(kind, host)).design,
          6,
        );
        expect(
          proof.findings.filter((f) => ['overhang', 'loose-part', 'flat-fold', 'collision'].includes(f.rule)),
        ).toEqual([]);
      }
    }),
    { numRuns: 12 },
  );
});

test.each([
  ['depth', '1.5in', 38.1],
  ['depth', '4 1/8 in', 104.775],
  ['riser', '', null],
  ['edge', 'left', 'left'],
  ['offset', '-12', -12],
])('%s=%s', (key, text, value) => {
  expect(
    readValue(
      parametersOf('step-fold').find((p) => p.key === key)!,
      text,
    ),
  ).toEqual({ ok: true, value });
});

describe('the demo set', () => {
  const proofOf = (card: unknown): Proof => {
    const read = checkDesign(card);
    if (!read.ok) throw new Error(read.why);
    return prove(read.design);
  };
  test('two cards are sound', () => [terrace, refractor].forEach((c) => expect(proofOf(c).verdict).toBe('clear')));
  test('one has two faults, and applying a remedy of each clears it', () => {
    let read = checkDesign(survey);
    if (!read.ok) throw new Error(read.why);
    expect(
      proofOf(survey)
        .findings.map((f) => f.rule)
        .sort(),
    ).toEqual(['overhang', 'web']);
    for (let k = 0; k < 2; k++) {
      const { findings } = prove((read as { design: Design }).design);
      const r = findings[0].remedies![0];
      const design = (read as { design: Design }).design;
      read = checkDesign({
        ...design,
        mechanisms: design.mechanisms.map((m) =>
          m.id === r.mechanism ? { ...m, parameters: { ...m.parameters, [r.parameter]: r.value } } : m,
        ),
      });
      if (!read.ok) throw new Error(read.why);
    }
    expect(prove((read as { design: Design }).design).verdict).toBe('clear');
  });
  test('a growing proof only ever adds to its travel, and ends where the whole proof does', () => {
    const design = terrace as unknown as Design;
    let last = 0;
    const proving = provingSteps(design, 12);
    let step = proving.next();
    for (; !step.done; step = proving.next()) {
      expect(step.value.travel.length).toBeGreaterThanOrEqual(last);
      last = step.value.travel.length;
    }
    expect(step.value).toEqual(prove(design, 12));
  });
});
