'use client';
import type { GripLimit } from '@/core/proof/grip-limits';
import { lerp2 } from '@/core/plane/vec2';

const TEXT_PX = 11;
const CORNER_PX = 5;

/** Where what a hand leads comes to the end of its room, and what is there. */
export function FlatLimits({
  limits,
  scale,
  turned,
}: {
  readonly limits: readonly GripLimit[];
  /** Pixels for a millimetre. */
  readonly scale: number;
  readonly turned: boolean;
}) {
  return (
    <g className="limits" pointerEvents="none">
      {limits.map(({ value, by, lines }) => {
        const [a, b] = lines[0];
        const [x, y] = lerp2(a, b, 0.5);
        return (
          <g key={value} data-limit={value}>
            {lines.map(([p, q], k) =>
              p[0] === q[0] && p[1] === q[1] ? (
                <circle key={k} cx={p[0]} cy={p[1]} r={CORNER_PX / scale} className="limit" />
              ) : (
                <path key={k} d={`M${p.join(' ')}L${q.join(' ')}`} className="limit" />
              ),
            )}
            <text
              className="limit-name"
              textAnchor="middle"
              transform={`translate(${x} ${y}) scale(${turned ? -1 : 1} -1)`}
              dy={-4 / scale}
              style={{ fontSize: TEXT_PX / scale }}
            >
              {by}
            </text>
          </g>
        );
      })}
    </g>
  );
}
