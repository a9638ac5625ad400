/** Play of parts that slide, in made cards: closed forms of sums of cut edges; the limit itself is the kind's own. */
import { card, stand } from '../tests/cards';
import type { Design } from '../document/design';
import { setParameter } from '../document/fields';
import { binds, Maker, pokesOut, shows, SHOWS_FROM_MM, type Fitness } from './fitness';
import { forgivingOf } from './forgiving';
import type { Scatter } from './scatter';
import { studied, summaryOf } from './study';

const NONE: Scatter = { cutMm: 0, scoreMm: 0, foldDeg: 0, glueMm: 0, glueDeg: 0 };
const SIGMA = 0.3;
const cut = { ...NONE, cutMm: SIGMA };
const slider = (slot: number): Design => stand(card(200, 140), 'track-slider', { slot, spacer: 5 }, 'leafB');
const bindOf = (d: Design) => new Maker(d, cut).fits.find((f) => f.rule === 'bind' && f.aspect === 'carrier')!;

test('a wider slot has as much more to spare', () => {
  expect(bindOf(slider(6.5)).spareMm - bindOf(slider(6)).spareMm).toBeCloseTo(0.5, 9);
});

test('play shrinks by what both cut edges grow, and grows by what they shrink', () => {
  const d = slider(6);
  const maker = new Maker(d, cut);
  const fit = bindOf(d);
  expect(fit.pieces.length).toBe(2);
  const at = (by: number): number => {
    const amounts = maker.steps.map((s) => (s.kind === 'cut' && fit.pieces.includes(s.id) ? by : 0));
    return maker.make(amounts, false).playMm!;
  };
  expect(maker.asDrawn.playMm).toBeCloseTo(fit.spareMm, 9);
  expect(at(0.1)).toBeCloseTo(fit.spareMm - 0.2, 9);
  expect(at(0.01)).toBeLessThan(fit.spareMm);
});

test.each<[Partial<Fitness>, boolean, boolean]>([
  [{ playMm: 0.01 }, false, false],
  [{ playMm: 0 }, false, false],
  [{ playMm: -0.01 }, true, false],
  [{ coverMm: 0 }, false, false],
  [{ coverMm: -0.01 }, false, true],
  [{ wayGapMm: 1 }, false, false],
  [{ wayGapMm: 1.001 }, true, false],
  [{ edgesMm: SHOWS_FROM_MM }, false, false],
  [{ edgesMm: SHOWS_FROM_MM + 0.001 }, false, true],
])('%j: binds %s, shows an edge %s', (change, isBound, isSeen) => {
  const plain: Fitness = { overhangMm: -1, closedGapMm: 0, wayGapMm: 0, edgesMm: 0, playMm: 1, coverMm: 1 };
  expect([binds({ ...plain, ...change }), shows({ ...plain, ...change })]).toEqual([isBound, isSeen]);
});

test.each([
  [0, 0, false],
  [0.001, 0, true],
  [1, 1, false],
  [1.001, 1, true],
])('%d past where %d is allowed pokes out: %s', (overhangMm, may, out) => {
  const plain: Fitness = { overhangMm, closedGapMm: 0, wayGapMm: 0, edgesMm: 0, playMm: null, coverMm: null };
  expect(pokesOut(plain, may)).toBe(out);
});

test('a slot with little to spare binds as often as the normal distribution says, and a wider one is proposed', () => {
  const d = slider(6);
  const tight = setParameter(d, 'track-slider-1', 'slot', 6 - bindOf(d).spareMm + 0.3);
  expect(bindOf(tight).spareMm).toBeCloseTo(0.3, 9);
  const MADE = 1000;
  const study = studied(tight, { made: MADE, seed: 5, scatter: cut });
  // Below 0 when two cut edges together are more than 0.3: z = 0.3 / (0.3 root 2) = 0.7071, 23.98 % (normal tables).
  const { bindsPct } = summaryOf(study);
  expect(Math.abs(bindsPct - 23.98)).toBeLessThan(100 * 4 * Math.sqrt((0.24 * 0.76) / MADE));
  const wider = forgivingOf(tight, study).find((w) => w.parameter === 'slot')!;
  expect(wider.value).toBeGreaterThan(wider.from);
  expect(wider.verdict).not.toBe('blocked');
  const again = studied(setParameter(tight, 'track-slider-1', 'slot', wider.value), {
    made: MADE,
    seed: 6,
    scatter: cut,
  });
  expect(summaryOf(again).bindsPct).toBeLessThan(1 + 100 * 3 * Math.sqrt((0.01 * 0.99) / MADE));
});
