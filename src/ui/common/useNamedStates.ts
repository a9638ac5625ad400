'use client';
import { useMemo } from 'react';
import { OPEN, restOf, stateIn, type Drive, type State } from '@/core/drives';
import type { NamedState } from '@/core/kinds';
import { statesOf } from '@/core/document/states';
import type { Design } from '@/core/document/design';
import { useActions, useStudio } from '@/store/context';
import { drivesOf } from '@/store/studio';

/** The states that are named, each with every drive's value, and what changes them. */
export function useNamedStates() {
  const design = useStudio((s) => s.design);
  const drives = useStudio(drivesOf);
  const { edit } = useActions();
  const states = useMemo(
    () => statesOf(design).map((named) => ({ named, state: stateIn(drives, named) })),
    [design, drives],
  );
  const put = (words: string, next: (known: readonly NamedState[]) => readonly NamedState[] | undefined): void =>
    edit(words, (d) => withStates(d, next(statesOf(d))));
  return { states, drives, put };
}

function withStates(design: Design, states: readonly NamedState[] | undefined): Design {
  const { states: _, ...rest } = design;
  return states ? { ...rest, states } : rest;
}

/** What is not at rest in a state: the opening always, the others where they are moved. */
export function valuesKept(drives: readonly Drive[], state: State): State {
  const rest = restOf(drives);
  return Object.fromEntries(Object.entries(state).filter(([id, value]) => id === OPEN || value !== rest[id]));
}

/** An id that none has yet. */
export function freeStateId(known: readonly NamedState[]): string {
  const taken = new Set(known.map((s) => s.id));
  for (let k = 1; ; k++) if (!taken.has(`state-${k}`)) return `state-${k}`;
}

export const sameState = (drives: readonly Drive[], a: State, b: State): boolean =>
  drives.every((d) => Math.abs((a[d.id] ?? d.rest) - (b[d.id] ?? d.rest)) < 1e-6);
