'use client';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { endsOf, useMeasuring } from '../build/measure-store';
import { placeOf } from '../build/measuring';
import type { Point3 } from './placing';

const HUE = '#8a5fb0';
/** Size of the marks, pixels. */
const MARK_PX = 9;

/** The two ends that are measured between, where they stand. */
export function PosedMeasure({ scene }: { readonly scene: Scene }) {
  const on = useMeasuring((s) => s.on);
  return on ? <Marks scene={scene} /> : null;
}

function Marks({ scene }: { readonly scene: Scene }) {
  const { invalidate } = useThree();
  const pose = useStudio((s) => s.pose);
  const { ends, over } = useMeasuring();
  const [points, line] = useMemo(() => {
    const picked = endsOf({ ends, over });
    const shown = picked.length === 0 && over ? [over.picked] : picked;
    const places = pose ? shown.map((p) => placeOf(scene, pose, p.piece, p.at)) : [];
    const stand = places.filter((p): p is Point3 => p !== null);
    return [positions(stand), positions(stand.length === 2 ? stand : [])];
  }, [scene, pose, ends, over]);
  useEffect(() => () => [points, line].forEach((g) => g.dispose()), [points, line]);
  useEffect(() => invalidate(), [points, line, invalidate]);
  useEffect(() => () => invalidate(), [invalidate]);
  return (
    <>
      <points geometry={points} frustumCulled={false} renderOrder={2}>
        <pointsMaterial color={HUE} size={MARK_PX * 2} sizeAttenuation={false} depthTest={false} transparent />
      </points>
      <lineSegments geometry={line} frustumCulled={false} renderOrder={2}>
        <lineBasicMaterial color={HUE} depthTest={false} transparent />
      </lineSegments>
    </>
  );
}

function positions(list: readonly Point3[]): THREE.BufferGeometry {
  const made = new THREE.BufferGeometry();
  made.setAttribute('position', new THREE.BufferAttribute(new Float32Array(list.flat()), 3));
  return made;
}
