/** SVG in true millimetres: one group per role, one user unit per mm. */
import { LINE_ROLES, type LineRole } from '../pattern/pattern';
import { trimNumber } from '../units/length';
import { ROLE_STYLE, walkPlate, type Plate, type PlateSink } from './plate';

/** Coordinates are written to a millionth of a millimetre, so that what is read back is what was meant. */
const coordinate = (x: number): string => trimNumber(x, 6);

export function toSvg(plate: Plate): string {
  const groups = new Map<LineRole, string[]>();
  const sink: PlateSink<string> = {
    line(role, points, closed, { id, fold }) {
      const d = points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${coordinate(x)} ${coordinate(plate.heightMm - y)}`).join(' ') + (closed ? ' Z' : '');
      groups.set(role, [...(groups.get(role) ?? []), `    <path d="${d}" data-id="${escapeXml(id)}"${fold === 'mountain' ? ' data-role="perforation-mountain"' : ''}/>`]);
    },
    finish() {
      const [w, h] = [coordinate(plate.widthMm), coordinate(plate.heightMm)];
      const body = LINE_ROLES.filter((r) => groups.has(r)).map((role) => {
        const { colour, dashMm, weightMm } = ROLE_STYLE[role];
        const dash = dashMm.length > 0 ? ` stroke-dasharray="${dashMm.join(' ')}"` : '';
        return `  <g id="${role}" data-role="${role}" fill="none" stroke="${colour}" stroke-width="${weightMm}"${dash}>\n${groups.get(role)!.join('\n')}\n  </g>`;
      });
      return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">\n  <title>${escapeXml(plate.title)}</title>\n${body.join('\n')}\n</svg>\n`;
    },
  };
  return walkPlate(plate, sink);
}

export const escapeXml = (text: string): string =>
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '').replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
