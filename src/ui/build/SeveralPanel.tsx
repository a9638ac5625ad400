'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { alignedAlong, mirroredCopies, setForAll, sharedNumbers, spreadAlong } from '@/core/document/several';
import { fieldOf, parameterOf, setParameter } from '@/core/document/fields';
import { removeMechanism } from '@/core/document/standing';
import { inSentence, nameOfMechanism } from '@/core/document/words';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { KeepOwn } from './KeepOwn';
import { useClipboard } from './useClipboard';

/** What can be done to several mechanisms at once. */
export function SeveralPanel({ ids }: { readonly ids: readonly string[] }) {
  const design = useStudio((s) => s.design);
  const { edit, select, selectAlso } = useActions();
  const { copy } = useClipboard();
  const shared = sharedNumbers(design, ids);
  const [key, setKey] = useState<string | null>(null);
  const shown = key !== null && shared.includes(key) ? key : (shared[0] ?? null);
  const kind = design.mechanisms.find((m) => m.id === ids[0])?.kind ?? '';
  const field = shown === null ? undefined : fieldOf(kind, shown);
  const values = shown === null ? [] : ids.map((id) => parameterOf(design, id, shown));
  const same = values.every((v) => v === values[0]);
  const what = `${ids.length} mechanisms`;
  return (
    <Box data-testid="several">
      <chakra.h2 className="heading" mb="8px !important">
        {what}
      </chakra.h2>
      <Box as="ul" m="0 0 12px" pl="18px">
        {ids.map((id) => (
          <li key={id}>{nameOfMechanism(design, id)}</li>
        ))}
      </Box>
      <Box display="flex" flexWrap="wrap" gap="6px" mb="12px">
        <Action small onClick={() => edit(`line up ${what}`, (d) => alignedAlong(d, ids))}>
          Line up with the first
        </Action>
        <Action small disabled={ids.length < 3} onClick={() => edit(`spread ${what}`, (d) => spreadAlong(d, ids))}>
          Spread evenly
        </Action>
        <Action
          small
          onClick={() => {
            let made: readonly string[] = [];
            edit(`mirror ${what}`, (d) => {
              const next = mirroredCopies(d, ids);
              made = next.ids;
              return next.design;
            });
            made.forEach((id, k) => (k === 0 ? select(id) : selectAlso(id)));
          }}
        >
          Duplicate mirrored
        </Action>
        <Action small onClick={() => void copy()}>
          Copy
        </Action>
        <KeepOwn ids={ids} />
        <Action
          small
          danger
          onClick={() => edit(`remove ${what}`, (d) => ids.reduce((x, id) => removeMechanism(x, id), d))}
        >
          Remove
        </Action>
      </Box>
      {field && shown !== null && (
        <>
          <Choice
            asList
            label="One number for all"
            value={shown}
            choices={shared.map((k) => ({ id: k, name: fieldOf(kind, k)?.label ?? k }))}
            onChange={setKey}
          />
          <NumberField
            parameter={{ ...field, default: null }}
            value={same ? (values[0] as number) : null}
            follows="differ"
            unit={design.units}
            onChange={(v) =>
              v !== null && edit(`${inSentence(field.label)} of ${what}`, (d) => setForAll(d, ids, shown, v))
            }
          />
          <chakra.h3 className="heading" m="14px 0 6px !important">
            {field.label}, each its own
          </chakra.h3>
          {ids.map((id, k) => (
            <NumberField
              key={id}
              parameter={{ ...field, key: `${field.key} of ${id}`, label: nameOfMechanism(design, id) }}
              value={values[k] as number}
              unit={design.units}
              onChange={(v) =>
                v !== null &&
                edit(`${inSentence(field.label)} of ${nameOfMechanism(design, id)}`, (d) =>
                  setParameter(d, id, shown, v),
                )
              }
            />
          ))}
        </>
      )}
    </Box>
  );
}
