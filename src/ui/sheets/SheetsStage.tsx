'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { inSentence } from '@/core/document/words';
import type { Parameter } from '@/core/kinds';
import type { Making } from '@/core/pattern/making';
import type { LineRole } from '@/core/pattern/pattern';
import { makingOf } from '@/core/sheets/drawing';
import { onSheet, type Layout, type SheetLayout } from '@/core/sheets/pack';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { count, mm } from '../common/asked';
import { Choice, NumberField } from '../common/Field';
import { pale } from '../common/files';

const MARGIN = mm('marginMm', 'Margin', 0, 100, { note: 'Edge of the sheet that is not cut.' });
const SPACING = mm('spacingMm', 'Between pieces', 0, 100, { note: 'Room between pieces.' });
const COPIES = count('copies', 'Copies of the card', 1, 1000, { note: 'Every piece is cut this many times.' });
const CUT = mm('cutMm', 'Cut', 0.2, 50, { note: 'Length of each cut.' });
const GAP = mm('gapMm', 'Gap', 0.2, 50, { note: 'Paper left between the cuts.' });
const PERFORATE: Making = { way: 'perforate', cutMm: 3, gapMm: 2 };

const LEGEND: readonly (readonly [LineRole, string])[] = [
  ['cut', 'cut'],
  ['valley', 'valley, scored'],
  ['mountain', 'mountain, scored'],
  ['perforation', 'perforation'],
  ['window', 'window'],
  ['mark', 'mark'],
  ['glue', 'glue'],
];

/** Sheets by stock with their use, and how every crease is made. */
export function SheetsStage() {
  const design = useStudio((s) => s.design);
  const [layout, setLayout] = useState<Layout | null>(null);
  const { edit } = useActions();
  useEffect(() => {
    let live = true;
    void engine('study')
      .layout(design)
      .then((a) => {
        if (live && a.ok) setLayout(a.value.layout);
      });
    return () => {
      live = false;
    };
  }, [design]);
  const set =
    (p: Parameter) =>
    (v: number | null): void => {
      if (v !== null) edit(inSentence(p.label), (d) => ({ ...d, sheets: { ...d.sheets, [p.key]: v } }));
    };
  return (
    <Box display="grid" gridTemplateColumns="minmax(0, 1fr) 330px" height="100%" minHeight="0">
      <Box
        overflowY="auto"
        p="16px 20px"
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(320px, 1fr))"
        gap="20px"
        alignContent="start"
      >
        {layout?.sheets.map((s, i) => (
          <SheetDrawing key={i} sheet={s} number={i + 1} />
        ))}
        {layout?.unplaced.map((d, i) => (
          <chakra.p key={i} color="bad">
            {d.title} is larger than its sheet and is not placed.
          </chakra.p>
        ))}
      </Box>
      <Box bg="panel" p="12px 14px" overflowY="auto" borderLeft="1px solid var(--rule)">
        <chakra.h2 className="heading" mb="10px !important">
          Sheets
        </chakra.h2>
        <NumberField parameter={MARGIN} value={design.sheets.marginMm} unit={design.units} onChange={set(MARGIN)} />
        <NumberField parameter={SPACING} value={design.sheets.spacingMm} unit={design.units} onChange={set(SPACING)} />
        <NumberField parameter={COPIES} value={design.sheets.copies} unit={design.units} onChange={set(COPIES)} />
        <chakra.h2 className="heading" m="16px 0 8px !important">
          Lines
        </chakra.h2>
        {LEGEND.map(([role, name]) => (
          <Box key={role} display="flex" alignItems="center" gap="10px" lineHeight="1.7">
            <svg width="74" height="10" aria-hidden="true">
              <path className={`line ${role}`} d="M2 5 H72" />
            </svg>
            {name}
          </Box>
        ))}
        <chakra.p className="dim" fontSize="12.5px">
          Order of work: marks, scores, perforations, windows, inner cuts, outlines last.
        </chakra.p>
        <chakra.h2 className="heading" m="16px 0 8px !important">
          How creases are made
        </chakra.h2>
        <MakingFields
          name="all creases"
          making={design.making.all}
          onChange={(all) => edit('how creases are made', (d) => ({ ...d, making: { ...d.making, all } }))}
        />
        {(['valley', 'mountain'] as const).map((role) => (
          <Box key={role} borderTop="1px solid var(--rule)" pt="7px">
            <MakingFields
              name={`every ${role}`}
              making={design.making.roles?.[role] ?? design.making.all}
              onChange={(making) =>
                edit(`every ${role} ${making.way}`, (d) => ({
                  ...d,
                  making: { ...d.making, roles: { ...d.making.roles, [role]: making } },
                }))
              }
            />
          </Box>
        ))}
        <CreaseMaking />
      </Box>
    </Box>
  );
}

