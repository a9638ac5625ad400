/**
 * The command line with shapes and templates: values as JSON, one line for what is wrong, answers in the contract's
 * words.
 */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shelveFonts } from '../fonts/shelve';
import { run } from './run';
import { STEP_OF_CUTS, TWO_PIECES, WATERFALL_SOLD } from '../core/tests/templates';

beforeAll(shelveFonts);
const dir = mkdtempSync(join(tmpdir(), 'rhabdoplex-cli-shapes-'));
const at = (name: string): string => join(dir, name);
const ok = async (...args: string[]): Promise<any> => {
  const { code, out, error } = await run(args);
  expect([error, code === 0 || code === 3]).toEqual([undefined, true]);
  return JSON.parse(out!);
};

test('a figure with its shape, sizes in inches, struts as a list', async () => {
  const file = at('figure.json');
  await ok(
    'new',
    file,
    '--card',
    '9inx6in',
    '--kind',
    'strut-figure',
    'shape={"circle":60}',
    'figureHeight=3in',
    'depth=3/4in',
    'struts=[{"x":0,"width":8}]',
  );
  const pose = await ok('pose', file, '--open', '90');
  expect(pose.measures['strut-figure-1'].room_mm).toBeCloseTo((6 - 3 - 0.75) * 25.4, 9);
  expect(pose.measures['strut-figure-1'].strut_count).toBe(1);
  expect(pose.landmarks['strut-figure-1'].tip).toEqual([
    expect.closeTo(0, 3),
    expect.closeTo(19.05, 6),
    expect.closeTo(76.2, 6),
  ]);
  await ok(
    'new',
    file,
    '--add',
    '--kind',
    'step-fold',
    '--on',
    'strut-figure-1.foot-1',
    'depth=5',
    'height=5',
    'width=4',
  );
  expect((await ok('check', file)).mechanisms).toHaveLength(2);
});
test('planes, a half-cut and a band answer with the documented measures', async () => {
  await ok(
    'new',
    at('p.json'),
    '--card',
    '220x152.4',
    '--kind',
    'plane-stack',
    'planes=[{"depth":12.7,"base":0,"height":139.7,"width":60,"offset":0}]',
  );
  const planes = await ok('pose', at('p.json'), '--open', '90');
  expect(planes.measures['plane-stack-1']).toEqual({
    room_mm: expect.closeTo(0, 9),
    'planes[0].room_mm': expect.closeTo(0, 9),
    contacts_mm: expect.closeTo(60, 6),
  });
  expect(Object.keys(planes.landmarks['plane-stack-1'])).toEqual(['planes[0].top']);
  await ok('new', at('h.json'), '--card', '150x2in', '--kind', 'half-cut', 'shape={"circle":50}', 'rise=1.062in');
  expect((await ok('pose', at('h.json'), '--open', '30')).measures['half-cut-1']).toMatchObject({
    rise_mm: expect.closeTo(26.9748, 9),
    folded_height_mm: expect.closeTo(3.062 * 25.4, 9),
    fold_left_mm: expect.any(Number),
    fold_right_mm: expect.any(Number),
  });
  await ok(
    'new',
    at('b.json'),
    '--card',
    '200x140',
    '--kind',
    'floating-band',
    'slit=4.5in',
    'width=20',
    'figure={"star":{"points":5,"outer":50,"inner":22}}',
  );
  const band = await ok('pose', at('b.json'), '--open', '120');
  expect(band.measures['floating-band-1'].float_mm).toBeCloseTo(57.15 / 2, 6);
  expect(band.landmarks['floating-band-1'].middle).toHaveLength(3);
  const proof = await ok('prove', at('b.json'), '--steps', '6');
  expect(proof.travel[0]).toMatchObject({ open: 0, tops: { 'floating-band-1': expect.any(Number) } });
});
test('a separate figure over a half-cut has a piece; a proof tells what is left of each window', async () => {
  const half = ['half-cut', 'shape={"circle":50}', 'rise=1.062in', 'figureMargin=1/8in'];
  const made = await ok('new', at('f.json'), '--card', '150x2in', '--kind', ...half);
  expect(made.pieces).toEqual(['card', 'half-cut-1.figure']);
  const card = JSON.parse(readFileSync(at('f.json'), 'utf8'));
  const layer = { facet: 'leafA', from: { x: 'middle', y: 'middle' }, x: 0, turnDeg: 0, width: null, height: null };
  const paper = { stock: 'card-160', foamMm: 0, foamInsetMm: 3 };
  // A strip 4 mm high over the upper half of a window 12 x 8 mm and past it.
  const pane = { ...layer, ...paper, id: 'pane', name: 'Pane', as: 'window', y: 8, shape: { width: 12, height: 8 } };
  const strip = {
    ...layer,
    ...paper,
    id: 'strip',
    name: 'Strip',
    as: 'layer',
    y: 10,
    shape: { rect: { width: 20, height: 4 } },
  };
  writeFileSync(at('f.json'), JSON.stringify({ ...card, layers: [pane, strip] }));
  const { windows } = await ok('prove', at('f.json'), '--steps', '4');
  const [open_mm2, left_mm2] = [96, 48].map((mm2) => expect.closeTo(mm2, 3));
  expect(windows).toEqual([{ layer: 'layer.pane', facet: 'leafA', open_mm2, left_mm2, hidden_by: ['layer.strip'] }]);
});
test('kinds tells of shapes and of the fields of lists', async () => {
  const kinds = await ok('kinds');
  const struts = kinds
    .find((k: { id: string }) => k.id === 'strut-figure')
    .parameters.find((p: { key: string }) => p.key === 'struts');
  expect(struts).toMatchObject({ unit: 'list', default: 'auto' });
  expect(struts.fields.map((f: { key: string }) => f.key)).toEqual(['x', 'width']);
});
test.each<[string, readonly string[], RegExp]>([
  ['a shape that is no JSON', ['shape=circle'], /shape is not JSON: a shape is written like/],
  ['two shapes in one', ['shape={"circle":4,"path":"M0 0"}'], /shape/],
  ['a shape of nothing', ['shape={"polygon":[[0,0],[1,1],[2,2]]}'], /no area/],
  [
    'a font that does not ship',
    ['shape={"text":{"string":"A","font":"x","size":9}}'],
    /font must be one of stardos-stencil/,
  ],
  ['a list with a field missing', ['struts=[{"x":1}]'], /struts\[0\]\.width is required/],
  ['a word that is not auto', ['struts=some'], /struts is not JSON/],
  ['a script for a path', ['shape={"path":"<script>"}'], /path/],
  ['a key into prototypes', ['shape={"__proto__":{"a":1},"circle":4}'], /shape|__proto__/],
])('%s is refused in one line', async (_, values, why) => {
  const { code, error } = await run(['new', at('bad.json'), '--card', '200x140', '--kind', 'strut-figure', ...values]);
  expect(code).toBe(2);
  expect(error).toMatch(why);
  expect(error).not.toMatch(/\n/);
});

