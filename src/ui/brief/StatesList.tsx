'use client';
import { Box, chakra } from '@chakra-ui/react';
import { STANCE_WORDS } from '@/core/document/words';
import { STANCES, type NamedState } from '@/core/kinds';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { useNamedStates, valuesKept } from '../common/useNamedStates';
import { driveWords } from '../studio/Drives';

const LEFT = [{ id: '', name: 'in the hand' }, ...STANCES.map((id) => ({ id, name: STANCE_WORDS[id] }))];

/** What its maker calls the places a card is left in: each is proved, posed with a click, and drawn in Make. */
export function StatesList() {
  const { states, drives, put } = useNamedStates();
  const own = useStudio((s) => s.design.states !== undefined);
  const units = useStudio((s) => s.design.units);
  const now = useStudio((s) => s.state);
  const { stand } = useActions();
  const change = (id: string, words: string, next: (s: NamedState) => NamedState): void =>
    put(words, (known) => known.map((s) => (s.id === id ? next(s) : s)));
  return (
    <Box mb="14px" data-testid="states">
      <chakra.h2 className="heading" m="18px 0 8px !important">
        States by name
      </chakra.h2>
      {states.map(({ named, state }) => (
        <Box key={named.id} borderTop="1px solid var(--rule)" pt="8px" mb="4px" data-state-row={named.id}>
          <Box display="flex" gap="6px" mb="6px">
            <chakra.input
              key={named.name}
              aria-label={`Name of ${named.name}`}
              defaultValue={named.name}
              maxLength={60}
              flex="1"
              minWidth="0"
              height="28px"
              px="7px"
              bg="field"
              border="1px solid var(--rule)"
              borderRadius="card"
              onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name && name !== named.name) change(named.id, `state “${name}”`, (s) => ({ ...s, name }));
              }}
            />
            <Action
              small
              aria-label={`Remove ${named.name}`}
              onClick={() => put(`no state “${named.name}”`, (k) => k.filter((s) => s.id !== named.id))}
            >
              Remove
            </Action>
          </Box>
          <Choice
            asList
            label="Left"
            value={named.stance ?? ''}
            choices={LEFT}
            onChange={(id) =>
              change(named.id, `${named.name}: ${LEFT.find((s) => s.id === id)!.name}`, ({ stance: _, ...rest }) =>
                id === '' ? rest : { ...rest, stance: id as NonNullable<NamedState['stance']> },
              )
            }
          />
          <Box display="flex" gap="6px" alignItems="center" fontSize="13px" mb="8px">
            <chakra.span className="dim" flex="1">
              {drives.map((d) => `${d.label} ${driveWords(d, state[d.id], units)}`).join(' · ')}
            </chakra.span>
            <Action small onClick={() => stand(state)}>
              Go there
            </Action>
            <Action
              small
              title="Keeps where everything stands now under this name"
              onClick={() =>
                change(named.id, `${named.name} as it stands`, (s) => ({ ...s, drives: valuesKept(drives, now) }))
              }
            >
              As now
            </Action>
          </Box>
        </Box>
      ))}
      {own && (
        <Action small onClick={() => put('states of the base', () => undefined)}>
          Those of the base again
        </Action>
      )}
    </Box>
  );
}
