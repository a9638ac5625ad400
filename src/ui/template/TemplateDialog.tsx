'use client';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import type { Template, TemplateJoin } from '@/core/document/template';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { TemplateLine } from '@/core/pattern/mending';
import { LARGEST_DRAWING } from '@/core/shapes/shape';
import { Action } from '../common/Action';
import { textOf } from '../common/files';
import { Sheet } from '../common/Sheet';
import { useAsk } from '../shapes/useAsk';
import { joinEdges, type Edge } from './joining';
import { PiecesPane } from './PiecesPane';
import { Faults, LineGroups, PickedLine, ScaleField, type ChangeTemplate } from './TemplateFields';
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

/** Something that is said of what was brought in. */
interface Notes {
  readonly why?: string;
  readonly leftOut?: readonly string[];
}

function Bench() {
  const design = useStudio((s) => s.design);
  const { edit, show, go, select } = useActions();
  const [template, setTemplate] = useState<Template | null>(design.card.template ?? null);
  const [notes, setNotes] = useState<Notes>({});
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const read = await templateFrom(file);
    if ('why' in read) return setNotes({ why: read.why });
    setNotes({ leftOut: read.leftOut });
    setTemplate(read.template);
  };
  const use = async (t: Template): Promise<void> => {
    const brought = await engine('shape').bringTemplate(design, t);
    if (!brought.ok) return setNotes({ why: brought.why });
    edit(`template ${t.name}`, () => brought.value);
    show(null);
    select(CARD);
    go('build');
  };
  const plain = (): void => {
    edit('plain card again', (d) => {
      const { template: _gone, ...card } = d.card;
      return { ...d, card };
    });
    show(null);
  };
  const head = (
    <>
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
      <Said notes={notes} />
    </>
  );
  const foot = template && (
    <Box mt="14px" display="flex" gap="8px">
      <Action strong onClick={() => void use(template)}>
        Make it the card
      </Action>
      {design.card.template && (
        <Action danger onClick={plain}>
          Plain card again
        </Action>
      )}
    </Box>
  );
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
      {template ? (
        <Fitted
          template={template}
          change={(f) => setTemplate((t) => t && f(t))}
          onWhy={(why) => setNotes({ why })}
          head={head}
          foot={foot}
        />
      ) : (
        <>
          <Board>
            <chakra.p className="dim" textAlign="center" mt="180px">
              Drop an SVG or DXF of cut and fold lines here, or choose one.
            </chakra.p>
          </Board>
          <Box>{head}</Box>
        </>
      )}
    </Box>
  );
}

const Board = ({ children }: { readonly children: ReactNode }) => (
  <Box bg="sheet" border="1px solid var(--rule)" borderRadius="card" minHeight="420px">
    {children}
  </Box>
);

const Said = ({ notes: { why, leftOut = [] } }: { readonly notes: Notes }) => (
  <>
    {why && (
      <Box role="alert" bg="badWash" borderLeft="4px solid var(--bad)" p="8px 10px" mb="8px">
        {why}. Nothing was lost.
      </Box>
    )}
    {leftOut.length > 0 && (
      <Box role="status" bg="warnWash" borderLeft="4px solid var(--warn)" p="8px 10px" mb="8px">
        Left out: {leftOut.join(', ')}.
      </Box>
    )}
  </>
);

/** The lines as they were brought in, and all that can be said of them. */
function Fitted({
  template,
  change,
  onWhy,
  head,
  foot,
}: {
  readonly template: Template;
  readonly change: ChangeTemplate;
  readonly onWhy: (why: string) => void;
  readonly head: ReactNode;
  readonly foot: ReactNode;
}) {
  const [picked, setPicked] = useState<string | null>(null);
  const [edge, setEdge] = useState<Edge | 'first' | null>(null);
  const asked = JSON.stringify(template);
  const { value } = useAsk(asked, () => engine('shape').faults(template));
  const { value: offers } = useAsk(asked, () => engine('shape').offers(template));
  const { joins = [] } = template;
  const setJoins = (next: readonly TemplateJoin[]): void => change((t) => ({ ...t, joins: next }));
  const addJoin = (join: TemplateJoin): void => setJoins([...joins, join]);
  const match = (clicked: Edge): void => {
    if (edge === 'first' || edge === null) return setEdge(clicked);
    const join = joinEdges(offers?.sheets ?? [], joins, edge, clicked);
    setEdge(null);
    if (typeof join === 'string') onWhy(join);
    else addJoin(join);
  };
  return (
    <>
      <Board>
        {value && value.lines.length > 0 && (
          <TemplateSheet
            lines={value.lines}
            faults={value.faults}
            sheets={offers?.sheets ?? []}
            scale={template.scale}
            joins={joins}
            lit={picked}
            edge={edge === 'first' ? null : edge}
            matching={edge !== null}
            onLine={setPicked}
            onEdge={match}
            onDropped={addJoin}
          />
        )}
      </Board>
      <Box maxHeight="66vh" overflowY="auto">
        {head}
        <LineGroups template={template} change={change} />
        {picked && value && <PickedLine template={template} change={change} picked={picked} lines={value.lines} />}
        {offers && (
          <PiecesPane
            template={template}
            offers={offers}
            matching={edge === null ? 0 : edge === 'first' ? 1 : 2}
            onMatch={(on) => setEdge(on ? 'first' : null)}
            onJoins={setJoins}
            onPicked={(roles) => change((t) => ({ ...t, picked: roles }))}
          />
        )}
        <ScaleField template={template} change={change} size={sizeOf(value?.lines ?? [])} kept={offers?.kept ?? []} />
        <Faults template={template} change={change} faults={value?.faults ?? []} />
        {foot}
      </Box>
    </>
  );
}

function sizeOf(lines: readonly TemplateLine[]): string {
  const points = lines.flatMap((l) => l.points);
  if (points.length === 0) return '';
  const [x0, y0, x1, y1] = points.reduce(
    ([a, b, c, d], [x, y]) => [Math.min(a, x), Math.min(b, y), Math.max(c, x), Math.max(d, y)],
    [Infinity, Infinity, -Infinity, -Infinity],
  );
  return `${(x1 - x0).toFixed(1)} × ${(y1 - y0).toFixed(1)} mm in all`;
}

/** A template as a file has it; or why not. */
async function templateFrom(
  file: File,
): Promise<{ readonly template: Template; readonly leftOut: readonly string[] } | { readonly why: string }> {
  const whole = await textOf(file, LARGEST_DRAWING, 'a template');
  if (!whole.ok) return { why: whole.why };
  const answer = await engine('shape').template(whole.text, file.name);
  if (!answer.ok) return { why: answer.why };
  const { lines, groups, leftOut } = answer.value;
  const name = file.name.replace(/\.\w+$/, '').slice(0, 100) || 'Template';
  const plain = groups.map(({ key, layer, colour, dashed, role }) => ({ key, layer, colour, dashed, role }));
  return { template: { name, scale: 1, mended: false, lines, groups: plain, picked: {}, lead: null }, leftOut };
}
