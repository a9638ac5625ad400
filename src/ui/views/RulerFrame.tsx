'use client';
import { Box } from '@chakra-ui/react';
import type { ReactNode, Ref } from 'react';
import type { RulerMark } from './ruler';

/** Breadth of a ruler, pixels; one that stands has longer numbers beside it. */
const BREADTH = 17;
const UPRIGHT_BREADTH = BREADTH + 9;

/** A view with a ruler above and one to its left. */
export function RulerFrame({
  across,
  up,
  width,
  height,
  title,
  frame,
  children,
}: {
  readonly across: readonly RulerMark[];
  readonly up: readonly RulerMark[];
  /** Of the view between them, pixels. */
  readonly width: number;
  readonly height: number;
  /** Where the numbers hold. */
  readonly title?: string;
  readonly frame?: Ref<HTMLDivElement>;
  readonly children: ReactNode;
}) {
  return (
    <Box
      ref={frame}
      position="absolute"
      inset="0"
      display="grid"
      gridTemplate={`${BREADTH}px 1fr / ${UPRIGHT_BREADTH}px 1fr`}
    >
      <Box bg="panel" borderBottom="1px solid var(--rule)" />
      <Ruler marks={across} length={width} title={title} />
      <Ruler marks={up} length={height} title={title} upright />
      <Box position="relative" minWidth="0" minHeight="0">
        {children}
      </Box>
    </Box>
  );
}

function Ruler({
  marks,
  length,
  title,
  upright = false,
}: {
  readonly marks: readonly RulerMark[];
  readonly length: number;
  readonly title?: string;
  readonly upright?: boolean;
}) {
  const breadth = upright ? UPRIGHT_BREADTH : BREADTH;
  return (
    <Box
      bg="panel"
      aria-hidden
      title={title}
      overflow="hidden"
      borderBottom={upright ? undefined : '1px solid var(--rule)'}
      borderRight={upright ? '1px solid var(--rule)' : undefined}
    >
      <svg width={upright ? breadth : length} height={upright ? length : breadth} style={{ display: 'block' }}>
        {marks.map(({ px, label }, k) => {
          const long = label === undefined ? 3 : 6;
          return (
            <g key={k} transform={upright ? `translate(0 ${px})` : `translate(${px} 0)`}>
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
