/**
 * ASCII DXF as it is written: pairs of a group code and a value, in sections. Counted while they are read, so that no
 * number in the file decides how long that takes.
 */
import { ShapeError } from '../shapes/shape';

export type Tag = readonly [code: number, value: string];
/** What follows a group 0: its name, and its tags up to the next. */
export interface Entity {
  readonly type: string;
  readonly tags: readonly Tag[];
}
/** Entities by section: HEADER has its variables as entities of their own. */
export type Sections = ReadonlyMap<string, readonly Entity[]>;

/** Largest drawing that is read, in tags. */
const MOST_TAGS = 3_000_000;

/** Throws ShapeError where the text is not ASCII DXF. */
export function dxfSections(text: string): Sections {
  const sections = new Map<string, Entity[]>();
  let section: Entity[] | null = null;
  let entity: { type: string; tags: Tag[] } | null = null;
  let [count, ended] = [0, false];
  for (const [code, value] of tagsOf(text)) {
    if (++count > MOST_TAGS)
      throw new ShapeError(`the drawing has more than ${MOST_TAGS} entries; bring in a part of it`);
    if (code === 999) continue;
    const name = code === 0 ? value.trim().toUpperCase() : '';
    if (code === 0 && name === 'EOF') {
      ended = true;
      break;
    }
    if (code === 0 && name === 'SECTION') [section, entity] = [[], null];
    else if (code === 0 && name === 'ENDSEC') [section, entity] = [null, null];
    else if (section && code === 2 && section.length === 0 && !entity)
      sections.set(value.trim().toUpperCase(), section);
    else if (section && (code === 0 || code === 9)) {
      entity = { type: code === 0 ? name : value.trim(), tags: [] };
      section.push(entity);
    } else entity?.tags.push([code, value]);
  }
  if (sections.size === 0) throw new ShapeError('not ASCII DXF: it has no sections');
  if (!ended) throw new ShapeError('not ASCII DXF: it ends before its EOF; it may be cut short');
  return sections;
}

function* tagsOf(text: string): Generator<Tag> {
  for (let at = 0, line = 1; at < text.length; line += 2) {
    const codeEnd = endOfLine(text, at);
    const written = text.slice(at, codeEnd).trim();
    if (written === '' && text.slice(codeEnd).trim() === '') return;
    const code = /^-?\d{1,4}$/.test(written) ? Number(written) : NaN;
    if (Number.isNaN(code))
      throw new ShapeError(`not ASCII DXF: line ${line} is "${written.slice(0, 20)}"; a group code is a whole number`);
    const from = codeEnd + 1;
    if (from > text.length) throw new ShapeError(`not ASCII DXF: it ends after the group code of line ${line}`);
    const valueEnd = endOfLine(text, from);
    yield [code, text.slice(from, valueEnd).replace(/\r$/, '')];
    at = valueEnd + 1;
  }
}
const endOfLine = (text: string, from: number): number => {
  const end = text.indexOf('\n', from);
  return end < 0 ? text.length : end;
};

/** First value of a group; the fallback where there is none or it is no number. */
export function numberOf({ tags }: Entity, code: number, fallback: number): number {
  const value = Number(tags.find(([c]) => c === code)?.[1] ?? NaN);
  return Number.isFinite(value) ? value : fallback;
}
export const textOf = ({ tags }: Entity, code: number): string | undefined =>
  tags.find(([c]) => c === code)?.[1].trim();
/** Points whose x has the group `code` and whose y the one ten above, each with the bulge (42) that follows it. */
export function pointsOf({ tags }: Entity, code = 10): { x: number; y: number; bulge: number }[] {
  const out: { x: number; y: number; bulge: number }[] = [];
  for (const [c, value] of tags) {
    if (c === code) out.push({ x: Number(value), y: 0, bulge: 0 });
    else if (out.length > 0 && c === code + 10) out[out.length - 1].y = Number(value);
    else if (out.length > 0 && c === 42) out[out.length - 1].bulge = Number(value);
  }
  return out;
}
