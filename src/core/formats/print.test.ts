/**
 * Printing: artwork where it was put, clipped and bled; backs that register when the sheet is turned; marks found in a
 * picture of the print that is shifted, turned, scaled and noisy, and the cut that follows them.
 */
import fc from 'fast-check';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shelveFonts } from '../../fonts/shelve';
import { artOfDrawing, placedArtwork } from '../build/artwork';
import { buildAssembly } from '../build/build';
import { marginOf, type Artwork, type Design } from '../document/design';
import { checkDesign } from '../document/schema';
import { offset, rectangle, regionArea, regionBox } from '../plane/polygon';
import { dist2, type Vec2 } from '../plane/vec2';
import { layOut } from '../sheets/lay-out';
import { onSheet } from '../sheets/layout';
import { MARK_INSET_MM, marksOf, matchMarks, moveBy, similarityBetween, type Similarity } from '../sheets/registration';
import { findSpots, scanPage } from '../simulate/scan';
import { card, layered } from '../tests/cards';
import { commonArea } from '../tests/second-polygons';
import { exportDesign } from './export';
import { backOf } from './print';

beforeAll(shelveFonts);

/** One dark pixel: the smallest PNG there is, from the standard's own chunks. */
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNgYGD4DwABBAEAfbLI3wAAAABJRU5ErkJggg==';
const picture = { id: 'dot', name: 'Dot', mime: 'image/png', widthPx: 1, heightPx: 1, data: DOT } as const;
const art = (more: Partial<Artwork> = {}): Artwork => ({
  id: 'a1',
  name: 'Night sky',
  on: 'leafA',
  what: { picture: 'dot' },
  x: 10,
  y: -5,
  turnDeg: 30,
  widthMm: 40,
  bleedMm: 3,
  ...more,
});
const printed = (d: Design, ...arts: Artwork[]): Design => ({ ...d, pictures: [picture], artwork: arts });
const placed = (d: Design) => placedArtwork(d, buildAssembly(d));

/** A square picture larger than the leaf. */
const WHOLE = { x: 0, y: 0, turnDeg: 0, widthMm: 300 };

