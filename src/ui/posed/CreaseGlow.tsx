'use client';
import { useMemo } from 'react';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { placeOf } from '../build/measuring';
import { useDots } from './useDots';

/** Creases that are pointed at, where they stand. */
export function CreaseGlow({ scene }: { readonly scene: Scene }) {
  const lit = useStudio((s) => s.lit);
  const creases = useMemo(() => {
    const named = new Set(lit);
    return scene.creases.filter((c) => named.has(c.id));
  }, [scene, lit]);
  return creases.length === 0 ? null : <Glow scene={scene} creases={creases} />;
}

/** Apart, so that a card that moves with nothing pointed at makes nothing anew. */
function Glow({ scene, creases }: { readonly scene: Scene; readonly creases: Scene['creases'] }) {
  const pose = useStudio((s) => s.pose);
  const ends = useMemo(
    () =>
      creases.flatMap(({ piece, segments }) =>
        segments.flatMap((segment) => {
          const [a, b] = [segment.a, segment.b].map((p) => pose && placeOf(scene, pose, piece, p));
          return a && b ? [a, b] : [];
        }),
      ),
    [scene, creases, pose],
  );
  const geometry = useDots(ends);
  return (
    <lineSegments geometry={geometry} frustumCulled={false} renderOrder={1}>
      <lineBasicMaterial color="#8a5fb0" depthTest={false} transparent linewidth={2} />
    </lineSegments>
  );
}
