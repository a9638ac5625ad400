/** Cards in the database. What goes in passes the same check as what comes out. */
import type { Design } from '@/core/document/design';
import { withDelta, type Json } from '@/core/document/delta';
import { repairDesign, type Repaired } from '@/core/document/repair';
import { checkDesign } from '@/core/document/schema';
import { NO_HISTORY, withDatabase, type Change, type Database, type History, type Kept } from './database';
import { replayed, statesOf } from './history';
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
  readonly projects: readonly StoredProject[];
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
  const projects: StoredProject[] = [...inMemory.values()];
  const unread: UnreadProject[] = [];
  const shelf: RemovedProject[] = [];
  for (const record of records) {
    const own = changes.filter((c) => c.id === record.id);
    const { kept } = brought(record, own);
    if (kept.removed !== undefined) {
      shelf.push({ id: kept.id, name: nameOf(kept.design), removed: kept.removed });
      continue;
    }
    const read = checkDesign(kept.design);
    if (read.ok) projects.push(stored(kept, record, read.design));
    else unread.push(unreadProject(kept, read.why));
  }
  return {
    projects: projects.sort((a, b) => b.updated - a.updated),
    unread,
    shelf: shelf.sort((a, b) => b.removed - a.removed),
  };
}

export type Loaded =
  | { readonly ok: true; readonly project: StoredProject; readonly history: History; readonly removed: boolean }
  | { readonly ok: false; readonly why: string; readonly unread?: UnreadProject };

/** Throws StoreTrouble where the database does not answer. */
export async function loadProject(id: string): Promise<Loaded> {
  const memory = inMemory.get(id);
  if (memory) return { ok: true, project: memory, history: NO_HISTORY, removed: false };
  const [record, changes, history] = await withDatabase(async (db) => {
    const tx = db.transaction(['projects', 'changes', 'histories']);
    return Promise.all([
      tx.objectStore('projects').get(id),
      tx.objectStore('changes').getAll(IDBKeyRange.bound([id, 0], [id, Infinity])),
      tx.objectStore('histories').get(id),
    ]);
  });
  if (!record)
    return {
      ok: false,
      why: 'This card is not in this browser. It may have been removed, or belongs to another browser.',
    };
  const { kept, taken } = brought(record, changes);
  const read = checkDesign(kept.design);
  if (!read.ok)
    return {
      ok: false,
      why: `This card does not read: ${read.why}. Nothing was changed.`,
      unread: unreadProject(kept, read.why),
    };
  const fits = history?.revision === (record.revision ?? 0) ? history : NO_HISTORY;
  return {
    ok: true,
    project: stored(kept, record, read.design),
    history: readHistory(record.design as Json, fits, taken, kept.design as Json),
    removed: kept.removed !== undefined,
  };
}

/** The undo history of a card; none where what is kept of it does not lead anywhere, so that the card still opens. */
function readHistory(design: Json, kept: History, taken: readonly Change[], now: Json): History {
  try {
    const history = replayed(design, kept, taken);
    statesOf(now, history.past);
    statesOf(now, history.future);
    return history;
  } catch {
    return { ...NO_HISTORY, cut: true };
  }
}

export interface Added {
  readonly id: string;
  /** Why it lives in this page only, where it could not be stored; it can be opened and saved as a file. */
  readonly trouble: StoreTrouble | null;
}

/** Puts a new card among the others; it opens under its id. Throws RefusedError where it could not be read back. */
export async function addProject(design: Design, updated = Date.now(), id = newProjectId()): Promise<Added> {
  const read = checkDesign(design);
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
  await withDatabase(async (db) => {
    const tx = allStores(db);
    for (const record of await tx.objectStore('projects').getAll())
      if (record.removed !== undefined) await dropAll(tx, record.id);
    await tx.done;
  });
  announce({ kind: 'listed' });
}
const allStores = (db: Database) => db.transaction(['projects', 'changes', 'histories'], 'readwrite');
type All = ReturnType<typeof allStores>;
async function dropAll(tx: All, id: string): Promise<void> {
  await tx.objectStore('projects').delete(id);
  await tx.objectStore('changes').delete(IDBKeyRange.bound([id, 0], [id, Infinity]));
  await tx.objectStore('histories').delete(id);
}

const stored = ({ id, updated, revision = 0 }: Kept, record: Kept, design: Design): StoredProject => ({
  id,
  updated,
  revision,
  recordRevision: record.revision ?? 0,
  design,
});
const unreadProject = (kept: Kept, why: string): UnreadProject => ({
  id: kept.id,
  name: nameOf(kept.design),
  why,
  raw: kept.design,
  repaired: repairDesign(kept.design),
});
function nameOf(design: unknown): string {
  const name = (design as { name?: unknown } | null)?.name;
  return typeof name === 'string' && name !== '' ? name.slice(0, 120) : 'A card without a name';
}

export const newProjectId = (): string => crypto.randomUUID();
