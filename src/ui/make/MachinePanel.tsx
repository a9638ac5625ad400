'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { readProfile } from '@/core/document/profile';
import { MACHINES, type Blade, type MachineProfile } from '@/core/paper/machine';
import { useActions, useStudio } from '@/store/context';
import { count, mm } from '../common/asked';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { FileButton } from '../common/FileButton';
import { fileName, saveAs, textOf } from '../common/files';

const NONE = 'none';
const OWN = 'own';
/** A profile is a small file of plain numbers (characters). */
const LARGEST_PROFILE = 100_000;

const BLADE: readonly ReturnType<typeof mm>[] = [
  mm('offsetMm', 'Blade trails by', 0, 5, { note: 'From the axis it turns about to its tip.' }),
  mm('leadInMm', 'Begins before', 0, 20, { note: 'Closed lines begin so far before their start.' }),
  mm('overcutMm', 'Goes on past', 0, 20, { note: 'Closed lines go on so far past their end.' }),
  mm('leastRadiusMm', 'Least radius', 0, 50, { note: 'Tighter curves tear.' }),
];
const SPEED = count('outline', 'Cuts at, mm/s', 0.1, 5000);
const PACE = count('accelerationMmS2', 'Speeds up by, mm/s²', 1, 100_000);

/** The machine that cuts: one that ships, one of a file, or none; its numbers by hand. */
export function MachinePanel() {
  const machine = useStudio((s) => s.design.machine);
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const [why, setWhy] = useState<string | null>(null);
  const set = (label: string, next: MachineProfile | null): void =>
    edit(label, ({ machine: _, ...d }) => (next ? { ...d, machine: next } : d));
  const known = MACHINES.find((m) => JSON.stringify(m) === JSON.stringify(machine));
  const open = async (chosen: File): Promise<void> => {
    const whole = await textOf(chosen, LARGEST_PROFILE, 'a machine profile');
    const read = whole.ok ? readProfile(whole.text) : whole;
    if (!read.ok) return setWhy(`${chosen.name} was not taken: ${read.why}`);
    setWhy(null);
    set(`machine ${read.profile.name}`, read.profile);
  };
  const blade = (change: Partial<Blade>): void => {
    if (machine) set('blade', { ...machine, blade: { ...machine.blade, ...change } });
  };
  return (
    <Box as="section" aria-label="Machine" mt="14px">
      <chakra.h2 className="heading" mb="8px !important">
        Machine
      </chakra.h2>
      <Choice
        asList
        label="Cut with"
        value={known?.name ?? (machine ? OWN : NONE)}
        choices={[
          { id: NONE, name: 'a knife by hand, or not said' },
          ...MACHINES.map((m) => ({ id: m.name, name: m.name })),
          ...(machine && !known ? [{ id: OWN, name: `${machine.name}, own numbers` }] : []),
        ]}
        onChange={(id) =>
          set('machine', MACHINES.find((m) => m.name === id) ?? (id === OWN ? (machine ?? null) : null))
        }
      />
      {machine && (
        <details>
          <chakra.summary cursor="pointer" mb="6px">
            Its numbers
          </chakra.summary>
          {BLADE.map((p) => (
            <NumberField
              key={p.key}
              fine
              parameter={p}
              value={machine.blade[p.key as 'offsetMm']}
              unit={units}
              onChange={(v) => v !== null && blade({ [p.key]: v })}
            />
          ))}
          <Choice
            label="Offset is made up by"
            value={machine.blade.madeUpBy}
            choices={[
              { id: 'file', name: 'the files' },
              { id: 'machine', name: 'the machine' },
            ]}
            onChange={(id) => blade({ madeUpBy: id as Blade['madeUpBy'] })}
          />
          <Choice
            label="Closed lines go"
            value={machine.blade.direction}
            choices={[
              { id: 'either', name: 'either way' },
              { id: 'left', name: 'left' },
              { id: 'right', name: 'right' },
            ]}
            onChange={(id) => blade({ direction: id as Blade['direction'] })}
          />
          <NumberField
            parameter={SPEED}
            value={machine.passes.outline.speedMmS}
            unit="mm"
            onChange={(v) => {
              if (v === null) return;
              const at = (pass: 'inner' | 'outline' | 'perforate') => ({ ...machine.passes[pass], speedMmS: v });
              const passes = {
                ...machine.passes,
                inner: at('inner'),
                outline: at('outline'),
                perforate: at('perforate'),
              };
              set('speed of the cuts', { ...machine, passes });
            }}
          />
          <NumberField
            parameter={PACE}
            value={machine.accelerationMmS2}
            unit="mm"
            onChange={(v) => v !== null && set('pace of the machine', { ...machine, accelerationMmS2: v })}
          />
        </details>
      )}
      <Box display="flex" gap="7px" flexWrap="wrap">
        <FileButton
          label="Machine profile"
          accept=".json,application/json"
          testId="profile-file"
          onFile={(f) => void open(f)}
        >
          Open a profile
        </FileButton>
        {machine && (
          <Action
            small
            onClick={() =>
              saveAs(`${fileName(machine.name)}.json`, JSON.stringify(machine, null, 1), 'application/json')
            }
          >
            Save the profile
          </Action>
        )}
      </Box>
      {why && (
        <chakra.p role="alert" color="bad" mt="6px" fontSize="13px">
          {why}
        </chakra.p>
      )}
    </Box>
  );
}
