/** The browser's database, played by fake-indexeddb (an independent implementation of the standard). */
import 'fake-indexeddb/auto';
import { blankDesign } from '@/core/document/design';
import { claimOnce, deleteProject, listProjects, loadProject, newProjectId, saveProject } from './database';

const put = (value: object): Promise<void> =>
  new Promise((done, fail) => {
    const open = indexedDB.open('rhabdoplex');
    open.onsuccess = () => {
      const all = open.result.transaction('projects', 'readwrite').objectStore('projects').put(value);
      all.onsuccess = () => done();
      all.onerror = () => fail(all.error);
    };
  });

test('cards come back as they were stored, newest first', async () => {
  const first = blankDesign('First');
  const second = blankDesign('Second', 150, 100);
  await saveProject({ id: 'a', updated: 1, design: first });
  await saveProject({ id: 'b', updated: 2, design: second });
  const { projects, unreadable } = await listProjects();
  expect(projects.map((p) => p.id)).toEqual(['b', 'a']);
  expect(unreadable).toBe(0);
  const loaded = await loadProject('a');
  expect(loaded.ok && JSON.stringify(loaded.project.design)).toBe(JSON.stringify(first));
});

test('storing again replaces, removing removes', async () => {
  await saveProject({ id: 'a', updated: 3, design: blankDesign('First, later') });
  expect((await listProjects()).projects[0].design.name).toBe('First, later');
  await deleteProject('b');
  expect((await loadProject('b')).ok).toBe(false);
});

test('a record that no longer reads is counted and left where it is', async () => {
  await put({ id: 'broken', updated: 9, design: { rhabdoplex: 99 } });
  const { projects, unreadable } = await listProjects();
  expect(unreadable).toBe(1);
  expect(projects.map((p) => p.id)).not.toContain('broken');
  const loaded = await loadProject('broken');
  expect(loaded).toMatchObject({ ok: false, why: expect.stringMatching(/newer.*Nothing was changed/) });
  expect((await listProjects()).unreadable).toBe(1);
});

test('only the first claim of a thing is granted', async () => {
  expect(await Promise.all([claimOnce('demo'), claimOnce('demo')])).toEqual([true, false]);
  expect(await claimOnce('demo')).toBe(false);
});

test('ids do not repeat', () => {
  expect(new Set(Array.from({ length: 50 }, newProjectId)).size).toBe(50);
});
