/** Files made to keep a reader busy: each is refused with its reason, soon and in little room. */
import DxfParser from 'dxf-parser';
import { withTemplate } from '../build/bring';
import { buildAssembly } from '../build/build';
import { blankDesign } from '../document/design';
import { checkTemplate } from '../document/schema';
import type { ShapeAsset, ShapeStep } from '../shapes/shape';
import { arrange } from '../plane/arrangement';
import { assetOutline, outlineOf } from '../shapes/outline';
import { readSvg } from '../shapes/svg-read';
import { indexColour } from './dxf-colour';
import { readTemplate } from './template-read';

const dxf = (entities: string, blocks = ''): string =>
  `${blocks && `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n`}0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const tags = (...pairs: (string | number)[]): string => `${pairs.join('\n')}\n`;
const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100">${inside}</svg>`;
/** A round of so many points. */
const ring = (count: number): string => {
  const at = (k: number): string =>
    [Math.cos, Math.sin].map((f) => (500 * f((2 * Math.PI * k) / count)).toFixed(4)).join(' ');
  return `M${Array.from({ length: count }, (_, k) => at(k)).join('L')}Z`;
};
const uses = (first: string): string =>
  svg(`<defs>${first}${Array.from({ length: 8 }, (_, i) => rowOfUses(i)).join('')}</defs><use href="#a8"/>`);
const rowOfUses = (i: number): string => `<g id="a${i + 1}">${`<use href="#a${i}"/>`.repeat(20)}</g>`;
const nested = (): string =>
  Array.from({ length: 12 }, (_, i) =>
    [
      tags(0, 'BLOCK', 8, 0, 2, `B${i}`, 10, 0, 20, 0),
      i < 11 ? tags(0, 'INSERT', 8, 0, 2, `B${i + 1}`, 10, 0, 20, 0).repeat(10) : '',
      tags(0, 'ENDBLK'),
    ].join(''),
  ).join('');

