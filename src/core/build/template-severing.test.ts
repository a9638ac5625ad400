/**
 * Cuts from edge to edge, held against a flood fill over a fine grid of cells: a cut severs where paper on both of its
 * sides belongs to two pools that only it keeps apart. And what an answer makes of the card.
 */
import fc from 'fast-check';
import type { Template } from '../document/template';
import { blankDesign } from '../document/design';
import type { Vec2 } from '../plane/vec2';
import { prove } from '../proof/prove';
import { drawnLine, plainTemplate } from '../tests/templates';
import { keptStocks, withTemplate } from './bring';
import { buildAssembly } from './build';
import { sheetsNamed, templateLines } from './template';
import { severingIn } from './template-severing';

const WIDE = 120;
const HIGH = 80;
const PAGE = drawnLine('page', 'cut', true, [0, 0], [WIDE, 0], [WIDE, HIGH], [0, HIGH]);
const asked = (t: Template): string[] => severingIn(t, templateLines(t)).flatMap((s) => [...s.lines]);

/** Lines with paper of different pools on their two sides: by flooding cells of 1 mm, walls as drawn. */
function flooded(lines: readonly { readonly id: string; readonly a: Vec2; readonly b: Vec2 }[]): string[] {
  const at = (i: number, j: number): Vec2 => [i + 0.5, j + 0.5];
  const pool = new Map<number, number>();
  const crossed = (p: Vec2, q: Vec2): boolean =>
    lines.some(({ a, b }) => {
      const side = (o: Vec2, u: Vec2, v: Vec2): number => (u[0] - o[0]) * (v[1] - o[1]) - (u[1] - o[1]) * (v[0] - o[0]);
      return side(a, b, p) * side(a, b, q) < 0 && side(p, q, a) * side(p, q, b) < 0;
    });
  for (let start = 0; start < WIDE * HIGH; start++) {
    if (pool.has(start)) continue;
    const open = [start];
    pool.set(start, start);
    while (open.length > 0) {
      const cell = open.pop()!;
      const [i, j] = [cell % WIDE, Math.floor(cell / WIDE)];
      for (const [u, v] of [
        [i + 1, j],
        [i - 1, j],
        [i, j + 1],
        [i, j - 1],
      ])
        // prettier-ignore
        if (u >= 0 && v >= 0 && u < WIDE && v < HIGH && !pool.has(v * WIDE + u) && !crossed(at(i, j), at(u, v))) {
          pool.set(v * WIDE + u, start);
          open.push(v * WIDE + u);
        }
    }
  }
  const poolAt = (x: number, y: number): number | undefined => pool.get(Math.floor(y) * WIDE + Math.floor(x));
  return lines
    .filter(({ a, b }) => {
      const long = Math.round(Math.hypot(b[0] - a[0], b[1] - a[1]));
      const [u, v] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
      return Array.from({ length: long }, (_, k): Vec2 => [a[0] + u * (k + 0.5), a[1] + v * (k + 0.5)]).some(
        ([x, y]) => poolAt(x + v / 2, y + u / 2) !== poolAt(x - v / 2, y - u / 2),
      );
    })
    .map((l) => l.id);
}

test('strokes across a page are asked about just where a flood cannot pass them', () => {
  const stroke = fc.record({
    across: fc.boolean(),
    at: fc.integer({ min: 1, max: 7 }).map((k) => k * 10),
    from: fc.constantFrom(0, 0, 20, 40),
    to: fc.constantFrom(1, 1, 0.75),
  });
  fc.assert(
    fc.property(fc.array(stroke, { minLength: 1, maxLength: 4 }), (strokes) => {
      const placed = [...new Map(strokes.map((s) => [`${s.across} ${s.at}`, s])).values()].map((s, k) => {
        const long = s.across ? WIDE : HIGH;
        const ends: Vec2[] = [s.from, s.to * long].map((x): Vec2 => (s.across ? [x, s.at] : [s.at, x]));
        return { id: `l${k}`, a: ends[0], b: ends[1] };
      });
      const t = plainTemplate([PAGE, ...placed.map(({ id, a, b }) => drawnLine(id, 'cut', false, a, b))]);
      expect(asked(t).sort()).toEqual(flooded(placed).sort());
    }),
    { numRuns: 40 },
  );
});

test('lines of one length that run the same way are one question; a bent one cannot be a fold', () => {
  const across = (id: string, y: number, to = WIDE) => drawnLine(id, 'cut', false, [0, y], [to, y]);
  const bent = drawnLine('bent', 'cut', false, [0, 70], [60, 60], [WIDE, 70]);
  const t = plainTemplate([
    PAGE,
    across('a', 20),
    across('b', 40),
    drawnLine('c', 'cut', false, [50, 0], [50, 20]),
    bent,
  ]);
  const told = severingIn(t, templateLines(t));
  expect(told.map(({ lines, mayFold }) => [lines, mayFold])).toEqual([
    [['bent'], false],
    [['a', 'b'], true],
    [['c'], true],
  ]);
  expect(told[1].longMm).toBeCloseTo(WIDE, 9);
});

