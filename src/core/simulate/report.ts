/** What a run left on the sheet: parts cut free, paper left uncut, parts loose too soon, lines cut twice. */
import Flatbush from 'flatbush';
import { isCut, tightCurves, type TightCurve } from '../cutting/blade';
import type { Pass } from '../paper/machine';
import { boxOf, polygonArea, rectangle, subtract, thicken, thinLine, type Polygon, type Ring } from '../plane/polygon';
import { preparePolygon } from '../plane/prepared';
import { cross2, dist2, distToSegment, sub2, wayLength, type Vec2 } from '../plane/vec2';
import type { CutFile } from './cut-file';
import { heldAgainst, type Meant, type Spot } from './held-against';
import type { CutJob, Trace } from './run';
import { Pieces, samplesOf, type NumberedWay } from './ways';

export type { Spot } from './held-against';
export interface FreedPart {
  readonly outline: Ring;
  readonly holes: readonly Ring[];
  readonly areaMm2: number;
}
export interface CutReport {
  readonly seconds: number;
  readonly estimateS: number;
  readonly lengthMm: number;
  readonly passes: readonly {
    readonly tool: number;
    readonly pass: Pass;
    readonly lengthMm: number;
    readonly strokes: number;
  }[];
  readonly freed: readonly FreedPart[];
  readonly leftUncut: readonly Spot[];
  /** Where it is known what was meant: folds not scored, folds cut through, and lines worked where there is none. */
  readonly unscored: readonly Spot[];
  readonly cutThrough: readonly Spot[];
  readonly strayed: readonly Spot[];
  readonly looseEarly: readonly Spot[];
  readonly cutTwice: readonly Spot[];
  /** Of the lines that were meant, or of the file. */
  readonly tightCurves: readonly TightCurve[];
  readonly skipped: readonly string[];
}

/** What a knife parts, mm: what is this near to a cut is cut through. */
const KERF_MM = 0.05;
/** Parts smaller than this are crumbs between two runs of one cut, mm². */
const CRUMB_MM2 = 0.5;
/** Paper that stays whole over less than this tears off clean, mm. */
const UNCUT_FROM_MM = 0.12;
/** Ends of one line this near to each other are meant to meet, mm. */
const MEANT_TO_MEET_MM = 3;
/** Ways of the tip are kept with so few points that they stay this near, mm. */
const THIN_MM = 0.002;

/** @param meant lines that were to be cut and scored, where they are known */
export function reportOf(
  job: CutJob,
  traces: readonly Trace[],
  seconds: number,
  file: CutFile,
  meant: Meant | null,
): CutReport {
  const thin = traces.map((t): Trace => ({ ...t, tip: [...thinLine(t.tip, THIN_MM)] }));
  const cuts = thin.flatMap((t, stroke) => (isCut(t) ? [{ ...t, stroke }] : []));
  const freed = freedParts(cuts.map((c) => c.tip));
  const { leadInMm, overcutMm } = job.profile.blade;
  return {
    seconds,
    estimateS: job.estimateS,
    lengthMm: thin.reduce((sum, t) => sum + wayLength(t.tip), 0),
    passes: passesOf(thin),
    freed: freed.map((p) => ({ outline: p.outer, holes: p.holes, areaMm2: polygonArea(p) })),
    leftUncut: meant ? missed(meant.cuts, cuts) : openEnds(cuts),
    ...(meant ? heldAgainst(meant, thin) : { unscored: [], cutThrough: [], strayed: [] }),
    looseEarly: looseEarly(freed, thin),
    cutTwice: cutTwice(cuts, leadInMm + overcutMm + MEANT_TO_MEET_MM / 2),
    tightCurves: tightCurves(plainLines(job, meant), job.profile.blade.leastRadiusMm),
    skipped: file.skipped,
  };
}

/** Cuts as they are drawn: the way of a trailing axis has curves of its own. */
const plainLines = (job: CutJob, meant: Meant | null) =>
  meant ? meant.cuts.map((points) => ({ pass: 'outline' as const, points })) : job.strokes;

function passesOf(traces: readonly Trace[]): CutReport['passes'] {
  const out: { tool: number; pass: Pass; lengthMm: number; strokes: number }[] = [];
  for (const { tool, pass, tip } of traces) {
    const last = out.at(-1);
    const lengthMm = wayLength(tip);
    if (last && last.tool === tool && last.pass === pass) {
      last.lengthMm += lengthMm;
      last.strokes++;
    } else out.push({ tool, pass, lengthMm, strokes: 1 });
  }
  return out;
}

/** What hangs together no more with the sheet: pieces and waste. */
function freedParts(ways: readonly (readonly Vec2[])[]): Polygon[] {
  if (ways.length === 0) return [];
  const { min, max } = boxOf(ways.flat());
  const sheet = rectangle(min[0] - 10, min[1] - 10, max[0] + 10, max[1] + 10);
  const parts = subtract([{ outer: sheet, holes: [] }], thicken(ways, KERF_MM / 2));
  const border = min[0] - 10 + KERF_MM;
  return parts.filter((p) => polygonArea(p) > CRUMB_MM2 && boxOf(p.outer).min[0] > border);
}

