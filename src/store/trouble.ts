/** What can keep a card from being stored, each in words of its own. */

export type TroubleKind = 'none' | 'full' | 'blocked' | 'newer' | 'failing' | 'gone';

export const TROUBLE_WORDS: Readonly<Record<TroubleKind, string>> = {
  none: 'This browser keeps no data for this page (a private window, or storage is switched off)',
  full: 'There is no room left in this browser’s storage',
  blocked: 'Another tab holds the storage in an older form; close or reload the other tabs',
  newer: 'The storage was made by a newer Rhabdoplex; reload this page to get it',
  gone: 'This card was removed for good in another tab: what is here is in this page only',
  failing: 'This browser’s storage does not answer',
};

/** Storing or reading failed; `kind` says why. */
export class StoreTrouble extends Error {
  constructor(readonly kind: TroubleKind) {
    super(TROUBLE_WORDS[kind]);
  }
}

/** Names of DOMException by the Indexed Database API 3.0, sections 2.9 and 4. */
const KINDS: Readonly<Record<string, TroubleKind>> = {
  QuotaExceededError: 'full',
  VersionError: 'newer',
  SecurityError: 'none',
  InvalidAccessError: 'none',
};

export function troubleOf(error: unknown): StoreTrouble {
  if (error instanceof StoreTrouble) return error;
  if (typeof indexedDB === 'undefined') return new StoreTrouble('none');
  return new StoreTrouble(KINDS[(error as { name?: string } | null)?.name ?? ''] ?? 'failing');
}
