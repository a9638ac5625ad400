'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useRef } from 'react';
import * as THREE from 'three';
import { useActions, useStudioStore } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { REACH_PX } from '../build/picking';
import { useMeasuring } from '../build/measure-store';
import { pxPerMmAt } from './looking';
import { creaseAt, measuredAt } from './posed-picking';
import type { Vec3 } from '@/core/linkage';

/** A crease is pointed at from this near, pixels; further off it is the facet. */
const CREASE_PX = 4;
const LAYER = 'layer.';

/** What the pointer does on the posed card when it takes hold of nothing: points, picks, measures. */
export function usePicking(scene: Scene) {
  const { camera, size } = useThree();
  const store = useStudioStore();
  const { light, select, add, pickLayers } = useActions();
  const { on: measures, point, pick } = useMeasuring();
  const under = useRef<string | null>(null);

  const placeOf = ({ point: p }: ThreeEvent<MouseEvent>): Vec3 => [p.x, p.y, p.z];
  const mmOf = (px: number, at: Vec3): number => {
    const { fov, position } = camera as THREE.PerspectiveCamera;
    return px / pxPerMmAt(position.distanceTo(new THREE.Vector3(...at)), fov, size.height);
  };
  const creaseUnder = (facet: number, e: ThreeEvent<MouseEvent>): string | null => {
    const { pose } = store.getState();
    const at = placeOf(e);
    return pose && creaseAt(scene, pose, facet, at, mmOf(CREASE_PX, at));
  };
  const measuredUnder = (facet: number, e: ThreeEvent<MouseEvent>) => {
    const { pose } = store.getState();
    const at = placeOf(e);
    return pose && measuredAt(scene, pose, facet, at, mmOf(REACH_PX, at));
  };
  const lightUp = (id: string | null): void => {
    if (under.current === id) return;
    under.current = id;
    light(id === null ? [] : [id]);
  };

  const over = (facet: number, e: ThreeEvent<PointerEvent>): void => {
    const picked = measures ? measuredUnder(facet, e) : null;
    if (picked) return point({ picked, x: e.clientX, y: e.clientY, view: 'posed' });
    lightUp(creaseUnder(facet, e) ?? scene.facets[facet].id);
  };
  const out = (): void => {
    if (measures) point(null);
    lightUp(null);
  };
  const click = ({ facet, mat }: { facet: number; mat?: string }, e: ThreeEvent<MouseEvent>): void => {
    if (measures) {
      const picked = measuredUnder(facet, e);
      if (picked) pick(picked);
      return;
    }
    const crease = mat === undefined ? creaseUnder(facet, e) : null;
    select(scene.creases.find((c) => c.id === crease)?.mechanism ?? scene.facets[facet].mechanism);
    pickLayers(mat?.startsWith(LAYER) ? [mat.slice(LAYER.length)] : []);
    // As on the flat drawing: a crease that can carry something asks what is to stand on it.
    if (crease && scene.hosts.some((h) => h.crease === crease)) add(crease);
  };
  return { measures, over, out, click };
}
