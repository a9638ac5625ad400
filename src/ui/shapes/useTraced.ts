'use client';
import { useEffect, useRef, useState } from 'react';
import type { Raster, TraceWishes } from '@/core/shapes/trace';
import { engine, newestWins } from '@/workers/client';
import type { Brought } from '@/workers/protocol';

/** The outline that a picture has as it is wished for, or why it has none; the last wish wins. */
export function useTraced(raster: Raster | null, wishes: TraceWishes) {
  const [found, setFound] = useState<Brought | null>(null);
  const [why, setWhy] = useState<string | null>(null);
  const ask = useRef<ReturnType<typeof newestWins<[Raster, TraceWishes], Brought>> | null>(null);
  useEffect(() => {
    if (!raster) return;
    ask.current ??= newestWins(
      (r: Raster, w: TraceWishes) => engine('shape').trace(r, w),
      (answer) => {
        setFound(answer.ok ? answer.value : null);
        setWhy(answer.ok ? null : answer.why);
      },
    );
    ask.current(raster, wishes);
  }, [raster, wishes]);
  return { found, why, setWhy };
}
