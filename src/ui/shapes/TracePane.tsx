'use client';
import { Box, chakra, Slider } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { Parameter } from '@/core/kinds';
import { fairThreshold, MOST_PIXELS, type Raster, type TraceWishes } from '@/core/shapes/trace';
import { useStudio } from '@/store/context';
import { engine, newestWins } from '@/workers/client';
import type { Brought } from '@/workers/protocol';
import { Action } from '../common/Action';
import { Choice, NumberField } from '../common/Field';
import { ShapePicture } from './ShapePicture';
import { useKeep } from './useKeep';

const HEIGHT: Parameter = {
  key: 'trace-height',
  label: 'Height',
  unit: 'mm',
  default: 60,
  min: 1,
  max: 1000,
  note: 'Of the traced shape.',
};
const LARGEST_PICTURE = 20_000_000;

/** The picture's pixels, scaled down where it has more than are traced. */
async function readPicture(file: File): Promise<Raster> {
  if (!/^image\/(png|jpeg|webp)$/.test(file.type)) throw new Error(`${file.name} is not a PNG, JPEG or WebP picture.`);
  if (file.size > LARGEST_PICTURE)
    throw new Error(
      `${file.name} has ${Math.round(file.size / 1e6)} MB; pictures up to ${LARGEST_PICTURE / 1e6} MB are traced.`,
    );
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error(`${file.name} does not open as a picture; it may be cut short.`);
  });
  const k = Math.min(1, Math.sqrt(MOST_PIXELS / 2 / (bitmap.width * bitmap.height)));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * k)), Math.max(1, Math.round(bitmap.height * k))];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, rgba: context.getImageData(0, 0, width, height).data };
}

/** A picture to an outline: the threshold is dragged, the outline follows. */
export function TracePane() {
  const keep = useKeep();
  const unit = useStudio((s) => s.design.units);
  const [raster, setRaster] = useState<Raster | null>(null);
  const [name, setName] = useState('Traced');
  const [why, setWhy] = useState<string | null>(null);
  const [wishes, setWishes] = useState<TraceWishes>({
    threshold: 0.5,
    smoothing: 1.5,
    specks: 12,
    inverted: false,
    keepHoles: true,
    heightMm: 60,
  });
  const [found, setFound] = useState<Brought | null>(null);
  const ask = useRef<ReturnType<typeof newestWins<[Raster, TraceWishes], Brought>> | null>(null);
  useEffect(() => {
    if (!raster) return;
    ask.current ??= newestWins(
      (r: Raster, w: TraceWishes) => engine('shape').trace(r, w),
      (answer) => {
        if (answer.ok) {
          setFound(answer.value);
          setWhy(null);
        } else {
          setFound(null);
          setWhy(answer.why);
        }
      },
    );
    ask.current(raster, wishes);
  }, [raster, wishes]);
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
  const slider = (
    key: 'threshold' | 'smoothing' | 'specks',
    label: string,
    min: number,
    max: number,
    step: number,
    shown: string,
  ) => (
    <Slider.Root
      mb="10px"
      size="sm"
      min={min}
      max={max}
      step={step}
      value={[wishes[key]]}
      onValueChange={(e) => setWishes((w) => ({ ...w, [key]: e.value[0] }))}
    >
      <Box display="flex">
        <Slider.Label flex="1" fontWeight="400">
          {label}
        </Slider.Label>
        <span className="num">{shown}</span>
      </Box>
      <Slider.Control>
        <Slider.Track bg="var(--rule)">
          <Slider.Range bg="var(--accent)" />
        </Slider.Track>
        <Slider.Thumb index={0} borderColor="var(--accent)" />
      </Slider.Control>
    </Slider.Root>
  );
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
        {slider('threshold', 'Darker than', 0.02, 0.98, 0.01, `${Math.round(wishes.threshold * 100)} %`)}
        {slider('smoothing', 'Smoothing', 0, 8, 0.5, `${wishes.smoothing} px`)}
        {slider('specks', 'Leave out specks below', 0, 400, 4, `${wishes.specks} px²`)}
        <Choice
          label="Wanted"
          value={wishes.inverted ? 'light' : 'dark'}
          choices={[
            { id: 'dark', name: 'the dark' },
            { id: 'light', name: 'the light' },
          ]}
          onChange={(v) => setWishes((w) => ({ ...w, inverted: v === 'light' }))}
        />
        <Choice
          label="Holes"
          value={wishes.keepHoles ? 'keep' : 'fill'}
          choices={[
            { id: 'keep', name: 'keep' },
            { id: 'fill', name: 'fill' },
          ]}
          onChange={(v) => setWishes((w) => ({ ...w, keepHoles: v === 'keep' }))}
        />
        <NumberField
          parameter={HEIGHT}
          value={wishes.heightMm}
          unit={unit}
          onChange={(v) => v !== null && setWishes((w) => ({ ...w, heightMm: v }))}
        />
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
