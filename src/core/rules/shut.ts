/** Paper as it lies in the shut card, seen from above. */
import { onFacet, type Pose } from '../assembly/pose';
import { ringArea, type Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';

/** A polygon in the plane of a facet, in world axes; its rings run as those of every polygon do. */
export function shutOutline(closed: Pose, facet: number, { outer, holes }: Polygon): Polygon {
  const ring = (r: readonly Vec2[]): readonly Vec2[] =>
    r.map((q): Vec2 => {
      const [x, y] = onFacet(closed, facet, q);
      return [x, y];
    });
  const turn = (r: readonly Vec2[], sign: 1 | -1): readonly Vec2[] => (ringArea(r) * sign > 0 ? r : [...r].reverse());
  return { outer: turn(ring(outer), 1), holes: holes.map((h) => turn(ring(h), -1)) };
}
