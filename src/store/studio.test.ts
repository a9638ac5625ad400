/** The open card's store, with the workers replaced by answers that the tests hold back. */
import type { State } from '@/core/drives';
import { addMechanism } from '@/core/document/standing';
import { blankDesign, type Design } from '@/core/document/design';
import { setParameter } from '@/core/document/fields';
import { prove, type Proof } from '@/core/proof/prove';
import type { Json } from '@/core/document/delta';
import { NO_HISTORY } from './database';
import { moved } from './history';
import { createStudio, type StudioStore } from './studio';

type OnPart = (proof: Proof, done: boolean) => void;
const asked: {
  load: Design[];
  pose: [Design, State][];
  prove: { design: Design; onPart: OnPart; end: () => void }[];
} = { load: [], pose: [], prove: [] };
const recorded: { design: Design; move: string; label: string }[] = [];
let closed = 0;

jest.mock('@/workers/client', () => ({
  ...jest.requireActual<object>('@/workers/client'),
  onWorkerNews: () => () => undefined,
  engine: () => ({
    load: async (design: Design) => {
      asked.load.push(design);
      return { ok: true, value: { design, pieces: [], facets: [], creases: [], cuts: [], glue: [], hosts: [] } };
    },
    pose: async (design: Design, state: State) => {
      asked.pose.push([design, state]);
      return {
        ok: true,
        value: {
          design,
          state,
          placed: new Float64Array(),
          foldDeg: new Float64Array(),
          measures: {},
          stopped: false,
          flexMm: 0,
        },
      };
    },
    prove: (design: Design, _steps: number, onPart: OnPart) =>
      new Promise((done) => {
        asked.prove.push({ design, onPart, end: () => done({ ok: true, value: null }) });
      }),
    rooms: async () => undefined,
  }),
}));
jest.mock('./keeper', () => ({
  Keeper: class {
    cut = false;
    record(d: Design, move: string, label: string): void {
      recorded.push({ design: d, move, label });
    }
    saving = 'saved';
    async flush(): Promise<void> {}
    leave(): void {}
    async close(): Promise<void> {
      closed++;
    }
  },
}));

const design = addMechanism(blankDesign('Test', 200, 100), 'step-fold', 'card.gutter', {
  depth: 30,
  height: 20,
}).design;
const depth =
  (mm: number) =>
  (d: Design): Design =>
    setParameter(d, 'step-fold-1', 'depth', mm);
const settle = (): Promise<void> => jest.advanceTimersByTimeAsync(1000).then(() => undefined);
let store: StudioStore;

beforeEach(() => {
  jest.useFakeTimers();
  asked.load.length = asked.pose.length = asked.prove.length = recorded.length = closed = 0;
  store = createStudio(
    { project: { id: 'id', updated: 1, revision: 0, recordRevision: 0, design }, history: NO_HISTORY },
    'build',
  );
});
afterEach(() => {
  store.close();
  jest.useRealTimers();
});

test('edits are undone and redone to the very same design, each by its name', () => {
  const { edit, undo, redo } = store.getState().actions;
  edit('depth 40', depth(40));
  edit('depth 50', depth(50));
  expect(store.getState().label).toBe('depth 50');
  const texts = [JSON.stringify(store.getState().design)];
  undo();
  expect(store.getState().label).toBe('depth 40');
  expect(store.temporal.getState().futureStates.at(-1)?.label).toBe('depth 50');
  undo();
  expect(JSON.stringify(store.getState().design)).toBe(JSON.stringify(design));
  redo();
  redo();
  expect(JSON.stringify(store.getState().design)).toBe(texts[0]);
});

test('looking about is not an edit', () => {
  const { select, scrub, light, go, showPreview, edit } = store.getState().actions;
  select('step-fold-1');
  scrub(44);
  light(['leafA']);
  go('prove');
  showPreview(depth(33)(design));
  edit('nothing', (d) => d);
  expect(store.temporal.getState().pastStates).toHaveLength(0);
  expect(store.getState().design).toBe(design);
});

