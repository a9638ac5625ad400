/** What a cutter is given, whatever language it is written in: strokes of numbered tools, in their order. */
import type { Pass } from '../paper/machine';
import type { Vec2 } from '../plane/vec2';

export interface Stroke {
  /** Number of the tool; 0 where the file names none. */
  readonly tool: number;
  /** What the stroke is for, where the file says that. */
  readonly pass: Pass | null;
  /** From where it is lowered to where it is lifted, mm, y up. */
  readonly points: readonly Vec2[];
}
export interface CutFile {
  readonly strokes: readonly Stroke[];
  /** The lines themselves: what the machine has to make up for is not in them. */
  readonly plain: boolean;
  /** What of it was not understood, with its place. */
  readonly skipped: readonly string[];
}

/** Thrown with what is wrong, where, and what would be right. */
export class CutFileError extends Error {}

/** Larger files are no sheet of a card (characters). */
export const LARGEST_CUT_FILE = 24_000_000;
/** Points of all strokes together. */
export const MOST_POINTS = 1_000_000;
/** How far from the origin a tool may go, mm. */
export const FARTHEST_MM = 1e5;
/** What is skipped is told this many times. */
const MOST_SKIPPED = 20;

/** Collects strokes while a file is read. */
export class StrokeCollector {
  private readonly strokes: { tool: number; pass: null; points: Vec2[] }[] = [];
  private readonly skipped: string[] = [];
  private count = 0;
  tool = 0;
  at: Vec2 = [0, 0];
  down = false;

  lower(): void {
    if (!this.down) this.strokes.push({ tool: this.tool, pass: null, points: [this.at] });
    this.down = true;
  }
  lift(): void {
    this.down = false;
  }
  /** Moves on, working where the tool is down. */
  move(to: Vec2, where: string): void {
    if (!to.every((v) => Math.abs(v) <= FARTHEST_MM)) {
      const place = to.map((v) => Number(v.toPrecision(4))).join(', ');
      throw new CutFileError(`${where} goes to ${place} mm; a tool stays within ${FARTHEST_MM} mm`);
    }
    if (++this.count > MOST_POINTS) throw new CutFileError(`the file has more than ${MOST_POINTS} moves`);
    this.at = to;
    if (this.down) this.strokes.at(-1)!.points.push(to);
  }
  skip(what: string): void {
    if (this.skipped.length < MOST_SKIPPED) this.skipped.push(what);
  }
  finish(): CutFile {
    return { strokes: this.strokes.filter((s) => s.points.length > 1), plain: false, skipped: this.skipped };
  }
}
