/** Views of the steps of the work: what shows, by parts laid over parts by hand; which view is taken. */
import { poseAt } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { workSteps } from '../build/steps';
import { blankDesign, type Design } from '../document/design';
import { addMechanism, rebuiltAs } from '../document/standing';
import { BASES, KINDS } from '../kinds';
import { card, stand } from '../tests/cards';
import type { PicturePart } from './picture';
import { READER } from './picture';
import { pictureOfStep, shownMm2 } from './seen-from';

const square = (id: string, x: number, y: number, size: number): PicturePart => ({
  id,
  mechanism: 'm',
  fill: '#fff',
  holes: [],
  points: [
    [x, y],
    [x + size, y],
    [x + size, y + size],
    [x, y + size],
  ],
});
const picture = (...parts: PicturePart[]) => ({ parts, box: { x: 0, y: 0, width: 1, height: 1 } });

test('what is covered by what is painted later does not show; parts of the step do not hide each other', () => {
  const own = square('own', 0, 0, 10);
  const shown = (...parts: PicturePart[]): number => shownMm2(picture(...parts), new Set(['own', 'too']));
  expect(shown(own)).toBeCloseTo(100, 9);
  expect(shown(own, square('over', -5, -5, 30))).toBe(0);
  expect(shown(square('under', -5, -5, 30), own)).toBeCloseTo(100, 9);
  expect(shown(own, square('too', 0, 0, 10))).toBeCloseTo(200, 9);
  // Half covered, about half shows.
  const half = shown(own, { ...square('over', 5, -5, 30) });
  expect(half).toBeGreaterThan(20);
  expect(half).toBeLessThan(80);
});

test('what is fixed outside the lying leaf is seen from underneath, what stands inside as its reader does', () => {
  const inside = stand(card(200, 140), 'step-fold', { depth: 30, height: 30, width: 60 });
  const mount = { side: 'outside' as const, x: 0, y: 0, turnDeg: 0 };
  const { design: outside } = addMechanism(card(200, 140), 'waterfall', { on: 'leafA', mount });
  const view = (d: Design, open: number, mechanism: string) => {
    const a = buildAssembly(d);
    const own = new Set(a.facets.filter((f) => f.mechanism === mechanism).map((f) => f.id));
    return pictureOfStep(d, a, poseAt(a, { open }), own).from;
  };
  expect(view(inside, 110, 'step-fold-1')).toEqual(READER);
  expect(view(inside, 110, 'nothing')).toEqual(READER);
  expect(view(outside, 180, 'waterfall-1')[2]).toBeLessThan(0);
});

test('every step of every base and kind names parts that are there, and most of them show in its picture', () => {
  const bases = [...BASES.keys()].map((id) => rebuiltAs(blankDesign(id), id));
  const kinds = [...KINDS.values()].filter((k) => k.mount === 'crease').map((k) => stand(card(200, 140), k.id, {}));
  for (const design of [...bases, ...kinds]) {
    const a = buildAssembly(design);
    const ids = new Set([...a.facets.map((f) => f.id), ...a.layers.map((l) => l.id)]);
    for (const step of workSteps(design, a)) {
      const own = step.subjects.filter((s) => ids.has(s));
      expect(own).toEqual(step.subjects);
      if (own.length === 0) continue;
      const { picture: drawn } = pictureOfStep(design, a, poseAt(a, step.state), new Set(own));
      expect(shownMm2(drawn, new Set(own))).toBeGreaterThan(1);
    }
  }
});
