'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo } from 'react';
import * as THREE from 'three';
import { CARD } from '@/core/ids';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import type { HoldNote } from '../build/useHold';
import { useDots } from './useDots';
import { useGrab } from './useGrab';
import { useSizing, type Ghost } from './useSizing';
import { PrintedArt } from './PrintedArt';
import { paperOf, place, runOf, tint, type Light, type Mesh, type Tint } from './paper';
import { usePicking } from './usePicking';

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
  const layers = useStudio((s) => s.layers);
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
    const picked = new Set(layers.map((id) => `layer.${id}`));
    for (const { mesh } of paper.sheets)
      tint(mesh, (f, mat) => (pointed.has(f) ? POINTED : chosen(f) || (mat && picked.has(mat)) ? CHOSEN : null));
    tint(paper.outlines.mesh, (f) => (pointed.has(f) || chosen(f) ? CHOSEN_LINE : null));
    for (const part of all) changed(part, 'color');
    invalidate();
  }, [all, paper, scene, lit, selected, layers, invalidate]);

  const { take } = useGrab(scene);
  const sizing = useSizing(scene);
  useEffect(() => onNote(sizing.note), [onNote, sizing.note]);
  const picking = usePicking(scene);
  const at = (mesh: Mesh, e: ThreeEvent<MouseEvent>) => runOf(mesh, 3 * (e.faceIndex ?? 0));
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
            const { facet } = at(mesh, e);
            if (!picking.measures && (take(facet, e) || sizing.take(facet, e))) e.stopPropagation();
          }}
          onPointerMove={(e) => {
            e.stopPropagation();
            picking.over(at(mesh, e).facet, e);
          }}
          onPointerOut={picking.out}
          onClick={(e) => {
            e.stopPropagation();
            if (e.delta < 3) picking.click(at(mesh, e), e);
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
  const ends = useMemo(
    () => ghosts.flatMap((rings) => rings.flatMap((ring) => ring.flatMap((p, i) => [p, ring[(i + 1) % ring.length]]))),
    [ghosts],
  );
  const geometry = useDots(ends);
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
