'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { chakra } from '@chakra-ui/react';
import type { WorkedShape } from '@/core/build/workshop';
import { ringPath } from './ShapePicture';

/** More points than this are not drawn one by one. */
const MOST_SHOWN = 400;
const KEY_STEP_MM = 0.5;

/** A shape at work: its outline, its points to nudge by hand or arrow keys, its ties to turn. */
export function PointsView({
  worked,
  height,
  onNudge,
  onTie,
}: {
  worked: WorkedShape;
  height: number;
  onNudge: (ring: number, point: number, dx: number, dy: number) => void;
  onTie: (island: number, turnDeg: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const [picked, setPicked] = useState<{ ring: number; point: number } | null>(null);
  const [drag, setDrag] = useState<{ ring: number; point: number; dx: number; dy: number } | null>(null);
  const [w, h] = [worked.max[0] - worked.min[0], worked.max[1] - worked.min[1]];
  const pad = Math.max(w, h) * 0.08 + 1;
  const dot = (Math.max(w, h) + 2 * pad) / 130;
  const at = (e: PointerEvent): [number, number] => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse());
    return [p.x, -p.y];
  };
  const key = (e: KeyboardEvent): void => {
    if (!picked) return;
    const move = (
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] } as Record<
        string,
        [number, number]
      >
    )[e.key];
    if (!move) return;
    e.preventDefault();
    const k = e.shiftKey ? KEY_STEP_MM / 5 : KEY_STEP_MM;
    onNudge(picked.ring, picked.point, move[0] * k, move[1] * k);
  };
  const rings = drag
    ? worked.rings.map((r, i) =>
        i === drag.ring ? r.map((p, k) => (k === drag.point ? ([p[0] + drag.dx, p[1] + drag.dy] as const) : p)) : r,
      )
    : worked.rings;
  const few = worked.points <= MOST_SHOWN;
  const turnTie = (island: number, deg: number): void => onTie(island, ((deg % 360) + 360) % 360);
  return (
    <chakra.div tabIndex={0} onKeyDown={key} aria-label="Outline; pick a point, then arrow keys move it">
      <svg
        ref={svg}
        role="group"
        aria-label="Shape outline"
        width="100%"
        height={height}
        viewBox={`${worked.min[0] - pad} ${-worked.max[1] - pad} ${w + 2 * pad} ${h + 2 * pad}`}
        preserveAspectRatio="xMidYMid meet"
        style={{ touchAction: 'none' }}
      >
        <path
          d={ringPath(rings)}
          fillRule="evenodd"
          fill="var(--board)"
          stroke="var(--cut)"
          strokeWidth="1.2"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
        {worked.ties.map((t, k) => {
          const xs = t.outline.outer;
          return (
            <path
              key={k}
              d={ringPath([xs])}
              fill="var(--accent-wash)"
              stroke="var(--accent)"
              strokeWidth="1.4"
              style={{ vectorEffect: 'non-scaling-stroke', cursor: 'pointer' }}
              role="button"
              tabIndex={0}
              data-tie={t.island}
              aria-label={`${nameOfTie(t)}: click or arrow keys turn it`}
              onClick={() => turnTie(t.island, t.turnDeg + 15)}
              onKeyDown={(e) => {
                if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') {
                  e.preventDefault();
                  e.stopPropagation();
                  turnTie(t.island, t.turnDeg + (e.key === 'ArrowLeft' ? 5 : -5));
                }
              }}
            >
              <title>{`Tie ${t.width} mm wide, ${t.lengthMm.toFixed(1)} mm long`}</title>
            </path>
          );
        })}
        {few &&
          worked.rings.map((ring, r) =>
            ring.map(([x, y], k) => {
              const on = picked?.ring === r && picked.point === k;
              const moved = drag?.ring === r && drag.point === k ? [drag.dx, drag.dy] : [0, 0];
              return (
                <circle
                  key={`${r}.${k}`}
                  cx={x + moved[0]}
                  cy={-(y + moved[1])}
                  r={on ? dot * 1.3 : dot * 0.7}
                  fill={on ? 'var(--accent)' : 'var(--sheet)'}
                  stroke="var(--ink-2)"
                  strokeWidth="0.8"
                  style={{ vectorEffect: 'non-scaling-stroke', cursor: 'move' }}
                  onPointerDown={(e) => {
                    e.currentTarget.setPointerCapture(e.pointerId);
                    setPicked({ ring: r, point: k });
                    setDrag({ ring: r, point: k, dx: 0, dy: 0 });
                  }}
                  onPointerMove={(e) => {
                    if (!drag || drag.ring !== r || drag.point !== k) return;
                    const [px, py] = at(e);
                    setDrag({ ...drag, dx: px - x, dy: py - y });
                  }}
                  onPointerUp={() => {
                    if (drag && Math.hypot(drag.dx, drag.dy) > 0.05)
                      onNudge(r, k, Number(drag.dx.toFixed(2)), Number(drag.dy.toFixed(2)));
                    setDrag(null);
                  }}
                />
              );
            }),
          )}
      </svg>
    </chakra.div>
  );
}

const nameOfTie = (t: { island: number; turnDeg: number; lengthMm: number }): string =>
  `Tie of island ${t.island + 1}, ${t.turnDeg.toFixed(0)}°, ${t.lengthMm.toFixed(1)} mm long`;
