/** The command line for what is moved by hand: mounts, drives, travels. */
import { readFileSync, writeFileSync } from 'node:fs';
import { at, ok, refused } from './tests/command';

const fresh = (file: string, ...rest: string[]): Promise<any> => ok('new', at(file), '--card', '200x140', ...rest);
const mountOf = (file: string): unknown => JSON.parse(readFileSync(at(file), 'utf8')).mechanisms[0];

test('a kind goes where it naturally goes, or where it is put', async () => {
  const made = await fresh('cover.json', '--kind', 'volvelle');
  expect(made.facets).toEqual(expect.arrayContaining(['volvelle-1.disc', 'volvelle-1.front', 'volvelle-1.backing']));
  expect(mountOf('cover.json')).toMatchObject({ on: 'leafB', mount: { side: 'outside', x: 0, y: 0, turnDeg: 0 } });
  await fresh('put.json', '--kind', 'pocket', '--on', 'leafA', '--side', 'outside', '--at', '1in,-3,90');
  expect(mountOf('put.json')).toMatchObject({ on: 'leafA', mount: { side: 'outside', x: 25.4, y: -3, turnDeg: 90 } });
  // A liner lies inside: its cover is the sheet under it.
  const lined = JSON.parse(readFileSync(at('cover.json'), 'utf8'));
  lined.card.parameters.liner = 6;
  lined.mechanisms = [];
  writeFileSync(at('lined.json'), JSON.stringify(lined));
  await ok('new', at('lined.json'), '--add', '--kind', 'volvelle');
  expect(mountOf('lined.json')).toMatchObject({ on: 'coverLeafB' });
});

test('one thing is fixed on the part of another that moves, and moves with it', async () => {
  await fresh('stack.json', '--kind', 'volvelle', '--side', 'inside');
  await ok(
    'new',
    at('stack.json'),
    '--add',
    '--kind',
    'volvelle',
    '--on',
    'volvelle-1.front',
    '--side',
    'inside',
    'width=30',
    'height=30',
    'radius=10',
    'notch=3',
    'windows=[{"inner":4,"outer":8,"span":40}]',
  );
  const { drives } = await ok('pose', at('stack.json'), '--open', '90');
  expect(drives.map((d: { id: string }) => d.id)).toEqual(['open', 'volvelle-1.turn', 'volvelle-2.turn']);
});

test('drives by their end where only one ends so; round ones are counted on, others end', async () => {
  await fresh('disc.json', '--kind', 'volvelle');
  const turned = await ok('pose', at('disc.json'), '--open', '180', '--drive', 'turn=450');
  expect(turned.drives[1]).toEqual({ id: 'volvelle-1.turn', unit: 'deg', from: 0, to: 360, rest: 0, value: 90 });
  expect(turned.clamped).toBeUndefined();
  await fresh('tab.json', '--kind', 'lift-tab', 'lower=30', 'upper=40', 'pull=20');
  const pulled = await ok('pose', at('tab.json'), '--open', '180', '--drive', 'pull=99');
  expect(pulled.clamped).toEqual([{ drive: 'lift-tab-1.pull', asked: 99, from: 0, to: 20 }]);
  expect(pulled.drives[1].value).toBe(20);
  await ok('new', at('tab.json'), '--add', '--kind', 'lift-tab', '--at', '-60,0');
  expect(await refused('pose', at('tab.json'), '--open', '90', '--drive', 'pull=5')).toMatch(/no drive "pull"/);
});

test('a proof tells the travel of every drive', async () => {
  await fresh('travel.json', '--kind', 'lift-tab', 'lower=30', 'upper=40', 'pull=25');
  const { travel, travels } = await ok('prove', at('travel.json'), '--steps', '6');
  expect(travels.open).toEqual(travel);
  const hand = travels['lift-tab-1.pull'];
  expect(hand[0]).toMatchObject({ value: 0, measures: { lift_mm: 0 } });
  // Sides 30 and 40 over a base of 45.
  const x = (45 * 45 + 900 - 1600) / 90;
  expect(hand.at(-1)).toMatchObject({ value: 25, measures: { lift_mm: expect.closeTo(Math.sqrt(900 - x * x), 6) } });
});

test.each([
  ['a side that is none', ['--kind', 'volvelle', '--side', 'left'], /--side is "left".*inside or outside/],
  ['a place that is none', ['--kind', 'volvelle', '--at', '3'], /--at.*X,Y/],
  ['a place for a kind on a crease', ['--kind', 'step-fold', '--at', '3,4'], /--at is for what is fixed on a facet/],
  ['a facet that is not there', ['--kind', 'volvelle', '--on', 'leafC'], /leafC.*not a facet.*leafA/],
  ['a path that is none', ['--kind', 'track-slider', 'path={"round":3}'], /path/],
  ['a group with a part missing', ['--kind', 'volvelle', 'pivot={"x":3}'], /pivot/],
  [
    'a window with nothing in it',
    ['--kind', 'volvelle', 'windows=[{"inner":20,"outer":10,"span":30}]'],
    /outer radius/,
  ],
])('%s is refused, naming it', async (_, args, why) => {
  expect(await refused('new', at('bad.json'), '--card', '200x140', ...args)).toMatch(why);
});

test('posed in a state it is written as a solid, and its pieces as files that are read back', async () => {
  await fresh('files.json', '--kind', 'track-slider');
  await ok('pattern', at('files.json'), '--as', 'glb', '--out', at('a.glb'), '--open', '180', '--drive', 'slide=0');
  await ok('pattern', at('files.json'), '--as', 'glb', '--out', at('b.glb'), '--open', '180', '--drive', 'slide=40');
  expect(readFileSync(at('a.glb')).equals(readFileSync(at('b.glb')))).toBe(false);
  await ok('pattern', at('files.json'), '--as', 'svg', '--out', at('all.svg'));
  const svg = readFileSync(at('all.svg'), 'utf8');
  for (const piece of ['backing', 'token', 'front', 'carrier']) expect(svg).toContain(`track-slider-1.${piece}`);
  const rows = await ok('cutlist', at('files.json'));
  expect(rows.map((r: { piece: string }) => r.piece)).toEqual(expect.arrayContaining(['track-slider-1.token']));
});
