'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Grip, GripLine } from '@/core/build/grips';
import type { GripLimit } from '@/core/proof/grip-limits';
import { fieldOf, kindIn } from '@/core/document/fields';
import { inSentence, labelOfLever, nameOfPart } from '@/core/document/words';
import { leverValue, setLever } from '@/core/proof/levers';
import { distToSegment, type Vec2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio, useStudioStore } from '@/store/context';
import { engine } from '@/workers/client';
import { swallowClick } from '../views/swallow-click';
import { CLICK_PX } from '../views/useViewport';
import { bounded, keyStep } from './gripping';
import { FlatLimits } from './FlatLimits';
import { HoldNoteAt } from './HoldNote';
import { mmOfPixels, piecePoint } from './piece-point';
import { useHold } from './useHold';

/** A line snaps to what is nearer than this, pixels. */
const SNAP_PX = 5;

interface FlatGripsProps {
  readonly grips: readonly Grip[];
  readonly piece: string;
  /** Pixels for a millimetre. */
  readonly scale: number;
  readonly turned: boolean;
}

/** Lines of the selected mechanism that follow its numbers: dragged along, or moved by the arrow keys. */
export function FlatGrips({ grips, piece, scale, turned }: FlatGripsProps) {
  const hold = useHold();
  const [limits, setLimits] = useState<readonly GripLimit[]>([]);
  return (
    <>
      {grips
        .filter((g) => g.piece === piece)
        .map((g, k) => (
          <GripHandle key={`${g.parameter} ${g.crease ?? ''} ${k}`} grip={g} hold={hold} onLimits={setLimits} />
        ))}
      {hold.note && <FlatLimits limits={limits} scale={scale} turned={turned} />}
      <HoldNoteAt note={hold.note} />
    </>
  );
}

const pathOf = (lines: readonly GripLine[]): string =>
  lines.map(({ a, b }) => `M${a.join(' ')}L${b.join(' ')}`).join('');
const isCorner = ({ lines }: Grip): boolean => lines.length === 1 && lines[0].a === lines[0].b;
/** The line of a grip that a point is nearest to. */
const lineNear = ({ lines }: Grip, p: Vec2): number =>
  lines.reduce(
    (best, l, k) => (distToSegment(p, l.a, l.b) < distToSegment(p, lines[best].a, lines[best].b) ? k : best),
    0,
  );
/** The pointer's arrows along the way, as the piece is seen with y up. */
const cursorOf = ([x, y]: Vec2): string => {
  const [u, v] = [Math.abs(x), Math.abs(y)];
  return u > 2 * v ? 'ew-resize' : v > 2 * u ? 'ns-resize' : x * y > 0 ? 'nesw-resize' : 'nwse-resize';
};

function GripHandle({
  grip,
  hold,
  onLimits,
}: {
  readonly grip: Grip;
  readonly hold: ReturnType<typeof useHold>;
  readonly onLimits: (limits: readonly GripLimit[]) => void;
}) {
  const design = useStudio((s) => s.design);
  const store = useStudioStore();
  const { edit, add, light } = useActions();
  const [on, setOn] = useState(false);
  const pressed = useRef<{ from: Vec2; x: number; y: number; moved: boolean } | null>(null);
  const { mechanism, parameter, crease } = grip;
  const value = leverValue(design, mechanism, parameter);
  const field = fieldOf(kindIn(design, mechanism) ?? '', parameter);
  if (value === null || !field) return null;
  const label = labelOfLever(design, mechanism, parameter);
  const said = field.unit === 'deg' ? `${Number(value.toFixed(1))}°` : formatSaid(value, design.units);

  const press = (e: PointerEvent<SVGElement>): void => {
    if (e.button !== 0) return;
    e.stopPropagation();
    const from = piecePoint(e.currentTarget, e.clientX, e.clientY);
    const k = lineNear(grip, from);
    const { way } = grip.lines[k];
    const within = mmOfPixels(e.currentTarget, SNAP_PX) / Math.hypot(...way);
    if (!hold.begin({ mechanism, parameter, way, snaps: [], within })) return;
    e.currentTarget.setPointerCapture(e.pointerId);
    pressed.current = { from, x: e.clientX, y: e.clientY, moved: false };
    void engine('pose')
      .snaps(design, grip, k)
      .then((answer) => {
        if (answer.ok) hold.lineUp(answer.value);
      });
    onLimits([]);
    void engine('study')
      .limits(design, grip)
      .then((answer) => {
        if (answer.ok && pressed.current) onLimits(answer.value);
      });
  };
  const move = (e: PointerEvent<SVGElement>): void => {
    const p = pressed.current;
    if (!p) return;
    p.moved ||= Math.hypot(e.clientX - p.x, e.clientY - p.y) >= CLICK_PX;
    if (!p.moved) return;
    // The line itself shows where it goes; its grip stays behind.
    setOn(false);
    const [x, y] = piecePoint(e.currentTarget, e.clientX, e.clientY);
    hold.follow([x - p.from[0], y - p.from[1]], [e.clientX, e.clientY]);
  };
  const release = (keep: boolean) => (): void => {
    const p = pressed.current;
    pressed.current = null;
    if (!p) return;
    hold.end(keep && p.moved);
    if (p.moved) swallowClick();
    // A press that does not move stands something on the crease, as anywhere else on it.
    if (keep && !p.moved && crease && store.getState().scene?.hosts.some((h) => h.crease === crease)) add(crease);
  };
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, field, design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    edit(inSentence(label), (d) => setLever(d, mechanism, parameter, bounded(value + by, field)));
  };
  const style = { cursor: cursorOf(grip.lines[0].way), touchAction: 'none' } as const;
  const corner = isCorner(grip) ? grip.lines[0].a : null;
  return (
    <g
      role="slider"
      tabIndex={0}
      className="grip"
      data-grip={parameter}
      data-line={crease}
      aria-label={`${label}${crease ? `: ${nameOfPart(design, crease)}` : ''}`}
      aria-valuenow={Number(value.toFixed(3))}
      aria-valuemin={field.min}
      aria-valuemax={field.max}
      aria-valuetext={said}
      onPointerDown={press}
      onPointerMove={move}
      onPointerUp={release(true)}
      onPointerCancel={release(false)}
      onPointerEnter={() => {
        setOn(true);
        if (crease) light([crease]);
      }}
      onPointerLeave={() => setOn(false)}
      onFocus={() => setOn(true)}
      onBlur={() => setOn(false)}
      onKeyDown={keys}
      style={style}
    >
      <title>{`${label} ${said}: drag, or arrow keys`}</title>
      {corner ? (
        <circle cx={corner[0]} cy={corner[1]} r="2.2" className="grip-corner" data-on={on} />
      ) : (
        <>
          <path d={pathOf(grip.lines)} className="grip-reach" />
          <path d={pathOf(grip.lines)} className="grip-line" data-on={on} />
        </>
      )}
    </g>
  );
}
