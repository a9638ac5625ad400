import { spawnSync } from 'node:child_process';
import { resolve } from 'node:path';
import { withToyBase } from '../core/tests/toy-base';
import { withToyKind } from '../core/tests/toy-kind';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { foldText, parallelogramGrid, vertexPattern } from '../core/tests/patterns';
import { failure, run } from './run';
import { at, dir, ok, refused } from './tests/command';

test('kinds lists every parameter with its unit and limits', async () => {
  const kinds = await ok('kinds');
  expect(kinds.map((k: { id: string }) => k.id)).toEqual([
    'fold-card',
    'gate-insert',
    'easel',
    'box-frame',
    'step-fold',
    'plane-stack',
    'strut-figure',
    'half-cut',
    'floating-band',
    'v-fold',
    'leaf-bundle',
    'step-strips',
    'twist-fold',
    'volvelle',
    'track-slider',
    'lift-tab',
    'waterfall',
    'carrier-wheel',
    'pocket',
    'z-window',
    'folded-figure',
    'own-lines',
  ]);
  for (const k of kinds)
    for (const p of k.parameters)
      expect(Object.keys(p)).toEqual(expect.arrayContaining(['key', 'label', 'unit', 'default', 'min', 'max', 'note']));
});

test('from a new file to proof, pose and files', async () => {
  const file = at('card.json');
  const made = await ok(
    'new',
    file,
    '--card',
    '200x100',
    '--kind',
    'step-fold',
    'depth=1.5in',
    'height=1 1/8in',
    'width=60',
  );
  expect(made.creases).toContain('step-fold-1.ridge');
  await ok(
    'new',
    file,
    '--add',
    '--kind',
    'step-fold',
    '--on',
    'step-fold-1.base',
    'depth=12',
    'height=10',
    'width=30',
  );
  expect((await ok('check', file)).mechanisms).toHaveLength(2);
  const pose = await ok('pose', file, '--open', '90');
  expect(pose.landmarks['step-fold-1'].ridge).toEqual([
    expect.closeTo(0, 9),
    expect.closeTo(38.1, 9),
    expect.closeTo(28.575, 9),
  ]);
  expect(pose.residual_mm).toBeLessThan(1e-6);
  expect(
    pose.creases.filter((c: { mechanism: string }) => c.mechanism === 'step-fold-1').length,
  ).toBeGreaterThanOrEqual(3);
  const proof = await ok('prove', file, '--steps', '12');
  expect(proof.travel).toHaveLength(13);
  expect(proof.closed.overhang).toMatchObject({ head: 0, foot: 0, fore: 0 });
  for (const as of ['svg', 'dxf', 'pdf', 'fold', 'glb']) {
    await ok('pattern', file, '--as', as, '--out', at(`a.${as}`));
    expect(existsSync(at(`a.${as}`))).toBe(true);
  }
  expect((await ok('cutlist', file))[0]).toMatchObject({ piece: 'card', width_mm: 200, height_mm: 200 });
  expect((await run(['cutlist', file, '--as', 'csv'])).out).toMatch(/^piece,title/);
});

describe('a kind that no file names', () => {
  withToyKind();
  test('is listed, put on a card and proved', async () => {
    expect((await ok('kinds')).map((k: { id: string }) => k.id)).toContain('toy-box');
    const made = await ok('new', at('toy.json'), '--card', '200x100', '--kind', 'toy-box', 'deep=12', 'tall=12');
    expect(made.mechanism).toBe('toy-box-1');
    expect((await ok('prove', at('toy.json'), '--steps', '4')).verdict).toBe('clear');
  });
});

