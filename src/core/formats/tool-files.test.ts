/**
 * Tool files read back by readers of the test's own: every line of the design is worked once, by its own pass, nothing
 * else; paper that was cut out has the area of the pieces. Units of HP-GL/2 (1/40 mm) from the language, from memory.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from '../build/build';
import type { Design } from '../document/design';
import { readDesign } from '../document/schema';
import { drawPieces } from '../sheets/drawing';
import { exportDesign } from './export';
import { toolPaths } from '../cutting/passes';
import { PASSES, type Pass } from '../paper/machine';
import { plateOfPieces, type Plate } from '../sheets/plate';

type Path = { readonly tool: number; readonly points: (readonly [number, number])[] };

/** HP-GL/2: pen up and down, absolute, 40 units a millimetre; anything else is refused. */
function readHpgl(text: string): Path[] {
  const out: Path[] = [];
  let [pen, at]: [number, [number, number]] = [0, [0, 0]];
  for (const [, word, rest] of text.replace(/\s/g, '').matchAll(/([A-Z]{2})([^;A-Z]*);/g)) {
    const numbers = rest === '' ? [] : rest.split(',').map(Number);
    const places = Array.from({ length: numbers.length / 2 }, (_, k): [number, number] => [
      numbers[2 * k] / 40,
      numbers[2 * k + 1] / 40,
    ]);
    if (word === 'SP') pen = numbers[0];
    else if (word === 'PU') at = places.at(-1) ?? at;
    else if (word === 'PD') {
      out.push({ tool: pen, points: [at, ...places] });
      at = places.at(-1)!;
    } else if (word !== 'IN') throw new Error(`unknown ${word}`);
  }
  return out;
}

/** The part of RS-274 that is written: metric, absolute; lowered at Z 0. */
function readGcode(text: string): Path[] {
  const out: Path[] = [];
  let [tool, x, y, z] = [0, 0, 0, NaN];
  for (const raw of text.split('\n')) {
    const line = raw.replace(/\([^)]*\)/g, '').trim();
    const words = new Map([...line.matchAll(/([A-Z])(-?[\d.]+)/g)].map(([, k, v]) => [k, Number(v)]));
    if (words.has('T')) tool = words.get('T')!;
    const [before, lowered] = [[x, y] as [number, number], z === 0];
    x = words.get('X') ?? x;
    y = words.get('Y') ?? y;
    z = words.get('Z') ?? z;
    if (z === 0 && !lowered) out.push({ tool, points: [before] });
    else if (z === 0 && words.has('X')) {
      expect(words.get('G')).toBe(1);
      out.at(-1)!.points.push([x, y]);
    }
  }
  return out;
}

const lengthOf = (points: Path['points']): number =>
  points.slice(1).reduce((sum, [x, y], k) => sum + Math.hypot(x - points[k][0], y - points[k][1]), 0);
const areaOf = (points: Path['points']): number =>
  Math.abs(
    points.reduce(
      (s, [x, y], k) => s + x * points[(k + 1) % points.length][1] - points[(k + 1) % points.length][0] * y,
      0,
    ) / 2,
  );

const EXAMPLES = join(__dirname, '../../../examples');
const designs = readdirSync(EXAMPLES)
  .filter((f) => f.endsWith('.json'))
  .map((file): [string, Design] => {
    const read = readDesign(readFileSync(join(EXAMPLES, file), 'utf8'));
    if (!read.ok) throw new Error(read.why);
    return [file, read.design];
  });
const PASS_OF: Readonly<Record<string, Pass | undefined>> = {
  mark: 'pen',
  valley: 'score',
  mountain: 'score',
  perforation: 'perforate',
  window: 'inner',
};

type Wanted = { readonly mm: number; readonly ends: number };
/** Length and number of the lines of each pass. */
function wantedOf(drawings: ReturnType<typeof drawPieces>): Map<Pass, Wanted> {
  const wanted = new Map<Pass, Wanted>();
  for (const { lines } of drawings)
    for (const { role, points, closed } of lines) {
      const pass = role === 'cut' ? (closed ? 'outline' : 'inner') : PASS_OF[role];
      if (!pass) continue;
      const { mm, ends } = wanted.get(pass) ?? { mm: 0, ends: 0 };
      wanted.set(pass, { mm: mm + lengthOf(closed ? [...points, points[0]] : [...points]), ends: ends + 1 });
    }
  return wanted;
}

