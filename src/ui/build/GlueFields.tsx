'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { Gluing } from '@/core/document/design';
import { isPartOf } from '@/core/ids';
import { nameOfPart } from '@/core/document/words';
import { ADHESIVES, adhesive } from '@/core/paper/adhesives';
import { useActions, useStudio } from '@/store/context';
import { Choice, NumberField } from '../common/Field';
import { gluingOf, INSET, putGluing } from './gluing';

const FOAM = { key: 'foam', label: 'Foam', unit: 'mm', default: 1, min: 0.1, max: 10, note: 'Its thickness.' } as const;

/** The glue areas of one mechanism: what each is stuck with, and how far it is set in. */
export function GlueFields({ id }: { id: string }) {
  const design = useStudio((s) => s.design);
  const areas = useStudio((s) => s.scene?.glue)?.filter((g) => g.mechanism === id) ?? [];
  const lost = (design.gluing ?? []).filter((g) => isPartOf(g.glue, id) && !areas.some((a) => a.id === g.glue));
  const { light } = useActions();
  const ids = [...areas.map((a) => a.id), ...lost.map((g) => g.glue)];
  if (ids.length === 0) return null;
  return (
    <chakra.details mb="12px">
      <chakra.summary cursor="pointer" fontWeight="600" mb="6px">
        Glue
      </chakra.summary>
      {ids.map((glue) => (
        <Box key={glue} pl="10px" mb="8px" onPointerEnter={() => light([glue])} onPointerLeave={() => light([])}>
          <OneArea glue={glue} />
        </Box>
      ))}
    </chakra.details>
  );
}

function OneArea({ glue }: { glue: string }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const own = gluingOf(design, glue);
  const name = nameOfPart(design, glue);
  const put = (change: Partial<Gluing>, words: string): void =>
    edit(`${name}: ${words}`, (d) => putGluing(d, glue, change));
  return (
    <>
      <Choice
        asList
        label={name}
        note={adhesive(own.adhesive).says}
        value={own.adhesive}
        choices={ADHESIVES.map((a) => ({ id: a.id, name: a.name }))}
        onChange={(a) => put({ adhesive: a as Gluing['adhesive'] }, adhesive(a as Gluing['adhesive']).name)}
      />
      {own.adhesive === 'foam' && (
        <NumberField
          parameter={FOAM}
          value={own.foamMm ?? adhesive('foam').thickMm}
          unit={design.units}
          onChange={(v) => put({ foamMm: v ?? adhesive('foam').thickMm }, 'foam')}
        />
      )}
      <NumberField
        parameter={INSET}
        value={own.insetMm ?? 0}
        unit={design.units}
        onChange={(v) => put({ insetMm: v ?? 0 }, 'set in')}
      />
    </>
  );
}
