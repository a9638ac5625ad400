/**
 * What was worked, held against what was meant: folds that no score follows, folds that are cut through, and tools that
 * went where no line was. Each stretch is told once, where it is furthest off. mm, y up.
 */
import { isCut } from '../cutting/blade';
import { cross2, sub2, type Vec2 } from '../plane/vec2';
import type { Trace } from './run';
import { Pieces, samplesOf } from './ways';

export interface Spot {
  readonly at: Vec2;
  /** How far off, or how long. */
  readonly mm: number;
}
/** Lines as the card has them. */
export interface Meant {
  readonly cuts: readonly (readonly Vec2[])[];
  readonly scores: readonly (readonly Vec2[])[];
}

/** A tool this near to a line follows it, mm: a blade's tip rounds corners by less. */
const FOLLOWS_MM = 0.25;
/** Shorter stretches are where lines cross or a tip is lowered, mm. */
const STRETCH_FROM_MM = 0.9;
/** Lines that meet at less than this (sine) run along each other. */
const ALONG_SINE = 0.2;

const asWays = (lines: readonly (readonly Vec2[])[]) => lines.map((tip, stroke) => ({ tip, stroke }));

export function heldAgainst(
  { cuts, scores }: Meant,
  traces: readonly Trace[],
): { unscored: Spot[]; cutThrough: Spot[]; strayed: Spot[] } {
  const [cutLines, scoreLines] = [new Pieces(asWays(cuts)), new Pieces(asWays(scores))];
  const scored = new Pieces(asWays(traces.filter((t) => t.pass === 'score').map((t) => t.tip)));
  const knives = traces.filter(isCut);
  const follows = (lines: Pieces, p: Vec2): boolean => lines.near(p, FOLLOWS_MM).length > 0;
  const runsAlong = (lines: Pieces, p: Vec2, u: Vec2): boolean =>
    lines.near(p, FOLLOWS_MM).some(({ a, b }) => {
      const v = sub2(b, a);
      return Math.abs(cross2(u, v)) < ALONG_SINE * Math.hypot(...v);
    });
  return {
    unscored: scores.flatMap((way) =>
      stretches(
        way,
        (p) => !follows(scored, p),
        (p) => scored.distance(p),
      ),
    ),
    cutThrough: knives.flatMap(({ tip }) =>
      stretches(tip, (p, u) => !follows(cutLines, p) && runsAlong(scoreLines, p, u), null),
    ),
    strayed: [
      ...knives.map((t) => ({ tip: t.tip, lines: [cutLines, scoreLines] })),
      ...traces.filter((t) => t.pass === 'score').map((t) => ({ tip: t.tip, lines: [scoreLines, cutLines] })),
    ].flatMap(({ tip, lines }) =>
      stretches(
        tip,
        (p) => lines.every((l) => !follows(l, p)),
        (p) => Math.min(...lines.map((l) => l.distance(p))),
      ),
    ),
  };
}

/**
 * Stretches of a way on which something holds, each with its worst place.
 * @param off how far off a place is; where there is none the stretch's length is told, at its middle
 */
function stretches(
  way: readonly Vec2[],
  holds: (p: Vec2, u: Vec2) => boolean,
  off: ((p: Vec2) => number) | null,
): Spot[] {
  const out: Spot[] = [];
  let run: { p: Vec2; along: number }[] = [];
  const end = (): void => {
    const mm = run.length > 0 ? run[run.length - 1].along - run[0].along : 0;
    if (mm >= STRETCH_FROM_MM) {
      const worst = off ? run.reduce((w, r) => (off(r.p) > off(w.p) ? r : w)) : run[run.length >> 1];
      out.push({ at: worst.p, mm: off ? Math.min(off(worst.p), 1e4) : mm });
    }
    run = [];
  };
  for (const { p, along, u } of samplesOf(way)) {
    if (holds(p, u)) run.push({ p, along });
    else end();
  }
  end();
  return out;
}
