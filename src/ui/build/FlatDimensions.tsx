'use client';
import { chakra, Portal } from '@chakra-ui/react';
import { useState } from 'react';
import type { Dimension } from '@/core/build/dimensions';
import { fieldOf, kindIn } from '@/core/document/fields';
import { readValue } from '@/core/document/values';
import { inSentence, labelOfLever } from '@/core/document/words';
import { leverValue, setLever } from '@/core/proof/levers';
import { add2, dist2, lerp2, scale2, sub2, type Vec2 } from '@/core/plane/vec2';
import { exactLength, formatLength } from '@/core/units/length';
import { useActions, useStudio } from '@/store/context';

/** How far the first dimension line lies off what it measures, the next off that, and how far extensions go past. */
const OFF_PX = 13;
const NEXT_PX = 15;
const PAST_PX = 3;
/** How far extension lines keep off what is measured. */
const CLEAR_PX = 3;
const TEXT_PX = 11;
/** Narrower ones are left out until they are looked at nearer. */
const LEAST_PX = 12;

/** Numbers of what is selected as the trade draws them: extension lines, ticks, and a number to click and type. */
export function FlatDimensions({
  dimensions,
  piece,
  scale,
  turned,
}: {
  readonly dimensions: readonly Dimension[];
  readonly piece: string;
  /** Pixels for a millimetre. */
  readonly scale: number;
  readonly turned: boolean;
}) {
  const design = useStudio((s) => s.design);
  const previewed = useStudio((s) => s.preview !== null);
  const [typing, setTyping] = useState<{ key: string; x: number; y: number } | null>(null);
  const shown = dimensions.filter((d) => d.piece === piece && dist2(d.from, d.to) * scale > LEAST_PX);
  // While something is dragged the numbers of before would be wrong.
  if (previewed) return null;
  const ways = new Map<string, number>();
  return (
    <g className="dimensions">
      {shown.map((d) => {
        const row = rowOf(d);
        const nth = ways.get(row) ?? 0;
        ways.set(row, nth + 1);
        const value = leverValue(design, d.mechanism, d.parameter);
        if (value === null) return null;
        return (
          <OneDimension
            key={`${d.mechanism} ${d.parameter}`}
            dimension={d}
            offset={(OFF_PX + nth * NEXT_PX) / scale}
            scale={scale}
            turned={turned}
            label={labelOfLever(design, d.mechanism, d.parameter)}
            said={formatLength(value, design.units)}
            onType={(x, y) => setTyping({ key: d.parameter, x, y })}
          />
        );
      })}
      {typing && (
        <TypedHere
          at={typing}
          dimension={shown.find((d) => d.parameter === typing.key)}
          onDone={() => setTyping(null)}
        />
      )}
    </g>
  );
}

/** Dimensions on one side of what is measured lie in rows beside each other. */
const rowOf = ({ out }: Dimension): string => out.map((v) => v.toFixed(1)).join();

function OneDimension({
  dimension: { from, to, out, parameter },
  offset,
  scale,
  turned,
  label,
  said,
  onType,
}: {
  readonly dimension: Dimension;
  readonly offset: number;
  readonly scale: number;
  readonly turned: boolean;
  readonly label: string;
  readonly said: string;
  readonly onType: (x: number, y: number) => void;
}) {
  const long = dist2(from, to);
  const along = scale2(sub2(to, from), 1 / long);
  const off = scale2(out, offset);
  const [a, b] = [add2(from, off), add2(to, off)];
  const extension = (p: Vec2): string => {
    const [q, r] = [add2(p, scale2(out, CLEAR_PX / scale)), add2(p, scale2(out, offset + PAST_PX / scale))];
    return `M${q.join(' ')}L${r.join(' ')}`;
  };
  const tick = (p: Vec2): string => {
    const d = scale2(add2(along, out), 3.5 / scale);
    return `M${sub2(p, d).join(' ')}L${add2(p, d).join(' ')}`;
  };
  const [x, y] = lerp2(a, b, 0.5);
  const height = TEXT_PX / scale;
  const width = (said.length * 6.2 + 8) / scale;
  const type = (e: { readonly currentTarget: Element }): void => {
    const box = e.currentTarget.getBoundingClientRect();
    onType(box.left + box.width / 2, box.top + box.height / 2);
  };
  return (
    <g>
      <path className="dimension" d={`${extension(from)}${extension(to)}M${a.join(' ')}L${b.join(' ')}`} />
      <path className="dimension tick" d={`${tick(a)}${tick(b)}`} />
      <g
        role="button"
        tabIndex={0}
        className="dimension-number"
        data-dimension={parameter}
        aria-label={`${label} ${said}: type another`}
        transform={`translate(${x} ${y}) scale(${turned ? -1 : 1} -1)`}
        onPointerDown={(e) => e.stopPropagation()}
        onClick={(e) => {
          e.stopPropagation();
          type(e);
        }}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ' ') return;
          e.preventDefault();
          e.stopPropagation();
          type(e);
        }}
      >
        <title>{`${label}: click to type`}</title>
        <rect x={-width / 2} y={-height * 0.75} width={width} height={height * 1.5} rx={2 / scale} />
        <text textAnchor="middle" y={height * 0.36} style={{ fontSize: height }}>
          {said}
        </text>
      </g>
    </g>
  );
}

/** A field over the number that was clicked. */
function TypedHere({
  at,
  dimension,
  onDone,
}: {
  readonly at: { readonly x: number; readonly y: number };
  readonly dimension: Dimension | undefined;
  readonly onDone: () => void;
}) {
  const design = useStudio((s) => s.design);
  const { edit, warn } = useActions();
  if (!dimension) return null;
  const { mechanism, parameter } = dimension;
  const field = fieldOf(kindIn(design, mechanism) ?? '', parameter);
  const value = leverValue(design, mechanism, parameter);
  if (!field || value === null) return null;
  const label = labelOfLever(design, mechanism, parameter);
  const commit = (text: string): void => {
    const read = readValue(field, text, design.units);
    if (!read.ok) warn(`${label}: ${read.says}.`);
    else if (read.value !== value)
      edit(inSentence(label), (d) => setLever(d, mechanism, parameter, read.value as number));
    onDone();
  };
  return (
    <Portal>
      <chakra.input
        autoFocus
        aria-label={label}
        data-testid="dimension-field"
        className="num"
        defaultValue={exactLength(value, design.units)}
        onFocus={(e) => e.currentTarget.select()}
        onBlur={onDone}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Enter') commit(e.currentTarget.value);
          if (e.key === 'Escape') onDone();
        }}
        position="fixed"
        left={`${at.x - 45}px`}
        top={`${at.y - 14}px`}
        width="90px"
        height="28px"
        px="6px"
        bg="field"
        border="1.5px solid var(--accent)"
        borderRadius="card"
        zIndex="popover"
      />
    </Portal>
  );
}
