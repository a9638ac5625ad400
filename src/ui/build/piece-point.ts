/** Where the pointer is in the axes of the piece whose group an element is in, mm. */
import type { Vec2 } from '@/core/plane/vec2';

export function piecePoint(element: Element, clientX: number, clientY: number): Vec2 {
  const group = element.closest('[data-piece]') as SVGGraphicsElement | null;
  const matrix = group?.getScreenCTM();
  if (!matrix) return [0, 0];
  const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
  return [x, y];
}
/** Millimetres of the piece that are as long as so many pixels of the screen. */
export function mmOfPixels(element: Element, pixels: number): number {
  const matrix = (element.closest('[data-piece]') as SVGGraphicsElement | null)?.getScreenCTM();
  return matrix ? pixels / Math.hypot(matrix.a, matrix.b) : 0;
}