test('every drive may be named; what is out of its range is taken as the hand would, and said', async () => {
  await ok('new', at('drive.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=30', 'height=20');
  const drive = { id: 'open', unit: 'deg', from: 0, to: 180, rest: 0 };
  expect((await ok('pose', at('drive.json'), '--drive', 'open=70')).drives).toEqual([{ ...drive, value: 70 }]);
  expect(await ok('pose', at('drive.json'), '--open', '10', '--drive', 'open=70')).toEqual(
    await ok('pose', at('drive.json'), '--open', '70'),
  );
  const past = await ok('pose', at('drive.json'), '--drive', 'open=200');
  expect(past.drives).toEqual([{ ...drive, value: 180 }]);
  expect(past.clamped).toEqual([{ drive: 'open', asked: 200, from: 0, to: 180 }]);
  expect((await ok('pose', at('drive.json'), '--open', '180')).clamped).toBeUndefined();
  const proof = await ok('prove', at('drive.json'), '--steps', '6');
  expect(proof.travels).toEqual({ open: proof.travel });
});

test('remedies of one finding are looked for by its id; an unknown id is named with those there are', async () => {
  await ok('new', at('seek.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=60', 'height=50');
  const { findings } = JSON.parse((await run(['prove', at('seek.json'), '--steps', '6'])).out!);
  const { code, out } = await run(['prove', at('seek.json'), '--steps', '6', '--seek', findings[0].id]);
  expect(code).toBe(3);
  expect(JSON.parse(out!).findings[0].remedies).toEqual(findings[0].remedies);
  const unknown = await run(['prove', at('seek.json'), '--steps', '6', '--seek', 'web nothing']);
  expect(unknown.code).toBe(2);
  expect(unknown.error).toMatch(/--seek web nothing: the proof has no such finding; it has "overhang step-fold-1/);
});

test('a design that is blocked ends with 3, and says why on stdout', async () => {
  await ok('new', at('bad.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=60', 'height=50');
  const { code, out } = await run(['prove', at('bad.json'), '--steps', '6']);
  expect(code).toBe(3);
  const proof = JSON.parse(out!);
  expect(proof.verdict).toBe('blocked');
  expect(proof.findings[0]).toMatchObject({
    rule: 'overhang',
    severity: 'blocks',
    mechanism: 'step-fold-1',
    unit: 'mm',
    measured: expect.closeTo(10, 6),
    remedy: { parameter: 'depth', value: 50 },
  });
});

test('a pose past the end of the travel is the last one, with 3', async () => {
  await ok('new', at('taut.json'), '--card', '200x100', '--kind', 'v-fold', 'lean=60', 'fold=40');
  const { code, out } = await run(['pose', at('taut.json'), '--open', '150']);
  expect(code).toBe(3);
  expect(JSON.parse(out!)).toMatchObject({
    drives: [{ id: 'open', unit: 'deg', from: 0, to: 180, rest: 0, value: expect.closeTo(95.84, 1) }],
    stopped: {
      reason: 'taut',
      asked: 150,
      says: expect.stringMatching(/^It is pulled taut at 95\.8 of 150\.0 degrees/),
    },
  });
});

test('fold turns the first crease and solves the rest', async () => {
  writeFileSync(at('v.fold'), foldText(vertexPattern([70, 100, 110, 80], '+-++')));
  const half = await ok('fold', at('v.fold'), '--fraction', '0.5');
  expect(half.drives[0]).toMatchObject({ id: 'fold', value: expect.closeTo(90, 9) });
  // Closed form of the degree-4 vertex (docs/mechanisms.md): -10.311703 at 90.
  expect(half.creases.find((c: { id: string }) => c.id === 'pattern.e1').fold_deg).toBeCloseTo(-10.311703, 6);
  writeFileSync(at('grid.fold'), foldText(parallelogramGrid(8, 8)));
  const closed = await ok('fold', at('grid.fold'));
  expect(closed.residual_mm).toBeLessThan(1e-6);
  closed.facets.forEach((f: { points: number[][] }) =>
    f.points.forEach((p) => expect(Math.abs(p[2])).toBeLessThan(1e-6)),
  );
});

test.each<[string, string[], RegExp]>([
  ['no verb', [], /usage/],
  ['an unknown verb', ['zap'], /not a verb/],
  ['a prototype verb', ['constructor'], /not a verb/],
  ['a missing file', ['pose', '/nowhere/x.json', '--open', '3'], /cannot be read/],
  ['a folder', ['pose', dir, '--open', '3'], /folder/],
  ['no opening', ['pose', at('card.json')], /--open is missing/],
  ['an opening past flat', ['pose', at('card.json'), '--open', '181'], /0 \(closed\) to 180/],
  ['an opening in words', ['pose', at('card.json'), '--open', 'wide'], /degrees/],
  ['an unknown drive', ['pose', at('card.json'), '--open', '3', '--drive', 'pull=3'], /no drive "pull"; it has open/],
  ['a drive without a value', ['pose', at('card.json'), '--drive', 'open'], /--drive open: /],
  ['a drive that is no number', ['pose', at('card.json'), '--drive', 'open=far'], /--drive open=far: /],
  ['an unknown option', ['prove', at('card.json'), '--bad'], /options here/],
  ['too many steps', ['prove', at('card.json'), '--steps', '1e9'], /whole number/],
  ['no kind', ['new', at('n.json'), '--card', '200x100'], /--kind is missing/],
  ['an unknown kind', ['new', at('n.json'), '--card', '200x100', '--kind', 'nope'], /one of/],
  ['a bad card', ['new', at('n.json'), '--card', 'big', '--kind', 'v-fold'], /GUTTERxREACH/],
  ['a negative length', ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=-3'], /at least/],
  ['a wrong unit', ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=3kg'], /unit/],
  ['a huge number', ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=1e999'], /length/],
  [
    'an unknown key',
    ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', '__proto__=3'],
    /known are depth/,
  ],
  ['a key twice', ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', 'depth=3', 'depth=4'], /twice/],
  [
    'a crease that is not there',
    ['new', at('n.json'), '--card', '200x100', '--kind', 'step-fold', '--on', 'gone.base'],
    /gone/,
  ],
  ['an unknown format', ['pattern', at('card.json'), '--as', 'png', '--out', at('x')], /one of/],
  [
    'a place that cannot be written',
    ['pattern', at('card.json'), '--as', 'svg', '--out', '/nowhere/x.svg'],
    /cannot be written/,
  ],
  ['an unknown piece', ['pattern', at('card.json'), '--as', 'svg', '--out', at('x'), '--piece', 'gone'], /pieces are/],
  ['a design as a pattern', ['fold', at('card.json')], /not a flat crease pattern/],
  ['a fraction past the end', ['fold', at('v.fold'), '--fraction', '2'], /from 0 to 1/],
])('%s is refused in one line', async (_, args, pattern) => expect(await refused(...args)).toMatch(pattern));

test('a refused add leaves the file as it was', async () => {
  const before = readFileSync(at('card.json'), 'utf8');
  await refused('new', at('card.json'), '--add', '--kind', 'step-fold', '--on', 'step-fold-1.nowhere');
  expect(readFileSync(at('card.json'), 'utf8')).toBe(before);
});

describe('faults', () => {
  test('one of the program ends with 1, in one line; a trace only on request', () => {
    const fault = new TypeError('Cannot read properties of undefined\nmore');
    expect(failure(fault, false)).toEqual({
      code: 1,
      text: 'rhabdoplex: internal fault: Cannot read properties of undefined; run it again with --trace and send that',
    });
    expect(failure(fault, true).text).toMatch(/internal fault.*\n.*TypeError/);
  });
  test('a place that cannot be written is the caller’s: 2', () => {
    const full = Object.assign(new Error('ENOSPC: no space left on device, write'), { code: 'ENOSPC' });
    expect(failure(full, false)).toEqual({ code: 2, text: 'rhabdoplex: ENOSPC: no space left on device, write' });
  });
});

describe('a base that is added to the list', () => {
  withToyBase();
  test('is begun by its own numbers or by the size of a card, stood on, and kept apart from other bases', async () => {
    const made = await ok('new', at('eared.json'), '--kind', 'toy-ear', 'far=70', 'ear=12');
    expect(made).toMatchObject({ mechanism: 'card', creases: ['card.gutter'], facets: ['leafA', 'leafB'] });
    expect(JSON.parse(readFileSync(at('eared.json'), 'utf8')).card).toMatchObject({
      construction: 'toy-ear',
      parameters: { far: 70, ear: 12 },
    });
    await ok('new', at('eared.json'), '--add', '--kind', 'step-fold', 'depth=10', 'height=10', 'width=20');
    await ok('new', at('eared.json'), '--add', '--kind', 'toy-ear', 'ear=9');
    expect((await ok('pose', at('eared.json'), '--open', '90')).measures.card).toEqual({ ear_mm: 9 });
    expect(await refused('new', at('eared.json'), '--add', '--kind', 'fold-card', 'liner=4')).toMatch(/is a toy-ear/);
    await ok('new', at('sized.json'), '--card', '120x66', '--kind', 'toy-ear');
    expect(JSON.parse(readFileSync(at('sized.json'), 'utf8')).card.parameters).toEqual({ far: 66, ear: 10 });
  });
});

test('what is drawn on the outside is written apart, and refused where there is none', async () => {
  await ok('new', at('plain.json'), '--card', '100x80', '--kind', 'fold-card');
  const out = at('out.svg');
  expect(await refused('pattern', at('plain.json'), '--as', 'svg', '--side', 'outside', '--out', out)).toMatch(
    /nothing is drawn on the outside/,
  );
  expect(await refused('pattern', at('plain.json'), '--as', 'svg', '--side', 'back', '--out', out)).toMatch(/--side/);
  const design = JSON.parse(readFileSync(at('plain.json'), 'utf8'));
  const layer = {
    facet: 'leafB',
    shape: { circle: 20 },
    as: 'drawn',
    side: 'outside',
    from: { x: 'middle', y: 'middle' },
  };
  const rest = { id: 'a', name: 'Ring', x: 0, y: 0, turnDeg: 0, width: null, height: null, foamMm: 0, foamInsetMm: 3 };
  const drawn = { ...design, layers: [{ ...layer, ...rest, stock: design.stocks[0].id }] };
  writeFileSync(at('drawn.json'), JSON.stringify(drawn));
  await ok('pattern', at('drawn.json'), '--as', 'svg', '--side', 'outside', '--out', out);
  const svg = readFileSync(out, 'utf8');
  expect(svg).toContain('data-role="mark"');
  expect(svg).not.toContain('data-role="cut"');
});

test('it runs from any folder: its fonts are found beside it', () => {
  const { status, stdout } = spawnSync(process.execPath, [resolve('scripts/rhabdoplex.mjs'), 'kinds'], {
    cwd: dir,
    encoding: 'utf8',
  });
  expect(status).toBe(0);
  expect(JSON.parse(stdout)[0].id).toBe('fold-card');
});
