'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Design } from '@/core/document/design';
import { useStudio } from '@/store/context';
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

/**
 * Long work in a worker, asked for by hand: it tells how far it is, can be given up, and ends when its pane is left.
 * What was found stays until it is asked for again, also when the card has changed since.
 */
export function useJob<T>(
  work: (at: Engine, design: Design, onMore: (value: T) => void) => Promise<Answer<T>>,
): Job<T> {
  const design = useStudio((s) => s.design);
  const [state, setState] = useState<Pick<Job<T>, 'found' | 'of' | 'busy' | 'why'>>({
    found: null,
    of: null,
    busy: false,
    why: null,
  });
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
    void work(engine('decide', mine.signal), design, (found) => take({ found })).then((answer) => {
      if (answer.ok) take({ found: answer.value, busy: false });
      else take({ busy: false, why: answer.stopped ? null : answer.why });
    });
  };
  return { ...state, start, stop };
}
