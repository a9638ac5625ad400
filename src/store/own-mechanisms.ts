/** Mechanisms of one's own, in this browser's database for other cards. What lies there is not trusted. */
import { withDatabase } from './database';
import { troubleOf } from './trouble';

export interface OwnMechanism {
  readonly name: string;
  /** As it is copied (`core/document/several.ts`); also what its file holds. */
  readonly text: string;
}

/** The list stays one that can be looked through. */
const MOST_OWN = 100;
export const LONGEST_OWN = 2_000_000;
const PREFIX = 'own ';
const OWN_KEYS = (): IDBKeyRange => IDBKeyRange.bound(PREFIX, `${PREFIX}\uffff`);

/** By name. Throws StoreTrouble. */
export async function ownMechanisms(): Promise<readonly OwnMechanism[]> {
  const [keys, texts] = await withDatabase((db) => {
    const { store } = db.transaction('notes');
    return Promise.all([store.getAllKeys(OWN_KEYS()), store.getAll(OWN_KEYS())]);
  });
  return keys.flatMap((key, k) =>
    typeof texts[k] === 'string' ? [{ name: key.slice(PREFIX.length), text: texts[k] }] : [],
  );
}

/** Why it was not kept, or null. One of the same name is replaced. */
export async function keepOwn({ name, text }: OwnMechanism): Promise<string | null> {
  if (text.length > LONGEST_OWN) return 'it is too large to be kept in this browser; copy it instead';
  try {
    return await withDatabase(async (db) => {
      const tx = db.transaction('notes', 'readwrite');
      const known = await tx.store.getAllKeys(OWN_KEYS());
      const full = known.length >= MOST_OWN && !known.includes(PREFIX + name);
      if (!full) await tx.store.put(text, PREFIX + name);
      await tx.done;
      return full ? `${MOST_OWN} are kept already; forget one first` : null;
    });
  } catch (error) {
    return troubleOf(error).message;
  }
}
/** Throws StoreTrouble. */
export const forgetOwn = (name: string): Promise<void> => withDatabase((db) => db.delete('notes', PREFIX + name));
