'use client';
import { Box, chakra } from '@chakra-ui/react';
import { openOf } from '@/core/drives';
import { measureWords } from '@/core/document/words';
import { useStudio } from '@/store/context';

/** What a mechanism, or the base, comes to as it is posed: what cannot be typed, and is looked for beside what can. */
export function MeasuredHere({ id }: { readonly id: string }) {
  const measures = useStudio((s) => s.pose?.measures[id]);
  const open = useStudio((s) => (s.pose ? openOf(s.pose.state) : 0));
  const units = useStudio((s) => s.design.units);
  const said = Object.entries(measures ?? {}).map(([key, value]) => ({ key, ...measureWords(key, value, units) }));
  if (said.length === 0) return null;
  return (
    <Box as="section" aria-label="Measured" mb="12px">
      <chakra.span fontWeight="600">Measured</chakra.span>
      <chakra.span className="dim" fontSize="12.5px">
        {' '}
        · opened to {open.toFixed(0)}°
      </chakra.span>
      <chakra.dl m="2px 0 0" display="grid" gridTemplateColumns="1fr auto" columnGap="8px" fontSize="13px">
        {said.map(({ key, name, value }) => (
          <Box key={key} display="contents">
            <dt>{name}</dt>
            <chakra.dd className="num" m="0">
              {value}
            </chakra.dd>
          </Box>
        ))}
      </chakra.dl>
    </Box>
  );
}