describe('bring', () => {
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="160mm" viewBox="0 0 200 160"><g ' +
    'id="Cut" fill="none" stroke="#000"><rect x="10" y="10" width="180" height="140"/><path d="M70 60V110M130 60V110"/></g><g id="Lines" fill="none" stroke="#000"><path d="M10 80H68.5"/><path d="M130 80H190"/><path d="M70 60H130"/><path d="M70 110H130"/></g><g id="Up" fill="none" stroke="#000"><path d="M70 90H130"/></g></svg>';
  const from = at('step.svg');
  beforeAll(() => writeFileSync(from, svg));
  test('roles by layer, faults counted and mended, posed', async () => {
    const said = await ok(
      'bring',
      from,
      at('t.json'),
      '--role',
      'Lines=valley',
      '--role',
      'Up=mountain',
      '--mend',
      '--scale',
      '0.5',
    );
    expect(said.faults.map((f: { kind: string }) => f.kind)).toEqual(['air']);
    expect([said.faults_left, said.pieces]).toEqual([0, ['card']]);
    const pose = await ok('pose', at('t.json'), '--open', '90');
    expect(pose.facets).toHaveLength(4);
    expect(pose.creases.map((c: { fold_deg: number }) => Math.round(Math.abs(c.fold_deg)))).toEqual(
      expect.arrayContaining([90]),
    );
    // Its own export brought back is the same card.
    await ok('pattern', at('t.json'), '--as', 'dxf', '--out', at('t.dxf'));
    const again = await ok('bring', at('t.dxf'), at('t2.json'));
    expect((await ok('pose', at('t2.json'), '--open', '90')).facets).toHaveLength(4);
    expect(again.faults).toEqual([]);
  });
  test('cuts from edge to edge are told by id, and answered are folds of a card; its piece has a name', async () => {
    writeFileSync(at('cuts.svg'), STEP_OF_CUTS);
    const asked = await run(['bring', at('cuts.svg'), at('cuts.json')]);
    expect([asked.code, asked.error]).toEqual([2, expect.stringContaining('path-2, path-3; path-4, path-5, path-6')]);
    const roles = { 2: 'cut', 3: 'cut', 4: 'valley', 5: 'valley', 6: 'mountain', 7: 'valley', 8: 'valley' };
    const said = Object.entries(roles).flatMap(([k, role]) => ['--role', `path-${k}=${role}`]);
    const made = await ok('bring', at('cuts.svg'), at('cuts.json'), ...said, '--name', 'card=Page');
    expect(made.severing).toEqual([]);
    expect(made.named).toEqual([{ piece: 'card', name: 'Page', stock: 'card-240' }]);
    expect((await ok('prove', at('cuts.json'))).verdict).toBe('clear');
    const nowhere = await run(['bring', at('cuts.svg'), at('cuts.json'), ...said, '--piece', 'card-part-9=night-216']);
    expect([nowhere.code, nowhere.error]).toEqual([2, expect.stringContaining('of one of card')]);
  });
  test('a waterfall that is sold flat, its leaves drawn apart, is told by its sizes and made to work', async () => {
    writeFileSync(at('sold.svg'), WATERFALL_SOLD);
    const asked = await run(['bring', at('sold.svg'), at('sold.json')]);
    expect([asked.code, asked.error]).toEqual([2, expect.stringContaining('path-1~part-1; path-4, path-5, path-6')]);
    const roles = ['path-1~part-1=valley', ...[4, 5, 6, 7].map((k) => `path-${k}=mountain`)];
    const said = roles.flatMap((role) => ['--role', role]);
    const made = await ok('bring', at('sold.svg'), at('sold.json'), ...said, '--as', 'waterfall');
    expect(made.offered.waterfall.values).toMatchObject({ count: 4, pitch: 11, panelHeight: 42, beltWidth: 18 });
    expect((await ok('prove', at('sold.json'))).verdict).toBe('clear');
    const flat = await run(['bring', at('sold.svg'), at('sold.json'), ...said, '--as', 'wheel']);
    expect([flat.code, flat.error]).toEqual([2, expect.stringContaining('waterfall')]);
    writeFileSync(at('two.svg'), TWO_PIECES);
    const none = await run(['bring', at('two.svg'), at('two.json'), '--as', 'waterfall']);
    expect([none.code, none.error]).toEqual([2, expect.stringContaining('two or more panels')]);
  });
  test('two pieces are joined by their glue, by a list of joins, and posed as one', async () => {
    writeFileSync(at('two.svg'), TWO_PIECES);
    const alone = await ok('bring', at('two.svg'), at('two.json'));
    expect([alone.joins, alone.offered.joins.length]).toEqual([[], 2]);
    const all = await ok('bring', at('two.svg'), at('two.json'), '--joins', 'all');
    expect(all.joins).toHaveLength(2);
    // A step of 40 and 25 with sides of 30 and 45: its ridge at 90 degrees is in the reference table of the linkage.
    const pose = await ok('pose', at('two.json'), '--open', '90');
    const ridge = pose.facets.flatMap((f: { points: number[][] }) => f.points).map(([, y, z]: number[]) => [y, z]);
    const off = Math.min(...ridge.map(([y, z]: number[]) => Math.hypot(y - 44.762253, z - 29.619604)));
    expect(off).toBeLessThan(1e-5);
    writeFileSync(at('joins.json'), JSON.stringify(all.joins));
    const listed = await ok('bring', at('two.svg'), at('three.json'), '--joins', at('joins.json'));
    expect(listed.joins).toEqual(all.joins);
    writeFileSync(at('joins.json'), '[{"id":"x"}]');
    const { code, error } = await run(['bring', at('two.svg'), at('x.json'), '--joins', at('joins.json')]);
    expect([code, error]).toEqual([2, expect.stringMatching(/joins\[0\]/)]);
    expect((await run(['bring', at('two.svg'), at('x.json'), '--folds', '3'])).error).toMatch(/choices of roles/);
  });
  test.each<[string, readonly string[], RegExp]>([
    ['without roles there is nothing to open', [from, at('x.json')], /nothing to open/],
    ['a role that is none', [from, at('x.json'), '--role', 'Lines=bend'], /must be LAYER=ROLE/],
    [
      'a layer that is not there',
      [from, at('x.json'), '--role', 'Nope=cut'],
      /no layer or line "Nope"; layers are Cut, Lines, Up/,
    ],
    ['a scale of nothing', [from, at('x.json'), '--scale', '0'], /--scale/],
    ['one file only', [from], /give both files/],
    ['a file that is not there', [at('none.svg'), at('x.json')], /cannot be read/],
  ])('%s: one line', async (_, args, why) => {
    const { code, error } = await run(['bring', ...args]);
    expect([code, error]).toEqual([2, expect.stringMatching(why)]);
  });
});
test('a document written is of the newest version and reads back the same', async () => {
  const written = JSON.parse(readFileSync(at('figure.json'), 'utf8'));
  expect(written).toMatchObject({ rhabdoplex: 2, shapes: [], layers: [] });
});
