/** Revisions of designs: a worker gets a design once, then hears its number. */
import type { Design } from '@/core/document/design';
import type { Sent } from './protocol';

const numbers = new WeakMap<Design, number>();
let newest = 0;

/** A number of its own for every design object; designs are never changed in place. */
export function revisionOf(design: Design): number {
  const known = numbers.get(design);
  if (known !== undefined) return known;
  numbers.set(design, ++newest);
  return newest;
}

/** What went to which worker. */
export class SentBefore {
  private readonly to = new WeakMap<object, Set<number>>();

  /** How `design` goes to `worker`: whole where it has not been there, or where `whole` asks for it. */
  wire(design: Design, worker: object, whole: boolean): Sent {
    const revision = revisionOf(design);
    let known = this.to.get(worker);
    if (!known) this.to.set(worker, (known = new Set()));
    if (known.has(revision) && !whole) return { revision };
    known.add(revision);
    return { revision, design };
  }
}

/** The designs a worker holds: the newest few. */
export class HeldDesigns {
  private readonly held = new Map<number, Design>();

  constructor(private readonly most = 12) {}

  /** The design meant; null where it came too long ago. */
  take({ revision, design }: Sent): Design | null {
    const meant = design ?? this.held.get(revision);
    if (!meant) return null;
    this.held.delete(revision);
    this.held.set(revision, meant);
    if (this.held.size > this.most) this.held.delete(this.held.keys().next().value!);
    return meant;
  }
}
