'use client';
import { Box, chakra } from '@chakra-ui/react';
import { WRITTEN_BY } from '@/core/version';
import { readYesNo, useKept } from '../common/kept';
import { Sheet } from '../common/Sheet';
import { KEYS } from './useKeys';

export function ShortcutSheet({ shown, onClose }: { shown: boolean; onClose: () => void }) {
  const [letters, setLetters] = useKept('keys', true, readYesNo);
  return (
    <Sheet title="Keys" shown={shown} onClose={onClose} width={520}>
      <chakra.label display="flex" gap="8px" alignItems="center" mb="12px">
        <input type="checkbox" checked={letters} onChange={(e) => setLetters(e.currentTarget.checked)} />
        Single letters, digits and signs are keys too
      </chakra.label>
      <Box as="dl" display="grid" gridTemplateColumns="150px 1fr" rowGap="7px" m="0">
        {KEYS.map(([keys, does]) => (
          <Box key={keys} display="contents">
            <chakra.dt fontWeight="700">{keys}</chakra.dt>
            <chakra.dd m="0">{does}</chakra.dd>
          </Box>
        ))}
      </Box>
      <chakra.p color="ink2" fontSize="13px" mt="16px" mb="0">
        {WRITTEN_BY}
      </chakra.p>
    </Sheet>
  );
}
