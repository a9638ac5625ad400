'use client';
import { boxOf, type Box2 } from '@/core/plane/polygon';
import { idOfLayer } from '@/core/ids';
import { useStudio } from '@/store/context';

/** Boxes of the layers and windows where they lie, by id of the layer. */
export function useBoxes(): ReadonlyMap<string, Box2> {
  const scene = useStudio((s) => s.scene);
  const drawn = [...(scene?.facets ?? []).flatMap((f) => f.mats), ...(scene?.openings ?? [])];
  return new Map(
    drawn.flatMap(({ id, rings }) => {
      const layer = idOfLayer(id);
      return layer === null ? [] : [[layer, boxOf(rings.flat())] as const];
    }),
  );
}
