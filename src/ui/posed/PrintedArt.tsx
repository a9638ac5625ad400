'use client';
import { useThree } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo } from 'react';
import * as THREE from 'three';
import { slab } from '@/core/formats/solid';
import { useStudio } from '@/store/context';
import type { Scene, SceneArt } from '@/workers/protocol';
import { pictureUrl } from '../dress/picture-in';
import { place, type Mesh } from './paper';

/** Artwork on the paper of the card, carried along by its facets. */
export function PrintedArt({ scene }: { scene: Scene }) {
  return (
    <>
      {scene.artwork.map((art) => (
        <OneArt key={art.id} art={art} scene={scene} />
      ))}
    </>
  );
}

function OneArt({ art, scene }: { art: SceneArt; scene: Scene }) {
  const { invalidate } = useThree();
  const pose = useStudio((s) => s.pose);
  const { mesh, geometry } = useMemo(() => artMesh(art), [art]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const picture = 'picture' in art ? scene.design.pictures?.find((p) => p.id === art.picture) : undefined;
  const texture = useMemo(() => {
    if (!picture) return null;
    const made = new THREE.TextureLoader().load(pictureUrl(picture), () => invalidate());
    made.colorSpace = THREE.SRGBColorSpace;
    return made;
  }, [picture, invalidate]);
  useEffect(() => () => texture?.dispose(), [texture]);
  const stands = pose !== null && pose.placed.length === scene.facets.length * 12;
  useLayoutEffect(() => {
    if (!stands) return;
    place(mesh, pose.placed);
    geometry.attributes.position.needsUpdate = true;
    geometry.attributes.normal.needsUpdate = true;
    invalidate();
  }, [mesh, geometry, pose, stands, invalidate]);
  if ('picture' in art && !texture) return null;
  return (
    <mesh geometry={geometry} visible={stands} frustumCulled={false} receiveShadow>
      <meshStandardMaterial
        map={texture}
        color={'ink' in art ? art.colour : '#ffffff'}
        transparent={'picture' in art}
        roughness={0.9}
        metalness={0}
        side={THREE.DoubleSide}
        polygonOffset
        polygonOffsetFactor={-1}
        polygonOffsetUnits={-4}
      />
    </mesh>
  );
}

/** Its triangles in the axes of its piece; each corner knows its place in the picture. */
function artMesh(art: SceneArt): { mesh: Mesh; geometry: THREE.BufferGeometry } {
  const rings = 'ink' in art ? art.ink : art.clip;
  const { inside } = slab(rings, art.liftMm, 0.01);
  const points = Float32Array.from(inside);
  const facing = art.side === 'inside' ? 1 : -1;
  const normals = Float32Array.from({ length: points.length }, (_, k) => (k % 3 === 2 ? facing : 0));
  const mesh: Mesh = {
    runs: [{ facet: art.facet, from: 0, to: points.length / 3 }],
    rest: { points, normals, colours: new Float32Array(0) },
    points: points.slice(),
    normals: normals.slice(),
    colours: new Float32Array(0),
  };
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(mesh.points, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(mesh.normals, 3));
  geometry.setAttribute('uv', new THREE.BufferAttribute(placesInPicture(art, points), 2));
  return { mesh, geometry };
}

function placesInPicture(art: SceneArt, points: Float32Array): Float32Array {
  const uv = new Float32Array((2 * points.length) / 3);
  if ('ink' in art) return uv;
  const { origin, right, up } = art.frame;
  const size = right[0] * up[1] - right[1] * up[0];
  for (let k = 0; 3 * k < points.length; k++) {
    const [x, y] = [points[3 * k] - origin[0], points[3 * k + 1] - origin[1]];
    uv[2 * k] = (x * up[1] - y * up[0]) / size;
    uv[2 * k + 1] = (right[0] * y - right[1] * x) / size;
  }
  return uv;
}
