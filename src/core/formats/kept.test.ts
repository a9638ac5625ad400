/**
 * What we write we read: cards at their largest, written with and without spaces, names at their longest with anything
 * in them, in every export. Read by our own doors, and by general-purpose packages where the format is a standard.
 */
import { WebIO } from '@gltf-transform/core';
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import fc from 'fast-check';
import Papa from 'papaparse';
import { buildAssembly } from '../build/build';
import { blankDesign, newLayer, type Design } from '../document/design';
import { checkDesign, LARGEST_DESIGN, readDesign, sizeOfDesign } from '../document/schema';
import { MOST_TEMPLATE_POINTS } from '../pattern/mending';
import { cutList } from '../sheets/cutlist';
import { stand } from '../tests/cards';
import { cutListCsv } from './csv';
import { exportDesign, type ExportFormat } from './export';
import { readFold } from './fold-read';
import { readTemplate } from './template-read';

/** The two ways a card is written: as it is stored, and as it is saved in a file. */
const WAYS = [(d: Design) => JSON.stringify(d), (d: Design) => JSON.stringify(d, null, 1)];
const bothWays = (design: Design): void => {
  const written = JSON.stringify(design);
  for (const way of WAYS) {
    const read = readDesign(way(design));
    if (!read.ok) throw new Error(read.why);
    // Millions of values: compared as text.
    expect(JSON.stringify(read.design) === written).toBe(true);
  }
};

const many = <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i));
/** Ways to fill a card, each up to what its own limits allow; numbers as short as they can be, so that spaces weigh. */
const FILLERS: Readonly<Record<string, (d: Design, part: number) => Design>> = {
  points: (d, part) => ({
    ...d,
    card: {
      ...d.card,
      template: {
        name: 't',
        scale: 1,
        mended: true,
        lead: null,
        picked: {},
        groups: [],
        lines: many(8, (k) => ({
          id: `l${k}`,
          group: 'g',
          closed: false,
          points: many(Math.floor((MOST_TEMPLATE_POINTS * part) / 8), (i) => [i % 2, (i >> 1) % 2] as const),
        })),
      },
    },
  }),
  mats: (d, part) => ({
    ...d,
    dressing: many(Math.ceil(1000 * part), (i) => ({
      facet: `f${i}`,
      mats: many(8, () => ({ insetMm: 1, stock: d.stocks[0].id, foamMm: 1, foamInsetMm: 2 })),
    })),
  }),
  ties: (d, part) => ({
    ...d,
    shapes: many(Math.ceil(40 * part), (i) => ({
      id: `s${i}`,
      name: 's',
      source: { circle: 9 },
      steps: many(8, () => ({
        do: 'ties' as const,
        width: 1,
        count: 1,
        turn: null,
        moved: many(300, (k) => ({ island: k, turn: 1 })),
      })),
    })) as unknown as Design['shapes'],
  }),
  mechanisms: (d, part) =>
    many(Math.ceil(60 * part), (i) => i).reduce((e, i) => stand(e, 'step-fold', { depth: 3, height: 3, offset: i }), d),
  layers: (d, part) => ({
    ...d,
    layers: many(Math.ceil(300 * part), (i) =>
      newLayer({ id: `l${i}`, name: 'L', facet: 'leafA', shape: { circle: 9 }, as: 'layer', stock: d.stocks[0].id }),
    ),
  }),
  notes: (d, part) => ({ ...d, notes: '\n"'.repeat(Math.floor(10_000 * part)) }),
};

test('cards filled in every way up to the limit are read as they were written, with and without spaces', () => {
  const names = Object.keys(FILLERS);
  fc.assert(
    fc.property(
      fc.record(Object.fromEntries(names.map((n) => [n, fc.double({ min: 0.01, max: 1, noNaN: true })]))),
      (parts) => {
        const full = names.reduce((d, n) => FILLERS[n](d, (parts as Record<string, number>)[n]), blankDesign('full'));
        // Notes and shapes make room where it is too much together.
        const design = sizeOfDesign(full) > LARGEST_DESIGN ? { ...full, shapes: [], layers: [] } : full;
        expect(checkDesign(design)).toMatchObject({ ok: true });
        bothWays(design);
      },
    ),
    { numRuns: 3, seed: 5 },
  );
  const all = names.filter((n) => n !== 'ties').reduce((d, n) => FILLERS[n](d, 1), blankDesign('full'));
  bothWays(all);
}, 120_000);

