'use client';
import { boxOf, type Box2 } from '@/core/plane/polygon';
import { useStudio } from '@/store/context';

/** Boxes of the layers where they lie, by id. */
export function useBoxes(): ReadonlyMap<string, Box2> {
  const scene = useStudio((s) => s.scene);
  return new Map(
    (scene?.facets ?? []).flatMap((f) =>
      f.mats.filter((m) => m.id.startsWith('layer.')).map((m) => [m.id.slice(6), boxOf(m.rings.flat())] as const),
    ),
  );
}
