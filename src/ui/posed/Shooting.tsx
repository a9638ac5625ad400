'use client';
import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import * as THREE from 'three';
import { LEVELS } from './pace';
import { showsNow } from './shot';

/** Lets the view be saved as a picture: drawn once at the size that is wanted, then put back. */
export function Shooting() {
  const { gl, scene, camera, size, invalidate } = useThree();
  useEffect(() => {
    showsNow((widthPx, ground) => {
      const before = gl.getPixelRatio();
      const clear = gl.getClearColor(new THREE.Color());
      const alpha = gl.getClearAlpha();
      gl.setPixelRatio(widthPx / size.width);
      if (ground === null) gl.setClearColor(0x000000, 0);
      else gl.setClearColor(new THREE.Color(ground), 1);
      gl.render(scene, camera);
      // Read in the same turn: the browser clears what it has shown.
      const url = gl.domElement.toDataURL('image/png');
      gl.setClearColor(clear, alpha);
      gl.setPixelRatio(before > 0 ? before : LEVELS[0].pixels);
      invalidate();
      return url;
    });
    return () => showsNow(null);
  }, [gl, scene, camera, size, invalidate]);
  return null;
}
