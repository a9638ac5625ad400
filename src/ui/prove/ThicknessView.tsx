'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import type { ThicknessMap } from '@/core/rules';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';

/** The closed stack as a map: the darker, the more paper lies there. */
export function ThicknessView() {
  const design = useStudio((s) => s.design);
  const [map, setMap] = useState<ThicknessMap | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let live = true;
    void engine('study').thickness(design).then((a) => live && setMap(a.ok ? a.value : null));
    return () => { live = false; };
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
        image.data.set(v === 0 ? [0, 0, 0, 0] : [236 - 150 * v, 226 - 172 * v, 240 - 115 * v, 255], at);
      }
    }
    context.putImageData(image, 0, 0);
  }, [map]);
  return (
    <Box as="section" aria-label="Thickness" p="10px 14px" display="flex" flexDirection="column" minHeight="0" minWidth="0">
      <Box display="flex" alignItems="baseline"><chakra.h2 className="heading" flex="1">Closed stack</chakra.h2><chakra.span className="dim" fontSize="12.5px">{map ? `${map.greatest.mm.toFixed(2)} mm · ${map.greatest.layers} layers at most` : 'does not close'}</chakra.span></Box>
      {map && (
        <>
          <Box flex="1" minHeight="0" display="flex" alignItems="center" justifyContent="center" py="8px"><canvas ref={canvas} role="img" aria-label={`Map of the closed stack, at most ${map.greatest.mm.toFixed(2)} mm`} style={{ maxWidth: '100%', maxHeight: '100%', aspectRatio: `${map.columns} / ${map.rows}`, width: '100%', objectFit: 'contain', imageRendering: 'pixelated' }} /></Box>
          <Box display="flex" gap="8px" alignItems="center" fontSize="12.5px"><span>0</span><Box flex="1" height="7px" background="linear-gradient(90deg, rgb(236,226,240), rgb(86,54,125))" /><span>{map.greatest.mm.toFixed(2)} mm</span><chakra.span className="dim">gutter below</chakra.span></Box>
        </>
      )}
    </Box>
  );
}
