'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, type PointerEvent } from 'react';
import type { Room } from '@/core/proof/room';
import { formatLength, type LengthUnit } from '@/core/units/length';

export interface RoomBarProps {
  readonly room: Room;
  readonly value: number;
  readonly unit: LengthUnit;
  readonly angle: boolean;
  readonly label: string;
  readonly onPreview: (value: number) => void;
  readonly onCommit: (value: number) => void;
}

/** Height of the line that names the limits: of their buttons, with or without them. */
const NAMES_HEIGHT = '25px';

/** Where the bar of a number will stand once its room is worked out: nothing below it is pushed away then. */
export const RoomBarPlace = () => (
  <Box mt="5px" height={`calc(12px + ${NAMES_HEIGHT})`} data-awaited aria-hidden="true" />
);

/** Room left at a limit when one goes to it with ease (mm, degrees). */
const EASE = 1;

/**
 * Allowed range of a number under its field: where it stands, where it ends, and what ends it. Drag it, or go to a
 * limit.
 */
export function RoomBar({ room, value, unit, angle, label, onPreview, onCommit }: RoomBarProps) {
  const bar = useRef<HTMLDivElement>(null);
  const dragged = useRef<number | null>(null);
  const { from, to, clear } = room;
  const percent = (v: number): string => `${Math.min(100, Math.max(0, (100 * (v - from)) / (to - from)))}%`;
  const show = (v: number): string => (angle ? `${v.toFixed(0)}°` : formatLength(v, unit));
  const at = (e: PointerEvent): number => {
    const { left, width } = bar.current!.getBoundingClientRect();
    return Math.round((from + Math.min(1, Math.max(0, (e.clientX - left) / width)) * (to - from)) * 2) / 2;
  };
  const drag = (e: PointerEvent): void => {
    if (e.buttons !== 1) return;
    dragged.current = at(e);
    onPreview(dragged.current);
  };
  const release = (): void => {
    if (dragged.current !== null) onCommit(dragged.current);
    dragged.current = null;
  };
  const outside = clear && (value < clear.low.value - 0.06 || value > clear.high.value + 0.06);
  const limit = (end: 'low' | 'high') => {
    const { value: v, by } = clear![end];
    if (!by) return <span />;
    const inward = end === 'low' ? EASE : -EASE;
    const tidy = (x: number): number => (end === 'low' ? Math.ceil(x * 10 - 0.01) : Math.floor(x * 10 + 0.01)) / 10;
    return (
      <chakra.span display="inline-flex" gap="4px" alignItems="baseline">
        <chakra.button
          type="button"
          className="plain"
          title={`Go to ${show(v)}`}
          aria-label={`${show(v)} ${by}: take ${label} to this limit`}
          onClick={() => onCommit(tidy(v))}
          textDecoration="underline dotted"
          minHeight="24px"
          color={outside ? 'var(--bad)' : undefined}
        >
          {show(v)} {by}
        </chakra.button>
        <chakra.button
          type="button"
          className="plain"
          title={`Go to ${show(v + inward)}, with ease`}
          aria-label={`ease: take ${label} to the limit with ease, ${show(v + inward)}`}
          onClick={() => onCommit(tidy(v + inward))}
          fontSize="11px"
          minHeight="24px"
          minWidth="28px"
          textAlign="center !important"
          border="1px solid var(--rule) !important"
          borderRadius="2px"
          px="3px !important"
        >
          ease
        </chakra.button>
      </chakra.span>
    );
  };
  return (
    <Box mt="5px" aria-label={`${label}, room`} role="group">
      <Box
        ref={bar}
        position="relative"
        height="12px"
        cursor="ew-resize"
        touchAction="none"
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          drag(e);
        }}
        onPointerMove={drag}
        onPointerUp={release}
        onPointerCancel={() => {
          dragged.current = null;
          onPreview(value);
        }}
      >
        <Box
          position="absolute"
          left="0"
          right="0"
          top="5px"
          height="3px"
          background="repeating-linear-gradient(135deg, var(--bad) 0 3px, transparent 3px 6px)"
          opacity="0.45"
        />
        {clear && (
          <Box
            position="absolute"
            top="4px"
            height="5px"
            bg="var(--good-bar)"
            borderRadius="2px"
            left={percent(clear.low.value)}
            right={`calc(100% - ${percent(clear.high.value)})`}
          />
        )}
        <Box
          position="absolute"
          top="0"
          width="3px"
          height="13px"
          ml="-1.5px"
          bg={outside || !clear ? 'bad' : 'ink'}
          left={percent(value)}
        />
      </Box>
      <Box
        display="flex"
        justifyContent="space-between"
        alignItems="baseline"
        gap="6px"
        height={NAMES_HEIGHT}
        lineHeight={NAMES_HEIGHT}
        fontSize="12px"
        color="ink2"
        whiteSpace="nowrap"
      >
        {clear ? (
          <>
            {limit('low')}
            {limit('high')}
          </>
        ) : (
          <span>nothing in this range holds</span>
        )}
      </Box>
    </Box>
  );
}
