/** Typed proxies: the only place that knows computation runs elsewhere. */
import { proxy } from 'comlink';
import type { Design } from '@/core/document/design';
import { Desk, type AskOptions } from './desk';
import { SentBefore } from './revisions';
import { UNKNOWN_REVISION, WITHOUT_DESIGN, type Answer, type Engine } from './protocol';

/** Poses, proofs and everything else each have a worker of their own: scrubbing never waits for a proof. */
const DOES = {
  pose: 'the posing of the card',
  proof: 'the proof',
  study: 'the study of the card',
  shape: 'the work on shapes',
  nest: 'the laying out of the sheets',
  cutter: 'the simulated cutter',
  show: 'the making of the film',
  write: 'the writing of files',
  decide: 'the search and the study',
  decide2: 'the search',
  decide3: 'the search',
  decide4: 'the search',
  compare: 'the comparing of variants',
} as const;
export type Purpose = keyof typeof DOES;
export const PURPOSES = Object.keys(DOES) as readonly Purpose[];

/** Longest an answer may take, ms; what is not named has the last. */
const BOUND_MS: Partial<Record<keyof Engine, number>> = {
  pose: 90_000,
  prove: 600_000,
  seek: 300_000,
  rooms: 120_000,
  whatIf: 120_000,
  nest: 300_000,
  bundle: 300_000,
  film: 600_000,
  cutOn: 120_000,
  study: 1_800_000,
  slabs: 1_800_000,
  map: 1_800_000,
  judge: 300_000,
};
const OTHER_BOUND_MS = 60_000;

/** Work of minutes that is of use only while its card is open. */
const ENDS_WITH_CARD: ReadonlySet<keyof Engine> = new Set([
  ...(['study', 'slabs', 'map', 'judge'] as const),
  ...(['film', 'nest', 'stopNest', 'bundle', 'booklet'] as const),
]);
let open = new AbortController();
/** Gives up, with the workers that are at it, all long work on the card that is left. */
export function leaveCard(): void {
  open.abort();
  open = new AbortController();
}

type Told = (text: string) => void;
const listeners = new Set<Told>();
/** Calls `told` when a worker stopped by itself and was started again; returns how to end that. */
export function onWorkerNews(told: Told): () => void {
  listeners.add(told);
  return () => listeners.delete(told);
}

const startWorker = (name: string): Worker =>
  new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module', name });

/** The worker's lock comes free when it is gone, however it went. */
async function goneOf(lock: string, until: AbortSignal): Promise<void> {
  if (!navigator.locks) return new Promise(() => undefined);
  await navigator.locks.request(lock, { signal: until }, () => undefined);
}

const desks = new Map<Purpose, { desk: Desk; sent: SentBefore }>();
function deskOf(purpose: Purpose): { desk: Desk; sent: SentBefore } {
  let known = desks.get(purpose);
  if (!known) {
    const tell: Told = (text) => listeners.forEach((told) => told(text));
    const tools = { start: startWorker, gone: goneOf, tell };
    known = { desk: new Desk(DOES[purpose], tools, purpose), sent: new SentBefore() };
    desks.set(purpose, known);
  }
  return known;
}

/**
 * The engine for a purpose: every job answers, whatever becomes of its worker. `signal` gives a job up, and ends the
 * worker that is at it.
 */
export function engine(purpose: Purpose, signal?: AbortSignal): Engine {
  return new Proxy({} as Engine, {
    get:
      (_, job) =>
      (...args: unknown[]) =>
        ask(purpose, job as keyof Engine, args, signal),
  });
}

/** Starts the worker for a purpose, which will soon be asked. */
export const prepare = (purpose: Purpose): void => deskOf(purpose).desk.prepare();

const plain = new Set<string>(WITHOUT_DESIGN);

async function ask(
  purpose: Purpose,
  job: keyof Engine,
  args: readonly unknown[],
  signal?: AbortSignal,
): Promise<Answer<unknown>> {
  const { desk, sent } = deskOf(purpose);
  const signals = [...(signal ? [signal] : []), ...(ENDS_WITH_CARD.has(job) ? [open.signal] : [])];
  const options: AskOptions = {
    boundMs: BOUND_MS[job] ?? OTHER_BOUND_MS,
    ...(signals.length > 0 ? { signal: AbortSignal.any(signals) } : {}),
  };
  const put = (whole: boolean): Promise<Answer<unknown>> =>
    desk.ask((remote) => {
      const wired = args.map((a, i) =>
        typeof a === 'function' ? proxy(a) : i === 0 && !plain.has(job) ? sent.wire(a as Design, remote, whole) : a,
      );
      const call = remote[job] as unknown as (...a: unknown[]) => Promise<Answer<unknown>>;
      return call(...wired);
    }, options);
  const answer = await put(false);
  return !answer.ok && answer.why === UNKNOWN_REVISION ? put(true) : answer;
}

/** One request in flight, the newest next; requests in between are dropped. */
export function newestWins<A extends unknown[], T>(
  ask: (...args: A) => Promise<Answer<T>>,
  take: (answer: Answer<T>) => void,
): (...args: A) => void {
  let waiting: A | null = null;
  let busy = false;
  const go = async (args: A): Promise<void> => {
    busy = true;
    try {
      take(await ask(...args));
    } catch (error) {
      take({ ok: false, why: (error as Error).message });
    } finally {
      busy = false;
      const next = waiting;
      waiting = null;
      if (next) void go(next);
    }
  };
  return (...args) => {
    if (busy) waiting = args;
    else void go(args);
  };
}

/**
 * Starts the workers that the workbench waits for: one loads a card that is likely to be opened, the other proves a
 * light one, so that the first proof finds it awake and its code compiled. A heavy one would take seconds of a maker's
 * processor, and the proof that is then asked for would find the worker busy.
 */
export function warmUp(likely: Design, light: Design): void {
  void engine('pose').load(likely);
  void engine('proof').prove(light, 2, () => undefined);
}
