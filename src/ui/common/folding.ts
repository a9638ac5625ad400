/** When a small picture folds: a few times once it is seen, once when it gets the focus, and while it is pointed at. */

const FRAME_MS = 90;

export interface Folding {
  readonly frames: number;
  /** So often there and back by itself: what moves for longer than five seconds must be stoppable (WCAG 2.2.2). */
  readonly rounds: number;
  readonly show: (frame: number) => void;
  /** Calls back once `target` is in sight; gives back how to end that. */
  readonly whenSeen: (target: Element, seen: () => void) => () => void;
}

/** The frame it rests at: well open. */
export const restingFrame = (frames: number): number => Math.floor(frames * 0.6);

/** @param target what is pointed at or gets the focus */
export function foldWhenAsked(target: Element, { frames, rounds, show, whenSeen }: Folding): () => void {
  const period = 2 * frames - 2;
  if (period <= 0) return () => undefined;
  let timer: ReturnType<typeof setInterval> | undefined;
  let step = 0;
  let last = rounds * period;
  let held = false;
  const stop = (): void => {
    clearInterval(timer);
    timer = undefined;
  };
  const tick = (): void => {
    step++;
    // There and back from where it rests, and a round is always gone to its end.
    const place = (restingFrame(frames) + step) % period;
    show(place < frames ? place : period - place);
    if (!held && step >= last && step % period === 0) stop();
  };
  const start = (): void => {
    timer ??= setInterval(tick, FRAME_MS);
  };
  const hold = (): void => {
    held = true;
    start();
  };
  const leave = (): void => {
    held = false;
    last = 0;
  };
  /** The focus may have been put there by the page: that is no wish that it goes on. */
  const once = (): void => {
    last = step + period;
    start();
  };
  const unseen = rounds > 0 ? whenSeen(target, start) : () => undefined;
  const events = { pointerenter: hold, pointerleave: leave, focus: once };
  for (const [name, act] of Object.entries(events)) target.addEventListener(name, act);
  return () => {
    unseen();
    stop();
    for (const [name, act] of Object.entries(events)) target.removeEventListener(name, act);
  };
}

export function whenInSight(target: Element, seen: () => void): () => void {
  const watch = new IntersectionObserver(([entry]) => {
    if (!entry.isIntersecting) return;
    watch.disconnect();
    seen();
  });
  watch.observe(target);
  return () => watch.disconnect();
}
