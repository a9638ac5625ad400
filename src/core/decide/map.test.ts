/** The map of two numbers against the closed form of a step: it folds in while depth + height is within the reach. */
import { buildAssembly } from '../build/build';
import { stockOf } from '../document/design';
import { boxOf } from '../plane/polygon';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { shelveFonts } from '../../fonts/shelve';
import { mapSteps, type MapAsk, type MapCell } from './map';
import { wearOf } from './wear';

beforeAll(shelveFonts);
const REACH_MM = 100;
const step = () => stand(card(160, REACH_MM), 'step-fold', { depth: 40, height: 25, width: 50 });
const ask: MapAsk = {
  x: { mechanism: 'step-fold-1', key: 'depth', from: 20, to: 80 },
  y: { mechanism: 'step-fold-1', key: 'height', from: 20, to: 80 },
  measure: { mechanism: 'step-fold-1', measure: 'ridge_z', open: 90 },
};
function finished(cells: number): readonly MapCell[] {
  const steps = mapSteps(step(), ask, cells);
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

test('its edge lies where the closed form has it, within the finest cells', () => {
  const map = finished(6);
  const finest = Math.min(...map.map((c) => c.w));
  expect(finest).toBeCloseTo(60 / 6 / 4, 9);
  for (const c of map) {
    const over = c.x + c.y - REACH_MM;
    // A cell is judged at its middle.
    if (Math.abs(over) > 0.05) expect([c.x, c.y, c.verdict === 'blocked']).toEqual([c.x, c.y, over > 0]);
    expect(c.value).toBeCloseTo(c.y, 6);
  }
  // Both sides of the edge are looked at as finely as can be.
  const near = map.filter((c) => Math.abs(c.x + c.y - REACH_MM) < finest);
  expect(near.every((c) => c.w < 60 / 6)).toBe(true);
});

test('the cells cover the whole of both ranges, and no place twice', () => {
  const map = finished(5);
  expect(map.reduce((sum, c) => sum + c.w * c.h, 0)).toBeCloseTo(60 * 60, 6);
  const clash = map.some((a, i) =>
    map
      .slice(i + 1)
      .some((b) => Math.abs(a.x - b.x) < (a.w + b.w) / 2 - 1e-6 && Math.abs(a.y - b.y) < (a.h + b.h) / 2 - 1e-6),
  );
  expect(clash).toBe(false);
});

describe('wear', () => {
  test('creases of a step turn half a turn, as the gutter does (handbook 2)', () => {
    const places = wearOf(step());
    const bends = places.filter((p) => p.kind === 'bends');
    expect(bends.map((p) => p.words).sort()).toEqual(['base of Step', 'gutter', 'ridge of Step', 'wall of Step']);
    for (const p of bends) expect(p.measured).toBeCloseTo(180, 3);
  });

  test('the narrowest paper is as wide as it was drawn, and wider paper than is told is not', () => {
    // Beside a step the gutter's leaf is left: half of what the gutter is longer.
    const beside = (width: number) => stand(card(60, REACH_MM), 'step-fold', { depth: 40, height: 25, width });
    const narrow = (width: number) =>
      wearOf(beside(width))
        .filter((p) => p.kind === 'narrow')
        .map((p) => p.measured);
    expect(narrow(56)[0]).toBeCloseTo(2, 1);
    expect(narrow(20)).toEqual([]);
  });

  test('what rubs comes nearer than two sheets on the way; shut, everything lies on everything', () => {
    // Two steps of unlike height beside each other: between them is the same gap at every opening.
    const apart = (gap: number) => {
      const one = stand(card(160, REACH_MM), 'step-fold', { depth: 40, height: 25, width: 30, offset: -20 });
      return stand(one, 'step-fold', { depth: 44, height: 30, width: 30, offset: 10 + gap });
    };
    const rubs = (gap: number) => wearOf(apart(gap)).filter((p) => p.kind === 'rubs');
    const sheets = 2 * stockOf(apart(1), apart(1).card.stock).caliperMm;
    expect(rubs(sheets + 0.01)).toEqual([]);
    expect(rubs(sheets - 0.01)).toHaveLength(1);
    expect(rubs(sheets - 0.01)[0].measured).toBeCloseTo(sheets - 0.01, 6);
    expect(rubs(sheets - 0.01)[0].words).toMatch(/Step 1 and .* of Step 2, (at \d+°|open flat),$/);
    // As far apart as this they rub nowhere, though they lie in one plane when shut.
    expect(rubs(20)).toEqual([]);
  });

  test('each two that rub are told, not only the nearest of all', () => {
    const steps = [-30, 0.2, 30.3].reduce(
      (d, offset, k) => stand(d, 'step-fold', { depth: 40 + 2 * k, height: 25 + 2 * k, width: 30, offset }),
      card(160, REACH_MM),
    );
    expect(wearOf(steps).filter((p) => p.kind === 'rubs')).toHaveLength(2);
  });

  test.each(demoCards().slice(0, 10))('%s: each place lies on its piece and has a number', (_, d) => {
    for (const p of wearOf(d)) {
      const { outline } = buildAssembly(d).pieces.find((piece) => piece.id === p.piece)!;
      const { min, max } = boxOf(outline.outer);
      for (const k of [0, 1]) expect(p.at[k] > min[k] - 1e-6 && p.at[k] < max[k] + 1e-6).toBe(true);
      expect(Number.isFinite(p.measured)).toBe(true);
      expect(p.part).toBeGreaterThanOrEqual(0);
      expect(p.part).toBeLessThanOrEqual(1);
      expect(p.words).not.toMatch(/[a-z]\.[a-z]|_/);
    }
  });
});
