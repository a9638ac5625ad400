/** Cards in the database. What goes in passes the same check as what comes out. */
import type { Design } from '@/core/document/design';
import { withDelta, type Json } from '@/core/document/delta';
import type { Repaired } from '@/core/document/repair';
import { checkCard } from './check';
import { glanceKey, storeOnce, withDatabase, type Change, type Database, type Kept } from './database';
import { announce } from './tabs';
import { troubleOf, type StoreTrouble } from './trouble';

export interface StoredProject {
  readonly id: string;
  readonly updated: number;
  /** Counts all changes in `design`, those too that are only in the journal. */
  readonly revision: number;
  /** Revision of the record, which the journal goes on from. */
  readonly recordRevision: number;
  readonly design: Design;
}
/** A card of the list, with its size in words. */
export interface ListedProject extends StoredProject {
  readonly size: string;
}
/** A record that does not read: it can be downloaded as it is, and opened without what stands in the way. */
export interface UnreadProject {
  readonly id: string;
  readonly name: string;
  readonly why: string;
  /** As it lies in the database. */
  readonly raw: unknown;
  readonly repaired: Repaired | null;
}
export interface RemovedProject {
  readonly id: string;
  readonly name: string;
  readonly removed: number;
}
export interface Projects {
  /** Newest first. */
  readonly projects: readonly ListedProject[];
  readonly unread: readonly UnreadProject[];
  /** Last removed first. */
  readonly shelf: readonly RemovedProject[];
}

/** Cards that could not be stored: they live as long as this page. */
const inMemory = new Map<string, StoredProject>();

/** What stands in the way of a design, said at the place; the design is not stored. */
export class RefusedError extends Error {}

/** A record with its later changes made; a change that does not fit ends it there. */
export function brought(kept: Kept, changes: readonly Change[]): { kept: Kept; taken: readonly Change[] } {
  let { revision = 0, design, updated } = kept;
  const taken: Change[] = [];
  for (const change of [...changes].sort((a, b) => a.revision - b.revision)) {
    if (change.revision <= revision) continue;
    if (change.revision !== revision + 1) break;
    try {
      design = withDelta(design as Json, change.delta);
    } catch {
      break;
    }
    ({ revision } = change);
    updated = Math.max(updated, change.at);
    taken.push(change);
  }
  return { kept: { ...kept, revision, design, updated }, taken };
}

export async function listProjects(): Promise<Projects> {
  const [records, changes] = await withDatabase(async (db) => {
    const tx = db.transaction(['projects', 'changes']);
    return Promise.all([tx.objectStore('projects').getAll(), tx.objectStore('changes').getAll()]);
  });
  const projects: ListedProject[] = [];
  for (const project of inMemory.values()) {
    const listed = await checkCard(project.design);
    if (listed.ok) projects.push({ ...project, size: listed.size });
  }
  const unread: UnreadProject[] = [];
  const shelf: RemovedProject[] = [];
  for (const record of records) {
    const own = changes.filter((c) => c.id === record.id);
    const { kept } = brought(record, own);
    if (kept.removed !== undefined) {
      shelf.push({ id: kept.id, name: nameOf(kept.design), removed: kept.removed });
      continue;
    }
    // One that cannot be checked hides no other.
    const listed = await checkCard(kept.design).catch((error: Error) => cannotBeChecked(error));
    if (listed.ok) projects.push({ ...stored(kept, record, listed.design), size: listed.size });
    else unread.push(unreadProject(kept, listed));
  }
  return {
    projects: projects.sort((a, b) => b.updated - a.updated),
    unread,
    shelf: shelf.sort((a, b) => b.removed - a.removed),
  };
}

const cannotBeChecked = ({ message }: Error) =>
  ({ ok: false, why: `It could not be checked (${message.slice(0, 120)})`, repaired: null }) as const;

export interface Added {
  readonly id: string;
  /** Why it lives in this page only, where it could not be stored; it can be opened and saved as a file. */
  readonly trouble: StoreTrouble | null;
}

