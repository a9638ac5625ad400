'use client';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import { useState, type KeyboardEvent, type ReactNode } from 'react';
import type { PieceStock } from '@/core/build/bring';
import type { Template, TemplateJoin } from '@/core/document/template';
import type { TemplateRole } from '@/core/pattern/pattern';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import type { TemplateLine } from '@/core/pattern/mending';
import { LARGEST_DRAWING } from '@/core/shapes/shape';
import { Action } from '../common/Action';
import { textOf } from '../common/files';
import { Sheet } from '../common/Sheet';
import { useAsk } from '../shapes/useAsk';
import { joinEdges, type Edge } from './joining';
import { AsWaterfall } from './AsWaterfall';
import { PiecesPane } from './PiecesPane';
import { beside, clicked, inBox, withRole, type Picked } from './picking';
import { useTemplateSteps } from './kept-steps';
import { PieceRows } from './PieceRows';
import { roleOfKey } from './roleWords';
import { Severed } from './Severed';
import { Faults, LineGroups, PickedLines, ScaleField, type ChangeTemplate } from './TemplateFields';
import { TemplateSheet } from './TemplateSheet';
import { viewOf } from './viewing';

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
  const { template, change, begin, undo, redo, mayUndo, mayRedo } = useTemplateSteps(design.card.template ?? null);
  const [notes, setNotes] = useState<Notes>({});
  const [stocks, setStocks] = useState<readonly PieceStock[]>([]);
  const [drawing, setRead] = useState(0);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    const read = await templateFrom(file);
    if ('why' in read) return setNotes({ why: read.why });
    setNotes({ leftOut: read.leftOut });
    // What was picked and said of another drawing says nothing of this one.
    setStocks([]);
    setRead((n) => n + 1);
    begin(read.template);
  };
  const use = async (t: Template, as: 'bringTemplate' | 'bringWaterfall' = 'bringTemplate'): Promise<void> => {
    const brought = await engine('shape')[as](design, t, stocks);
    if (!brought.ok) return setNotes({ why: brought.why });
    edit(`${as === 'bringTemplate' ? 'template' : 'waterfall'} ${t.name}`, () => brought.value);
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
  /** Here it takes back what was said of the template; what is typed has its own. */
  const onUndo = (e: KeyboardEvent): void => {
    const types = e.target instanceof HTMLInputElement && e.target.type === 'text';
    const key = e.key.toLowerCase();
    if (types || !(e.ctrlKey || e.metaKey) || (key !== 'z' && key !== 'y')) return;
    e.preventDefault();
    e.stopPropagation();
    if (key === 'y' || e.shiftKey) redo();
    else undo();
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
      <Action disabled={!mayUndo} onClick={undo}>
        Undo
      </Action>
      <Action disabled={!mayRedo} onClick={redo}>
        Redo
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
      onKeyDown={onUndo}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take(e.dataTransfer.files[0]);
      }}
    >
      {template ? (
        <Fitted
          key={drawing}
          template={template}
          change={change}
          onWhy={(why) => setNotes({ why })}
          stocks={stocks}
          onStocks={setStocks}
          onWaterfall={() => void use(template, 'bringWaterfall')}
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
  stocks,
  onStocks,
  onWaterfall,
  head,
  foot,
}: {
  readonly template: Template;
  readonly change: ChangeTemplate;
  readonly onWhy: (why: string) => void;
  readonly stocks: readonly PieceStock[];
  readonly onStocks: (stocks: readonly PieceStock[]) => void;
  readonly onWaterfall: () => void;
  readonly head: ReactNode;
  readonly foot: ReactNode;
}) {
  const design = useStudio((s) => s.design);
  const [picked, setPicked] = useState<Picked>([]);
  const [edge, setEdge] = useState<Edge | 'first' | null>(null);
  const asked = JSON.stringify(template);
  const { value } = useAsk(asked, () => engine('shape').faults(template));
  const { value: offers } = useAsk(asked, () => engine('shape').offers(design, template));
  const lines = value?.lines ?? [];
  const outlines = offers?.pieces.map((p) => p.outline) ?? [];
  const { joins = [] } = template;
  const setJoins = (next: readonly TemplateJoin[]): void => change((t) => ({ ...t, joins: next }));
  const addJoin = (join: TemplateJoin): void => setJoins([...joins, join]);
  const match = (clickedEdge: Edge): void => {
    if (edge === 'first' || edge === null) return setEdge(clickedEdge);
    const join = joinEdges(outlines, joins, edge, clickedEdge);
    setEdge(null);
    if (typeof join === 'string') onWhy(join);
    else addJoin(join);
  };
  const setRole = (ids: Picked, role: TemplateRole): void => change((t) => withRole(t, lines, ids, role));
  const onKey = (e: KeyboardEvent): void => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    const step = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : null;
    const next = step && beside(lines, picked, step);
    const role = roleOfKey(e.key);
    if (next) setPicked(e.shiftKey ? [...picked.filter((p) => p !== next), next] : [next]);
    else if (role && picked.length > 0) setRole(picked, role);
    else return;
    e.preventDefault();
  };
  return (
    <>
      <Board>
        {value && value.lines.length > 0 && (
          <TemplateSheet
            lines={lines}
            faults={value.faults}
            sheets={outlines}
            scale={template.scale}
            joins={joins}
            lit={picked}
            edge={edge === 'first' ? null : edge}
            matching={edge !== null}
            onLine={(id, more) => setPicked((now) => clicked(now, id, more))}
            onBox={(a, b, more) => setPicked((now) => [...new Set([...(more ? now : []), ...inBox(lines, a, b)])])}
            onKey={onKey}
            onEdge={match}
            onDropped={addJoin}
          />
        )}
      </Board>
      <Box maxHeight="70vh" display="flex" flexDirection="column">
        <Box flex="1" minHeight="0" overflowY="auto">
          {head}
          {picked.length > 0 && (
            <PickedLines
              {...{ template, change, picked, lines }}
              onRole={(role) => setRole(picked, role)}
              onPick={setPicked}
            />
          )}
          <Severed
            severing={value?.severing ?? []}
            lines={lines}
            units={design.units}
            onPick={setPicked}
            onRole={setRole}
          />
          {offers?.waterfall && <AsWaterfall found={offers.waterfall} units={design.units} onTake={onWaterfall} />}
          <LineGroups template={template} change={change} />
          {offers && (
            <>
              <PieceRows
                {...{ template, stocks, design, onStocks }}
                pieces={offers.pieces}
                onNames={(pieces) => change((t) => ({ ...t, pieces }))}
              />
              <PiecesPane
                template={template}
                offers={offers}
                matching={edge === null ? 0 : edge === 'first' ? 1 : 2}
                onMatch={(on) => setEdge(on ? 'first' : null)}
                onJoins={setJoins}
                onPicked={(roles) => change((t) => ({ ...t, picked: roles }))}
              />
            </>
          )}
          <ScaleField template={template} change={change} size={sizeOf(lines)} kept={offers?.kept ?? []} />
          <Faults template={template} change={change} faults={value?.faults ?? []} />
        </Box>
        {foot}
      </Box>
    </>
  );
}

function sizeOf(lines: readonly TemplateLine[]): string {
  if (lines.length === 0) return '';
  const { min, max } = viewOf(lines);
  return `${(max[0] - min[0]).toFixed(1)} × ${(max[1] - min[1]).toFixed(1)} mm in all`;
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
