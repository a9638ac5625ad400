'use client';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Design } from '@/core/document/design';
import { inSentence } from '@/core/document/words';
import type { Parameter } from '@/core/kinds';
import { sub2, type Vec2 } from '@/core/plane/vec2';
import { formatSaid } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';
import { bounded, dragged, keyStep } from './gripping';
import { HoldNoteAt } from './HoldNote';
import { mmOfPixels, piecePoint } from './piece-point';
import { useDragged } from './useDragged';

/** A drag comes to rest on whole steps within this, pixels. */
const STEP_PX = 5;
/** Half the length of the bar that is taken hold of, mm. */
const HALF_BAR_MM = 4;

/** A length of the design that lies in a place of the drawing. */
export interface Slid {
  /** What it is said to be, as "Free on the left". */
  readonly label: string;
  readonly value: number;
  readonly field: Pick<Parameter, 'key' | 'unit' | 'min' | 'max'>;
  /** The middle of the edge that follows it, and which way that goes as it grows, of length 1; axes of its piece. */
  readonly at: Vec2;
  readonly way: Vec2;
  readonly put: (design: Design, value: number) => Design;
}

/** A bar across the way of a length: dragged along, or moved by the arrow keys. */
export function FlatSlider({ slid }: { readonly slid: Slid }) {
  const design = useStudio((s) => s.design);
  const { edit } = useActions();
  const { label, value, field, put } = slid;
  const reached = useRef(value);
  const keep = (next: number): void => {
    if (next !== value) edit(inSentence(label), (d) => put(d, next));
  };
  const drag = useDragged(
    (e: PointerEvent<SVGElement>) => ({ from: piecePoint(e.currentTarget, e.clientX, e.clientY), design, slid }),
    (e, took) => {
      const by = sub2(piecePoint(e.currentTarget, e.clientX, e.clientY), took.from);
      const { value: start, way, field: parameter } = took.slid;
      const within = mmOfPixels(e.currentTarget, STEP_PX);
      const unit = design.units;
      reached.current = dragged(by, { start, way, snaps: [], within, parameter, unit }).value;
      return {
        design: put(took.design, reached.current),
        says: `${label} ${formatSaid(reached.current, unit)}`,
      };
    },
    () => keep(reached.current),
  );
  const keys = (e: KeyboardEvent): void => {
    const by = keyStep(e, field, design.units);
    if (by === null) return;
    e.preventDefault();
    e.stopPropagation();
    keep(bounded(value + by, field));
  };
  const said = formatSaid(value, design.units);
  const bar = barOf(slid);
  return (
    <>
      <g
        role="slider"
        tabIndex={0}
        className="grip"
        data-slid={field.key}
        aria-label={label}
        aria-valuenow={Number(value.toFixed(3))}
        aria-valuemin={field.min}
        aria-valuemax={field.max}
        aria-valuetext={said}
        style={{
          cursor: Math.abs(slid.way[0]) > Math.abs(slid.way[1]) ? 'ew-resize' : 'ns-resize',
          touchAction: 'none',
        }}
        onKeyDown={keys}
        {...drag.handlers}
      >
        <title>{`${label} ${said}: drag, or arrow keys`}</title>
        <path d={bar} className="grip-reach" />
        <path d={bar} className="slid-bar" />
      </g>
      <HoldNoteAt note={drag.note} />
    </>
  );
}

function barOf({ at: [x, y], way: [u, v] }: Slid): string {
  return `M${x - v * HALF_BAR_MM} ${y + u * HALF_BAR_MM}L${x + v * HALF_BAR_MM} ${y - u * HALF_BAR_MM}`;
}
