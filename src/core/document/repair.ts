/** Documents that do not read: what may be left out of one so that the rest does. */
import { checkDesign } from './schema';
import type { Design } from './design';

export interface Repaired {
  readonly design: Design;
  /** What was left out, and why: one line each. */
  readonly leftOut: readonly string[];
}

/** More than this left out, and it is another card. */
const MOST_LEFT_OUT = 50;
/** Lists whose entries a card can do without. */
const ENTRY = /^"?(mechanisms|layers|dressing|shapes|gluing|cutFrom|meantOut|names|states|variants)\[(\d+)\]/;
const KEY = /^"?(card\.template|making\.roles|notes)\b/;

type Raw = Record<string, unknown>;

/** A design made of what reads of `value`, the least left out one part at a time; null where that does not do. */
export function repairDesign(value: unknown): Repaired | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return null;
  let raw = value as Raw;
  const leftOut: string[] = [];
  for (let k = 0; k <= MOST_LEFT_OUT; k++) {
    const read = checkDesign(raw);
    if (read.ok) return { design: read.design, leftOut };
    const less = without(raw, read.why);
    if (!less) return null;
    raw = less;
    leftOut.push(read.why);
  }
  return null;
}

/** The value without the part that a message names; null where it names none that can be left out. */
function without(raw: Raw, why: string): Raw | null {
  const entry = ENTRY.exec(why);
  if (entry) {
    const [, list, at] = entry;
    const entries = raw[list];
    return Array.isArray(entries) ? { ...raw, [list]: entries.filter((_, i) => i !== Number(at)) } : null;
  }
  const key = KEY.exec(why)?.[1];
  if (key === 'notes' && raw.notes !== '') return { ...raw, notes: '' };
  if (key === 'making.roles' && isRaw(raw.making)) return { ...raw, making: omit(raw.making, 'roles') };
  if (key === 'card.template' && isRaw(raw.card)) return { ...raw, card: omit(raw.card, 'template') };
  const unknown = /^"?([A-Za-z]+)"? is not allowed$/.exec(why)?.[1];
  return unknown && Object.hasOwn(raw, unknown) ? omit(raw, unknown) : null;
}

const isRaw = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);
const omit = (value: Raw, key: string): Raw => Object.fromEntries(Object.entries(value).filter(([k]) => k !== key));
