'use client';
import type { Ring } from '@/core/plane/polygon';
import type { Design } from '@/core/document/design';
import type { Shape } from '@/core/shapes/shape';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { useAsk, type Asked } from './useAsk';
import type { Outline } from '@/core/build/workshop';

export const ringPath = (rings: readonly Ring[]): string =>
  rings.map((r) => `M${r.map(([x, y]) => `${x} ${-y}`).join('L')}Z`).join('');

/** Outline of a shape, by the shelf of the open card or of another. */
export function useOutline(shape: Shape | null, of?: Design): Asked<Outline> {
  const open = useStudio((s) => s.design);
  const design = of ?? open;
  return useAsk(shape ? JSON.stringify([shape, 'asset' in shape ? design.shapes : 0]) : '', () =>
    engine('shape').outline(design, shape!),
  );
}

/** A shape as a paper silhouette, fitted into a box. */
export function ShapePicture({
  outline,
  height,
  label,
}: {
  outline: Pick<Outline, 'rings' | 'min' | 'max'> | null;
  height: number;
  label: string;
}) {
  if (!outline) return <div style={{ height }} aria-hidden="true" />;
  const [w, h] = [outline.max[0] - outline.min[0], outline.max[1] - outline.min[1]];
  const pad = Math.max(w, h) * 0.06;
  return (
    <svg
      role="img"
      aria-label={label}
      width="100%"
      height={height}
      viewBox={`${outline.min[0] - pad} ${-outline.max[1] - pad} ${w + 2 * pad} ${h + 2 * pad}`}
      preserveAspectRatio="xMidYMid meet"
    >
      <path
        d={ringPath(outline.rings)}
        fillRule="evenodd"
        fill="var(--board-2)"
        stroke="var(--cut)"
        strokeWidth="1.1"
        style={{ vectorEffect: 'non-scaling-stroke' }}
      />
    </svg>
  );
}

/** A kept shape, or any saved shape, by itself. */
export function ShapeThumb({
  shape,
  of,
  height = 54,
  label,
}: {
  shape: Shape;
  of?: Design;
  height?: number;
  label: string;
}) {
  const { value } = useOutline(shape, of);
  return <ShapePicture outline={value} height={height} label={label} />;
}
