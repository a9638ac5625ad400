/** Projects in the browser's own database. Everything read back goes through the same door as a file. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Design } from '@/core/document/design';
import { checkDesign } from '@/core/document/schema';

export interface StoredProject {
  readonly id: string;
  readonly updated: number;
  readonly design: Design;
}
interface Schema extends DBSchema {
  projects: { key: string; value: { id: string; updated: number; design: unknown } };
  notes: { key: string; value: string };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;
const database = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>('rhabdoplex', 1, {
    upgrade(db) {
      db.createObjectStore('projects', { keyPath: 'id' });
      db.createObjectStore('notes');
    },
    terminated() {
      opened = null;
    },
  }));

/** Newest first. A record that no longer reads is left where it is and counted, never dropped. */
export async function listProjects(): Promise<{ projects: StoredProject[]; unreadable: number }> {
  const records = await (await database()).getAll('projects');
  const projects: StoredProject[] = [];
  for (const r of records) {
    const read = checkDesign(r.design);
    if (read.ok) projects.push({ id: r.id, updated: r.updated, design: read.design });
  }
  return { projects: projects.sort((a, b) => b.updated - a.updated), unreadable: records.length - projects.length };
}

export async function loadProject(
  id: string,
): Promise<{ ok: true; project: StoredProject } | { ok: false; why: string }> {
  const record = await (await database()).get('projects', id);
  if (!record)
    return {
      ok: false,
      why: 'This card is not in this browser. It may have been removed, or belongs to another browser.',
    };
  const read = checkDesign(record.design);
  return read.ok
    ? { ok: true, project: { id, updated: record.updated, design: read.design } }
    : { ok: false, why: `This card does not read: ${read.why}. Nothing was changed.` };
}

/** One transaction: either all of it is stored or the old record stays. Throws when the disk is full. */
export async function saveProject(project: StoredProject): Promise<void> {
  await (await database()).put('projects', { ...project });
}
export async function deleteProject(id: string): Promise<void> {
  await (await database()).delete('projects', id);
}
/** True for the first caller only: adding a key that is there fails as a whole. */
export async function claimOnce(key: string): Promise<boolean> {
  try {
    await (await database()).add('notes', 'done', key);
    return true;
  } catch {
    return false;
  }
}

export const newProjectId = (): string => crypto.randomUUID();
