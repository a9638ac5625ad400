/**
 * Reads the part of RS-274 that cutters need: G0 to G3 (arcs by I and J), G20, G21, G90, G91, F, T, M6, M2, M30;
 * lowered at Z 0 or below. Comments in parentheses or after a semicolon.
 */
import { MM_PER_INCH } from '../units/length';
import type { Vec2 } from '../plane/vec2';
import { CutFileError, FARTHEST_MM, StrokeCollector, type CutFile } from './cut-file';

/** Chords of an arc leave it by at most this, mm. */
const CHORD_MM = 0.01;
/** Codes that change nothing a tool does on the sheet: planes, feeds, spindles, pauses. */
const WITHOUT_MOVE = /^(G(17|40|49|54|80|94)|M(0|3|5|6|7|8|9))$/;

export function readGcode(text: string): CutFile {
  const out = new StrokeCollector();
  let [unit, relative, motion] = [1, false, 0];
  let ended = false;
  text.split(/\r?\n/).forEach((raw, k) => {
    if (ended) return;
    const where = `line ${k + 1}`;
    const words = wordsOf(raw, where);
    for (const [letter, value] of words.codes) {
      const code = `${letter}${value}`;
      if (/^G[0-3]$/.test(code)) motion = value;
      else if (code === 'G20' || code === 'G21') unit = code === 'G20' ? MM_PER_INCH : 1;
      else if (code === 'G90' || code === 'G91') relative = code === 'G91';
      else if (code === 'M2' || code === 'M30') ended = true;
      else if (!WITHOUT_MOVE.test(code)) out.skip(`${where}: ${code} is not read`);
    }
    const { T, X, Y, Z, I, J } = words.values;
    if (T !== undefined) {
      out.lift();
      out.tool = T;
    }
    if (X !== undefined || Y !== undefined) {
      const [fx, fy] = relative ? out.at : [0, 0];
      const to: Vec2 = [X === undefined ? out.at[0] : fx + X * unit, Y === undefined ? out.at[1] : fy + Y * unit];
      const way = motion >= 2 ? arc(out.at, to, [(I ?? 0) * unit, (J ?? 0) * unit], motion === 2, where) : [to];
      for (const p of way) out.move(p, where);
    }
    // Relative heights are followed as they come: lowered is what brings the tool to the sheet or below.
    if (Z !== undefined && (relative ? Z < 0 : Z <= 0)) out.lower();
    else if (Z !== undefined) out.lift();
  });
  return out.finish();
}

type Values = Partial<Record<'T' | 'X' | 'Y' | 'Z' | 'I' | 'J' | 'F' | 'S' | 'R' | 'P' | 'N', number>>;

function wordsOf(raw: string, where: string): { codes: [string, number][]; values: Values } {
  const line = raw
    .replace(/\([^)]*\)?/g, '')
    .replace(/;.*/, '')
    .replace(/%/g, '')
    .trim();
  const codes: [string, number][] = [];
  const values: Values = {};
  let rest = line.toUpperCase();
  while (rest !== '') {
    const m = /^\s*([A-Z])\s*([-+]?(?:\d+\.?\d*|\.\d+))\s*/.exec(rest);
    if (!m) throw new CutFileError(`${where}: "${rest.slice(0, 20)}" is no word of G-code, such as X12.5`);
    const value = Number(m[2]);
    if (m[1] === 'G' || m[1] === 'M') codes.push([m[1], value]);
    else if ('TXYZIJFSRPN'.includes(m[1])) values[m[1] as keyof Values] = value;
    else throw new CutFileError(`${where}: the word ${m[1]} is not read; X, Y, Z, I, J, F and T are`);
    rest = rest.slice(m[0].length);
  }
  if (values.R !== undefined) throw new CutFileError(`${where}: arcs by R are not read; give their middle by I and J`);
  return { codes, values };
}

function arc(from: Vec2, to: Vec2, [i, j]: Vec2, clockwise: boolean, where: string): Vec2[] {
  const [cx, cy] = [from[0] + i, from[1] + j];
  const radius = Math.hypot(i, j);
  if (radius === 0) throw new CutFileError(`${where}: the arc has no middle; give I or J`);
  if (!(radius <= FARTHEST_MM))
    throw new CutFileError(
      `${where}: an arc of radius ${Number(radius.toPrecision(4))} mm; at most ${FARTHEST_MM} are`,
    );
  const [a, b] = [Math.atan2(-j, -i), Math.atan2(to[1] - cy, to[0] - cx)];
  let sweep = b - a;
  if (clockwise ? sweep >= 0 : sweep <= 0) sweep += clockwise ? -2 * Math.PI : 2 * Math.PI;
  const most = 2 * Math.acos(Math.max(0, 1 - CHORD_MM / radius));
  const steps = Math.max(1, Math.ceil(Math.abs(sweep) / most));
  return Array.from({ length: steps }, (_, k): Vec2 => {
    if (k === steps - 1) return to;
    const t = a + (sweep * (k + 1)) / steps;
    return [cx + radius * Math.cos(t), cy + radius * Math.sin(t)];
  });
}
