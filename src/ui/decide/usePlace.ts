'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Judgement } from '@/core/decide/map';
import type { Free } from '@/core/decide/target';
import type { Measured } from '@/core/decide/wants';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { useAsk } from '../shapes/useAsk';
import type { Place } from './map-place';

/** A pointer that rests so long is asked about, ms. */
const RESTS_MS = 120;

/** What is known of just this place, and not of the cell it lies in; null until it is. */
export function usePlace(x: Free, y: Free, measure: Measured | null, at: Place): Judgement | null {
  const design = useStudio((s) => s.design);
  const card = useMemo(() => JSON.stringify(design), [design]);
  const now = JSON.stringify([x, y, measure, at]) + card;
  const [rested, setRested] = useState('');
  useEffect(() => {
    const timer = setTimeout(() => setRested(now), RESTS_MS);
    return () => clearTimeout(timer);
  }, [now]);
  // What has not rested yet is not asked about.
  const { value, busy } = useAsk(rested === now ? now : '', () => engine('study').place(design, { x, y, measure }, at));
  return busy ? null : value;
}
