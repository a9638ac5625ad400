'use client';
import { Box, chakra } from '@chakra-ui/react';
import { IconDownload, IconX } from '@tabler/icons-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Mechanism } from '@/core/document/design';
import { nameOfPart } from '@/core/document/words';
import { pasted } from '@/core/document/several';
import { useActions, useStudioStore } from '@/store/context';
import { forgetOwn, keepOwn, LONGEST_OWN, ownMechanisms, type OwnMechanism } from '@/store/own-mechanisms';
import { Action } from '../common/Action';
import { fileName, saveAs, textOf } from '../common/files';

/** Mechanisms of one's own, to be put on the same crease; saved as files, and brought in from them. */
export function OwnTiles({ crease }: { readonly crease: string }) {
  const store = useStudioStore();
  const { add, edit, warn, select } = useActions();
  const [own, setOwn] = useState<readonly OwnMechanism[]>([]);
  const picker = useRef<HTMLInputElement>(null);
  const refresh = useCallback(async (): Promise<void> => {
    try {
      setOwn(await ownMechanisms());
    } catch (error) {
      warn(`Your own mechanisms cannot be shown: ${(error as Error).message}.`);
    }
  }, [warn]);
  useEffect(() => void refresh(), [refresh]);

  const put = (o: OwnMechanism): void => {
    const { design } = store.getState();
    const given = pasted(design, o.text);
    if (!given.ok) return warn(`${o.name} was not put on: ${given.why}.`);
    const [first] = given.ids;
    const stood = given.design.mechanisms.find((m) => m.id === first)?.on;
    // What stood beside it on the same crease comes along.
    const along = (m: Mechanism): boolean => given.ids.includes(m.id) && m.on === stood && !m.mount;
    edit(`${o.name} on the ${nameOfPart(design, crease)}`, () => ({
      ...given.design,
      mechanisms: given.design.mechanisms.map((m) => (along(m) ? { ...m, on: crease } : m)),
    }));
    select(first);
    add(null);
  };
  const bringIn = async (file: File): Promise<void> => {
    const read = await textOf(file, LONGEST_OWN, 'a mechanism of your own');
    if (!read.ok) return warn(read.why);
    // Whatever the file says, it is only kept when it can be put on a card.
    const given = pasted(store.getState().design, read.text);
    const name = given.ok && given.design.mechanisms.find((m) => m.id === given.ids[0])?.name;
    const why = given.ok ? await keepOwn({ name: name || 'Without a name', text: read.text }) : given.why;
    if (why) warn(`${file.name} was not brought in: ${why}.`);
    await refresh();
  };
  const forget = async (name: string): Promise<void> => {
    await forgetOwn(name).catch((error: Error) => warn(`${name} is still kept: ${error.message}.`));
    await refresh();
  };
  return (
    <Box role="group" aria-label="Your own" display="flex" flexWrap="wrap" gap="6px" alignItems="center" mt="6px">
      <chakra.span className="dim">Your own</chakra.span>
      {own.map((o) => (
        <Box key={o.name} display="inline-flex">
          <Action small data-own={o.name} onClick={() => put(o)}>
            {o.name}
          </Action>
          <Action
            small
            aria-label={`Save ${o.name} as a file`}
            onClick={() => saveAs(`${fileName(o.name)}.mechanism.json`, o.text, 'application/json')}
          >
            <IconDownload size={14} aria-hidden />
          </Action>
          <Action small aria-label={`Forget ${o.name}`} onClick={() => void forget(o.name)}>
            <IconX size={14} aria-hidden />
          </Action>
        </Box>
      ))}
      <Action small onClick={() => picker.current?.click()}>
        Bring one in…
      </Action>
      <input
        ref={picker}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of a mechanism"
        onChange={(e) => {
          const file = e.currentTarget.files?.[0];
          e.currentTarget.value = '';
          if (file) void bringIn(file);
        }}
      />
    </Box>
  );
}
