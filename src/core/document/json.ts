/** JSON from anywhere, safe to look at. */

/** A design written without spaces has at most this many characters. */
export const LARGEST_DESIGN = 5_000_000;
/** Larger files are not designs (characters): written with a number on each line, the largest is some four times. */
export const LARGEST_FILE = 24_000_000;
/** A design is nested less than half as deep; a variant that holds any part of it adds eight levels. */
const DEEPEST = 32;

/** JSON that is safe to look at: bounded size and depth, no keys that reach into prototypes. */
export function readJson(text: string, what: string): { ok: true; value: unknown } | { ok: false; why: string } {
  if (text.length > LARGEST_FILE)
    return no(`the file has ${Math.round(text.length / 1e6)} MB; ${what} has at most ${LARGEST_FILE / 1e6} MB`);
  if (text.includes('\0')) return no(`the file is binary; ${what} is JSON text`);
  if (nesting(text) > DEEPEST) return no(`the file is nested deeper than ${DEEPEST} levels; ${what} never is`);
  try {
    return { ok: true, value: JSON.parse(text.replace(/^\uFEFF/, ''), guardKeys) as unknown };
  } catch (error) {
    if (error instanceof KeyError) return no(error.message);
    return no(`the file is not JSON (${oneLine((error as Error).message)}); it may be cut short`);
  }
}

class KeyError extends Error {}
function guardKeys(key: string, value: unknown): unknown {
  if (key === '__proto__' || key === 'constructor' || key === 'prototype')
    throw new KeyError(`"${key}" is not a key of a design`);
  return value;
}

/**
 * Whether a value is nested deeper than a design can be; one that contains itself always is. Looks at each part once
 * for every depth at which it is found, and never calls itself.
 */
export function isTooDeep(value: unknown): boolean {
  const seen = new Map<object, number>();
  const open: { readonly part: unknown; readonly depth: number }[] = [{ part: value, depth: 1 }];
  for (let next = open.pop(); next; next = open.pop()) {
    const { part, depth } = next;
    if (typeof part !== 'object' || part === null || (seen.get(part) ?? 0) >= depth) continue;
    if (depth > DEEPEST) return true;
    seen.set(part, depth);
    for (const inner of Object.values(part)) open.push({ part: inner, depth: depth + 1 });
  }
  return false;
}
export const TOO_DEEP = `it is nested deeper than ${DEEPEST} levels, or contains itself; a design never does`;

/** Deepest bracket outside strings. */
function nesting(text: string): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (quoted) {
      if (c === '\\') i++;
      else if (c === '"') quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === '{' || c === '[') deepest = Math.max(deepest, ++depth);
    else if (c === '}' || c === ']') depth--;
  }
  return deepest;
}

const no = (why: string): { ok: false; why: string } => ({ ok: false, why });
const oneLine = (text: string): string => text.replace(/\s+/g, ' ').slice(0, 300);
