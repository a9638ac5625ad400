/** SVG in true millimetres: one group per role, one user unit per mm. */
import { LINE_ROLES, type LineRole } from '../pattern/pattern';
import type { Stroke } from '../plane/arcs';
import type { Vec2 } from '../plane/vec2';
import { WRITTEN_BY } from '../version';
import { trimNumber } from '../units/length';
import { ROLE_STYLE, walkPlate, type Plate, type PlateSink } from '../sheets/plate';

/** Coordinates are written to a millionth of a millimetre, so that what is read back is what was meant. */
const coordinate = (x: number): string => trimNumber(x, 6);

export function toSvg(plate: Plate): string {
  const at = ([x, y]: Vec2): string => `${coordinate(x)} ${coordinate(plate.heightMm - y)}`;
  const groups = new Map<LineRole, string[]>();
  const sink: PlateSink<string> = {
    line(role, { points, closed, strokes: all }, { id, fold }) {
      // The last line of a closed path is drawn by closing it.
      const drawn = closed && all[all.length - 1].kind === 'line' ? all.slice(0, -1) : all;
      const strokes = drawn.map((s) => strokeOf(s, at));
      const d = [`M${at(points[0])}`, ...strokes, ...(closed ? ['Z'] : [])].join(' ');
      const folds = fold === 'mountain' ? ' data-role="perforation-mountain"' : '';
      const own = groups.get(role) ?? [];
      groups.set(role, [...own, `    <path d="${d}" data-id="${escapeXml(id)}"${folds}/>`]);
    },
    finish() {
      const [w, h] = [coordinate(plate.widthMm), coordinate(plate.heightMm)];
      return [
        '<?xml version="1.0" encoding="UTF-8"?>',
        `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">`,
        `  <title>${escapeXml(plate.title)}</title>`,
        `  <!-- ${WRITTEN_BY} -->`,
        ...LINE_ROLES.filter((r) => groups.has(r)).flatMap((r) => [openGroup(r), ...groups.get(r)!, '  </g>']),
        '</svg>\n',
      ].join('\n');
    },
  };
  return walkPlate(plate, sink);
}

/** SVG's y runs down, so an arc that turns left is swept the other way. */
function strokeOf(stroke: Stroke, at: (p: Vec2) => string): string {
  if (stroke.kind === 'line') return `L${at(stroke.to)}`;
  if (stroke.kind === 'cubic') return `C${[stroke.c1, stroke.c2, stroke.to].map(at).join(' ')}`;
  const radius = coordinate(stroke.radiusMm);
  const large = Math.abs(stroke.sweepRad) > Math.PI ? 1 : 0;
  return `A${radius} ${radius} 0 ${large} ${stroke.sweepRad > 0 ? 0 : 1} ${at(stroke.to)}`;
}

function openGroup(role: LineRole): string {
  const { colour, dashMm, weightMm } = ROLE_STYLE[role];
  const dash = dashMm.length > 0 ? ` stroke-dasharray="${dashMm.join(' ')}"` : '';
  const pen = `fill="none" stroke="${colour}" stroke-width="${weightMm}"${dash}`;
  return `  <g id="${role}" data-role="${role}" ${pen}>`;
}

export const escapeXml = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');
