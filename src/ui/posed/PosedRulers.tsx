'use client';
import type { ReactNode } from 'react';
import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import { useStudio } from '@/store/context';
import { rulerMarks } from '../views/ruler';
import { RulerFrame } from '../views/RulerFrame';
import { seenAlike, type Seen } from './looking';

/** What is seen, told apart from the view so that turning the card draws the rulers anew and nothing else. */
export interface SeenStore {
  readonly store: StoreApi<Seen | null>;
  readonly tell: (seen: Seen) => void;
}
export function seenStore(): SeenStore {
  const store = createStore<Seen | null>(() => null);
  return { store, tell: (next) => !seenAlike(store.getState(), next) && store.setState(next, true) };
}

/** The posed view with rulers along it, counted from the middle of the gutter, true at the middle of the view. */
export function PosedRulers({ seen, children }: { readonly seen: SeenStore; readonly children: ReactNode }) {
  const unit = useStudio((s) => s.design.units);
  const at = useStore(seen.store);
  return (
    <RulerFrame
      across={at ? rulerMarks(at.width, at.zeroX, at.scale, unit) : []}
      up={at ? rulerMarks(at.height, at.zeroY, -at.scale, unit) : []}
      width={at?.width ?? 0}
      height={at?.height ?? 0}
      title="True at what is in the middle of the view"
    >
      {children}
    </RulerFrame>
  );
}
