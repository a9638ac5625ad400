'use client';
import { SIDES, type Parameter, type Side } from '@/core/kinds';
import type { Mount } from '@/core/document/design';
import { ownerOfId } from '@/core/ids';
import { nameOfPart } from '@/core/document/words';
import { standingOn } from '@/core/document/standing';
import { useActions, useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';

const PLACE: readonly (Parameter & { readonly key: 'x' | 'y' | 'turnDeg' })[] = [
  {
    key: 'x',
    label: 'Across',
    unit: 'mm',
    default: 0,
    min: -5000,
    max: 5000,
    note: 'From the middle of the facet to the right, as it is read.',
  },
  { key: 'y', label: 'Up', unit: 'mm', default: 0, min: -5000, max: 5000, note: 'From the middle of the facet.' },
  {
    key: 'turnDeg',
    label: 'Turned',
    unit: 'deg',
    default: 0,
    min: -360,
    max: 360,
    note: 'Counter-clockwise, as it is read.',
  },
];

/** The face something is fixed on, and its place there. */
export function MountFields({ id, on, mount }: { id: string; on: string; mount: Mount }) {
  const design = useStudio((s) => s.design);
  const faces = useStudio((s) => s.scene?.faces) ?? [];
  const { edit } = useActions();
  const own = new Set(standingOn(design, id));
  const names = [...new Set([...faces.map((f) => f.facet).filter((f) => !own.has(ownerOfId(f))), on])];
  const put = (label: string, next: { on?: string; mount?: Mount }): void =>
    edit(label, (d) => ({ ...d, mechanisms: d.mechanisms.map((m) => (m.id === id ? { ...m, ...next } : m)) }));
  return (
    <>
      <Choice
        asList
        label="Fixed on"
        value={on}
        choices={names.map((f) => ({ id: f, name: nameOfPart(design, f) }))}
        onChange={(facet) => put(`onto the ${nameOfPart(design, facet)}`, { on: facet })}
      />
      <Choice
        label="Side"
        value={mount.side}
        choices={SIDES.map((side) => ({ id: side, name: side }))}
        onChange={(side) => put(side, { mount: { ...mount, side: side as Side } })}
      />
      {PLACE.map((p) => (
        <NumberField
          key={p.key}
          parameter={p}
          value={mount[p.key]}
          unit={design.units}
          onChange={(v) => v !== null && put(p.label.toLowerCase(), { mount: { ...mount, [p.key]: v } })}
        />
      ))}
    </>
  );
}
