/**
 * Keeps one open card: every change is written at once as a difference, and taken into the card's record when there is
 * a moment. What cannot be written stays here and is tried again.
 */
import { deltaOf, type Json } from '@/core/document/delta';
import type { Design } from '@/core/document/design';
import { database, openDatabase, withDatabase, type Change, type Database, type History, type Move } from './database';
import { bounded, moved } from './history';
import { keepInMemory, leaveMemory, onlyInMemory, type StoredProject } from './projects';
import { announce } from './tabs';
import { troubleOf, type TroubleKind } from './trouble';

export type Saving = 'saved' | 'saving' | TroubleKind;

export interface KeeperEvents {
  readonly onSaving: (saving: Saving) => void;
  /** Another tab wrote this card too: the two have parted. */
  readonly onParted: () => void;
  /** The card was put on the shelf elsewhere. */
  readonly onRemoved: () => void;
}

/** Changes are taken into the record after this much quiet, ms. */
const QUIET_MS = 1500;
/** Tries after a failure: the first wait, and the longest, ms. */
const FIRST_WAIT_MS = 2000;
const LONGEST_WAIT_MS = 30_000;

const nameOf = (error: unknown): string | undefined => (error as { name?: string } | null)?.name;

class Parted extends Error {}
class Removed extends Error {}
class Gone extends Error {}

export class Keeper {
  readonly id: string;
  private design: Design;
  private revision: number;
  private history: History;
  private trouble: TroubleKind | null;
  /** Changes that were queued and are not yet known to be written. */
  private inFlight = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private wait = FIRST_WAIT_MS;
  private compacting: Promise<void> = Promise.resolve();
  /** Revision of the card's record. */
  private compacted: number;
  private done = false;

  constructor(
    project: StoredProject,
    history: History,
    private readonly events: KeeperEvents,
  ) {
    ({ id: this.id, design: this.design, revision: this.revision } = project);
    this.compacted = project.recordRevision;
    this.history = history;
    this.trouble = onlyInMemory(project.id) ? 'failing' : null;
    if (this.trouble) void this.compact();
    else void database().catch(() => undefined);
  }

  /** Older states than those that are kept were let go. */
  get cut(): boolean {
    return this.history.cut;
  }

  get saving(): Saving {
    return this.trouble ?? (this.inFlight > 0 ? 'saving' : 'saved');
  }

  /** Called in the same moment as the change; the write is queued before this returns where the database is open. */
  record(design: Design, move: Move, label: string): void {
    const before = this.design;
    const delta = deltaOf(before as unknown as Json, design as unknown as Json);
    if (!delta || this.done) return;
    this.history = moved(this.history, move, before as unknown as Json, design as unknown as Json, label);
    this.design = design;
    this.revision++;
    const change: Change = { id: this.id, revision: this.revision, at: Date.now(), label, move, delta };
    if (this.trouble) {
      this.events.onSaving(this.saving);
      return this.later(0);
    }
    this.inFlight++;
    this.events.onSaving(this.saving);
    const db = openDatabase();
    const written = db ? write(db, change) : withDatabase((d) => write(d, change));
    written.then(
      () => {
        this.inFlight--;
        this.events.onSaving(this.saving);
        announce({ kind: 'changed', id: this.id, revision: change.revision });
        this.later(QUIET_MS);
      },
      (error) => {
        this.inFlight--;
        this.failed(error);
      },
    );
  }

  /** Takes all changes into the record now; settles when that is done or has failed. */
  async flush(): Promise<void> {
    if (this.trouble || this.revision > this.compacted) await this.compact();
  }

  /**
   * Ends it; what is not yet in the record is put there, and what cannot be is held by the page. Whether all is
   * stored.
   */
  async close(): Promise<boolean> {
    if (this.done) return true;
    await this.flush();
    const { id, design, revision, compacted } = this;
    if (this.trouble) keepInMemory({ id, updated: Date.now(), revision, recordRevision: compacted, design });
    this.leave();
    return !this.trouble;
  }

