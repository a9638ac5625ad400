'use client';
import { nameOfPart } from '@/core/document/words';
import { dist2, lerp2, scale2, sub2, type Vec2 } from '@/core/plane/vec2';
import { ringArea, type Ring } from '@/core/plane/polygon';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { FlatSlider } from './FlatSlider';
import { gluingOf, INSET, putGluing } from './gluing';

/** The glue areas of the selected mechanism on a piece, each set in by dragging its longest edge. */
export function FlatGlue({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  return (
    <>
      {scene.glue
        .filter((g) => g.piece === piece && g.mechanism === selected)
        .map(({ id, outline }) => (
          <FlatSlider
            key={id}
            slid={{
              label: `${nameOfPart(design, id)}: set in`,
              value: gluingOf(design, id).insetMm ?? 0,
              field: INSET,
              ...longestEdge(outline),
              put: (d, insetMm) => putGluing(d, id, { insetMm }),
            }}
          />
        ))}
    </>
  );
}

/** The middle of the longest edge of a ring, and the way into the ring from there. */
function longestEdge(ring: Ring): { readonly at: Vec2; readonly way: Vec2 } {
  const edges = ring.map((a, k) => ({ a, b: ring[(k + 1) % ring.length] }));
  const { a, b } = edges.reduce((best, e) => (dist2(e.a, e.b) > dist2(best.a, best.b) ? e : best));
  const [x, y] = scale2(sub2(b, a), 1 / dist2(a, b));
  return { at: lerp2(a, b, 0.5), way: ringArea(ring) > 0 ? [-y, x] : [y, -x] };
}
