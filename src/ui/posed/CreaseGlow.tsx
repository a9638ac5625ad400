'use client';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { placeOf } from '../build/measuring';

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
  const { invalidate } = useThree();
  const pose = useStudio((s) => s.pose);
  const geometry = useMemo(() => {
    const ends = creases.flatMap(({ piece, segments }) =>
      segments.map(({ a, b }) => [a, b].map((p) => pose && placeOf(scene, pose, piece, p))),
    );
    const points = ends.flatMap(([a, b]) => (a && b ? [...a, ...b] : []));
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(new Float32Array(points), 3));
    return made;
  }, [scene, creases, pose]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  useEffect(() => invalidate(), [geometry, invalidate]);
  useEffect(() => () => invalidate(), [invalidate]);
  return (
    <lineSegments geometry={geometry} frustumCulled={false} renderOrder={1}>
      <lineBasicMaterial color="#8a5fb0" depthTest={false} transparent linewidth={2} />
    </lineSegments>
  );
}
