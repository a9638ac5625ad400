/** From proof to paper: nesting against packing by boxes, the simulated cutter, the archive. */
import { buildAssembly } from '../src/core/build/build';
import { toBundle } from '../src/core/formats/bundle';
import { toHpgl } from '../src/core/formats/hpgl';
import { MACHINES } from '../src/core/paper/machine';
import { layingOut, layOut } from '../src/core/sheets/lay-out';
import type { Layout } from '../src/core/sheets/layout';
import { plateOfSheet } from '../src/core/sheets/plate';
import { readCutFile } from '../src/core/simulate/read';
import { simulate } from '../src/core/simulate/simulate';
import { packBoxes } from '../src/core/tests/box-packer';
import { demoCards } from '../src/core/tests/demo';

export interface Tools {
  readonly row: (name: string, ...cells: string[]) => void;
  readonly time: (work: () => unknown, runs?: number) => number;
}
/** The search is given so long, ms. */
const SEARCH_MS = 2000;
const CARDS = ['meteor-night', 'moon-phases', 'orrery', 'planet-on-its-axis', 'refractor-evening'];

/** Area of what the pieces are cut from when the rest is cut off straight, mm². */
const spent = ({ sheets }: Layout): number =>
  sheets.reduce((sum, { widthMm: w, heightMm: h, left }) => sum + w * h - left.widthMm * left.heightMm, 0);
const used = ({ sheets }: Layout): number =>
  sheets.reduce((sum, s) => sum + (s.usePercent / 100) * s.widthMm * s.heightMm, 0);

export async function benchPaper({ row, time }: Tools): Promise<void> {
  console.log('\nNesting by outlines: use of what is spent, beside packing by boxes; both of their times');
  const cards = demoCards().filter(([name]) => CARDS.includes(name));
  for (const [name, design] of cards) {
    const assembly = buildAssembly(design);
    const first = layOut(design, assembly);
    const search = layingOut([{ design, assembly }]);
    let [best, rounds] = [first, 0];
    for (const until = performance.now() + SEARCH_MS; performance.now() < until; rounds++)
      best = (search.next().value as Layout | undefined) ?? best;
    const boxes = packBoxes(design, assembly);
    const byBoxes = boxes.reduce((sum, b) => sum + Math.min(b.rightMm * b.heightMm, b.topMm * b.widthMm), 0);
    const percent = (area: number): string => `${((100 * used(first)) / area).toFixed(0)} %`;
    const ratio = time(() => layOut(design, assembly), 3) / time(() => packBoxes(design, assembly), 3);
    row(
      `  ${name}`,
      `at once ${percent(spent(first))}`,
      `searched ${percent(spent(best))}`,
      `boxes ${percent(byBoxes)}`,
      `${ratio.toFixed(0)} x boxes' time`,
    );
  }

  console.log('\nThe simulated cutter, and the archive');
  const [, design] = cards.find(([name]) => name === 'orrery')!;
  const assembly = buildAssembly(design);
  const sheet = layOut(design, assembly).sheets.at(-1)!;
  const file = readCutFile(toHpgl(plateOfSheet('bench', sheet), MACHINES[0]), 'bench.plt');
  const report = simulate(file, MACHINES[0]);
  const ms = time(() => simulate(file, MACHINES[0]), 3);
  row(
    '  a sheet of the orrery',
    `${((report.lengthMm / ms) * 1000).toFixed(0)} mm/s`,
    `${((report.seconds * 1000) / ms).toFixed(0)} x its clock`,
  );
  const [, ten] = demoCards().find(([name]) => name === 'refractor-evening')!;
  const put = buildAssembly(ten);
  const began = performance.now();
  await toBundle(ten, put);
  row('  archive of a card of nine pieces', `${((performance.now() - began) / 1000 / 10).toFixed(2)} of ten seconds`);
}
