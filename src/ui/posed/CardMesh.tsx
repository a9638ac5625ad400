'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import * as THREE from 'three';
import { CARD } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import type { HoldNote } from '../build/useHold';
import { useGrab } from './useGrab';
import { useSizing, type Ghost } from './useSizing';
import { PrintedArt } from './PrintedArt';
import { facetOf, paperOf, place, tint, type Light, type Mesh, type Tint } from './paper';

const lightOf = (colour: string): Light => new THREE.Color(colour).toArray() as [number, number, number];
const POINTED: Tint = { light: lightOf('#8a5fb0'), part: 0.25 };
const CHOSEN: Tint = { light: lightOf('#5b3a78'), part: 0.14 };
const CHOSEN_LINE: Tint = { light: lightOf('#5b3a78'), part: 1 };

interface Drawn {
  readonly mesh: Mesh;
  readonly geometry: THREE.BufferGeometry;
}
/** The graphics' own view of a mesh: the same numbers, told when they change. */
function drawn(mesh: Mesh): Drawn {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(mesh.points, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
  geometry.setAttribute('color', new THREE.BufferAttribute(mesh.colours, 3));
  return { mesh, geometry };
}
function changed({ geometry }: Drawn, ...names: readonly string[]): void {
  for (const name of names) geometry.attributes[name].needsUpdate = true;
  // What the pointer is looked for in moves with the paper.
  if (names.includes('position')) geometry.computeBoundingSphere();
}

/** The paper of the card: laid out once for a design; a pose and the pointer only change numbers. */
export function CardMesh({
  scene,
  onNote,
}: {
  readonly scene: Scene;
  /** Told what a hand is setting. */
  readonly onNote: (note: HoldNote | null) => void;
}) {
  const { invalidate } = useThree();
  const pose = useStudio((s) => s.pose);
  const lit = useStudio((s) => s.lit);
  const selected = useStudio((s) => s.selected);
  const { light, select } = useActions();
  const paper = useMemo(() => {
    const { sheets, outlines } = paperOf(scene, lightOf);
    return { sheets: sheets.map(drawn), outlines: drawn(outlines) };
  }, [scene]);
  const all = useMemo(() => [...paper.sheets, paper.outlines], [paper]);
  useEffect(() => () => all.forEach(({ geometry }) => geometry.dispose()), [all]);
  const stands = pose !== null && pose.placed.length === scene.facets.length * 12;

  useLayoutEffect(() => {
    if (!stands) return;
    for (const part of all) {
      place(part.mesh, pose.placed);
      changed(part, 'position', 'normal');
    }
    invalidate();
  }, [all, pose, stands, invalidate]);

  useLayoutEffect(() => {
    const pointed = pointedFacets(scene, lit);
    const chosen = (facet: number): boolean => selected !== CARD && scene.facets[facet].mechanism === selected;
    for (const { mesh } of paper.sheets) tint(mesh, (f) => (pointed.has(f) ? POINTED : chosen(f) ? CHOSEN : null));
    tint(paper.outlines.mesh, (f) => (pointed.has(f) || chosen(f) ? CHOSEN_LINE : null));
    for (const part of all) changed(part, 'color');
    invalidate();
  }, [all, paper, scene, lit, selected, invalidate]);

  const { take } = useGrab(scene);
  const sizing = useSizing(scene);
  useEffect(() => onNote(sizing.note), [onNote, sizing.note]);
  const under = useRef<string | null>(null);
  const idAt = (mesh: Mesh, e: ThreeEvent<MouseEvent>): number => facetOf(mesh, 3 * (e.faceIndex ?? 0));
  const point = (id: string | null): void => {
    if (under.current === id) return;
    under.current = id;
    light(id === null ? [] : [id]);
  };
  return (
    <group visible={stands}>
      {paper.sheets.map(({ mesh, geometry }, k) => (
        <mesh
          key={k}
          visible={mesh.points.length > 0}
          geometry={geometry}
          castShadow
          receiveShadow
          frustumCulled={false}
          onPointerDown={(e) => {
            if (take(idAt(mesh, e), e) || sizing.take(idAt(mesh, e), e)) e.stopPropagation();
          }}
          onPointerMove={(e) => {
            e.stopPropagation();
            point(scene.facets[idAt(mesh, e)].id);
          }}
          onPointerOut={() => point(null)}
          onClick={(e) => {
            e.stopPropagation();
            if (e.delta < 3) select(scene.facets[idAt(mesh, e)].mechanism);
          }}
        >
          <meshStandardMaterial
            vertexColors
            roughness={0.95}
            metalness={0}
            polygonOffset
            polygonOffsetFactor={1}
            polygonOffsetUnits={1 + k}
          />
        </mesh>
      ))}
      <PrintedArt scene={scene} />
      <Ghosts ghosts={sizing.ghosts} />
      <lineSegments geometry={paper.outlines.geometry} frustumCulled={false}>
        <lineBasicMaterial vertexColors />
      </lineSegments>
    </group>
  );
}

/** Where its room ends: the outlines that it would have there. */
function Ghosts({ ghosts }: { readonly ghosts: readonly Ghost[] }) {
  const geometry = useMemo(() => {
    const points = ghosts.flatMap((rings) =>
      rings.flatMap((ring) => ring.flatMap((p, i) => [...p, ...ring[(i + 1) % ring.length]])),
    );
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(new Float32Array(points), 3));
    return made;
  }, [ghosts]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const { invalidate } = useThree();
  useEffect(() => invalidate(), [geometry, invalidate]);
  if (ghosts.length === 0) return null;
  return (
    <lineSegments geometry={geometry} frustumCulled={false}>
      <lineBasicMaterial color="#b3261e" transparent opacity={0.7} />
    </lineSegments>
  );
}

/** Facets that are pointed at: themselves, or by a crease of their mechanism. */
function pointedFacets(scene: Scene, lit: readonly string[]): ReadonlySet<number> {
  const out = new Set<number>();
  if (lit.length === 0) return out;
  const named = new Set(lit);
  const owners = new Set(scene.creases.filter((c) => named.has(c.id) && c.mechanism !== CARD).map((c) => c.mechanism));
  scene.facets.forEach((f, i) => {
    if (named.has(f.id) || owners.has(f.mechanism)) out.add(i);
  });
  return out;
}