  /** Ends it at once: another tab writes the card from here on, and finds every change in the journal. */
  leave(): void {
    this.done = true;
    clearTimeout(this.timer);
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    if (!this.done) this.timer = setTimeout(() => void this.compact(), ms);
  }

  /** One after another: each takes what there is when it begins. */
  private compact(): Promise<void> {
    return (this.compacting = this.compacting.then(() => this.compactNow()));
  }
  private async compactNow(): Promise<void> {
    if (this.done || this.trouble === 'gone' || (!this.trouble && this.revision === this.compacted)) return;
    const { id, design, revision, history, compacted } = this;
    try {
      await withDatabase((db) => takeIn(db, { id, design, revision, history, compacted, fresh: onlyInMemory(id) }));
      leaveMemory(id);
      this.compacted = revision;
      this.trouble = null;
      this.wait = FIRST_WAIT_MS;
      this.events.onSaving(this.saving);
      announce({ kind: 'changed', id, revision });
    } catch (error) {
      this.failed(error);
    }
  }

  /** The card is not in the database any more: nothing is written until it goes on as another. */
  lost(): void {
    this.trouble = 'gone';
    clearTimeout(this.timer);
    this.events.onSaving(this.saving);
  }

  private failed(error: unknown): void {
    if (this.done) return;
    if (error instanceof Gone) return this.lost();
    if (error instanceof Removed) {
      this.events.onSaving(this.saving);
      return this.events.onRemoved();
    }
    if (error instanceof Parted || nameOf(error) === 'ConstraintError') {
      this.done = true;
      return this.events.onParted();
    }
    this.trouble = troubleOf(error).kind;
    this.events.onSaving(this.saving);
    this.later(this.wait);
    this.wait = Math.min(LONGEST_WAIT_MS, this.wait * 2);
  }
}

/**
 * Queues everything and commits in the same moment, so that the write needs nothing more of this page. That the record
 * is still where it was is read in the same transaction and judged afterwards: a change of a revision that is taken
 * already is never looked at.
 */
async function write(db: Database, change: Change): Promise<void> {
  const tx = db.transaction(['changes', 'projects'], 'readwrite');
  const added = tx.objectStore('changes').add(change);
  const record = tx.objectStore('projects').get(change.id);
  tx.commit();
  const [adding, , ending] = await Promise.allSettled([added, record, tx.done]);
  // The transaction knows best why it failed, but for a revision that another tab has taken.
  if (ending.status === 'rejected')
    throw adding.status === 'rejected' && nameOf(adding.reason) === 'ConstraintError' ? adding.reason : ending.reason;
  const kept = await record;
  if (!kept) {
    // A change of a card that is not there belongs to nothing.
    await db.delete('changes', [change.id, change.revision]);
    throw new Gone();
  }
  if (kept.removed !== undefined) throw new Removed();
  if ((kept.revision ?? 0) >= change.revision) throw new Parted();
}

interface Taken {
  readonly id: string;
  readonly design: Design;
  readonly revision: number;
  readonly history: History;
  /** Revision of the record this one goes on from. */
  readonly compacted: number;
  /** It was never stored. */
  readonly fresh: boolean;
}

async function takeIn(db: Database, { id, design, revision, history, compacted, fresh }: Taken): Promise<void> {
  const tx = db.transaction(['projects', 'changes', 'histories'], 'readwrite', { durability: 'strict' });
  const projects = tx.objectStore('projects');
  try {
    const record = await projects.get(id);
    if (!record && !fresh) throw new Gone();
    if (record && (record.revision ?? 0) !== compacted) throw new Parted();
    await projects.put({ ...record, id, updated: Date.now(), revision, design });
    await tx.objectStore('histories').put({ ...bounded(history), id, revision });
    await tx.objectStore('changes').delete(IDBKeyRange.bound([id, 0], [id, revision]));
  } catch (error) {
    tx.done.catch(() => undefined);
    try {
      tx.abort();
    } catch {
      // It has ended by itself, and knows why.
      throw tx.error ?? error;
    }
    throw error;
  }
  await tx.done;
}
