'use client';
import { useStudio } from '@/store/context';
import { shown } from '@/store/studio';
import { engine } from '@/workers/client';
import type { DrawnSweep } from '@/workers/protocol';
import { useAsk } from '../shapes/useAsk';
import { ringPath } from './ring-path';

/** What a hand sweeps over of the selected mechanism, wherever that lies; nothing of what no hand moves. */
export function useSweeps(): readonly DrawnSweep[] {
  const design = useStudio((s) => s.design);
  const drawn = useStudio((s) => shown(s) === s.design);
  const m = useStudio((s) => s.design.mechanisms.find((x) => x.id === s.selected));
  const key = m?.mount && drawn ? JSON.stringify([m.id, design.mechanisms, design.card, design.layers]) : '';
  const { value, busy } = useAsk(key, () => engine('shape').sweeps(design, m!.id));
  return busy ? [] : (value ?? []);
}

/** The way of what moves, drawn over what is there: nothing high may lie in it. */
export function FlatSweeps({ sweeps, piece }: { readonly sweeps: readonly DrawnSweep[]; readonly piece: string }) {
  return (
    <>
      {sweeps
        .filter((s) => s.piece === piece)
        .map((s) => (
          <path key={s.drive} className="line sweep" data-sweep={s.drive} d={ringPath(s.rings)} fillRule="evenodd" />
        ))}
    </>
  );
}
