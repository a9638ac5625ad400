import fc from 'fast-check';
import { buildAssembly } from '../build/build';
import { shelveFonts } from '../../fonts/shelve';
import { poseAt } from '../assembly/pose';
import { applyRigid } from '../linkage';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import type { Design } from './design';
import { checkDesign } from './schema';
import {
  alignedAlong,
  copiedText,
  mirroredCopies,
  pasted,
  placeOf,
  setForAll,
  sharedNumbers,
  spreadAlong,
} from './several';

beforeAll(shelveFonts);
const row = (...offsets: readonly number[]): Design =>
  offsets.reduce((d, offset) => stand(d, 'step-fold', { depth: 10, height: 10, width: 12, offset }), card(300, 120));
const ids = (d: Design): string[] => d.mechanisms.map((m) => m.id);
const places = (d: Design): (number | null)[] => d.mechanisms.map(placeOf);

test('lined up with the first that was chosen', () => {
  const d = row(10, -30, 55);
  expect(places(alignedAlong(d, ['step-fold-2', 'step-fold-1', 'step-fold-3']))).toEqual([-30, -30, -30]);
  expect(places(alignedAlong(d, ['step-fold-1', 'step-fold-3']))).toEqual([10, -30, 10]);
});
test('spread evenly, the outer two where they are, the order kept', () =>
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: -140, max: 140 }), { minLength: 3, maxLength: 8 }), (offsets) => {
      const d = row(...offsets);
      const spread = places(spreadAlong(d, ids(d))) as number[];
      const sorted = [...spread].sort((a, b) => a - b);
      const step = (Math.max(...offsets) - Math.min(...offsets)) / (offsets.length - 1);
      sorted.forEach((v, k) => expect(v).toBeCloseTo(Math.min(...offsets) + k * step, 3));
      const order = (list: readonly number[]) => list.map((_, i) => i).sort((a, b) => list[a] - list[b]);
      expect(order(spread)).toEqual(order(offsets));
    }),
  ));
test('one number for all, of those that all have', () => {
  const d = stand(row(0, 40), 'v-fold', { lean: 50 });
  expect(sharedNumbers(d, ['step-fold-1', 'step-fold-2'])).toEqual(
    expect.arrayContaining(['depth', 'height', 'width']),
  );
  expect(sharedNumbers(d, ids(d))).toEqual(expect.arrayContaining(['offset', 'tab']));
  expect(sharedNumbers(d, ids(d))).not.toContain('depth');
  const set = setForAll(d, ['step-fold-1', 'step-fold-2'], 'depth', 17);
  expect(set.mechanisms.map((m) => m.parameters.depth)).toEqual([17, 17, undefined]);
});
test('mirrored copies pose as mirror images', () => {
  const d = stand(card(300, 120), 'step-fold', { depth: 20, height: 12, width: 16, offset: 60 });
  const { design, ids: made } = mirroredCopies(d, ['step-fold-1']);
  expect(made).toEqual(['step-fold-2']);
  const assembly = buildAssembly(design);
  const { placed } = poseAt(assembly, { open: 77 });
  const corners = (facet: string) => {
    const i = assembly.facets.findIndex((f) => f.id === facet);
    return assembly.facets[i].polygon.outer.map(([x, y]) => applyRigid(placed[i], [x, y, 0]));
  };
  for (const part of ['riser', 'tread']) {
    const mirror = corners(`step-fold-2.${part}`);
    for (const [x, y, z] of corners(`step-fold-1.${part}`))
      expect(Math.min(...mirror.map(([u, v, w]) => Math.hypot(u + x, v - y, w - z)))).toBeLessThan(1e-6);
  }
});

describe('carried to another card', () => {
  const all = demoCards().map(([file, d]) => [file, d] as const);
  test.each(all)('%s: all of it, with shapes and stocks', (_, d) => {
    const target = card(d.card.construction ? 300 : 260, 180);
    const put = pasted(target, copiedText(d, ids(d)));
    if (!put.ok) throw new Error(put.why);
    expect(checkDesign(JSON.parse(JSON.stringify(put.design))).ok).toBe(true);
    expect(put.ids).toHaveLength(d.mechanisms.length);
    d.mechanisms.forEach((m, k) => {
      const there = put.design.mechanisms.find((x) => x.id === put.ids[k])!;
      expect(there.kind).toBe(m.kind);
      const stock = put.design.stocks.find((s) => s.id === there.stock)!;
      const was = d.stocks.find((s) => s.id === m.stock)!;
      expect({ ...stock, id: '' }).toEqual({ ...was, id: '' });
    });
  });
  test('twice in the same card: names of its own, what stands on it stands on the copy', () => {
    const d = stand(row(0), 'step-fold', { depth: 4, height: 4, width: 6 }, 'step-fold-1.ridge');
    const put = pasted(d, copiedText(d, ['step-fold-1']));
    if (!put.ok) throw new Error(put.why);
    expect(put.ids).toEqual(['step-fold-3', 'step-fold-4']);
    expect(put.design.mechanisms[3].on).toBe('step-fold-3.ridge');
    expect(put.design.mechanisms.slice(0, 2)).toEqual(d.mechanisms);
  });
  test.each([
    ['words', 'hello'],
    ['another thing', '{"a":1}'],
    ['a broken part', '{"rhabdoplexParts":1,"mechanisms":[{"id":"x","kind":"step-fold"}]}'],
    [
      'a stranger’s kind',
      `{"rhabdoplexParts":1,"mechanisms":[{"id":"x","kind":"nothing","name":"x","on":"card.gutter",` +
        `"parameters":{},"stock":"card-160"}]}`,
    ],
    ['nothing', ''],
    ['null', '{"rhabdoplexParts":1,"mechanisms":[null]}'],
  ])('%s is refused, with a reason', (_, text) => {
    const put = pasted(row(0), text);
    expect(put.ok).toBe(false);
    if (!put.ok) expect(put.why.length).toBeGreaterThan(10);
  });
});
