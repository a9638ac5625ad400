/**
 * Edges and corners of a plain card: areas and places against plain geometry (circle, square), mirrored leaves, the
 * liner's inset against a second look at its distances.
 */
import fc from 'fast-check';
import { allMeasures, poseAt } from '../../assembly/pose';
import { buildAssembly, DesignError } from '../../build/build';
import { blankDesign, type Design } from '../../document/design';
import { checkDesign } from '../../document/schema';
import { contains, distanceToEdge, regionArea, regionBox } from '../../plane/polygon';
import { prove } from '../../proof/prove';
import { stand } from '../../tests/cards';
import type { ListItem, ParameterValues } from '..';

const cardWith = (parameters: ParameterValues, gutter = 120, reach = 80): Design => {
  const d = blankDesign('edged', gutter, reach);
  return { ...d, card: { ...d.card, parameters: { ...d.card.parameters, ...parameters } } };
};
const paper = (d: Design, piece = 'card') => buildAssembly(d).pieces.find((p) => p.id === piece)!.outline;
const corners = (...list: ListItem[]): ParameterValues => ({ corners: list });
const areaLost = (d: Design, gutter = 120, reach = 80): number => 2 * gutter * reach - regionArea([paper(d)]);
const real = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** A round corner leaves out this much of its square (area of the circle). */
const SPANDREL = 1 - Math.PI / 4;

test('corners lose a spandrel or a triangle each, where they are said to', () => {
  fc.assert(
    fc.property(real(1, 25), (size) => {
      const lost = (at: string, how: string): number => areaLost(cardWith(corners({ at, how, size })));
      // Curves are drawn within 0.01 mm.
      const round = 4 * SPANDREL * size * size;
      expect(Math.abs(lost('fore', 'round') - round)).toBeLessThan(0.01 * 2 * Math.PI * size);
      expect(lost('fore', 'cut')).toBeCloseTo(2 * size * size, 4);
      expect(lost('leaf A head', 'cut')).toBeCloseTo((size * size) / 2, 4);
      expect(lost('fold', 'cut')).toBeCloseTo(2 * size * size, 4);
    }),
    { numRuns: 30 },
  );
  const one = paper(cardWith(corners({ at: 'leaf B foot', how: 'cut', size: 10 })));
  const at = (x: number, y: number): boolean => contains(one, [x, y]);
  expect([at(-59, -79), at(59, -79), at(59, 79), at(-59, 79)]).toEqual([false, true, true, true]);
});

test('scallops: half discs of a pitch that fills the side, within the size of the card', () => {
  const d = cardWith({ edges: [{ side: 'fore', shape: { circle: 30 }, pitch: 11 }] });
  // 120 / 11 rounds to 11 copies; between half discs and their box lies one spandrel pair each.
  const pitch = 120 / 11;
  const r = pitch / 2;
  expect(areaLost(d) / (2 * 11 * (pitch * r - (Math.PI * r * r) / 2))).toBeCloseTo(1, 2);
  const { min, max } = regionBox([paper(d)]);
  [min[0], min[1], max[0], max[1]].forEach((x, k) => expect(x).toBeCloseTo([-60, -80, 60, 80][k], 6));
  const ring = paper(d).outer;
  const inRing = (x: number, y: number): boolean => contains({ outer: ring, holes: [] }, [x, y]);
  for (let k = 0; k < 11; k++) {
    const middle = -60 + (k + 0.5) * pitch;
    expect(inRing(middle, 79.9)).toBe(true);
    expect(inRing(middle + pitch / 2, 80 - r + 0.3)).toBe(k === 10 ? false : inRing(middle - pitch / 2, 80 - r + 0.3));
  }
});

test('at the head both leaves have the same edge, so that it lies on itself when shut', () => {
  const { outer } = paper(cardWith({ edges: [{ side: 'head', shape: { circle: 10 }, pitch: 13 }] }));
  const ring = { outer, holes: [] };
  fc.assert(
    fc.property(real(50, 60), real(0.5, 79.5), (x, y) => {
      if (distanceToEdge(ring, [x, y]) < 0.01) return;
      expect(contains(ring, [x, y])).toBe(contains(ring, [x, -y]));
      expect(contains(ring, [-x, y])).toBe(true);
    }),
  );
});

test('a liner lies as far inside the edge everywhere', () => {
  const d = cardWith({
    liner: 7,
    edges: [{ side: 'fore', shape: { circle: 10 }, pitch: 20 }],
    ...corners({ at: 'fold', how: 'round', size: 9 }),
  });
  const outer = { outer: paper(d).outer, holes: [] };
  const page = paper(d, 'liner');
  const apart = page.outer.map((p) => distanceToEdge(outer, p));
  expect(Math.min(...apart)).toBeGreaterThan(7 - 0.02);
  // Chords of its round parts leave it by no more.
  expect(Math.max(...apart)).toBeLessThan(7 + 0.05);
  expect(page.outer.every((p) => contains(outer, p))).toBe(true);
  expect(allMeasures(buildAssembly(d), poseAt(buildAssembly(d), { open: 90 }), null).card.hinge_mm).toBeCloseTo(102, 1);
});

test('it folds, is proved, carries a step; what stands past a cut corner is seen; the file keeps it', () => {
  const d = stand(
    cardWith(
      {
        edges: [{ side: 'leaf B fore', shape: { circle: 10 }, pitch: 12 }],
        ...corners({ at: 'fore', how: 'round', size: 12 }),
      },
      200,
      140,
    ),
    'step-fold',
    { depth: 30, height: 30, width: 40 },
  );
  expect(prove(d, 12).findings.filter((f) => f.severity !== 'note')).toEqual([]);
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  const tall = stand(cardWith(corners({ at: 'fore', how: 'cut', size: 40 }), 120, 80), 'step-fold', {
    depth: 38,
    height: 38,
    width: 100,
    build: 'glued',
  });
  expect(prove(tall, 4).findings.some((f) => f.rule === 'overhang')).toBe(true);
});

test('copies that do not reach the card, and corners that take it all, are refused in words', () => {
  const loose = cardWith({ edges: [{ side: 'fore', shape: { circle: 10 }, pitch: 12, depth: 30 }] });
  expect(() => buildAssembly(loose)).toThrow(DesignError);
  expect(() => buildAssembly(loose)).toThrow(/hang together/);
  const none = cardWith(corners({ at: 'fore', how: 'cut', size: 200 }, { at: 'fold', how: 'cut', size: 200 }));
  expect(() => buildAssembly(none)).toThrow(/corners/);
});
