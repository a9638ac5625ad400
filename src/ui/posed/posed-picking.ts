/** What of the posed card the pointer is at: a crease where it is near one, else the facet. */
import { aroundNow, ownAxes, pickAt, type Picked } from '../build/picking';
import { distToSegment } from '@/core/plane/vec2';
import type { Scene, ScenePose } from '@/workers/protocol';
import type { Vec3 } from '@/core/linkage';
import { onPiece } from './placing';

/** The crease of a facet's piece that a point of the facet is nearest to, within reach (mm); null where none is. */
export function creaseAt(scene: Scene, pose: ScenePose, facet: number, at: Vec3, withinMm: number): string | null {
  const { piece, bent } = scene.facets[facet];
  if (bent !== undefined) return null;
  const [x, y] = onPiece(pose, facet, at);
  let best: { id: string; off: number } | null = null;
  for (const { id, segments, piece: own } of scene.creases)
    for (const { a, b } of own === piece ? segments : []) {
      const off = distToSegment([x, y], a, b);
      if (off <= withinMm && off < (best?.off ?? Infinity)) best = { id, off };
    }
  return best?.id ?? null;
}

/** What is picked to measure from at a point of a facet. */
export const measuredAt = (scene: Scene, pose: ScenePose, facet: number, at: Vec3, withinMm: number): Picked => {
  const { piece } = scene.facets[facet];
  const [x, y] = onPiece(pose, facet, at);
  return pickAt(scene, { around: aroundNow(scene, piece), frame: ownAxes(piece) }, [x, y], withinMm);
};
