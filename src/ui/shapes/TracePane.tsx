'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { fairThreshold, type Raster, type TraceWishes } from '@/core/shapes/trace';
import { Action } from '../common/Action';
import { readPicture } from './read-picture';
import { ShapePicture } from './ShapePicture';
import { TraceFields } from './TraceFields';
import { useTraced } from './useTraced';
import { useKeep } from './useKeep';

/** A picture to an outline: the threshold is dragged, the outline follows. */
export function TracePane() {
  const keep = useKeep();
  const [raster, setRaster] = useState<Raster | null>(null);
  const [name, setName] = useState('Traced');
  const [wishes, setWishes] = useState<TraceWishes>({
    threshold: 0.5,
    smoothing: 1.5,
    specks: 12,
    inverted: false,
    keepHoles: true,
    heightMm: 60,
  });
  const { found, why, setWhy } = useTraced(raster, wishes);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    try {
      const read = await readPicture(file);
      setName(file.name.replace(/\.\w+$/, '').slice(0, 60) || 'Traced');
      setWishes((w) => ({ ...w, threshold: fairThreshold(read) }));
      setRaster(read);
      setWhy(null);
    } catch (error) {
      setWhy((error as Error).message);
    }
  };
  return (
    <Box
      display="grid"
      gridTemplateColumns="1fr 260px"
      gap="18px"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void take(e.dataTransfer.files[0]);
      }}
    >
      <Box
        bg="sheet"
        border="1px solid var(--rule)"
        borderRadius="card"
        p="10px"
        minHeight="340px"
        display="flex"
        flexDirection="column"
        justifyContent="center"
      >
        {!raster && (
          <chakra.p className="dim" textAlign="center">
            Drop a PNG, JPEG or WebP here, or choose one.
          </chakra.p>
        )}
        {found && <ShapePicture outline={found.outline} height={330} label="Traced outline" />}
        {why && (
          <Box role="alert" bg="badWash" borderLeft="4px solid var(--bad)" p="8px 10px">
            {why} Nothing was lost.
          </Box>
        )}
      </Box>
      <Box>
        <chakra.label display="block" mb="12px">
          Picture{' '}
          <input
            type="file"
            aria-label="Picture"
            accept="image/png,image/jpeg,image/webp"
            onChange={(e) => void take(e.currentTarget.files?.[0])}
            style={{ width: '100%' }}
          />
        </chakra.label>
        <TraceFields wishes={wishes} onChange={setWishes} />
        {found && (
          <Box className="dim" fontSize="13px" mb="8px">
            {found.outline.points} points
          </Box>
        )}
        <Action strong disabled={!found} onClick={() => found && keep(name, { path: found.path })}>
          Keep this outline
        </Action>
      </Box>
    </Box>
  );
}
