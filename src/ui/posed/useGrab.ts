'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import * as THREE from 'three';
import { useActions, useStudioStore } from '@/store/context';
import { carriedDrive } from '@/store/studio';
import { engine } from '@/workers/client';
import type { Scene, Way } from '@/workers/protocol';
import { valueNear, type Pixel } from './grab';

interface Held {
  readonly drive: string;
  readonly round: boolean;
  way: Way | null;
}

/** A part that a drive moves can be taken hold of: it follows the pointer along its own way, to the ends of it. */
export function useGrab(scene: Scene): { take: (facet: number, e: ThreeEvent<PointerEvent>) => boolean } {
  const { camera, gl } = useThree();
  const controls = useThree((s) => s.controls) as { enabled: boolean } | null;
  const store = useStudioStore();
  const { carry, move, play } = useActions();
  const held = useRef<Held | null>(null);
  const letGo = useRef<() => void>(() => undefined);
  useEffect(() => () => letGo.current(), []);

  /** Where a place in world axes is seen, pixels of the page. */
  const seen = (place: readonly [number, number, number], box: DOMRect): Pixel => {
    const p = new THREE.Vector3(...place).project(camera);
    return [box.left + ((p.x + 1) / 2) * box.width, box.top + ((1 - p.y) / 2) * box.height];
  };
  const follow = (e: PointerEvent): void => {
    const { way, drive, round } = held.current ?? {};
    if (!way || !drive) return;
    const box = gl.domElement.getBoundingClientRect();
    const shown = way.places.map((p) => seen(p, box));
    move(drive, valueNear(way, shown, [e.clientX, e.clientY], store.getState().state[drive], round ?? false));
  };

  const take = (facet: number, e: ThreeEvent<PointerEvent>): boolean => {
    const { moves } = scene.facets[facet];
    const { pose, state } = store.getState();
    if (!moves || !pose || e.button !== 0) return false;
    play(false);
    carry(moves);
    const m = pose.placed.subarray(12 * facet, 12 * facet + 12);
    const frame = new THREE.Matrix4().set(...(Array.from(m) as Row12), 0, 0, 0, 1);
    const { x, y, z } = e.point.clone().applyMatrix4(frame.invert());
    const now: Held = { drive: moves, round: carriedDrive(store.getState()).round === true, way: null };
    held.current = now;
    if (controls) controls.enabled = false;
    void engine('pose')
      .way(scene.design, state, moves, facet, [x, y, z])
      .then((answer) => {
        if (answer.ok) now.way = answer.value;
      });
    const end = (): void => {
      held.current = null;
      if (controls) controls.enabled = true;
      window.removeEventListener('pointermove', follow);
      window.removeEventListener('pointerup', end);
      window.removeEventListener('pointercancel', end);
    };
    letGo.current = end;
    window.addEventListener('pointermove', follow);
    window.addEventListener('pointerup', end);
    window.addEventListener('pointercancel', end);
    return true;
  };
  return { take };
}
type Row12 = [number, number, number, number, number, number, number, number, number, number, number, number];
