/** Letters on their line, against triangles whose width at a height is known (similar triangles). */
import fc from 'fast-check';
import type { Polygon } from '../plane/polygon';
import { regionBox } from '../plane/polygon';
import { contactForLine, letterLine } from './letter-line';

const part = (...outer: [number, number][]): Polygon => ({ outer, holes: [] });
/** A block of 10, a wedge on its point that is as wide as it is high, and a dot high above the line: 20 mm high. */
const BLOCK = part([0, 0], [10, 0], [10, 20], [0, 20]);
const WEDGE = part([30, 0], [40, 20], [20, 20]);
const DOT = part([50, 16], [54, 16], [54, 20], [50, 20]);
const WORD = [BLOCK, WEDGE, DOT];

test('a wedge is cut where it is as wide as is asked for, whatever the height of the word', () => {
  fc.assert(
    fc.property(fc.double({ min: 1, max: 6, noNaN: true }), fc.double({ min: 15, max: 60, noNaN: true }), (c, high) => {
      const line = letterLine(WORD, high, null, c);
      // A cut t up leaves t of the wedge, and 20 - t of the height, which is then made `high`: t = 20 c / (high + c).
      const t = (20 * c) / (high + c);
      const scale = high / (20 - t);
      expect(-regionBox(line.drawn).min[1]).toBeCloseTo(t * scale, 5);
      const [block, wedge, dot] = line.letters;
      expect(block.footMm).toBeCloseTo(10 * scale, 5);
      // Cuts lie on a grid of a micrometre.
      expect(wedge.footMm).toBeCloseTo(c, 5);
      expect(dot.footMm).toBeNull();
      expect([block.topMm, wedge.topMm, dot.topMm].map((mm) => Math.round(mm! / scale))).toEqual([10, 20, 4]);
      expect(regionBox(line.left).max[1]).toBeCloseTo(high, 5);
    }),
    { numRuns: 40 },
  );
});

test('a line held further up asks for as much as the narrowest letter is wide there', () => {
  const line = letterLine(WORD, 20, null, 0.001);
  for (const up of [1, 3, 5, 7]) expect(Math.abs(contactForLine(line, up) - up)).toBeLessThan(0.2);
  expect(contactForLine(line, 0)).toBe(0);
});

test('without a contact the wedge touches nothing, and is told to', () => {
  const { letters } = letterLine(WORD, 20, null, 0);
  expect(letters.map((l) => l.footMm)).toEqual([10, 0, null]);
});