describe('artwork', () => {
  test('lies by its middle, turned, as its side is seen; outside it is the mirror image', () => {
    const [inside] = placed(printed(card(200, 100), art()));
    const [outside] = placed(printed(card(200, 100), art({ side: 'outside' })));
    if (!('frame' in inside) || !('frame' in outside)) throw new Error('no frame');
    // Leaf A reaches from 0 to 100, its middle at 50.
    const middle = ({ origin, right, up }: typeof inside.frame): Vec2 => [
      origin[0] + (right[0] + up[0]) / 2,
      origin[1] + (right[1] + up[1]) / 2,
    ];
    expect(middle(inside.frame)).toEqual([expect.closeTo(10, 9), expect.closeTo(45, 9)]);
    expect(middle(outside.frame)).toEqual([expect.closeTo(-10, 9), expect.closeTo(45, 9)]);
    const { right, up } = inside.frame;
    expect([Math.hypot(...right), Math.atan2(right[1], right[0])]).toEqual([
      expect.closeTo(40, 9),
      expect.closeTo(Math.PI / 6, 9),
    ]);
    // Right-handed inside, left-handed in the axes of the piece where it is seen from behind.
    expect(Math.sign(right[0] * up[1] - right[1] * up[0])).toBe(1);
    const o = outside.frame;
    expect(Math.sign(o.right[0] * o.up[1] - o.right[1] * o.up[0])).toBe(-1);
  });
  test('bleeds past the edge of its piece by what is asked, and not over the facet beside it', () => {
    const [{ printed: all, seen }] = placed(printed(card(200, 100), art({ ...WHOLE, bleedMm: 3 })));
    const { min, max } = regionBox(all);
    expect([min[0], max[0], min[1], max[1]].map((v) => Number(v.toFixed(3)))).toEqual([
      -103,
      103,
      expect.anything(),
      103,
    ]);
    const leafB = [{ outer: [[-100, -100], [100, -100], [100, 0], [-100, 0]] as Vec2[], holes: [] }]; // prettier-ignore
    expect(commonArea(all, leafB)).toBeLessThan(1e-3);
    expect(regionArea(seen)).toBeCloseTo(200 * 100, 6);
    // Smaller than the leaf, it is its own rectangle.
    const [small] = placed(printed(card(200, 100), art({ x: 0, y: 0, turnDeg: 0, widthMm: 40 })));
    expect(regionArea(small.seen)).toBeCloseTo(40 * 40, 6);
    const none = placed(printed(card(200, 100), art({ ...WHOLE, bleedMm: 0 })))[0].printed;
    expect(regionArea(none)).toBeCloseTo(200 * 100, 6);
  });
  test('a layer is printed on its face, clipped to its shape; words are set in their colour', () => {
    const words = { text: { string: 'Quillmoor', font: 'lora', size: 9 }, colour: '#223355' };
    const d = layered(card(200, 100), { side: 'outside', shape: { circle: 30 }, x: 20 });
    const [on] = placed(printed(d, art({ on: 'layer.l1', what: words, x: 0, y: 0, turnDeg: 0, bleedMm: 2 })));
    if (!('ink' in on)) throw new Error('no ink');
    expect(regionArea(on.printed)).toBeCloseTo(regionArea(offset(on.seen, 2, 'round')), 3);
    const [drawn] = artOfDrawing([on], 'layer.l1', 'inside');
    const ink = 'ink' in drawn ? drawn.ink : [];
    // As it is read: from left to right about the middle of its own drawing.
    const box = regionBox(ink);
    const own = regionBox(drawn.seen);
    expect((box.min[0] + box.max[0]) / 2).toBeCloseTo((own.min[0] + own.max[0]) / 2, 6);
    expect(artOfDrawing([on], 'layer.l1', 'outside')).toEqual([]);
  });
  test('a document says what is wrong with its pictures', () => {
    const good = printed(card(), art());
    expect(checkDesign(good)).toMatchObject({ ok: true });
    expect(checkDesign({ ...good, pictures: [] })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/artwork\[0\]\.what\.picture is "dot"/),
    });
    const jpeg = { ...picture, mime: 'image/jpeg' };
    expect(checkDesign({ ...good, pictures: [jpeg] })).toMatchObject({
      ok: false,
      why: expect.stringMatching(/pictures\[0\].*not image\/jpeg/),
    });
    const html = { ...picture, data: btoa('<script>alert(1)</script>') };
    expect(checkDesign({ ...good, pictures: [html] })).toMatchObject({ ok: false });
  });
});

