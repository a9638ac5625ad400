'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Design } from '@/core/document/design';
import { useStudio } from '@/store/context';
import { engine, newestWins } from '@/workers/client';
import type { Answer, InHold } from '@/workers/protocol';

interface Found {
  readonly design: Design;
  readonly id: string;
  readonly hold: InHold;
}

/**
 * What of the selected mechanism can be taken hold of; of the card as it is kept, not of a preview. `late`: the grips
 * are still those of an earlier card.
 */
export function useGrips(): InHold & { readonly late: boolean } {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const [found, setFound] = useState<Found | null>(null);
  const ask = useMemo(
    () =>
      newestWins(
        async (d: Design, id: string): Promise<Answer<Found>> => {
          const answer = await engine('study').grips(d, id);
          return answer.ok ? { ok: true, value: { design: d, id, hold: answer.value } } : answer;
        },
        (answer) => {
          if (answer.ok) setFound(answer.value);
        },
      ),
    [],
  );
  useEffect(() => ask(design, selected), [ask, design, selected]);
  if (!found || found.id !== selected) return { ...NONE, late: true };
  // While new ones are looked for the old ones stay, so that what is focused stays so; numbers in wrong places do not.
  if (found.design !== design) return { ...found.hold, dimensions: NONE.dimensions, late: true };
  return { ...found.hold, late: false };
}
const NONE: InHold = { grips: [], own: { ends: [], slides: [], corners: [], around: [] }, dimensions: [] };
