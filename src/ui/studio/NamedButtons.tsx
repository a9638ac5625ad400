'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { freeStateId, sameState, useNamedStates, valuesKept } from '../common/useNamedStates';

/** The states that are named, one click each; and where it stands now can be named. */
export function NamedButtons() {
  const { states, drives, put } = useNamedStates();
  const now = useStudio((s) => s.state);
  const { stand, play } = useActions();
  const [naming, setNaming] = useState(false);
  const keep = (name: string): void => {
    setNaming(false);
    if (name.trim() === '') return;
    put(`state “${name.trim()}”`, (known) => [
      ...known,
      { id: freeStateId(known), name: name.trim().slice(0, 60), drives: valuesKept(drives, now) },
    ]);
  };
  const isThere = states.some(({ state }) => sameState(drives, state, now));
  return (
    <Box display="contents" role="group" aria-label="States by name">
      {states.map(({ named, state }) => (
        <Action
          key={named.id}
          small
          data-state={named.id}
          on={sameState(drives, state, now)}
          aria-pressed={sameState(drives, state, now)}
          onClick={() => {
            play(false);
            stand(state);
          }}
        >
          {named.name}
        </Action>
      ))}
      {naming ? (
        <chakra.input
          autoFocus
          aria-label="Name of this state"
          maxLength={60}
          width="120px"
          height="26px"
          px="6px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          onKeyDown={(e) => {
            if (e.key === 'Enter') keep(e.currentTarget.value);
            if (e.key === 'Escape') setNaming(false);
          }}
          onBlur={(e) => keep(e.currentTarget.value)}
        />
      ) : (
        !isThere && (
          <Action small onClick={() => setNaming(true)}>
            Name this…
          </Action>
        )
      )}
    </Box>
  );
}
