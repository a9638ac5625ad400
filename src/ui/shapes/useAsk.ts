'use client';
import { useEffect, useState } from 'react';
import type { Answer } from '@/workers/protocol';

export interface Asked<T> {
  /** The newest answer; an older one stays until it is there. */
  readonly value: T | null;
  readonly why: string | null;
  readonly busy: boolean;
}

/** Ask a worker whenever the key changes; answers to older keys are dropped. An empty key asks nothing. */
export function useAsk<T>(key: string, ask: () => Promise<Answer<T>>): Asked<T> {
  const [state, setState] = useState<{ key: string; value: T | null; why: string | null }>({
    key: '',
    value: null,
    why: null,
  });
  useEffect(() => {
    if (key === '') return;
    let live = true;
    ask().then(
      (answer) =>
        live &&
        setState((s) =>
          answer.ok ? { key, value: answer.value, why: null } : { key, value: s.value, why: answer.why },
        ),
      (error: Error) => live && setState((s) => ({ key, value: s.value, why: error.message })),
    );
    return () => {
      live = false;
    };
    // The key says all that the question depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return {
    value: key === '' ? null : state.value,
    why: key === '' ? null : state.why,
    busy: key !== '' && state.key !== key,
  };
}
