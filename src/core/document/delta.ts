/**
 * What differs between two JSON values, small enough to be written at every change: only what is no longer the same
 * object is looked at, and the order of keys is kept, so that the other value comes back to the byte.
 */

/** A plain JSON value. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** `v`: another value; `o`: deltas by key; `i`: deltas by place; `s`: from a place on, so many replaced by others. */
export type Delta =
  | { readonly v: Json }
  | { readonly o: Readonly<Record<string, Delta>> }
  | { readonly i: Readonly<Record<string, Delta>> }
  | { readonly s: readonly [from: number, removed: number, put: readonly Json[]] };

/** How to get from `a` to `b`; null where they are the same. Both are JSON, and neither is changed. */
export function deltaOf(a: Json, b: Json): Delta | null {
  if (a === b) return null;
  if (Array.isArray(a) && Array.isArray(b)) return listDelta(a, b);
  if (isRecord(a) && isRecord(b)) return recordDelta(a, b);
  return { v: b };
}

/** `a` with the difference made. Throws where the delta was not made from such a value. */
export function withDelta(a: Json, delta: Delta): Json {
  if ('v' in delta) return delta.v;
  if ('s' in delta) {
    if (!Array.isArray(a)) throw new Error('a difference of lists is put to what is no list');
    const [from, removed, put] = delta.s;
    return [...a.slice(0, from), ...put, ...a.slice(from + removed)];
  }
  if ('i' in delta) {
    if (!Array.isArray(a)) throw new Error('a difference of lists is put to what is no list');
    const { i } = delta;
    return a.map((x: Json, k) => (Object.hasOwn(i, k) ? withDelta(x, i[k]) : x));
  }
  if (!isRecord(a)) throw new Error('a difference of objects is put to what is none');
  const { o } = delta;
  return Object.fromEntries(Object.entries(a).map(([k, x]) => [k, Object.hasOwn(o, k) ? withDelta(x, o[k]) : x]));
}

const isRecord = (x: Json): x is { readonly [key: string]: Json } =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

/** Keys alike and in the same order are told one by one; else the whole is another. */
function recordDelta(a: { readonly [key: string]: Json }, b: { readonly [key: string]: Json }): Delta | null {
  const [left, right] = [keysOf(a), keysOf(b)];
  if (left.length !== right.length || left.some((k, i) => k !== right[i])) return { v: b };
  const changed = left.flatMap((k): [string, Delta][] => {
    const delta = deltaOf(a[k], b[k]);
    return delta ? [[k, delta]] : [];
  });
  return changed.length > 0 ? { o: Object.fromEntries(changed) } : null;
}
/** JSON leaves out what is undefined. */
const keysOf = (x: { readonly [key: string]: Json }): string[] => Object.keys(x).filter((k) => x[k] !== undefined);

function listDelta(a: readonly Json[], b: readonly Json[]): Delta | null {
  if (a.length === b.length) {
    const changed = a.flatMap((x, k): [string, Delta][] => {
      const delta = deltaOf(x, b[k]);
      return delta ? [[String(k), delta]] : [];
    });
    return changed.length > 0 ? { i: Object.fromEntries(changed) } : null;
  }
  const most = Math.min(a.length, b.length);
  let from = 0;
  while (from < most && deltaOf(a[from], b[from]) === null) from++;
  let same = 0;
  while (same < most - from && deltaOf(a[a.length - 1 - same], b[b.length - 1 - same]) === null) same++;
  return { s: [from, a.length - same - from, b.slice(from, b.length - same)] };
}