describe('pages for the printer', () => {
  const read = (bytes: Uint8Array): { width: number; height: number; text: string }[] => {
    const file = join(mkdtempSync(join(tmpdir(), 'print-')), 'a.pdf');
    writeFileSync(file, bytes);
    const reader = join(process.cwd(), 'src/core/tests/read-pdf.mjs');
    return JSON.parse(execFileSync('node', [reader, file], { encoding: 'utf8', maxBuffer: 1e8 }));
  };
  test('a front for each sheet that is printed on, its back after it, said about which edge', async () => {
    const d = printed(card(180, 120), art(), art({ id: 'a2', side: 'outside' }));
    const write = (backs: 'none' | 'long' | 'short') =>
      exportDesign({ ...d, sheets: { ...d.sheets, print: { marks: true, backs } } }, { format: 'pdf', print: true });
    expect(read(await write('none'))).toHaveLength(1);
    const pages = read(await write('short'));
    expect(pages.map((p) => [Math.round(p.width), Math.round(p.height)])).toEqual(Array(2).fill([297, 210]));
    expect(pages[1].text).toMatch(/back: turn about the short edge/);
    await expect(exportDesign(card(), { format: 'pdf', print: true })).rejects.toThrow(/nothing is printed/);
    await expect(exportDesign(d, { format: 'svg', print: true })).rejects.toThrow(/written as pdf, not svg/);
  });
  test('turned about either edge, the back lies under the front: through the paper it is the same place', () => {
    const sheet = { widthMm: 297, heightMm: 210 };
    // The hand turns the sheet about the long edge: what was at the top is at the bottom, left stays left.
    const hand: Readonly<Record<'long' | 'short', (p: Vec2) => Vec2>> = {
      long: ([x, y]) => [x, 210 - y],
      short: ([x, y]) => [297 - x, y],
    };
    for (const backs of ['long', 'short'] as const)
      for (const p of [
        [10, 20],
        [250, 100],
        [148.5, 105],
      ] as Vec2[])
        // prettier-ignore
        expect(backOf(backs, sheet)(p)).toEqual(hand[backs](p));
    // An offcut that is higher than wide has its long edge upright.
    expect(backOf('long', { widthMm: 100, heightMm: 200 })([10, 20])).toEqual([90, 20]);
  });
  test('marks keep their room: no piece lies on them, whatever the margin', () => {
    const d: Design = {
      ...card(180, 120),
      sheets: { marginMm: 2, spacingMm: 3, copies: 1, print: { marks: true, backs: 'none' } },
    };
    expect(marginOf(d, d.stocks[0])).toBe(10);
    const [sheet] = layOut(d, buildAssembly(d)).sheets;
    for (const p of sheet.placed)
      for (const corner of [p.drawing.box.min, p.drawing.box.max].map((c) => onSheet(p, c)))
        expect(Math.min(corner[0], corner[1], 297 - corner[0], 210 - corner[1])).toBeGreaterThan(MARK_INSET_MM + 2.5);
  });
});

describe('the scanner and the cut that follows', () => {
  const SHEET = { widthMm: 148, heightMm: 105 };
  const similar = (turnDeg: number, scale: number, dx: number, dy: number): Similarity => {
    const t = (turnDeg * Math.PI) / 180;
    return { a: scale * Math.cos(t), b: scale * Math.sin(t), dx, dy };
  };
  test('shifted, turned, scaled, noisy: after correction the cut is within 0.1 mm everywhere on the sheet', () => {
    const printedRegion = [{ outer: rectangle(40, 30, 120, 80), holes: [] }];
    fc.assert(
      fc.property(
        fc.double({ min: -2.5, max: 2.5, noNaN: true }),
        fc.double({ min: 0.99, max: 1.01, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.integer({ min: 1, max: 1000 }),
        (turn, scale, dx, dy, seed) => {
          const lies = similar(turn, scale, dx, dy);
          const scan = scanPage({
            ...SHEET,
            marks: marksOf(SHEET),
            printed: printedRegion,
            lies,
            noise: 9,
            seed,
            pxPerMm: 5,
          });
          const fit = matchMarks(findSpots(scan), marksOf(SHEET));
          expect(fit).not.toBeNull();
          for (const x of [0, 74, 148])
            for (const y of [0, 52, 105]) expect(dist2(moveBy(fit!, [x, y]), moveBy(lies, [x, y]))).toBeLessThan(0.1);
        },
      ),
      { numRuns: 5 },
    );
  });
  test('three points fix a similarity exactly (round trip), and spots that are no marks are passed by', () => {
    const marks = marksOf(SHEET);
    const lies = similar(1.3, 1.002, 2, -1);
    const found = marks.map((m) => moveBy(lies, m));
    const fit = similarityBetween(marks, found);
    for (const key of ['a', 'b', 'dx', 'dy'] as const) expect(fit[key]).toBeCloseTo(lies[key], 9);
    const among: Vec2[] = [[50, 50], found[2], [80, 20], found[0], found[1]]; // prettier-ignore
    expect(matchMarks(among, marks)!.a).toBeCloseTo(lies.a, 9);
    expect(matchMarks([[1, 2], [30, 40], [60, 10]], marks)).toBeNull(); // prettier-ignore
    expect(matchMarks(found.slice(0, 2), marks)).toBeNull();
  });
});
