'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useRef, useState, type PointerEvent } from 'react';
import { listOf } from '@/core/kinds';
import { setParameter, valuesOf } from '@/core/document/fields';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';

/**
 * The stack seen from its end, at 90°: planes, platforms and the limit line, where depth and height use up the reach.
 * Drag a plane's foot or top.
 */
export function PlaneSide({ id }: { id: string }) {
  const design = useStudio((s) => s.preview ?? s.design);
  const kept = useStudio((s) => s.design);
  const reach = useStudio((s) =>
    Math.max(
      s.scene?.hosts.find((h) => h.crease === kept.mechanisms.find((m) => m.id === id)?.on)?.reachA ?? 0,
      s.scene?.hosts.find((h) => h.crease === kept.mechanisms.find((m) => m.id === id)?.on)?.reachB ?? 0,
    ),
  );
  const { edit, showPreview } = useActions();
  const svg = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<{ k: number; what: 'top' | 'foot' } | null>(null);
  const [pair, setPair] = useState<readonly number[]>([]);
  const m = design.mechanisms.find((x) => x.id === id);
  if (!m || reach <= 0) return null;
  const planes = listOf(valuesOf(m), 'planes').map((p) => ({
    depth: p.depth as number,
    base: (p.base ?? 0) as number,
    height: p.height as number,
    joins: (p.joins ?? null) as number | null,
  }));
  const at = (e: PointerEvent): [number, number] => {
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.current!.getScreenCTM()!.inverse());
    return [p.x, -p.y];
  };
  const round = (v: number): number => Math.max(1, Math.round(v * 2) / 2);
  const moved = (e: PointerEvent, k: number, what: 'top' | 'foot') => {
    const [x, y] = at(e);
    const key = what === 'top' ? 'height' : 'depth';
    const value = what === 'top' ? round(y - planes[k].base) : round(x);
    // What stands on its platform goes up and down with it.
    const before = listOf(valuesOf(kept.mechanisms.find((q) => q.id === id)!), 'planes');
    const was = ((before[k].base ?? 0) as number) + (before[k].height as number);
    let next = setParameter(kept, id, `planes[${k}].${key}`, value);
    if (what === 'top')
      before.forEach((p, i) => {
        if (i !== k && Math.abs(((p.base ?? 0) as number) - was) < 1e-6 && was > 0)
          next = setParameter(next, id, `planes[${i}].base`, ((before[k].base ?? 0) as number) + value);
      });
    return { next, label: `plane ${k + 1} ${key} ${value}` };
  };
  const handle = (k: number, what: 'top' | 'foot', cx: number, cy: number) => (
    <circle
      key={`${k}${what}`}
      data-plane-handle={`${k}.${what}`}
      cx={cx}
      cy={-cy}
      r={reach / 38}
      fill="var(--sheet)"
      stroke="var(--accent)"
      strokeWidth="1.6"
      style={{ vectorEffect: 'non-scaling-stroke', cursor: what === 'top' ? 'ns-resize' : 'ew-resize' }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setHeld({ k, what });
      }}
      onPointerMove={(e) => held?.k === k && held.what === what && showPreview(moved(e, k, what).next)}
      onPointerUp={(e) => {
        if (held) {
          const { next, label } = moved(e, k, what);
          showPreview(null);
          edit(label, () => next);
        }
        setHeld(null);
      }}
    >
      <title>
        {what === 'top' ? `Top of plane ${k + 1}: drag its height` : `Foot of plane ${k + 1}: drag its depth`}
      </title>
    </circle>
  );
  const over = (k: number): number => planes[k].depth + planes[k].base + planes[k].height - reach;
  const join = (): void => {
    const [a, b] = [...pair].sort((i, j) => planes[j].depth - planes[i].depth);
    edit(`platform from plane ${a + 1} to plane ${b + 1}`, (d) =>
      setParameter(d, id, `planes[${a}].joins`, planes[a].joins === b ? null : b),
    );
    setPair([]);
  };
  return (
    <Box mb="10px" data-testid="plane-side">
      <svg
        ref={svg}
        role="group"
        aria-label="Planes from the side"
        width="100%"
        height="200"
        viewBox={`${-reach * 0.06} ${-reach * 1.06} ${reach * 1.14} ${reach * 1.14}`}
        style={{ background: 'var(--sheet)', border: '1px solid var(--rule)', touchAction: 'none' }}
      >
        <path
          d={`M0 ${-reach}V0H${reach}`}
          fill="none"
          stroke="var(--cut)"
          strokeWidth="1.6"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        />
        <path
          data-testid="limit-line"
          d={`M0 ${-reach}L${reach} 0`}
          fill="none"
          stroke="var(--bad)"
          strokeWidth="1"
          strokeDasharray="4 3"
          style={{ vectorEffect: 'non-scaling-stroke' }}
        >
          <title>Limit: depth and height may add up to the reach</title>
        </path>
        <text x={reach * 0.53} y={-reach * 0.53} fill="var(--bad)" style={{ fontSize: reach / 17 }}>
          limit {formatLength(reach, kept.units)}
        </text>
        {planes.map((p, k) => {
          const end = p.joins !== null && planes[p.joins] ? planes[p.joins].depth : 0;
          const colour = over(k) > 1e-6 ? 'var(--bad)' : pair.includes(k) ? 'var(--accent)' : 'var(--ink)';
          return (
            <g key={k}>
              <path
                d={`M${p.depth} ${-p.base}V${-(p.base + p.height)}H${end}`}
                fill="none"
                stroke={colour}
                strokeWidth="2.2"
                style={{ vectorEffect: 'non-scaling-stroke' }}
              />
              <path
                d={`M${p.depth} ${-p.base}V${-(p.base + p.height)}`}
                className="grab"
                role="button"
                tabIndex={0}
                aria-pressed={pair.includes(k)}
                aria-label={`Pick plane ${k + 1} for a platform`}
                onClick={() => setPair((q) => (q.includes(k) ? q.filter((i) => i !== k) : [...q, k].slice(-2)))}
                onKeyDown={(e) =>
                  e.key === 'Enter' && setPair((q) => (q.includes(k) ? q.filter((i) => i !== k) : [...q, k].slice(-2)))
                }
              />
              <text
                x={p.depth + reach / 60}
                y={-(p.base + p.height / 2)}
                fill={colour}
                style={{ fontSize: reach / 15 }}
              >
                {k + 1}
              </text>
              {handle(k, 'top', p.depth, p.base + p.height)}
              {p.joins === null && handle(k, 'foot', p.depth, p.base)}
            </g>
          );
        })}
      </svg>
      <Box display="flex" alignItems="center" gap="8px" fontSize="12.5px" minHeight="30px">
        <chakra.span flex="1" className="dim" data-testid="plane-room">
          {held
            ? `room ${formatLength(-over(held.k), kept.units)} ${kept.units}`
            : pair.length === 2
              ? `planes ${pair.map((k) => k + 1).join(' and ')}`
              : 'drag feet and tops; pick two planes for a platform between'}
        </chakra.span>
        {pair.length === 2 && (
          <Action small onClick={join}>
            Platform between them
          </Action>
        )}
      </Box>
    </Box>
  );
}
