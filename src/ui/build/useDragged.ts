'use client';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import type { Design } from '@/core/document/design';
import { useActions, useStudioStore } from '@/store/context';
import { swallowClick } from '../views/swallow-click';
import { CLICK_PX } from '../views/useViewport';
import type { HoldNote } from './useHold';

/** What a drag makes of the design, and what is said of it. */
export interface Dragged {
  readonly design: Design;
  readonly says: string;
}

/**
 * Something of the drawing dragged: shown as a preview while it moves, kept under a name when it is let go, given back
 * by Escape. `drag` is told of each move; `took` is what `begin` returned.
 */
export function useDragged<T>(
  begin: (e: PointerEvent<SVGElement>) => T,
  drag: (e: PointerEvent<SVGElement>, took: T) => Dragged,
  done: (last: Dragged) => void,
) {
  const store = useStudioStore();
  const { showPreview } = useActions();
  const held = useRef<{ took: T; x: number; y: number; last: Dragged | null; unlisten: () => void } | null>(null);
  const [note, setNote] = useState<HoldNote | null>(null);
  useEffect(() => () => held.current?.unlisten(), []);

  const letGo = (keep: boolean): void => {
    const was = held.current;
    held.current = null;
    setNote(null);
    was?.unlisten();
    if (!was?.last) return;
    swallowClick();
    showPreview(null);
    if (keep) done(was.last);
  };
  const press = (e: PointerEvent<SVGElement>): void => {
    if (e.button !== 0 || !store.getState().writes) return;
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    const escape = (key: KeyboardEvent): void => {
      if (key.key !== 'Escape') return;
      key.stopPropagation();
      letGo(false);
    };
    window.addEventListener('keydown', escape, true);
    const unlisten = (): void => window.removeEventListener('keydown', escape, true);
    held.current = { took: begin(e), x: e.clientX, y: e.clientY, last: null, unlisten };
  };
  const move = (e: PointerEvent<SVGElement>): void => {
    const h = held.current;
    if (!h || (!h.last && Math.hypot(e.clientX - h.x, e.clientY - h.y) < CLICK_PX)) return;
    h.last = drag(e, h.took);
    showPreview(h.last.design);
    setNote({ x: e.clientX, y: e.clientY, text: h.last.says, bad: false });
  };
  return {
    note,
    handlers: {
      onPointerDown: press,
      onPointerMove: move,
      onPointerUp: (): void => letGo(true),
      onPointerCancel: (): void => letGo(false),
    },
  };
}
