/** What lies on the outside of the paper: the mirror image of the inside, in every rule, picture and file. */
import fc from 'fast-check';
import { SVGPathData, SVGPathDataTransformer } from 'svg-pathdata';
import { CARD } from '../ids';
import type { Side } from '../kinds';
import { dressingOf, newLayer, type Design, type Layer } from '../document/design';
import { checkDesign, readDesign } from '../document/schema';
import { nameOfPart } from '../document/words';
import { closedStack } from '../rules/stack-map';
import { gather } from '../proof/evidence';
import { leverValue, setLever } from '../proof/levers';
import { ExportError, exportDesign } from '../formats/export';
import { coverPicture, sentPicture } from '../formats/cover';
import { cutListCsv } from '../formats/csv';
import { cutList } from '../sheets/cutlist';
import { regionArea, regionBox, type Region } from '../plane/polygon';
import { card, findings, layered, stand } from '../tests/cards';
import { buildAssembly } from './build';
import { moveLayers } from './placing';
import { workSteps } from './steps';

const LOPSIDED = { polygon: [[0, 0], [24, 0], [24, 9], [6, 9], [6, 30], [0, 30]] } as Layer['shape']; // prettier-ignore
const regionOf = (d: Design): Region => buildAssembly(d).layers[0].region;
const mirrored = (region: Region): string[] =>
  region.flatMap((p) => p.outer.map(([x, y]) => `${(-x).toFixed(6)} ${y.toFixed(6)}`)).sort();
const corners = (region: Region): string[] =>
  region.flatMap((p) => p.outer.map(([x, y]) => `${(x + 0).toFixed(6)} ${y.toFixed(6)}`)).sort();
const matted = (
  side: Side | undefined,
  sides?: { left: number; right: number; top: number; bottom: number },
): Design => ({
  ...card(),
  dressing: [
    {
      facet: 'leafB',
      ...(side ? { side } : {}),
      mats: [{ insetMm: 5, stock: 'card-160', ...(sides ? { sides } : {}) }],
    },
  ],
});

test('what lies outside is the mirror image of the same layer inside, wherever it is put', () => {
  const place = fc.record({
    x: fc.double({ min: -60, max: 60, noNaN: true }),
    y: fc.double({ min: -30, max: 30, noNaN: true }),
    turnDeg: fc.double({ min: -180, max: 180, noNaN: true }),
    from: fc.record({ x: fc.constantFrom('low', 'middle', 'high'), y: fc.constantFrom('low', 'middle', 'high') }),
  });
  fc.assert(
    fc.property(place, (own) => {
      const inside = regionOf(layered(card(), { shape: LOPSIDED, ...(own as Partial<Layer>) }));
      const outside = regionOf(layered(card(), { shape: LOPSIDED, ...(own as Partial<Layer>), side: 'outside' }));
      // The leaves lie evenly about the middle of the gutter: the mirror is the line x = 0.
      const close = (a: string[], b: string[]): boolean =>
        a.every((p, i) => p.split(' ').every((v, k) => Math.abs(Number(v) - Number(b[i].split(' ')[k])) < 1e-5));
      expect(close(corners(outside), mirrored(inside))).toBe(true);
      expect(regionArea(outside)).toBeCloseTo(regionArea(inside), 6);
    }),
  );
});

test('a mat’s left is left as its side is seen', () => {
  const sides = { left: 4, right: 20, top: 6, bottom: 11 };
  const [inside, outside] = (['inside', 'outside'] as const).map((s) => regionBox(regionOf(matted(s, sides))));
  expect([inside.min[0], inside.max[0]]).toEqual([-96, 80]);
  expect([outside.min[0], outside.max[0]]).toEqual([-80, 96]);
  expect([outside.min[1], outside.max[1]]).toEqual([inside.min[1], inside.max[1]]);
});

test('files without a side mean the inside; a side is kept, and another word is refused with its place', () => {
  const d = layered(matted('outside'), { side: 'outside' });
  const read = readDesign(JSON.stringify(d));
  expect(read.ok && read.design).toEqual(d);
  const plain = checkDesign({ ...d, layers: d.layers.map(({ side: _gone, ...l }) => l) });
  expect(plain.ok && buildAssembly(plain.design).layers.map((l) => l.side)).toEqual(['outside', 'inside']);
  const wrong = checkDesign({ ...d, layers: d.layers.map((l) => ({ ...l, side: 'back' })) });
  expect(wrong.ok ? '' : wrong.why).toMatch(/layers\[0\]\.side/);
});

