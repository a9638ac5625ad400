/**
 * Folds end at windows and gaps: against the length of the chord of a circle, and of what a rectangle leaves. What is
 * scored is asked of the sheet's own lines.
 */
import fc from 'fast-check';
import { newLayer, type Design, type Layer } from '../document/design';
import { prove } from '../proof/prove';
import { lineWork } from '../sheets/line-work';
import { card, findings, stand } from '../tests/cards';
import { buildAssembly } from './build';

const windowIn = (d: Design, facet: string, shape: Layer['shape'], x: number, y: number): Design => ({
  ...d,
  layers: [
    ...d.layers,
    { ...newLayer({ id: `w${d.layers.length}`, name: 'Window', facet, shape, as: 'window', stock: 'card-240' }), x, y },
  ],
});
/** 80 mm wide; its riser reaches from the base at y = 30 to the ridge at y = -10, its middle lies at y = 10. */
const step = stand(card(200, 140), 'step-fold', { depth: 30, height: 40, width: 80 });
const RISER = 'step-fold-1.riser';

function scoredMm(d: Design, crease: string): number {
  const assembly = buildAssembly(d);
  const piece = assembly.pieces.find((p) => p.creases.some((c) => c.id === crease))!;
  return lineWork(piece, assembly.interruptions)
    .scores.filter((s) => s.crease.id === crease)
    .reduce((sum, l) => sum + Math.hypot(l.b[0] - l.a[0], l.b[1] - l.a[1]), 0);
}
const foldedMm = (d: Design, crease: string): number =>
  buildAssembly(d)
    .creases.filter((c) => c.id === crease)
    .flatMap((c) => c.segments)
    .reduce((sum, s) => sum + Math.hypot(s.b[0] - s.a[0], s.b[1] - s.a[1]), 0);

test('a round window takes its chord out of a fold, wherever it lies (theorem of Pythagoras)', () => {
  const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  fc.assert(
    fc.property(real(6, 20), real(-19, 19), real(-0.8, 0.8), (radius, x, away) => {
      const d = windowIn(step, RISER, { circle: 2 * radius }, x, -20 + away * radius);
      const chord = 2 * radius * Math.sqrt(1 - away * away);
      expect(Math.abs(80 - chord - foldedMm(d, 'step-fold-1.ridge'))).toBeLessThan(0.1);
      expect(Math.abs(80 - chord - scoredMm(d, 'step-fold-1.ridge'))).toBeLessThan(0.1);
    }),
    { numRuns: 20 },
  );
});

test.each([
  ['in the middle of the ridge', RISER, { circle: 12 }, 0, -20],
  ['at its end', RISER, { circle: 12 }, -38, -20],
  ['over nearly all of it', RISER, { width: 70, height: 6 }, 0, -20],
  ['over the base', RISER, { circle: 12 }, 0, 20],
  ['over the gutter', 'leafA', { circle: 12 }, 70, -70],
  ['over the end of the gutter', 'leafA', { circle: 30 }, -90, -70],
  ['through riser and tread', RISER, { width: 8, height: 60 }, 0, -10],
] as const)('a window %s leaves the card clear', (_, facet, shape, x, y) => {
  expect(prove(windowIn(step, facet, shape, x, y)).verdict).toBe('clear');
});

test('a fold that has no paper left anywhere is told, one with a hair of it is not', () => {
  const slot = (width: number): Design => windowIn(step, RISER, { width, height: 6 }, 0, -20);
  const lost = (d: Design): boolean => findings(d, 'loose-part').some((f) => f.severity === 'blocks');
  expect(lost(slot(80.2))).toBe(true);
  expect(lost(slot(79))).toBe(false);
  // What is left is narrow, though: that is another promise.
  expect(findings(slot(79), 'web').map((f) => f.severity)).toContain('blocks');
});

test('a side step whose ridge ends in the gap between two bumps of a shaped card is no fault', () => {
  const shape = { cloud: { width: 190, height: 130, bumps: 13 } };
  const plain = card(190, 130);
  const shaped: Design = { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, shape } } };
  for (const edge of ['left', 'right', 'none'])
    for (const width of [20, 30, 40]) {
      const d = stand(shaped, 'step-fold', { depth: 40, height: 40, width, edge });
      expect(findings(d, 'loose-part').map((f) => f.message)).toEqual([]);
      expect(foldedMm(d, 'step-fold-1.ridge')).toBeLessThanOrEqual(width + 1e-6);
    }
});

test('where the page has no paper at a level at all, no length is told', () => {
  const shape = { cloud: { width: 190, height: 130, bumps: 13 } };
  const plain = card(190, 130);
  const shaped: Design = { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, shape } } };
  const told = findings(stand(shaped, 'step-fold', { depth: 150, height: 40, width: 40, edge: 'left' }), 'loose-part');
  const said = told.map((f) => f.message).join(' ');
  expect(said).toContain('does not reach there');
  expect(said).not.toContain('Infinity');
});