test('the scrubber keeps between closed and flat', () => {
  const { scrub } = store.getState().actions;
  scrub(-5);
  expect(store.getState().state.open).toBe(0);
  scrub(500);
  expect(store.getState().state.open).toBe(180);
});

test('every change is handed on to be kept in the same moment, with what it was', () => {
  const { edit, undo, redo } = store.getState().actions;
  edit('depth 31', depth(31));
  edit('depth 32', depth(32));
  undo();
  redo();
  expect(recorded.map((r) => [r.move, r.label, r.design.mechanisms[0].parameters.depth])).toEqual([
    ['edit', 'depth 31', 31],
    ['edit', 'depth 32', 32],
    ['undo', 'depth 31', 31],
    ['redo', 'depth 32', 32],
  ]);
  store.close();
  expect(closed).toBe(1);
});

test('a change that could not be read back is not made, and the place is named', () => {
  const before = store.getState().design;
  store.getState().actions.edit('name', (d) => ({ ...d, name: 'n'.repeat(121) }));
  expect(store.getState().design).toBe(before);
  expect(store.getState().news).toEqual({ text: expect.stringMatching(/Not done: name/), bad: true });
  expect(recorded).toHaveLength(0);
});

test('a tab that does not write makes no changes and says so', () => {
  store.setState({ writes: false });
  const { edit, undo } = store.getState().actions;
  edit('depth 31', depth(31));
  undo();
  expect(store.getState().design).toBe(design);
  expect(store.getState().news).toEqual({ text: expect.stringMatching(/another tab/), bad: true });
});

test('history that was kept is there to go back and forth in', () => {
  store.close();
  const json = (mm: number): Json => depth(mm)(design) as unknown as Json;
  let history = NO_HISTORY;
  for (const mm of [31, 32, 33]) history = moved(history, 'edit', json(mm - 1), json(mm), `depth ${mm}`);
  history = moved(history, 'undo', json(33), json(32), 'depth 32');
  store = createStudio(
    { project: { id: 'id', updated: 1, revision: 4, recordRevision: 4, design: depth(32)(design) }, history },
    'build',
  );
  const now = (): unknown => store.getState().design.mechanisms[0].parameters.depth;
  const { undo, redo } = store.getState().actions;
  undo();
  expect([now(), store.getState().label]).toEqual([31, 'depth 31']);
  redo();
  redo();
  expect([now(), store.getState().label]).toEqual([33, 'depth 33']);
  undo();
  undo();
  undo();
  undo();
  expect(now()).toBe(30);
});

test('a part of an older proof never speaks of a newer design', async () => {
  store.start();
  await settle();
  const proof = prove(design, 4);
  store.getState().actions.edit('depth 40', depth(40));
  await settle();
  const [older, newer] = asked.prove;
  older.onPart(proof, true);
  expect(store.getState().proof).toBeNull();
  expect(store.getState().proving).toBe(true);
  newer.onPart(proof, false);
  expect(store.getState().proof).toBe(proof);
  expect(store.getState().proving).toBe(true);
  newer.onPart(proof, true);
  expect(store.getState().proving).toBe(false);
});

test('hovering a remedy shows its design and takes it back', async () => {
  store.start();
  await settle();
  const preview = depth(20)(design);
  store.getState().actions.showPreview(preview);
  await settle();
  expect(asked.load.at(-1)).toBe(preview);
  store.getState().actions.showPreview(null);
  await settle();
  expect(asked.load.at(-1)).toBe(design);
  expect(recorded).toHaveLength(0);
});

test('the pose follows the scrubber', async () => {
  store.start();
  store.getState().actions.scrub(77);
  await settle();
  expect(asked.pose.at(-1)).toEqual([design, { open: 77 }]);
  expect(store.getState().pose?.state.open).toBe(77);
});

test('when what is selected goes, the base is selected', () => {
  store.getState().actions.select('step-fold-1');
  store.getState().actions.edit('remove', (d) => ({ ...d, mechanisms: [] }));
  expect(store.getState().selected).toBe('card');
});
