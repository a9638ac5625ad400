/**
 * What goes to the bench: pages at true scale that split nothing that fits (read by pdf.js), the archive with every
 * file in it opened, the strip that proves the settings, the booklet.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import DxfParser from 'dxf-parser';
import { strFromU8, unzipSync } from 'fflate';
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from '../build/build';
import { workSteps } from '../build/steps';
import { blankDesign, type Design } from '../document/design';
import { readDesign } from '../document/schema';
import { MACHINES } from '../paper/machine';
import { regionArea } from '../plane/polygon';
import { layOut } from '../sheets/lay-out';
import { STRIP_PERFORATIONS, STRIP_WEBS_MM, testStrip } from '../sheets/test-strip';
import { readCutFile } from '../simulate/read';
import { simulate } from '../simulate/simulate';
import { card, layered, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { toBooklet } from './booklet';
import { toBundle } from './bundle';
import { exportDesign, type ExportChoice } from './export';
import { plateOfPieces } from '../sheets/plate';
import { toSvg } from './svg';

beforeAll(shelveFonts);

interface Page {
  readonly width: number;
  readonly height: number;
  readonly lines: number[][];
  readonly text: string;
}
function pagesOf(bytes: Uint8Array): Page[] {
  const file = join(mkdtempSync(join(tmpdir(), 'bench-')), 'a.pdf');
  writeFileSync(file, bytes);
  const reader = join(process.cwd(), 'src/core/tests/read-pdf.mjs');
  return JSON.parse(execFileSync('node', [reader, file], { encoding: 'utf8', maxBuffer: 1e8 })) as Page[];
}
const pdf = async (d: Design, choice: Partial<ExportChoice> = {}): Promise<Page[]> =>
  pagesOf(await exportDesign(d, { format: 'pdf', ...choice }));
const lengths = (p: Page): number[] => p.lines.map(([a, b, c, d]) => Math.hypot(c - a, d - b));
const hasLength = (p: Page, mm: number): boolean => lengths(p).some((l) => Math.abs(l - mm) < 1e-3);
const size = (p: Page): number[] => [Math.round(p.width), Math.round(p.height)].sort((a, b) => a - b);

describe('PDF', () => {
  test('a page for each sheet, as large as the sheet, nothing of it elsewhere, a check bar on each', async () => {
    const d = stand(layered(blankDesign('Two', 180, 120)), 'v-fold', { size: 30, lean: 50 });
    const { sheets } = layOut(d, buildAssembly(d));
    const pages = await pdf(d);
    expect(pages.map(size)).toEqual(sheets.map(() => [210, 297]));
    for (const p of pages) expect(hasLength(p, 50)).toBe(true);
    // The card is 180 x 240: its edges are whole, on one page.
    expect(pages.filter((p) => hasLength(p, 240) && hasLength(p, 180))).toHaveLength(1);
    expect(pages[0].text).toMatch(/50 mm/);
  });
  test('on another page every piece is whole where it fits, turned, even slantwise; else it is tiled', async () => {
    const long = layered(card(60, 40), { shape: { rect: { width: 290, height: 20 } } as never });
    const d = { ...long, stocks: long.stocks.map((s) => ({ ...s, sheet: 'A3' })) };
    const pages = await pdf(d, { page: 'A4' });
    // A page has room for 277 x 182: 290 x 20 lies slantwise in it (its box at 30 degrees is 261 x 162).
    expect(pages.map(size)).toEqual([[210, 297], [210, 297]]); // prettier-ignore
    expect(pages.filter((p) => hasLength(p, 290))).toHaveLength(1);
    const slant = pages.find((p) => hasLength(p, 290))!;
    const [x0, y0, x1, y1] = slant.lines.find(([a, b, c, e]) => Math.abs(Math.hypot(c - a, e - b) - 290) < 1e-3)!;
    expect(Math.abs(x1 - x0)).toBeLessThan(277);
    expect(Math.abs(y1 - y0)).toBeGreaterThan(10);
    const far = layered(card(60, 40), { shape: { rect: { width: 400, height: 120 } } as never });
    const tiled = await pdf({ ...far, stocks: far.stocks.map((s) => ({ ...s, sheet: 'A2' })) }, { page: 'A4' });
    // The card whole, a map, and tiles with cut marks and their place.
    expect(tiled.filter((p) => /Map of the tiles/.test(p.text))).toHaveLength(1);
    expect(tiled.filter((p) => /row 1 of 1, column [12] of 2/.test(p.text)).length).toBeGreaterThanOrEqual(2);
  });
  test('a piece of its own fits the page at any turn, and a page that is not known is refused', async () => {
    const d = card(60, 135);
    expect(await pdf(d, { piece: 'card' })).toHaveLength(1);
    await expect(exportDesign(d, { format: 'pdf', page: 'A9' })).rejects.toThrow(
      /page "A9" is not known; pages are A3/,
    );
  });
});

describe('per sheet and per pass', () => {
  const d = stand(blankDesign('One', 150, 100), 'step-fold', { depth: 30, height: 30, width: 60 });
  test('a pass has its own lines only; one without any is refused by name', async () => {
    const groups = async (pass: ExportChoice['pass']): Promise<string[]> => {
      const svg = new TextDecoder().decode(await exportDesign(d, { format: 'svg', sheet: 0, pass }));
      return [...svg.matchAll(/data-role="([a-z]+)"/g)].map((m) => m[1]);
    };
    expect(await groups('score')).toEqual(['valley', 'mountain']);
    expect(new Set(await groups('outline'))).toEqual(new Set(['cut']));
    await expect(exportDesign(d, { format: 'svg', sheet: 0, pass: 'pen' })).rejects.toThrow(
      /pass pen \(drawn, not cut\)/,
    );
    await expect(exportDesign(d, { format: 'svg', sheet: 9 })).rejects.toThrow(/sheet 10 is not in the layout/);
    await expect(exportDesign(d, { format: 'svg', bed: 0 })).rejects.toThrow(/no cutting bed/);
  });
  test('a bed holds the sheets that lie on it; the machine of the card is in its files', async () => {
    const at = { 'card-240/whole/1': { bed: 0, x: 100, y: 50 } };
    const onBed: Design = {
      ...d,
      machine: MACHINES[0],
      sheets: { ...d.sheets, bed: { widthMm: 500, heightMm: 400, at } },
    };
    const text = async (choice: Partial<ExportChoice>): Promise<string> =>
      new TextDecoder().decode(await exportDesign(onBed, { format: 'plt', ...choice }));
    const xs = (t: string): number[] => [...t.matchAll(/PU(\d+),(\d+);PD/g)].map((m) => Number(m[1]) / 40);
    expect(Math.min(...xs(await text({ bed: 0 })))).toBeGreaterThan(104);
    expect(Math.min(...xs(await text({ sheet: 0 })))).toBeLessThan(100);
    const feed = new TextDecoder().decode(await exportDesign(onBed, { format: 'gcode', sheet: 0 }));
    expect(feed).toContain(`F${60 * MACHINES[0].passes.outline.speedMmS}`);
  });
});

test('the test strip: webs as wide as they say, every perforation, a slot and its token, all of it cut free', () => {
  const drawings = testStrip('card-240');
  const [strip, token] = drawings;
  const webs = strip.lines.filter((l) => l.role === 'window' && l.id.startsWith('web'));
  const edges = webs.map((l) => l.points.map((p) => p[0])).map((xs) => [Math.min(...xs), Math.max(...xs)]);
  const between = edges.slice(1).map(([x0], k) => x0 - edges[k][1]);
  expect(between.map((v) => Number(v.toFixed(6)))).toEqual([...STRIP_WEBS_MM]);
  STRIP_PERFORATIONS.forEach(([cutMm], k) => {
    const cuts = strip.lines.filter((l) => l.role === 'perforation' && l.id === `p${k}`);
    expect(cuts.length).toBeGreaterThan(4);
    for (const { points } of cuts) expect(Math.abs(points[1][0] - points[0][0])).toBeCloseTo(cutMm, 9);
  });
  // The numbers are drawn, not cut.
  expect(strip.lines.filter((l) => l.role === 'mark').length).toBeGreaterThan(30);
  const file = readCutFile(toSvg(plateOfPieces('strip', drawings)), 'strip.svg');
  const report = simulate(file, MACHINES[2]);
  expect([report.leftUncut, report.looseEarly, report.cutTwice]).toEqual([[], [], []]);
  const areas = report.freed.map((f) => f.areaMm2);
  for (const d of [strip, token]) {
    const wanted = regionArea(d.region);
    expect(Math.min(...areas.map((a) => Math.abs(a - wanted)))).toBeLessThan(0.01 * wanted);
  }
});

describe('the archive', () => {
  test('has the card, its lists, its booklet and its sheets in every language; each of them opens', async () => {
    const [, design] = demoCards().find(([name]) => name === 'meteor-night')!;
    const bytes = await toBundle({ ...design, machine: MACHINES[0] }, buildAssembly(design));
    const files = unzipSync(bytes);
    const text = (path: string): string => strFromU8(files[path]);
    expect(readDesign(text('card.json'))).toEqual({ ok: true, design: { ...design, machine: MACHINES[0] } });
    expect(JSON.parse(text('cut-list.json'))).toHaveLength(text('cut-list.csv').trim().split('\n').length - 1);
    expect(JSON.parse(text('machine.json'))).toEqual(MACHINES[0]);
    const sheets = layOut(design, buildAssembly(design)).sheets.length;
    for (const ending of ['svg', 'dxf', 'plt', 'gcode']) {
      const own = Object.keys(files).filter((f) => new RegExp(`^sheets/[^/]+\\.${ending}$`).test(f));
      expect(own).toHaveLength(sheets);
      for (const path of own) {
        expect(readCutFile(text(path), path).strokes.length).toBeGreaterThan(0);
        if (ending === 'dxf') expect(new DxfParser().parseSync(text(path))!.entities.length).toBeGreaterThan(0);
      }
    }
    expect(Object.keys(files).filter((f) => /\/5-outline\.svg$/.test(f))).toHaveLength(sheets);
    expect(pagesOf(files['sheets.pdf'])).toHaveLength(sheets);
    expect(pagesOf(files['booklet.pdf']).length).toBeGreaterThan(1);
    // No clock in it: the same card gives the same bytes.
    expect(await toBundle({ ...design, machine: MACHINES[0] }, buildAssembly(design))).toEqual(bytes);
  });
});

describe('the booklet', () => {
  test.each(demoCards().filter((_, k) => k % 6 === 0))(
    '%s: every step by its number and title, in order',
    async (_, d) => {
      const assembly = buildAssembly(d);
      const pages = pagesOf(await toBooklet(d, assembly));
      const all = pages.map((p) => p.text.replace(/\s+/g, ' ')).join(' ');
      let at = -1;
      workSteps(d, assembly).forEach((step, k) => {
        const found = all.indexOf(`${k + 1}. ${step.title.slice(0, 12)}`);
        expect(found).toBeGreaterThan(at);
        at = found;
      });
      for (const p of pages) expect(size(p)).toEqual(d.units === 'in' ? [216, 279] : [210, 297]);
    },
  );
  test('what is done is ticked, inches are said as inches, hardware and adhesives are listed', async () => {
    const [, design] = demoCards().find(([name]) => name === 'orrery')!;
    const d: Design = { ...design, units: 'in', done: ['cut'] };
    const pages = pagesOf(await toBooklet(d, buildAssembly(d)));
    expect(pages[0].text).toMatch(/Rivet/);
    expect(pages[0].text).toMatch(/wet glue/);
    expect(pages[0].text).toMatch(/7 7\/8 x/);
    expect(pages[1].text).toMatch(/\bx\b/);
    expect(size(pages[0])).toEqual([216, 279]);
  });
});
