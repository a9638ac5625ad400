'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { OwnEnd } from '@/core/build/own-ends';
import { linesOf, withSpot, type Spot } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import type { Design } from '@/core/document/design';
import { dot2, sub2, type Vec2 } from '@/core/plane/vec2';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import type { Scene, SceneFrame } from '@/workers/protocol';
import { swallowClick } from '../views/swallow-click';
import { CLICK_PX } from '../views/useViewport';
import { keyStep } from './gripping';
import { HoldNoteAt } from './HoldNote';
import { spotWords } from './own-words';
import { onGrid, pickAt, spotOf } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import type { HoldNote } from './useHold';

const REACH_PX = 9;

/** Ends of the selected lines of one's own: dragged onto what they are to hang on, or to a place of their own. */
export function FlatOwnEnds({
  scene,
  piece,
  ends,
}: {
  readonly scene: Scene;
  readonly piece: string;
  readonly ends: readonly OwnEnd[];
}) {
  const id = useStudio((s) => s.selected);
  const frame = scene.frames[id];
  if (!frame) return null;
  // Pieces of its own are drawn in their own axes.
  const axes: SceneFrame = frame.piece === piece ? frame : { piece, origin: [0, 0], x: [1, 0], y: [0, 1] };
  return (
    <>
      {ends
        .filter((e) => e.piece === piece)
        .map((e) => (
          <EndHandle key={`${e.line} ${e.end}`} scene={scene} id={id} end={e} frame={axes} />
        ))}
    </>
  );
}

function EndHandle({
  scene,
  id,
  end,
  frame,
}: {
  readonly scene: Scene;
  readonly id: string;
  readonly end: OwnEnd;
  readonly frame: SceneFrame;
}) {
  const store = useStudioStore();
  const { edit, showPreview } = useActions();
  const pressed = useRef<{ x: number; y: number; next: Design | null } | null>(null);
  const [note, setNote] = useState<HoldNote | null>(null);

  const moved = (design: Design, spot: Spot): Design => {
    const lines = linesOf(valuesOf(design.mechanisms.find((m) => m.id === id)!));
    const next = lines.map((l) => (l.name === end.line ? withSpot(l, end.end, spot) : l));
    return setParameter(design, id, 'lines', next);
  };
  const press = (e: PointerEvent<SVGElement>): void => {
    if (e.button !== 0 || !store.getState().writes) return;
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    pressed.current = { x: e.clientX, y: e.clientY, next: null };
    window.addEventListener('keydown', escape, true);
  };
  const move = (e: PointerEvent<SVGElement>): void => {
    const p = pressed.current;
    if (!p || (!p.next && Math.hypot(e.clientX - p.x, e.clientY - p.y) < CLICK_PX)) return;
    const { design } = store.getState();
    const at = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const near = pickAt(scene, end.piece, at, mmOfPixels(e.currentTarget, REACH_PX));
    // It does not hang on itself.
    const own = near.spot?.of === `${id}.${end.line}`;
    const picked = near.name === null || own ? { piece: end.piece, at: onGrid(at, frame), name: null } : near;
    const spot = spotOf(picked, frame);
    p.next = moved(design, spot);
    showPreview(p.next);
    const lines = linesOf(valuesOf(design.mechanisms.find((m) => m.id === id)!));
    const text = picked.name ?? (spot.of ? spotWords(design, lines, spot) : `${String(spot.x)}, ${String(spot.y)}`);
    setNote({ x: e.clientX, y: e.clientY, text: `${end.line} · ${text}`, bad: false });
  };
  const letGo = (keep: boolean) => (): void => {
    const next = pressed.current?.next ?? null;
    pressed.current = null;
    setNote(null);
    window.removeEventListener('keydown', escape, true);
    showPreview(null);
    if (next) swallowClick();
    if (keep && next) edit(`line ${end.line}`, () => next);
  };
  function escape(e: globalThis.KeyboardEvent): void {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    letGo(false)();
  }
  const keys = (e: KeyboardEvent): void => {
    const { design } = store.getState();
    const by = keyStep(e, { unit: 'mm' }, design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    const upright = e.key === 'ArrowUp' || e.key === 'ArrowDown';
    const d = sub2(end.at, frame.origin);
    const [x, y]: Vec2 = [dot2(d, frame.x), dot2(d, frame.y)];
    edit(`line ${end.line}`, (now) =>
      moved(now, upright ? { x: tidy(x), y: tidy(y + by) } : { x: tidy(x + by), y: tidy(y) }),
    );
  };
  return (
    <>
      <circle
        className="grip grip-corner"
        role="button"
        tabIndex={0}
        aria-label={`End of ${end.line}: drag it, or arrow keys`}
        data-end={`${end.line} ${end.end}`}
        cx={end.at[0]}
        cy={end.at[1]}
        r="1.6"
        style={{ cursor: 'move', touchAction: 'none' }}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={letGo(true)}
        onPointerCancel={letGo(false)}
        onKeyDown={keys}
      >
        <title>{`End of ${end.line}: drag it onto what it is to hang on`}</title>
      </circle>
      <HoldNoteAt note={note} />
    </>
  );
}
const tidy = (mm: number): number => Number(mm.toFixed(4)) + 0;
