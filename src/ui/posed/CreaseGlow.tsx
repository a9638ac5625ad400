'use client';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { placeOf } from '../build/measuring';

/** Creases that are pointed at, where they stand. */
export function CreaseGlow({ scene }: { readonly scene: Scene }) {
  const { invalidate } = useThree();
  const lit = useStudio((s) => s.lit);
  const pose = useStudio((s) => s.pose);
  const geometry = useMemo(() => {
    const named = new Set(lit);
    const points = scene.creases
      .filter((c) => named.has(c.id))
      .flatMap((c) => c.segments.map(({ a, b }) => [a, b].map((p) => pose && placeOf(scene, pose, c.piece, p))))
      .flatMap(([a, b]) => (a && b ? [...a, ...b] : []));
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(new Float32Array(points), 3));
    return made;
  }, [scene, lit, pose]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  useEffect(() => invalidate(), [geometry, invalidate]);
  return (
    <lineSegments geometry={geometry} frustumCulled={false} renderOrder={1}>
      <lineBasicMaterial color="#8a5fb0" depthTest={false} transparent linewidth={2} />
    </lineSegments>
  );
}
