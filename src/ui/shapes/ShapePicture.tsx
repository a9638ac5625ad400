'use client';
import type { Ring } from '@/core/plane/polygon';
import type { Shape } from '@/core/shapes/shape';
import { useStudio } from '@/store/context';
import { engine } from '@/workers/client';
import { useAsk, type Asked } from './useAsk';
import type { Outline } from '@/core/project/workshop';

export const ringPath = (rings: readonly Ring[]): string => rings.map((r) => `M${r.map(([x, y]) => `${x} ${-y}`).join('L')}Z`).join('');

export function useOutline(shape: Shape | null): Asked<Outline> {
  const design = useStudio((s) => s.design);
  return useAsk(shape ? JSON.stringify([shape, 'asset' in shape ? design.shapes : 0]) : '', () => engine('shape').outline(design, shape!));
}

/** A shape as a paper silhouette, fitted into a box. */
export function ShapePicture({ outline, height, label }: { outline: Pick<Outline, 'rings' | 'min' | 'max'> | null; height: number; label: string }) {
  if (!outline) return <div style={{ height }} aria-hidden="true" />;
  const [w, h] = [outline.max[0] - outline.min[0], outline.max[1] - outline.min[1]];
  const pad = Math.max(w, h) * 0.06;
  return (
    <svg role="img" aria-label={label} width="100%" height={height} viewBox={`${outline.min[0] - pad} ${-outline.max[1] - pad} ${w + 2 * pad} ${h + 2 * pad}`} preserveAspectRatio="xMidYMid meet">
      <path d={ringPath(outline.rings)} fillRule="evenodd" fill="var(--board-2)" stroke="var(--cut)" strokeWidth="1.1" style={{ vectorEffect: 'non-scaling-stroke' }} />
    </svg>
  );
}

/** A kept shape, or any saved shape, by itself. */
export function ShapeThumb({ shape, height = 54, label }: { shape: Shape; height?: number; label: string }) {
  const { value } = useOutline(shape);
  return <ShapePicture outline={value} height={height} label={label} />;
}
