/** A search over several workers: each looks into slabs of its own, so the answers are those of one worker. */
import {
  ALL_SLABS,
  chosenOf,
  valuesNow,
  type Candidate,
  type TargetAsk,
  type TargetResult,
} from '@/core/decide/target';
import type { Design } from '@/core/document/design';
import type { Answer, Engine } from './protocol';

/** What looks into slabs. */
type Hand = Pick<Engine, 'slabs'>;

/** Slabs dealt out, those of each hand in their order; a processor stays for the interface. */
export function dealt(processors: number): readonly (readonly number[])[] {
  const hands = Math.min(ALL_SLABS.length, Math.max(1, processors - 1));
  return Array.from({ length: hands }, (_, k) => ALL_SLABS.filter((slab) => slab % hands === k));
}

/**
 * @param handAt the engine that looks into the k-th hand of slabs
 * @param onPart told how much is done, 0 to 1
 */
export async function searchOn(
  hands: readonly (readonly number[])[],
  handAt: (k: number) => Hand,
  design: Design,
  ask: TargetAsk,
  onPart: (part: number) => void,
): Promise<Answer<TargetResult>> {
  const parts = hands.map(() => 0);
  const all = hands.reduce((sum, h) => sum + h.length, 0);
  const answers = await Promise.all(
    hands.map((slabs, k) =>
      handAt(k).slabs(design, ask, slabs, (part) => {
        parts[k] = part * (slabs.length / all);
        onPart(parts.reduce((a, b) => a + b, 0));
      }),
    ),
  );
  const candidates: Candidate[] = [];
  for (const answer of answers) {
    if (!answer.ok) return answer;
    candidates.push(...answer.value);
  }
  // In the order of the slabs, as one worker would find them.
  candidates.sort((a, b) => a.slab - b.slab);
  return { ok: true, value: chosenOf(ask, valuesNow(design, ask), candidates) };
}
