'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Design } from '@/core/document/design';
import { nameOfMechanism, nameOfPart } from '@/core/document/words';
import type { Vec2 } from '@/core/plane/vec2';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { swallowClick } from '../views/swallow-click';
import { CLICK_PX } from '../views/useViewport';
import { canBeCarried, carried, mayGoOnto, type Carry } from './carrying';
import { keyStep } from './gripping';
import { HoldNoteAt } from './HoldNote';
import { piecePoint } from './piece-point';
import { ringPath } from './ring-path';
import type { HoldNote } from './useHold';

interface Pressed {
  readonly from: Vec2;
  readonly x: number;
  readonly y: number;
  readonly moved: boolean;
}

/** The paper of the selected mechanism: dragged along its crease, onto another, or with Alt as a copy. */
export function FlatCarry({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const store = useStudioStore();
  const { edit, showPreview, select } = useActions();
  const pressed = useRef<Pressed | null>(null);
  const last = useRef<Carry | null>(null);
  const [note, setNote] = useState<HoldNote | null>(null);
  const m = design.mechanisms.find((x) => x.id === selected);
  const rings = scene.facets.filter((f) => f.piece === piece && f.mechanism === selected).flatMap((f) => f.rings);
  if (!m || !canBeCarried(m) || rings.length === 0) return null;
  const name = nameOfMechanism(design, m.id);

  const carryAt = (e: PointerEvent<SVGElement>, from: Vec2): Carry => {
    const to = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const under = whatIsUnder(e.clientX, e.clientY, m.mount ? 'data-facet' : 'data-crease');
    const onto = under && mayGoOnto(design, m.id, under.id) ? under.id : null;
    return {
      id: m.id,
      piece,
      by: [to[0] - from[0], to[1] - from[1]],
      onto,
      at: under ? piecePoint(under.element, e.clientX, e.clientY) : to,
      copy: e.altKey,
    };
  };
  const end = (): void => {
    pressed.current = null;
    setNote(null);
    window.removeEventListener('keydown', escape, true);
  };
  const escape = (e: globalThis.KeyboardEvent): void => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    last.current = null;
    showPreview(null);
    end();
  };
  const press = (e: PointerEvent<SVGElement>): void => {
    if (e.button !== 0 || !store.getState().writes) return;
    e.stopPropagation();
    e.currentTarget.setPointerCapture(e.pointerId);
    const from = piecePoint(e.currentTarget, e.clientX, e.clientY);
    pressed.current = { from, x: e.clientX, y: e.clientY, moved: false };
    last.current = null;
    window.addEventListener('keydown', escape, true);
  };
  const move = (e: PointerEvent<SVGElement>): void => {
    const p = pressed.current;
    if (!p) return;
    if (!p.moved && Math.hypot(e.clientX - p.x, e.clientY - p.y) < CLICK_PX) return;
    pressed.current = { ...p, moved: true };
    const carry = carryAt(e, p.from);
    last.current = carry;
    const next = carried(design, scene, carry);
    showPreview(next);
    const text = carry.onto ? `onto ${nameOfPart(design, carry.onto)}` : placeSaid(next, m.id);
    setNote({ x: e.clientX, y: e.clientY, text: `${carry.copy ? 'Copy of ' : ''}${name} · ${text}`, bad: false });
  };
  const release = (): void => {
    const carry = last.current;
    last.current = null;
    end();
    showPreview(null);
    if (!carry) return;
    swallowClick();
    const next = carried(design, scene, carry);
    edit(carry.copy ? `copy of ${name}` : `move ${name}`, () => next);
    if (carry.copy) select(next.mechanisms[next.mechanisms.length - 1].id);
  };
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, { unit: 'mm' }, design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    const upright = e.key === 'ArrowUp' || e.key === 'ArrowDown';
    const axes = scene.axes[m.id] ?? { right: scene.hosts.find((h) => h.crease === m.on)?.along ?? [1, 0], up: [0, 1] };
    const way = m.mount && upright ? axes.up : axes.right;
    const carry = { id: m.id, piece: pieceOf(scene, m.id, m.on) ?? piece, onto: null, at: way, copy: e.ctrlKey };
    edit(`move ${name}`, (d) => carried(d, scene, { ...carry, by: [way[0] * by, way[1] * by] }));
  };
  return (
    <>
      <path
        className="carry"
        role="button"
        tabIndex={0}
        aria-label={`${name}: drag it along, or arrow keys`}
        data-carry={m.id}
        d={ringPath(rings)}
        fillRule="evenodd"
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={release}
        onPointerCancel={() => {
          last.current = null;
          showPreview(null);
          end();
        }}
        onKeyDown={keys}
      >
        <title>{`${name}: drag it along, onto another crease, or with Alt a copy`}</title>
      </path>
      <HoldNoteAt note={note} />
    </>
  );
}

/** The crease or facet that the pointer is over, whatever lies on top of it. */
function whatIsUnder(
  x: number,
  y: number,
  attribute: string,
): { readonly id: string; readonly element: Element } | null {
  for (const element of document.elementsFromPoint(x, y)) {
    const id = element.getAttribute(attribute);
    if (id) return { id, element };
  }
  return null;
}

const pieceOf = (scene: Scene, id: string, on: string): string | undefined =>
  scene.axes[id]?.piece ?? scene.hosts.find((h) => h.crease === on)?.piece;

function placeSaid(design: Design, id: string): string {
  const m = design.mechanisms.find((x) => x.id === id)!;
  const at = m.mount ? [m.mount.x, m.mount.y] : [(m.parameters.offset as number | undefined) ?? 0];
  return at.map((v) => v.toFixed(1)).join(', ');
}