/** Where a line that was meant was passed by: each stretch once, at its worst. */
function missed(meant: readonly (readonly Vec2[])[], cuts: readonly NumberedWay[]): Spot[] {
  const pieces = new Pieces(cuts);
  return meant.flatMap((way) => {
    const out: Spot[] = [];
    let worst: Spot | null = null;
    for (const { p } of samplesOf(way)) {
      const mm = pieces.distance(p);
      if (mm > UNCUT_FROM_MM) worst = !worst || mm > worst.mm ? { at: p, mm } : worst;
      else if (worst) {
        out.push(worst);
        worst = null;
      }
    }
    return worst ? [...out, worst] : out;
  });
}

/** Lines that come back to their start and do not reach it. */
function openEnds(cuts: readonly NumberedWay[]): Spot[] {
  return cuts.flatMap(({ tip }): Spot[] => {
    const length = wayLength(tip);
    const start = tip[0];
    let gap = Infinity;
    for (const { p, along } of samplesOf(tip)) if (along > length / 2) gap = Math.min(gap, dist2(p, start));
    const back = tip
      .slice(1)
      .reduce(
        (best, b, k) => (k >= (tip.length - 1) / 2 ? Math.min(best, distToSegment(start, tip[k], b)) : best),
        gap,
      );
    return length > 2 * MEANT_TO_MEET_MM && back > UNCUT_FROM_MM && back < MEANT_TO_MEET_MM
      ? [{ at: start, mm: back }]
      : [];
  });
}

/** What is still to be worked within parts after the last of their edge is cut. */
function looseEarly(parts: readonly Polygon[], traces: readonly Trace[]): Spot[] {
  if (traces.length === 0) return [];
  const index = new Flatbush(traces.length);
  for (const { tip } of traces) {
    const { min, max } = boxOf(tip);
    index.add(min[0], min[1], max[0], max[1]);
  }
  index.finish();
  return parts.flatMap((part) => {
    const { min, max } = boxOf(part.outer);
    const near = index.search(min[0] - 1, min[1] - 1, max[0] + 1, max[1] + 1).sort((a, b) => a - b);
    return workedIn(part, traces, near);
  });
}

/** @param near traces that come near the part, in the order of work */
function workedIn(part: Polygon, traces: readonly Trace[], near: readonly number[]): Spot[] {
  const ring = preparePolygon({ outer: part.outer, holes: [] });
  const { min, max } = boxOf(part.outer);
  const nearBox = ([x, y]: Vec2): boolean => x > min[0] - 1 && y > min[1] - 1 && x < max[0] + 1 && y < max[1] + 1;
  const onRing = (p: Vec2): boolean => nearBox(p) && ring.distanceToEdge(p) < 2 * KERF_MM;
  const within = (p: Vec2): boolean => nearBox(p) && ring.contains(p) && ring.distanceToEdge(p) > 3 * KERF_MM;
  const last = near.reduce((best, k) => (isCut(traces[k]) && someSample(traces[k], onRing) ? k : best), -1);
  return near.flatMap((k): Spot[] => {
    const inside = k > last ? someSample(traces[k], within) : null;
    return inside ? [{ at: inside, mm: wayLength(traces[k].tip) }] : [];
  });
}
/** The first place of a trace of which something holds. */
function someSample({ tip }: Trace, holds: (p: Vec2) => boolean): Vec2 | null {
  for (const { p } of samplesOf(tip)) if (holds(p)) return p;
  return null;
}

/** Stretches that run along an earlier cut for longer than ends that are gone over on purpose. */
function cutTwice(cuts: readonly NumberedWay[], allowedMm: number): Spot[] {
  const pieces = new Pieces(cuts);
  return cuts.flatMap(({ tip, stroke }) => {
    const out: Spot[] = [];
    let run: readonly [at: Vec2, from: number, to: number] | null = null;
    const end = (): void => {
      if (run && run[2] - run[1] > allowedMm) out.push({ at: run[0], mm: run[2] - run[1] });
      run = null;
    };
    for (const { p, along, u } of samplesOf(tip)) {
      const twice = pieces.near(p, KERF_MM).some((o) => {
        const earlier =
          o.stroke < stroke || (o.stroke === stroke && o.from + dist2(o.a, o.b) < along - 2 * MEANT_TO_MEET_MM);
        const v = sub2(o.b, o.a);
        return earlier && Math.abs(cross2(u, v)) < PARALLEL_SINE * Math.hypot(...v);
      });
      if (!twice) end();
      else run = run ? [run[0], run[1], along] : [p, along, along];
    }
    end();
    return out;
  });
}
/** Cuts that meet at less than this run along each other. */
const PARALLEL_SINE = 0.1;
