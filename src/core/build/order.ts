/** Tasks that wait for each other, in an order in which each comes after what it waits for. */

export interface Task {
  readonly id: string;
  /** Less is sooner, where nothing else decides. */
  readonly rank: number;
  /** Ids of tasks that come before it. */
  readonly needs: readonly string[];
}
export interface Ordered<T> {
  readonly order: readonly T[];
  /** Tasks that wait for each other in a ring, by id: each ring was begun with its first. */
  readonly cycles: readonly (readonly string[])[];
}

/** A topological order (Kahn 1962): of those that wait for nothing the one of the least rank, then the first given. */
export function inOrder<T extends Task>(tasks: readonly T[]): Ordered<T> {
  const known = new Set(tasks.map((t) => t.id));
  const waits = new Map(tasks.map((t) => [t.id, new Set(t.needs.filter((n) => known.has(n) && n !== t.id))]));
  const left = new Set(tasks);
  const order: T[] = [];
  const cycles: string[][] = [];
  while (left.size > 0) {
    const free = [...left].filter((t) => waits.get(t.id)!.size === 0);
    if (free.length === 0) {
      const ring = ringIn(tasks, waits);
      cycles.push(ring);
      // Someone has to begin: the first that was given.
      const first = tasks.find((t) => ring.includes(t.id))!;
      for (const id of ring) waits.get(first.id)!.delete(id);
      continue;
    }
    const next = free.reduce((best, t) => (t.rank < best.rank ? t : best));
    left.delete(next);
    order.push(next);
    for (const w of waits.values()) w.delete(next.id);
  }
  return { order, cycles };
}

/** Following what each waits for must come round. */
function ringIn(tasks: readonly Task[], waits: ReadonlyMap<string, ReadonlySet<string>>): string[] {
  const way: string[] = [];
  let at = tasks.find((t) => waits.get(t.id)!.size > 0 && inRing(t.id, waits))!.id;
  while (!way.includes(at)) {
    way.push(at);
    at = [...waits.get(at)!].find((n) => inRing(n, waits))!;
  }
  return way.slice(way.indexOf(at));
}

/** It waits, by way of others, for itself. */
function inRing(id: string, waits: ReadonlyMap<string, ReadonlySet<string>>): boolean {
  const seen = new Set<string>();
  const queue = [...waits.get(id)!];
  for (const n of queue) {
    if (n === id) return true;
    if (seen.has(n)) continue;
    seen.add(n);
    queue.push(...(waits.get(n) ?? []));
  }
  return false;
}