test('both sides of a facet are dressed apart, and named apart', () => {
  const both: Design = { ...card(), dressing: [...matted('inside').dressing, ...matted('outside').dressing] };
  const ids = buildAssembly(both).layers.map((l) => l.id);
  expect(ids).toEqual(['leafB.mat-1', 'leafB.outer-mat-1']);
  expect(ids.map((id) => nameOfPart(both, id))).toEqual(['mat 1 on the front', 'mat 1 on the outside of the front']);
  const foamed = setLever(both, 'leafB.outer-mat-1', 'foamMm', 1.5);
  expect([leverValue(foamed, 'leafB.mat-1', 'foamMm'), leverValue(foamed, 'leafB.outer-mat-1', 'foamMm')]).toEqual([
    0, 1.5,
  ]);
  expect(dressingOf(foamed, 'leafB', 'inside')).toBe(both.dressing[0]);
});

test('paper and foam outside count in the closed stack', () => {
  const stack = (d: Design): number => closedStack(gather(d, 'closed', 2))!.greatest.mm;
  const bare = stack(card());
  const stocks = card().stocks.find((s) => s.id === 'card-160')!;
  expect(stack(layered(card(), { side: 'outside' })) - bare).toBeCloseTo(stocks.caliperMm, 5);
  expect(stack(layered(card(), { side: 'outside', foamMm: 2 })) - bare).toBeCloseTo(stocks.caliperMm + 2, 5);
});

describe('foam', () => {
  const stepped = stand(card(), 'step-fold', { depth: 40, height: 30, width: 60 });
  const onLeafA = { foamMm: 2, x: 0, y: -30, facet: 'leafB' } as const;
  test('outside, nothing of the inside folds over it; inside the step does', () => {
    const inside = layered(stand(card(), 'v-fold', { lean: 50, fold: 80, size: 40 }), { foamMm: 2, y: -20 });
    expect(findings(inside, 'foam').map((f) => f.aspect)).toContain('layer.l1 under');
    const outside = { ...inside, layers: inside.layers.map((l) => ({ ...l, side: 'outside' as const })) };
    expect(findings(outside, 'foam')).toEqual([]);
  });
  test('outside, a disc that is fixed on the same face lies over it, and one on the inside does not', () => {
    const cover = (side: Side): Design => {
      const with1 = stand(card(), 'volvelle', {});
      return {
        ...layered(with1, { ...onLeafA, side, x: 0, y: 0 }),
        mechanisms: with1.mechanisms,
      };
    };
    expect(findings(cover('outside'), 'foam').map((f) => f.aspect)).toContain('layer.l1 under');
    expect(findings(cover('inside'), 'foam')).toEqual([]);
  });
  test.each<Side>(['inside', 'outside'])('%s of a part that folds and meets nothing it may be', (side) => {
    const on = layered(stepped, { facet: 'step-fold-1.riser', side, shape: { circle: 12 }, foamMm: 1 });
    expect(findings(on, 'foam')).toEqual([]);
  });
});

describe('held down', () => {
  const lifting = stand(card(), 'step-fold', { depth: 40, height: 30, width: 40 });
  const patch = (side: Side): Design =>
    layered(lifting, { side, shape: { rect: { width: 70, height: 30 } }, from: { x: 'middle', y: 'low' }, y: 15 });
  test('a patch over the tread holds it down inside and lets it rise outside', () => {
    expect(findings(patch('inside'), 'collision').map((f) => f.severity)).toContain('blocks');
    expect(findings(patch('outside'), 'collision')).toEqual([]);
  });
  const across = (side: Side): Design =>
    layered(card(), { side, shape: { rect: { width: 40, height: 30 } }, from: { x: 'middle', y: 'low' }, y: -8 });
  test('a layer across the gutter keeps the card from closing inside; outside it sticks out at the spine', () => {
    expect(findings(across('inside'), 'collision')).not.toEqual([]);
    expect(findings(across('outside'), 'collision')).toEqual([]);
    expect(findings(across('outside'), 'overhang').map((f) => [f.aspect, f.measured])).toEqual([['layer.l1 spine', 8]]);
  });
});

