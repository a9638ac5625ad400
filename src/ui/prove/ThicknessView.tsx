'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { ThicknessMap } from '@/core/rules';
import { useStudio } from '@/store/context';
import { formatFine } from '@/core/units/length';
import { engine } from '@/workers/client';
import { useDark } from '../theme';

type Ink = readonly [number, number, number];
/** Thin and thick: the thicker, the further from the ground it is drawn on. */
const ON_LIGHT: readonly [Ink, Ink] = [
  [236, 226, 240],
  [86, 54, 125],
];
const ON_DARK: readonly [Ink, Ink] = [
  [54, 44, 70],
  [226, 205, 245],
];
const mixed = ([thin, thick]: readonly [Ink, Ink], v: number): number[] => thin.map((x, k) => x + (thick[k] - x) * v);

/** The closed stack as a map: the more paper lies there, the more it stands out. */
export function ThicknessView() {
  const design = useStudio((s) => s.design);
  const [map, setMap] = useState<ThicknessMap | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scale = useDark() ? ON_DARK : ON_LIGHT;
  const thickest = map ? formatFine(map.greatest.mm, design.units) : '';
  useEffect(() => {
    let live = true;
    void engine('study')
      .thickness(design)
      .then((a) => live && setMap(a.ok ? a.value : null));
    return () => {
      live = false;
    };
  }, [design]);
  useEffect(() => {
    const el = canvas.current;
    if (!el || !map) return;
    el.width = map.columns;
    el.height = map.rows;
    const context = el.getContext('2d')!;
    const image = context.createImageData(map.columns, map.rows);
    const top = map.greatest.mm || 1;
    for (let row = 0; row < map.rows; row++) {
      for (let c = 0; c < map.columns; c++) {
        const v = map.mm[row * map.columns + c] / top;
        // Rows run up from the gutter; a picture runs down from its top.
        const at = 4 * ((map.rows - 1 - row) * map.columns + c);
        image.data.set(v === 0 ? [0, 0, 0, 0] : [...mixed(scale, v), 255], at);
      }
    }
    context.putImageData(image, 0, 0);
  }, [map, scale]);
  return (
    <Box
      as="section"
      aria-label="Thickness"
      p="10px 14px"
      display="flex"
      flexDirection="column"
      minHeight="0"
      minWidth="0"
    >
      <Box display="flex" alignItems="baseline">
        <chakra.h2 className="heading" flex="1">
          Closed stack
        </chakra.h2>
        <chakra.span className="dim" fontSize="12.5px">
          {map ? `${thickest} · ${map.greatest.layers} layers at most` : 'does not close'}
        </chakra.span>
      </Box>
      {map && (
        <>
          <Box flex="1" minHeight="0" display="flex" alignItems="center" justifyContent="center" py="8px">
            <canvas
              ref={canvas}
              role="img"
              aria-label={`Map of the closed stack, at most ${thickest}`}
              style={{
                maxWidth: '100%',
                maxHeight: '100%',
                aspectRatio: `${map.columns} / ${map.rows}`,
                width: '100%',
                objectFit: 'contain',
                imageRendering: 'pixelated',
              }}
            />
          </Box>
          <Box display="flex" gap="8px" alignItems="center" fontSize="12.5px">
            <span>0</span>
            <Box
              flex="1"
              height="7px"
              background={`linear-gradient(90deg, rgb(${scale[0].join()}), rgb(${scale[1].join()}))`}
            />
            <span>{thickest}</span>
            <chakra.span className="dim">gutter below</chakra.span>
          </Box>
        </>
      )}
    </Box>
  );
}
