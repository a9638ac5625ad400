'use client';
import { createContext, useContext, useSyncExternalStore } from 'react';
import { useStore } from 'zustand';
import type { Studio, StudioActions, StudioStore } from './studio';

export const StudioContext = createContext<StudioStore | null>(null);

export function useStudioStore(): StudioStore {
  const store = useContext(StudioContext);
  if (!store) throw new Error('This part of the interface is shown outside an open card.');
  return store;
}
export const useStudio = <T,>(read: (s: Studio) => T): T => useStore(useStudioStore(), read);
export const useActions = (): StudioActions => useStudioStore().getState().actions;

/** Names of what undo and redo would do; null when there is nothing. */
export function useHistory(): { undo: string | null; redo: string | null; cut: boolean } {
  const { temporal } = useStudioStore();
  const label = useStudio((s) => s.label);
  const cut = useStudio((s) => s.historyCut);
  const writes = useStudio((s) => s.writes);
  const past = useSyncExternalStore(
    temporal.subscribe,
    () => temporal.getState().pastStates.length,
    () => 0,
  );
  const redo = useSyncExternalStore(
    temporal.subscribe,
    () => temporal.getState().futureStates.at(-1)?.label ?? null,
    () => null,
  );
  return { undo: past > 0 && writes ? label : null, redo: writes ? redo : null, cut };
}