test('a difference of half a millimetre or a degree makes another question', () => {
  const page = drawnLine('page', 'cut', true, [0, 0], [WIDE, 0], [WIDE, HIGH], [0, HIGH]);
  const many = (y: number): number => {
    const lines = [drawnLine('a', 'cut', false, [0, 20], [WIDE, 20]), drawnLine('b', 'cut', false, [0, 40], [WIDE, y])];
    const t = plainTemplate([page, ...lines]);
    return severingIn(t, templateLines(t)).length;
  };
  const rise = (deg: number): number => 40 + WIDE * Math.tan((deg * Math.PI) / 180);
  expect([many(rise(0.99)), many(rise(1.01))]).toEqual([1, 2]);
  /** Two uprights, of 20 mm and of so much, each from an edge to a fold. */
  const uprights = (mm: number): number => {
    const t = plainTemplate([
      page,
      ...[20, HIGH - mm].map((y, k) => drawnLine(`fold-${k}`, 'cut', false, [0, y], [WIDE, y])),
      drawnLine('a', 'cut', false, [50, 0], [50, 20]),
      drawnLine('b', 'cut', false, [80, HIGH - mm], [80, HIGH]),
    ]);
    return severingIn(t, templateLines(t)).length;
  };
  expect([uprights(20.49), uprights(20.51)]).toEqual([2, 3]);
});

test('beside a window nothing is parted, and what was said to be a cut is asked no more: it parts the page', () => {
  const window = drawnLine('w', 'window', true, [40, 0.001], [80, 0.001], [80, 79.999], [40, 79.999]);
  const inWindow = drawnLine('x', 'cut', false, [40, 40], [80, 40]);
  expect(asked(plainTemplate([PAGE, window, inWindow]))).toEqual([]);
  const fold = drawnLine('fold', 'valley', false, [0, 60], [WIDE, 60]);
  const cut = drawnLine('cut', 'cut', false, [0, 30], [WIDE, 30]);
  const open = plainTemplate([PAGE, fold, cut]);
  expect(asked(open)).toEqual(['cut']);
  expect(sheetsNamed(open)).toHaveLength(1);
  const said = { ...open, picked: { cut: 'cut' as const } };
  expect(asked(said)).toEqual([]);
  expect(sheetsNamed(said).map(({ sheet }) => Math.round(areaOf(sheet.outer)))).toEqual([WIDE * 50, WIDE * 30]);
});
const areaOf = (ring: readonly Vec2[]): number =>
  Math.abs(
    ring.reduce((sum, [x, y], k) => {
      const [u, v] = ring[(k + 1) % ring.length];
      return sum + x * v - y * u;
    }, 0),
  ) / 2;

/** A step as a machine's file has it: all its lines are cuts. */
function stepOfCuts(): Template {
  const line = (id: string, a: Vec2, b: Vec2) => drawnLine(id, 'cut', false, a, b);
  return plainTemplate([
    drawnLine('page', 'cut', true, [0, 0], [100, 0], [100, 150], [0, 150]),
    line('left', [30, 55], [30, 105]),
    line('right', [70, 55], [70, 105]),
    line('foot', [30, 55], [70, 55]),
    line('head', [30, 105], [70, 105]),
    line('ridge', [30, 85], [70, 85]),
    line('gutter-1', [0, 75], [30, 75]),
    line('gutter-2', [70, 75], [100, 75]),
  ]);
}

test('a step whose folds are drawn as cuts is a card after four answers, as large as its page', () => {
  const t = stepOfCuts();
  const questions = severingIn(t, templateLines(t)).map((s) => [...s.lines].sort());
  expect(questions).toEqual([
    ['left', 'right'],
    ['foot', 'head', 'ridge'],
    ['gutter-1', 'gutter-2'],
  ]);
  const answered: Template = {
    ...t,
    picked: {
      ...{ left: 'cut', right: 'cut', foot: 'valley', head: 'valley', ridge: 'mountain' },
      ...{ 'gutter-1': 'valley', 'gutter-2': 'valley' },
    },
  };
  const design = withTemplate(blankDesign('Step'), answered);
  expect(severingIn(answered, templateLines(answered))).toEqual([]);
  expect(design.card.parameters).toMatchObject({ gutter: 100, reachA: 75, reachB: 75 });
  expect(prove(design).findings.filter((f) => f.severity === 'blocks')).toEqual([]);
});

test('pieces are called and cut as they were said to be, in whatever order they are and at any scale', () => {
  const page = (id: string, x: number, wide: number) =>
    drawnLine(id, 'cut', true, [x, 0], [x + wide, 0], [x + wide, 60], [x, 60]);
  const lines = [page('small', 0, 40), page('large', 60, 90), drawnLine('f', 'valley', false, [0, 30], [40, 30])];
  const t = plainTemplate(lines, { scale: 2, pieces: [{ at: [100, 10], name: 'Strip' }] });
  const blank = blankDesign('Two');
  const [, other] = blank.stocks;
  const design = withTemplate(blank, t, [{ at: [100, 10], stock: other.id }]);
  const pieces = buildAssembly(design).pieces.map(({ title, stock }) => [title, stock]);
  expect(pieces).toEqual([
    ['plain', blank.card.stock],
    ['Strip', other.id],
  ]);
  // The same drawing with its fold in the other piece: that piece comes first, and is still cut from its own stock.
  const turned = { ...t, lines: [...lines.slice(0, 2), drawnLine('f', 'valley', false, [60, 30], [150, 30])] };
  expect(keptStocks(design, turned).map((s) => s.stock)).toEqual([blank.card.stock, other.id]);
  const again = withTemplate(design, turned);
  expect(buildAssembly(again).pieces.map(({ title, stock }) => [title, stock])).toEqual([
    ['Strip', other.id],
    ['plain, part 2', blank.card.stock],
  ]);
});
