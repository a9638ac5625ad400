/** Studies, maps and judgements as the interface shows them. */
import { facetOutline, poseAt } from '@/core/assembly/pose';
import { buildAssembly } from '@/core/build/build';
import { Maker } from '@/core/decide/fitness';
import { forgivingOf } from '@/core/decide/forgiving';
import { mapSteps, type MapAsk, type MapCell } from '@/core/decide/map';
import { studySteps, summaryOf, type Share, type Study, type StudyAsk } from '@/core/decide/study';
import { STEP_UNIT, wordsOfStep } from '@/core/decide/words';
import { worstCards } from '@/core/decide/worst';
import type { Design } from '@/core/document/design';
import { openOf, type State } from '@/core/drives';
import { drawPicture } from '@/core/formats/picture';
import { ringsOf } from '@/core/plane/polygon';
import { prove } from '@/core/proof/prove';
import type { Judged, ToldStudy, ToldWorst } from './protocol';

/** What is worked out is told this often, ms. */
const TOLD_EVERY_MS = 150;

/** Runs a generator to its end, telling now and then, and letting messages in. */
async function told<T>(steps: Generator<T, T>, breathe: () => Promise<void>, onMore: (value: T) => void): Promise<T> {
  for (let last = performance.now(); ;) {
    const next = steps.next();
    if (next.done) return next.value;
    if (performance.now() - last < TOLD_EVERY_MS) continue;
    last = performance.now();
    onMore(next.value);
    await breathe();
  }
}

export const makeMap = (
  design: Design,
  ask: MapAsk,
  breathe: () => Promise<void>,
  onMore: (cells: readonly MapCell[]) => void,
): Promise<readonly MapCell[]> => told(mapSteps(design, ask), breathe, onMore);

/** Outlines of the facets, in the plane of the table. */
const seenFromAbove = ({ assembly, pose }: ReturnType<Maker['stood']>[number]): ToldWorst['rings'] =>
  assembly.facets.map(({ mechanism }, i) => ({
    mechanism,
    ring: facetOutline(pose, assembly.facets, i).map(([x, y]) => [x, y] as const),
  }));

export async function makeStudy(
  design: Design,
  ask: StudyAsk,
  breathe: () => Promise<void>,
  onMore: (study: ToldStudy) => void,
): Promise<ToldStudy> {
  const titles = new Map(buildAssembly(design).pieces.map((p) => [p.id, p.title]));
  const words = (step: Parameters<typeof wordsOfStep>[1]): string => wordsOfStep(design, step, (id) => titles.get(id));
  const shares = (list: readonly Share[]) => list.map((s) => ({ what: words(s), sharePct: s.sharePct }));
  const tell = (study: Study): ToldStudy => ({
    done: false,
    summary: summaryOf(study),
    overhangs: study.samples.flatMap((s) => s.overhangMm ?? []),
    gaps: study.samples.flatMap((s) => s.closedGapMm ?? []),
    overhangShares: shares(study.overhangShares),
    closingShares: shares(study.closingShares),
    worst: [],
    forgiving: [],
  });
  const all = await told(studySteps(design, ask), breathe, (s) => onMore(tell(s)));
  onMore(tell(all));
  await breathe();
  const maker = new Maker(design, ask.scatter);
  const worst = worstCards(design, ask.scatter).map(({ of, fitness, amounts, astray }) => {
    const stood = maker.stood(amounts);
    return {
      of,
      fitness,
      stood: stood.map(({ assembly, pose }) => ({
        openDeg: openOf(pose.state),
        picture: drawPicture(design, assembly, pose),
      })),
      rings: stood.filter(({ pose }) => openOf(pose.state) === 0).flatMap(seenFromAbove),
      astray: astray.map((a) => ({ what: words(a), by: a.by, unit: STEP_UNIT[a.kind] })),
    };
  });
  onMore({ ...tell(all), worst });
  await breathe();
  return { ...tell(all), done: true, worst, forgiving: forgivingOf(design, all) };
}

export function judgeNow(design: Design, state: State): Judged {
  const assembly = buildAssembly(design);
  const pose = poseAt(assembly, state);
  return {
    proof: prove(design),
    picture: pose.stop ? null : drawPicture(design, assembly, pose, {}),
    pieces: assembly.pieces.map((p) => ({
      id: p.id,
      rings: ringsOf(p.outline),
      folds: assembly.creases.filter((c) => c.piece === p.id).flatMap((c) => c.segments),
    })),
  };
}
