/** Pieces of a waterfall as they are sold flat: sizes as drawn, and the card that comes of them works. */
import fc from 'fast-check';
import { blankDesign } from '../document/design';
import type { Template } from '../document/template';
import { prove } from '../proof/prove';
import { poseAt } from '../assembly/pose';
import { rectangle } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { drawnLine, plainTemplate } from '../tests/templates';
import { buildAssembly } from './build';
import { sheetsNamed } from './template';
import { waterfallIn, withWaterfall } from './template-waterfall';

interface Sold {
  readonly count: number;
  readonly high: number;
  readonly wide: number;
  readonly pitch: number;
  readonly belt: number;
  readonly strap: number;
}
const SOLD: Sold = { count: 4, high: 42, wide: 50, pitch: 11, belt: 18, strap: 12 };
const circle = ([x, y]: Vec2, r: number): Vec2[] =>
  Array.from({ length: 24 }, (_, k): Vec2 => [
    x + r * Math.cos((k * Math.PI) / 12),
    y + r * Math.sin((k * Math.PI) / 12),
  ]);

/** A sheet of them: card, belt, panels, strap with two holes; turned as a whole where that is asked. */
function drawn({ count, high, wide, pitch, belt, strap }: Sold, turned = false, card = true): Template {
  const lines: Template['lines'] = [
    ...(card
      ? [
          drawnLine('card', 'cut', true, ...rectangle(0, 0, 160, 240)),
          drawnLine('fold', 'valley', false, [0, 120], [160, 120]),
        ]
      : []),
    drawnLine('belt', 'cut', true, ...rectangle(200, 0, 200 + belt, 150)),
    ...Array.from({ length: count }, (_, k) =>
      drawnLine(`score-${k}`, 'mountain', false, [200, 20 + k * pitch], [200 + belt, 20 + k * pitch]),
    ),
    ...Array.from({ length: count }, (_, k) => {
      const x = 300 + k * (wide + 5);
      return drawnLine(`panel-${k}`, 'cut', true, ...rectangle(x, 0, x + wide, high));
    }),
    drawnLine('strap', 'cut', true, ...rectangle(300, 200, 300 + belt + 26, 200 + strap)),
    ...[7, belt + 19].map((x, k) => drawnLine(`hole-${k}`, 'window', true, ...circle([300 + x, 200 + strap / 2], 1.5))),
  ];
  const about = (p: Vec2): Vec2 => (turned ? [-p[1], p[0]] : p);
  return plainTemplate(lines.map((l) => ({ ...l, points: l.points.map(about) })));
}

test('sizes are read as they are drawn, whichever way the sheet lies', () => {
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  const sold = fc.record({
    ...{ count: fc.integer({ min: 2, max: 7 }), high: mm(25, 60), wide: mm(32, 60) },
    ...{ pitch: mm(5, 14), belt: mm(10, 28), strap: mm(6, 16) },
  });
  fc.assert(
    fc.property(sold, fc.boolean(), (s, turned) => {
      const near = (v: number) => expect.closeTo(v, 1);
      const found = waterfallIn(drawn(s, turned))!;
      expect(found.values).toEqual({
        ...{ count: s.count, panelHeight: near(s.high), panelWidth: near(s.wide), pitch: near(s.pitch) },
        ...{ beltWidth: near(s.belt), strap: near(s.strap), rivetGap: near(s.belt + 12) },
      });
      expect(found.panels).toHaveLength(s.count);
      expect([found.card, found.strap].includes(null)).toBe(false);
    }),
    { numRuns: 40 },
  );
});

test('the card of the sheet with the waterfall on it opens, its panels turn over, and it is clear', () => {
  const t = drawn(SOLD);
  const d = withWaterfall(blankDesign('sold'), t, waterfallIn(t)!);
  expect(d.card.parameters).toMatchObject({ gutter: 160, reachA: 120, reachB: 120 });
  expect(d.card.template!.lines.map((l) => l.id)).toEqual(['card', 'fold']);
  const proof = prove(d);
  expect(proof.findings.filter((f) => f.severity === 'blocks')).toEqual([]);
  const a = buildAssembly(d);
  const [pull] = a.drives.filter((x) => x.id === 'waterfall-1.pull');
  expect(pull.to).toBeCloseTo(4 * 11, 6);
  const first = a.facets.findIndex((f) => f.id === 'waterfall-1.panel-1');
  const faces = [0, 11].map((mm) => poseAt(a, { open: 180, [pull.id]: mm }).placed[first][10]);
  expect(faces[1]).toBeCloseTo(-faces[0], 6);
});

test('without a card it goes on the card that is there; pieces keep what they are cut from', () => {
  const t = drawn(SOLD, false, false);
  const found = waterfallIn(t)!;
  expect(found.card).toBeNull();
  const blank = blankDesign('mine', 200, 150);
  const at = (line: string): Vec2 => {
    const [[x0, y0], , [x1, y1]] = t.lines.find((l) => l.id === line)!.points;
    return [(x0 + x1) / 2, y0 + (y1 - y0) * 0.9];
  };
  const [own, other] = blank.stocks.map((s) => s.id).filter((id) => id !== 'card-240');
  const d = withWaterfall(blank, t, found, [
    { at: at('belt'), stock: own },
    { at: at('panel-0'), stock: other },
  ]);
  expect(d.card).toEqual(blank.card);
  expect(d.mechanisms[0].stock).toBe(own);
  expect(d.cutFrom).toHaveLength(1);
  expect(d.cutFrom![0].stock).toBe(other);
  const byPiece = new Map(buildAssembly(d).pieces.map((p) => [p.id, p.stock]));
  expect(byPiece.get(d.cutFrom![0].piece)).toBe(other);
});

test.each([
  ['panels differ by 0.4 mm', 0.4, true],
  ['panels differ by 0.6 mm', 0.6, false],
])('%s', (_, by, isFound) => {
  const t = drawn({ ...SOLD, count: 2 });
  const wider = t.lines.map((l) => (l.id === 'panel-1' ? { ...l, points: rectangle(400, 0, 450 + by, 42) } : l));
  expect(waterfallIn({ ...t, lines: wider }) !== null).toBe(isFound);
});

test.each([
  ['uneven folds', (id: string) => (id === 'score-1' ? 3 : 0)],
  ['a single fold', (id: string) => (/score-[1-9]/.test(id) ? null : 0)],
])('no waterfall: %s', (_, moved) => {
  const t = drawn(SOLD);
  const lines = t.lines.flatMap((l) => {
    const by = moved(l.id);
    return by === null ? [] : [{ ...l, points: l.points.map(([x, y]): Vec2 => [x, y + by]) }];
  });
  expect(waterfallIn({ ...t, lines })).toBeNull();
  expect(sheetsNamed({ ...t, lines }).length).toBe(7);
});
