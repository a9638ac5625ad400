'use client';
import type { PointerEvent } from 'react';
import type { Vec2 } from '@/core/plane/vec2';
import type { Scene } from '@/workers/protocol';
import { endsOf, useMeasuring } from './measure-store';
import { REACH_PX, aroundNow, ownAxes, pickAt, type Picked } from './picking';
import { mmOfPixels, piecePoint } from './piece-point';
import { ringPath } from './ring-path';

/** Two clicks, on points or on lines, of this piece or another: how far they are apart. */
export function FlatMeasure({ scene, piece }: { readonly scene: Scene; readonly piece: string }) {
  const { ends, over, point, pick } = useMeasuring();
  const rings = scene.pieces.find((p) => p.id === piece)?.rings ?? [];
  const pickedAt = (e: { currentTarget: SVGElement; clientX: number; clientY: number }): Picked => {
    const at = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const picking = { around: aroundNow(scene, piece), frame: ownAxes(piece) };
    return pickAt(scene, picking, at, mmOfPixels(e.currentTarget, REACH_PX));
  };
  const move = (e: PointerEvent<SVGElement>): void =>
    point({ picked: pickedAt(e), x: e.clientX, y: e.clientY, view: 'flat' });
  const [a, b] = endsOf({ ends, over });
  const marks = [a ?? over?.picked, b].filter((p): p is Picked => p !== undefined && p.piece === piece);
  return (
    <g data-testid="measure">
      <path
        d={ringPath(rings)}
        fill="transparent"
        style={{ cursor: 'crosshair' }}
        onPointerMove={move}
        onPointerLeave={() => point(null)}
        onClick={(e) => pick(pickedAt(e))}
      />
      {marks.map((p, k) => (
        <Mark key={k} at={p.at} />
      ))}
      {marks.length === 2 && <path className="measured" d={`M${marks[0].at.join(' ')}L${marks[1].at.join(' ')}`} />}
    </g>
  );
}

function Mark({ at: [cx, cy] }: { readonly at: Vec2 }) {
  return <circle className="measured-end" cx={cx} cy={cy} r="1.3" pointerEvents="none" />;
}
