'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Making } from '@/core/pattern/making';
import type { LineRole } from '@/core/pattern/pattern';
import { nameOfPart } from '@/core/document/words';
import { makingOf } from '@/core/sheets/drawing';
import { useActions, useStudio } from '@/store/context';
import { mm } from '../common/asked';
import { Choice, NumberField } from '../common/Field';

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

/** What the lines mean, and how every crease is made. */
export function Lines() {
  const { all, roles } = useStudio((s) => s.design.making);
  const { edit } = useActions();
  return (
    <Box as="section" aria-label="Lines">
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
        Order of work: marks, scores, perforations, windows, inner cuts, outlines last; what lies in a window before it.
      </chakra.p>
      <chakra.h2 className="heading" m="16px 0 8px !important">
        How creases are made
      </chakra.h2>
      <MakingFields
        name="all creases"
        making={all}
        onChange={(making) => edit('how creases are made', (d) => ({ ...d, making: { ...d.making, all: making } }))}
      />
      {(['valley', 'mountain'] as const).map((role) => (
        <Box key={role} borderTop="1px solid var(--rule)" pt="7px">
          <MakingFields
            name={`every ${role}`}
            making={roles?.[role] ?? all}
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
            name={nameOfPart(design, id)}
            making={makingOf(design, id, role)}
            onChange={(making) =>
              edit(`${nameOfPart(design, id)}: ${making.way}`, (d) => ({
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
