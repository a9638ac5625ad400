'use client';
import { useMemo } from 'react';
import { asAt, stateAt, type At } from '@/core/decide/wants';
import { statesOf } from '@/core/document/states';
import { OPEN, stateIn, type Drive } from '@/core/drives';
import { useStudio } from '@/store/context';
import { deg, mm } from '../common/asked';
import { NumberField } from '../common/Field';
import { Pick } from '../common/Pick';

const BY_HAND = { id: 'by-hand', name: 'in the state' };
const AS_SHOWN = { id: 'as-shown', name: 'as it stands now' };

/** The state that something is measured in: its opening and what else is moved, as numbers; or one that is there. */
export function StateChoice({ at, onChange }: { readonly at: At; readonly onChange: (at: At) => void }) {
  const design = useStudio((s) => s.design);
  const drives = useStudio((s) => s.scene?.drives);
  const shown = useStudio((s) => s.state);
  const named = useMemo(() => statesOf(design), [design]);
  if (!drives) return null;
  const choose = (id: string): void => {
    const state = named.find((s) => s.id === id);
    if (state) onChange(asAt(drives, stateIn(drives, state)));
    else if (id === AS_SHOWN.id) onChange(asAt(drives, shown));
  };
  const state = stateAt(drives, at);
  return (
    <>
      <Pick
        label="State"
        value={BY_HAND.id}
        choices={[BY_HAND, AS_SHOWN, ...named.map(({ id, name }) => ({ id, name }))]}
        onChange={choose}
      />
      {drives.map((drive) => (
        <NumberField
          key={drive.id}
          parameter={fieldOfDrive(drive)}
          value={state[drive.id]}
          unit={design.units}
          onChange={(v) => onChange(asAt(drives, { ...state, [drive.id]: v ?? drive.rest }))}
        />
      ))}
    </>
  );
}
function fieldOfDrive({ id, label, unit, from, to }: Drive) {
  if (id === OPEN) return { ...deg('want-open', 'open'), min: from, max: to };
  return unit === 'mm' ? mm(`want-${id}`, label, from, to) : { ...deg(`want-${id}`, label), min: from, max: to };
}
