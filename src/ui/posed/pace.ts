/** How much is drawn while things move: less where a machine is slow, everything again at rest. */

/** What a level leaves out; 0 is everything. */
export interface Level {
  readonly shadows: boolean;
  /** Pixels drawn for a pixel of the page, each way: with more than one there is no need to smooth edges. */
  readonly pixels: number;
}
export const LEVELS: readonly Level[] = [
  { shadows: true, pixels: 2 },
  { shadows: true, pixels: 1 },
  { shadows: false, pixels: 1 },
  { shadows: false, pixels: 0.75 },
  { shadows: false, pixels: 0.5 },
];

/** Longer than this between two frames of a movement is felt, ms: 30 a second need less. */
const SLOW_MS = 26;
/** So much shorter, and more can be drawn: the next level up costs at most about twice as much. */
const QUICK_MS = 12;
/** Longer than this, and it was a pause, ms. */
const PAUSE_MS = 400;
/** So slow that one frame is enough to know, ms. */
const CRAWL_MS = 70;
/** A level is judged by so many frames. */
const FRAMES = 4;
/** Going back up is tried this seldom, so that it does not flicker. */
const FRAMES_UP = 40;

/** Watches the times between frames of movements, and says how much to draw. */
export class Pace {
  private level = 0;
  private last: number | null = null;
  private slow = 0;
  private quick = 0;

  /** A frame of a movement at a time, ms. Returns the level for the next. */
  frame(now: number): number {
    const took = this.last === null ? null : now - this.last;
    this.last = now;
    if (took === null || took > PAUSE_MS) return this.level;
    this.slow = took > SLOW_MS ? this.slow + 1 : 0;
    this.quick = took < QUICK_MS ? this.quick + 1 : 0;
    if ((this.slow >= FRAMES || took > CRAWL_MS) && this.level < LEVELS.length - 1) this.to(this.level + 1);
    else if (this.quick >= FRAMES_UP && this.level > 0) this.to(this.level - 1);
    return this.level;
  }
  /** The movement is over; the next one begins where this one came to. */
  rest(): void {
    this.last = null;
    this.slow = this.quick = 0;
  }
  private to(level: number): void {
    this.level = level;
    this.slow = this.quick = 0;
  }
}
