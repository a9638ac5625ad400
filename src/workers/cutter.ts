/** The simulated cutter behind its worker: one run at a time, moved on as the page asks for more. */
import { exportDesign } from '@/core/formats/export';
import type { Assembly } from '@/core/assembly/assembly';
import type { Design } from '@/core/document/design';
import { PASSES, type MachineProfile } from '@/core/paper/machine';
import { thinLine } from '@/core/plane/polygon';
import { wayLength } from '@/core/plane/vec2';
import { tightCurves } from '@/core/cutting/blade';
import type { CutFile } from '@/core/simulate/cut-file';
import { readCutFile } from '@/core/simulate/read';
import { reportOf } from '@/core/simulate/report';
import { cutJob, CutRun } from '@/core/simulate/run';
import { meantBy } from '@/core/simulate/simulate';
import type { CutBegun, CutMore, CutWhat } from './protocol';

/** Ways are drawn with so few points that they stay this near, mm. */
const DRAWN_MM = 0.03;

interface Run {
  readonly run: CutRun;
  readonly file: CutFile;
  readonly against: CutFile | null;
  /** Strokes, and points of the last of them, that the page has been told. */
  told: number;
  toldPoints: number;
}
let now: Run | null = null;

/** The file as it is written for the machine, read back and made ready to cut. */
export async function beginCut(
  design: Design,
  assembly: Assembly,
  { sheet, bed, strip, format }: CutWhat,
  machine: MachineProfile,
): Promise<CutBegun> {
  const what = strip ? { strip: true } : bed !== undefined ? { bed } : { sheet: sheet ?? 0 };
  const written = async (as: CutWhat['format']): Promise<CutFile> => {
    const bytes = await exportDesign({ ...design, machine }, { format: as, ...what }, assembly);
    return readCutFile(new TextDecoder().decode(bytes), `x.${as}`);
  };
  const file = await written(format);
  const against = file.plain ? null : await written('svg');
  return begun(file, against, machine);
}

/** A file from elsewhere. */
export function beginFile(text: string, name: string, machine: MachineProfile): CutBegun {
  return begun(readCutFile(text, name), null, machine);
}

function begun(file: CutFile, against: CutFile | null, machine: MachineProfile): CutBegun {
  const job = cutJob(file, machine);
  now = { run: new CutRun(job), file, against, told: 0, toldPoints: 0 };
  const plain = (against ?? file).strokes.map((s) => ({ pass: s.pass ?? 'outline', points: s.points }));
  return {
    estimateS: job.estimateS,
    strokes: job.strokes.length,
    lengthMm: job.strokes.reduce((sum, s) => sum + wayLength(s.points), 0),
    lines: plain.map(({ pass, points }) => ({ pass, points: thinLine(points, DRAWN_MM) })),
    passes: PASSES.filter((p) => job.strokes.some((s) => s.pass === p)),
    tight: tightCurves(plain, machine.blade.leastRadiusMm),
    skipped: file.skipped,
  };
}

/** Until the machine's clock shows so much: what was cut since the last time. */
export function cutOn(seconds: number): CutMore {
  if (!now) throw new Error('nothing is being cut');
  const { run, file, against } = now;
  const state = run.until(seconds);
  const from = Math.max(0, now.told - 1);
  const strokes = run.traces.slice(from).map(({ pass, tip }, k) => {
    const start = k === 0 && now!.told > 0 ? Math.max(0, now!.toldPoints - 1) : 0;
    return { stroke: from + k, pass, points: thinLine(tip.slice(start), DRAWN_MM) };
  });
  now.told = run.traces.length;
  now.toldPoints = run.traces.at(-1)?.tip.length ?? 0;
  const report = state.done ? reportOf(run.job, run.traces, state.seconds, file, meantBy(file, against)) : null;
  return { ...state, strokes, report };
}
