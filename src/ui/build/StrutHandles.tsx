'use client';
import { useState, type PointerEvent } from 'react';
import { KINDS, listOf, type ListItem } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import { isPartNamed, isPartOf } from '@/core/ids';
import type { Design } from '@/core/document/design';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { piecePoint } from './piece-point';

/**
 * Grips on the struts and feet of the selected figure, in the flat view: drag one along, and all of its row are by
 * hand from then on.
 */
export function StrutHandles({ scene, piece }: { scene: Scene; piece: string }) {
  const kept = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const { edit, showPreview } = useActions();
  const [held, setHeld] = useState<{ key: 'struts' | 'feet'; k: number; x: number; start: Design } | null>(null);
  const m = kept.mechanisms.find((x) => x.id === selected);
  if (!m || !KINDS.get(m.kind)?.editors?.includes('struts')) return null;
  const { units } = scene.design;
  const rows = (['struts', 'feet'] as const).map((key) => ({
    key,
    spots: scene.creases
      .filter(
        (c) => c.piece === piece && isPartOf(c.id, m.id) && isPartNamed(c.id, key === 'struts' ? 'ridge' : 'foot'),
      )
      .map((c) => {
        const [a, b] = [c.segments[0].a, c.segments[c.segments.length - 1].b];
        return { id: c.id, x: (a[0] + b[0]) / 2, y: (a[1] + b[1]) / 2, width: Math.hypot(b[0] - a[0], b[1] - a[1]) };
      }),
  }));
  const spots = (key: 'struts' | 'feet') => rows.find((r) => r.key === key)!.spots;
  const middle = (d: Design): number => {
    const host = scene.hosts.find((h) => h.crease === m.on);
    return (host?.x ?? 0) + (valuesOf(d.mechanisms.find((x) => x.id === m.id)!).offset as number);
  };
  /** Places by hand: those of the list, or those found. */
  const byHand = (d: Design, key: 'struts' | 'feet'): readonly ListItem[] => {
    const now = valuesOf(d.mechanisms.find((x) => x.id === m.id)!)[key];
    return now === 'auto'
      ? spots(key).map((s) => ({ x: round(s.x - middle(d)), width: round(s.width) }))
      : listOf(valuesOf(d.mechanisms.find((x) => x.id === m.id)!), key);
  };
  const toPiece = (e: PointerEvent<SVGGraphicsElement>): number => piecePoint(e.currentTarget, e.clientX, e.clientY)[0];
  const moved = (e: PointerEvent<SVGGraphicsElement>): Design => {
    const { key, k, x, start } = held!;
    const items = byHand(start, key);
    return setParameter(
      start,
      m.id,
      key,
      items.map((item, i) => (i === k ? { ...item, x: round((item.x as number) + toPiece(e) - x) } : item)),
    );
  };
  return (
    <g>
      {rows.flatMap(({ key, spots: list }) =>
        list.map((s, k) => (
          <circle
            key={s.id}
            data-handle={s.id}
            cx={s.x}
            cy={s.y}
            r={Math.max(1.6, Math.min(3, s.width / 3))}
            fill="var(--sheet)"
            stroke="var(--accent)"
            strokeWidth="1.6"
            style={{ vectorEffect: 'non-scaling-stroke', cursor: 'ew-resize', touchAction: 'none' }}
            onPointerDown={(e) => {
              e.stopPropagation();
              e.currentTarget.setPointerCapture(e.pointerId);
              setHeld({ key, k, x: toPiece(e), start: kept });
            }}
            onPointerMove={(e) => held?.key === key && held.k === k && showPreview(moved(e))}
            onPointerUp={(e) => {
              if (held && Math.abs(toPiece(e) - held.x) > 0.05) {
                const next = moved(e);
                edit(`move ${key === 'struts' ? 'strut' : 'foot'} ${k + 1}`, () => next);
              }
              showPreview(null);
              setHeld(null);
            }}
          >
            <title>
              {`${key === 'struts' ? 'Strut' : 'Foot'} ${k + 1}, ${formatSaid(s.width, units)} wide: drag along`}
            </title>
          </circle>
        )),
      )}
    </g>
  );
}
const round = (v: number): number => Math.round(v * 20) / 20 + 0;
