'use client';
import { useMemo } from 'react';
import { CARD } from '@/core/ids';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { ringPath } from './FlatSheet';

interface LightsProps {
  readonly scene: Scene;
  readonly piece: string;
}

/** Facets that are pointed at, chosen, or that a finding is about; only these are drawn anew with the pointer. */
export function FacetLights({ scene, piece }: LightsProps) {
  const selected = useStudio((s) => s.selected);
  const chosen = useStudio((s) => s.facet);
  const lit = useStudio((s) => s.lit);
  const findings = useStudio((s) => s.proof?.findings);
  const bad = useMemo(
    () => new Set(findings?.filter((f) => f.severity === 'blocks').flatMap((f) => f.subjects)),
    [findings],
  );
  return (
    <g pointerEvents="none">
      {scene.facets
        .filter((f) => f.piece === piece)
        .map((f) => {
          const on = lit.includes(f.id) || chosen === f.id;
          const mine = f.mechanism === selected && selected !== CARD;
          if (!on && !mine && !bad.has(f.id)) return null;
          return (
            <path
              key={f.id}
              data-lit={f.id}
              d={ringPath(f.rings)}
              fillRule="evenodd"
              fill={on ? 'var(--accent-wash)' : 'none'}
              stroke={bad.has(f.id) ? 'var(--bad)' : 'var(--accent)'}
              // Strips of what bends have no edges between them.
              strokeWidth={f.bent ? 0 : 1.6}
              style={{ vectorEffect: 'non-scaling-stroke' }}
            />
          );
        })}
    </g>
  );
}

/** Creases and glue that are pointed at. */
export function CreaseLights({ scene, piece }: LightsProps) {
  const lit = useStudio((s) => s.lit);
  if (lit.length === 0) return null;
  const named = new Set(lit);
  return (
    <>
      {scene.creases
        .filter((c) => c.piece === piece && named.has(c.id))
        .flatMap((c, i) =>
          c.segments.map((s, k) => (
            <path key={`${c.id}${i}.${k}`} className={`line ${c.role} lit`} d={`M${s.a.join(' ')}L${s.b.join(' ')}`} />
          )),
        )}
      {scene.glue
        .filter((g) => g.piece === piece && named.has(g.id))
        .map((g) => (
          <path key={g.id} className="line glue lit" d={ringPath([g.outline])} />
        ))}
    </>
  );
}