beforeAll(shelveFonts);
describe.each(designs)('%s', (_, design) => {
  test.each(['plt', 'gcode'] as const)('%s works every line once, pass by pass', async (format) => {
    const drawings = drawPieces(design, buildAssembly(design));
    const wanted = wantedOf(drawings);
    const text = new TextDecoder().decode(await exportDesign(design, { format }));
    const paths = format === 'plt' ? readHpgl(text) : readGcode(text);
    const tools = paths.map((p) => p.tool);
    expect(tools).toEqual([...tools].sort((a, b) => a - b));
    for (const pass of PASSES) {
      const own = paths.filter((p) => p.tool === PASSES.indexOf(pass) + 1);
      const { mm, ends } = wanted.get(pass) ?? { mm: 0, ends: 0 };
      expect(own.length).toBe(ends);
      const steps = own.reduce((n, p) => n + p.points.length, 0);
      // Each corner is rounded to half a unit of 0.025 mm, or to half a thousandth.
      const rounding = format === 'plt' ? 0.025 * Math.SQRT2 : 0.001 * Math.SQRT2;
      expect(Math.abs(own.reduce((sum, p) => sum + lengthOf(p.points), 0) - mm)).toBeLessThan(steps * rounding + 1e-6);
    }
    const cut = paths.filter((p) => p.tool === PASSES.indexOf('outline') + 1);
    const paper = drawings
      .flatMap((d) => d.lines.filter((l) => l.role === 'cut' && l.closed))
      .map((l) => areaOf([...l.points]));
    const sum = (list: readonly number[]): number => list.reduce((s, v) => s + v, 0);
    expect(sum(cut.map((p) => areaOf(p.points))) / sum(paper)).toBeCloseTo(1, 2);
  });
});

const plate = (...lines: Plate['items'][number]['drawing']['lines']): Plate => {
  const box = { min: [0, 0] as const, max: [100, 100] as const };
  return plateOfPieces('p', [
    { id: 'p', title: 'p', mechanism: 'card', stock: 's', box, region: [], lines, outside: [], count: 1 },
  ]);
};

test('within a pass the nearest comes next, begun from its nearer end; inner cuts come before outlines', () => {
  const score = (x: number) => ({
    role: 'valley' as const,
    id: `s${x}`,
    closed: false,
    points: [
      [x, 80],
      [x, 0],
    ] as const,
  });
  const paths = toolPaths(
    plate(
      {
        role: 'cut',
        id: 'edge',
        closed: true,
        points: [
          [0, 0],
          [100, 0],
          [100, 100],
          [0, 100],
        ],
      },
      score(60),
      score(20),
      score(40),
      {
        role: 'window',
        id: 'hole',
        closed: true,
        points: [
          [10, 10],
          [12, 10],
          [12, 12],
        ],
      },
    ),
  );
  expect(paths.map((p) => p.pass)).toEqual(['score', 'score', 'score', 'inner', 'outline']);
  // Up the first, down the second, up the third: 20 mm from one to the next (a plate has 10 mm round its piece).
  expect(paths.slice(0, 3).map((p) => p.points.map(([x, y]) => [x - 10, y - 10]))).toEqual([
    [
      [20, 0],
      [20, 80],
    ],
    [
      [40, 80],
      [40, 0],
    ],
    [
      [60, 0],
      [60, 80],
    ],
  ]);
});

test('titles cannot break out of their comment', async () => {
  const [, design] = designs[0];
  const odd = { ...design, name: 'x) M30 (\nG1 Z-90' };
  const text = new TextDecoder().decode(await exportDesign(odd, { format: 'gcode' }));
  expect(text.split('\n')[0]).toMatch(/^\([^()]*\)$/);
  expect(text).not.toMatch(/^G1 Z-/m);
});
