import * as THREE from 'three';
import type { Vec3 } from '@/core/linkage';
import type { Vec2 } from '@/core/plane/vec2';

type Box = Pick<DOMRect, 'left' | 'top' | 'width' | 'height'>;

/** Where a place in world axes is seen by a camera whose view fills a box, in the pixels of the box. */
export function seenAt(camera: THREE.Camera, place: Vec3, { left, top, width, height }: Box): Vec2 {
  const p = new THREE.Vector3(...place).project(camera);
  return [left + ((p.x + 1) / 2) * width, top + ((1 - p.y) / 2) * height];
}
