'use client';
import { Box, chakra } from '@chakra-ui/react';
import { OPEN, restOf, type Drive } from '@/core/drives';
import { formatLength, type LengthUnit } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { carriedDrive, drivesOf } from '@/store/studio';
import { Action } from '../common/Action';
import { NumberField } from '../common/Field';
import { sameState, useNamedStates } from '../common/useNamedStates';
import { NamedButtons } from './NamedButtons';

/** A drive's value as it is read. */
export const driveWords = ({ unit }: Drive, value: number, units: LengthUnit): string =>
  unit === 'deg' ? `${value.toFixed(value % 1 === 0 ? 0 : 1)}°` : `${formatLength(value, units)} ${units}`;

/** What is moved: one drive is carried by the strip, the others stand beside it with their values. */
export function Drives() {
  const drives = useStudio(drivesOf);
  const carried = useStudio(carriedDrive);
  return (
    <Box p="10px 14px" minHeight="0" overflowY="auto" as="section" aria-label="What is moved">
      {drives.length === 1 ? <Alone /> : drives.map((d) => <Row key={d.id} drive={d} on={d.id === carried.id} />)}
      <Box display="flex" gap="5px" mt="8px" flexWrap="wrap">
        <Ends drive={carried} />
        <NamedButtons />
      </Box>
    </Box>
  );
}

/** A card that is only opened has one number, and it is large. */
function Alone() {
  const open = useStudio((s) => s.state[OPEN]);
  return (
    <>
      <Box className="dim" fontSize="13px">
        Opening
      </Box>
      <Box
        className="num"
        textAlign="left !important"
        fontSize="29px"
        fontWeight="700"
        lineHeight="1.1"
        data-testid="opening"
      >
        {open.toFixed(open % 1 === 0 ? 0 : 1)}°
      </Box>
    </>
  );
}

function Row({ drive, on }: { drive: Drive; on: boolean }) {
  const value = useStudio((s) => s.state[drive.id] ?? drive.rest);
  const units = useStudio((s) => s.design.units);
  const { carry, move, play } = useActions();
  const words = driveWords(drive, value, units);
  if (on)
    return (
      <Box data-drive={drive.id} borderLeft="3px solid var(--accent)" pl="8px" ml="-11px">
        <NumberField
          parameter={{
            key: drive.id,
            label: drive.label,
            unit: drive.unit,
            default: drive.rest,
            // What goes round may be typed as it is counted.
            ...(drive.round ? { min: -3600, max: 3600 } : { min: drive.from, max: drive.to }),
            note: `From ${driveWords(drive, drive.from, units)} to ${driveWords(drive, drive.to, units)}.`,
          }}
          value={value}
          unit={units}
          onChange={(v) => v !== null && move(drive.id, v)}
        />
      </Box>
    );
  return (
    <chakra.button
      type="button"
      data-drive={drive.id}
      onClick={() => {
        play(false);
        carry(drive.id);
      }}
      display="flex"
      justifyContent="space-between"
      gap="8px"
      width="100%"
      minHeight="26px"
      alignItems="center"
      cursor="pointer"
      fontSize="13.5px"
      _hover={{ color: 'accent' }}
    >
      <chakra.span overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {drive.label}
      </chakra.span>
      <chakra.span className="num" flex="none" {...(drive.id === OPEN ? { 'data-testid': 'opening' } : {})}>
        {words}
      </chakra.span>
    </chakra.button>
  );
}

function Ends({ drive }: { drive: Drive }) {
  const playing = useStudio((s) => s.playing);
  const { move, play } = useActions();
  const { states, drives } = useNamedStates();
  // Shut it has a name of its own.
  const shut = states.some(({ state }) => sameState(drives, state, restOf(drives)));
  const places: readonly (readonly [name: string, value: number])[] =
    drive.id === OPEN
      ? [
          ...(shut ? [] : ([['closed', drive.from]] as const)),
          ...(drive.to > 90 ? ([['90°', 90]] as const) : []),
          [drive.to === 180 ? 'flat' : `${drive.to.toFixed(0)}°`, drive.to],
        ]
      : [
          ['at rest', drive.rest],
          ['half', (drive.from + drive.to) / 2],
          ['end', drive.to],
        ];
  return (
    <>
      <Action small onClick={() => play(!playing)} aria-pressed={playing}>
        {playing ? 'Stop' : 'Play'}
      </Action>
      {places.map(([name, value]) => (
        <Action key={name} small onClick={() => move(drive.id, value)}>
          {name}
        </Action>
      ))}
    </>
  );
}
