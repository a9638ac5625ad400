'use client';
import { Box, chakra } from '@chakra-ui/react';
import { lyingAcross } from '@/core/document/grain';
import { formatSize } from '@/core/units/size';
import { useActions, useStudio } from '@/store/context';
import type { Laid } from '@/workers/protocol';
import { Action } from '../common/Action';
import { YesNo } from '../common/Field';

/** Whether a piece may be turned against the grain. */
export function GrainChoice({ piece, title }: { readonly piece: string; readonly title: string }) {
  const may = useStudio((s) => s.design.sheets.anyGrain?.includes(piece) ?? false);
  const { edit } = useActions();
  return (
    <YesNo
      label="May lie across the grain"
      value={may}
      onChange={(v) =>
        edit(`${title} ${v ? 'may lie' : 'does not lie'} across the grain`, (d) => lyingAcross(d, piece, v))
      }
    />
  );
}

/** Offcuts that would be enough for a piece, were it not for their grain; each can be let turn. */
export function RefusedForGrain({ refused }: { readonly refused: Laid['layout']['refused'] }) {
  const units = useStudio((s) => s.design.units);
  const { edit } = useActions();
  if (refused.length === 0) return null;
  return (
    <Box as="section" aria-label="Refused for grain" mb="12px">
      {refused.map(({ drawing: { id, title }, offcut }) => (
        <Box key={id} borderLeft="4px solid var(--warn)" bg="warnWash" p="7px 10px" mb="6px" fontSize="13px">
          <chakra.p m="0 0 5px">
            {title} would fit the offcut of {formatSize([offcut.widthMm, offcut.heightMm], units)} only with its longest
            crease across the grain.
          </chakra.p>
          <Action small onClick={() => edit(`${title} may lie across the grain`, (d) => lyingAcross(d, id, true))}>
            Let it turn
          </Action>
        </Box>
      ))}
    </Box>
  );
}
