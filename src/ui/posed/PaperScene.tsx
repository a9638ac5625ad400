'use client';
import { OrbitControls } from '@react-three/drei';
import { Canvas, useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { slab } from '@/core/formats/solid';
import { stockOf } from '@/core/document/design';
import { useActions, useStudio } from '@/store/context';
import type { Ring } from '@/core/plane/polygon';
import type { Scene, SceneFacet, ScenePose } from '@/workers/protocol';
import type { Direction } from './views';

export interface PaperSceneProps {
  readonly scene: Scene;
  /** Where the eye is, in world axes, and a number that changes when it is to be put back there. */
  readonly from: Direction;
  readonly turned: number;
  /** The graphics are gone: nothing more will be drawn here. */
  readonly onLost: () => void;
}

/** The card in paper with its thickness, drawn by the graphics of the machine. */
export function PaperScene({ scene, from, turned, onLost }: PaperSceneProps) {
  const pose = useStudio((s) => s.pose);
  return (
    <Canvas
      frameloop="demand"
      shadows="soft"
      dpr={[1, 2]}
      camera={{ fov: 28, near: 1, far: 6000, up: [0, 0, 1] }}
      style={{ position: 'absolute', inset: 0 }}
      onCreated={({ gl }) => gl.domElement.addEventListener('webglcontextlost', onLost, { once: true })}
    >
      <Light />
      <Eye scene={scene} from={from} turned={turned} />
      <Card scene={scene} pose={pose} />
    </Canvas>
  );
}

function sizeOf(scene: Scene): number {
  const ring = scene.pieces.find((p) => p.id === 'card')?.rings[0] ?? [[100, 100]];
  return Math.max(...ring.map((p) => Math.hypot(p[0], p[1])));
}

function Light() {
  return (
    <>
      <hemisphereLight args={['#fffdf5', '#a9a493', 1.5]} position={[0, 0, 1]} />
      <directionalLight
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
      <mesh position={[0, 0, -1.2]} receiveShadow>
        <planeGeometry args={[4000, 4000]} />
        <shadowMaterial opacity={0.16} />
      </mesh>
    </>
  );
}

function Eye({ scene, from, turned }: { scene: Scene; from: Direction; turned: number }) {
  const { camera, invalidate, size } = useThree();
  const reach = sizeOf(scene);
  useEffect(() => {
    const away = new THREE.Vector3(...from).normalize();
    const room = Math.min(1, size.width / Math.max(1, size.height));
    camera.position.copy(away.multiplyScalar((reach * 4.1) / room)).add(new THREE.Vector3(0, 0, reach * 0.22));
    camera.up.set(0, 0, 1);
    camera.lookAt(0, 0, reach * 0.22);
    camera.updateProjectionMatrix();
    invalidate();
    // `turned` counts clicks: the same view again brings it back after orbiting.
  }, [camera, invalidate, reach, from, turned, size.width, size.height]);
  return (
    <OrbitControls
      makeDefault
      target={[0, 0, reach * 0.22]}
      enableDamping={false}
      maxDistance={reach * 12}
      minDistance={reach * 0.4}
    />
  );
}

function Card({ scene, pose }: { scene: Scene; pose: ScenePose | null }) {
  const { invalidate } = useThree();
  const lit = useStudio((s) => s.lit);
  const selected = useStudio((s) => s.selected);
  const current = pose && pose.placed.length === scene.facets.length * 12 ? pose : null;
  useEffect(() => invalidate(), [invalidate, scene, pose, lit, selected]);
  return (
    <group>
      {scene.facets.map((f, i) => (
        <FacetMesh
          key={`${f.id}`}
          scene={scene}
          facet={f}
          index={i}
          pose={current}
          lit={lit.includes(f.id) || litCrease(scene, f, lit)}
          selected={f.mechanism === selected && selected !== 'card'}
        />
      ))}
    </group>
  );
}
const litCrease = (scene: Scene, f: SceneFacet, lit: readonly string[]): boolean =>
  lit.length > 0 &&
  scene.creases.some((c) => lit.includes(c.id) && c.mechanism === f.mechanism && f.mechanism !== 'card');

interface FacetMeshProps {
  readonly scene: Scene;
  readonly facet: SceneFacet;
  readonly index: number;
  readonly pose: ScenePose | null;
  readonly lit: boolean;
  readonly selected: boolean;
}

/** Geometry lies in the piece's own axes and is made once; a pose only sets the matrix. */
function FacetMesh({ scene, facet, index, pose, lit, selected }: FacetMeshProps) {
  const { light, select } = useActions();
  const stock = stockOf(scene.design, scene.pieces.find((p) => p.id === facet.piece)!.stock);
  const geometry = useMemo(() => slabGeometry(facet.rings, stock.caliperMm, facet.liftMm), [facet, stock.caliperMm]);
  const outline = useMemo(() => outlineOf(facet), [facet]);
  useEffect(
    () => () => {
      geometry.dispose();
      outline.dispose();
    },
    [geometry, outline],
  );
  const matrix = useMemo(() => {
    const m = new THREE.Matrix4();
    if (pose) {
      const p = pose.placed.subarray(12 * index, 12 * index + 12);
      m.set(p[0], p[1], p[2], p[3], p[4], p[5], p[6], p[7], p[8], p[9], p[10], p[11], 0, 0, 0, 1);
    }
    return m;
  }, [pose, index]);
  if (!pose) return null;
  const inside = facet.colour ?? stock.insideColour;
  const glow = lit ? '#8a5fb0' : selected ? '#5b3a78' : '#000000';
  const material = (colour: string, k: number) => (
    <meshStandardMaterial
      key={k}
      attach={`material-${k}`}
      color={colour}
      roughness={0.95}
      metalness={0}
      emissive={glow}
      emissiveIntensity={lit ? 0.35 : selected ? 0.12 : 0}
      polygonOffset
      polygonOffsetFactor={1}
      polygonOffsetUnits={1 + (index % 7)}
    />
  );
  return (
    <group matrixAutoUpdate={false} matrix={matrix}>
      <mesh
        geometry={geometry}
        castShadow
        receiveShadow
        onPointerOver={(e) => {
          e.stopPropagation();
          light([facet.id]);
        }}
        onPointerOut={() => light([])}
        onClick={(e) => {
          e.stopPropagation();
          if (e.delta < 3) select(facet.mechanism);
        }}
      >
        {[inside, stock.outsideColour, stock.outsideColour].map(material)}
      </mesh>
      {facet.mats.map((mat) => (
        <MatMesh key={mat.id} mat={mat} lift={facet.liftMm + mat.liftMm} />
      ))}
      <lineSegments geometry={outline}>
        <lineBasicMaterial color={selected || lit ? '#5b3a78' : '#5d615c'} />
      </lineSegments>
    </group>
  );
}

function MatMesh({ mat, lift }: { mat: SceneFacet['mats'][number]; lift: number }) {
  const geometry = useMemo(() => slabGeometry(mat.rings, mat.caliperMm, lift), [mat, lift]);
  const foam = useMemo(
    () =>
      mat.foam.length > 0
        ? slabGeometry(mat.foam, Math.max(0.1, mat.liftMm - mat.caliperMm), lift - mat.caliperMm)
        : null,
    [mat, lift],
  );
  const outline = useMemo(() => outlineOf({ rings: mat.rings, liftMm: lift }), [mat, lift]);
  useEffect(
    () => () => {
      geometry.dispose();
      foam?.dispose();
      outline.dispose();
    },
    [geometry, foam, outline],
  );
  return (
    <>
      <mesh geometry={geometry} castShadow receiveShadow>
        <meshStandardMaterial color={mat.colour} roughness={0.95} />
      </mesh>
      {foam && (
        <mesh geometry={foam}>
          <meshStandardMaterial color="#f4f2ec" roughness={1} />
        </mesh>
      )}
      <lineSegments geometry={outline}>
        <lineBasicMaterial color="#5d615c" />
      </lineSegments>
    </>
  );
}

/** Inside face, outside face and edge as three groups, each with its own material. */
function slabGeometry(rings: readonly Ring[], caliper: number, lift: number): THREE.BufferGeometry {
  const { inside, outside, edge } = slab(rings, lift, caliper);
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute([...inside, ...outside, ...edge], 3));
  geometry.computeVertexNormals();
  let from = 0;
  [inside, outside, edge].forEach(({ length }, k) => {
    geometry.addGroup(from, length / 3, k);
    from += length / 3;
  });
  return geometry;
}

function outlineOf({ rings, liftMm }: Pick<SceneFacet, 'rings' | 'liftMm'>): THREE.BufferGeometry {
  const points = rings.flatMap((ring) =>
    ring.flatMap((p, i) => [
      p[0],
      p[1],
      liftMm + 0.05,
      ring[(i + 1) % ring.length][0],
      ring[(i + 1) % ring.length][1],
      liftMm + 0.05,
    ]),
  );
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(points, 3));
  return geometry;
}
