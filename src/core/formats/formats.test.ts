import { openTo } from '../drives';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import DxfParser from 'dxf-parser';
import fc from 'fast-check';
// The `fold` package is written without types.
// eslint-disable-next-line @typescript-eslint/no-require-imports
const FOLD = require('fold') as {
  convert: Record<string, (f: object) => object>;
  filter: Record<string, (f: object) => unknown>;
};
// eslint-disable-next-line @typescript-eslint/no-require-imports
const gltf = require('gltf-validator') as {
  validateBytes: (
    b: Uint8Array,
  ) => Promise<{ issues: { numErrors: number; numWarnings: number }; info: { totalTriangleCount: number } }>;
};
import { assembleCreasePattern, PatternError, type CreasePattern } from '../assembly/crease-pattern';
import { onFacet, poseOpen } from '../assembly/pose';
import { perforationCuts } from '../pattern/making';
import { ringArea } from '../plane/polygon';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { workSteps } from '../build/steps';
import { drawPieces, inCutOrder } from '../sheets/drawing';
import { cutList } from '../sheets/cutlist';
import { foldText, parallelogramGrid, vertexPattern } from '../tests/patterns';
import { cutListCsv } from './csv';
import { exportDesign, type ExportChoice } from './export';
import { readFold } from './fold-read';
import { drawPicture } from './picture';

const stand = (d: Design, kind: string, parameters: object, on = 'card.gutter'): Design =>
  addMechanism(d, kind, on, parameters as never).design;
const design = stand(
  stand(
    stand(blankDesign('Test <card> & "more"', 180, 120), 'step-fold', {
      depth: 30,
      height: 20,
      width: 60,
      offset: -40,
    }),
    'step-fold',
    { depth: 10, height: 8, width: 30 },
    'step-fold-1.base',
  ),
  'v-fold',
  { size: 40, offset: 30, tab: 10 },
);
const assembly = buildAssembly(design);
const write = async (choice: ExportChoice, d = design): Promise<Uint8Array> => exportDesign(d, choice);
const text = async (choice: ExportChoice, d = design): Promise<string> =>
  new TextDecoder().decode(await write(choice, d));
const length = (points: readonly (readonly number[])[], closed: boolean): number =>
  points.reduce(
    (s, p, i) =>
      i === 0 && !closed
        ? 0
        : s +
          Math.hypot(
            p[0] - points[(i + points.length - 1) % points.length][0],
            p[1] - points[(i + points.length - 1) % points.length][1],
          ),
    0,
  );
/** Length of lines by role, straight from the design: what every export must come to. */
const lengths = (d = design): Record<string, number> => {
  const out: Record<string, number> = {};
  for (const piece of drawPieces(d, buildAssembly(d)))
    for (const l of piece.lines) out[l.role] = (out[l.role] ?? 0) + length(l.points, l.closed);
  return out;
};

describe('SVG', () => {
  test('one user unit is one mm, and each role’s group is as long as the design says', async () => {
    const svg = await text({ format: 'svg' });
    const [, w, h] = /width="([\d.]+)mm" height="([\d.]+)mm"/.exec(svg)!;
    expect(svg).toContain(`viewBox="0 0 ${w} ${h}"`);
    for (const [role, expected] of Object.entries(lengths())) {
      const group = new RegExp(`<g id="${role}"[^>]*>([\\s\\S]*?)</g>`).exec(svg)![1];
      const sum = [...group.matchAll(/ d="([^"]+)"/g)].reduce(
        (s, [, d]) =>
          s +
          length(
            [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]),
            d.includes('Z'),
          ),
        0,
      );
      expect(sum).toBeCloseTo(expected, 3);
    }
  });
  test('names are escaped', async () =>
    expect(await text({ format: 'svg' })).toContain('<title>Test &lt;card&gt; &amp; &quot;more&quot;</title>'));
});

test('DXF: mm, one layer a role, the same lengths (read by dxf-parser)', async () => {
  const dxf = new DxfParser().parseSync(await text({ format: 'dxf' }))!;
  expect(dxf.header.$INSUNITS).toBe(4);
  const found: Record<string, number> = {};
  for (const e of dxf.entities as unknown as {
    layer: string;
    vertices: { x: number; y: number }[];
    shape?: boolean;
  }[]) {
    found[e.layer] =
      (found[e.layer] ?? 0) +
      length(
        e.vertices.map((v) => [v.x, v.y]),
        e.shape === true,
      );
  }
  for (const [role, expected] of Object.entries(lengths())) expect(found[role]).toBeCloseTo(expected, 3);
});