/** Puts a new card among the others; it opens under its id. Throws RefusedError where it could not be read back. */
export async function addProject(design: Design, updated = Date.now(), id = newProjectId()): Promise<Added> {
  const read = await checkCard(design);
  if (!read.ok) throw new RefusedError(read.why);
  try {
    await withDatabase((db) => db.add('projects', { id, updated, revision: 0, design }));
  } catch (error) {
    keepInMemory({ id, updated, revision: 0, recordRevision: 0, design });
    return { id, trouble: troubleOf(error) };
  }
  announce({ kind: 'listed' });
  return { id, trouble: null };
}
/** Puts a card among the others the first time this is asked under a key, however that ended; true where it did. */
export async function addProjectOnce(key: string, design: Design, updated: number): Promise<boolean> {
  const read = await checkCard(design);
  if (!read.ok) throw new RefusedError(read.why);
  const added = await storeOnce(key, { id: newProjectId(), updated, revision: 0, design });
  if (added) announce({ kind: 'listed' });
  return added;
}
/** A card that lives in this page only. */
export const inPage = (id: string): StoredProject | undefined => inMemory.get(id);
/** Holds a card that cannot be stored for as long as this page lives. */
export const keepInMemory = (project: StoredProject): unknown => inMemory.set(project.id, project);
/** It is in the database now. */
export const leaveMemory = (id: string): boolean => inMemory.delete(id);
export const onlyInMemory = (id: string): boolean => inMemory.has(id);

/** Puts a card on the shelf, or takes it back; false where it is not in the database. Throws StoreTrouble. */
export async function setRemoved(id: string, removed: boolean): Promise<boolean> {
  inMemory.delete(id);
  const found = await withDatabase(async (db) => {
    const tx = db.transaction('projects', 'readwrite');
    const { removed: _, ...record } = (await tx.store.get(id)) ?? {};
    if ('id' in record) await tx.store.put(removed ? { ...record, removed: Date.now() } : record);
    await tx.done;
    return 'id' in record;
  });
  announce({ kind: removed ? 'removed' : 'returned', id });
  return found;
}
/** Gone for good. */
export async function emptyShelf(): Promise<void> {
  const emptied = await withDatabase(async (db) => {
    const tx = allStores(db);
    const gone: string[] = [];
    for (const record of await tx.objectStore('projects').getAll()) {
      if (record.removed === undefined) continue;
      await dropAll(tx, record.id);
      gone.push(record.id);
    }
    await tx.done;
    return gone;
  });
  for (const id of emptied) announce({ kind: 'gone', id });
  announce({ kind: 'listed' });
}
const allStores = (db: Database) => db.transaction(['projects', 'changes', 'histories', 'notes'], 'readwrite');
type All = ReturnType<typeof allStores>;
async function dropAll(tx: All, id: string): Promise<void> {
  await tx.objectStore('projects').delete(id);
  await tx.objectStore('changes').delete(IDBKeyRange.bound([id, 0], [id, Infinity]));
  await tx.objectStore('histories').delete(id);
  await tx.objectStore('notes').delete(glanceKey(id));
}

export const stored = ({ id, updated, revision = 0 }: Kept, record: Kept, design: Design): StoredProject => ({
  id,
  updated,
  revision,
  recordRevision: record.revision ?? 0,
  design,
});
export const unreadProject = (
  kept: Kept,
  { why, repaired }: { readonly why: string; readonly repaired: Repaired | null },
): UnreadProject => ({
  id: kept.id,
  name: nameOf(kept.design),
  why,
  raw: kept.design,
  repaired,
});
function nameOf(design: unknown): string {
  const name = (design as { name?: unknown } | null)?.name;
  return typeof name === 'string' && name !== '' ? name.slice(0, 120) : 'A card without a name';
}

export const newProjectId = (): string => crypto.randomUUID();
