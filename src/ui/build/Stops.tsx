'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { KINDS } from '@/core/kinds';
import type { StopPicture } from '@/core/formats/stops';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { PosedPicture } from '../common/PosedPicture';
import { TILE } from '../common/tile';

/** Every stop of what is turned, side by side; a click turns it there. */
export function Stops({ id, kind }: { id: string; kind: string }) {
  const design = useStudio((s) => s.design);
  const state = useStudio((s) => s.state);
  const { move, carry } = useActions();
  const [stops, setStops] = useState<readonly StopPicture[]>([]);
  const known = KINDS.get(kind);
  const has = known?.mount === 'face' && known.stops !== undefined;
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
  if (!has || stops.length === 0) return null;
  const frame = stops[0].picture.box;
  return (
    <Box mb="12px" data-testid="stops">
      <chakra.span fontWeight="600">At its stops</chakra.span>
      <Box display="grid" gridTemplateColumns="repeat(4, minmax(0, 1fr))" gap="5px" mt="4px">
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
            <PosedPicture picture={picture} frame={frame} height={56} label={`At ${value.toFixed(0)}°`} />
            <chakra.span className="dim" fontSize="11px">
              {value.toFixed(0)}°
            </chakra.span>
          </chakra.button>
        ))}
      </Box>
    </Box>
  );
}
