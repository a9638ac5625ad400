/**
 * What the workshop is told: figures of outlines, struts and their trade, a measure over the opening, where a shape
 * is used.
 */
import fc from 'fast-check';
import { regionArea } from '../plane/polygon';
import { degToRad } from '../units/angle';
import { STARTER_SHAPES } from '../shapes/starter';
import type { ShapeAsset, ShapeStep } from '../shapes/shape';
import { borrowShape } from '../build/borrow';
import { buildAssembly } from '../build/build';
import { addMechanism } from '../document/standing';
import { blankDesign, type Design } from '../document/design';
import { fieldOf, parameterOf, setParameter } from '../document/fields';
import { migrate } from '../document/migrate';
import { prove } from './prove';
import { roomOf } from './room';
import { checkDesign } from '../document/schema';
import {
  freeAssetId,
  measureOver,
  outlineFigures,
  planeOutlines,
  strutSheet,
  usesOf,
  workedShape,
} from '../build/workshop';

const asset = (id: string, ...steps: ShapeStep[]): ShapeAsset => ({
  id,
  name: `Shape ${id}`,
  source: { circle: 40 },
  steps,
});
const card = (...shapes: ShapeAsset[]): Design => ({ ...blankDesign('t', 220, 150), shapes });

test('an outline is told with its size, area and islands', () => {
  const o = outlineFigures(card(), { arc: { radius: 20, width: 10, from: 0, to: 360 } });
  expect([o.min, o.max, o.islands]).toEqual([[-25, -25], [25, 25], 1]);
  expect(Math.abs(o.areaMm2 - Math.PI * (625 - 225))).toBeLessThan(1.5);
});
test('a kept shape is looked at after each of its steps', () => {
  const a = asset(
    'a',
    { do: 'offset', by: 5, corners: 'round' },
    { do: 'simplify', tolerance: 0.5 },
    { do: 'subtract', with: { circle: 20 }, x: 0, y: 0, deg: 0 },
    { do: 'ties', width: 3, count: 2, turn: 0, moved: [] },
  );
  const d = card(a);
  const at = (n: number) => workedShape(d, a, n);
  expect(at(0).max[0]).toBeCloseTo(20, 9);
  expect(at(1).max[0]).toBeCloseTo(25, 2);
  expect(at(2).deviationMm!).toBeGreaterThan(0);
  expect(at(2).deviationMm!).toBeLessThanOrEqual(0.5 + 1e-6);
  expect(at(2).points).toBeLessThan(at(1).points);
  expect(at(3).islands).toBe(1);
  expect(at(3).ties).toEqual([]);
  expect([at(4).islands, at(4).ties.length]).toEqual([0, 2]);
});
test('struts are told as they stand, with the trade between few wide and many narrow', () => {
  const { design, id } = addMechanism(
    card({ id: 'r', name: 'Ridge', source: STARTER_SHAPES.find((s) => s.id === 'ridge-line')!.source, steps: [] }),
    'strut-figure',
    'card.gutter',
    { shape: { asset: 'r' }, depth: 15 },
  );
  const sheet = strutSheet(design, id);
  const made = buildAssembly(design);
  expect(made.creases.filter((c) => c.id.startsWith(`${id}.ridge-`))).toHaveLength(sheet.struts.length);
  expect(sheet.feet.length).toBe(made.pieces[0].creases.filter((c) => c.id.startsWith(`${id}.foot-`)).length);
  const [narrow, , , , wide] = sheet.trade;
  expect(narrow.count).toBeGreaterThan(wide.count);
  expect(narrow.lossPct).toBeLessThan(wide.lossPct);
  // Taken over by hand they are the same struts.
  const byHand = setParameter(
    design,
    id,
    'struts',
    sheet.struts.map(({ x, width }) => ({ x, width })),
  );
  expect(strutSheet(byHand, id).lossPct).toBeCloseTo(sheet.lossPct, 6);
});
test('the float over the opening is the documented (S - 2q) cos(open / 2)', () => {
  const { design, id } = addMechanism(card(), 'floating-band', 'card.gutter', { slit: 80, width: 16 });
  const points = measureOver(buildAssembly(design), id, 'float_mm', 18);
  expect(points).toHaveLength(19);
  for (const { open, value } of points) expect(value).toBeCloseTo(40 * Math.cos(degToRad(open) / 2), 5);
  expect(measureOver(buildAssembly(design), 'nobody', 'float_mm')).toEqual([]);
});
test('planes are told with their own outlines', () => {
  const { design, id } = addMechanism(card(), 'plane-stack', 'card.gutter', {
    planes: [
      { depth: 20, height: 40, width: 50 },
      { depth: 30, height: 20, shape: { circle: 10 } },
    ],
    contact: 6,
  });
  const [plain, round] = planeOutlines(design, id);
  expect(regionArea([{ outer: plain[0], holes: [] }])).toBeCloseTo(2000, 6);
  expect(Math.max(...round[0].map((p) => p[1]))).toBeCloseTo(20, 6);
});
describe('shapes of other cards', () => {
  const ring = asset('ring', { do: 'subtract', with: { asset: 'hole' }, x: 3, y: 0, deg: 0 });
  const from = card(
    { ...asset('hole'), name: 'Hole', source: { circle: 14 } },
    ring,
    {
      ...asset('pair'),
      source: { asset: 'ring' },
      steps: [{ do: 'unite', with: { asset: 'hole' }, x: 40, y: 0, deg: 0 }],
    },
    asset('alone'),
  );
  const areas = (d: Design): Map<string, number> =>
    new Map(d.shapes.map((s) => [s.id, outlineFigures(d, { asset: s.id }).areaMm2]));
  test('come with what they are made of and stay as they were, whatever is on the shelf', () => {
    const own = ['hole', 'ring', 'pair', 'alone', 'shape-ring', 'shape-pair', 'hole-2'];
    fc.assert(
      fc.property(fc.subarray(own), fc.constantFrom('hole', 'ring', 'pair', 'alone'), (taken, id) => {
        const to = card(...taken.map((name) => ({ ...asset(name), source: { circle: 77 } })));
        const got = borrowShape(to, from, id);
        expect(checkDesign(got.design).ok).toBe(true);
        expect(areas(got.design).get(got.id)).toBeCloseTo(areas(from).get(id)!, 9);
        // What was there is as it was.
        for (const [name, area] of areas(to)) expect(areas(got.design).get(name)).toBe(area);
        // Once more brings nothing new.
        const again = borrowShape(got.design, from, id);
        expect(again).toEqual({ design: got.design, id: got.id });
      }),
      { numRuns: 60 },
    );
  });
  test('only what is needed comes', () => {
    expect(borrowShape(card(), from, 'alone').design.shapes).toHaveLength(1);
    expect(borrowShape(card(), from, 'pair').design.shapes.map((s) => s.name)).toEqual([
      'Hole',
      'Shape ring',
      'Shape pair',
    ]);
    expect(() => borrowShape(card(), from, 'moon')).toThrow(/no shape "moon"/);
  });
});
test('ids are free and plain; uses are named', () => {
  const d = card(asset('big-moon'));
  expect(freeAssetId(d, 'Big Moon!')).toBe('big-moon-2');
  expect(freeAssetId(d, 'Ångström')).toBe('angstrom');
  expect(freeAssetId(d, '***')).toBe('shape');
  const used = addMechanism(
    { ...d, shapes: [...d.shapes, { ...asset('b'), source: { asset: 'big-moon' } }] },
    'half-cut',
    'card.gutter',
    { shape: { asset: 'big-moon' }, rise: 9 },
  ).design;
  expect(usesOf(used, 'big-moon')).toEqual(['Half-cut figure', 'Shape b']);
  expect(usesOf(used, 'b')).toEqual([]);
});
describe('entries of lists are parameters like any other', () => {
  const { design, id } = addMechanism(card(), 'plane-stack', 'card.gutter', {
    planes: [
      { depth: 20, height: 60, width: 50 },
      { depth: 30, base: 60, height: 20, width: 20 },
    ],
  });
  test('read, written, described', () => {
    expect(parameterOf(design, id, 'planes[1].base')).toBe(60);
    expect(parameterOf(design, id, 'planes[0].base')).toBe(0);
    expect(parameterOf(design, id, 'planes[7].base')).toBeUndefined();
    const changed = setParameter(design, id, 'planes[0].height', 55.5);
    expect(parameterOf(changed, id, 'planes[0].height')).toBe(55.5);
    expect(parameterOf(changed, id, 'planes[1].height')).toBe(20);
    expect(fieldOf('plane-stack', 'planes[1].depth')).toMatchObject({ unit: 'mm', min: 1 });
    expect(fieldOf('plane-stack', 'planes[1].nothing')).toBeUndefined();
  });
  test('a remedy names the plane and the value that clears the overhang: reach - depth', () => {
    const tall = setParameter(
      addMechanism(card(), 'plane-stack', 'card.gutter', { planes: [{ depth: 30, height: 60, width: 50 }] }).design,
      'plane-stack-1',
      'planes[0].height',
      131,
    );
    const over = prove(tall, 4).findings.find((f) => f.rule === 'overhang')!;
    expect(over.measured).toBeCloseTo(30 + 131 - 150, 6);
    expect(over.remedies).toContainEqual({ mechanism: 'plane-stack-1', parameter: 'planes[0].height', value: 120 });
    expect(over.remedies).toContainEqual({ mechanism: 'plane-stack-1', parameter: 'planes[0].depth', value: 19 });
  });
  test('their room ends at the fore edge, by name', () => {
    const one = addMechanism(card(), 'plane-stack', 'card.gutter', {
      planes: [{ depth: 30, height: 90, width: 50 }],
    }).design;
    const room = roomOf(one, 'plane-stack-1', 'planes[0].height')!;
    expect(room.clear!.high.value).toBeCloseTo(120, 1);
    expect(room.clear!.high.by).toBe('fore edge');
  });
});
test("a figure's room ends where depth and height use up the reach; what ends it is named", () => {
  const { design } = addMechanism(card(), 'strut-figure', 'card.gutter', {
    shape: { width: 60, height: 50 },
    figureHeight: 80,
    depth: 20,
  });
  const room = roomOf(design, 'strut-figure-1', 'figureHeight')!;
  expect(room.clear!.high.value).toBeCloseTo(130, 1);
  expect(room.clear!.high.by).toBe('fore edge');
});
test('migrating leaves what is not a document alone', () => {
  expect(migrate({ hello: 1 })).toEqual({ hello: 1 });
  expect(migrate({ rhabdoplex: 99 })).toEqual({ rhabdoplex: 99 });
  expect(migrate({ rhabdoplex: 1, name: 'old' })).toEqual({ rhabdoplex: 2, name: 'old', shapes: [], layers: [] });
});