describe('PDF (read by pdf.js)', () => {
  interface Page {
    width: number;
    height: number;
    lines: number[][];
    text: string;
  }
  const pages = async (d: Design, choice: Partial<ExportChoice> = {}): Promise<Page[]> => {
    const file = join(mkdtempSync(join(tmpdir(), 'pdf-')), 'a.pdf');
    writeFileSync(file, await write({ format: 'pdf', ...choice }, d));
    return JSON.parse(
      execFileSync('node', [join(process.cwd(), 'src/core/tests/read-pdf.mjs'), file], {
        encoding: 'utf8',
        maxBuffer: 1e8,
      }),
    ) as Page[];
  };
  test('true scale: the check bar is 50 mm, and a gutter is as long as it is', async () => {
    const [page] = await pages(design, { piece: 'card' });
    const along = page.lines.map(([a, b, c, d]) => Math.hypot(c - a, d - b));
    expect(along.some((l) => Math.abs(l - 50) < 1e-3)).toBe(true);
    // Gutter of 180 less the step of 60 that interrupts it, 10 mm from its low end: pieces of 20 and 100 mm.
    for (const l of [20, 100]) expect(along.some((x) => Math.abs(x - l) < 1e-3)).toBe(true);
    expect(page.text).toMatch(/50 mm/);
  });
  test('a card larger than the paper is tiled, every page with its bar, and nothing is lost', async () => {
    const large = stand(blankDesign('Large', 380, 260), 'step-fold', { width: 300, depth: 60, height: 60 });
    const all = await pages(large, { piece: 'card' });
    expect(all.length).toBeGreaterThan(2);
    all.forEach((p) =>
      expect(p.lines.some(([a, b, c, d]) => Math.abs(Math.hypot(c - a, d - b) - 50) < 1e-3)).toBe(true),
    );
    all.forEach((p) => expect([Math.round(p.width), Math.round(p.height)].sort()).toEqual([210, 297]));
  });
});

describe('FOLD', () => {
  test('what is written has the faces the fold package finds, and reads back and folds', async () => {
    const file = JSON.parse(await text({ format: 'fold', piece: 'card' })) as {
      faces_vertices: number[][];
      edges_vertices: number[][];
      vertices_coords: number[][];
      file_spec: number;
    };
    expect(file.file_spec).toBe(1.2);
    // Euler: V - E + F = 1 for one connected sheet without its outside.
    expect(file.vertices_coords.length - file.edges_vertices.length + file.faces_vertices.length).toBe(1);
    const read = readFold(JSON.stringify(file));
    if (!read.ok) throw new Error(read.why);
    const { assembly: pattern } = assembleCreasePattern(read.pattern);
    const pose = poseOpen(pattern, 60);
    expect(pose.stop).toBeUndefined();
    expect(pose.folds.residualMm).toBeLessThan(1e-9);
  });
  test.each([
    ['a degree-4 vertex', vertexPattern([70, 100, 110, 80], '+-++')],
    ['a grid', parallelogramGrid(5, 4)],
  ])('%s folded flat lies where the fold package puts it', (_, pattern: CreasePattern) => {
    // Outside check: flatFoldedGeometry of the fold package reflects face by face.
    const faces = FOLD.convert.edges_vertices_to_vertices_vertices_sorted(JSON.parse(foldText(pattern)) as object);
    const file = FOLD.convert.vertices_vertices_to_faces_vertices(faces) as {
      vertices_coords: number[][];
      faces_vertices: number[][];
      vertices_flatFoldCoords?: number[][];
    };
    FOLD.convert.faces_vertices_to_faces_edges(file);
    (FOLD.convert.flatFoldedGeometry as (f: object, root: number) => object)(file, 0);
    const theirs = file.vertices_flatFoldCoords!;
    const { assembly: ours } = assembleCreasePattern(pattern);
    const pose = poseOpen(ours, 0);
    const place = (v: readonly [number, number]): readonly number[] => {
      const i = ours.facets.findIndex((f) => f.polygon.outer.some((p) => Math.hypot(p[0] - v[0], p[1] - v[1]) < 1e-9));
      return onFacet(pose, i, v);
    };
    // Up to where the whole lies: all distances between vertices agree.
    const mine = pattern.vertices.map(place);
    for (let i = 0; i < mine.length; i++)
      for (let k = 0; k < i; k++) {
        expect(Math.hypot(mine[i][0] - mine[k][0], mine[i][1] - mine[k][1])).toBeCloseTo(
          Math.hypot(theirs[i][0] - theirs[k][0], theirs[i][1] - theirs[k][1]),
          6,
        );
      }
  });
  test.each<[string, (f: Record<string, unknown>) => unknown, RegExp]>([
    ['no vertices', (f) => ({ ...f, vertices_coords: undefined }), /vertices_coords/],
    [
      'a raised vertex',
      (f) => ({ ...f, vertices_coords: (f.vertices_coords as number[][]).map((v, i) => (i === 2 ? [...v, 3] : v)) }),
      /height/,
    ],
    [
      'an edge to nowhere',
      (f) => ({ ...f, edges_vertices: [[0, 99], ...(f.edges_vertices as number[][]).slice(1)] }),
      /99/,
    ],
    ['too few assignments', (f) => ({ ...f, edges_assignment: ['M'] }), /entries/],
    [
      'an unassigned crease',
      (f) => ({ ...f, edges_assignment: (f.edges_assignment as string[]).map((a, i) => (i === 1 ? 'U' : a)) }),
      /unassigned/,
    ],
    [
      'a strange assignment',
      (f) => ({ ...f, edges_assignment: (f.edges_assignment as string[]).map((a, i) => (i === 1 ? 'Z' : a)) }),
      /"Z"/,
    ],
    [
      'a huge coordinate',
      (f) => ({ ...f, vertices_coords: [[1e300, 0], ...(f.vertices_coords as number[][]).slice(1)] }),
      /vertices_coords/,
    ],
  ])('%s is refused in one line', (_, change, why) => {
    const read = readFold(
      JSON.stringify(
        change(JSON.parse(foldText(vertexPattern([70, 100, 110, 80], '+-++'))) as Record<string, unknown>),
      ),
    );
    expect(read.ok).toBe(false);
    if (!read.ok) expect(read.why).toMatch(why);
    if (!read.ok) expect(read.why).not.toMatch(/\n/);
  });
  test('a pattern without creases is refused when it is to be folded', () => {
    const grid = parallelogramGrid(2, 2);
    expect(() => assembleCreasePattern({ ...grid, edges: grid.edges.filter((e) => e.assignment === 'B') })).toThrow(
      PatternError,
    );
  });
});

