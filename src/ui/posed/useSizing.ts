'use client';
import { useThree, type ThreeEvent } from '@react-three/fiber';
import { useEffect, useRef, useState } from 'react';
import { setLever } from '@/core/proof/levers';
import type { Vec3 } from '@/core/linkage';
import type { Vec2 } from '@/core/plane/vec2';
import { CARD } from '@/core/ids';
import { useStudioStore } from '@/store/context';
import { engine } from '@/workers/client';
import type { Scene } from '@/workers/protocol';
import { useHold } from '../build/useHold';
import { CLICK_PX } from '../views/useViewport';
import { seenAt } from './seen-at';
import { meant, seenGrips, type SeenGrip } from './sizing';

/** So many pixels are as good as being there. */
const SNAP_PX = 3;

export type Ghost = readonly (readonly Vec3[])[];

/**
 * A corner of the selected mechanism is taken hold of and drawn out: the number whose corner goes that way follows.
 * Where its room ends, its paper is shown as it would stand there.
 */
export function useSizing(scene: Scene) {
  const { camera, gl } = useThree();
  const controls = useThree((s) => s.controls) as { enabled: boolean } | null;
  const store = useStudioStore();
  const hold = useHold();
  const [ghosts, setGhosts] = useState<readonly Ghost[]>([]);
  const letGo = useRef<() => void>(() => undefined);
  useEffect(() => () => letGo.current(), []);

  const seen = (place: Vec3): Vec2 => seenAt(camera, place, gl.domElement.getBoundingClientRect());
  const showLimits = async (parameter: string): Promise<void> => {
    const { design, selected, state, rooms } = store.getState();
    const room = rooms[parameter]?.clear;
    if (!room) return;
    const ends = [room.low, room.high].filter((e) => e.by !== '');
    const found = await Promise.all(
      ends.map(({ value }) => engine('study').ghost(setLever(design, selected, parameter, value), state, selected)),
    );
    if (hold.held()) setGhosts(found.flatMap((a) => (a.ok ? [a.value] : [])));
  };

  const take = (facet: number, e: ThreeEvent<PointerEvent>): boolean => {
    const { selected, state, design, writes } = store.getState();
    if (e.button !== 0 || !writes || selected === CARD || scene.facets[facet].mechanism !== selected) return false;
    const from: Vec2 = [e.clientX, e.clientY];
    let grips: readonly SeenGrip[] | null = null;
    const point: [number, number, number] = [e.point.x, e.point.y, e.point.z];
    if (controls) controls.enabled = false;
    void engine('study')
      .posedGrips(design, state, facet, point)
      .then((answer) => {
        grips = answer.ok && answer.value ? seenGrips(answer.value.corner, answer.value.grips, seen) : [];
      });
    const move = (p: PointerEvent): void => {
      const by: Vec2 = [p.clientX - from[0], p.clientY - from[1]];
      if (Math.hypot(...by) < CLICK_PX || !grips) return;
      if (!hold.held()) {
        const grip = meant(grips, by);
        if (!grip) return;
        const within = SNAP_PX / Math.hypot(...grip.way);
        if (!hold.begin({ mechanism: selected, parameter: grip.parameter, way: grip.way, snaps: [], within })) return;
        void showLimits(grip.parameter);
      }
      hold.follow(by, [p.clientX, p.clientY]);
    };
    const end = (keep: boolean) => (): void => {
      if (hold.held()) hold.end(keep);
      setGhosts([]);
      if (controls) controls.enabled = true;
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', done);
      window.removeEventListener('pointercancel', given);
    };
    const [done, given] = [end(true), end(false)];
    letGo.current = given;
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', done);
    window.addEventListener('pointercancel', given);
    return true;
  };
  return { take, note: hold.note, ghosts };
}
