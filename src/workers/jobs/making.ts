/** Files, pictures, films and booklets. */
import { poseAt } from '@/core/assembly/pose';
import { workOf } from '@/core/build/steps';
import { toBooklet } from '@/core/formats/booklet';
import { toBundle } from '@/core/formats/bundle';
import { exportDesign } from '@/core/formats/export';
import { drawPicture } from '@/core/formats/picture';
import { stepPicture } from '@/core/formats/step-picture';
import { unit3 } from '@/core/linkage';
import { STRIP_TEXT } from '@/core/sheets/test-strip';
import { makeFilm, makeStill } from '../film';
import type { Engine } from '../protocol';
import { answer, assemblyOf, breathe, fontsFor } from './at-hand';

export const making: Pick<Engine, 'still' | 'film' | 'steps' | 'booklet' | 'bundle' | 'export'> = {
  still: (design, state, choice, from) =>
    answer(async () => {
      const assembly = await assemblyOf(design);
      const look = from ? { from: unit3(from) } : {};
      return makeStill(drawPicture(design, assembly, poseAt(assembly, state), look), choice);
    }),
  film: (design, { view, ...choice }, onFrame) =>
    answer(async () => {
      const seen = view ? { view: unit3(view) } : {};
      return makeFilm(design, await assemblyOf(design), { ...choice, ...seen }, breathe, onFrame);
    }),
  steps: (design) =>
    answer(async () => {
      const { steps, rings } = workOf(design, await assemblyOf(design));
      return { steps: steps.map((step) => ({ step, ...stepPicture(design, step) })), rings };
    }),
  booklet: (design) => answer(async () => toBooklet(design, await assemblyOf(design))),
  bundle: (design, guests, onFile) =>
    answer(async () => {
      await fontsFor([STRIP_TEXT, guests]);
      let count = 0;
      return toBundle(design, await assemblyOf(design), guests, async (path) => {
        onFile(path, ++count);
        await breathe();
      });
    }),
  async export(design, choice) {
    try {
      if (choice.strip) await fontsFor(STRIP_TEXT);
      await fontsFor(choice.with ?? []);
      return { ok: true, value: await exportDesign(design, choice, await assemblyOf(design)) };
    } catch (error) {
      return { ok: false, why: (error as Error).message };
    }
  },
};
