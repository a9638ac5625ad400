/** The simulated cutter behind its worker: one run at a time, moved on as the page asks for more. */
import { exportDesign } from '@/core/formats/export';
import type { Assembly } from '@/core/assembly/assembly';
import type { Design } from '@/core/document/design';
import { PASSES, type MachineProfile } from '@/core/paper/machine';
import { artOfDrawing, placedArtwork } from '@/core/build/artwork';
import { mapRegion, thinLine } from '@/core/plane/polygon';
import { dist2, wayLength, type Vec2 } from '@/core/plane/vec2';
import { layOut } from '@/core/sheets/lay-out';
import { onSheet } from '@/core/sheets/layout';
import { marksOf, matchMarks, moveBy, turnOf, type Similarity } from '@/core/sheets/registration';
import { findSpots, scanPage } from '@/core/simulate/scan';
import { tightCurves } from '@/core/cutting/blade';
import type { CutFile } from '@/core/simulate/cut-file';
import { readCutFile } from '@/core/simulate/read';
import { reportOf } from '@/core/simulate/report';
import { cutJob, CutRun } from '@/core/simulate/run';
import { meantBy } from '@/core/simulate/simulate';
import type { CutBegun, CutMore, CutWhat, Scanned } from './protocol';

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
  { sheet, bed, strip, format, lies }: CutWhat,
  machine: MachineProfile,
): Promise<CutBegun> {
  const what = strip ? { strip: true } : bed !== undefined ? { bed } : { sheet: sheet ?? 0 };
  const written = async (as: CutWhat['format']): Promise<CutFile> => {
    const bytes = await exportDesign({ ...design, machine }, { format: as, ...what }, assembly);
    return readCutFile(new TextDecoder().decode(bytes), `x.${as}`);
  };
  const file = await written(format);
  const against = file.plain ? null : await written('svg');
  if (!lies || sheet === undefined) return begun(file, against, machine);
  const { fit, scanned } = scanSheet(design, assembly, sheet, lies);
  return begun(movedFile(file, fit), against && movedFile(against, fit), machine, scanned);
}

/** Marks are printed at 300 to the inch and looked at with this many px to the mm, with some noise (grey levels). */
const SCAN = { pxPerMm: 4, noise: 8, seed: 1 };

/** A picture of the printed sheet as it lies, and what the marks in it say. */
function scanSheet(design: Design, assembly: Assembly, index: number, lies: NonNullable<CutWhat['lies']>) {
  const sheet = layOut(design, assembly).sheets[index];
  const t = (lies.turnDeg * Math.PI) / 180;
  const truly = { a: Math.cos(t), b: Math.sin(t), dx: lies.dx, dy: lies.dy };
  const arts = placedArtwork(design, assembly);
  const printed = sheet.placed.flatMap((p) =>
    artOfDrawing(arts, p.drawing.id, 'inside').flatMap((a) => mapRegion(a.printed, (q) => onSheet(p, q))),
  );
  const { widthMm, heightMm } = sheet;
  const marks = marksOf(sheet);
  const fit = matchMarks(findSpots(scanPage({ widthMm, heightMm, marks, printed, lies: truly, ...SCAN })), marks);
  if (!fit) throw new Error('the marks were not found; lay the print nearer to where it belongs');
  const corners: Vec2[] = [[0, 0], [widthMm, 0], [0, heightMm], [widthMm, heightMm]]; // prettier-ignore
  const errorMm = Math.max(...corners.map((c) => dist2(moveBy(fit, c), moveBy(truly, c))));
  return { fit, scanned: { dx: fit.dx, dy: fit.dy, turnDeg: turnOf(fit), errorMm } };
}

const movedFile = (file: CutFile, fit: Similarity): CutFile => ({
  ...file,
  strokes: file.strokes.map((s) => ({ ...s, points: s.points.map((p) => moveBy(fit, p)) })),
});

/** A file from elsewhere. */
export function beginFile(text: string, name: string, machine: MachineProfile): CutBegun {
  return begun(readCutFile(text, name), null, machine);
}

function begun(
  file: CutFile,
  against: CutFile | null,
  machine: MachineProfile,
  scanned: Scanned | null = null,
): CutBegun {
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
    scanned,
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
