'use client';
import { openOf } from '@/core/drives';
import { CARD } from '@/core/ids';
import { Box, chakra } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { Action } from '../common/Action';
import { Guard } from '../common/Guard';
import { useFull } from '../views/ViewPair';
import { Corner, ViewTools } from '../views/ViewTools';
import { MeasureNote, MeasureSwitch } from '../build/MeasureNote';
import { useMeasuring } from '../build/measure-store';
import { useTrueSize } from '../views/true-size';
import { ZOOM_STEP } from '../views/viewport';
import { DrawnScene } from './DrawnScene';
import type { EyeHand } from './Eye';
import type { Vec3 } from '@/core/linkage';
import { inWorld } from './placing';
import { PosedRulers, seenStore } from './PosedRulers';
import { hasGraphics, VIEWS } from './views';

/** What draws in space is large: the flat view does not wait for it. */
const inSpace = () => import('./PaperScene').then((m) => m.PaperScene);
const PaperScene = dynamic(inSpace, { ssr: false });

/**
 * The card as it stands, in paper with its thickness. Turn it with the pointer; it is the same thing as the flat view.
 * Without graphics, or when they are lost, the solver's own drawing stands in.
 */
export function PosedView() {
  const scene = useStudio((s) => s.scene);
  const pose = useStudio((s) => s.pose);
  const [view, setView] = useState(0);
  const [turned, setTurned] = useState(0);
  const [lost, setLost] = useState(false);
  const hand = useRef<EyeHand | null>(null);
  const seen = useMemo(seenStore, []);
  const selection = useSelectionPlaces();
  const trueSize = useTrueSize();
  const measures = useMeasuring((s) => s.on);
  const { full, toggle } = useFull();
  const { show } = useActions();
  const drawn = lost || !hasGraphics();
  const from = VIEWS[view][1];
  useEffect(() => {
    if (!drawn) void inSpace();
  }, [drawn]);
  return (
    <Box
      as="section"
      aria-label="Posed"
      position="relative"
      minWidth="0"
      minHeight="0"
      display="flex"
      flexDirection="column"
      borderRight="1px solid var(--rule)"
    >
      <Box
        display="flex"
        justifyContent="space-between"
        alignItems="center"
        gap="4px 8px"
        flexWrap="wrap"
        p="8px 12px 0 14px"
      >
        <chakra.h2 className="heading">Posed</chakra.h2>
        <Box display="flex" gap="4px" flexWrap="wrap" role="group" aria-label="View from">
          {!drawn && <MeasureSwitch />}
          {VIEWS.map(([name], i) => (
            <Action
              key={name}
              small
              aria-pressed={view === i}
              onClick={() => {
                setView(i);
                setTurned((n) => n + 1);
              }}
              on={view === i}
            >
              {name}
            </Action>
          ))}
        </Box>
      </Box>
      <Box
        flex="1"
        minHeight="0"
        position="relative"
        role="group"
        tabIndex={0}
        onKeyDown={(e) => eyeKeys(e, hand.current, () => setTurned((n) => n + 1))}
        aria-label={`Posed card, ${pose ? openOf(pose.state).toFixed(0) : ''} degrees open`}
        aria-description="Arrow keys turn it, with Shift move it; plus and minus zoom, 0 fits all"
        data-testid="posed"
        data-drawn={drawn}
      >
        {scene && (
          <Guard part="posed view">
            {drawn ? (
              <DrawnScene key={`${view} ${turned}`} from={from} hand={hand} />
            ) : (
              <PosedRulers seen={seen}>
                <PaperScene
                  scene={scene}
                  from={from}
                  turned={turned}
                  hand={hand}
                  onSeen={seen.tell}
                  onLost={() => setLost(true)}
                />
              </PosedRulers>
            )}
          </Guard>
        )}
        {scene && measures && <MeasureNote scene={scene} view="posed" />}
        <OnWay />
        <Corner>
          <ViewTools
            of="Posed"
            zoomBy={(factor) => hand.current?.nearer(factor)}
            fit={() => setTurned((n) => n + 1)}
            fitSelection={selection && !drawn ? () => hand.current?.fitTo(selection()) : undefined}
            trueSize={drawn ? undefined : () => trueSize((pxPerMm) => hand.current?.toScale(pxPerMm))}
            picture={() => show({ kind: 'show' })}
            full={full === 'posed'}
            onFull={() => toggle('posed')}
          />
        </Corner>
        {drawn && (
          <chakra.p position="absolute" left="14px" bottom="8px" m="0" fontSize="12.5px" color="ink2">
            {lost ? 'The graphics of this browser were lost' : 'This browser has no 3D graphics'}: drawn by the solver
            instead.{' '}
            {lost && (
              <Action small onClick={() => setLost(false)}>
                Try 3D again
              </Action>
            )}
          </chakra.p>
        )}
      </Box>
    </Box>
  );
}

/** One press turns by this, degrees, or moves by this, pixels. */
const TURN_DEG = 10;
const SLIDE_PX = 40;

function eyeKeys(e: KeyboardEvent, hand: EyeHand | null, fit: () => void): void {
  if (e.target !== e.currentTarget || e.ctrlKey || e.metaKey || e.altKey || !hand) return;
  const way: Record<string, readonly [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };
  const does: Record<string, () => void> = {
    '+': () => hand.nearer(ZOOM_STEP),
    '=': () => hand.nearer(ZOOM_STEP),
    '-': () => hand.nearer(1 / ZOOM_STEP),
    '0': fit,
  };
  const to = way[e.key];
  const act = to
    ? e.shiftKey
      ? () => hand.slide(to[0] * SLIDE_PX, to[1] * SLIDE_PX)
      : () => hand.turn(to[0] * TURN_DEG, to[1] * TURN_DEG)
    : does[e.key];
  if (!act) return;
  e.preventDefault();
  e.stopPropagation();
  act();
}

/** Where the corners of what is selected stand; null where nothing is. */
function useSelectionPlaces(): (() => Vec3[]) | null {
  const store = useStudioStore();
  const selected = useStudio((s) => s.selected);
  const any = useStudio((s) => s.scene?.facets.some((f) => f.mechanism === s.selected) ?? false);
  if (!any || selected === CARD) return null;
  return () => {
    const { scene, pose } = store.getState();
    if (!scene || !pose || pose.placed.length < 12 * scene.facets.length) return [];
    return scene.facets.flatMap((f, i) =>
      f.mechanism === selected ? f.rings.flatMap((ring) => ring.map((p) => inWorld(pose, i, p))) : [],
    );
  };
}

/** A pose that takes its time says how far it has come, and can be given up. */
function OnWay() {
  const onWay = useStudio((s) => s.onWay);
  const wanted = useStudio((s) => openOf(s.state));
  const store = useStudioStore();
  if (onWay === null) return null;
  return (
    <Box
      role="status"
      position="absolute"
      left="14px"
      top="10px"
      display="flex"
      gap="10px"
      alignItems="center"
      bg="board"
      border="1px solid var(--rule)"
      borderRadius="card"
      px="10px"
      py="4px"
    >
      <span>
        Folding: at {onWay.toFixed(0)}° on the way to {wanted.toFixed(0)}°
      </span>
      <Action small onClick={() => store.stopPosing()}>
        Stop folding
      </Action>
    </Box>
  );
}
