'use client';
import { settingOf } from '@/core/document/settings';
import { MEANT } from '@/core/ids';
import { useActions, useStudio } from '@/store/context';
import { mm } from './asked';
import { NumberField } from './Field';

const FIELD = mm('meant-out', 'Meant to stick out by', 0, 500, {
  note: 'Of the shut card: up to so much nothing is said of it, and the envelope has to be larger.',
});

/** How far a mechanism or a layer (`layer.ID`) may pass the edge of the shut card. */
export function MeantField({ of }: { readonly of: string }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const setting = settingOf(design, MEANT, of);
  if (!setting) return null;
  return (
    <NumberField
      parameter={FIELD}
      value={setting.value}
      unit={design.units}
      onChange={(v) => edit('meant to stick out', (d) => settingOf(d, MEANT, of)!.set(v ?? 0))}
    />
  );
}
