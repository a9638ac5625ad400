'use client';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { TEMPLATE_ROLES, type TemplateRole } from '@/core/pattern/pattern';
import type { Template, TemplateJoin } from '@/core/document/template';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { Offers } from '@/workers/protocol';
import { LARGEST_DRAWING } from '@/core/shapes/shape';
import { Action } from '../common/Action';
import { textOf } from '../common/files';
import { Sheet } from '../common/Sheet';
import { useAsk } from '../shapes/useAsk';
import { joinEdges, type Edge } from './joining';
import { PiecesPane } from './PiecesPane';
import { ROLE_WORDS } from './roleWords';
import { TemplateSheet } from './TemplateSheet';

/**
 * A whole card of cut and fold lines from SVG or DXF: lines get roles, faults are found and mended, and it is posed
 * like our own.
 */
export function TemplateDialog() {
  const shown = useStudio((s) => s.dialog?.kind === 'template');
  const { show } = useActions();
  return (
    <Sheet title="Bring in a whole template" shown={shown} onClose={() => show(null)} width={1040}>
      {shown && <Bench />}
    </Sheet>
  );
}

function Bench() {
  const design = useStudio((s) => s.design);
  const { edit, show, go, select } = useActions();
  const [template, setTemplate] = useState<Template | null>(design.card.template ?? null);
  const [notes, setNotes] = useState<{ why?: string; leftOut?: readonly string[] }>({});
  const [picked, setPicked] = useState<string | null>(null);
  const [edge, setEdge] = useState<Edge | 'first' | null>(null);
  const asked = template ? JSON.stringify(template) : '';
  const { value } = useAsk(asked, () => engine('shape').faults(template!));
  const { value: offers } = useAsk(asked, () => engine('shape').offers(template!));
  const setJoins = (joins: readonly TemplateJoin[]): void => setTemplate((t) => t && { ...t, joins });
  const addJoin = (join: TemplateJoin): void => setJoins([...(template?.joins ?? []), join]);
  const match = (clicked: Edge): void => {
    if (edge === 'first' || edge === null) return setEdge(clicked);
    const join = joinEdges(offers?.sheets ?? [], template?.joins ?? [], edge, clicked);
    setEdge(null);
    if (typeof join === 'string') setNotes({ why: join });
    else addJoin(join);
  };
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const whole = await textOf(file, LARGEST_DRAWING, 'a template');
    if (!whole.ok) return setNotes(whole);
    const answer = await engine('shape').template(whole.text, file.name);
    if (!answer.ok) return setNotes({ why: answer.why });
    const { lines, groups, leftOut } = answer.value;
    setNotes({ leftOut });
    setTemplate({
      name: file.name.replace(/\.\w+$/, '').slice(0, 100) || 'Template',
      scale: 1,
      mended: false,
      lines,
      groups: groups.map(({ key, layer, colour, dashed, role }) => ({ key, layer, colour, dashed, role })),
      picked: {},
      lead: null,
    });
  };
  const setRole = (key: string, role: TemplateRole): void =>
    setTemplate((t) => t && { ...t, groups: t.groups.map((g) => (g.key === key ? { ...g, role } : g)) });
  const use = async (): Promise<void> => {
    const brought = await engine('shape').bringTemplate(design, template!);
    if (!brought.ok) return setNotes({ why: brought.why });
    edit(`template ${template!.name}`, () => brought.value);
    show(null);
    select(CARD);
    go('build');
  };
  const points = value?.lines.flatMap((l) => l.points) ?? [];
  const box = points.reduce(
    ([x0, y0, x1, y1], [x, y]) => [Math.min(x0, x), Math.min(y0, y), Math.max(x1, x), Math.max(y1, y)],
    [Infinity, Infinity, -Infinity, -Infinity],
  );
  const mendable = value?.faults.length ?? 0;
  return (
    <Box
      display="grid"
      gridTemplateColumns="minmax(0, 1fr) 340px"
      gap="18px"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take(e.dataTransfer.files[0]);
      }}
    >
      <Box bg="sheet" border="1px solid var(--rule)" borderRadius="card" minHeight="420px">
        {!value && (
          <chakra.p className="dim" textAlign="center" mt="180px">
            Drop an SVG or DXF of cut and fold lines here, or choose one.
          </chakra.p>
        )}
        {value && points.length > 0 && (
          <TemplateSheet
            lines={value.lines}
            faults={value.faults}
            sheets={offers?.sheets ?? []}
            scale={template!.scale}
            joins={template!.joins ?? []}
            lit={picked}
            edge={edge === 'first' ? null : edge}
            matching={edge !== null}
            onLine={setPicked}
            onEdge={match}
            onDropped={addJoin}
          />
        )}
      </Box>
      <Box maxHeight="66vh" overflowY="auto">
        <chakra.label display="block" mb="10px">
          SVG or DXF{' '}
          <input
            type="file"
            data-first=""
            aria-label="Template file"
            accept=".svg,.dxf,image/svg+xml"
            onChange={(e) => void take(e.currentTarget.files?.[0])}
          />
        </chakra.label>
        {notes.why && (
          <Box role="alert" bg="badWash" borderLeft="4px solid var(--bad)" p="8px 10px" mb="8px">
            {notes.why}. Nothing was lost.
          </Box>
        )}
        {notes.leftOut && notes.leftOut.length > 0 && (
          <Box role="status" bg="warnWash" borderLeft="4px solid var(--warn)" p="8px 10px" mb="8px">
            Left out: {notes.leftOut.join(', ')}.
          </Box>
        )}
        {template && (
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
                <RoleList
                  label={`Role of ${g.layer || g.colour}`}
                  value={g.role}
                  onChange={(role) => setRole(g.key, role)}
                />
              </Box>
            ))}
            {picked && value && (
              <Box border="1px solid var(--accent)" borderRadius="card" p="8px 10px" my="8px">
                <Box display="flex" alignItems="center" gap="8px">
                  <chakra.b flex="1">{picked}</chakra.b>
                  <RoleList
                    label="Role of this line"
                    value={value.lines.find((l) => l.id === picked)?.role ?? 'cut'}
                    onChange={(role) =>
                      setTemplate(
                        (t) =>
                          t && {
                            ...t,
                            picked: {
                              ...t.picked,
                              ...Object.fromEntries(
                                (value.lines.find((l) => l.id === picked)?.joined ?? [picked]).map((id) => [id, role]),
                              ),
                            },
                          },
                      )
                    }
                  />
                </Box>
                <Box mt="6px">
                  <Action
                    small
                    on={template.lead === picked}
                    onClick={() => setTemplate((t) => t && { ...t, lead: t.lead === picked ? null : picked })}
                  >
                    {template.lead === picked ? 'This is the gutter' : 'Make it the gutter'}
                  </Action>
                </Box>
              </Box>
            )}
            {offers && (
              <PiecesPane
                template={template}
                offers={offers}
                matching={edge === null ? 0 : edge === 'first' ? 1 : 2}
                onMatch={(on) => setEdge(on ? 'first' : null)}
                onJoins={setJoins}
                onPicked={(roles) => setTemplate((t) => t && { ...t, picked: roles })}
              />
            )}
            <Box display="flex" alignItems="center" mb="4px">
              <chakra.label flex="1" htmlFor="template-scale">
                Scale of everything
              </chakra.label>
              <chakra.input
                id="template-scale"
                type="number"
                step="any"
                min={0.001}
                max={1000}
                defaultValue={template.scale}
                onChange={(e) => {
                  const v = Number(e.currentTarget.value);
                  if (v >= 0.001 && v <= 1000) setTemplate((t) => t && { ...t, scale: v });
                }}
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
              {points.length > 0 && `${(box[2] - box[0]).toFixed(1)} × ${(box[3] - box[1]).toFixed(1)} mm in all`}
            </Box>
            {template.scale !== 1 && <NotScaled kept={offers?.kept ?? []} />}
            <chakra.h3 className="heading" mb="6px !important">
              Faults
            </chakra.h3>
            {mendable === 0 ? (
              <chakra.p className="dim" m="0 0 8px">
                None found.
              </chakra.p>
            ) : (
              <>
                <ul style={{ margin: '0 0 8px', paddingLeft: 18, fontSize: 13 }}>
                  {value!.faults.slice(0, 12).map((f, i) => (
                    <li key={i}>{f.message}</li>
                  ))}
                </ul>
                {mendable > 12 && (
                  <chakra.p className="dim" fontSize="13px">
                    and {mendable - 12} more
                  </chakra.p>
                )}
                <Action small on={template.mended} onClick={() => setTemplate((t) => t && { ...t, mended: !t.mended })}>
                  {template.mended ? 'Mended; click to take back' : 'Mend what can be mended'}
                </Action>
              </>
            )}
            <Box mt="14px" display="flex" gap="8px">
              <Action strong onClick={() => void use()}>
                Make it the card
              </Action>
              {design.card.template && (
                <Action
                  danger
                  onClick={() => {
                    edit('plain card again', (d) => {
                      const { template: _gone, ...card } = d.card;
                      return { ...d, card };
                    });
                    show(null);
                  }}
                >
                  Plain card again
                </Action>
              )}
            </Box>
          </>
        )}
      </Box>
    </Box>
  );
}

/** What a scaled template keeps as it is. */
function NotScaled({ kept }: { kept: Offers['kept'] }) {
  const sizes = kept.map((k) => `${k.what} ${k.acrossMm.toFixed(1)} mm`);
  return (
    <chakra.p className="dim" fontSize="13px" m="0 0 8px">
      Not scaled: the thickness of the paper
      {sizes.length > 0 ? `; and for what goes through them ${sizes.join(', ')}` : ''}. Tabs and glue are; Prove says
      where they become too narrow.
    </chakra.p>
  );
}

function RoleList({
  label,
  value,
  onChange,
}: {
  label: string;
  value: TemplateRole;
  onChange: (role: TemplateRole) => void;
}) {
  return (
    <chakra.select
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.currentTarget.value as TemplateRole)}
      height="26px"
      bg="field"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="4px"
    >
      {TEMPLATE_ROLES.map((r) => (
        <option key={r} value={r}>
          {ROLE_WORDS[r]}
        </option>
      ))}
    </chakra.select>
  );
}
