/** Cards in the browser's database, played by fake-indexeddb (an independent implementation of the standard). */
import 'fake-indexeddb/auto';
import { deltaOf, type Json } from '@/core/document/delta';
import { blankDesign, type Design } from '@/core/document/design';
import { addMechanism } from '@/core/document/standing';
import { claimOnce, isClaimed, storeOnce, withDatabase } from './database';
import { loadProject } from './load';
import {
  addProject,
  addProjectOnce,
  emptyShelf,
  listProjects,
  newProjectId,
  RefusedError,
  setRemoved,
  type StoredProject,
} from './projects';
import { announce } from './tabs';
import { StoreTrouble, TROUBLE_WORDS, troubleOf } from './trouble';

// What is told to other tabs is looked at.
jest.mock('./tabs', () => ({ ...jest.requireActual<object>('./tabs'), announce: jest.fn() }));

const put = (value: object): Promise<unknown> => withDatabase((db) => db.put('projects', value as never));
const names = async (): Promise<string[]> => (await listProjects()).projects.map((p) => p.design.name);
const loaded = async (id: string): Promise<StoredProject> => {
  const found = await loadProject(id);
  if (!found.ok) throw new Error(found.why);
  return found.project;
};
afterEach(async () => {
  for (const store of ['projects', 'changes', 'histories'] as const) await withDatabase((db) => db.clear(store));
});

test('cards come back as they were stored, newest first', async () => {
  const first = blankDesign('First');
  const { id } = await addProject(first, 1);
  await addProject(blankDesign('Second', 150, 100), 2);
  expect(await names()).toEqual(['Second', 'First']);
  expect(JSON.stringify((await loaded(id)).design)).toBe(JSON.stringify(first));
});

test('a database of the first version is brought up, its cards with it', async () => {
  await put({ id: 'old', updated: 5, design: blankDesign('Old') });
  expect((await loaded('old')).revision).toBe(0);
});

describe('one door: what could not be read back is not stored, and the place is named', () => {
  const stacked = (count: number): Design => {
    let d = blankDesign('Many');
    for (let k = 0; k < count; k++) ({ design: d } = addMechanism(d, 'step-fold'));
    return d;
  };
  const template = (over: object): Design => {
    const d = blankDesign('Template');
    const lines = [{ id: 'a', group: 'g', closed: false, points: [[0, 0] as const, [10, 0] as const] }];
    const groups = [{ key: 'g', layer: '', colour: '', dashed: false, role: 'cut' as const }];
    const plain = { name: 't', scale: 1, mended: false, lead: null, picked: {}, lines, groups };
    return { ...d, card: { ...d.card, template: { ...plain, ...over } } };
  };
  const group = (key: string) => ({ key, layer: '', colour: '', dashed: false, role: 'cut' });
  test.each<[string, Design, RegExp | null]>([
    ['400 mechanisms', stacked(400), null],
    ['the 401st mechanism', stacked(401), /mechanisms/],
    ['a name of 120 letters', blankDesign('n'.repeat(120)), null],
    ['a name of 121', blankDesign('n'.repeat(121)), /name/],
    ['a group of 300 letters', template({ groups: [group('g'.repeat(300))] }), null],
    ['a group of 301', template({ groups: [group('g'.repeat(301))] }), /groups\[0\]\.key/],
    ['500 groups', template({ groups: Array.from({ length: 500 }, (_, k) => group(`g${k}`)) }), null],
    ['501 groups', template({ groups: Array.from({ length: 501 }, (_, k) => group(`g${k}`)) }), /groups/],
    [
      'a line at 1e6 mm',
      template({
        lines: [
          {
            id: 'a',
            group: 'g',
            closed: false,
            points: [
              [0, 0],
              [1e6, 0],
            ],
          },
        ],
      }),
      /lines\[0\]\.points\[1\]/,
    ],
  ])('%s', async (_, design, why) => {
    if (why === null) return expect((await loaded((await addProject(design)).id)).design).toEqual(design);
    const refused = await addProject(design).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(RefusedError);
    expect((refused as Error).message).toMatch(why);
    expect(await names()).toEqual([]);
  });
});

describe('a record that does not read', () => {
  const good = addMechanism(blankDesign('Broken'), 'step-fold').design;
  const broken = { ...good, mechanisms: [...good.mechanisms, { id: 'x', kind: 'unheard-of' }] };
  test('is shown by its name, kept as it is, and offered without the part', async () => {
    await put({ id: 'b', updated: 9, design: broken });
    const { projects, unread } = await listProjects();
    expect(projects).toEqual([]);
    expect(unread).toHaveLength(1);
    expect(unread[0]).toMatchObject({ id: 'b', name: 'Broken', why: expect.stringMatching(/mechanisms\[1\]/) });
    expect(unread[0].raw).toEqual(broken);
    expect(unread[0].repaired?.design).toEqual(good);
    expect(unread[0].repaired?.leftOut).toHaveLength(1);
    const opened = await loadProject('b');
    expect(opened).toMatchObject({ ok: false, why: expect.stringMatching(/Nothing was changed/) });
    await setRemoved('b', true);
    const { unread: left, shelf } = await listProjects();
    expect([left, shelf.map((c) => c.name)]).toEqual([[], ['Broken']]);
    await setRemoved('b', false);
    expect((await listProjects()).unread[0].raw).toEqual(broken);
  });
  test.each([
    ['a newer version', { rhabdoplex: 99, name: 'Tomorrow' }, 'Tomorrow'],
    ['no design at all', 17, 'A card without a name'],
    ['nothing', undefined, 'A card without a name'],
    ['a name that is none', { rhabdoplex: 1, name: { a: 1 } }, 'A card without a name'],
  ])('%s: named, not repaired', async (_, design, name) => {
    await put({ id: 'c', updated: Number.NaN, design });
    const [card] = (await listProjects()).unread;
    expect([card.name, card.repaired]).toEqual([name, null]);
  });
});

