'use client';
import { Box, chakra } from '@chakra-ui/react';
import { TEMPLATE_ROLES, type TemplateRole } from '@/core/pattern/pattern';
import type { Template } from '@/core/document/template';
import type { Fault, TemplateLine } from '@/core/pattern/mending';
import type { Offers } from '@/workers/protocol';
import { Action } from '../common/Action';
import { alikeTo, type Picked } from './picking';
import { ROLE_KEYS, ROLE_WORDS } from './roleWords';

/** How a template is changed. */
export type ChangeTemplate = (change: (t: Template) => Template) => void;
interface FieldsProps {
  readonly template: Template;
  readonly change: ChangeTemplate;
}

/** Roles of all lines of a layer and a colour at once. */
export function LineGroups({ template, change }: FieldsProps) {
  const setRole = (key: string, role: TemplateRole): void =>
    change((t) => ({ ...t, groups: t.groups.map((g) => (g.key === key ? { ...g, role } : g)) }));
  return (
    <>
      <chakra.h3 className="heading" mb="6px !important">
        Lines by layer and colour
      </chakra.h3>
      {template.groups.map((g) => (
        <Box key={g.key} display="flex" alignItems="center" gap="7px" mb="5px">
          <chakra.span
            width="26px"
            height="0"
            borderTop={`3px ${g.dashed ? 'dashed' : 'solid'}`}
            style={{ borderColor: g.colour.startsWith('#') ? g.colour : 'currentColor' }}
          />
          <chakra.span flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
            {g.layer || g.colour}
            {g.key.endsWith('|inner') ? ', inside' : ''}{' '}
            <span className="dim">· {template.lines.filter((l) => l.group === g.key).length}</span>
          </chakra.span>
          <RoleList label={`Role of ${g.layer || g.colour}`} value={g.role} onChange={(role) => setRole(g.key, role)} />
        </Box>
      ))}
    </>
  );
}

/** Lines that were picked: what they are, by list or by key, and the gutter among them. */
export function PickedLines({
  template,
  change,
  picked,
  lines,
  onRole,
  onPick,
}: FieldsProps & {
  readonly picked: Picked;
  readonly lines: readonly TemplateLine[];
  readonly onRole: (role: TemplateRole) => void;
  readonly onPick: (picked: Picked) => void;
}) {
  const wanted = new Set(picked);
  const roles = new Set(lines.filter((l) => wanted.has(l.id)).map((l) => l.role));
  const [one] = picked;
  const leads = template.lead === one;
  return (
    <Box border="1px solid var(--accent)" borderRadius="card" p="8px 10px" my="8px">
      <Box display="flex" alignItems="center" gap="8px">
        <chakra.b flex="1" minWidth="0" overflow="hidden" textOverflow="ellipsis">
          {picked.length === 1 ? one : `${picked.length} lines`}
        </chakra.b>
        <RoleList
          label={picked.length === 1 ? 'Role of this line' : 'Role of these lines'}
          value={roles.size === 1 ? [...roles][0] : null}
          onChange={onRole}
        />
      </Box>
      <Box mt="6px" display="flex" gap="6px" flexWrap="wrap">
        {picked.length === 1 && (
          <Action small on={leads} onClick={() => change((t) => ({ ...t, lead: leads ? null : one }))}>
            {leads ? 'This is the gutter' : 'Make it the gutter'}
          </Action>
        )}
        <Action small onClick={() => onPick(alikeTo(template, lines, picked))}>
          All like {picked.length === 1 ? 'it' : 'them'}
        </Action>
      </Box>
      <chakra.p className="dim" m="6px 0 0" fontSize="13px">
        Keys: {TEMPLATE_ROLES.map((r) => `${ROLE_KEYS[r].toUpperCase()} ${ROLE_WORDS[r]}`).join(', ')}. Shift adds a
        line; ← and → go to the next.
      </chakra.p>
    </Box>
  );
}

/** Least and greatest scale. */
const SCALES = [0.001, 1000] as const;
/** Scale of everything, how large that is, and what is not scaled. */
export function ScaleField({
  template,
  change,
  size,
  kept,
}: FieldsProps & { readonly size: string; readonly kept: Offers['kept'] }) {
  const set = (scale: number): void => {
    if (scale >= SCALES[0] && scale <= SCALES[1]) change((t) => ({ ...t, scale }));
  };
  return (
    <>
      <Box display="flex" alignItems="center" mb="4px">
        <chakra.label flex="1" htmlFor="template-scale">
          Scale of everything
        </chakra.label>
        <chakra.input
          id="template-scale"
          type="number"
          step="any"
          min={SCALES[0]}
          max={SCALES[1]}
          defaultValue={template.scale}
          onChange={(e) => set(Number(e.currentTarget.value))}
          width="90px"
          height="28px"
          bg="field"
          border="1px solid var(--rule)"
          borderRadius="card"
          px="6px"
          textAlign="right"
        />
      </Box>
      <Box className="dim" fontSize="13px" mb="8px">
        {size}
      </Box>
      {template.scale !== 1 && <NotScaled kept={kept} />}
    </>
  );
}

/** What a scaled template keeps as it is. */
function NotScaled({ kept }: { readonly kept: Offers['kept'] }) {
  const sizes = kept.map((k) => `${k.what} ${k.acrossMm.toFixed(1)} mm`);
  return (
    <chakra.p className="dim" fontSize="13px" m="0 0 8px">
      Not scaled: the thickness of the paper
      {sizes.length > 0 ? `; and for what goes through them ${sizes.join(', ')}` : ''}. Tabs and glue are; Prove says
      where they become too narrow.
    </chakra.p>
  );
}

const MOST_LISTED = 12;
/** What is wrong with the drawing, and whether it is mended. */
export function Faults({ template, change, faults }: FieldsProps & { readonly faults: readonly Fault[] }) {
  return (
    <>
      <chakra.h3 className="heading" mb="6px !important">
        Faults
      </chakra.h3>
      {faults.length === 0 ? (
        <chakra.p className="dim" m="0 0 8px">
          None found.
        </chakra.p>
      ) : (
        <>
          <ul style={{ margin: '0 0 8px', paddingLeft: 18, fontSize: 13 }}>
            {faults.slice(0, MOST_LISTED).map((f, i) => (
              <li key={i}>{f.message}</li>
            ))}
          </ul>
          {faults.length > MOST_LISTED && (
            <chakra.p className="dim" fontSize="13px">
              and {faults.length - MOST_LISTED} more
            </chakra.p>
          )}
          <Action small on={template.mended} onClick={() => change((t) => ({ ...t, mended: !t.mended }))}>
            {template.mended ? 'Mended; click to take back' : 'Mend what can be mended'}
          </Action>
        </>
      )}
    </>
  );
}

function RoleList({
  label,
  value,
  onChange,
}: {
  label: string;
  /** Null where lines of several are meant. */
  value: TemplateRole | null;
  onChange: (role: TemplateRole) => void;
}) {
  return (
    <chakra.select
      aria-label={label}
      value={value ?? ''}
      onChange={(e) => onChange(e.currentTarget.value as TemplateRole)}
      height="26px"
      bg="field"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="4px"
    >
      {value === null && <option value="">several</option>}
      {TEMPLATE_ROLES.map((r) => (
        <option key={r} value={r}>
          {ROLE_WORDS[r]}
        </option>
      ))}
    </chakra.select>
  );
}
