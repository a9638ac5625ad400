/** Grips, snaps and dimensions against designs put together anew, and plane geometry worked out here. */
import fc from 'fast-check';
import { setParameter } from '../document/fields';
import { KINDS, type ParameterValues } from '../kinds';
import { shelveFonts } from '../../fonts/shelve';
import { distToSegment, lerp2, type Vec2 } from '../plane/vec2';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { buildAssembly } from './build';
import { dimensionsOf } from './dimensions';
import { gripsOf, numbersOf } from './grips';
import { snapsOf } from './snaps';

beforeAll(shelveFonts);
const step = (values: ParameterValues = {}) =>
  stand(card(), 'step-fold', { depth: 30, height: 20, width: 40, ...values });
const creaseOf = (d: ReturnType<typeof step>, id: string) =>
  buildAssembly(d)
    .pieces.flatMap((p) => p.creases)
    .find((c) => c.id === id)!;

describe('a grip', () => {
  test('of a step: each crease stands for its own number, the slits for the width', () => {
    const by = new Map(
      gripsOf(step(), 'step-fold-1').map((g) => [g.crease?.split('.')[1] ?? g.parameter, g.parameter]),
    );
    expect([...by].sort()).toEqual([
      ['base', 'depth'],
      ['ridge', 'height'],
      ['wall', 'height'],
      ['width', 'width'],
    ]);
  });

  test('goes where its number takes it, for any sizes', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 6, max: 40, noNaN: true }),
        fc.double({ min: 6, max: 40, noNaN: true }),
        fc.double({ min: -5, max: 5, noNaN: true }),
        (depth, height, by) => {
          fc.pre(Math.abs(depth - height) > 6 && Math.abs(depth - height + by) > 0.5);
          const d = step({ depth, height });
          const base = gripsOf(d, 'step-fold-1').find((g) => g.crease === 'step-fold-1.base')!;
          const after = creaseOf(setParameter(d, 'step-fold-1', 'depth', depth + by), 'step-fold-1.base');
          const [{ a, b, way }] = base.lines;
          const wanted = lerp2(a, b, 0.5).map((v, k) => v + way[k] * by) as unknown as Vec2;
          expect(distToSegment(wanted, after.a, after.b)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 25 },
    ));

  const all = demoCards().flatMap(([file, d]) => d.mechanisms.map((m) => [`${file}, ${m.kind}`, d, m.id] as const));
  test.each(all)('of %s: each of its lines is on the drawing and follows its number', (_, d, id) => {
    const grips = gripsOf(d, id);
    const creases = new Set(buildAssembly(d).pieces.flatMap((p) => p.creases.map((c) => c.id)));
    const numbers = new Set(numbersOf(d, id));
    expect(grips.length).toBeGreaterThan(0);
    for (const g of grips) {
      expect(numbers).toContain(g.parameter);
      if (g.crease) expect(creases).toContain(g.crease);
      for (const { way } of g.lines) expect(Math.hypot(...way)).toBeGreaterThan(0.1);
    }
  });

  test('there is one for every number that a kind on a crease says is its width, depth or height', () => {
    for (const kind of [...KINDS.values()].filter((k) => k.mount === 'crease' && k.id !== 'own-lines')) {
      const d = stand(card(300, 200), kind.id, {});
      const held = new Set(gripsOf(d, `${kind.id}-1`).map((g) => g.parameter));
      for (const key of ['width', 'depth', 'height', 'size', 'arm', 'slit'])
        if (numbersOf(d, `${kind.id}-1`).includes(key))
          expect([kind.id, key, held.has(key)]).toEqual([kind.id, key, true]);
    }
  });

  test('of lines of one’s own follows a size that they are named by', () => {
    const d = stand(card(), 'own-lines', {
      numbers: [{ name: 'far', value: 30 }],
      lines: [{ name: 'fold', role: 'valley', from: { x: -100, y: 'far * 2' }, to: { x: 100, y: 'far * 2' } }],
    });
    const [grip] = gripsOf(d, 'own-lines-1');
    expect(grip).toMatchObject({ parameter: 'numbers[0].value', crease: 'own-lines-1.fold' });
    expect(grip.lines[0].way[1]).toBeCloseTo(2, 6);
  });
});

describe('what a dragged line lines up with', () => {
  const snaps = (d = step(), crease = 'base') => {
    const grip = gripsOf(d, 'step-fold-1').find((g) => g.crease === `step-fold-1.${crease}`)!;
    return snapsOf(d, buildAssembly(d), grip, grip.lines[0]);
  };
  test('is the gutter, the edge and the middle of its leaf, and equal spaces', () => {
    const found = new Map(snaps().map((s) => [s.name, s.by]));
    expect(found.get('gutter')).toBeCloseTo(-30, 6);
    expect([...found].filter(([name]) => /^edge of the back/.test(name)).map(([, by]) => Math.round(by))).toContain(70);
    // The wall lies 20 past the gutter: as far again on the other side is at 20.
    expect(snaps().some((s) => Math.abs(s.by - (20 - 30)) < 1e-6)).toBe(true);
  });
  test('each one is where it says: put there, two lines are one', () => {
    for (const { by, name } of snaps().slice(0, 8)) {
      if (name !== 'gutter' && name !== 'ridge of Step') continue;
      const grip = gripsOf(step(), 'step-fold-1').find((g) => g.crease === 'step-fold-1.base')!;
      const y = grip.lines[0].a[1] + grip.lines[0].way[1] * by;
      const other = name === 'gutter' ? 0 : creaseOf(step(), 'step-fold-1.ridge').a[1];
      expect(y).toBeCloseTo(other, 6);
    }
  });
});

describe('dimensions', () => {
  test('of a step: depth and height from the fold, the width between its slits', () => {
    const d = step({ offset: 7 });
    const found = dimensionsOf(d, buildAssembly(d), gripsOf(d, 'step-fold-1'));
    const far = Object.fromEntries(
      found.map((m) => [m.parameter, Math.hypot(m.to[0] - m.from[0], m.to[1] - m.from[1])]),
    );
    expect(Object.keys(far).sort()).toEqual(['depth', 'height', 'width']);
    expect(far.depth).toBeCloseTo(30, 6);
    expect(far.height).toBeCloseTo(20, 6);
    expect(far.width).toBeCloseTo(40, 6);
    const depth = found.find((m) => m.parameter === 'depth')!;
    expect(Math.min(Math.abs(depth.from[1]), Math.abs(depth.to[1]))).toBeCloseTo(0, 6);
  });
  test('of the demo cards are as long as they say', () => {
    for (const [, d] of demoCards())
      for (const { id } of d.mechanisms) {
        const assembly = buildAssembly(d);
        for (const { from, to, parameter } of dimensionsOf(d, assembly, gripsOf(d, id))) {
          const said = numbersOf(d, id).includes(parameter);
          expect(said).toBe(true);
          expect(Math.hypot(to[0] - from[0], to[1] - from[1])).toBeGreaterThan(0.9);
        }
      }
  });
});
