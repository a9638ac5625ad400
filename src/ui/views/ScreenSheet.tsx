'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { useKept } from '../common/kept';
import { Sheet } from '../common/Sheet';
import { BANK_CARD_MM, CSS_PX_PER_MM, PX_PER_MM, readPxPerMm } from './true-size';

/** The screen measured once: a bank card laid on it, and its outline drawn until both are the same. */
export function ScreenSheet() {
  const shown = useStudio((s) => s.dialog?.kind === 'screen');
  const { show } = useActions();
  return (
    <Sheet title="True size on this screen" shown={shown} onClose={() => show(null)} width={680}>
      {shown && <Outline onDone={() => show(null)} />}
    </Sheet>
  );
}

function Outline({ onDone }: { readonly onDone: () => void }) {
  const [kept, keep] = useKept('pxPerMm', CSS_PX_PER_MM, readPxPerMm);
  const [px, setPx] = useState(kept);
  return (
    <>
      <chakra.p mt="0">
        Lay a bank card on the screen, its corner on the corner below, and move the slider until outline and card are
        the same. Every bank card is {BANK_CARD_MM.width} mm wide.
      </chakra.p>
      <Box height="300px" display="grid" placeItems="start" p="8px" bg="wash" borderRadius="card" overflow="hidden">
        <Box
          data-testid="bank-card"
          width={`${BANK_CARD_MM.width * px}px`}
          height={`${BANK_CARD_MM.height * px}px`}
          border="1.5px solid var(--ink)"
          borderRadius={`${3.18 * px}px`}
          bg="board"
        />
      </Box>
      <chakra.label display="flex" gap="12px" alignItems="center" my="12px">
        Width of the outline
        <chakra.input
          type="range"
          flex="1"
          min={PX_PER_MM.least}
          max={PX_PER_MM.most}
          step={0.01}
          value={px}
          onChange={(e) => setPx(Number(e.currentTarget.value))}
        />
        <span className="num">{(px * BANK_CARD_MM.width).toFixed(0)} px</span>
      </chakra.label>
      <Action
        strong
        onClick={() => {
          keep(px);
          onDone();
        }}
      >
        They are the same
      </Action>
    </>
  );
}
