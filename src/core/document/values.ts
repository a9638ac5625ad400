/** Parameter values from text, as typed into a field or on the command line. */
import type { Parameter, ParameterValue } from '../kinds';
import { checkParameter } from './parameters';
import { readJson } from './json';
import { parseAngle } from '../units/angle';
import { LONGEST_TEXT } from '../shapes/text';
import { MM_PER_INCH, parseLength, trimNumber, type LengthUnit } from '../units/length';

/** `why` names the parameter by its key; `says` is the same for whoever has named it already. */
export type ReadValue =
  | { readonly ok: true; readonly value: ParameterValue }
  | { readonly ok: false; readonly why: string; readonly says: string };

const no = (p: Parameter, says: string): ReadValue => ({ ok: false, why: `${p.key} ${says}`, says });

/**
 * Read `text` for parameter `p`: unit, choice and range checked. An empty text clears a parameter that follows from
 * others.
 */
export function readValue(p: Parameter, text: string, unit: LengthUnit = 'mm'): ReadValue {
  const tidy = text.trim();
  if (p.unit === 'choice')
    return p.choices!.includes(tidy)
      ? { ok: true, value: tidy }
      : no(p, `is "${tidy.slice(0, 30)}"; it must be one of ${p.choices!.join(', ')}`);
  if (p.unit === 'text') return tidy.length <= LONGEST_TEXT ? { ok: true, value: tidy } : no(p, 'is too long');
  if (p.word !== undefined && tidy === p.word) return { ok: true, value: tidy };
  if (p.default === null && (tidy === '' || tidy === 'null')) return { ok: true, value: null };
  if (IN_JSON.has(p.unit)) {
    const json = readJson(tidy, p.key);
    if (!json.ok) return no(p, `is not JSON: ${example(p)}`);
    const value = LENGTHS_INSIDE.has(p.unit) ? measured(json.value, '', unit) : json.value;
    const why = checkParameter(p, value);
    return why === null ? { ok: true, value: value as ParameterValue } : { ok: false, why, says: why };
  }
  const read =
    p.unit === 'deg'
      ? parseAngle(tidy, Math.max(TURN_DEG, p.max ?? 0))
      : p.unit === 'count'
        ? parseCount(tidy)
        : parseLength(tidy, unit);
  if (!read.ok) return { ok: false, why: `${p.key}: ${read.why}`, says: read.why };
  const said = (value: number): string => asTyped(p, value, unit);
  if (p.min !== undefined && read.value < p.min)
    return no(p, `is ${said(read.value)}; it must be at least ${said(p.min)}`);
  if (p.max !== undefined && read.value > p.max)
    return no(p, `is ${said(read.value)}; it must be at most ${said(p.max)}`);
  return { ok: true, value: read.value };
}

/** As its field has it: whole as it was typed, since it is held against a limit. */
function asTyped({ unit: of }: Parameter, value: number, unit: LengthUnit): string {
  if (of === 'deg') return `${value} degrees`;
  if (of !== 'mm') return String(value);
  return unit === 'mm' ? `${value} mm` : `${trimNumber(value / MM_PER_INCH, 4)} in`;
}

function parseCount(text: string): { ok: true; value: number } | { ok: false; why: string } {
  return /^\d{1,6}$/.test(text)
    ? { ok: true, value: Number(text) }
    : { ok: false, why: `"${text.slice(0, 20)}" is not a count; type a whole number` };
}

const TURN_DEG = 360;
/** Values that are written as JSON. */
const IN_JSON: ReadonlySet<Parameter['unit']> = new Set(['shape', 'list', 'group', 'path', 'lines', 'parts']);

/** Of those, what holds lengths and angles: texts in their place are read as a field reads them. */
const LENGTHS_INSIDE: ReadonlySet<Parameter['unit']> = new Set(['shape', 'list', 'group', 'path']);
/** Words and drawings, whatever they look like. */
const TEXTS: ReadonlySet<string> = new Set([
  ...['asset', 'path', 'curve', 'rule', 'string', 'font', 'name', 'stock'],
  ...['do', 'keep', 'about', 'edge', 'side', 'corners', 'of'],
]);
const COUNTS: ReadonlySet<string> = new Set(['sides', 'points', 'bumps', 'count']);
const ANGLES: ReadonlySet<string> = new Set(['deg', 'turn', 'from', 'to', 'at', 'span']);

/** JSON with every length and angle that stands in it as text read as a number: `{"circle": "2 3/4 in"}`. */
function measured(value: unknown, key: string, unit: LengthUnit): unknown {
  if (Array.isArray(value)) return value.map((v) => measured(v, key, unit));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, measured(v, k, unit)]));
  if (typeof value !== 'string' || TEXTS.has(key)) return value;
  const read = COUNTS.has(key) ? parseCount(value) : readLengthOrAngle(value, key, unit);
  return read.ok ? read.value : value;
}
/** `from` is a place in mm in one kind, and an angle of an arc: what has a unit of length is a length. */
function readLengthOrAngle(text: string, key: string, unit: LengthUnit): ReturnType<typeof parseLength> {
  const angle = ANGLES.has(key) ? parseAngle(text, TURN_DEG) : null;
  return angle?.ok ? angle : parseLength(text, unit);
}

/** How a value that is not a number is written. */
const example = (p: Parameter): string =>
  p.unit === 'shape'
    ? 'a shape is written like {"circle": 40}'
    : p.unit === 'path'
      ? 'a path is written like {"line": 80}'
      : p.unit === 'lines'
        ? 'lines are written like [{"name": "fold", "role": "valley", "from": {"x": 0}, "to": {"x": 20}}]'
        : p.unit === 'group' || p.unit === 'parts'
          ? `it is written like ${JSON.stringify(p.default)}`
          : `a list is written like [{"${p.fields![0].key}": 10, …}]`;
