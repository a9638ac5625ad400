'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { freeName, linesOf, numbersOf, type OwnLine } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import { ownerOfId } from '@/core/ids';
import type { RoleChoice } from '@/core/build/own-roles';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { Action } from '../common/Action';
import { LineFields } from './LineFields';
import { OWN_ROLE_WORDS } from './own-words';

/** Lines of one's own as a list: what each is for, how it runs, and roles that fold flat. */
export function LinesEditor({ id }: { readonly id: string }) {
  const design = useStudio((s) => s.design);
  const scene = useStudio((s) => s.scene);
  const { edit, light, say, warn } = useActions();
  const [open, setOpen] = useState<string | null>(null);
  const [choices, setChoices] = useState<readonly RoleChoice[] | null>(null);
  const m = design.mechanisms.find((x) => x.id === id);
  if (!m) return null;
  const values = valuesOf(m);
  const lines = linesOf(values);
  const numbers = numbersOf(values);
  const ground = scene?.frames[id]?.piece ?? '';
  const put = (label: string, next: readonly OwnLine[]): void => edit(label, (d) => setParameter(d, id, 'lines', next));
  const change = (line: OwnLine, k: number): void => {
    put(
      `line ${line.name}`,
      lines.map((l, i) => (i === k ? line : l)).map((l) => renamed(l, lines[k].name, line.name)),
    );
    if (open === lines[k].name) setOpen(line.name);
  };
  const add = (line: OwnLine): void => {
    const name = freeName(lines, line.name);
    put(`line ${name}`, [...lines, { ...line, name }]);
    setOpen(name);
  };
  const propose = async (): Promise<void> => {
    const answer = await engine('study').ownRoles(design, id);
    if (!answer.ok) return warn(answer.why);
    setChoices(answer.value);
    if (answer.value.length === 0) say('Flat folding leaves the roles of these lines open: choose them as you like.');
  };
  const take = (choice: RoleChoice): void => {
    put(
      'roles that fold flat',
      lines.map((l) => (choice[l.name] ? { ...l, role: choice[l.name] } : l)),
    );
    setChoices(null);
  };
  const first = scene?.whole.find((c) => c.piece === ground && ownerOfId(c.id) !== id)?.id ?? lines[0]?.name;
  const facet = scene?.facets.find((f) => f.piece === ground && !f.bent && f.mechanism !== id)?.id;
  return (
    <Box mb="12px" data-testid="lines-editor">
      <Box display="flex" alignItems="center" gap="6px" mb="5px">
        <chakra.span flex="1" fontWeight="600">
          Lines
        </chakra.span>
        <Action small onClick={() => void propose()}>
          Roles that fold flat
        </Action>
      </Box>
      {choices && choices.length > 0 && (
        <Box role="group" aria-label="Roles that fold flat" display="flex" flexWrap="wrap" gap="4px" mb="6px">
          {choices.map((c, k) => (
            <Action key={k} small onClick={() => take(c)}>
              {Object.entries(c)
                .map(([name, fold]) => `${name} ${fold}`)
                .join(', ')}
            </Action>
          ))}
        </Box>
      )}
      <Box as="ul" listStyleType="none" m="0" p="0" display="grid" gap="3px">
        {lines.map((line, k) => (
          <li key={line.name}>
            <chakra.button
              type="button"
              className="plain"
              aria-expanded={open === line.name}
              onClick={() => setOpen(open === line.name ? null : line.name)}
              onPointerEnter={() => light([`${id}.${line.name}`])}
              onPointerLeave={() => light([])}
              display="flex"
              width="100%"
              minHeight="26px"
              alignItems="center"
              gap="8px"
            >
              <svg width="34" height="10" aria-hidden>
                <path d="M1 5H33" className={`line ${line.role === 'open' ? 'mark' : line.role}`} />
              </svg>
              <chakra.span flex="1" fontWeight={open === line.name ? 700 : 400}>
                {line.name}
              </chakra.span>
              <span className="dim">{OWN_ROLE_WORDS[line.role].name}</span>
            </chakra.button>
            {open === line.name && (
              <LineFields
                line={line}
                lines={lines}
                piece={line.piece ? `${id}.${line.piece}` : ground}
                numbers={numbers}
                onChange={(next) => change(next, k)}
                onRemove={() => {
                  put(
                    `remove line ${line.name}`,
                    lines.filter((l) => l !== line),
                  );
                  setOpen(null);
                }}
              />
            )}
          </li>
        ))}
      </Box>
      {lines.length === 0 && (
        <chakra.p className="dim" m="0 0 6px">
          No lines yet. Draw them on the flat view, or add one here by its numbers.
        </chakra.p>
      )}
      <Box display="flex" flexWrap="wrap" gap="4px" mt="6px">
        <Action small onClick={() => add({ name: 'fold', role: 'valley', from: { x: -10 }, to: { x: 10 } })}>
          Between points
        </Action>
        {first && (
          <Action small onClick={() => add({ name: 'fold', role: 'mountain', beside: first, mm: 15 })}>
            Beside a line
          </Action>
        )}
        {facet && (
          <Action small onClick={() => add({ name: 'fold', role: 'valley', facet, part: 0.5, way: 'along' })}>
            Across a facet
          </Action>
        )}
        <Action small onClick={() => add({ name: 'window', role: 'window', shape: { circle: 20 }, middle: { y: 25 } })}>
          Window
        </Action>
      </Box>
    </Box>
  );
}

/** What hangs on a line goes on hanging on it under its new name. */
function renamed(line: OwnLine, from: string, to: string): OwnLine {
  if (from === to) return line;
  return JSON.parse(JSON.stringify(line), (key, value: unknown) =>
    (key === 'of' || key === 'beside' || key === 'partOf') && value === from ? to : value,
  ) as OwnLine;
}
