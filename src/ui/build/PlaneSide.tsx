'use client';
import { Box, chakra } from '@chakra-ui/react';
import { useState, type PointerEvent } from 'react';
import { formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { Action } from '../common/Action';
import { planeLed, planesOf, platformBetween, topOf, type PlaneEnd, type SidePlane } from './plane-side';

const SAME_WIDTH = { vectorEffect: 'non-scaling-stroke' } as const;

/**
 * The stack seen from its end, at 90°: planes, platforms and the limit line, where depth and height use up the reach.
 * Drag a plane's foot or top.
 */
export function PlaneSide({ id }: { id: string }) {
  const design = useStudio((s) => s.preview ?? s.design);
  const kept = useStudio((s) => s.design);
  const crease = kept.mechanisms.find((m) => m.id === id)?.on;
  const reach = useStudio((s) => {
    const host = s.scene?.hosts.find((h) => h.crease === crease);
    return Math.max(host?.reachA ?? 0, host?.reachB ?? 0);
  });
  const { edit } = useActions();
  const [held, setHeld] = useState<number | null>(null);
  const [pair, setPair] = useState<readonly number[]>([]);
  const planes = planesOf(design, id);
  if (planes.length === 0 || reach <= 0) return null;
  const over = ({ depth, base, height }: SidePlane): number => depth + base + height - reach;
  const pick = (k: number): void => setPair((q) => (q.includes(k) ? q.filter((i) => i !== k) : [...q, k].slice(-2)));
  const join = (): void => {
    const { next, label } = platformBetween(kept, id, pair);
    edit(label, () => next);
    setPair([]);
  };
  const says =
    held !== null
      ? `room ${formatLength(-over(planes[held]), kept.units)} ${kept.units}`
      : pair.length === 2
        ? `planes ${pair.map((k) => k + 1).join(' and ')}`
        : 'drag feet and tops; pick two planes for a platform between';
  return (
    <Box mb="10px" data-testid="plane-side">
      <svg
        role="group"
        aria-label="Planes from the side"
        width="100%"
        height="200"
        viewBox={`${-reach * 0.06} ${-reach * 1.06} ${reach * 1.14} ${reach * 1.14}`}
        style={{ background: 'var(--sheet)', border: '1px solid var(--rule)', touchAction: 'none' }}
      >
        <Limit reach={reach} />
        {planes.map((p, k) => (
          <g key={k}>
            <PlaneLine
              planes={planes}
              k={k}
              reach={reach}
              colour={over(p) > 1e-6 ? 'var(--bad)' : pair.includes(k) ? 'var(--accent)' : 'var(--ink)'}
              picked={pair.includes(k)}
              onPick={() => pick(k)}
            />
            <PlaneHandle id={id} k={k} end="top" at={[p.depth, topOf(p)]} reach={reach} onHold={setHeld} />
            {p.joins === null && (
              <PlaneHandle id={id} k={k} end="foot" at={[p.depth, p.base]} reach={reach} onHold={setHeld} />
            )}
          </g>
        ))}
      </svg>
      <Box display="flex" alignItems="center" gap="8px" fontSize="12.5px" minHeight="30px">
        <chakra.span flex="1" className="dim" data-testid="plane-room">
          {says}
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

/** Both leaves at 90°, and the line up to which depth and height may add up. */
function Limit({ reach }: { readonly reach: number }) {
  const units = useStudio((s) => s.design.units);
  return (
    <>
      <path d={`M0 ${-reach}V0H${reach}`} fill="none" stroke="var(--cut)" strokeWidth="1.6" style={SAME_WIDTH} />
      <path
        data-testid="limit-line"
        d={`M0 ${-reach}L${reach} 0`}
        fill="none"
        stroke="var(--bad)"
        strokeWidth="1"
        strokeDasharray="4 3"
        style={SAME_WIDTH}
      >
        <title>Limit: depth and height may add up to the reach</title>
      </path>
      <text x={reach * 0.53} y={-reach * 0.53} fill="var(--bad)" style={{ fontSize: reach / 17 }}>
        limit {formatLength(reach, units)}
      </text>
    </>
  );
}

/** A plane and its platform; clicked, the plane is picked for one. */
function PlaneLine({
  planes,
  k,
  reach,
  colour,
  picked,
  onPick,
}: {
  readonly planes: readonly SidePlane[];
  readonly k: number;
  readonly reach: number;
  readonly colour: string;
  readonly picked: boolean;
  readonly onPick: () => void;
}) {
  const { depth, base, height, joins } = planes[k];
  const upright = `M${depth} ${-base}V${-(base + height)}`;
  const end = joins === null ? 0 : (planes[joins]?.depth ?? 0);
  return (
    <>
      <path d={`${upright}H${end}`} fill="none" stroke={colour} strokeWidth="2.2" style={SAME_WIDTH} />
      <path
        d={upright}
        className="grab"
        role="button"
        tabIndex={0}
        aria-pressed={picked}
        aria-label={`Pick plane ${k + 1} for a platform`}
        onClick={onPick}
        onKeyDown={(e) => e.key === 'Enter' && onPick()}
      />
      <text x={depth + reach / 60} y={-(base + height / 2)} fill={colour} style={{ fontSize: reach / 15 }}>
        {k + 1}
      </text>
    </>
  );
}

/** The top of a plane, that sets its height, or its foot, that sets its depth. */
function PlaneHandle({
  id,
  k,
  end,
  at: [x, y],
  reach,
  onHold,
}: {
  readonly id: string;
  readonly k: number;
  readonly end: PlaneEnd;
  readonly at: readonly [number, number];
  readonly reach: number;
  readonly onHold: (k: number | null) => void;
}) {
  const kept = useStudio((s) => s.design);
  const { edit, showPreview } = useActions();
  const [held, setHeld] = useState(false);
  const hold = (on: boolean): void => {
    setHeld(on);
    onHold(on ? k : null);
  };
  const led = (e: PointerEvent<SVGCircleElement>) => {
    const toDrawing = e.currentTarget.ownerSVGElement!.getScreenCTM()!.inverse();
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(toDrawing);
    return planeLed(kept, id, k, end, [p.x, -p.y]);
  };
  return (
    <circle
      data-plane-handle={`${k}.${end}`}
      cx={x}
      cy={-y}
      r={reach / 38}
      fill="var(--sheet)"
      stroke="var(--accent)"
      strokeWidth="1.6"
      style={{ ...SAME_WIDTH, cursor: end === 'top' ? 'ns-resize' : 'ew-resize' }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        hold(true);
      }}
      onPointerMove={(e) => held && showPreview(led(e).next)}
      onPointerUp={(e) => {
        if (held) {
          const { next, label } = led(e);
          showPreview(null);
          edit(label, () => next);
        }
        hold(false);
      }}
      onPointerCancel={() => {
        showPreview(null);
        hold(false);
      }}
    >
      <title>
        {end === 'top' ? `Top of plane ${k + 1}: drag its height` : `Foot of plane ${k + 1}: drag its depth`}
      </title>
    </circle>
  );
}
