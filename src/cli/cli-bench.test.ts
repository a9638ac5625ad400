/** The command line at the bench: layouts, what a cutter makes of a file, the booklet, the archive. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { shelveFonts } from '../fonts/shelve';
import { readDesign } from '../core/document/schema';
import { MACHINES } from '../core/paper/machine';
import { commonArea, jointArea } from '../core/tests/second-polygons';
import { run } from './run';

beforeAll(shelveFonts);
const folder = mkdtempSync(join(tmpdir(), 'cli-bench-'));
const at = (name: string): string => join(folder, name);
const ask = async (...args: string[]): Promise<Record<string, never>> => {
  const { code, out, error } = await run(args);
  if (code !== 0) throw new Error(error);
  return JSON.parse(out!) as Record<string, never>;
};
const refused = async (...args: string[]): Promise<string> => {
  const { code, error } = await run(args);
  expect(code).toBe(2);
  return error!;
};
const ORRERY = 'examples/orrery.json';

interface Piece {
  piece: string;
  copy: number;
  outline: [number, number][];
  holes: [number, number][][];
}
interface Told {
  sheets: { from: string; width_mm: number; height_mm: number; used_pct: number; pieces: Piece[] }[];
  unplaced: unknown[];
  rounds: number;
}

test('sheets: outlines in sheet axes that do not overlap, with their use; several cards on one set', async () => {
  const told = (await ask('sheets', ORRERY, '--seconds', '0')) as unknown as Told;
  expect(told.unplaced).toEqual([]);
  for (const s of told.sheets) {
    const regions = s.pieces.map((p) => [{ outer: p.outline, holes: p.holes }]);
    regions.forEach((a, i) => regions.slice(0, i).forEach((b) => expect(commonArea(a, b)).toBeLessThan(1e-6)));
    expect(s.used_pct).toBeCloseTo((100 * jointArea(regions)) / (s.width_mm * s.height_mm), 4);
  }
  const both = (await ask('sheets', ORRERY, 'examples/dome-note.json', '--seconds', '0')) as unknown as Told;
  const ids = both.sheets.flatMap((s) => s.pieces.map((p) => p.piece));
  expect(ids).toEqual(expect.arrayContaining(['card', 'c2.card', 'lamps.wheel']));
  // Two pieces of one stock: a round takes a tenth of a millisecond.
  const longer = (await ask(
    'sheets',
    'examples/terrace-night.json',
    '--seconds',
    '1',
    '--seed',
    '7',
  )) as unknown as Told;
  expect(longer.rounds).toBeGreaterThan(told.rounds);
  expect(await refused('sheets', ORRERY, '--seconds', '-1')).toMatch(/seconds/);
});

test('sheets: a piece that an offcut refuses for its grain is told, and let turn lies on it', async () => {
  const design = readDesign(readFileSync('examples/terrace-night.json', 'utf8'));
  if (!design.ok) throw new Error(design.why);
  const { stocks, sheets } = design.design;
  const room = 2 * sheets.marginMm;
  const MAT = 'terrace.riser.mat-1';
  type Answer = Told & { refused_for_grain: { piece: string; offcut: string }[] };
  const layout = async (file: string, ...more: string[]): Promise<Answer> =>
    (await ask('sheets', file, '--seconds', '0', ...more)) as unknown as Answer;
  const lying = (a: Answer): { from: string; piece: Piece } =>
    a.sheets.flatMap((s) => s.pieces.map((piece) => ({ from: s.from, piece }))).find((p) => p.piece.piece === MAT)!;
  const before = lying(await layout('examples/terrace-night.json'));
  const [xs, ys] = [0, 1].map((k) => before.piece.outline.map((p) => p[k]));
  const [wide, high] = [xs, ys].map((v) => Math.max(...v) - Math.min(...v));
  const left = { id: 'left', widthMm: high + room + 0.1, heightMm: wide + room + 0.1 };
  const withLeft = stocks.map((s) => (s.id === 'brass-120' ? { ...s, offcuts: [left] } : s));
  const file = at('offcut.json');
  writeFileSync(file, JSON.stringify({ ...design.design, stocks: withLeft }));
  const refusedFor = (await layout(file)).refused_for_grain;
  expect(refusedFor).toMatchObject([{ piece: MAT, offcut: 'brass-120/left/1' }]);
  const turned = await layout(file, '--turn', MAT);
  expect([turned.refused_for_grain, lying(turned).from]).toEqual([[], 'brass-120/left/1']);
  expect(await refused('sheets', file, '--turn', 'nothing.here')).toMatch(/no piece has that id; there are .*card/);
});

test('cut: reads back what pattern wrote, by the profile it is given, and tells what came of it', async () => {
  const profile = at('machine.json');
  writeFileSync(profile, JSON.stringify(MACHINES[2]));
  for (const [as, ending] of [
    ['hpgl', 'plt'],
    ['gcode', 'gcode'],
    ['svg', 'svg'],
    ['dxf', 'dxf'],
  ]) {
    const out = at(`sheet.${ending}`);
    await ask('pattern', 'examples/comet-watch.json', '--as', as, '--sheet', '1', '--profile', profile, '--out', out);
    const report = (await ask('cut', out, '--profile', profile)) as unknown as Record<string, unknown[]>;
    expect(report.freed).toHaveLength(1);
    expect([report.left_uncut, report.loose_early, report.cut_twice]).toEqual([[], [], []]);
    expect(Number(report.seconds) / Number(report.estimate_seconds)).toBeCloseTo(1, 1);
  }
  const bare = at('bare.plt');
  await ask('pattern', 'examples/comet-watch.json', '--as', 'hpgl', '--sheet', '1', '--out', bare);
  // As it is drawn it is cut right; by a blade that trails, which nobody told, it is not.
  const plain = (await ask('cut', bare)) as unknown as { freed: unknown[]; left_uncut: unknown[] };
  expect([plain.freed.length, plain.left_uncut]).toEqual([1, []]);
  writeFileSync(at('small.json'), JSON.stringify(MACHINES[0]));
  const told = (await ask('cut', bare, '--against', at('sheet.svg'), '--profile', at('small.json'))) as unknown as {
    left_uncut: unknown[];
  };
  expect(told.left_uncut.length).toBeGreaterThan(0);
  writeFileSync(at('x.plt'), 'IN;PD1;');
  expect(await refused('cut', at('x.plt'))).toMatch(/x\.plt: line 1/);
  expect(await refused('cut', bare, '--profile', ORRERY)).toMatch(/orrery\.json/);
  expect(await refused('cut')).toMatch(/reads one file to cut/);
});

test('pattern: one pass, the strip, pages; what is not there is refused in one line', async () => {
  await ask('pattern', ORRERY, '--as', 'svg', '--sheet', '2', '--pass', 'outline', '--out', at('o.svg'));
  expect(readFileSync(at('o.svg'), 'utf8')).not.toContain('data-role="window"');
  await ask('pattern', ORRERY, '--as', 'dxf', '--strip', '--out', at('strip.dxf'));
  expect(readFileSync(at('strip.dxf'), 'utf8')).toContain('perforation');
  expect(await refused('pattern', ORRERY, '--as', 'svg', '--sheet', '0', '--out', at('o.svg'))).toMatch(/sheet/);
  expect(await refused('pattern', ORRERY, '--as', 'svg', '--sheet', '9', '--out', at('o.svg'))).toMatch(
    /sheet 9 is not in/,
  );
  expect(await refused('pattern', ORRERY, '--as', 'svg', '--pass', 'saw', '--out', at('o.svg'))).toMatch(
    /--pass is "saw"/,
  );
});

test('booklet and bundle write their files', async () => {
  await ask('booklet', 'examples/dome-note.json', '--out', at('b.pdf'));
  expect(readFileSync(at('b.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
  await ask('bundle', 'examples/dome-note.json', '--out', at('b.zip'));
  expect(Object.keys(unzipSync(readFileSync(at('b.zip'))))).toEqual(
    expect.arrayContaining(['card.json', 'booklet.pdf', 'sheets.pdf', 'cut-list.json', 'test-strip.svg']),
  );
  expect(await refused('bundle', 'examples/dome-note.json')).toMatch(/--out is missing/);
  // Two cards on one set of sheets, each with its own lists.
  await ask('bundle', 'examples/dome-note.json', 'examples/sky-survey.json', '--out', at('two.zip'));
  const two = Object.keys(unzipSync(readFileSync(at('two.zip'))));
  expect(two).toEqual(expect.arrayContaining(['card.json', 'card-2.json', 'booklet-2.pdf', 'sheets.pdf']));
  expect(await refused('booklet', ORRERY, ORRERY, '--out', at('b.pdf'))).toMatch(/of one card/);
});
