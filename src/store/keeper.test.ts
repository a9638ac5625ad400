/** Writing at once, going on after failures, and tabs that part; on fake-indexeddb. */
import 'fake-indexeddb/auto';
import { blankDesign, type Design } from '@/core/document/design';
import type { Json } from '@/core/document/delta';
import { seeded } from '@/core/linkage/random';
import { database, NO_HISTORY, withDatabase, type Move } from './database';
import { bounded, moved, MOST_STEPS_BACK, statesOf } from './history';
import { Keeper, type KeeperEvents, type Saving } from './keeper';
import { loadProject } from './load';
import { addProject, emptyShelf, setRemoved } from './projects';

const first = blankDesign('First');
const named = (name: string): Design => ({ ...first, name });
const opened = async (id: string) => {
  const found = await loadProject(id);
  if (!found.ok) throw new Error(found.why);
  return found;
};
const keepers: Keeper[] = [];
async function keeperOf(id: string, events: Partial<KeeperEvents> = {}): Promise<Keeper> {
  const { project, history } = await opened(id);
  const keeper = new Keeper(project, history, {
    onSaving: () => undefined,
    onParted: () => undefined,
    onRemoved: () => undefined,
    ...events,
  });
  keepers.push(keeper);
  return keeper;
}
const soon = (): Promise<void> => new Promise((done) => setTimeout(done, 30));
beforeAll(() => database());
afterEach(async () => {
  await Promise.all(keepers.splice(0).map((k) => k.close()));
  jest.restoreAllMocks();
});

test('a change is in the database without any wait: nothing more of the page is needed', async () => {
  const { id } = await addProject(first);
  const keeper = await keeperOf(id);
  keeper.record(named('Second'), 'edit', 'name');
  expect((await opened(id)).project.design.name).toBe('Second');
});

test('300 random edits, undos and redos: every reload finds the state and both sides of the history', async () => {
  const { id } = await addProject(first);
  const random = seeded(3);
  let keeper = await keeperOf(id);
  const [past, future]: [Design[], Design[]] = [[], []];
  let now = first;
  for (let k = 0; k < 300; k++) {
    const dice = random();
    const move: Move = dice < 0.5 ? 'edit' : dice < 0.8 ? 'undo' : 'redo';
    if (move === 'edit') {
      past.push(now);
      future.length = 0;
      now = { ...now, name: `n${k}`, notes: 'x'.repeat(k % 7) };
    } else {
      const [from, to] = move === 'undo' ? [past, future] : [future, past];
      const next = from.pop();
      if (!next) continue;
      to.push(now);
      now = next;
    }
    keeper.record(now, move, `to ${now.name}`);
    if (k % 29 === 0) await keeper.flush();
    if (k % 41 === 0) {
      await soon();
      const { project, history } = await opened(id);
      const bytes = (states: readonly { design: Json }[]): string[] => states.map((s) => JSON.stringify(s.design));
      expect(JSON.stringify(project.design)).toBe(JSON.stringify(now));
      const mine = (states: readonly Design[]): string[] => states.map((d) => JSON.stringify(d));
      expect(bytes(statesOf(project.design as unknown as Json, history.past))).toEqual(mine(past));
      expect(bytes(statesOf(project.design as unknown as Json, history.future))).toEqual(mine(future));
      // Every other time another page goes on from there.
      if (k % 82 === 0) {
        await keeper.close();
        keeper = await keeperOf(id);
      }
    }
  }
});

test('taken into the record, changes are no longer kept apart', async () => {
  const { id } = await addProject(first);
  const keeper = await keeperOf(id);
  for (const name of ['a', 'b', 'c']) keeper.record(named(name), 'edit', name);
  await keeper.flush();
  expect(await withDatabase((db) => db.count('changes', IDBKeyRange.bound([id, 0], [id, Infinity])))).toBe(0);
  expect(await opened(id)).toMatchObject({ project: { revision: 3, design: { name: 'c' } } });
});

test('a page that ended before its changes were taken in: the next goes on from them and has not parted', async () => {
  const { id } = await addProject(first);
  const ended = await keeperOf(id);
  ended.record(named('Second'), 'edit', 'name');
  await soon();
  ended.leave();
  let parted = 0;
  const next = await keeperOf(id, { onParted: () => parted++ });
  next.record(named('Third'), 'edit', 'name');
  await next.flush();
  expect(parted).toBe(0);
  expect(next.saving).toBe('saved');
  expect(await opened(id)).toMatchObject({ project: { revision: 2, recordRevision: 2, design: { name: 'Third' } } });
  expect((await opened(id)).history.past.map((s) => s.label)).toEqual(['', 'name']);
});

test('a page told to leave writes no more: the one that took over finds the record as it read it', async () => {
  const { id } = await addProject(first);
  const old = await keeperOf(id);
  old.record(named('Second'), 'edit', '');
  await soon();
  let parted = 0;
  const taker = await keeperOf(id, { onParted: () => parted++ });
  old.leave();
  await old.flush();
  taker.record(named('Third'), 'edit', '');
  await taker.flush();
  expect(parted).toBe(0);
  expect((await opened(id)).project.design.name).toBe('Third');
});

