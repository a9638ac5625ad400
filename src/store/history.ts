/** Undo history as it is kept: differences from the present state backwards and forwards, bounded. */
import { deltaOf, withDelta, type Json } from '@/core/document/delta';
import type { Change, History, HistoryStep, Move } from './database';

/** States that can be gone back to. */
export const MOST_STEPS_BACK = 500;
/** Characters of history that are kept over a reload. */
const LARGEST_HISTORY = 2_000_000;

const sizes = new WeakMap<HistoryStep, number>();
function sizeOf(step: HistoryStep): number {
  const known = sizes.get(step) ?? JSON.stringify(step).length;
  sizes.set(step, known);
  return known;
}

/** The history after a move from `before` to `after`; `label` is what the state moved to is called. */
export function moved(history: History, move: Move, before: Json, after: Json, label: string): History {
  const back: HistoryStep = { label: history.label, delta: deltaOf(after, before) ?? { v: before } };
  const past = move === 'undo' ? history.past.slice(0, -1) : [...history.past, back];
  const future = move === 'edit' ? [] : move === 'redo' ? history.future.slice(0, -1) : [...history.future, back];
  const over = Math.max(0, past.length - MOST_STEPS_BACK);
  return { past: past.slice(over), future, label, cut: history.cut || over > 0 };
}

/** The history of a record with later changes made to it. `design`: that of the record. */
export function replayed(design: Json, history: History, changes: readonly Change[]): History {
  let at = design;
  let now = history;
  for (const { move, delta, label } of changes) {
    const next = withDelta(at, delta);
    now = moved(now, move, at, next, label);
    at = next;
  }
  return now;
}

/** The part of a history that is kept: the nearest steps, as many as there is room for. */
export function bounded(history: History): History {
  let room = LARGEST_HISTORY;
  const nearest = (steps: readonly HistoryStep[]): HistoryStep[] => {
    let from = steps.length;
    while (from > 0 && (room -= sizeOf(steps[from - 1])) > 0) from--;
    return steps.slice(from);
  };
  const past = nearest(history.past);
  return { ...history, past, future: nearest(history.future), cut: history.cut || past.length < history.past.length };
}

/** The states of a side of the history, farthest first, from the present one. */
export function statesOf(design: Json, steps: readonly HistoryStep[]): { design: Json; label: string }[] {
  const states: { design: Json; label: string }[] = [];
  let at = design;
  for (const { delta, label } of [...steps].reverse()) {
    at = withDelta(at, delta);
    states.push({ design: at, label });
  }
  return states.reverse();
}
