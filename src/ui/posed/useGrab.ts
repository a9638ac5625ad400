'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useRef } from 'react';
import { useActions, useStudioStore } from '@/store/context';
import { carriedDrive } from '@/store/studio';
import { engine } from '@/workers/client';
import type { Scene, Way } from '@/workers/protocol';
import { valueNear } from './grab';
import { onPiece } from './placing';
import { seenAt } from './seen-at';

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

  const follow = (e: PointerEvent): void => {
    const { way, drive, round } = held.current ?? {};
    if (!way || !drive) return;
    const box = gl.domElement.getBoundingClientRect();
    const shown = way.places.map((p) => seenAt(camera, p, box));
    move(drive, valueNear(way, shown, [e.clientX, e.clientY], store.getState().state[drive], round ?? false));
  };

  const take = (facet: number, e: ThreeEvent<PointerEvent>): boolean => {
    const { moves } = scene.facets[facet];
    const { pose, state } = store.getState();
    if (!moves || !pose || e.button !== 0) return false;
    play(false);
    carry(moves);
    const at = onPiece(pose, facet, [e.point.x, e.point.y, e.point.z]);
    const now: Held = { drive: moves, round: carriedDrive(store.getState()).round === true, way: null };
    held.current = now;
    if (controls) controls.enabled = false;
    void engine('pose')
      .way(scene.design, state, moves, facet, at)
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
