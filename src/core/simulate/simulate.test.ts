/**
 * The simulated cutter closes the loop: every demo card's sheets, written in each language and cut by each machine,
 * come out as the pieces the design has. The blade is checked against the curve of pursuit that it must follow.
 */
import fc from 'fast-check';
import { shelveFonts } from '../../fonts/shelve';
import { buildAssembly } from '../build/build';
import { toDxf } from '../formats/dxf';
import { toGcode } from '../formats/gcode';
import { toHpgl } from '../formats/hpgl';
import { toSvg } from '../formats/svg';
import { MACHINES, type MachineProfile } from '../paper/machine';
import { readProfile } from '../document/profile';
import { bladePaths, tightCurves } from '../cutting/blade';
import { rectangle, regionArea, regionBox, ringArea, subtract } from '../plane/polygon';
import { dist2, distToSegment, wayLength, type Vec2 } from '../plane/vec2';
import { layOut } from '../sheets/lay-out';
import { paperOnSheet } from '../sheets/layout';
import { plateOfSheet } from '../sheets/plate';
import { card, layered } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { commonArea } from '../tests/second-polygons';
import type { CutFile, Stroke } from './cut-file';
import { legSeconds } from './motion';
import { languageOf, readCutFile } from './read';
import { cutJob, CutRun } from './run';
import { simulate } from './simulate';

beforeAll(shelveFonts);

const [SMALL, ROLLER, TABLE] = MACHINES;
const plainKnife: MachineProfile = { ...SMALL, blade: { ...SMALL.blade, offsetMm: 0, leadInMm: 0, overcutMm: 0 } };
const stroke = (points: readonly Vec2[], pass: Stroke['pass'] = 'outline'): Stroke => ({ tool: 5, pass, points });
const drawing = (...strokes: Stroke[]): CutFile => ({ strokes, plain: true, skipped: [] });
const square = (x: number, y: number, size: number): Vec2[] => [
  [x, y], [x + size, y], [x + size, y + size], [x, y + size], [x, y],
]; // prettier-ignore

