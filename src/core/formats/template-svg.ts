/** Lines of a template from SVG. */
import { MOST_LINES, MOST_TEMPLATE_POINTS } from '../pattern/mending';
import { readSvg } from '../shapes/svg-read';
import type { Raw } from './template-raw';

export function svgLines(text: string): Raw {
  const drawing = readSvg(text, { mostLines: MOST_LINES, mostPoints: MOST_TEMPLATE_POINTS, fills: false });
  return {
    leftOut: drawing.leftOut,
    lines: drawing.lines.map((l) => ({
      id: l.id,
      layer: l.role || l.layer,
      colour: l.stroke === 'none' ? '#000000' : l.stroke,
      dashed: l.dashed && !l.role,
      dashDot: l.dashDot && !l.role,
      said: l.role,
      points: l.points,
      closed: l.closed,
    })),
  };
}
