/** Each fold is said to go in or out in its step: held against the pose half open, where a valley is positive. */
import { foldDeg, poseOpen } from '../assembly/pose';
import { wordsOfOwnPart } from '../document/words';
import { demoCards } from '../tests/demo';
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from './build';
import { workOf } from './steps';

beforeAll(shelveFonts);

const listed = (text: string, way: 'in' | 'out'): string[] =>
  (new RegExp(`Folds ${way}: ([^.]*)\\.`).exec(text)?.[1] ?? '').split(/, | and \d+ more/).filter((s) => s !== '');

test.each(['terrace-night', 'dome-skyline', 'comet-watch', 'refractor-evening', 'the-dome-opens'])('%s', (name) => {
  const design = demoCards().find(([n]) => n === name)![1];
  const assembly = buildAssembly(design);
  const half = poseOpen(assembly, 90);
  const { steps } = workOf(design, assembly);
  const folding = steps.filter((s) => s.folds.length > 0);
  expect(folding.length).toBeGreaterThan(0);
  for (const { folds, text } of folding)
    for (const crease of assembly.creases.filter((c) => folds.includes(c.id))) {
      const deg = foldDeg(half, crease);
      if (Math.abs(deg) < 1) continue;
      expect([crease.id, listed(text, deg > 0 ? 'in' : 'out')]).toEqual([
        crease.id,
        expect.arrayContaining([wordsOfOwnPart(design, crease.id)]),
      ]);
    }
});
