'use client';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { TemplateJoin } from '@/core/document/template';
import type { Fault, TemplateLine } from '@/core/pattern/mending';
import type { Ring } from '@/core/plane/polygon';
import { scale2, type Vec2 } from '@/core/plane/vec2';
import { dropped, nearestEdge, type Edge } from './joining';
import type { Picked } from './picking';
import { ROLE_WORDS } from './roleWords';
import { viewOf } from './viewing';

interface Drag {
  readonly piece: number;
  readonly from: Vec2;
  readonly to: Vec2;
}
/** A box drawn by hand round what is to be picked. */
interface Box {
  readonly from: Vec2;
  readonly to: Vec2;
}
/** Dropped within this part of the drawing's size, edges meet. */
const NEAR_PART = 0.04;

/** The drawing of a template: lines by role, faults, pieces that can be dragged onto each other. */
export function TemplateSheet({
  lines,
  faults,
  sheets,
  scale,
  joins,
  lit,
  edge,
  matching,
  onLine,
  onBox,
  onKey,
  onEdge,
  onDropped,
}: {
  lines: readonly TemplateLine[];
  faults: readonly Fault[];
  /** Outlines of the pieces, as drawn in the file. */
  sheets: readonly Ring[];
  scale: number;
  joins: readonly TemplateJoin[];
  lit: Picked;
  edge: Edge | null;
  matching: boolean;
  /** Shift was held: to what is picked. */
  onLine: (id: string, more: boolean) => void;
  onBox: (a: Vec2, b: Vec2, more: boolean) => void;
  onKey: (event: KeyboardEvent) => void;
  onEdge: (edge: Edge) => void;
  onDropped: (join: TemplateJoin) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [box, setBox] = useState<Box | null>(null);
  const { size, pad, box: viewBox } = viewOf(lines);
  /** Where a hand is in the drawing's file. */
  const placeOf = (e: { clientX: number; clientY: number }): Vec2 => {
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse());
    return [at.x / scale, -at.y / scale];
  };
  const path = (ring: readonly Vec2[], by: Vec2 = [0, 0]): string =>
    `M${ring.map(([x, y]) => `${(x + by[0]) * scale} ${-(y + by[1]) * scale}`).join('L')}Z`;
  const way = (d: Drag): Vec2 => [d.to[0] - d.from[0], d.to[1] - d.from[1]];
  const letGo = (d: Drag): void => {
    setDrag(null);
    const by = way(d);
    if (Math.hypot(...by) * scale < pad / 2) return;
    const join = dropped(sheets, joins, d.piece, by, d.to, (NEAR_PART * size) / scale);
    if (join) onDropped(join);
  };
  const boxed = ({ from, to }: Box, more: boolean): void => {
    setBox(null);
    if (Math.hypot(to[0] - from[0], to[1] - from[1]) * scale < pad / 2) return;
    onBox(scale2(from, scale), scale2(to, scale), more);
  };
  return (
    <svg
      ref={svg}
      role="group"
      aria-label="Template"
      width="100%"
      height="440"
      viewBox={viewBox}
      tabIndex={0}
      style={{ touchAction: 'none' }}
      onKeyDown={onKey}
      onPointerDown={(e) => !matching && setBox({ from: placeOf(e), to: placeOf(e) })}
      onPointerMove={(e) => {
        if (drag) setDrag({ ...drag, to: placeOf(e) });
        if (box) setBox({ ...box, to: placeOf(e) });
      }}
      onPointerUp={(e) => {
        if (drag) letGo(drag);
        if (box) boxed(box, e.shiftKey);
      }}
      onPointerLeave={() => {
        setDrag(null);
        setBox(null);
      }}
    >
      {sheets.length > 1 &&
        sheets.map((ring, k) => (
          <path
            key={k}
            data-piece={k}
            d={path(ring)}
            fill={drag?.piece === k ? 'var(--board)' : 'var(--sheet)'}
            style={{ cursor: 'grab' }}
            onPointerDown={(e) => {
              if (e.shiftKey) return;
              e.stopPropagation();
              setDrag({ piece: k, from: placeOf(e), to: placeOf(e) });
            }}
          />
        ))}
      {lines.map((l) => {
        const d = `M${l.points.map(([x, y]) => `${x} ${-y}`).join('L')}${l.closed ? 'Z' : ''}`;
        return (
          <g key={l.id}>
            <path
              className={`line ${l.joined ? 'perforated' : l.role}${lit.includes(l.id) ? ' lit' : ''}`}
              d={d}
              style={{ fill: 'none' }}
            />
            <path
              className="grab"
              d={d}
              data-line={l.id}
              onClick={(e) => {
                if (!matching) return onLine(l.id, e.shiftKey);
                const found = nearestEdge(
                  [{ ...l, points: l.points.map(([x, y]): Vec2 => [x / scale, y / scale]) }],
                  placeOf(e),
                );
                if (found) onEdge(found);
              }}
            >
              <title>{`${l.id}: ${ROLE_WORDS[l.role]}`}</title>
            </path>
          </g>
        );
      })}
      {edge && (
        <line
          {...lineOf(edge, scale)}
          stroke="var(--accent)"
          strokeWidth="4"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
      )}
      {joins.map((j) => (
        <JoinLine key={j.id} join={j} scale={scale} />
      ))}
      {drag && (
        <path
          d={path(sheets[drag.piece], way(drag))}
          fill="var(--accent-wash)"
          stroke="var(--accent)"
          opacity="0.8"
          pointerEvents="none"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
      )}
      {box && (
        <path
          d={path([box.from, [box.to[0], box.from[1]], box.to, [box.from[0], box.to[1]]])}
          fill="var(--accent-wash)"
          stroke="var(--accent)"
          opacity="0.6"
          pointerEvents="none"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
      )}
      {faults.map((f, i) => (
        <circle
          key={i}
          cx={f.at[0]}
          cy={-f.at[1]}
          r={Math.max(2, pad / 3)}
          fill="none"
          stroke="var(--bad)"
          strokeWidth="2"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        >
          <title>{f.message}</title>
        </circle>
      ))}
    </svg>
  );
}

const lineOf = ({ a, b }: Edge, scale: number) => ({
  x1: a[0] * scale,
  y1: -a[1] * scale,
  x2: b[0] * scale,
  y2: -b[1] * scale,
});

/** From what is joined to what it is joined to. */
const JoinLine = ({ join: { a, b, id }, scale }: { join: TemplateJoin; scale: number }) => (
  <line
    {...lineOf({ a: a.inside, b: b.inside }, scale)}
    stroke="var(--accent)"
    strokeWidth="1.6"
    strokeDasharray="2 4"
    pointerEvents="none"
    style={{ vectorEffect: 'non-scaling-stroke' }}
  >
    <title>{id}</title>
  </line>
);
