'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { inSentence } from '@/core/document/words';
import { choicesIn, type ListItem, type Parameter, type ParameterValue } from '@/core/kinds';
import { setParameter } from '@/core/document/fields';
import { chooseShape } from '@/core/document/shape-sizes';
import type { Shape } from '@/core/shapes/shape';
import { LONGEST_TEXT } from '@/core/shapes/text';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { Choice } from '../common/Field';
import { useAsk } from '../shapes/useAsk';
import { RoomedNumber } from './RoomedNumber';
import { ShapeField } from './ShapeField';

/** Lists that the program can fill by itself. */
const FOUND: readonly string[] = ['struts', 'feet'];
/** An entry with what its fields start from. */
const plainEntry = (p: Parameter): ListItem =>
  Object.fromEntries(p.fields!.filter((f) => f.default !== null).map((f) => [f.key, f.default])) as ListItem;
/** It begins empty, and may be so again. */
const mayBeEmpty = ({ default: first }: Parameter): boolean => Array.isArray(first) && first.length === 0;
/** A list of places or planes: each entry with its numbers and their room; or left to the program. */
export function ListField({ id, parameter: p, value }: { id: string; parameter: Parameter; value: ParameterValue }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const auto = value === p.word;
  const items = Array.isArray(value) ? (value as readonly ListItem[]) : [];
  const { value: sheet } = useAsk(
    FOUND.includes(p.key)
      ? JSON.stringify([id, design.mechanisms.find((m) => m.id === id)?.parameters, design.shapes])
      : '',
    () => engine('shape').struts(design, id),
  );
  const put = (label: string, next: ParameterValue): void => edit(label, (d) => setParameter(d, id, p.key, next));
  const byHand = (): void => {
    if (!FOUND.includes(p.key)) return put(`${inSentence(p.label)} by hand`, [plainEntry(p)]);
    const found = (p.key === 'struts' ? sheet?.struts : sheet?.feet) ?? [];
    put(
      `${inSentence(p.label)} by hand`,
      found.map(({ x, width }) => ({ x: Math.round(x * 100) / 100, width: Math.round(width * 100) / 100 })),
    );
  };
  const fresh = (): ListItem => {
    const last = items[items.length - 1];
    if (FOUND.includes(p.key)) return { x: last ? (last.x as number) + 15 : 0, width: (last?.width as number) ?? 6 };
    if (p.key !== 'planes') return last ?? plainEntry(p);
    return {
      depth: Math.max(2, Math.round(((last?.depth as number) ?? 30) * 0.6)),
      base: last ? ((last.base ?? 0) as number) + (last.height as number) : 0,
      height: Math.round(((last?.height as number) ?? 30) * 0.6),
      width: 40,
      offset: (last?.offset as number) ?? 0,
    };
  };
  return (
    <Box mb="12px" data-list={p.key}>
      <Box display="flex" alignItems="center" gap="6px" mb="5px">
        <chakra.span flex="1" fontWeight="600" title={p.note}>
          {p.label}
          {auto && sheet ? (
            <span className="dim"> · {p.key === 'struts' ? sheet.struts.length : sheet.feet.length}, found</span>
          ) : (
            ''
          )}
        </chakra.span>
        {p.word &&
          (auto ? (
            <Action small onClick={byHand}>
              By hand
            </Action>
          ) : (
            <Action small onClick={() => put(`${inSentence(p.label)} ${p.word}`, p.word!)}>
              {FOUND.includes(p.key) ? 'Find them' : 'None'}
            </Action>
          ))}
        {!auto && (
          <Action
            small
            aria-label={`Add to ${p.label}`}
            onClick={() => put(`one more of ${inSentence(p.label)}`, [...items, fresh()])}
          >
            +
          </Action>
        )}
      </Box>
      {items.map((item, k) => (
        <Entry
          key={k}
          id={id}
          parameter={p}
          item={item}
          k={k}
          onRemove={
            p.word || items.length > 1 || mayBeEmpty(p)
              ? () =>
                  put(
                    `one of ${inSentence(p.label)} less`,
                    items.filter((_, i) => i !== k),
                  )
              : undefined
          }
        />
      ))}
    </Box>
  );
}

/** A line of text, kept when it is left. */
function TextField({ label, value, onChange }: { label: string; value: string; onChange: (text: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const commit = (): void => {
    if (typed !== null && typed !== value) onChange(typed);
    setTyped(null);
  };
  return (
    <Box display="flex" alignItems="center" gap="8px" mb="10px">
      <span style={{ flex: 1 }}>{label}</span>
      <chakra.input
        aria-label={label}
        value={typed ?? value}
        maxLength={LONGEST_TEXT}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        width="150px"
        height="28px"
        bg="field"
        border="1px solid var(--rule)"
        borderRadius="card"
        px="6px"
      />
    </Box>
  );
}

function Entry({
  id,
  parameter: p,
  item,
  k,
  onRemove,
}: {
  id: string;
  parameter: Parameter;
  item: ListItem;
  k: number;
  onRemove?: () => void;
}) {
  const { edit } = useActions();
  const path = (key: string): string => `${p.key}[${k}].${key}`;
  const set = (f: Parameter, v: ParameterValue): void =>
    edit(`${inSentence(f.label)} ${typeof v === 'number' ? v : ''}`, (d) => setParameter(d, id, path(f.key), v));
  return (
    <Box border="1px solid var(--rule)" borderRadius="card" bg="sheet" p="7px 9px" mb="6px" data-entry={k}>
      <Box display="flex" alignItems="center" mb="3px">
        <chakra.span flex="1" className="dim" fontSize="12.5px">
          {p.entry} {k + 1}
        </chakra.span>
        {onRemove && (
          <Action small aria-label={`Remove ${p.label} ${k + 1}`} onClick={onRemove}>
            ×
          </Action>
        )}
      </Box>
      {p.fields!.map((f) => {
        const value = item[f.key] ?? f.default;
        if (f.unit === 'shape')
          return (
            <ShapeField
              key={f.key}
              parameter={f}
              slot={{ mechanism: id, path: path(f.key) }}
              value={value as Shape | null}
              onChange={(shape) => edit(inSentence(f.label), (d) => chooseShape(d, id, path(f.key), shape))}
            />
          );
        if (f.unit === 'choice')
          return (
            <Choice
              key={f.key}
              asList
              label={f.label}
              note={f.note}
              value={String(value)}
              choices={choicesIn(f)}
              onChange={(c) => set(f, c)}
            />
          );
        if (f.unit === 'text')
          return <TextField key={f.key} label={f.label} value={String(value ?? '')} onChange={(v) => set(f, v)} />;
        return (
          <RoomedNumber
            key={f.key}
            id={id}
            parameter={f}
            path={path(f.key)}
            value={value as number | null}
            onChange={(v) => set(f, v)}
          />
        );
      })}
    </Box>
  );
}