describe('each machine cuts each sheet of the demo set to the pieces of the design', () => {
  test.each(demoCards())('%s', (_, design) => {
    const { sheets } = layOut(design, buildAssembly(design));
    for (const [k, sheet] of sheets.entries()) {
      const plate = plateOfSheet('sheet', sheet);
      const machine = MACHINES[k % MACHINES.length];
      const texts = {
        svg: toSvg(plate),
        dxf: toDxf(plate),
        plt: toHpgl(plate, machine),
        gcode: toGcode(plate, machine),
      };
      const meant = readCutFile(texts.svg, 'meant.svg');
      // Sheet by sheet another half of the languages, so that each machine meets each over the set.
      for (const [ending, text] of Object.entries(texts).filter((_, i) => (i + k) % 2 === 0)) {
        // Plain drawings are cut right only by a machine that makes up for its blade, or has none that trails.
        const drawn = ending === 'svg' || ending === 'dxf';
        if (drawn && machine.blade.madeUpBy === 'file' && machine.blade.offsetMm > 0) continue;
        const file = readCutFile(text, `sheet.${ending}`);
        expect(file.skipped).toEqual([]);
        const report = simulate(file, machine, drawn ? null : meant);
        expect([ending, report.leftUncut, report.looseEarly]).toEqual([ending, [], []]);
        expect([ending, report.unscored, report.cutThrough, report.strayed]).toEqual([ending, [], [], []]);
        for (const piece of sheet.placed) {
          const paper = paperOnSheet(piece);
          const area = regionArea(paper);
          const freed = report.freed.map((f) => ({ outer: f.outline, holes: f.holes }));
          const parts = freed.filter((f) => commonArea([f], paper) > 0.5 * regionArea([f]));
          const cut = regionArea(parts);
          // A knife takes its width along slits and half of it along edges, a turning blade a hair more at corners.
          const round = piece.drawing.lines
            .filter((l) => ['cut', 'window', 'perforation'].includes(l.role))
            .reduce((sum, l) => sum + wayLength(l.closed ? [...l.points, l.points[0]] : l.points), 0);
          expect(Math.abs(area - cut)).toBeLessThan(0.05 * round + 0.5);
        }
      }
    }
  });
});
describe('a damaged file, held against the card', () => {
  // A sheet with a fold down its middle, and beside it a square; each damage is named where it was done.
  const fold = stroke([[10, 40], [70, 40]], 'score'); // prettier-ignore
  const edge = stroke(square(10, 10, 60));
  const other = stroke(square(90, 10, 20));
  const meant = drawing(fold, edge, other);
  const held = (...strokes: Stroke[]) => simulate({ ...drawing(...strokes), plain: false }, plainKnife, meant);
  const moved = (s: Stroke, by: number): Stroke => ({ ...s, points: s.points.map(([x, y]): Vec2 => [x + by, y]) });
  const near = (spots: readonly { readonly at: Vec2 }[], [x, y]: Vec2, mm: number): boolean =>
    spots.some(({ at }) => Math.hypot(at[0] - x, at[1] - y) < mm);
  test('as it is nothing is told', () => {
    const r = held(fold, edge, other);
    expect([r.leftUncut, r.unscored, r.cutThrough, r.strayed, r.cutTwice]).toEqual([[], [], [], [], []]);
  });
  test('a score that is gone, whole or in part', () => {
    const gone = held(edge, other);
    expect(gone.unscored).toHaveLength(1);
    expect(gone.unscored[0].at[1]).toBeCloseTo(40, 6);
    const part = held(stroke([[10, 40], [50, 40]], 'score'), edge, other); // prettier-ignore
    expect(near(part.unscored, [60, 40], 11)).toBe(true);
    expect(part.unscored[0].at[0]).toBeGreaterThan(50);
  });
  test('a fold that is cut through', () => {
    const r = held({ ...fold, tool: 4, pass: 'inner' }, edge, other);
    expect(r.cutThrough).toHaveLength(1);
    expect(r.cutThrough[0].mm).toBeGreaterThan(58);
    expect(r.cutThrough[0].at).toEqual([expect.closeTo(40, 0), expect.closeTo(40, 6)]);
  });
  test('a tool that is not lifted on its way to the next line', () => {
    const r = held(fold, stroke([...edge.points, ...other.points]));
    expect(r.strayed).toHaveLength(1);
    // From one square to the other it goes along y = 10, from 10 back over the first to 90.
    expect(r.strayed[0].at[0]).toBeGreaterThan(70);
    expect(r.strayed[0].at[0]).toBeLessThan(90);
  });
  test('a contour that is moved: just below what a tool may be off its line, and above', () => {
    expect(held(fold, edge, moved(other, 0.1)).strayed).toEqual([]);
    const r = held(fold, edge, moved(other, 0.4));
    expect(near(r.strayed, [90, 20], 14)).toBe(true);
    expect(near(r.leftUncut, [90, 20], 14)).toBe(true);
    expect(r.strayed[0].mm).toBeCloseTo(0.4, 3);
  });
});

