'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '@/core/document/design';
import { useStudio, useStudioStore } from '@/store/context';
import type { StudioStore } from '@/store/studio';
import { engine } from '@/workers/client';
import type { Answer, Engine } from '@/workers/protocol';

export interface Job<T> {
  /** What is known so far, and of which design; null before it was asked for. */
  readonly found: T | null;
  readonly of: Design | null;
  readonly busy: boolean;
  readonly why: string | null;
  readonly start: () => void;
  readonly stop: () => void;
}

type Told<T> = Pick<Job<T>, 'found' | 'of' | 'busy' | 'why'>;
const NOTHING: Told<never> = { found: null, of: null, busy: false, why: null };

/** What was found last, by card and job: a pane that is left and shown again has it still. */
const kept = new WeakMap<StudioStore, Map<string, Told<unknown>>>();
function keptOf(store: StudioStore): Map<string, Told<unknown>> {
  const known = kept.get(store) ?? new Map<string, Told<unknown>>();
  kept.set(store, known);
  return known;
}

/**
 * Long work in a worker, asked for by hand: it tells how far it is, can be given up, and ends when its pane is left.
 * What was found stays until it is asked for again, also when the card has changed since.
 */
export function useJob<T>(
  /** Of this job on this card. */
  name: string,
  work: (at: Engine, design: Design, onMore: (value: T) => void, given: AbortSignal) => Promise<Answer<T>>,
): Job<T> {
  const design = useStudio((s) => s.design);
  const store = useStudioStore();
  const [state, setState] = useState<Told<T>>(() => (keptOf(store).get(name) ?? NOTHING) as Told<T>);
  useEffect(() => void keptOf(store).set(name, { ...state, busy: false }), [store, name, state]);
  const running = useRef<AbortController | null>(null);
  const stop = useCallback((): void => {
    running.current?.abort();
    running.current = null;
    setState((s) => ({ ...s, busy: false }));
  }, []);
  useEffect(() => () => running.current?.abort(), []);
  const start = (): void => {
    running.current?.abort();
    const mine = new AbortController();
    running.current = mine;
    const take = (change: Partial<typeof state>): void => {
      if (running.current === mine) setState((s) => ({ ...s, ...change }));
    };
    setState({ found: null, of: design, busy: true, why: null });
    void work(engine('decide', mine.signal), design, (found) => take({ found }), mine.signal).then((answer) => {
      if (answer.ok) take({ found: answer.value, busy: false });
      else take({ busy: false, why: answer.stopped ? null : answer.why });
    });
  };
  return { ...state, start, stop };
}
