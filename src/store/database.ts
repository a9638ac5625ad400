/** The browser's own database: opened once, opened again where it was closed, never waited for without end. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Delta } from '@/core/document/delta';
import { StoreTrouble, troubleOf } from './trouble';

/** A card as it lies in the database; its design is not trusted. */
export interface Kept {
  readonly id: string;
  readonly updated: number;
  /** Counts the changes in `design`; missing in records of before there were any. */
  readonly revision?: number;
  readonly design: unknown;
  /** When it was put on the shelf of removed cards. */
  readonly removed?: number;
}
/** One change of a card, written at once; taken into the card's record later. */
export interface Change {
  readonly id: string;
  /** That of the card with this change made. */
  readonly revision: number;
  readonly at: number;
  readonly label: string;
  readonly move: Move;
  readonly delta: Delta;
}
export type Move = 'edit' | 'undo' | 'redo';
/** A state that can be gone back to, or forward to: what the change that made it was called, and how to get there. */
export interface HistoryStep {
  readonly label: string;
  readonly delta: Delta;
}
export interface History {
  /** Nearest last. */
  readonly past: readonly HistoryStep[];
  /** Nearest last. */
  readonly future: readonly HistoryStep[];
  /** What the last change of the present state was called. */
  readonly label: string;
  /** Older states were let go. */
  readonly cut: boolean;
}
export const NO_HISTORY: History = { past: [], future: [], label: '', cut: false };

export interface Schema extends DBSchema {
  projects: { key: string; value: Kept };
  changes: { key: [string, number]; value: Change };
  histories: { key: string; value: History & { readonly id: string; readonly revision: number } };
  notes: { key: string; value: string };
}
export type Database = IDBPDatabase<Schema>;
/** Of the note that holds how a card looks in a list (`glances.ts`); it goes with its card. */
export const glanceKey = (id: string): string => `glance ${id}`;

const NAME = 'rhabdoplex';
const VERSION = 2;
/** What opening may take before it counts as blocked, ms. */
const PATIENCE_MS = 5000;

let opening: Promise<Database> | null = null;
let open: Database | null = null;

/** The open database, if it is open: what is asked of it is queued without a wait. */
export const openDatabase = (): Database | null => open;

/** Throws StoreTrouble where it cannot be opened; the next call tries again. */
export async function database(): Promise<Database> {
  if (open) return open;
  if (typeof indexedDB === 'undefined') throw new StoreTrouble('none');
  opening ??= begin();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new StoreTrouble(blocked ? 'blocked' : 'failing')), PATIENCE_MS);
  });
  try {
    return await Promise.race([opening, late]);
  } catch (error) {
    throw troubleOf(error);
  } finally {
    clearTimeout(timer);
  }
}

let blocked = false;
function begin(): Promise<Database> {
  const closed = (): void => {
    open = null;
    opening = null;
  };
  const made = openDB<Schema>(NAME, VERSION, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('projects', { keyPath: 'id' });
        db.createObjectStore('notes');
      }
      if (from < 2) {
        db.createObjectStore('changes', { keyPath: ['id', 'revision'] });
        db.createObjectStore('histories', { keyPath: 'id' });
      }
    },
    blocked: () => (blocked = true),
    // A newer version waits for this one to let go; the next call here says so.
    blocking: () => {
      open?.close();
      closed();
    },
    terminated: closed,
  });
  made.then(
    (db) => {
      blocked = false;
      open = db;
      db.addEventListener('close', closed);
    },
    () => closed(),
  );
  return made;
}

/** Runs a piece of work on the database; throws StoreTrouble. A connection that was lost is opened once more. */
export async function withDatabase<T>(work: (db: Database) => Promise<T>): Promise<T> {
  try {
    const db = await database();
    try {
      return await work(db);
    } catch (error) {
      if ((error as { name?: string }).name !== 'InvalidStateError') throw error;
      open = opening = null;
      return await work(await database());
    }
  } catch (error) {
    throw troubleOf(error);
  }
}

export const isClaimed = (key: string): Promise<boolean> =>
  withDatabase(async (db) => (await db.getKey('notes', key)) !== undefined);
/** Claims a key and stores a card, both or neither; true for the first caller only. */
export async function storeOnce(key: string, card: Schema['projects']['value']): Promise<boolean> {
  return withDatabase(async (db) => {
    const tx = db.transaction(['notes', 'projects'], 'readwrite');
    const done = await Promise.allSettled([
      tx.objectStore('notes').add('done', key),
      tx.objectStore('projects').add(card),
      tx.done,
    ]);
    return done.every((d) => d.status === 'fulfilled');
  });
}
/** True for the first caller only: adding a key that is there fails as a whole. */
export async function claimOnce(key: string): Promise<boolean> {
  try {
    await withDatabase((db) => db.add('notes', 'done', key));
    return true;
  } catch {
    return false;
  }
}
