'use client';
import { useEffect, useEffectEvent, useState, type PointerEvent } from 'react';
import type { OwnHold } from '@/core/build/own-ends';
import type { OwnRole } from '@/core/kinds';
import { dist2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { groundOn, withLine } from './drawing-lines';
import { HoldNoteAt } from './HoldNote';
import { REACH_PX, aroundNow, onGrid, pickAt, spotOf, type Picked } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import { ringPath } from './ring-path';
import { OWN_ROLE_WORDS } from './own-words';

/** Nearer points are one, mm. */
const SAME_MM = 0.5;
/** How a line of a role is drawn while it is made, where not as itself. */
const LINE_OF: Partial<Record<OwnRole, string>> = { open: 'mark', window: 'cut' };
/** What is drawn may be for; a window goes round, everything else from one point to another. */
export const DRAWN: readonly OwnRole[] = ['valley', 'mountain', 'cut', 'window', 'open', 'mark'];
const LEAST_CORNERS = 3;

/**
 * Two clicks make a line; a window is clicked round until its first corner, or Enter, closes it. Each point hangs on
 * what it lies on, and follows that.
 */
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
  const [points, setPoints] = useState<readonly Picked[]>([]);
  const [over, setOver] = useState<{ picked: Picked; x: number; y: number } | null>(null);
  const ground = groundOn(scene, piece, selected);
  const begun = points.length > 0;
  const finish = (way: Parameters<typeof withLine>[3]): void => {
    setPoints([]);
    if (!ground) return;
    let made = '';
    edit(`draw ${OWN_ROLE_WORDS[role].name}`, (d) => {
      const next = withLine(d, ground, role, way);
      made = next.id;
      return next.design;
    });
    if (made !== '' && made !== selected) select(made);
  };
  const close = (): void => {
    if (ground && points.length >= LEAST_CORNERS)
      finish({ corners: points.map((p) => spotOf(p, ground.frame)), closed: true });
  };
  const onKey = useEffectEvent((e: KeyboardEvent): void => {
    if (e.key !== 'Escape' && e.key !== 'Enter') return;
    e.stopPropagation();
    e.preventDefault();
    if (e.key === 'Enter') close();
    else setPoints([]);
  });
  useEffect(() => {
    if (!begun) return;
    const listen = (e: KeyboardEvent): void => onKey(e);
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, [begun]);
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
    const [first] = points;
    if (!first) return setPoints([picked]);
    if (role === 'window') {
      const back = dist2(first.at, piecePoint(e.currentTarget, e.clientX, e.clientY));
      if (points.length >= LEAST_CORNERS && back < mmOfPixels(e.currentTarget, REACH_PX)) close();
      else if (dist2(points[points.length - 1].at, picked.at) >= SAME_MM) setPoints([...points, picked]);
      return;
    }
    if (dist2(first.at, picked.at) < SAME_MM) return setPoints([]);
    finish({ from: spotOf(first, ground.frame), to: spotOf(picked, ground.frame) });
  };
  const last = points[points.length - 1];
  const closes = role === 'window' && points.length >= LEAST_CORNERS ? 'Enter or the first corner closes it' : null;
  const note = over && [over.picked.name, last && formatSaid(dist2(last.at, over.picked.at), unit), closes];
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
      {begun && over && (
        <path
          className={`line ${LINE_OF[role] ?? role}`}
          d={`M${[...points, over.picked].map((p) => p.at.join(' ')).join('L')}`}
          pointerEvents="none"
        />
      )}
      {[...points, over?.picked].map(
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
