'use client';
import { putShape } from '@/core/document/shape-sizes';
import type { Design } from '@/core/document/design';
import { freeAssetId } from '@/core/build/workshop';
import type { Shape } from '@/core/shapes/shape';
import { useActions, useStudio } from '@/store/context';

/**
 * Makes a change that puts a shape on the shelf; it then goes into the field that asked for it, else on the bench of
 * the workshop.
 */
export function useShelve(): (
  label: string,
  put: (design: Design) => { readonly design: Design; readonly id: string },
) => void {
  const { edit, show } = useActions();
  const into = useStudio((s) => (s.dialog?.kind === 'bring' ? s.dialog.into : undefined));
  return (label, put) => {
    let id = '';
    edit(label, (d) => {
      const shelved = put(d);
      id = shelved.id;
      return into ? putShape(shelved.design, into.mechanism, into.path, { asset: id }) : shelved.design;
    });
    show(into ? null : { kind: 'workshop', asset: id });
  };
}

/** Keeps a new shape. */
export function useKeep(): (name: string, source: Shape) => void {
  const shelve = useShelve();
  return (name, source) =>
    shelve(`shape ${name}`, (d) => {
      const id = freeAssetId(d, name);
      return { design: { ...d, shapes: [...d.shapes, { id, name, source, steps: [] }] }, id };
    });
}
