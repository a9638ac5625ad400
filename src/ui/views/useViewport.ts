'use client';
import { useCallback, useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type RefObject } from 'react';
import { FIT, fittedTo, pannedBy, seenBox, ZOOM_STEP, zoomedAt, type Box, type View } from './viewport';

/** Moved by less, in pixels, a press is a click. */
export const CLICK_PX = 4;
/** A notch of a wheel is about 100 of these. */
const WHEEL_PER_E = 450;
/** One press of an arrow key moves by this part of what is seen. */
const KEY_PART = 0.1;

export interface Viewport {
  readonly view: View;
  readonly viewBox: string;
  /** Pixels of the screen for a unit of the drawing; 0 before it is drawn. */
  readonly scale: () => number;
  readonly zoomBy: (factor: number) => void;
  readonly fit: () => void;
  readonly fitTo: (part: Box) => void;
  /** Put to so many pixels for a unit. */
  readonly toScale: (pxPerUnit: number) => void;
  readonly handlers: {
    readonly onPointerDown: (e: PointerEvent) => void;
    readonly onPointerMove: (e: PointerEvent) => void;
    readonly onPointerUp: (e: PointerEvent) => void;
    readonly onPointerCancel: (e: PointerEvent) => void;
    readonly onClickCapture: (e: { stopPropagation: () => void }) => void;
    readonly onKeyDown: (e: KeyboardEvent) => void;
  };
}

/** Zoom and pan of a drawing: wheel, pinch, two fingers, dragging its ground, keys. */
export function useViewport(svg: RefObject<SVGSVGElement | null>, all: Box): Viewport {
  const [view, setView] = useState<View>(FIT);
  const box = useRef(all);
  useEffect(() => {
    box.current = all;
  });
  const at = useCallback(
    (x: number, y: number): [number, number] => {
      const matrix = svg.current?.getScreenCTM();
      if (!matrix) return [0, 0];
      const p = new DOMPoint(x, y).matrixTransform(matrix.inverse());
      return [p.x, p.y];
    },
    [svg],
  );
  const scale = useCallback(() => svg.current?.getScreenCTM()?.a ?? 0, [svg]);

  useEffect(() => {
    const element = svg.current;
    // Listened to by hand: the page must not scroll meanwhile, which React's own listener cannot prevent.
    const wheel = (e: WheelEvent): void => {
      e.preventDefault();
      if (e.shiftKey) {
        const k = 1 / scale();
        return setView((v) => pannedBy(box.current, v, (e.deltaX || e.deltaY) * k, e.deltaX ? e.deltaY * k : 0));
      }
      // A pinch on a pad comes as a wheel with Ctrl, in small steps.
      const factor = Math.exp((-e.deltaY * (e.ctrlKey ? 4 : 1)) / WHEEL_PER_E);
      const point = at(e.clientX, e.clientY);
      setView((v) => zoomedAt(box.current, v, point, factor));
    };
    element?.addEventListener('wheel', wheel, { passive: false });
    return () => element?.removeEventListener('wheel', wheel);
  }, [svg, at, scale]);

  const fingers = useRef(new Map<number, { x: number; y: number }>());
  const moved = useRef(0);
  const down = (e: PointerEvent): void => {
    if (e.pointerType === 'mouse' && e.button > 1) return;
    fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
    if (fingers.current.size === 1) moved.current = 0;
  };
  const move = (e: PointerEvent): void => {
    const was = fingers.current.get(e.pointerId);
    if (!was) return;
    const [dx, dy] = [e.clientX - was.x, e.clientY - was.y];
    const before = moved.current;
    moved.current += Math.abs(dx) + Math.abs(dy);
    if (moved.current < CLICK_PX) return;
    if (before < CLICK_PX) svg.current?.setPointerCapture(e.pointerId);
    const others = [...fingers.current].filter(([id]) => id !== e.pointerId).map(([, p]) => p);
    fingers.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
    const k = 1 / scale();
    if (others.length === 0) return setView((v) => pannedBy(box.current, v, -dx * k, -dy * k));
    const [other] = others;
    const factor = apart(other, { x: e.clientX, y: e.clientY }) / Math.max(1, apart(other, was));
    const middle = at((other.x + e.clientX) / 2, (other.y + e.clientY) / 2);
    setView((v) => pannedBy(box.current, zoomedAt(box.current, v, middle, factor), (-dx / 2) * k, (-dy / 2) * k));
  };
  const up = (e: PointerEvent): void => void fingers.current.delete(e.pointerId);

  const zoomBy = (factor: number): void =>
    setView((v) => {
      const { x, y, w, h } = seenBox(box.current, v);
      return zoomedAt(box.current, v, [x + w / 2, y + h / 2], factor);
    });
  const keys = (e: KeyboardEvent): void => {
    if (e.target !== svg.current || e.ctrlKey || e.metaKey || e.altKey) return;
    const { w, h } = seenBox(box.current, view);
    const pan = (dx: number, dy: number) => () => setView((v) => pannedBy(box.current, v, dx, dy));
    const does: Record<string, () => void> = {
      '+': () => zoomBy(ZOOM_STEP),
      '=': () => zoomBy(ZOOM_STEP),
      '-': () => zoomBy(1 / ZOOM_STEP),
      '0': () => setView(FIT),
      ArrowLeft: pan(-w * KEY_PART, 0),
      ArrowRight: pan(w * KEY_PART, 0),
      ArrowUp: pan(0, -h * KEY_PART),
      ArrowDown: pan(0, h * KEY_PART),
    };
    if (!Object.hasOwn(does, e.key)) return;
    e.preventDefault();
    e.stopPropagation();
    does[e.key]();
  };
  const { x, y, w, h } = seenBox(all, view);
  return {
    view,
    viewBox: `${x} ${y} ${w} ${h}`,
    scale,
    zoomBy,
    fit: () => setView(FIT),
    fitTo: (part) => setView(fittedTo(box.current, part)),
    toScale: (px) => zoomBy(px / Math.max(1e-9, scale())),
    handlers: {
      onPointerDown: down,
      onPointerMove: move,
      onPointerUp: up,
      onPointerCancel: up,
      // What was dragged about is not clicked as well.
      onClickCapture: (e) => {
        if (moved.current >= CLICK_PX) e.stopPropagation();
        moved.current = 0;
      },
      onKeyDown: keys,
    },
  };
}
const apart = (p: { x: number; y: number }, q: { x: number; y: number }): number => Math.hypot(p.x - q.x, p.y - q.y);
