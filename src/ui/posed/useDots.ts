'use client';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { Vec3 } from '@/core/linkage';

/** A few places as graphics take them, for marks and lines; drawn anew when they change and when they go. */
export function useDots(places: readonly Vec3[]): THREE.BufferGeometry {
  const { invalidate } = useThree();
  const geometry = useMemo(() => {
    const made = new THREE.BufferGeometry();
    made.setAttribute('position', new THREE.BufferAttribute(new Float32Array(places.flat()), 3));
    return made;
  }, [places]);
  useEffect(() => {
    invalidate();
    return () => {
      geometry.dispose();
      invalidate();
    };
  }, [geometry, invalidate]);
  return geometry;
}
