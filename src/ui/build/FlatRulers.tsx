'use client';
import { Box } from '@chakra-ui/react';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { useStudio } from '@/store/context';
import type { View } from '../views/viewport';
import { rulerMarks, type RulerMark } from '../views/ruler';

/** Breadth of a ruler, pixels. */
const BREADTH = 17;

interface Measured {
  readonly width: number;
  readonly height: number;
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** The drawing with rulers along it, counted from the lower left of the page. */
export function FlatRulers({
  svg,
  view,
  mirrored,
  bottom,
  children,
}: {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly view: View;
  /** Width of the drawing, where it is turned over. */
  readonly mirrored: number | null;
  /** Lower edge of the page on the drawing. */
  readonly bottom: number;
  /** Told how many pixels a millimetre has. */
  readonly children: (pxPerMm: number) => ReactNode;
}) {
  const unit = useStudio((s) => s.design.units);
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Measured | null>(null);
  const [resized, setResized] = useState(0);
  useEffect(() => {
    if (!frame.current) return;
    const seen = new ResizeObserver(() => setResized((n) => n + 1));
    seen.observe(frame.current);
    return () => seen.disconnect();
  }, []);
  useLayoutEffect(() => {
    const [matrix, box] = [svg.current?.getScreenCTM(), svg.current?.getBoundingClientRect()];
    if (!matrix || !box) return;
    const next = {
      width: box.width,
      height: box.height,
      scale: matrix.a,
      x: matrix.e - box.left,
      y: matrix.f - box.top,
    };
    setAt((was) => (was && same(was, next) ? was : next));
  }, [svg, view, resized, mirrored, bottom]);
  const across = at
    ? rulerMarks(at.width, at.x + (mirrored ?? 0) * at.scale, mirrored === null ? at.scale : -at.scale, unit)
    : [];
  const up = at ? rulerMarks(at.height, at.y + bottom * at.scale, -at.scale, unit) : [];
  return (
    <Box
      ref={frame}
      position="absolute"
      inset="0"
      display="grid"
      gridTemplate={`${BREADTH}px 1fr / ${BREADTH + 9}px 1fr`}
    >
      <Box bg="panel" borderBottom="1px solid var(--rule)" />
      <Ruler marks={across} length={at?.width ?? 0} />
      <Ruler marks={up} length={at?.height ?? 0} upright />
      <Box position="relative" minWidth="0" minHeight="0">
        {children(at?.scale ?? 1)}
      </Box>
    </Box>
  );
}
const same = (a: Measured, b: Measured): boolean =>
  (Object.keys(a) as (keyof Measured)[]).every((k) => Math.abs(a[k] - b[k]) < 0.01);

function Ruler({
  marks,
  length,
  upright = false,
}: {
  readonly marks: readonly RulerMark[];
  readonly length: number;
  readonly upright?: boolean;
}) {
  const breadth = upright ? BREADTH + 9 : BREADTH;
  return (
    <Box
      bg="panel"
      aria-hidden
      overflow="hidden"
      borderBottom={upright ? undefined : '1px solid var(--rule)'}
      borderRight={upright ? '1px solid var(--rule)' : undefined}
    >
      <svg width={upright ? breadth : length} height={upright ? length : breadth} style={{ display: 'block' }}>
        {marks.map(({ px, label }) => {
          const long = label === undefined ? 3 : 6;
          return (
            <g key={px} transform={upright ? `translate(0 ${px})` : `translate(${px} 0)`}>
              <path
                d={upright ? `M${breadth} 0h${-long}` : `M0 ${breadth}v${-long}`}
                stroke="var(--ink-2)"
                strokeWidth="1"
              />
              {label !== undefined && (
                <text
                  x={upright ? breadth - 8 : 0}
                  y={upright ? 3.5 : 9.5}
                  textAnchor={upright ? 'end' : 'middle'}
                  style={{ fontSize: 10 }}
                  fill="var(--ink-2)"
                >
                  {label}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </Box>
  );
}
