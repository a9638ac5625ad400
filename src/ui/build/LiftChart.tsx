'use client';
import { openOf } from '@/core/drives';
import { Box, chakra } from '@chakra-ui/react';
import { isAngleMeasure } from '@/core/document/words';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { ChartTable, thinned } from '../common/Unseen';
import { useAsk } from '../shapes/useAsk';

const [W, H] = [250, 84];

/** A measure over the whole opening, with the pose's own place on it; click to go there. */
export function LiftChart({ id, measure, label }: { id: string; measure: string; label: string }) {
  const design = useStudio((s) => s.design);
  const openDeg = useStudio((s) => openOf(s.state));
  const now = useStudio((s) => s.pose?.measures[id]?.[measure]);
  const { scrub } = useActions();
  const { value: points, why } = useAsk(JSON.stringify([id, design.mechanisms, design.card, design.shapes]), () =>
    engine('shape').over(design, id, measure),
  );
  // While it is worked out its frame keeps the place.
  if (why || points?.length === 0) return null;
  const value = points ?? [];
  const inDegrees = isAngleMeasure(measure);
  const say = (v: number): string =>
    inDegrees ? `${v.toFixed(1)}°` : `${formatLength(v, design.units)} ${design.units}`;
  const most = Math.max(...value.map((p) => p.value), 1);
  const x = (open: number): number => 28 + ((W - 34) * open) / 180;
  const y = (v: number): number => H - 16 - ((H - 26) * v) / most;
  return (
    <Box mb="12px">
      <Box display="flex" fontSize="13px">
        <chakra.span flex="1">{label}</chakra.span>
        {now !== undefined && <b className="num">{say(now)}</b>}
      </Box>
      <svg
        role="img"
        aria-label={`${label} over the opening; its numbers follow`}
        width="100%"
        viewBox={`0 0 ${W} ${H}`}
        style={{ cursor: 'pointer', background: 'var(--sheet)', border: '1px solid var(--rule)' }}
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          scrub(((((e.clientX - box.left) / box.width) * W - 28) / (W - 34)) * 180);
        }}
      >
        {[0, 90, 180].map((d) => (
          <text
            key={d}
            x={x(d)}
            y={H - 4}
            textAnchor={d === 180 ? 'end' : 'middle'}
            style={{ fontSize: 9 }}
            fill="var(--ink-2)"
          >
            {d}°
          </text>
        ))}
        <text x={24} y={y(most) + 3} textAnchor="end" style={{ fontSize: 9 }} fill="var(--ink-2)">
          {most.toFixed(0)}
        </text>
        <path
          d={value.map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.open)} ${y(p.value)}`).join('')}
          fill="none"
          stroke="var(--accent)"
          strokeWidth="1.6"
        />
        <path d={`M${x(openDeg)} 4V${H - 16}`} stroke="var(--ink)" strokeWidth="1" />
      </svg>
      <ChartTable
        caption={label}
        heads={['Opened to', label]}
        rows={thinned(value, 13).map((p) => [`${p.open.toFixed(0)}°`, say(p.value)])}
      />
    </Box>
  );
}
