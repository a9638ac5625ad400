/** A card of the database, with its undo history, for the workbench. */
import type { Json } from '@/core/document/delta';
import { repairDesign } from '@/core/document/repair';
import { checkDesign } from '@/core/document/schema';
import { NO_HISTORY, withDatabase, type Change, type History } from './database';
import { replayed, statesOf } from './history';
import { brought, inPage, stored, unreadProject, type StoredProject, type UnreadProject } from './projects';

export type Loaded =
  | { readonly ok: true; readonly project: StoredProject; readonly history: History; readonly removed: boolean }
  | { readonly ok: false; readonly why: string; readonly unread?: UnreadProject };

/** Throws StoreTrouble where the database does not answer. */
export async function loadProject(id: string): Promise<Loaded> {
  const memory = inPage(id);
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
      unread: unreadProject(kept, { ...read, repaired: repairDesign(kept.design) }),
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
