'use client';
import type { State } from '@/core/drives';
import { Box } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState, type PointerEvent, type RefObject, type WheelEvent } from 'react';
import type { Picture } from '@/core/formats/picture';
import type { Design } from '@/core/document/design';
import { useActions, useStudio } from '@/store/context';
import { engine, newestWins } from '@/workers/client';
import { PosedPicture } from '../common/PosedPicture';
import type { EyeHand } from './Eye';
import { turnedBy, type Direction } from './views';

/** Least and most a drawing is enlarged. */
const ZOOM = [0.4, 8] as const;
/** Moved by less, in pixels, a press is a click. */
const CLICK_PX = 3;

/** The solver's own drawing of the pose, turned and chosen from like the view in paper. */
export function DrawnScene({
  from: begun,
  hand,
}: {
  readonly from: Direction;
  readonly hand: RefObject<EyeHand | null>;
}) {
  const design = useStudio((s) => s.preview ?? s.design);
  const state = useStudio((s) => s.pose?.state ?? s.state);
  const lit = useStudio((s) => s.lit);
  const { light, select } = useActions();
  const [from, setFrom] = useState<Direction>(begun);
  const [zoom, setZoom] = useState(1);
  /** Moved by so much, pixels. */
  const [aside, setAside] = useState<readonly [number, number]>([0, 0]);
  const [picture, setPicture] = useState<Picture | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const pressed = useRef<{ x: number; y: number; moved: number; on: string | null } | null>(null);
  const ask = useMemo(
    () =>
      newestWins(
        (d: Design, at: State, eye: Direction) => engine('pose').picture(d, at, eye),
        (answer) => {
          if (answer.ok) setPicture(answer.value);
        },
      ),
    [],
  );
  useEffect(() => ask(design, state, from), [ask, design, state, from]);
  useEffect(() => {
    hand.current = {
      nearer: (factor) => setZoom((z) => Math.min(ZOOM[1], Math.max(ZOOM[0], z * factor))),
      turn: (roundDeg, upDeg) => setFrom((eye) => turnedBy(eye, -roundDeg / 360, upDeg / 360)),
      slide: (dx, dy) => setAside(([x, y]) => [x - dx, y + dy]),
      // It always fits, and has no scale of its own.
      fitTo: () => setAside([0, 0]),
      toScale: () => undefined,
    };
  }, [hand]);

  const move = (e: PointerEvent): void => {
    const p = pressed.current;
    const height = frame.current?.clientHeight ?? 1;
    if (!p) return;
    const [dx, dy] = [e.clientX - p.x, e.clientY - p.y];
    pressed.current = { ...p, x: e.clientX, y: e.clientY, moved: p.moved + Math.abs(dx) + Math.abs(dy) };
    setFrom((eye) => turnedBy(eye, dx / height / 2, dy / height / 2));
  };
  const release = (): void => {
    const p = pressed.current;
    if (p?.on && p.moved < CLICK_PX) select(p.on);
    pressed.current = null;
  };
  const wheel = (e: WheelEvent): void => hand.current?.nearer(Math.exp(-e.deltaY / 500));
  return (
    <Box
      ref={frame}
      position="absolute"
      inset="0"
      overflow="hidden"
      cursor="grab"
      touchAction="none"
      onPointerDown={(e) => {
        // Once it is captured, the pointer no longer tells what it is over.
        const on = (e.target as Element).getAttribute('data-of');
        pressed.current = { x: e.clientX, y: e.clientY, moved: 0, on };
        frame.current?.setPointerCapture(e.pointerId);
      }}
      onPointerMove={move}
      onPointerUp={release}
      onPointerCancel={() => (pressed.current = null)}
      onWheel={wheel}
      onPointerOver={(e) => light([(e.target as Element).getAttribute('data-part') ?? ''].filter(Boolean))}
      onPointerLeave={() => light([])}
    >
      {picture && (
        <Box height="100%" transform={`translate(${aside[0]}px, ${aside[1]}px) scale(${zoom})`}>
          <PosedPicture picture={picture} height="100%" lit={lit} label="Drawing of the posed card" />
        </Box>
      )}
    </Box>
  );
}