test.each<[string, string, string, RegExp]>([
  ['an empty DXF', 'a.dxf', '', /empty/],
  [
    'a polyline without SEQEND, cut short',
    'a.dxf',
    '0\nSECTION\n2\nENTITIES\n0\nPOLYLINE\n8\n0\n0\nVERTEX\n10\n0',
    /EOF|code/,
  ],
  [
    'a count of 1e9',
    'a.dxf',
    dxf(tags(0, 'LWPOLYLINE', 8, 'cut', 90, 1e9, 70, 1, 10, 0, 20, 0, 10, 5, 20, 5)),
    /do not close/,
  ],
  ['knots by the thousand million', 'a.dxf', dxf(tags(0, 'SPLINE', 71, 3, 72, 1e9, 73, 1e9, 10, 0, 20, 0)), /no lines/],
  ['a coordinate of 1e308', 'a.dxf', dxf(tags(0, 'LINE', 8, 'cut', 10, 1e308, 20, 0, 11, -1e308, 21, 5)), /1e\+308 mm/],
  ['a radius of 1e308', 'a.dxf', dxf(tags(0, 'ARC', 8, 'cut', 10, 0, 20, 0, 40, 1e308, 50, 0, 51, 90)), /1e\+308 mm/],
  [
    'an ellipse that is no number',
    'a.dxf',
    dxf(tags(0, 'ELLIPSE', 8, 'cut', 10, 0, 20, 0, 11, 'x', 21, 0, 40, 0.5, 41, 0, 42, 6.28)),
    /NaN mm/,
  ],
  ['a place that is no number', 'a.dxf', dxf(tags(0, 'LINE', 8, 'cut', 10, 'x', 20, 0, 11, 1, 21, 5)), /NaN mm/],
  [
    'blocks in blocks that draw nothing',
    'a.dxf',
    dxf(tags(0, 'INSERT', 2, 'B0', 10, 0, 20, 0), nested()),
    /places more than/,
  ],
  [
    'blocks in blocks that draw a line',
    'a.dxf',
    dxf(
      tags(0, 'INSERT', 2, 'B0', 10, 0, 20, 0),
      nested().replace(/0\nENDBLK/, '0\nLINE\n8\ncut\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK'),
    ),
    /more than/,
  ],
  [
    'a spline whose knots fall',
    'a.dxf',
    dxf(tags(0, 'SPLINE', 71, 1, 40, 0, 40, 5, 40, 1, 40, 1, 10, 0, 20, 0, 10, 5, 20, 5)),
    /no lines/,
  ],
  [
    'a spline whose knots are no numbers',
    'a.dxf',
    dxf(tags(0, 'SPLINE', 71, 1, 40, 'x', 40, 0, 40, 1, 40, 1, 10, 0, 20, 0, 10, 5, 20, 5)),
    /no lines/,
  ],
  ['an attribute without a value', 'a.svg', svg('<path d/>'), /boolean attribute/],
  ['no group codes', 'a.dxf', 'hello\nworld\n', /whole number/],
  [
    '2,000 style rules on 15,000 elements',
    'a.svg',
    svg(
      `<style>${Array.from({ length: 2000 }, (_, i) => `.c${i}{stroke:red}`).join('')}</style>` +
        Array.from({ length: 15_000 }, (_, i) => `<path class="c${i % 2000}" d="M${i % 100} 0V9"/>`).join(''),
    ),
    /more than 4000 lines/,
  ],
  ['a path of a million points', 'a.svg', svg(`<path d="M0 0${'L1 1'.repeat(1e6)}"/>`), /MB|characters/],
  ['a path of 300,000 points', 'a.svg', svg(`<path d="M0 0${'L1 1L9 2'.repeat(150_000)}"/>`), /points/],
  ['uses of uses of a line', 'a.svg', uses('<path id="a0" d="M0 0L1 1"/>'), /more than/],
  ['uses of uses of nothing', 'a.svg', uses('<g id="a0"/>'), /more than/],
  ['coordinates of 1e308', 'a.svg', svg('<path d="M0 0L1e308 1e308A1e308 1e308 0 0 0 5 5"/>'), /not a number a card/],
  ['20,000 groups in each other', 'a.svg', svg(`${'<g>'.repeat(20_000)}${'</g>'.repeat(20_000)}`), /nested/],
  ['entities', 'a.svg', `<!DOCTYPE svg [<!ENTITY a "aaaa">]>${svg('')}`, /entities/],
])('%s', (_, name, text, why) => {
  const began = performance.now();
  const bring = (): unknown => {
    const read = readTemplate(text, name);
    const template = { name, scale: 1, mended: false, picked: {}, lead: null, lines: read.lines, groups: read.groups };
    return withTemplate(blankDesign('x'), template);
  };
  expect(bring).toThrow(why);
  // Two seconds are promised for the quiet machine; a busy one is given more, and a hang is still told.
  expect(performance.now() - began).toBeLessThan(8000);
});

describe('shapes that multiply', () => {
  const star = { star: { points: 12, outer: 20, inner: 8 } };
  const asset = (id: string, source: ShapeAsset['source'], ...steps: ShapeStep[]): ShapeAsset => ({
    id,
    name: id,
    source,
    steps,
  });
  const row = (count: number): ShapeStep => ({ do: 'row', count, pitch: 30, deg: 0 });
  test('a row of a row of stars is refused before it is made', () => {
    expect(() => assetOutline(asset('stars', star, row(200), row(200), row(200)), new Map())).toThrow(
      /would give \d+ points/,
    );
  });
  test('copies along the outlines of a row are counted together', () => {
    const along: ShapeStep = { do: 'distribute', what: star, size: 2, count: 500, spacing: null, side: 'outside' };
    expect(() => assetOutline(asset('stars', star, row(100), along), new Map())).toThrow(/points/);
  });
  test('shapes made of shapes made of shapes: each is worked out once', () => {
    const shelf = new Map<string, ShapeAsset>();
    for (let k = 0; k < 10; k++) {
      const source = k === 0 ? star : { asset: `s${k - 1}` };
      const more = Array.from({ length: 12 }, (): ShapeStep => ({ do: 'unite', with: source, x: 0, y: 0, deg: 0 }));
      shelf.set(`s${k}`, asset(`s${k}`, source, ...more));
    }
    const began = performance.now();
    expect(assetOutline(shelf.get('s9')!, shelf)).toHaveLength(1);
    // 13^10 ways lead down.
    expect(performance.now() - began).toBeLessThan(8000);
  });
});

