'use client';
import { Box, chakra } from '@chakra-ui/react';
import { inSentence } from '@/core/document/words';
import type { Parameter } from '@/core/kinds';
import { useActions, useStudio } from '@/store/context';
import type { Laid } from '@/workers/protocol';
import { count, mm } from '../common/asked';
import { Action } from '../common/Action';
import { formatSaid, formatSheetArea } from '@/core/units/length';
import { NumberField } from '../common/Field';
import type { Searching } from './useLaid';

const MARGIN = mm('marginMm', 'Margin', 0, 100, { note: 'Edge of the sheet that is not cut.' });
const SPACING = mm('spacingMm', 'Between pieces', 0, 100, { note: 'Room between pieces.' });
const COPIES = count('copies', 'Copies of the card', 1, 1000, { note: 'Every piece is cut this many times.' });
const SEED = count('seed', 'Start of the search', 1, 1e6, {
  note: 'Another number finds another layout; the same number finds the same one.',
});
const SPARE = count('spare', '', 0, 100, { note: 'Cut beside those that are needed.' });
/** A search goes on for this long unless it is stopped, s. */
const SEARCH_S = 30;

interface NestPanelProps {
  readonly laid: Laid | null;
  readonly searching: Searching | null;
  readonly onSearch: (seconds: number) => void;
  readonly onStop: () => void;
  readonly onGiveUp: () => void;
}

/** What the sheets come to, and the search for a layout that takes less of them. */
export function NestPanel({ laid, searching, onSearch, onStop, onGiveUp }: NestPanelProps) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const set =
    (p: Parameter) =>
    (v: number | null): void => {
      if (v !== null) edit(inSentence(p.label), (d) => ({ ...d, sheets: { ...d.sheets, [p.key]: v } }));
    };
  const forget = (): void =>
    edit('pieces laid as they come', (d) => {
      const { places: _, ...rest } = d.sheets;
      return { ...d, sheets: rest };
    });
  const { sheets } = design;
  return (
    <Box as="section" aria-label="Laying out">
      <chakra.h2 className="heading" mb="8px !important">
        Sheets
      </chakra.h2>
      {laid && <Sums laid={laid} />}
      {searching ? (
        <Box mb="10px">
          <chakra.progress value={searching.part} max={1} width="100%" aria-label="How far the search has come" />
          <Box display="flex" alignItems="center" gap="8px">
            <chakra.span className="dim num" flex="1" role="status">
              {searching.rounds} layouts tried
            </chakra.span>
            <Action small onClick={onStop}>
              Keep the best now
            </Action>
            <Action small onClick={onGiveUp}>
              Give up
            </Action>
          </Box>
        </Box>
      ) : (
        <Box display="flex" gap="7px" mb="10px" flexWrap="wrap">
          <Action small strong onClick={() => onSearch(SEARCH_S)}>
            Lay out tighter
          </Action>
          {(sheets.places?.length ?? 0) > 0 && (
            <Action small onClick={forget} title="Forgets where pieces were put, locked ones too">
              Lay out anew
            </Action>
          )}
        </Box>
      )}
      <NumberField parameter={MARGIN} value={sheets.marginMm} unit={design.units} onChange={set(MARGIN)} />
      <ReachOfMachine onTake={set(MARGIN)} />
      <NumberField parameter={SPACING} value={sheets.spacingMm} unit={design.units} onChange={set(SPACING)} />
      <NumberField parameter={COPIES} value={sheets.copies} unit={design.units} onChange={set(COPIES)} />
      <NumberField parameter={SEED} value={sheets.seed ?? 1} unit={design.units} onChange={set(SEED)} />
      <Spares laid={laid} />
    </Box>
  );
}

/** How near to the edge the chosen machine cuts, where that is not the margin. */
function ReachOfMachine({ onTake }: { readonly onTake: (mm: number) => void }) {
  const machine = useStudio((s) => s.design.machine);
  const { marginMm } = useStudio((s) => s.design.sheets);
  const units = useStudio((s) => s.design.units);
  if (!machine || machine.bed.marginMm === marginMm) return null;
  const reach = machine.bed.marginMm;
  const said = formatSaid(reach, units);
  return (
    <Box m="-4px 0 10px" fontSize="12.5px" data-testid="machine-reach">
      <chakra.p
        className={reach > marginMm ? undefined : 'dim'}
        color={reach > marginMm ? 'bad' : undefined}
        m="0 0 4px"
      >
        {reach > marginMm
          ? `${machine.name} cuts no nearer to the edge than ${said}: what is laid nearer stays uncut.`
          : `${machine.name} cuts ${reach === 0 ? 'up to the edge' : `to ${said} from the edge`}.`}
      </chakra.p>
      <Action small onClick={() => onTake(reach)}>
        Margin of {said}
      </Action>
    </Box>
  );
}

function Sums({ laid: { layout } }: { laid: Laid }) {
  const { sheets, price } = layout;
  const area = sheets.reduce((sum, s) => sum + s.widthMm * s.heightMm, 0);
  const used = sheets.reduce((sum, s) => sum + (s.usePercent / 100) * s.widthMm * s.heightMm, 0);
  const units = useStudio((s) => s.design.units);
  return (
    <chakra.p m="0 0 8px" data-testid="sheet-sums">
      <b>
        {sheets.length} {sheets.length === 1 ? 'sheet' : 'sheets'}, {area > 0 ? Math.round((100 * used) / area) : 0} %
        used
      </b>
      <chakra.span className="dim">
        {'; '}
        {formatSheetArea(area - used, units)} left over{price !== null && `, ${price.toFixed(2)} for the sheets`}
      </chakra.span>
    </chakra.p>
  );
}

/** A spare of any piece is one click. */
function Spares({ laid }: { laid: Laid | null }) {
  const { spares = {} } = useStudio((s) => s.design.sheets);
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  const titles = new Map(
    laid?.layout.sheets.flatMap((s) => s.placed.map((p) => [p.drawing.id, p.drawing.title] as const)) ?? [],
  );
  const set = (id: string, n: number): void =>
    edit(`spares of ${titles.get(id) ?? id}`, (d) => {
      const { [id]: _, ...rest } = d.sheets.spares ?? {};
      return { ...d, sheets: { ...d.sheets, spares: n > 0 ? { ...rest, [id]: n } : rest } };
    });
  return (
    <details>
      <chakra.summary cursor="pointer" mb="6px">
        Spares
        {Object.keys(spares).length > 0 && ` (${Object.values(spares).reduce((a, b) => a + b, 0)})`}
      </chakra.summary>
      {[...titles].map(([id, title]) => (
        <Box key={id} display="flex" alignItems="start" gap="6px">
          <Box flex="1">
            <NumberField
              parameter={{ ...SPARE, label: title }}
              value={spares[id] ?? 0}
              unit={units}
              onChange={(v) => v !== null && set(id, v)}
            />
          </Box>
          <Action small aria-label={`One spare of ${title} more`} onClick={() => set(id, (spares[id] ?? 0) + 1)}>
            +1
          </Action>
        </Box>
      ))}
    </details>
  );
}
