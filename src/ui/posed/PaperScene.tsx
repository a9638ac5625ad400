'use client';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useRef, useState } from 'react';
import type * as THREE from 'three';
import { useStudio } from '@/store/context';
import { HoldNoteAt } from '../build/HoldNote';
import type { HoldNote } from '../build/useHold';
import { CardMesh } from './CardMesh';
import { CreaseGlow } from './CreaseGlow';
import { Eye, type EyeProps } from './Eye';
import { PosedMeasure } from './PosedMeasure';
import { Shooting } from './Shooting';
import { usePace } from './usePace';

export interface PaperSceneProps extends EyeProps {
  /** The graphics are gone: nothing more will be drawn here. */
  readonly onLost: () => void;
}

/** The card in paper with its thickness, drawn by the graphics of the machine. */
export function PaperScene({ scene, onLost, ...eye }: PaperSceneProps) {
  const [note, setNote] = useState<HoldNote | null>(null);
  return (
    <>
      <Canvas
        frameloop="demand"
        shadows="soft"
        // Drawn at twice the size it needs no smoothing of edges, which costs more while it moves.
        gl={{ antialias: false }}
        dpr={2}
        camera={{ fov: 28, near: 1, far: 6000, up: [0, 0, 1] }}
        style={{ position: 'absolute', inset: 0 }}
        onCreated={({ gl }) => gl.domElement.addEventListener('webglcontextlost', onLost, { once: true })}
      >
        <Light />
        <Shooting />
        <Eye scene={scene} {...eye} />
        <CardMesh scene={scene} onNote={setNote} />
        <CreaseGlow scene={scene} />
        <PosedMeasure scene={scene} />
      </Canvas>
      <HoldNoteAt note={note} />
    </>
  );
}

/** Light and shadow; while the card moves or is turned they follow what the machine can do. */
function Light() {
  const light = useRef<THREE.DirectionalLight>(null);
  const ground = useRef<THREE.Mesh>(null);
  const moved = usePace(light, ground);
  const pose = useStudio((s) => s.pose);
  const controls = useThree((s) => s.controls) as THREE.EventDispatcher<{ change: object }> | null;
  useEffect(() => moved(), [pose, moved]);
  useEffect(() => {
    controls?.addEventListener('change', moved);
    return () => controls?.removeEventListener('change', moved);
  }, [controls, moved]);
  return (
    <>
      <hemisphereLight args={['#fffdf5', '#a9a493', 1.5]} position={[0, 0, 1]} />
      <directionalLight
        ref={light}
        position={[180, 320, 520]}
        intensity={1.7}
        castShadow
        shadow-mapSize={[1024, 1024]}
        shadow-camera-left={-320}
        shadow-camera-right={320}
        shadow-camera-top={320}
        shadow-camera-bottom={-320}
        shadow-camera-far={1400}
        shadow-bias={-0.0004}
        shadow-normalBias={2}
        shadow-radius={5}
      />
      <mesh ref={ground} position={[0, 0, -1.2]} receiveShadow>
        <planeGeometry args={[4000, 4000]} />
        <shadowMaterial opacity={0.16} />
      </mesh>
    </>
  );
}