test('names at their longest are shortened, so that what is read can be kept', () => {
  const layer = (k: number): string => `${'layer '.repeat(80)}${k}`;
  const lines = (n: number): string =>
    Array.from({ length: n }, (_, k) => tags(0, 'CIRCLE', 8, layer(k), 10, 50 * k, 20, 0, 40, 20)).join('');
  const read = readTemplate(dxf(lines(250)), 'a.dxf');
  expect(read.groups).toHaveLength(250);
  const template = {
    name: 't',
    scale: 1,
    mended: true,
    picked: {},
    lead: null,
    lines: read.lines,
    groups: read.groups,
  };
  expect(checkTemplate({ ...template, groups: read.groups.map(({ count: _, ...g }) => g) })).toBeNull();
  expect(() => readTemplate(dxf(lines(251)), 'a.dxf')).toThrow(/251 kinds of lines/);
});

test('a plain polygon with one valley line: four times the points are far from 16 times the work', () => {
  const time = (n: number): number => {
    const points = Array.from({ length: n }, (_, k) => {
      const t = (2 * Math.PI * k) / n;
      return `${(50 + 40 * Math.cos(t)).toFixed(4)},${(50 + 40 * Math.sin(t)).toFixed(4)}`;
    });
    const text = svg(`<g id="cut"><polygon points="${points.join(' ')}"/></g><g id="valley"><path d="M10 50H90"/></g>`);
    const began = performance.now();
    const read = readTemplate(text, 'a.svg');
    const template = {
      name: 'p',
      scale: 1,
      mended: true,
      picked: {},
      lead: null,
      lines: read.lines,
      groups: read.groups,
    };
    expect(buildAssembly(withTemplate(blankDesign('x'), template)).facets).toHaveLength(2);
    return performance.now() - began;
  };
  time(1000);
  // The least of three: what else the machine does in between only adds.
  const least = (n: number): number => Math.min(...[1, 2, 3].map(() => time(n)));
  expect(least(8000) / least(2000)).toBeLessThan(10);
});

test('colours by index are those of a general reader', () => {
  // dxf-parser resolves the colour of a layer by its own table.
  const layers = Array.from({ length: 255 }, (_, k) =>
    tags(0, 'LAYER', 2, `L${k + 1}`, 70, 0, 62, k + 1, 6, 'CONTINUOUS'),
  );
  const text = `0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n255\n${layers.join('')}0\nENDTAB\n0\nENDSEC\n0\nEOF\n`;
  const theirs = new DxfParser().parseSync(text)!.tables.layer.layers;
  for (let k = 1; k <= 255; k++) {
    const [mine, other] = [indexColour(k), theirs[`L${k}`].color.toString(16).padStart(6, '0')];
    for (let i = 0; i < 3; i++) {
      const part = (hex: string): number => parseInt(hex.slice(2 * i, 2 * i + 2), 16);
      expect(Math.abs(part(mine.slice(1)) - part(other))).toBeLessThanOrEqual(k >= 250 ? 24 : 2);
    }
  }
});

test('an SVG brought in as a shape is bounded too', () => {
  expect(() => readSvg(svg('<path d="M0 0L1 1"/>'.repeat(5001)))).toThrow(/more than 5000/);
  expect(readSvg(svg('<path d="M0 0L1 1"/>'.repeat(5000))).lines).toHaveLength(5000);
});

test('path data is refused while it is drawn: no point past the limit is made', () => {
  const arcs = `M0 0${'A9 9 0 0 1 9 9A9 9 0 0 1 0 0'.repeat(60_000)}`;
  expect(() => outlineOf({ path: arcs })).toThrow(/more than 60000 points/);
});

test('steps that each stay below the limit are counted together', () => {
  const steps = Array.from({ length: 60 }, (): ShapeStep => ({
    ...{ do: 'intersect', with: { width: 2000, height: 2000 } },
    ...{ x: 0, y: 0, deg: 0 },
  }));
  const many: ShapeAsset = { id: 'm', name: 'Many', source: { path: ring(50_000) }, steps };
  expect(() => assetOutline(many, new Map())).toThrow(/go through more than 600000 points in all, at step 13/);
});

test('lines that lie on each other by the ten thousand are one line, soon', () => {
  const text = svg(`<path d="M0 0${'L9 9L0 0'.repeat(10_000)}M0 0L40 0L0 40Z" fill="none" stroke="#c00"/>`);
  const { lines } = readTemplate(text, 'a.svg');
  expect(
    arrange(lines.flatMap(({ points }) => points.slice(1).map((b, k) => ({ a: points[k], b })))).edges.length,
  ).toBeLessThan(10);
});
