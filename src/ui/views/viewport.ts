/** What part of a drawing is seen: zoomed and moved against the view that fits all of it. Drawing units, y down. */

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
/** `x`, `y`: where the middle of the view lies off the middle of the drawing. */
export interface View {
  readonly zoom: number;
  readonly x: number;
  readonly y: number;
}
export const FIT: View = { zoom: 1, x: 0, y: 0 };

const LEAST_ZOOM = 0.25;
const MOST_ZOOM = 64;
export const ZOOM_STEP = 1.25;
const bounded = (zoom: number): number => Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom));

/** The part of the drawing that is seen. */
export const seenBox = (all: Box, { zoom, x, y }: View): Box => ({
  x: all.x + all.w / 2 + x - all.w / zoom / 2,
  y: all.y + all.h / 2 + y - all.h / zoom / 2,
  w: all.w / zoom,
  h: all.h / zoom,
});

/** Enlarged by a factor, a point of the drawing staying where it is seen. */
export function zoomedAt(all: Box, view: View, point: readonly [number, number], factor: number): View {
  const zoom = bounded(view.zoom * factor);
  const kept = view.zoom / zoom;
  const [cx, cy] = [all.x + all.w / 2, all.y + all.h / 2];
  const from = (p: number, c: number, v: number): number => p - (p - (c + v)) * kept - c;
  return held(all, { zoom, x: from(point[0], cx, view.x), y: from(point[1], cy, view.y) });
}

/** Moved by so much of the drawing; some of it stays in sight. */
export const pannedBy = (all: Box, view: View, dx: number, dy: number): View =>
  held(all, { ...view, x: view.x + dx, y: view.y + dy });
function held(all: Box, view: View): View {
  const [mx, my] = [(all.w + all.w / view.zoom) * 0.45, (all.h + all.h / view.zoom) * 0.45];
  return { ...view, x: Math.min(mx, Math.max(-mx, view.x)), y: Math.min(my, Math.max(-my, view.y)) };
}

/** A part of the drawing in the middle, with some room about it. */
export function fittedTo(all: Box, part: Box): View {
  const zoom = bounded(0.8 * Math.min(all.w / Math.max(part.w, 1e-6), all.h / Math.max(part.h, 1e-6)));
  return held(all, {
    zoom,
    x: part.x + part.w / 2 - (all.x + all.w / 2),
    y: part.y + part.h / 2 - (all.y + all.h / 2),
  });
}
