'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { valuesIn } from '@/core/document/fields';
import { KINDS } from '@/core/kinds';
import type { StopPicture } from '@/core/formats/stops';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { PosedPicture } from '../common/PosedPicture';
import { TILE } from '../common/tile';

const TILE_HEIGHT = 56;

/** Every stop of what is turned, side by side; a click turns it there. */
export function Stops({ id, kind }: { id: string; kind: string }) {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const { move, carry } = useActions();
  const [stops, setStops] = useState<readonly StopPicture[]>([]);
  const known = KINDS.get(kind);
  const values = valuesIn(design, id);
  const count = known?.mount === 'face' && values ? (known.stops?.(values).length ?? 0) : 0;
  const has = count > 0;
  useEffect(() => {
    if (!has) return;
    let live = true;
    void engine('study')
      .stops(design, id)
      .then((a) => {
        if (live && a.ok) setStops(a.value);
      });
    return () => {
      live = false;
    };
  }, [design, id, has]);
  if (!has) return null;
  const frame = stops[0]?.picture.box;
  return (
    <Box mb="12px" data-testid="stops">
      <chakra.span fontWeight="600">At its stops</chakra.span>
      <Box display="grid" gridTemplateColumns="repeat(4, minmax(0, 1fr))" gap="5px" mt="4px">
        {stops.length === 0 && Array.from({ length: count }, (_, k) => <StopPlace key={k} />)}
        {stops.map(({ drive, value, picture }) => (
          <chakra.button
            {...TILE}
            key={value}
            p="2px"
            aria-label={`Turn to ${value.toFixed(0)}°`}
            aria-pressed={Math.abs(state[drive] - value) < 0.5}
            onClick={() => {
              carry(drive);
              move(drive, value);
            }}
          >
            <PosedPicture picture={picture} frame={frame} height={TILE_HEIGHT} label={`At ${value.toFixed(0)}°`} />
            <chakra.span className="dim" fontSize="11px">
              {value.toFixed(0)}°
            </chakra.span>
          </chakra.button>
        ))}
      </Box>
    </Box>
  );
}

/** As large as a stop that is still being drawn. */
const StopPlace = () => (
  <Box p="2px" border="1px solid var(--rule)" borderRadius="card" aria-hidden="true">
    <Box height={`${TILE_HEIGHT}px`} />
    <chakra.span fontSize="11px">&nbsp;</chakra.span>
  </Box>
);
