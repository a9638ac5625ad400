/**
 * Cards as a list shows them, kept so that the next list draws them without solving their poses again. A kept one is
 * of one revision of its card and one state of the engine; it is no loss where it is not there.
 */
import type { Glance } from '@/core/formats/glance';
import { openTo } from '@/core/drives';
import { engine } from '@/workers/client';
import type { Answer } from '@/workers/protocol';
import { glanceKey, withDatabase } from './database';
import type { StoredProject } from './projects';

/** The opening at which cards of a list are drawn, degrees. */
const LIST_DEG = 100;
/** Longer ones are made anew each time. */
export const LONGEST_GLANCE = 300_000;

/** Changes with every change to the code that solves and draws; set where the application is built. */
const ENGINE = process.env.RHABDOPLEX_ENGINE ?? '';
const markOf = ({ revision, updated }: StoredProject): string => `${ENGINE} ${revision} ${updated}\n`;

/** How a card looks, as it was kept or made now. */
export async function glanceAt(project: StoredProject): Promise<Answer<Glance>> {
  const known = await kept(project);
  if (known) return { ok: true, value: known };
  const made = await engine('study').glance(project.design, openTo(LIST_DEG));
  if (made.ok) await keep(project, made.value);
  return made;
}

async function kept(project: StoredProject): Promise<Glance | null> {
  const text: unknown = await withDatabase((db) => db.get('notes', glanceKey(project.id))).catch(() => undefined);
  const mark = markOf(project);
  if (typeof text !== 'string' || text.length > LONGEST_GLANCE || !text.startsWith(mark)) return null;
  const read = await engine('study').keptGlance(text.slice(mark.length));
  return read.ok ? read.value : null;
}

async function keep(project: StoredProject, glance: Glance): Promise<void> {
  const text = markOf(project) + JSON.stringify(glance);
  if (text.length > LONGEST_GLANCE) return;
  await withDatabase(async (db) => {
    const tx = db.transaction(['projects', 'notes'], 'readwrite');
    // A card that has gone meanwhile, or lives in this page only, leaves nothing behind.
    if (await tx.objectStore('projects').getKey(project.id))
      await tx.objectStore('notes').put(text, glanceKey(project.id));
    await tx.done;
  }).catch(() => undefined);
}
