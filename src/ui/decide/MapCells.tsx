'use client';
import { Box } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { MapCell } from '@/core/decide/map';
import type { Free } from '@/core/decide/target';
import { sayNumber } from '@/core/document/words';
import { useStudio } from '@/store/context';
import { VERDICT_WORDS } from './choices';
import { SIDE, type MapSquare } from './map-place';

const FILL: Readonly<Record<MapCell['verdict'], string>> = {
  clear: 'var(--good-bar)',
  risk: 'var(--warn)',
  blocked: 'var(--bad)',
};
/** Drawn over what does not do, for those who tell colours apart badly. */
const HATCH: Readonly<Partial<Record<MapCell['verdict'], string>>> = { risk: 'map-dots', blocked: 'map-lines' };

/** Places of the map in the colour of their verdict, stronger where the measure is greater. */
export function Cells({ square, cells }: { readonly square: MapSquare; readonly cells: readonly MapCell[] }) {
  const values = cells.flatMap((c) => c.value ?? []);
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const opacity = (value: number | null): number =>
    value === null || high <= low ? 0.55 : 0.25 + (0.65 * (value - low)) / (high - low);
  return (
    <>
      <Hatches />
      {cells.map((c) => {
        const place = {
          x: square.px(c.x - c.w / 2),
          y: square.py(c.y + c.h / 2),
          width: square.px(c.x + c.w / 2) - square.px(c.x - c.w / 2),
          height: square.py(c.y - c.h / 2) - square.py(c.y + c.h / 2),
        };
        return (
          <g key={`${c.x} ${c.y} ${c.w}`}>
            <rect {...place} fill={FILL[c.verdict]} opacity={opacity(c.value)} data-verdict={c.verdict} />
            {HATCH[c.verdict] && <rect {...place} fill={`url(#${HATCH[c.verdict]})`} />}
          </g>
        );
      })}
    </>
  );
}

function Hatches() {
  return (
    <defs>
      <pattern id="map-lines" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M4 0V8" stroke="var(--ink)" strokeWidth="1" opacity="0.4" />
      </pattern>
      <pattern id="map-dots" width="8" height="8" patternUnits="userSpaceOnUse">
        <circle cx="4" cy="4" r="1.1" fill="var(--ink)" opacity="0.6" />
      </pattern>
    </defs>
  );
}

/** The square with the ends of both numbers beside it. */
export function Framed({ x, y, children }: { readonly x: Free; readonly y: Free; readonly children: ReactNode }) {
  const design = useStudio((s) => s.design);
  const said = ({ mechanism, key }: Free, value: number): string => sayNumber(design, mechanism, key, value);
  return (
    <Box display="grid" gridTemplateColumns={`auto ${SIDE}px`} columnGap="6px" fontSize="12px" className="num">
      <Box display="flex" flexDirection="column" justifyContent="space-between" textAlign="right">
        <span>{said(y, y.to)}</span>
        <span>{said(y, y.from)}</span>
      </Box>
      {children}
      <span />
      <Box display="flex" justifyContent="space-between">
        <span>{said(x, x.from)}</span>
        <span>{said(x, x.to)}</span>
      </Box>
    </Box>
  );
}

/** What the colours and hatches stand for. */
export function Legend() {
  return (
    <Box display="flex" gap="12px" mb="6px">
      {(['clear', 'risk', 'blocked'] as const).map((verdict) => (
        <Box key={verdict} display="flex" gap="5px" alignItems="center">
          <svg width="16" height="16" aria-hidden="true">
            <rect width="16" height="16" fill={FILL[verdict]} opacity="0.55" />
            {HATCH[verdict] && <rect width="16" height="16" fill={`url(#${HATCH[verdict]})`} />}
          </svg>
          {VERDICT_WORDS[verdict]}
        </Box>
      ))}
    </Box>
  );
}
