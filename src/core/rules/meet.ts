/** Two drives whose parts come near each other at one opening, and what of them may meet what. */
import { sameFace, type FaceOf } from '../assembly/carrier';
import { moved, OPEN, restOf, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { boxesMeet3, growBox3, uniteBox3, type Box3 } from '../linkage';
import { CONTACT_MM } from '../tolerance';
import { maybeMeet, type HandHit } from './hand-solids';
import { movedFacets, movingPairs, wayBetween, type HandPath, type SolidPair } from './looks';
import { BOW_PART } from './seen-from';
import { placeSolid, type Solid } from './solids';

/** What a drive does at one opening: the solids it moves, and the box each passes through. */
export interface Sweep {
  readonly path: HandPath;
  readonly moved: ReadonlySet<number>;
  readonly boxes: ReadonlyMap<number, Box3>;
}

/** Two drives at one opening where they can meet, and what may meet what. */
export interface Meet {
  readonly a: Sweep;
  readonly b: Sweep;
  readonly pairs: readonly SolidPair[];
  /** Some part is moved by both. */
  readonly shared: boolean;
}

/** What came of walking two drives together. */
export interface WalkedTogether {
  readonly hits: readonly HandHit[];
  readonly states: number;
  readonly missed: boolean;
  /** In places that were compared. */
  readonly work: number;
}

export function sweepOf(assembly: Assembly, solids: readonly Solid[], path: HandPath): Sweep {
  const goes = movedFacets(path.poses);
  const boxes = new Map<number, Box3>();
  solids.forEach((solid, k) => {
    if (!goes.has(solid.facet)) return;
    const places = path.poses.map((p) => placeSolid(solid, p));
    const steps = places.slice(1).map((q, i) => growBox3(uniteBox3(places[i], q), BOW_PART * wayBetween(places[i], q)));
    boxes.set(k, growBox3(steps.reduce(uniteBox3), CONTACT_MM));
  });
  return { path, moved: goes, boxes };
}
export function meetOf(
  assembly: Assembly,
  solids: readonly Solid[],
  carriers: readonly (FaceOf | null)[],
  a: Sweep,
  b: Sweep,
): Meet | null {
  // Over one face the opening changes nothing between them: once is enough.
  const flat = a.path.open === assembly.drives[0].to;
  const counts = (k: number, j: number): boolean => flat || carriers[k] === null || !sameFace(carriers[k], carriers[j]);
  const body = (k: number): number => assembly.facets[solids[k].facet].body;
  const shared = [...a.boxes.keys()].some((k) => b.boxes.has(k) && counts(k, k));
  // What both move may run into anything, what one of them moves into what the other does.
  const both = new Set([...a.moved].filter((f) => shared && b.moved.has(f)));
  const pairs = shared ? movingPairs(assembly, solids, both, [...a.path.poses, ...b.path.poses]) : [];
  for (const [k, box] of a.boxes)
    for (const [j, other] of b.boxes)
      if (k !== j && !both.has(solids[k].facet) && !both.has(solids[j].facet))
        if (body(k) !== body(j) && counts(k, j) && maybeMeet(solids[k], solids[j]) && boxesMeet3(box, other))
          pairs.push([k, j]);
  return pairs.length > 0 ? { a, b, pairs, shared } : null;
}

export const stateOf = (assembly: Assembly, { a, b }: Meet, x: number, y: number): State =>
  moved(moved({ ...restOf(assembly.drives), [OPEN]: a.path.open }, a.path.drive.id, x), b.path.drive.id, y);

/** All at rest at the opening of a way. */
export const restBut = (assembly: Assembly, path: HandPath): State => ({
  ...restOf(assembly.drives),
  [OPEN]: path.open,
});