test('layers of both sides go the same way when they are dragged together', () => {
  const two = layered(card(), { x: 3 }, { side: 'outside', x: 3 });
  const before = buildAssembly(two).layers.map((l) => regionBox(l.region).min);
  const after = buildAssembly(moveLayers(two, ['l1', 'l2'], 7, -2)).layers.map((l) => regionBox(l.region).min);
  after.forEach((p, i) => {
    expect(p[0] - before[i][0]).toBeCloseTo(7, 6);
    expect(p[1] - before[i][1]).toBeCloseTo(-2, 6);
  });
});

describe('files', () => {
  const drawn = layered(
    card(),
    { as: 'drawn', side: 'outside', shape: LOPSIDED, x: 31, y: 12 },
    { as: 'drawn', shape: { circle: 10 }, x: -50 },
  );
  const svg = async (d: Design, side?: Side): Promise<string> =>
    new TextDecoder().decode(await exportDesign(d, { format: 'svg', ...(side ? { side } : {}) }));
  /** Corners of the marks as an independent reader of path data has them, mm, y up. Source: svg-pathdata. */
  const marksOf = (text: string): Region => {
    const height = Number(/viewBox="0 0 [\d.]+ ([\d.]+)"/.exec(text)![1]);
    const group = /data-role="mark"[^>]*>([\s\S]*?)<\/g>/.exec(text)?.[1] ?? '';
    return [...group.matchAll(/ d="([^"]+)"/g)].map(([, d]) => ({
      outer: new SVGPathData(d)
        .transform(SVGPathDataTransformer.TO_ABS())
        .transform(SVGPathDataTransformer.NORMALIZE_HVZ())
        .commands.flatMap((c) => ('x' in c && 'y' in c ? [[c.x, height - c.y] as [number, number]] : [])),
      holes: [],
    }));
  };
  test('the outside is a file of its own: its drawings only, mirrored across the same plate', async () => {
    const [inside, outside] = [await svg(drawn), await svg(drawn, 'outside')];
    expect(/viewBox="[^"]+"/.exec(outside)![0]).toBe(/viewBox="[^"]+"/.exec(inside)![0]);
    expect(outside).not.toContain('data-role="cut"');
    const width = Number(/viewBox="0 0 ([\d.]+)/.exec(outside)![1]);
    const [marks] = marksOf(outside);
    // The plate is the card with 10 mm round it, its gutter across: leaf A is its upper half.
    const there = regionBox([marks]);
    const drawnAs = regionBox(layerOf(drawn));
    expect([there.min[0], there.max[0]].map((x) => x - width / 2)).toEqual([
      expect.closeTo(-drawnAs.max[0], 5),
      expect.closeTo(-drawnAs.min[0], 5),
    ]);
    expect(there.min[1] - 110).toBeCloseTo(drawnAs.min[1], 5);
    // The circle of the inside is in the other file alone.
    expect(marksOf(inside)).toHaveLength(1);
    expect(marksOf(outside)).toHaveLength(1);
  });
  test('a file of the outside without drawings, or of a kind that holds none, is refused', async () => {
    await expect(svg(layered(card(), { as: 'drawn' }), 'outside')).rejects.toThrow(ExportError);
    await expect(exportDesign(drawn, { format: 'fold', side: 'outside' })).rejects.toThrow(/svg, dxf, pdf, not fold/);
  });
  test('paper for the outside is cut face up, and the cut list says where it goes', () => {
    const d = layered(card(), { shape: LOPSIDED, side: 'outside', name: 'Comet' });
    const rows = cutList(d, buildAssembly(d));
    expect(rows.map((r) => [r.piece, r.side])).toEqual([[CARD, undefined], ['layer.l1', 'outside']]); // prettier-ignore
    expect(cutListCsv(rows)).toMatch(/layer\.l1,Comet,24,30,.*,1,outside,/);
  });
});
/** The first layer where it lies, though it is only drawn. */
const layerOf = (d: Design): Region =>
  buildAssembly({ ...d, layers: d.layers.map((l) => ({ ...l, as: 'layer' as const })) }).layers[0].region;

