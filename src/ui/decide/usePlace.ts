'use client';
import { useEffect, useState } from 'react';
import type { Judgement } from '@/core/decide/map';
import type { Free } from '@/core/decide/target';
import type { Measured } from '@/core/decide/wants';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { Place } from './map-place';

/** A pointer that rests so long is asked about, ms. */
const RESTS_MS = 120;

/** What is known of just this place, and not of the cell it lies in; null until it is. */
export function usePlace(x: Free, y: Free, measure: Measured | null, [across, up]: Place): Judgement | null {
  const design = useStudio((s) => s.design);
  const [known, setKnown] = useState<{ readonly of: string; readonly judgement: Judgement } | null>(null);
  const of = JSON.stringify([x, y, measure, across, up]);
  useEffect(() => {
    let live = true;
    const asked = setTimeout(() => {
      void engine('study')
        .place(design, { x, y, measure }, [across, up])
        .then((answer) => {
          if (live && answer.ok) setKnown({ of, judgement: answer.value });
        });
    }, RESTS_MS);
    return () => {
      live = false;
      clearTimeout(asked);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `of` says it all
  }, [design, of]);
  return known?.of === of ? known.judgement : null;
}