test('GLB is valid glTF 2.0 (Khronos validator), in metres', async () => {
  const bytes = await write({ format: 'glb', state: openTo(75) });
  const { issues, info } = await gltf.validateBytes(bytes);
  expect(issues.numErrors).toBe(0);
  expect(info.totalTriangleCount).toBeGreaterThan(50);
  const json = JSON.parse(
    Buffer.from(bytes.slice(20, 20 + new DataView(bytes.buffer, bytes.byteOffset).getUint32(12, true))).toString(),
  ) as { accessors: { type: string; max?: number[]; min?: number[] }[] };
  const wide = json.accessors.flatMap((a) => (a.max ? [a.max[0] - a.min![0]] : [])).reduce((m, x) => Math.max(m, x), 0);
  expect(wide).toBeCloseTo(0.18, 3);
});

describe('sheets', () => {
  test('scores come before cuts, and the outline last', () => {
    const roles = inCutOrder(drawPieces(design, assembly)[0]).map((l) => l.role + (l.closed ? '*' : ''));
    expect(roles.at(-1)).toBe('cut*');
    expect(roles.lastIndexOf('mountain')).toBeLessThan(roles.indexOf('cut'));
  });
  test('a perforation keeps its cut lengths, and paper at both ends', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5, max: 200, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        fc.double({ min: 0.5, max: 5, noNaN: true }),
        (l, cut, gap) => {
          const cuts = perforationCuts({ a: [0, 0], b: [l, 0] }, cut, gap);
          cuts.forEach((c) => expect(c.b[0] - c.a[0]).toBeCloseTo(cut, 9));
          if (cuts.length > 0) expect(cuts[0].a[0]).toBeGreaterThanOrEqual(gap / 2 - 1e-9);
          expect(cuts.length).toBe(Math.floor(l / (cut + gap) + 1e-9));
        },
      ),
    );
  });
  test('a perforated crease is drawn as cuts; mats are insets with sharp corners', () => {
    const d: Design = {
      ...design,
      making: { all: { way: 'score' }, creases: { 'card.gutter': { way: 'perforate', cutMm: 3, gapMm: 2 } } },
      dressing: [
        {
          facet: 'step-fold-1.tread',
          mats: [
            { insetMm: 2, stock: 'brass-120' },
            { insetMm: 2, stock: 'card-160' },
          ],
        },
      ],
    };
    const drawings = drawPieces(d, buildAssembly(d));
    expect(drawings[0].lines.filter((l) => l.role === 'perforation')).toHaveLength(4 + 20);
    const mats = drawings.filter((x) => x.id.includes('.mat-'));
    // docs/mechanisms.md: on a 4.25 x 5.5 in face mats of 4 x 5.25 and so on, each smaller by twice its inset. The
    // tread is 60 x 30.
    expect(mats.map((m) => Math.abs(ringArea(m.lines[0].points)))).toEqual([
      expect.closeTo(56 * 26, 5),
      expect.closeTo(52 * 22, 5),
    ]);
  });
});

test('the cut list as CSV keeps a name that looks like a formula from being one', () => {
  const rows = cutList({ ...design, stocks: design.stocks.map((s) => ({ ...s, name: '=1+1' })) }, assembly);
  expect(cutListCsv(rows)).toContain("'=1+1");
  expect(rows.find((r) => r.piece === 'v-fold-1.panels')!.glue).toHaveLength(2);
});

test('work steps: cut mechanisms before glued ones, what is stood on before what stands on it', () => {
  const titles = workSteps(design, assembly).map((s) => s.title);
  expect(titles[0]).toBe('Score and cut');
  expect(titles.indexOf('Glue V-fold')).toBeGreaterThan(titles.lastIndexOf('Fold Step'));
  const picture = drawPicture(design, assembly, poseOpen(assembly, 90));
  expect(picture.parts.length).toBe(assembly.facets.length);
  expect(picture.box.width).toBeGreaterThan(100);
});
