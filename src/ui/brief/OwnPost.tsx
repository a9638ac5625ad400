'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import type { Design } from '@/core/document/design';
import { parseLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { LineInput } from '../common/Field';

const EMPTY = { envelopes: [], formats: [] } as const;

/** An envelope, or what some post takes, that no list has: typed once, kept with the card. */
export function OwnPost() {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const own = design.post.own ?? EMPTY;
  const [asked, setAsked] = useState<'envelope' | 'format' | null>(null);
  const [typed, setTyped] = useState({ name: '', a: '', b: '', thick: '' });
  const [why, setWhy] = useState<string | null>(null);
  const add = (): void => {
    const read = [typed.a, typed.b, ...(asked === 'format' ? [typed.thick] : [])].map((t) =>
      parseLength(t, design.units),
    );
    const bad = read.find((r) => !r.ok);
    if (bad && !bad.ok) return setWhy(bad.why);
    const [a, b, thickMm] = read.map((r) => (r.ok ? r.value : 0));
    const name = typed.name.trim();
    if (name === '') return setWhy('Give it a name.');
    if (!(Math.min(a, b) >= 10 && Math.max(a, b) <= 5000)) return setWhy('Its sides must be 10 to 5000 mm.');
    if (asked === 'format' && !(thickMm > 0 && thickMm <= 500)) return setWhy('Its thickness must be up to 500 mm.');
    const id = freeId(design, name);
    const sides = { shortMm: Math.min(a, b), longMm: Math.max(a, b) };
    edit(`${asked === 'envelope' ? 'envelope' : 'post'} ${name}`, (d) => ({
      ...d,
      post:
        asked === 'envelope'
          ? { ...d.post, envelope: id, own: { ...own, envelopes: [...own.envelopes, { id, name, ...sides }] } }
          : {
              ...d.post,
              format: id,
              own: { ...own, formats: [...own.formats, { id, name, most: { ...sides, thickMm } }] },
            },
    }));
    setAsked(null);
    setWhy(null);
    setTyped({ name: '', a: '', b: '', thick: '' });
  };
  const field = (label: string, key: keyof typeof typed, width = '70px') => (
    <chakra.label display="inline-flex" alignItems="center" gap="5px" fontSize="13px">
      {label}
      <LineInput
        value={typed[key]}
        maxLength={60}
        width={width}
        onChange={(e) => setTyped({ ...typed, [key]: e.currentTarget.value })}
      />
    </chakra.label>
  );
  return (
    <Box mb="10px">
      <Box display="flex" gap="4px">
        <Action
          small
          aria-expanded={asked === 'envelope'}
          onClick={() => setAsked(asked === 'envelope' ? null : 'envelope')}
        >
          Own envelope…
        </Action>
        <Action small aria-expanded={asked === 'format'} onClick={() => setAsked(asked === 'format' ? null : 'format')}>
          Own post limits…
        </Action>
      </Box>
      {asked && (
        <Box display="flex" flexWrap="wrap" gap="6px" bg="wash" p="8px" mt="5px" borderRadius="card">
          {field('Name', 'name', '150px')}
          {field('Sides', 'a')}
          {field('×', 'b')}
          {asked === 'format' && field('Thick', 'thick')}
          <Action small strong onClick={add}>
            Add
          </Action>
          {why && (
            <chakra.p role="alert" m="0" color="bad" fontSize="12.5px" width="100%">
              {why}
            </chakra.p>
          )}
        </Box>
      )}
    </Box>
  );
}

/** An id made of a name, that no other envelope or format has. */
function freeId({ post }: Design, name: string): string {
  const stem = `own-${
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 24) || 'size'
  }`;
  const taken = new Set([...(post.own?.envelopes ?? []), ...(post.own?.formats ?? [])].map((o) => o.id));
  let id = stem;
  for (let n = 2; taken.has(id); n++) id = `${stem}-${n}`;
  return id;
}
