'use client';
import { CARD } from '@/core/ids';
import { OrbitControls } from '@react-three/drei';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useRef, useState, type RefObject } from 'react';
import * as THREE from 'three';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { HoldNoteAt } from '../build/HoldNote';
import type { HoldNote } from '../build/useHold';
import { CardMesh } from './CardMesh';
import { Shooting } from './Shooting';
import { usePace } from './usePace';
import type { Direction } from './views';

export interface PaperSceneProps {
  readonly scene: Scene;
  /** Where the eye is, in world axes, and a number that changes when it is to be put back there. */
  readonly from: Direction;
  readonly turned: number;
  /** Set to what brings the eye nearer by a factor. */
  readonly nearer: RefObject<(factor: number) => void>;
  /** The graphics are gone: nothing more will be drawn here. */
  readonly onLost: () => void;
}

/** The card in paper with its thickness, drawn by the graphics of the machine. */
export function PaperScene({ scene, from, turned, nearer, onLost }: PaperSceneProps) {
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
        <Eye scene={scene} from={from} turned={turned} nearer={nearer} />
        <CardMesh scene={scene} onNote={setNote} />
      </Canvas>
      <HoldNoteAt note={note} />
    </>
  );
}

/** The middle of where it opens, and how far that reaches. */
function groundOf({ ground, pieces }: Scene): NonNullable<Scene['ground']> {
  if (ground) return ground;
  const ring = pieces.find((p) => p.mechanism === CARD)?.rings[0] ?? [[100, 100]];
  return { x: 0, y: 0, radius: Math.max(...ring.map((p) => Math.hypot(p[0], p[1]))) };
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

function Eye({ scene, from, turned, nearer }: Omit<PaperSceneProps, 'onLost'>) {
  const { camera, invalidate, size } = useThree();
  const { x, y, radius: reach } = groundOf(scene);
  useEffect(() => {
    const away = new THREE.Vector3(...from).normalize();
    const room = Math.min(1, size.width / Math.max(1, size.height));
    const middle = new THREE.Vector3(x, y, reach * 0.22);
    camera.position.copy(away.multiplyScalar((reach * 4.1) / room)).add(middle);
    camera.up.set(0, 0, 1);
    camera.lookAt(middle);
    camera.updateProjectionMatrix();
    invalidate();
    // `turned` counts clicks: the same view again brings it back after orbiting.
  }, [camera, invalidate, x, y, reach, from, turned, size.width, size.height]);
  useEffect(() => {
    const middle = new THREE.Vector3(x, y, reach * 0.22);
    nearer.current = (factor) => {
      const away = camera.position.clone().sub(middle);
      const far = Math.min(reach * 12, Math.max(reach * 0.4, away.length() / factor));
      camera.position.copy(away.setLength(far)).add(middle);
      invalidate();
    };
  }, [camera, invalidate, nearer, x, y, reach]);
  return (
    <OrbitControls
      makeDefault
      target={[x, y, reach * 0.22]}
      enableDamping={false}
      maxDistance={reach * 12}
      minDistance={reach * 0.4}
    />
  );
}
