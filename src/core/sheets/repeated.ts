/** Many copies: one sheet is filled as well as can be, and cut as often as there are pieces for it; then the next. */
import type { Vec2 } from '../plane/vec2';
import { regionArea } from '../plane/polygon';
import { nesting, type Nested, type NestItem, type NestSheet } from './nest/nest';

/** Rounds that are given to each sheet that repeats. */
const ROUNDS_EACH = 12;
/** Most pieces that are tried on one sheet. */
const MOST_TRIED = 60;

interface Found {
  readonly placed: readonly Nested[];
  readonly unplaced: readonly number[];
}

/** Pieces that lie somewhere already stay; sheets of one size are filled alike. Ends after one answer. */
export function* repeated(
  items: readonly NestItem[],
  sheets: readonly NestSheet[],
  seed: number,
): Generator<Found, undefined> {
  const waiting = new Map<string, number[]>();
  const fixed = new Map<number, number[]>();
  items.forEach((item, i) => {
    if (item.fixed) fixed.set(item.fixed.sheet, [...(fixed.get(item.fixed.sheet) ?? []), i]);
    else waiting.set(item.key, [...(waiting.get(item.key) ?? []), i]);
  });
  const placed: Nested[] = [];
  const left = (): number => [...waiting.values()].reduce((n, w) => n + w.length, 0);
  for (let sheet = 0; sheet < sheets.length && left() > 0;) {
    const own = fixed.get(sheet) ?? [];
    const filled = fillOne(items, waiting, own, sheets[sheet], seed);
    const used = countBy(filled.map(({ item }) => items[item].key));
    const alike = own.length > 0 ? 1 : runOf(sheets, fixed, sheet);
    const times = Math.min(alike, ...[...used].map(([key, n]) => Math.floor(waiting.get(key)!.length / n)));
    if (used.size === 0) {
      sheet++;
      continue;
    }
    for (let k = 0; k < times; k++, sheet++)
      for (const { item, at, turnDeg } of filled)
        placed.push({ item: waiting.get(items[item].key)!.shift()!, sheet, at, turnDeg });
  }
  for (const [sheet, own] of fixed) for (const item of own) placed.push({ item, ...items[item].fixed!, sheet });
  yield { placed, unplaced: [...waiting.values()].flat() };
  return undefined;
}

/** Sheets of one size from here on that nothing lies on. */
function runOf(sheets: readonly NestSheet[], fixed: ReadonlyMap<number, unknown>, from: number): number {
  const { widthMm, heightMm } = sheets[from];
  let to = from;
  while (to < sheets.length && sheets[to].widthMm === widthMm && sheets[to].heightMm === heightMm && !fixed.has(to))
    to++;
  return to - from;
}

function fillOne(
  items: readonly NestItem[],
  waiting: ReadonlyMap<string, readonly number[]>,
  own: readonly number[],
  sheet: NestSheet,
  seed: number,
): { readonly item: number; readonly at: Vec2; readonly turnDeg: number }[] {
  const room = sheet.widthMm * sheet.heightMm;
  const kinds = [...waiting.values()].filter((w) => w.length > 0);
  // As many of each as could ever lie on it, in the mix that is wanted.
  const all = kinds.reduce((n, w) => n + w.length, 0);
  const tried = kinds.flatMap((w) => {
    const most = Math.ceil(room / Math.max(1, regionArea(items[w[0]].region)));
    return w.slice(0, Math.min(most, Math.max(1, Math.round((MOST_TRIED * w.length) / all))));
  });
  const at = [...own, ...tried];
  const search = nesting(
    at.map((i) => {
      const { fixed, ...item } = items[i];
      return fixed ? { ...item, fixed: { ...fixed, sheet: 0 } } : item;
    }),
    [sheet],
    seed,
  );
  let found: Found = { placed: [], unplaced: [] };
  for (let round = 0; round < ROUNDS_EACH; round++) {
    const { value, done } = search.next();
    if (done) break;
    found = value;
    if (found.unplaced.length === 0) break;
  }
  return found.placed.filter((n) => n.item >= own.length).map((n) => ({ ...n, item: at[n.item] }));
}

const countBy = (keys: readonly string[]): Map<string, number> => {
  const out = new Map<string, number>();
  for (const key of keys) out.set(key, (out.get(key) ?? 0) + 1);
  return out;
};
