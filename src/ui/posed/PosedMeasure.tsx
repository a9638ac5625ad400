'use client';
import { useMemo } from 'react';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { endsOf, useMeasuring } from '../build/measure-store';
import { placeOf } from '../build/measuring';
import { useDots } from './useDots';
import type { Vec3 } from '@/core/linkage';

const HUE = '#8a5fb0';
/** Size of the marks, pixels. */
const MARK_PX = 9;

/** The two ends that are measured between, where they stand. */
export function PosedMeasure({ scene }: { readonly scene: Scene }) {
  const on = useMeasuring((s) => s.on);
  return on ? <Marks scene={scene} /> : null;
}

function Marks({ scene }: { readonly scene: Scene }) {
  const pose = useStudio((s) => s.pose);
  const { ends, over } = useMeasuring();
  const stand = useMemo(() => {
    const picked = endsOf({ ends, over });
    const shown = picked.length === 0 && over ? [over.picked] : picked;
    const places = shown.map((p) => pose && placeOf(scene, pose, p.piece, p.at));
    return places.filter((p): p is Vec3 => p !== null);
  }, [scene, pose, ends, over]);
  const points = useDots(stand);
  return (
    <>
      <points geometry={points} frustumCulled={false} renderOrder={2}>
        <pointsMaterial color={HUE} size={MARK_PX * 2} sizeAttenuation={false} depthTest={false} transparent />
      </points>
      {stand.length === 2 && (
        <lineSegments geometry={points} frustumCulled={false} renderOrder={2}>
          <lineBasicMaterial color={HUE} depthTest={false} transparent />
        </lineSegments>
      )}
    </>
  );
}
