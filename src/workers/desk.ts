/** One worker behind a desk: it is started again where it stops, and every question put to it gets an answer. */
import { releaseProxy, wrap, type Remote } from 'comlink';
import type { Answer, Wired } from './protocol';

/** What a desk needs of a worker; the tests bring their own. */
export type WorkerLike = Pick<Worker, 'postMessage' | 'addEventListener' | 'removeEventListener' | 'terminate'>;

export interface DeskTools {
  readonly start: (name: string) => WorkerLike;
  /** Settles when the worker that holds this lock is gone; never where that cannot be known. */
  readonly gone: (lock: string, until: AbortSignal) => Promise<void>;
  /** Told when a worker stopped by itself. */
  readonly tell: (text: string) => void;
}

export interface AskOptions {
  /** An answer that takes longer is given up, and its worker with it, ms. */
  readonly boundMs: number;
  readonly signal?: AbortSignal;
}

/** A question is put again this often where its worker stopped over it. */
const MOST_LOSSES = 2;

/** One worker and what ended it: it stopped by itself, or was stopped for the sake of one question. */
interface Hand {
  readonly remote: Remote<Wired>;
  readonly ended: Promise<'died' | 'stopped'>;
  readonly end: (why: 'died' | 'stopped') => void;
}

let workers = 0;

export class Desk {
  private hand: Hand | null = null;

  /**
   * @param does what this desk's worker does, in words: "the proof"
   * @param called the same in the name of its worker's lock
   */
  constructor(
    private readonly does: string,
    private readonly tools: DeskTools,
    private readonly called = 'any',
  ) {}

  /**
   * Puts a question to the worker. Always settles: with its answer, or with `ok: false` and the reason where it was
   * given up, took longer than its bound, or the worker stopped over it twice. Never rejects.
   */
  async ask<T>(work: (remote: Remote<Wired>) => Promise<Answer<T>>, options: AskOptions): Promise<Answer<T>> {
    for (let losses = 0; losses < MOST_LOSSES;) {
      if (options.signal?.aborted) return STOPPED;
      const outcome = await this.once(work, options);
      if (typeof outcome === 'object') return outcome;
      // Stopped over another question: this one is simply put again.
      if (outcome === 'died') losses++;
    }
    return { ok: false, why: `${this.does} stopped over this ${MOST_LOSSES} times; it was not asked again` };
  }

  /** Starts the worker ahead of the first question. One that cannot be started says so when it is asked. */
  prepare(): void {
    try {
      this.hand ??= this.begin();
    } catch {
      // Told with the answer.
    }
  }

  /** Ends the worker, if there is one; the next question starts another. */
  close(): void {
    this.hand?.end('stopped');
  }

  private async once<T>(
    work: (remote: Remote<Wired>) => Promise<Answer<T>>,
    { boundMs, signal }: AskOptions,
  ): Promise<Answer<T> | 'died' | 'stopped'> {
    let hand: Hand;
    try {
      hand = this.hand ??= this.begin();
    } catch {
      return 'died';
    }
    let timer: ReturnType<typeof setTimeout> | undefined;
    let leave: (() => void) | undefined;
    const late = new Promise<'late'>((done) => (timer = setTimeout(() => done('late'), boundMs)));
    const left = new Promise<'left'>((done) => signal?.addEventListener('abort', (leave = () => done('left'))));
    const answered = Promise.resolve(hand.remote)
      .then(work)
      .catch((error: Error): Answer<T> => ({ ok: false, why: error.message }));
    const outcome = await Promise.race([answered, late, left, hand.ended]);
    clearTimeout(timer);
    if (leave) signal?.removeEventListener('abort', leave);
    if (outcome === 'late' || outcome === 'left') hand.end('stopped');
    if (outcome === 'left') return STOPPED;
    if (outcome === 'late')
      return { ok: false, why: `${this.does} took longer than ${Math.round(boundMs / 1000)} s and was stopped` };
    return outcome;
  }

  private begin(): Hand {
    const lock = `rhabdoplex-worker-${this.called}-${Date.now()}-${++workers}`;
    const worker = this.tools.start(lock);
    const remote = wrap<Wired>(worker);
    const watching = new AbortController();
    let settle: (why: 'died' | 'stopped') => void = () => undefined;
    const hand: Hand = {
      remote,
      ended: new Promise((done) => (settle = done)),
      end: (why) => {
        if (watching.signal.aborted) return;
        watching.abort();
        if (this.hand === hand) this.hand = null;
        remote[releaseProxy]();
        worker.terminate();
        if (why === 'died') this.tools.tell(`${this.does} stopped and was started again`);
        settle(why);
      },
    };
    const died = (): void => hand.end('died');
    worker.addEventListener('error', died);
    worker.addEventListener('messageerror', died);
    void remote
      .hold(lock)
      .then((held) =>
        held && !watching.signal.aborted ? this.tools.gone(lock, watching.signal).then(died) : undefined,
      )
      .catch(() => undefined);
    return hand;
  }
}

const STOPPED = { ok: false, why: 'stopped before it was done', stopped: true } as const;