describe('a blade that trails', () => {
  test('led as it is not, it cuts corners round and leaves paper; led as it must be, it does not', () => {
    const file = drawing(stroke(square(10, 10, 40)));
    const wrong = simulate(file, { ...SMALL, blade: { ...SMALL.blade, offsetMm: 0.8, overcutMm: 0, leadInMm: 0 } });
    expect(wrong.leftUncut.length).toBeGreaterThan(0);
    expect(Math.max(...wrong.leftUncut.map((s) => s.mm))).toBeGreaterThan(0.2);
    expect(wrong.freed).toEqual([]);
    const right = simulate(file, { ...SMALL, blade: { ...SMALL.blade, offsetMm: 0.8, madeUpBy: 'machine' } });
    expect(right.leftUncut).toEqual([]);
    expect(right.freed).toHaveLength(1);
    expect(right.freed[0].areaMm2).toBeCloseTo(1600, -1);
  });
  test('along a straight line the tip comes up on it as the tractrix does (Huygens 1692)', () => {
    const r = 1;
    const profile = { ...SMALL, blade: { ...SMALL.blade, offsetMm: r } };
    // The blade looks along x; the axis goes up. The tip begins at (10 - r, 10) and is drawn after it.
    const run = new CutRun(cutJob(drawing(stroke([[10, 10], [10, 16]])), profile)); // prettier-ignore
    run.until(Infinity);
    const [{ tip }] = run.traces;
    for (const [x, y] of tip) {
      // Distance from the line w = r sech(u), way of the axis u: y = u - tanh(u), for r = 1.
      const w = 10 - x;
      const u = Math.acosh(r / Math.max(w, 1e-9));
      if (w > 0.05) expect(Math.abs(y - 10 - r * (u - Math.tanh(u)))).toBeLessThan(0.03);
    }
    expect(Math.abs(tip.at(-1)![0] - 10)).toBeLessThan(0.02);
  });
  test('led ways keep the tip on the line for any polygon, begun and ended past its start', () => {
    const corner = fc.tuple(fc.double({ min: 5, max: 95, noNaN: true }), fc.double({ min: 5, max: 95, noNaN: true }));
    fc.assert(
      fc.property(fc.array(corner, { minLength: 3, maxLength: 7 }), (corners) => {
        const ring: Vec2[] = [...corners, corners[0]];
        fc.pre(ring.slice(1).every((p, k) => dist2(p, ring[k]) > 4));
        const profile: MachineProfile = { ...SMALL, blade: { ...SMALL.blade, madeUpBy: 'machine' } };
        const run = new CutRun(cutJob(drawing(stroke(ring)), profile));
        run.until(Infinity);
        const off = (p: Vec2): number => Math.min(...ring.slice(1).map((q, k) => distToSegment(p, ring[k], q)));
        expect(Math.max(...run.traces[0].tip.map(off))).toBeLessThan(0.05);
      }),
      { numRuns: 25 },
    );
  });
  test('closed lines go the way that is asked for, open ones and other tools as they are', () => {
    const ring = stroke(square(0, 0, 10));
    const way = (direction: 'left' | 'right', s: Stroke): number => {
      const [path] = bladePaths([{ ...s, pass: s.pass! }], { ...TABLE, blade: { ...TABLE.blade, direction } }, false);
      return Math.sign(ringArea(path.points));
    };
    expect([way('left', ring), way('right', ring)]).toEqual([1, -1]);
    const score = stroke(square(0, 0, 10), 'score');
    expect([way('left', score), way('right', score)]).toEqual([1, 1]);
  });
  test('curves tighter than the blade turns are told, at the limit, once each', () => {
    const arc = (r: number): Vec2[] =>
      Array.from({ length: 41 }, (_, k): Vec2 => [r * Math.cos((k * Math.PI) / 40), r * Math.sin((k * Math.PI) / 40)]);
    const tight = (r: number) => tightCurves([stroke(arc(r)) as never], 2);
    expect(tight(2.01)).toEqual([]);
    // A hole of just that radius is none, as its chords are written to a millionth.
    const written = arc(2).map(([x, y]): Vec2 => [Number(x.toFixed(4)), Number(y.toFixed(4))]);
    expect(tightCurves([stroke(written) as never], 2)).toEqual([]);
    expect(tight(1.99)).toHaveLength(1);
    expect(tight(1.99)[0].radiusMm).toBeCloseTo(1.99, 6);
    // A square has corners, no curves.
    expect(tightCurves([stroke(square(0, 0, 1)) as never], 2)).toEqual([]);
  });
});

test('what lies in the window of another is cut out before the window lets go of it', () => {
  // A frame that fills its sheet, and a disc of the same card, which only fits in its window.
  const frame = { rect: { width: 284, height: 190 } };
  const d = layered(
    card(60, 30),
    { shape: frame as never, stock: 'card-160' },
    { shape: { circle: 60 } as never, stock: 'card-160' },
  );
  const a = buildAssembly(d);
  const [big] = a.layers;
  const hole = rectangle(-60, -60, 60, 60).map(([x, y]): Vec2 => {
    const { min, max } = regionBox(big.region);
    return [x + (min[0] + max[0]) / 2, y + (min[1] + max[1]) / 2];
  });
  const region = subtract(big.region, [{ outer: hole, holes: [] }]);
  const layers = a.layers.map((l, k) => (k === 0 ? { ...l, region } : l));
  const sheet = layOut(d, { ...a, layers }).sheets.find((s) => s.stock.id === 'card-160')!;
  expect(sheet.placed.map((p) => p.drawing.id).sort()).toEqual(['layer.l1', 'layer.l2']);
  const report = simulate(readCutFile(toHpgl(plateOfSheet('s', sheet), TABLE), 'a.plt'), TABLE);
  expect([report.looseEarly, report.freed.length]).toEqual([[], 3]);
  // Cut the other way about, it is told.
  const { strokes, ...rest } = readCutFile(toSvg(plateOfSheet('s', sheet)), 'a.svg');
  expect(simulate({ ...rest, strokes: [...strokes].reverse() }, TABLE).looseEarly.length).toBeGreaterThan(1);
});