function CreaseMaking() {
  const design = useStudio((s) => s.design);
  const creases = useStudio((s) => s.scene?.creases);
  const { edit, light } = useActions();
  const roleOf = new Map(creases?.map((c) => [c.id, c.role] as const) ?? []);
  return (
    <>
      {[...roleOf].map(([id, role]) => (
        <Box
          key={id}
          borderTop="1px solid var(--rule)"
          pt="7px"
          onPointerEnter={() => light([id])}
          onPointerLeave={() => light([])}
        >
          <MakingFields
            name={id}
            making={makingOf(design, id, role)}
            onChange={(making) =>
              edit(`${id} ${making.way}`, (d) => ({
                ...d,
                making: { ...d.making, creases: { ...d.making.creases, [id]: making } },
              }))
            }
          />
        </Box>
      ))}
    </>
  );
}

function MakingFields({
  name,
  making,
  onChange,
}: {
  name: string;
  making: Making;
  onChange: (making: Making) => void;
}) {
  const units = useStudio((s) => s.design.units);
  return (
    <>
      <Choice
        label={name}
        value={making.way}
        choices={[
          { id: 'score', name: 'score' },
          { id: 'perforate', name: 'perforate' },
        ]}
        onChange={(way) => onChange(way === 'score' ? { way: 'score' } : PERFORATE)}
      />
      {making.way === 'perforate' && (
        <Box pl="14px">
          <NumberField
            parameter={CUT}
            value={making.cutMm}
            unit={units}
            onChange={(v) => v !== null && onChange({ ...making, cutMm: v })}
          />
          <NumberField
            parameter={GAP}
            value={making.gapMm}
            unit={units}
            onChange={(v) => v !== null && onChange({ ...making, gapMm: v })}
          />
        </Box>
      )}
    </>
  );
}

function SheetDrawing({ sheet, number: n }: { sheet: SheetLayout; number: number }) {
  return (
    <figure style={{ margin: 0 }}>
      <svg
        role="img"
        aria-label={`Sheet ${n}, ${sheet.stock.name}`}
        width="100%"
        viewBox={`-1 -1 ${sheet.widthMm + 2} ${sheet.heightMm + 2}`}
      >
        <rect
          width={sheet.widthMm}
          height={sheet.heightMm}
          fill={pale(sheet.stock.insideColour)}
          stroke="var(--ink-2)"
          strokeDasharray="3 3"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
        {sheet.placed.map((p, i) =>
          p.drawing.lines.map((l, k) => (
            <path
              key={`${i}.${k}`}
              className={`line ${l.role}`}
              d={`M${l.points
                .map((q) => {
                  const [x, y] = onSheet(p, q);
                  return `${x} ${sheet.heightMm - y}`;
                })
                .join('L')}${l.closed ? 'Z' : ''}`}
            />
          )),
        )}
      </svg>
      <chakra.figcaption display="flex" gap="10px" fontSize="13px" mt="4px">
        <chakra.b>Sheet {n}</chakra.b>
        <chakra.span flex="1">
          {sheet.stock.name}, {sheet.size.name}, grain{' '}
          {sheet.stock.grain === 'none' ? 'free' : sheet.stock.grain === 'long' ? '↔' : '↕'}
        </chakra.span>
        <chakra.span className="num">{sheet.usePercent.toFixed(0)} % used</chakra.span>
      </chakra.figcaption>
    </figure>
  );
}
