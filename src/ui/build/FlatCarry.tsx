'use client';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { Design } from '@/core/document/design';
import { nameOfMechanism, nameOfPart } from '@/core/document/words';
import type { Vec2 } from '@/core/plane/vec2';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { canBeCarried, carried, mayGoOnto, type Carry } from './carrying';
import { keyStep } from './gripping';
import { HoldNoteAt } from './HoldNote';
import { piecePoint } from './piece-point';
import { ringPath } from './ring-path';
import { useDragged } from './useDragged';

/** The paper of the selected mechanism: dragged along its crease, onto another, or with Alt as a copy. */
export function FlatCarry({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const design = useStudio((s) => s.design);
  const selected = useStudio((s) => s.selected);
  const { edit, select } = useActions();
  const m = design.mechanisms.find((x) => x.id === selected);
  const name = nameOfMechanism(design, selected);
  const carryAt = (e: PointerEvent<SVGElement>, from: Vec2): Carry => {
    const to = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const under = whatIsUnder(e.clientX, e.clientY, m?.mount ? 'data-facet' : 'data-crease');
    return {
      id: selected,
      piece,
      by: [to[0] - from[0], to[1] - from[1]],
      onto: under && mayGoOnto(design, selected, under.id) ? under.id : null,
      at: under ? piecePoint(under.element, e.clientX, e.clientY) : to,
      copy: e.altKey,
    };
  };
  const dragged = useDragged<Vec2>(
    (e) => piecePoint(e.currentTarget, e.clientX, e.clientY),
    (e, from) => {
      const carry = carryAt(e, from);
      const next = carried(design, scene, carry);
      const where = carry.onto ? `onto the ${nameOfPart(design, carry.onto)}` : placeSaid(next, selected);
      return { design: next, says: `${carry.copy ? 'Copy of ' : ''}${name} · ${where}` };
    },
    ({ design: next }) => {
      const copied = next.mechanisms.length > design.mechanisms.length;
      edit(copied ? `copy of ${name}` : `move ${name}`, () => next);
      if (copied) select(next.mechanisms[next.mechanisms.length - 1].id);
    },
  );
  const rings = scene.facets.filter((f) => f.piece === piece && f.mechanism === selected).flatMap((f) => f.rings);
  // What is carried to another piece leaves its handle behind: the hand still has that.
  if (!m || !canBeCarried(m) || (rings.length === 0 && dragged.note === null)) return null;
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, { unit: 'mm' }, design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    const upright = e.key === 'ArrowUp' || e.key === 'ArrowDown';
    const host = scene.hosts.find((h) => h.crease === m.on);
    const axes = scene.axes[m.id] ?? { piece: host?.piece ?? piece, right: host?.along ?? [1, 0], up: [0, 1] };
    const way = m.mount && upright ? axes.up : axes.right;
    const carry: Carry = {
      id: m.id,
      piece: axes.piece,
      by: [way[0] * by, way[1] * by],
      onto: null,
      at: way,
      copy: false,
    };
    edit(`move ${name}`, (d) => carried(d, scene, carry));
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
        {...dragged.handlers}
        onKeyDown={keys}
      >
        <title>{`${name}: drag it along, onto another crease, or with Alt a copy`}</title>
      </path>
      <HoldNoteAt note={dragged.note} />
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

function placeSaid({ mechanisms, units }: Design, id: string): string {
  const m = mechanisms.find((x) => x.id === id)!;
  const at = m.mount ? [m.mount.x, m.mount.y] : [(m.parameters.offset as number | undefined) ?? 0];
  return `${at.map((v) => formatLength(v, units)).join(', ')} ${units}`;
}
