'use client';
import { useEffect, useState, type PointerEvent } from 'react';
import type { OwnHold } from '@/core/build/own-ends';
import type { OwnRole } from '@/core/kinds';
import { dist2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { groundOn, withLine } from './drawing-lines';
import { HoldNoteAt } from './HoldNote';
import { aroundNow, onGrid, pickAt, spotOf, type Picked } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import { ringPath } from './ring-path';
import { OWN_ROLE_WORDS } from './own-words';

const REACH_PX = 9;
/** What a line between two points may be for. */
export const DRAWN: readonly OwnRole[] = ['valley', 'mountain', 'cut', 'open', 'mark'];

/** Two clicks make a line: each end hangs on what it lies on, and follows that. */
export function FlatDraw({
  scene,
  piece,
  role,
  own,
}: {
  readonly scene: Scene;
  readonly piece: string;
  readonly role: OwnRole;
  /** What the selected lines may hang on, where the new one goes to them. */
  readonly own: OwnHold;
}) {
  const selected = useStudio((s) => s.selected);
  const unit = useStudio((s) => s.design.units);
  const { edit, select } = useActions();
  const [first, setFirst] = useState<Picked | null>(null);
  const [over, setOver] = useState<{ picked: Picked; x: number; y: number } | null>(null);
  const ground = groundOn(scene, piece, selected);
  useEffect(() => {
    if (!first) return;
    const escape = (e: KeyboardEvent): void => {
      if (e.key !== 'Escape') return;
      e.stopPropagation();
      setFirst(null);
    };
    window.addEventListener('keydown', escape, true);
    return () => window.removeEventListener('keydown', escape, true);
  }, [first]);
  if (!ground) return null;
  const rings = scene.pieces.find((p) => p.id === piece)?.rings ?? [];
  const pick = (e: PointerEvent<SVGElement>): Picked => {
    const at = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const known = ground.id === null ? undefined : own.around.find((a) => a.piece === piece);
    const picking = { around: known ?? aroundNow(scene, piece), frame: ground.frame };
    const picked = pickAt(scene, picking, at, mmOfPixels(e.currentTarget, REACH_PX));
    return picked.name === null ? { ...picked, at: onGrid(at, ground.frame) } : picked;
  };
  const click = (e: PointerEvent<SVGElement>): void => {
    const picked = pick(e);
    if (!first) return setFirst(picked);
    setFirst(null);
    if (dist2(first.at, picked.at) < 0.5) return;
    const way = { from: spotOf(first, ground.frame), to: spotOf(picked, ground.frame) };
    let made = '';
    edit(`draw ${OWN_ROLE_WORDS[role].name}`, (d) => {
      const next = withLine(d, ground, role, way);
      made = next.id;
      return next.design;
    });
    if (made !== '' && made !== selected) select(made);
  };
  const note = over && [over.picked.name, first && formatSaid(dist2(first.at, over.picked.at), unit)];
  return (
    <g data-testid="draw">
      <path
        d={ringPath(rings)}
        fill="transparent"
        style={{ cursor: 'crosshair' }}
        data-draw={piece}
        onPointerMove={(e) => setOver({ picked: pick(e), x: e.clientX, y: e.clientY })}
        onPointerLeave={() => setOver(null)}
        onClick={(e) => click(e as unknown as PointerEvent<SVGElement>)}
      />
      {first && over && (
        <path
          className={`line ${role === 'open' ? 'mark' : role}`}
          d={`M${first.at.join(' ')}L${over.picked.at.join(' ')}`}
        />
      )}
      {[first, over?.picked].map(
        (p, k) =>
          p && <circle key={k} className="measured-end" cx={p.at[0]} cy={p.at[1]} r="1.3" pointerEvents="none" />,
      )}
      <HoldNoteAt
        note={
          over && note
            ? { x: over.x, y: over.y, text: note.filter(Boolean).join(' · ') || 'free place', bad: false }
            : null
        }
      />
    </g>
  );
}
