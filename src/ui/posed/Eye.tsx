'use client';
import { OrbitControls } from '@react-three/drei';
import { useThree } from '@react-three/fiber';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import * as THREE from 'three';
import { CARD } from '@/core/ids';
import type { Scene } from '@/workers/protocol';
import { fittingDistance, pxPerMmAt, type Seen } from './looking';
import { seenAt } from './seen-at';
import type { Direction } from './views';
import type { Vec3 } from '@/core/linkage';

/** What tools and keys do to the eye. */
export interface EyeHand {
  readonly nearer: (factor: number) => void;
  /** Turned about the card: round and up, degrees. */
  readonly turn: (roundDeg: number, upDeg: number) => void;
  /** Moved along the view, pixels. */
  readonly slide: (dx: number, dy: number) => void;
  /** These points of the card in the middle, as large as there is room. */
  readonly fitTo: (points: readonly Vec3[]) => void;
  /** At what is in the middle, so many pixels for a millimetre. */
  readonly toScale: (pxPerMm: number) => void;
}

export interface EyeProps {
  readonly scene: Scene;
  /** Where the eye is, in world axes, and a number that changes when it is to be put back there. */
  readonly from: Direction;
  readonly turned: number;
  readonly hand: RefObject<EyeHand | null>;
  /** Told when something else is seen. */
  readonly onSeen: (seen: Seen) => void;
}

/** The eye keeps within these, in radii of the card. */
const NEAREST = 0.1;
const FARTHEST = 12;
/** A card that has grown or shrunk by more than this is looked at anew; less would only make the view jump. */
const OTHER_SIZE = 1.6;

type Ground = NonNullable<Scene['ground']>;
/** The middle of where it opens, and how far that reaches. */
function groundOf({ ground, pieces }: Scene): Ground {
  if (ground) return ground;
  const ring = pieces.find((p) => p.mechanism === CARD)?.rings[0] ?? [[100, 100]];
  return { x: 0, y: 0, radius: Math.max(...ring.map((p) => Math.hypot(p[0], p[1]))) };
}

/** What the eye is led about: the card as it was when the view was put there, so that an edit does not move it. */
function useHome(scene: Scene): Ground {
  const now = groundOf(scene);
  const [home, setHome] = useState(now);
  if (Math.abs(Math.log(now.radius / home.radius)) > Math.log(OTHER_SIZE)) setHome(now);
  return home;
}

/** Where the card is looked at from; turned, moved and brought nearer by hand, tools and keys. */
export function Eye({ scene, from, turned, hand, onSeen }: EyeProps) {
  const { invalidate, size } = useThree();
  const camera = useThree((s) => s.camera) as THREE.PerspectiveCamera;
  const controls = useRef<React.ComponentRef<typeof OrbitControls>>(null);
  const { x, y, radius } = useHome(scene);
  const middle = useMemo(() => new THREE.Vector3(x, y, radius * 0.22), [x, y, radius]);
  const room = Math.min(1, size.width / Math.max(1, size.height));
  const roomNow = useRef(room);

  useEffect(() => {
    const away = new THREE.Vector3(...from).normalize();
    camera.position.copy(away.multiplyScalar((radius * 4.1) / roomNow.current)).add(middle);
    camera.up.set(0, 0, 1);
    controls.current?.target.copy(middle);
    controls.current?.update();
    invalidate();
    // `turned` counts clicks: the same view again brings it back after orbiting.
  }, [camera, invalidate, middle, radius, from, turned]);
  useEffect(() => {
    const target = controls.current?.target ?? middle;
    const factor = roomNow.current / room;
    roomNow.current = room;
    camera.position.sub(target).multiplyScalar(factor).add(target);
    controls.current?.update();
  }, [camera, middle, room]);

  useEffect(() => {
    const at = (): THREE.Vector3 => controls.current?.target ?? middle;
    const put = (away: THREE.Vector3): void => {
      const far = Math.min(radius * FARTHEST, Math.max(radius * NEAREST, away.length()));
      camera.position.copy(away.setLength(far)).add(at());
      controls.current?.update();
      invalidate();
    };
    const away = (): THREE.Vector3 => camera.position.clone().sub(at());
    hand.current = {
      nearer: (factor) => put(away().divideScalar(factor)),
      turn: (roundDeg, upDeg) => {
        const ball = new THREE.Spherical().setFromVector3(away().applyQuaternion(UP_IS_Y));
        ball.theta += THREE.MathUtils.degToRad(roundDeg);
        ball.phi -= THREE.MathUtils.degToRad(upDeg);
        put(new THREE.Vector3().setFromSpherical(ball.makeSafe()).applyQuaternion(UP_IS_Z));
      },
      slide: (dx, dy) => {
        const mm = 1 / pxPerMmAt(away().length(), camera.fov, size.height);
        const right = new THREE.Vector3().setFromMatrixColumn(camera.matrix, 0).multiplyScalar(dx * mm);
        const up = new THREE.Vector3().setFromMatrixColumn(camera.matrix, 1).multiplyScalar(dy * mm);
        const by = right.add(up);
        at().add(by);
        camera.position.add(by);
        controls.current?.update();
        invalidate();
      },
      fitTo: (points) => {
        const ball = new THREE.Sphere().setFromPoints(points.map((p) => new THREE.Vector3(...p)));
        const way = away().normalize();
        at().copy(ball.center);
        put(way.multiplyScalar(fittingDistance(Math.max(ball.radius, 1), camera.fov, room)));
      },
      toScale: (pxPerMm) => put(away().multiplyScalar(pxPerMmAt(away().length(), camera.fov, size.height) / pxPerMm)),
    };
    return () => {
      hand.current = null;
    };
  }, [camera, hand, invalidate, middle, radius, room, size.height]);

  useEffect(() => {
    const tell = (): void => {
      const target = controls.current?.target ?? middle;
      const scale = pxPerMmAt(camera.position.distanceTo(target), camera.fov, size.height);
      camera.updateMatrixWorld();
      const { width, height } = size;
      const [zeroX, zeroY] = seenAt(camera, [0, 0, 0], { left: 0, top: 0, width, height });
      onSeen({ scale, zeroX, zeroY, width, height });
    };
    tell();
    const now = controls.current;
    now?.addEventListener('change', tell);
    return () => now?.removeEventListener('change', tell);
  }, [camera, middle, onSeen, size]);

  return (
    <OrbitControls
      ref={controls}
      makeDefault
      enableDamping={false}
      maxDistance={radius * FARTHEST}
      minDistance={radius * NEAREST}
    />
  );
}
const UP_IS_Y = new THREE.Quaternion().setFromUnitVectors(new THREE.Vector3(0, 0, 1), new THREE.Vector3(0, 1, 0));
const UP_IS_Z = UP_IS_Y.clone().invert();
