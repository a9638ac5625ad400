/** What is being measured: two things picked in either view. It lives as long as the page; a card begins without. */
import { create } from 'zustand';
import type { Picked } from './picking';

export type MeasureView = 'flat' | 'posed';
/** What the pointer is over, and where it is on the page. */
export interface MeasureOver {
  readonly picked: Picked;
  readonly x: number;
  readonly y: number;
  readonly view: MeasureView;
}
interface Measuring {
  readonly on: boolean;
  readonly ends: readonly Picked[];
  readonly over: MeasureOver | null;
  readonly toggle: (on: boolean) => void;
  readonly point: (over: MeasureOver | null) => void;
  /** The third pick begins anew. */
  readonly pick: (picked: Picked) => void;
}

export const useMeasuring = create<Measuring>((set) => ({
  on: false,
  ends: [],
  over: null,
  toggle: (on) => set({ on, ends: [], over: null }),
  point: (over) => set({ over }),
  pick: (picked) => set(({ ends }) => ({ ends: ends.length === 1 ? [...ends, picked] : [picked] })),
}));

/** The two ends: picked, or the second still pointed at. */
export const endsOf = ({ ends, over }: Pick<Measuring, 'ends' | 'over'>): readonly Picked[] =>
  ends.length === 1 && over ? [...ends, over.picked] : ends;
