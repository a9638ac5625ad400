'use client';
import { Box, chakra } from '@chakra-ui/react';
import { Sheet } from '../common/Sheet';
import { KEYS } from './useKeys';

export function ShortcutSheet({ shown, onClose }: { shown: boolean; onClose: () => void }) {
  return (
    <Sheet title="Keys" shown={shown} onClose={onClose} width={520}>
      <Box as="dl" display="grid" gridTemplateColumns="150px 1fr" rowGap="7px" m="0">
        {KEYS.map(([keys, does]) => (
          <Box key={keys} display="contents">
            <chakra.dt fontWeight="700">{keys}</chakra.dt>
            <chakra.dd m="0">{does}</chakra.dd>
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}