test('the size of a card: at its limit it is written and read, a character more is refused with the size', () => {
  // The characters of a path are the cheapest filling: one asset holds two million.
  const asset = (i: number, length: number) => ({
    id: `a${i}`,
    name: 'a',
    source: { path: `M0 0H9V9${' '.repeat(length)}Z` },
    steps: [],
  });
  const of = (length: number): Design => ({
    ...blankDesign('full'),
    shapes: [asset(1, 1_900_000), asset(2, 1_900_000), asset(3, length)],
  });
  const at = LARGEST_DESIGN - sizeOfDesign(of(0));
  bothWays(of(at));
  expect(checkDesign(of(at + 1))).toMatchObject({ ok: false, why: expect.stringMatching(/5\.0 MB.*at most 5 MB/) });
});

test('points of a template: as many as are read from a drawing, and one more is refused at the door', () => {
  const most = FILLERS.points(blankDesign('t'), 1);
  expect(checkDesign(most).ok).toBe(true);
  const [line, ...rest] = most.card.template!.lines;
  const more = { ...line, points: [...line.points, [1, 1] as const] };
  const over = { ...most, card: { ...most.card, template: { ...most.card.template!, lines: [more, ...rest] } } };
  expect(checkDesign(over)).toMatchObject({ ok: false, why: expect.stringMatching(/200001 points.*200000/) });
});

/** Names at their longest, of anything a keyboard or a paste can give. */
const anyName = (most: number) =>
  fc
    .oneof(
      fc.string({ unit: 'binary', minLength: most, maxLength: most }),
      fc.string({ unit: 'grapheme', minLength: 1, maxLength: most }),
      fc.constantFrom(']]>', '"><script>', '=1+1', '  0\nSECTION\n', '%PDF(\\)', "'--", '<!--', '&amp;&#0;'),
    )
    .map((s) => [...s.replace(/\0/g, '')].join('').slice(0, most) || 'x')
    .filter((s) => !/\p{Surrogate}/u.test(s));

const named = (name: string, part: string): Design => {
  const stood = stand(stand(blankDesign(name, 180, 120), 'step-fold', { depth: 30, height: 20, width: 60 }), 'v-fold', {
    size: 30,
    offset: 60,
  });
  return {
    ...stood,
    mechanisms: stood.mechanisms.map((m) => ({ ...m, name: part })),
    stocks: stood.stocks.map((s) => ({ ...s, name: part })),
  };
};
const bytesOf = (design: Design, format: ExportFormat): Promise<Uint8Array> => exportDesign(design, { format });
const textOf = async (design: Design, format: ExportFormat): Promise<string> =>
  new TextDecoder().decode(await bytesOf(design, format));
const count = (text: string, name: string): { lines: number; points: number } => {
  const { lines } = readTemplate(text, name);
  return { lines: lines.length, points: lines.reduce((n, l) => n + l.points.length, 0) };
};

test('whatever the names, every export is read back with the same lines', async () => {
  const plain = named('plain', 'plain');
  const expected = {
    svg: count(await textOf(plain, 'svg'), 'a.svg'),
    dxf: count(await textOf(plain, 'dxf'), 'a.dxf'),
    fold: readFold(await textOf(plain, 'fold')),
    meshes: (await new WebIO().readBinary(await bytesOf(plain, 'glb'))).getRoot().listMeshes().length,
    rows: cutList(plain, buildAssembly(plain)).length,
  };
  expect(expected.fold.ok).toBe(true);
  await fc.assert(
    fc.asyncProperty(anyName(120), anyName(80), async (name, part) => {
      const design = named(name, part);
      bothWays(design);
      const svg = await textOf(design, 'svg');
      expect(XMLValidator.validate(svg)).toBe(true);
      expect(new XMLParser().parse(svg)).toHaveProperty('svg');
      expect(count(svg, 'a.svg')).toEqual(expected.svg);
      expect(count(await textOf(design, 'dxf'), 'a.dxf')).toEqual(expected.dxf);
      const fold = readFold(await textOf(design, 'fold'));
      expect(fold.ok && fold.pattern).toEqual(expected.fold.ok && expected.fold.pattern);
      const glb = await new WebIO().readBinary(await bytesOf(design, 'glb'));
      expect(glb.getRoot().listMeshes()).toHaveLength(expected.meshes);
      expect((await textOf(design, 'pdf')).startsWith('%PDF-')).toBe(true);
      const rows = Papa.parse(cutListCsv(cutList(design, buildAssembly(design))), {
        header: true,
        skipEmptyLines: true,
      });
      expect(rows.errors).toEqual([]);
      expect(rows.data).toHaveLength(expected.rows);
    }),
    { numRuns: 40 },
  );
}, 120_000);