test('a card that contains itself, or is nested without end, hides no other', async () => {
  await addProject(blankDesign('Whole'));
  const ring: Record<string, unknown> = { rhabdoplex: 2, name: 'Ring' };
  ring.card = ring;
  const deep: Record<string, unknown> = { rhabdoplex: 2, name: 'Deep' };
  for (let k = 0, at = deep; k < 300; k++) at = at.in = {} as Record<string, unknown>;
  await put({ id: 'ring', updated: 1, design: ring });
  await put({ id: 'deep', updated: 2, design: deep });
  const { projects, unread } = await listProjects();
  expect(projects.map((p) => p.design.name)).toEqual(['Whole']);
  expect(unread.map((u) => [u.name, u.repaired]).sort()).toEqual([['Deep', null], ['Ring', null]]); // prettier-ignore
  expect(unread.every((u) => u.why.includes('contains itself'))).toBe(true);
  expect((await loadProject('ring')).ok).toBe(false);
});

test('emptying the shelf tells other tabs which cards are gone', async () => {
  const { id } = await addProject(blankDesign('Gone'));
  await addProject(blankDesign('Stays'));
  await setRemoved(id, true);
  jest.mocked(announce).mockClear();
  await emptyShelf();
  expect(jest.mocked(announce).mock.calls.flat()).toEqual([{ kind: 'gone', id }, { kind: 'listed' }]);
});

test('a removed card lies on the shelf until that is emptied, and comes back as it was', async () => {
  const design = blankDesign('Gone');
  const { id } = await addProject(design);
  const { id: stays } = await addProject(blankDesign('Stays'));
  await setRemoved(id, true);
  expect(await names()).toEqual(['Stays']);
  expect((await listProjects()).shelf.map((c) => c.name)).toEqual(['Gone']);
  await setRemoved(id, false);
  expect((await loaded(id)).design).toEqual(design);
  await setRemoved(id, true);
  await emptyShelf();
  expect((await listProjects()).shelf).toEqual([]);
  expect((await loadProject(id)).ok).toBe(false);
  expect((await loaded(stays)).design.name).toBe('Stays');
});

test('changes that were written but not yet taken in are made when the card is read; a gap ends them', async () => {
  const design = blankDesign('A');
  const { id } = await addProject(design);
  let last: Design = design;
  const change = async (revision: number, name: string): Promise<void> => {
    const next = { ...last, name };
    const delta = deltaOf(last as unknown as Json, next as unknown as Json)!;
    last = next;
    await withDatabase((db) => db.put('changes', { id, revision, at: 1, label: name, move: 'edit', delta }));
  };
  await change(1, 'B');
  await change(2, 'C');
  await change(4, 'E');
  expect((await loaded(id)).design.name).toBe('C');
  expect(await names()).toEqual(['C']);
  const found = await loadProject(id);
  expect(found.ok && found.history.past.map((s) => s.label)).toEqual(['', 'B']);
});

test('without a database a card lives in the page, and the reason is told', async () => {
  const kept = globalThis.indexedDB;
  const { database } = await import('./database');
  (await database()).close();
  jest.resetModules();
  Object.defineProperty(globalThis, 'indexedDB', { value: undefined, configurable: true });
  try {
    const [projects, load] = [await import('./projects'), await import('./load')];
    const { id, trouble } = await projects.addProject(blankDesign('Afloat'));
    expect(trouble).toMatchObject({ kind: 'none', message: expect.stringMatching(/keeps no data/) });
    expect(await load.loadProject(id)).toMatchObject({ ok: true, project: { design: { name: 'Afloat' } } });
  } finally {
    Object.defineProperty(globalThis, 'indexedDB', { value: kept, configurable: true });
  }
});

test('each trouble has words of its own', () => {
  const of = (name: string): string => troubleOf(new DOMException('', name)).kind;
  expect(['QuotaExceededError', 'VersionError', 'SecurityError', 'UnknownError'].map(of)).toEqual([
    'full',
    'newer',
    'none',
    'failing',
  ]);
  expect(new Set(Object.values(TROUBLE_WORDS)).size).toBe(Object.keys(TROUBLE_WORDS).length);
  expect(troubleOf(new StoreTrouble('blocked')).kind).toBe('blocked');
});

test('only the first claim of a thing is granted', async () => {
  expect(await Promise.all([claimOnce('demo'), claimOnce('demo')])).toEqual([true, false]);
});

test('a card that is to be there once is stored once, by whoever comes first, and stays removed', async () => {
  const dome = blankDesign('Dome');
  expect(await Promise.all([1, 2, 3].map((k) => addProjectOnce('demo: Dome', dome, k)))).toEqual([true, false, false]);
  expect(await names()).toEqual(['Dome']);
  await withDatabase((db) => db.clear('projects'));
  expect(await addProjectOnce('demo: Dome', dome, 4)).toBe(false);
  expect(await names()).toEqual([]);
});

test('a card that could not be stored is not noted as brought in', async () => {
  await put({ id: 'there', updated: 1, revision: 0, design: blankDesign('There') });
  const again = { id: 'there', updated: 2, revision: 0, design: blankDesign('Other') };
  expect(await storeOnce('demo: Other', again)).toBe(false);
  expect(await isClaimed('demo: Other')).toBe(false);
  expect(await names()).toEqual(['There']);
});

test('ids do not repeat', () => {
  expect(new Set(Array.from({ length: 50 }, newProjectId)).size).toBe(50);
});
