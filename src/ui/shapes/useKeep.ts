'use client';
import { freeAssetId } from '@/core/project/workshop';
import type { Shape } from '@/core/shapes/shape';
import { useActions } from '@/store/context';

/** Puts a shape on the shelf and opens it in the workshop. */
export function useKeep(): (name: string, source: Shape) => void {
  const { edit, show } = useActions();
  return (name, source) => {
    let id = '';
    edit(`shape ${name}`, (d) => {
      id = freeAssetId(d, name);
      return { ...d, shapes: [...d.shapes, { id, name, source, steps: [] }] };
    });
    show({ kind: 'workshop', asset: id });
  };
}
