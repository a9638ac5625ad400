/** Foam: to be cut by its true outline, on sheets of its own; what is too narrow to cut is left out and named. */
import { SVGPathData } from 'svg-pathdata';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { CENTRE, type Design } from '../document/design';
import { exportDesign } from '../formats/export';
import { regionArea } from '../plane/polygon';
import { card, findings, layered } from '../tests/cards';
import { cutList } from './cutlist';
import { foamDrawings } from './foam';
import { layOut } from './lay-out';

const disc = (values: Record<string, number | object>): Design =>
  addMechanism(card(200, 140), 'volvelle', { on: 'leafB', mount: { ...CENTRE, side: 'outside' } }, values as never)
    .design;
const framed = disc({ width: 100, height: 100, radius: 38, foam: 1.5, notch: 0 });

test('every pad is on a sheet of its thickness, as often as the card is made, by its own area', () => {
  const twice: Design = { ...framed, sheets: { ...framed.sheets, copies: 2 } };
  const a = buildAssembly(twice);
  const sheets = layOut(twice, a).sheets.filter((s) => s.stock.name === 'Foam, 1.5 mm');
  const placed = sheets.flatMap((s) => s.placed);
  expect(placed.map((p) => p.drawing.id)).toEqual(['volvelle-1.backing-foam', 'volvelle-1.backing-foam']);
  expect(regionArea(placed[0].drawing.region)).toBeCloseTo(regionArea(a.foam[0].region), 6);
});

test('foam under a layer is cut as well, and turned over with what it carries', () => {
  const shape = { polygon: [[0, 0], [40, 0], [40, 20], [20, 20], [20, 40], [0, 40]] } as never; // prettier-ignore
  const d = layered(card(), { shape, foamMm: 2, side: 'outside', name: 'Comet' });
  const [pad] = foamDrawings(d, buildAssembly(d));
  expect([pad.id, pad.title, pad.thickMm, pad.count]).toEqual(['layer.l1.foam', 'Foam under Comet', 2, 1]);
  // Inside by 3 mm all round: 34 by 14 and 14 by 20 mm.
  expect(regionArea(pad.region)).toBeCloseTo(34 * 14 + 14 * 20, 6);
  expect(cutList(d, buildAssembly(d)).find((r) => r.piece === pad.id)).toMatchObject({
    title: 'Foam under Comet, 2 mm',
    stock: 'Foam, 2 mm',
    counted: true,
    width_mm: 34,
    height_mm: 34,
  });
});

test('a pad is written by itself, and read back with its hole (svg-pathdata)', async () => {
  const bytes = await exportDesign(framed, { format: 'svg', piece: 'volvelle-1.backing-foam' });
  const paths = [...new TextDecoder().decode(bytes).matchAll(/ d="([^"]+)"/g)].map(([, d]) => new SVGPathData(d));
  expect(paths).toHaveLength(2);
  const all = new TextDecoder().decode(await exportDesign(framed, { format: 'svg' }));
  expect(all).not.toContain('backing-foam');
});

describe('strips that are too narrow to cut', () => {
  /** Width of the largest disc between the corner (-x, y) of the room and a circle, by brute force on a grid, mm. */
  const cornerWidth = (x: number, y: number, pivot: number, free: number): number => {
    let best = 0;
    for (let i = 0; i < 400; i++)
      for (let j = 0; j < 400; j++) {
        const [px, py] = [-x + i * 0.02, y - j * 0.02];
        const r = Math.min(px + x, y - py, Math.hypot(px - pivot, py) - free);
        best = Math.max(best, 2 * r);
      }
    return best;
  };
  test.each([52, 54, 55, 57, 58, 60, 64])('corners beside the disc of a panel %d mm high', (height) => {
    const values = { width: 90, height, corner: 0, radius: 39, clearance: 1, foamInset: 2, notch: 0 };
    const d = disc({ ...values, pivot: { x: -8, y: 0 } });
    const wide = cornerWidth(43, height / 2 - 2, -8, 40);
    expect(Math.abs(wide - 3)).toBeGreaterThan(0.05);
    const note = findings(d, 'foam').filter((f) => f.aspect.endsWith('left out'));
    expect(note.map((f) => f.severity)).toEqual(wide < 3 ? ['note'] : []);
    if (wide < 3) expect(note[0].message).toMatch(/2 strips/);
  });
});
