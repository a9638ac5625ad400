/**
 * What mechanisms bring, kept while their numbers and the place they stand in stay: a search turns one number of one
 * mechanism and builds all others again as they were.
 *
 * Invariant: an answer is given again only where all that was read of the context is the same: the crease or face by
 * its numbers, kept shapes and paper by being the same objects. What reads the piece so far is never kept.
 */
import type { Design, Mechanism } from '../document/design';
import type { BuildContext, Contribution, FaceContext } from '../kinds';

type Context = BuildContext | FaceContext;
interface Kept {
  readonly key: string;
  readonly shapes: Design['shapes'];
  /** Null where it was not read. */
  readonly paper: unknown;
  readonly part: Contribution;
}
const kept = new WeakMap<Mechanism['parameters'], readonly Kept[]>();
/** Of one set of numbers: a mechanism and what was copied from it, in the places that a search moves its host to. */
const MOST_KEPT = 6;

/** @param build from a context; whoever builds reads no more of it than it takes to answer */
export function builtBefore<C extends Context>(
  design: Design,
  m: Mechanism,
  context: C,
  build: (context: C) => Contribution,
): Contribution {
  const key = keyOf(design, m, context);
  const known = kept.get(m.parameters) ?? [];
  const paper = 'paper' in context ? context.paper : null;
  const found = known.find(
    (k) => k.key === key && k.shapes === design.shapes && (k.paper === null || k.paper === paper),
  );
  if (found) return found.part;
  const read = new Set<string | symbol>();
  const watched = new Proxy(context, {
    get(of, name) {
      read.add(name);
      return Reflect.get(of, name) as unknown;
    },
  });
  const part = build(watched);
  if (!read.has('so')) {
    const one: Kept = { key, shapes: design.shapes, paper: read.has('paper') ? paper : null, part };
    kept.set(m.parameters, [one, ...known].slice(0, MOST_KEPT));
  }
  return part;
}

/** All that a context says in numbers and names. */
function keyOf({ units }: Design, { id, kind }: Mechanism, context: Context): string {
  const stands = 'host' in context ? context.host : context.face;
  const caliperMm = 'caliperMm' in context ? context.caliperMm : null;
  return JSON.stringify([id, kind, units, context.stock, caliperMm, stands]);
}
