/**
 * What a hand sweeps over as it moves something from end to end: the shadow of all that goes with it on the face that
 * carries it, the card open as far as it goes.
 *
 *     ┌──────────────────────────┐
 *     │   ╭────╌╌╌╌╌╌╌╌────╮     │   a carrier where it begins and where it ends,
 *     │   │    │      │    │     │   and all it passes over in between
 *     │   ╰────╌╌╌╌╌╌╌╌────╯     │
 *     └──────────────────────────┘
 */
import { OPEN, restOf, travelStates, type Drive } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { facetIndex, onFacet, poseAt, type Pose } from '../assembly/pose';
import { ownerOfId } from '../ids';
import { applyRigid, invert } from '../linkage';
import { mapRegion, ringArea, unite, type Polygon, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';

export interface Sweep {
  readonly drive: string;
  /** Whose axes the region is in. */
  readonly piece: string;
  readonly region: Region;
}

/** Looks are no further apart than this: what lies between two of them is missing, half a look at most. */
const STEP = { deg: 2, mm: 1 } as const;
const MOST_STEPS = 180;
/** What turns up on its edge casts no shadow, mm². */
const NO_SHADOW_MM2 = 1e-6;
const MOVED_MM = 1e-6;

/** One for each drive of a mechanism that is fixed on a face; none for all others. */
export function sweepsOf(assembly: Assembly, mechanism: string): Sweep[] {
  const face = assembly.mechanisms.find((m) => m.id === mechanism)?.face;
  if (!face) return [];
  const on = facetIndex(assembly, face.piece, face.facet);
  const own = assembly.drives.filter((d) => d.id !== OPEN && ownerOfId(d.id) === mechanism);
  return own.flatMap((drive) => {
    const region = on < 0 ? [] : sweptBy(assembly, drive, on);
    return region.length > 0 ? [{ drive: drive.id, piece: face.piece, region }] : [];
  });
}

function sweptBy(assembly: Assembly, drive: Drive, face: number): Region {
  const [opening] = assembly.drives;
  const steps = Math.min(MOST_STEPS, Math.max(1, Math.ceil((drive.to - drive.from) / STEP[drive.unit])));
  const held = { ...restOf(assembly.drives), [opening.id]: opening.to };
  const poses = travelStates(drive, steps, held)
    .map((state) => poseAt(assembly, state))
    .filter((pose) => !pose.stop);
  const moving = assembly.facets.flatMap((f, i) => (movesIn(poses, i, f.polygon) ? [i] : []));
  const shadows = moving.flatMap((i) =>
    partsOn(assembly, i).flatMap((part) => poses.map((pose) => shadow(pose, i, face, part))),
  );
  return unite(shadows.flat());
}

const movesIn = ([first, ...others]: readonly Pose[], facet: number, { outer }: Polygon): boolean =>
  others.some((pose) =>
    outer.some((p) => {
      const [a, b] = [first, pose].map((at) => onFacet(at, facet, p));
      return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) > MOVED_MM;
    }),
  );

/** A facet, and what is stuck on it. */
const partsOn = ({ facets, layers }: Assembly, facet: number): Polygon[] => [
  facets[facet].polygon,
  ...layers.filter((l) => l.facet === facet).flatMap((l) => l.region),
];

/** Seen straight onto the face, in the axes of its piece. */
function shadow(pose: Pose, facet: number, face: number, part: Polygon): Region {
  const back = invert(pose.placed[face]);
  const seen = mapRegion([part], (p): Vec2 => {
    const [x, y] = applyRigid(back, onFacet(pose, facet, p));
    return [x, y];
  });
  return seen
    .filter((p) => Math.abs(ringArea(p.outer)) > NO_SHADOW_MM2)
    .map((p) =>
      ringArea(p.outer) > 0 ? p : { outer: p.outer.toReversed(), holes: p.holes.map((h) => h.toReversed()) },
    );
}
