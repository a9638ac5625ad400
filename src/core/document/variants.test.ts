/** Variants as differences: they come back to the byte, and stay as they were kept whatever becomes of the card. */
import fc from 'fast-check';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import type { Design } from './design';
import { setParameter } from './fields';
import { repairDesign } from './repair';
import { checkDesign, readDesign } from './schema';
import { removeMechanism } from './standing';
import {
  differencesOf,
  exchanged,
  keptVariant,
  MOST_VARIANTS,
  rebased,
  resolved,
  takenOver,
  variantsOf,
} from './variants';

const step = () => stand(card(160, 100), 'step-fold', { depth: 40, height: 25, width: 50 });
const text = (d: Design): string => JSON.stringify(d);
/** As an edit of the workbench does it. */
const edited = (d: Design, change: (x: Design) => Design): Design => rebased(d, change(d));
const change = (key: string, value: number) => (d: Design) => setParameter(d, 'step-fold-1', key, value);

const edits = fc.array(
  fc.oneof(
    fc.record({ key: fc.constantFrom('depth', 'height', 'width'), value: fc.integer({ min: 10, max: 60 }) }),
    fc.constant('add' as const),
    fc.constant('remove' as const),
  ),
  { minLength: 1, maxLength: 12 },
);
const applied = (d: Design, list: readonly (('add' | 'remove') | { key: string; value: number })[]): Design =>
  list.reduce<Design>((now, e) => {
    const has = now.mechanisms.some((m) => m.id === 'step-fold-1');
    if (e === 'add') return edited(now, (x) => stand(x, 'v-fold', { size: 20 }));
    if (e === 'remove') return edited(now, (x) => ({ ...x, mechanisms: x.mechanisms.slice(0, -1) }));
    return has ? edited(now, change(e.key, e.value)) : now;
  }, d);

test('a variant is what was kept, to the byte, after any edits, and through a file', () => {
  fc.assert(
    fc.property(edits, edits, (first, then) => {
      const kept = applied(step(), first);
      const later = applied(keptVariant(kept, 'Low'), then);
      const [variant] = variantsOf(later);
      expect(text(resolved(later, variant))).toBe(text(kept));
      const read = checkDesign(JSON.parse(text(later)));
      expect(read.ok && text(read.design)).toBe(text(later));
      expect(read.ok && text(resolved(read.design, variantsOf(read.design)[0]))).toBe(text(kept));
    }),
    { numRuns: 40 },
  );
});

test('exchanged twice, card and variant are as they were', () => {
  fc.assert(
    fc.property(edits, (then) => {
      const d = applied(keptVariant(step(), 'Low'), then);
      const once = exchanged(d, 'variant-1');
      expect(text(resolved(once, variantsOf(once)[0]))).toBe(text({ ...d, variants: undefined }));
      const twice = exchanged(once, 'variant-1');
      expect(text({ ...twice, variants: undefined })).toBe(text({ ...d, variants: undefined }));
    }),
    { numRuns: 20 },
  );
});

test.each(demoCards())('%s keeps a variant of itself as no more than its name', (_, d) => {
  const kept = keptVariant(d, 'As it is');
  expect(text(kept).length - text(d).length).toBeLessThan(90);
  expect(text(resolved(kept, variantsOf(kept)[0]))).toBe(text(d));
});

test('single differences are told in words, and taken over one by one', () => {
  const tall = edited(keptVariant(step(), 'Low'), (d) => change('height', 35)(change('depth', 44)(d)));
  const [low] = variantsOf(tall);
  const told = differencesOf(tall, low);
  expect(told.map((d) => [d.words, d.card, d.variant])).toEqual([
    ['Depth from the crease of Step', '44', '40'],
    ['Height of Step', '35', '25'],
  ]);
  const half = edited(tall, (d) => takenOver(d, low, told[0].path));
  expect(half.mechanisms[0].parameters).toMatchObject({ depth: 40, height: 35 });
  expect(differencesOf(half, variantsOf(half)[0]).map((d) => d.words)).toEqual(['Height of Step']);
  const whole = edited(half, (d) => takenOver(d, variantsOf(half)[0], told[1].path));
  expect(variantsOf(whole)[0].delta).toBeNull();
});

test('a variant that does not fit, or does not read, is refused at its place', () => {
  const d = keptVariant(step(), 'Low');
  const spoilt = (delta: unknown) => checkDesign({ ...d, variants: [{ id: 'v', name: 'Low', delta }] });
  expect(spoilt({ i: { 0: { v: 1 } } })).toMatchObject({
    ok: false,
    why: expect.stringMatching(/variants\[0\].*do not fit/),
  });
  expect(spoilt({ o: { units: { v: 'ell' } } })).toMatchObject({
    ok: false,
    why: expect.stringMatching(/variants\[0\].*units/),
  });
  expect(spoilt({ o: { units: { v: 'in' } } })).toMatchObject({ ok: true });
  const many = (n: number) => Array.from({ length: n }, (_, k) => ({ id: `v${k}`, name: `N ${k}`, delta: null }));
  expect(checkDesign({ ...d, variants: many(MOST_VARIANTS) })).toMatchObject({ ok: true });
  expect(checkDesign({ ...d, variants: many(MOST_VARIANTS + 1) })).toMatchObject({ ok: false });
});

test('however deep a difference lies, the file can be read again', () => {
  let [, deep] = demoCards().find(([, d]) => d.mechanisms.some((m) => m.kind === 'plane-stack'))!;
  deep = keptVariant(deep, 'Lower');
  const { id } = deep.mechanisms.find((m) => m.kind === 'plane-stack')!;
  const changed = edited(deep, (d) => setParameter(d, id, 'planes[1].height', 31));
  const [lower] = variantsOf(changed);
  expect(text(resolved(changed, lower))).toBe(text({ ...deep, variants: undefined }));
  // Told as the whole list of planes: a variant never goes deeper into a mechanism than one of its numbers.
  expect(differencesOf(changed, lower).map((d) => d.path)).toEqual([
    ['mechanisms', expect.any(Number), 'parameters', 'planes'],
  ]);
  expect(readDesign(JSON.stringify(changed))).toMatchObject({ ok: true });
});

test('a variant that does not read is left out of a repaired card, and nothing else', () => {
  const d = {
    ...keptVariant(step(), 'Low'),
    variants: [{ id: 'v', name: 'Low', delta: { o: { units: { v: 'ell' } } } }],
  };
  const repaired = repairDesign(d)!;
  expect(repaired.leftOut).toHaveLength(1);
  expect(text({ ...repaired.design, variants: undefined })).toBe(text(step()));
});

test('a mechanism that is gone from the card is still in the variant', () => {
  const d = edited(keptVariant(step(), 'With step'), (x) => removeMechanism(x, 'step-fold-1'));
  expect(d.mechanisms).toHaveLength(0);
  expect(exchanged(d, 'variant-1').mechanisms.map((m) => m.id)).toEqual(['step-fold-1']);
});
