/** Kept pictures of a list of cards, in a database played by fake-indexeddb; poses are made by the engine itself. */
import 'fake-indexeddb/auto';
import { blankDesign } from '@/core/document/design';
import { openTo } from '@/core/drives';
import { addMechanism } from '@/core/document/standing';
import { editing } from '@/workers/jobs/editing';
import { glanceKey, withDatabase } from './database';
import { glanceAt, LONGEST_GLANCE } from './glances';
import { addProject, emptyShelf, setRemoved, type StoredProject } from './projects';

const asked: string[] = [];
jest.mock('@/workers/client', () => ({
  engine: () =>
    new Proxy(editing, {
      get: (jobs, job: keyof typeof editing) => {
        asked.push(job);
        return jobs[job];
      },
    }),
}));
const made = (): number => asked.filter((job) => job === 'glance').length;
beforeEach(() => {
  asked.length = 0;
});

const { design } = addMechanism(blankDesign('Glanced at', 150, 100), 'step-fold');
async function card(): Promise<StoredProject> {
  const { id } = await addProject(design, 5);
  return { id, updated: 5, revision: 0, recordRevision: 0, design };
}
const note = (id: string): Promise<string | undefined> => withDatabase((db) => db.get('notes', glanceKey(id)));
const write = (id: string, text: string) => withDatabase((db) => db.put('notes', text, glanceKey(id)));

test('what is kept is what is made, and is not made again', async () => {
  const project = await card();
  const first = await glanceAt(project);
  const second = await glanceAt(project);
  expect(made()).toBe(1);
  expect(second).toEqual(first);
  expect(first).toEqual(await editing.glance(design, openTo(100)));
});

test('another revision, or another day of it, is made anew', async () => {
  const project = await card();
  await glanceAt(project);
  await glanceAt({ ...project, revision: 1 });
  await glanceAt({ ...project, revision: 1, updated: 6 });
  expect(made()).toBe(3);
  await glanceAt({ ...project, revision: 1, updated: 6 });
  expect(made()).toBe(3);
});

test.each([
  ['no JSON', () => '{'],
  ['another shape', () => '{"picture": 1}'],
  ['a fill that is no colour', (good: string) => good.replace(/"fill":"[^"]*"/, '"fill":"url(//elsewhere)"')],
  ['a coordinate that is none', (good: string) => good.replace(/"x":[^,]*/, '"x":"1"')],
  ['more than is read', (good: string) => good + ' '.repeat(LONGEST_GLANCE)],
])('what lies there is not trusted: %s', async (_, spoil) => {
  const project = await card();
  const right = await glanceAt(project);
  const [mark, good] = (await note(project.id))!.split('\n');
  await write(project.id, `${mark}\n${spoil(good)}`);
  expect(await glanceAt(project)).toEqual(right);
  expect(made()).toBe(2);
});

test('it goes with its card, and a card that is in no database leaves none', async () => {
  const project = await card();
  await glanceAt(project);
  expect(await note(project.id)).toBeDefined();
  await setRemoved(project.id, true);
  await emptyShelf();
  expect(await note(project.id)).toBeUndefined();
  await glanceAt(project);
  expect(await note(project.id)).toBeUndefined();
});