describe('what is told of a cut', () => {
  test('a part that is cut out before what is inside it', () => {
    const [outline, hole] = [stroke(square(0, 0, 50)), stroke(square(20, 20, 10), 'inner')];
    expect(simulate(drawing(hole, outline), plainKnife).looseEarly).toEqual([]);
    const early = simulate(drawing(outline, hole), plainKnife).looseEarly;
    expect(early).toHaveLength(1);
    expect(early[0].mm).toBeCloseTo(40, 1);
  });
  test('a line that is cut twice, but not two lines that only cross or lie side by side', () => {
    const line = (a: Vec2, b: Vec2): Stroke => stroke([a, b], 'inner');
    const twice = simulate(drawing(line([0, 0], [60, 0]), line([20, 0], [50, 0])), plainKnife).cutTwice;
    expect(twice).toHaveLength(1);
    expect(twice[0].mm).toBeCloseTo(30, 0);
    expect(simulate(drawing(line([0, 0], [60, 0]), line([30, -9], [30, 9])), plainKnife).cutTwice).toEqual([]);
    expect(simulate(drawing(line([0, 0], [60, 0]), line([0, 0.3], [60, 0.3])), plainKnife).cutTwice).toEqual([]);
  });
  test('a ring that does not come back to its start, where nobody says what was meant', () => {
    const open = (gap: number): CutFile => ({
      ...drawing(stroke([[gap, 0], [40, 0], [40, 40], [0, 40], [0, 0]])), plain: false,
    }); // prettier-ignore
    expect(simulate(open(0.05), plainKnife).leftUncut).toEqual([]);
    expect(simulate(open(0.4), plainKnife).leftUncut.map((s) => Number(s.mm.toFixed(2)))).toEqual([0.4]);
  });
  test('the clock: a straight line takes what even acceleration takes (v = a t), and the estimate is the run', () => {
    const leg = { points: [[0, 0], [100, 0]] as Vec2[], speedMmS: 50, down: true, stroke: 0 }; // prettier-ignore
    // 0.5 s up and 0.5 s down over 12.5 mm each, 75 mm at 50 mm/s.
    expect(legSeconds(leg, 100)).toBeCloseTo(0.5 + 0.5 + 1.5, 9);
    // Too short to reach its speed: 2 sqrt(s / a).
    expect(
      legSeconds(
        {
          ...leg,
          points: [
            [0, 0],
            [9, 0],
          ],
        },
        100,
      ),
    ).toBeCloseTo(2 * Math.sqrt(9 / 100), 9);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: 0, max: 200, noNaN: true }), fc.double({ min: 0, max: 200, noNaN: true })), {
          minLength: 2,
          maxLength: 12,
        }),
        fc.constantFrom(SMALL, ROLLER, TABLE),
        (points, machine) => {
          const report = simulate(drawing(stroke(points, 'score')), machine);
          expect(Math.abs(report.seconds / report.estimateS - 1)).toBeLessThan(0.05);
        },
      ),
      { numRuns: 30 },
    );
  });
});

