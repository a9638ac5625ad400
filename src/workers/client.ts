/** Typed proxies: the only place that knows computation runs elsewhere. */
import { proxy, wrap, type Remote } from 'comlink';
import type { Design } from '@/core/document/design';
import type { Answer, Engine } from './protocol';

type Purpose = 'pose' | 'proof' | 'study' | 'shape';
const engines = new Map<Purpose, Remote<Engine>>();

/** Poses, proofs and everything else each have a worker of their own: scrubbing never waits for a proof. */
export function engine(purpose: Purpose): Remote<Engine> {
  const known = engines.get(purpose);
  if (known) return known;
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), {
    type: 'module',
    name: `rhabdoplex ${purpose}`,
  });
  const made = wrap<Engine>(worker);
  worker.addEventListener('error', () => engines.delete(purpose));
  engines.set(purpose, made);
  return made;
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
 * Starts the workers that the workbench waits for with a card that is likely to be opened, so that its first proof
 * finds them awake.
 */
export function warmUp(design: Design): void {
  for (const wake of [
    () => engine('pose').load(design),
    () =>
      engine('proof').prove(
        design,
        2,
        proxy(() => undefined),
      ),
  ])
    wake().catch(() => undefined);
}
export { proxy };
