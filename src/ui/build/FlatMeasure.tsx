'use client';
import { useState, type PointerEvent } from 'react';
import type { Vec2 } from '@/core/plane/vec2';
import { formatSaid, type LengthUnit } from '@/core/units/length';
import { useStudio } from '@/store/context';
import type { Scene } from '@/workers/protocol';
import { HoldNoteAt } from './HoldNote';
import { measureBetween, type MeasuredBetween } from './measuring';
import { aroundNow, ownAxes, pickAt, type Picked } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import { ringPath } from './ring-path';

/** What is nearer than this is pointed at, pixels. */
const REACH_PX = 9;

/** Two clicks, on points or on lines: how far they are apart on the paper, and as the card stands. */
export function FlatMeasure({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const pose = useStudio((s) => s.pose);
  const unit = useStudio((s) => s.design.units);
  const [first, setFirst] = useState<Picked | null>(null);
  const [second, setSecond] = useState<Picked | null>(null);
  const [over, setOver] = useState<{ picked: Picked; x: number; y: number } | null>(null);
  const rings = scene.pieces.find((p) => p.id === piece)?.rings ?? [];
  const pick = (e: PointerEvent<SVGElement>): Picked => {
    const at = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const picking = { around: aroundNow(scene, piece), frame: ownAxes(piece) };
    return pickAt(scene, picking, at, mmOfPixels(e.currentTarget, REACH_PX));
  };
  const to = second ?? (first && over ? over.picked : null);
  const found = first && to ? measureBetween(scene, pose, first, to) : null;
  const text = found ? wordsOf(found, unit) : (over?.picked.name ?? null);
  return (
    <g data-testid="measure">
      <path
        d={ringPath(rings)}
        fill="transparent"
        style={{ cursor: 'crosshair' }}
        onPointerMove={(e) => setOver({ picked: pick(e), x: e.clientX, y: e.clientY })}
        onPointerLeave={() => setOver(null)}
        onClick={(e) => {
          const picked = pick(e as unknown as PointerEvent<SVGElement>);
          if (!first || second) {
            setFirst(picked);
            setSecond(null);
          } else setSecond(picked);
        }}
      />
      {[first, to].map((p, k) => p && <Mark key={k} at={p.at} />)}
      {first && to && <path className="measured" d={`M${first.at.join(' ')}L${to.at.join(' ')}`} />}
      {!first && over && <Mark at={over.picked.at} />}
      <HoldNoteAt note={text && over ? { x: over.x, y: over.y, text, bad: false } : null} />
    </g>
  );
}

function Mark({ at: [cx, cy] }: { readonly at: Vec2 }) {
  return <circle className="measured-end" cx={cx} cy={cy} r="1.3" pointerEvents="none" />;
}

function wordsOf({ flatMm, trueMm, flatDeg, trueDeg }: MeasuredBetween, unit: LengthUnit): string {
  const said = [
    flatMm === null ? null : `${formatSaid(flatMm, unit)} on the paper`,
    trueMm === null ? null : `${formatSaid(trueMm, unit)} as it stands`,
    flatDeg === null ? null : `${flatDeg.toFixed(1)}° on the paper`,
    trueDeg === null ? null : `${trueDeg.toFixed(1)}° as it stands`,
  ];
  return said.filter(Boolean).join(' · ');
}
