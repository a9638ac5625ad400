'use client';
import { useEffect, useRef, useState } from 'react';
import type { Picture } from '@/core/formats/picture';
import { arrowHead, type StepMark } from '@/core/formats/step-mark';
import { foldWhenAsked, restingFrame, whenInSight } from './folding';

/** A solved pose as a drawing. `frame` shared by several pictures keeps an animation from jumping in size. */
export function PosedPicture({
  picture,
  frame,
  height,
  lit = [],
  marks = [],
  label,
}: {
  picture: Picture;
  frame?: Picture['box'];
  height: number | string;
  lit?: readonly string[];
  /** Where glue goes, and how creases fold, over the parts. */
  marks?: readonly StepMark[];
  label: string;
}) {
  const { x, y, width, height: h } = frame ?? picture.box;
  const pad = Math.max(width, h) * 0.03 + 0.5;
  return (
    <svg
      role="img"
      aria-label={label}
      width="100%"
      height={height}
      viewBox={`${x - pad} ${y - pad} ${width + 2 * pad} ${h + 2 * pad}`}
      preserveAspectRatio="xMidYMid meet"
    >
      <PictureParts picture={picture} lit={lit} />
      {marks.map((m, k) => (
        <Mark key={k} mark={m} size={Math.max(width, h) / 40} />
      ))}
    </svg>
  );
}

function Mark({ mark: { kind, points }, size }: { mark: StepMark; size: number }) {
  const line = `M${points.map((p) => p.join(' ')).join('L')}`;
  const thin = { vectorEffect: 'non-scaling-stroke' } as const;
  if (kind === 'glue')
    return (
      <path
        data-mark="glue"
        d={`${line}Z`}
        fill="none"
        stroke="var(--glue)"
        strokeWidth="1.8"
        strokeDasharray="4 3"
        style={thin}
      />
    );
  return (
    <g data-mark="fold">
      <path d={line} fill="none" stroke="var(--mountain)" strokeWidth="1.8" style={thin} />
      <path
        d={`M${arrowHead(points, size)
          .map((p) => p.join(' '))
          .join('L')}Z`}
        fill="var(--mountain)"
      />
    </g>
  );
}

/** The parts of a picture, in mm, within a drawing that has its own frame. */
export const PictureParts = ({ picture, lit = [] }: { picture: Picture; lit?: readonly string[] }) =>
  picture.parts.map((p, i) => (
    <path
      key={i}
      data-part={p.id}
      data-of={p.mechanism}
      d={[p.points, ...p.holes].map((ring) => `M${ring.map((q) => q.join(' ')).join('L')}Z`).join('')}
      fillRule="evenodd"
      fill={lit.includes(p.id) ? 'var(--accent-wash)' : p.fill}
      stroke={lit.includes(p.id) ? 'var(--accent)' : p.goesOn ? p.fill : '#4a4f4c'}
      strokeWidth={lit.includes(p.id) ? 1.6 : 0.7}
      strokeLinejoin="round"
      style={{ vectorEffect: 'non-scaling-stroke' }}
    />
  ));

/**
 * Frames of a fold, played to and fro a few times when they are first seen, and again while they are pointed at or when
 * what they are on gets the focus; a still picture where motion is not wanted.
 */
export function FoldingPicture({
  frames,
  height,
  label,
  rounds = 1,
}: {
  frames: readonly Picture[];
  height: number;
  label: string;
  rounds?: number;
}) {
  const [at, setAt] = useState(restingFrame(frames.length));
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!box.current || window.matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const target = box.current.closest('button') ?? box.current;
    return foldWhenAsked(target, { frames: frames.length, rounds, show: setAt, whenSeen: whenInSight });
  }, [frames.length, rounds]);
  const boxes = frames.map((f) => f.box);
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  const frame = {
    x,
    y,
    width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
    height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
  };
  return (
    <div ref={box}>
      {frames[at] && <PosedPicture picture={frames[at]} frame={frame} height={height} label={label} />}
    </div>
  );
}
