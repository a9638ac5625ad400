'use client';
import { setParameter } from '@/core/project/design';
import { freeAssetId } from '@/core/project/workshop';
import type { Shape } from '@/core/shapes/shape';
import { useActions, useStudio } from '@/store/context';

/** Puts a shape on the shelf; then into the field that asked for it, else on the bench of the workshop. */
export function useKeep(): (name: string, source: Shape) => void {
  const { edit, show } = useActions();
  const into = useStudio((s) => (s.dialog?.kind === 'bring' ? s.dialog.into : undefined));
  return (name, source) => {
    let id = '';
    edit(`shape ${name}`, (d) => {
      id = freeAssetId(d, name);
      const shelved = { ...d, shapes: [...d.shapes, { id, name, source, steps: [] }] };
      return into ? setParameter(shelved, into.mechanism, into.path, { asset: id }) : shelved;
    });
    show(into ? null : { kind: 'workshop', asset: id });
  };
}
