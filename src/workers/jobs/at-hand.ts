/** What every job has at hand: the assembly of the newest design, the fonts it needs, and a way to answer. */
import type { Assembly } from '@/core/assembly/assembly';
import { buildAssembly } from '@/core/build/build';
import type { Design } from '@/core/document/design';
import { fromJoint, OPENING } from '@/core/drives';
import { fontShelved, fontsNamed, provideFont } from '@/core/shapes/fonts';
import type { Answer } from '../protocol';

/** A walk that takes longer is given up where it is, and the pose says so. */
const LONGEST_WALK_MS = 60_000;
/** A walk tells how far it is this often, ms. */
const ON_WAY_EVERY_MS = 250;

/** The newest design's assembly is kept: scrubbing asks for many poses of one design. */
let kept: { design: Design; assembly: Assembly } | null = null;
export async function assemblyOf(
  design: Design,
  onWay: (openDeg: number) => void = () => undefined,
): Promise<Assembly> {
  if (kept?.design !== design) {
    await fontsFor(design);
    kept = { design, assembly: buildAssembly(design) };
  }
  const { assembly } = kept;
  // Each question has its own time, counted from when it is asked.
  const began = performance.now();
  let said = began;
  assembly.travel.watch = (drive, lead) => {
    const now = performance.now();
    if (now - said > ON_WAY_EVERY_MS) {
      said = now;
      if (lead === 0) onWay(fromJoint(OPENING, drive));
    }
    return now - began < LONGEST_WALK_MS;
  };
  return assembly;
}

/** Fonts that a design or shape sets text in are fetched once each; what reads them comes with the first. */
export async function fontsFor(value: unknown): Promise<void> {
  const wanted = fontsNamed(value).filter((id) => !fontShelved(id));
  if (wanted.length === 0) return;
  const { readFontFile } = await import('@/core/shapes/font-file');
  await Promise.all(
    wanted.map(async (id) => {
      const response = await fetch(`/fonts/${id}`);
      if (!response.ok) throw new Error(`Font ${id} could not be loaded.`);
      const bytes = await response.arrayBuffer();
      provideFont(id, () => readFontFile(bytes));
    }),
  );
}

export async function answer<T>(work: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    return { ok: false, why: (error as Error).message };
  }
}

/** Answers from the value alone, once the fonts it names are there. */
export const withFonts = <T>(value: unknown, work: () => T | Promise<T>): Promise<Answer<T>> =>
  answer(async () => {
    await fontsFor(value);
    return work();
  });

/** Lets messages in, so that a newer request can end an older one. */
export const breathe = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