describe('files of others', () => {
  test('HP-GL: relative moves, pens, words without a move; what is not read is named with its line', () => {
    const file = readCutFile('IN;SP2;PU400,400;PR;PD400,0,0,400;\nVS10;CI40;PA;PU0,0;', 'a.plt');
    expect(file.strokes).toEqual([{ tool: 2, pass: null, points: [[10, 10], [20, 10], [20, 20]] }]); // prettier-ignore
    expect(file.skipped).toEqual(['line 2: CI is not read']);
    expect(() => readCutFile('IN;PD1,2,3;', 'a.plt')).toThrow(/line 1: 3 numbers are no pairs/);
    expect(() => readCutFile('IN;\nPDx,2;', 'a.plt')).toThrow(/line 2/);
  });
  test('G-code: inches, relative moves, arcs both ways as circles have it', () => {
    const file = readCutFile('(x)\nG20 G90\nT3 M6\nG0 X1 Y0 Z0.1\nG1 Z0\nG3 X-1 Y0 I-1 J0\nG0 Z1\nM2\nG1 X9', 'a.nc');
    const [{ tool, points }] = file.strokes;
    expect(tool).toBe(3);
    for (const p of points) expect(Math.hypot(...p)).toBeCloseTo(25.4, 6);
    expect(Math.max(...points.map((p) => p[1]))).toBeCloseTo(25.4, 1);
    expect(points.at(-1)).toEqual([-25.4, 0]);
    expect(() => readCutFile('G21\nG1 X..2', 'a.gcode')).toThrow(/line 2/);
    expect(() => readCutFile('G21\nG2 X1 R5', 'a.gcode')).toThrow(/line 2: arcs by R/);
    expect(() => readCutFile('G21\nG0 X1 Y1', 'a.gcode')).toThrow(/nothing in it that is worked/);
  });
  test('what a file is, is told by its ending, else by how it begins', () => {
    expect(languageOf('IN;SP1;', 'x')).toBe('hpgl');
    expect(languageOf('(sheet)\nG21', 'x')).toBe('gcode');
    expect(languageOf('<svg/>', 'x')).toBe('svg');
    expect(languageOf('0\nSECTION', 'x')).toBe('dxf');
    expect(() => languageOf('hello', 'notes.txt')).toThrow(/notes.txt is no SVG/);
  });
  test('whatever is in them, they are read or refused in one line', () => {
    const junk = fc.oneof(
      fc.string({ maxLength: 200 }),
      fc
        .array(fc.constantFrom('IN;', 'PU', 'PD', '1,2', ';', 'G1', 'X', '-1e9', 'Z0', 'T1', '\n', '(', 'SP9;'))
        .map((a) => a.join('')),
    );
    fc.assert(
      fc.property(junk, fc.constantFrom('a.plt', 'a.gcode', 'a.svg', 'a.dxf', 'a'), (text, name) => {
        try {
          const report = simulate(readCutFile(text, name), SMALL);
          expect(Number.isFinite(report.seconds)).toBe(true);
        } catch (error) {
          expect((error as Error).message).not.toMatch(/undefined|NaN|not a function|Cannot read/);
        }
      }),
      { numRuns: 300 },
    );
  });
});

test('a file that would take for ever is refused, and says how long', () => {
  const far = Array.from({ length: 70 }, (_, k) => `X${k % 2 ? 0 : 1000}`).join('\nG1 ');
  expect(() => simulate(readCutFile(`G21\nG1 Z0\nG1 ${far}`, 'a.nc'), SMALL)).toThrow(/m of lines; at most 60 m/);
  const slow = { ...SMALL, passes: { ...SMALL.passes, outline: { tool: 5, speedMmS: 0.1 } } };
  expect(() => simulate(drawing(stroke(square(0, 0, 600))), slow)).toThrow(/takes 7 hours; at most 6/);
});

describe('machine profiles', () => {
  test('those that ship read back; what is wrong is named', () => {
    for (const m of MACHINES) expect(readProfile(JSON.stringify(m))).toEqual({ ok: true, profile: m });
    const wrong = { ...SMALL, blade: { ...SMALL.blade, offsetMm: 9 } };
    expect(readProfile(JSON.stringify(wrong))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/blade\.offsetMm/),
    });
    expect(readProfile('[')).toMatchObject({ ok: false });
    expect(readProfile(JSON.stringify({ ...SMALL, extra: 1 }))).toMatchObject({
      ok: false,
      why: expect.stringMatching(/extra/),
    });
  });
});
