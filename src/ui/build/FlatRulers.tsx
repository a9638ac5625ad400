'use client';
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from 'react';
import { useStudio } from '@/store/context';
import type { View } from '../views/viewport';
import { rulerMarks } from '../views/ruler';
import { RulerFrame } from '../views/RulerFrame';

interface Measured {
  readonly width: number;
  readonly height: number;
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** The drawing with rulers along it, counted from the lower left of the page. */
export function FlatRulers({
  svg,
  view,
  mirrored,
  bottom,
  children,
}: {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly view: View;
  /** Width of the drawing, where it is turned over. */
  readonly mirrored: number | null;
  /** Lower edge of the page on the drawing. */
  readonly bottom: number;
  /** Told how many pixels a millimetre has. */
  readonly children: (pxPerMm: number) => ReactNode;
}) {
  const unit = useStudio((s) => s.design.units);
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Measured | null>(null);
  const [resized, setResized] = useState(0);
  useEffect(() => {
    if (!frame.current) return;
    const seen = new ResizeObserver(() => setResized((n) => n + 1));
    seen.observe(frame.current);
    return () => seen.disconnect();
  }, []);
  useLayoutEffect(() => {
    const [matrix, box] = [svg.current?.getScreenCTM(), svg.current?.getBoundingClientRect()];
    if (!matrix || !box) return;
    const next = {
      width: box.width,
      height: box.height,
      scale: matrix.a,
      x: matrix.e - box.left,
      y: matrix.f - box.top,
    };
    setAt((was) => (was && same(was, next) ? was : next));
  }, [svg, view, resized, mirrored, bottom]);
  const across = at
    ? rulerMarks(at.width, at.x + (mirrored ?? 0) * at.scale, mirrored === null ? at.scale : -at.scale, unit)
    : [];
  const up = at ? rulerMarks(at.height, at.y + bottom * at.scale, -at.scale, unit) : [];
  return (
    <RulerFrame across={across} up={up} width={at?.width ?? 0} height={at?.height ?? 0} frame={frame}>
      {children(at?.scale ?? 1)}
    </RulerFrame>
  );
}
const same = (a: Measured, b: Measured): boolean =>
  (Object.keys(a) as (keyof Measured)[]).every((k) => Math.abs(a[k] - b[k]) < 0.01);
