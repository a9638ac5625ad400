'use client';
import { Box, chakra } from '@chakra-ui/react';
import type { FoundWaterfall } from '@/core/build/template-waterfall';
import { formatLength, type LengthUnit } from '@/core/units/length';
import { Action } from '../common/Action';

/** Pieces that are a waterfall's: their sizes, and what makes them work. */
export function AsWaterfall({
  found,
  units,
  onTake,
}: {
  readonly found: FoundWaterfall;
  readonly units: LengthUnit;
  readonly onTake: () => void;
}) {
  const { count, panelWidth, panelHeight, pitch, beltWidth } = found.values;
  const say = (v: unknown): string => formatLength(v as number, units);
  return (
    <Box role="status" borderLeft="4px solid var(--accent)" bg="accentWash" p="8px 10px" m="10px 0">
      <chakra.p m="0 0 6px">
        {`${String(count)} panels of ${say(panelWidth)} × ${say(panelHeight)} ${units} and a belt ` +
          `${say(beltWidth)} wide, scored every ${say(pitch)}: ` +
          `a waterfall${found.card ? ', with the card it goes into' : ''}.`}
      </chakra.p>
      <Action small strong onClick={onTake}>
        Make it work
      </Action>
    </Box>
  );
}
