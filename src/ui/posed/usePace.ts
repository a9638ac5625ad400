'use client';
import { useThree } from '@react-three/fiber';
import { useCallback, useEffect, useRef, type RefObject } from 'react';
import type * as THREE from 'three';
import { LEVELS, Pace } from './pace';

/** Nothing moved for so long: everything is drawn again, ms. */
const REST_MS = 160;
/** No screen needs more than this, pixels drawn for one of the page. */
const MOST_PIXELS = 2;
/** One for the page: what a machine can do does not change with the card. */
const pace = new Pace();

/**
 * Shadows and pixels step back while things move and return when they rest. The returned function is told of each
 * frame of a movement.
 */
export function usePace(light: RefObject<THREE.DirectionalLight | null>, ground: RefObject<THREE.Mesh | null>) {
  const { gl, invalidate } = useThree();
  const drawn = useRef(0);
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const draw = useCallback(
    (level: number): void => {
      if (level === drawn.current) return;
      drawn.current = level;
      const { shadows, pixels } = LEVELS[level];
      if (light.current) light.current.castShadow = shadows;
      if (ground.current) ground.current.visible = shadows;
      gl.setPixelRatio(Math.min(pixels * window.devicePixelRatio, Math.max(pixels, MOST_PIXELS)));
      invalidate();
    },
    [gl, invalidate, light, ground],
  );
  useEffect(() => () => clearTimeout(resting.current), []);
  return useCallback((): void => {
    draw(pace.frame(performance.now()));
    clearTimeout(resting.current);
    resting.current = setTimeout(() => {
      pace.rest();
      draw(0);
    }, REST_MS);
  }, [draw]);
}