test('undo history that leads nowhere does not keep a card from being opened', async () => {
  const { id } = await addProject(first);
  const keeper = await keeperOf(id);
  keeper.record(named('Second'), 'edit', '');
  await keeper.close();
  for (const past of [[{ label: '', delta: { s: [0, 1, []] } }], 'none', [{}]]) {
    const broken = { id, revision: 1, past, future: [], label: '', cut: false };
    await withDatabase((db) => db.put('histories', broken as never));
    expect(await opened(id)).toMatchObject({
      project: { design: { name: 'Second' } },
      history: { past: [], cut: true },
    });
  }
});

describe('two pages on one card', () => {
  test.each(['before', 'after'])(
    'the second writer is told, and the first one’s card stands (%s it is taken in)',
    async (when) => {
      const { id } = await addProject(first);
      let parted = 0;
      const a = await keeperOf(id);
      const b = await keeperOf(id, { onParted: () => parted++ });
      a.record(named('from a'), 'edit', '');
      if (when === 'after') await a.flush();
      await soon();
      b.record(named('from b'), 'edit', '');
      await soon();
      expect(parted).toBe(1);
      await b.flush();
      expect((await opened(id)).project.design.name).toBe('from a');
    },
  );
  test('a card that is removed meanwhile does not come back by a change, and the change is kept with it', async () => {
    const { id } = await addProject(first);
    let removed = 0;
    const keeper = await keeperOf(id, { onRemoved: () => removed++ });
    await setRemoved(id, true);
    keeper.record(named('later'), 'edit', '');
    await soon();
    expect([removed, keeper.saving]).toEqual([1, 'saved']);
    expect((await opened(id)).removed).toBe(true);
    await setRemoved(id, false);
    expect(await opened(id)).toMatchObject({ removed: false, project: { design: { name: 'later' } } });
  });
});

test.each([
  ['QuotaExceededError', 'full'],
  ['UnknownError', 'failing'],
] as const)('%s: said as "%s", kept here, and stored once there is room', async (name, kind) => {
  const { id } = await addProject(first);
  const said: Saving[] = [];
  const keeper = await keeperOf(id, { onSaving: (s) => said.push(s) });
  const broken = jest.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
    throw new DOMException('', name);
  });
  expect(() => keeper.record(named('while full'), 'edit', '')).not.toThrow();
  await soon();
  expect(said.at(-1)).toBe(kind);
  keeper.record(named('and more'), 'edit', '');
  await soon();
  expect(keeper.saving).toBe(kind);
  broken.mockRestore();
  await keeper.flush();
  expect(keeper.saving).toBe('saved');
  expect((await opened(id)).project.design.name).toBe('and more');
});

test('a card whose shelf was emptied elsewhere is not called saved, and writes nothing any more', async () => {
  const { id } = await addProject(first);
  const keeper = await keeperOf(id);
  await setRemoved(id, true);
  await emptyShelf();
  keeper.record(named('after'), 'edit', 'name');
  await soon();
  expect(keeper.saving).toBe('gone');
  keeper.record(named('and again'), 'edit', 'name');
  await keeper.flush();
  expect(keeper.saving).toBe('gone');
  const left = await withDatabase((db) => Promise.all([db.get('projects', id), db.getAll('changes')]));
  expect([left[0], left[1].filter((c) => c.id === id)]).toEqual([undefined, []]);
});

test('a card that is closed while nothing can be stored is held by the page as it is, and stored later', async () => {
  const { id } = await addProject(first);
  const keeper = await keeperOf(id);
  const broken = jest.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
    throw new DOMException('', 'QuotaExceededError');
  });
  keeper.record(named('while full'), 'edit', '');
  await soon();
  await keeper.close();
  expect((await opened(id)).project.design.name).toBe('while full');
  broken.mockRestore();
  const again = await keeperOf(id);
  await again.flush();
  expect(again.saving).toBe('saved');
  const { project } = await opened(id);
  expect([project.design.name, project.recordRevision]).toEqual(['while full', 1]);
});

describe('history', () => {
  const state = (k: number): Json => ({ name: `n${k}`, size: 5 });
  test('the 501st change lets the oldest go, and says so', () => {
    let h = NO_HISTORY;
    for (let k = 0; k < MOST_STEPS_BACK; k++) h = moved(h, 'edit', state(k), state(k + 1), `${k + 1}`);
    expect([h.past.length, h.cut]).toEqual([MOST_STEPS_BACK, false]);
    h = moved(h, 'edit', state(MOST_STEPS_BACK), state(MOST_STEPS_BACK + 1), 'last');
    expect([h.past.length, h.cut]).toEqual([MOST_STEPS_BACK, true]);
    expect(statesOf(state(MOST_STEPS_BACK + 1), h.past)[0].design).toEqual(state(1));
  });
  test('what is kept over a reload is bounded: the nearest steps stay', () => {
    let h = NO_HISTORY;
    const heavy = (k: number): Json => ({ notes: `${k}`.repeat(300_000) });
    for (let k = 0; k < 9; k++) h = moved(h, 'edit', heavy(k), heavy(k + 1), `${k + 1}`);
    const kept = bounded(h);
    expect(kept.cut).toBe(true);
    expect(kept.past.length).toBeGreaterThan(3);
    expect(kept.past.length).toBeLessThan(9);
    expect(JSON.stringify(kept).length).toBeLessThan(2_100_000);
    expect(kept.past.at(-1)).toBe(h.past.at(-1));
  });
});