test('the work steps turn the sheet over for mats, and leave what is stuck outside for the shut card', () => {
  const d = layered(matted('outside'), { side: 'outside', name: 'Comet' });
  const steps = workSteps(d, buildAssembly(d));
  expect(steps.map((s) => s.title)).toEqual([
    'Score and cut',
    'Turn it over and stick the mats of the outside',
    'Fold the base',
    'Stick what goes on the outside',
    'Open and close it',
  ]);
  expect(steps[3].text).toContain('Comet');
  expect(steps[3].state.open).toBe(0);
});

describe('the cover as it lies in front of its reader', () => {
  const folded = (fold: 'side' | 'top'): Design => {
    const plain = layered(card(200, 120), { facet: 'leafB', side: 'outside', from: { x: 'middle', y: 'low' }, y: 5 });
    return { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, fold } } };
  };
  const boxOf = (d: Design, id: string) => {
    const { parts } = coverPicture(d, buildAssembly(d))!;
    const all = parts.filter((p) => p.id === id).flatMap((p) => p.points);
    const of = (k: 0 | 1): number[] => all.map((p) => p[k]);
    return { x0: Math.min(...of(0)), x1: Math.max(...of(0)), y0: Math.min(...of(1)), y1: Math.max(...of(1)) };
  };
  test('a card folded at the side has its spine at the left, one folded at the top hangs from it', () => {
    // The layer keeps 5 mm off the fore edge of leaf B: at the right of a book, at the foot of a card that hangs.
    const side = boxOf(folded('side'), 'layer.l1');
    expect(side.x1).toBeCloseTo(115, 6);
    expect(side.y0 + side.y1).toBeCloseTo(0, 6);
    const top = boxOf(folded('top'), 'layer.l1');
    expect(top.y1).toBeCloseTo(115, 6);
  });
  test('the cover hides what stands inside, and shows it through a window', () => {
    const closed = stand(card(), 'v-fold', { lean: 50, fold: 80, size: 40 });
    const order = (d: Design): string[] => coverPicture(d, buildAssembly(d))!.parts.map((p) => p.id);
    const ids = order(layered(closed, { facet: 'leafB', side: 'outside' }));
    expect(ids.slice(-2)).toEqual(['leafB', 'layer.l1']);
    expect(ids.indexOf('leafA')).toBe(0);
    const cut = coverPicture(
      layered(closed, { facet: 'leafB', as: 'window' }),
      buildAssembly(layered(closed, { facet: 'leafB', as: 'window' })),
    )!;
    expect(cut.parts.at(-1)!.holes).toHaveLength(1);
  });
  test('nothing of the inside’s dressing is on it, and the outside’s colour is', () => {
    const d: Design = {
      ...layered(card(), { facet: 'leafB' }),
      dressing: [
        { facet: 'leafB', colour: '#ff0000', mats: [] },
        { facet: 'leafB', side: 'outside', colour: '#0000ff', mats: [] },
      ],
    };
    const { parts } = coverPicture(d, buildAssembly(d))!;
    expect(parts.map((p) => p.id)).not.toContain('layer.l1');
    // Lit from one side: pure blue stays pure.
    expect(parts.at(-1)!.fill).toMatch(/^#0000[0-9a-f]{2}$/);
  });
});

test('a new layer says no side', () =>
  expect(newLayer({ id: 'a', name: 'a', facet: 'leafA', shape: { circle: 3 }, as: 'layer', stock: 's' }).side).toBe(
    undefined,
  ));

test('sent open flat it is pictured from inside, as large as it lies open, its fold across', () => {
  const d = card(200, 140);
  const shut = sentPicture(d, buildAssembly(d))!;
  expect([shut.box.width, shut.box.height].map(Math.round)).toEqual([140, 200]);
  const sent: Design = { ...d, post: { ...d.post, sent: 'open' } };
  const open = sentPicture(sent, buildAssembly(sent))!;
  expect([open.box.width, open.box.height].map(Math.round)).toEqual([280, 200]);
  expect(open.parts.map((p) => p.id).sort()).toEqual(['leafA', 'leafB']);
});
