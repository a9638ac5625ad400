/** Tabs of one browser that have the same card open: one of them writes, the others follow and hear of it. */

export type TabMessage =
  | { readonly kind: 'changed'; readonly id: string; readonly revision: number }
  /** `gone`: from the shelf too, for good. */
  | { readonly kind: 'removed' | 'returned' | 'gone'; readonly id: string }
  /** The tab that writes is asked to let another one. */
  | { readonly kind: 'yield'; readonly id: string }
  /** The list of cards is another. */
  | { readonly kind: 'listed' };

const CHANNEL = 'rhabdoplex';
/** What the tab that writes is given to let go, ms; then the right to write is taken. */
const PATIENCE_MS = 2000;

const listeners = new Set<(message: TabMessage) => void>();
let channel: BroadcastChannel | null = null;
function joined(): BroadcastChannel | null {
  if (channel || typeof BroadcastChannel === 'undefined' || typeof window === 'undefined') return channel;
  channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }: MessageEvent<TabMessage>) => listeners.forEach((hear) => hear(data));
  return channel;
}

/** Tells the other tabs. */
export function announce(message: TabMessage): void {
  joined()?.postMessage(message);
}
/** Hears what other tabs tell; returns how to end that. */
export function onTabs(hear: (message: TabMessage) => void): () => void {
  joined();
  listeners.add(hear);
  return () => listeners.delete(hear);
}

export interface Claim {
  /** Asks the tab that writes to let this one, and takes the right where it does not answer. */
  take(): void;
  release(): void;
}

/**
 * The right to write a card. `onRole` hears whether this tab has it, at once and whenever that changes; `beforeYield`
 * is waited for before it is let go. Without locks every tab writes; revisions then tell where they part.
 */
export function claimCard(id: string, onRole: (writes: boolean) => void, beforeYield: () => Promise<void>): Claim {
  if (typeof navigator === 'undefined' || !navigator.locks) {
    onRole(true);
    return { take: () => undefined, release: () => undefined };
  }
  const name = `rhabdoplex-card-${id}`;
  let letGo: (() => void) | null = null;
  let waiting = new AbortController();
  let released = false;

  const hold = async (options: LockOptions): Promise<void> => {
    await navigator.locks.request(name, options, async (lock) => {
      if (released) return;
      if (!lock) return onRole(false);
      const until = new Promise<void>((done) => (letGo = done));
      onRole(true);
      await until;
    });
  };
  /** Waits in the row for the right; a tab that closes leaves it to the next. */
  const queue = (): void => {
    waiting = new AbortController();
    hold({ signal: waiting.signal }).then(ended, ended);
  };
  const ended = (): void => {
    // Taken by another tab, or let go for one.
    if (released || letGo === null) return;
    letGo = null;
    onRole(false);
    queue();
  };
  hold({ ifAvailable: true })
    .catch(() => undefined)
    .then(() => {
      if (released) return;
      if (letGo) ended();
      else queue();
    });
  const stop = onTabs((message) => {
    if (message.kind !== 'yield' || message.id !== id || !letGo) return;
    void beforeYield().finally(() => letGo?.());
  });
  return {
    take() {
      announce({ kind: 'yield', id });
      setTimeout(() => {
        if (released || letGo) return;
        waiting.abort();
        hold({ steal: true }).then(ended, ended);
      }, PATIENCE_MS);
    },
    release() {
      released = true;
      stop();
      waiting.abort();
      letGo?.();
    },
  };
}
