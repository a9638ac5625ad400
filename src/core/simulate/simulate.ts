/** A file cut from its beginning to its end at once: for the command line and tests. */
import { isCut } from '../cutting/blade';
import type { MachineProfile, Pass } from '../paper/machine';
import type { Vec2 } from '../plane/vec2';
import type { CutFile } from './cut-file';
import type { Meant } from './held-against';
import { reportOf, type CutReport } from './report';
import { cutJob, CutRun } from './run';

/** @param against the plain lines that were meant; those of the file itself where it holds them */
export function simulate(file: CutFile, profile: MachineProfile, against: CutFile | null = null): CutReport {
  const job = cutJob(file, profile);
  const run = new CutRun(job);
  const { seconds } = run.until(Infinity);
  return reportOf(job, run.traces, seconds, file, meantBy(file, against));
}

/** Lines to be cut and scored, as they are drawn; null where only a tool's way is known. */
export function meantBy(file: CutFile, against: CutFile | null): Meant | null {
  const drawn = against ?? (file.plain ? file : null);
  if (!drawn) return null;
  const of = (wanted: (pass: Pass) => boolean): (readonly Vec2[])[] =>
    drawn.strokes.filter((s) => s.pass !== null && wanted(s.pass)).map((s) => s.points);
  return { cuts: of((pass) => isCut({ pass })), scores: of((pass) => pass === 'score') };
}
