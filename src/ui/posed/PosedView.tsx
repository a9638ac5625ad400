'use client';
import { openOf } from '@/core/drives';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { Action } from '../common/Action';
import { Guard } from '../common/Guard';
import { useFull } from '../views/ViewPair';
import { Corner, ViewTools } from '../views/ViewTools';
import { DrawnScene } from './DrawnScene';
import { PaperScene } from './PaperScene';
import { hasGraphics, VIEWS } from './views';

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
  const nearer = useRef<(factor: number) => void>(() => undefined);
  const { full, toggle } = useFull();
  const { show } = useActions();
  const drawn = lost || !hasGraphics();
  const from = VIEWS[view][1];
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
        <Box display="flex" gap="4px" role="group" aria-label="View from">
          <Action small onClick={() => show({ kind: 'show' })}>
            Picture…
          </Action>
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
        aria-label={`Posed card, ${pose ? openOf(pose.state).toFixed(0) : ''} degrees open`}
        data-testid="posed"
        data-drawn={drawn}
      >
        {scene && (
          <Guard part="posed view">
            {drawn ? (
              <DrawnScene key={`${view} ${turned}`} from={from} nearer={nearer} />
            ) : (
              <PaperScene scene={scene} from={from} turned={turned} nearer={nearer} onLost={() => setLost(true)} />
            )}
          </Guard>
        )}
        <OnWay />
        <Corner>
          <ViewTools
            of="Posed"
            zoomBy={(factor) => nearer.current(factor)}
            fit={() => setTurned((n) => n + 1)}
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
