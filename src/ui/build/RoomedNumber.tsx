'use client';
import type { Parameter } from '@/core/kinds';
import { setParameter } from '@/core/document/fields';
import { useActions, useStudio } from '@/store/context';
import { NumberField } from '../common/Field';
import { createContext, useContext } from 'react';
import { RoomBar, RoomBarPlace } from './RoomBar';

/** Paths of the numbers whose room is asked for: its place is kept until it is there. */
export const AskedRooms = createContext<ReadonlySet<string>>(new Set());

/** Past its room by no more than it is shown to, mm or degrees. */
const SHOWN = 0.06;

/** A number of a mechanism or of the base with its room under it. `path` addresses it: `bow.length`, `tiers[0].p`. */
export function RoomedNumber({
  id,
  parameter,
  path,
  value,
  onChange,
}: {
  id: string;
  parameter: Parameter;
  path: string;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  const design = useStudio((s) => s.design);
  const room = useStudio((s) => s.rooms[path]);
  const asked = useContext(AskedRooms).has(path);
  const { showPreview } = useActions();
  const bad =
    room?.clear && value !== null
      ? value < room.clear.low.value - SHOWN || value > room.clear.high.value + SHOWN
      : false;
  return (
    <NumberField
      parameter={{ ...parameter, key: path }}
      value={value}
      unit={design.units}
      bad={bad}
      follows="follows"
      onChange={onChange}
    >
      {asked && !room && <RoomBarPlace />}
      {room && value !== null && (
        <RoomBar
          room={room}
          value={value}
          unit={design.units}
          angle={parameter.unit === 'deg'}
          label={parameter.label}
          onPreview={(v) => showPreview(setParameter(design, id, path, v))}
          onCommit={(v) => {
            showPreview(null);
            onChange(v);
          }}
        />
      )}
    </NumberField>
  );
}
