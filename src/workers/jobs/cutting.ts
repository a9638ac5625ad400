/** The simulated cutter. */
import { STRIP_TEXT } from '@/core/sheets/test-strip';
import { beginCut, beginFile, cutOn } from '../cutter';
import type { Engine } from '../protocol';
import { answer, assemblyOf, fontsFor } from './at-hand';

export const cutting: Pick<Engine, 'beginCut' | 'beginFile' | 'cutOn'> = {
  beginCut: (design, what, machine) =>
    answer(async () => {
      if (what.strip) await fontsFor(STRIP_TEXT);
      return beginCut(design, await assemblyOf(design), what, machine);
    }),
  beginFile: (text, name, machine) => answer(() => beginFile(text, name, machine)),
  cutOn: (seconds) => answer(() => cutOn(seconds)),
};
