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
import { applyRigid, invert, type Vec3 } from '../linkage';
import { ellipse } from '../shapes/curve';
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
  const shadows = moving.flatMap((i) => {
    const parts = partsOn(assembly, i);
    const about = drive.unit === 'deg' && drive.to - drive.from >= FULL_TURN_DEG ? turnsAbout(poses, i, face) : null;
    return parts.flatMap((part) =>
      about ? [disc(about, part)] : [together(poses.map((pose) => shadow(pose, i, face, part)))],
    );
  });
  return together(shadows);
}

/** Neighbours first, so that few outlines cross at a time. */
function together(regions: readonly Region[]): Region {
  if (regions.length <= AT_ONCE) return unite(regions.flat());
  const groups = Array.from({ length: Math.ceil(regions.length / AT_ONCE) }, (_, k) =>
    unite(regions.slice(k * AT_ONCE, (k + 1) * AT_ONCE).flat()),
  );
  return together(groups);
}
const AT_ONCE = 6;

/** What turns all the way round in its own plane sweeps a disc. */
const FULL_TURN_DEG = 360;
interface Centre {
  readonly on: Vec2;
  readonly own: Vec2;
}
/** The place about which a facet turns flat over its face, in the axes of both; null where it does anything else. */
function turnsAbout(poses: readonly Pose[], facet: number, face: number): Centre | null {
  const seen = poses.map((pose) => {
    const back = invert(pose.placed[face]);
    return (p: Vec2): Vec3 => applyRigid(back, onFacet(pose, facet, p));
  });
  // Three places of the sheet: where its origin and unit vectors lie says how it is turned.
  const quarter = seen[Math.floor(seen.length / 4)];
  const [o, x] = [seen[0]([0, 0]), quarter([0, 0])];
  const [u, v] = [seen[0], quarter].map((at): Vec2 => [at([1, 0])[0] - at([0, 0])[0], at([1, 0])[1] - at([0, 0])[1]]);
  const turn = Math.atan2(u[0] * v[1] - u[1] * v[0], u[0] * v[0] + u[1] * v[1]);
  if (Math.abs(turn) < LEAST_TURN_RAD) return null;
  const half = 1 / (2 * Math.tan(turn / 2));
  const [dx, dy] = [x[0] - o[0], x[1] - o[1]];
  const on: Vec2 = [(o[0] + x[0]) / 2 - dy * half, (o[1] + x[1]) / 2 + dx * half];
  const own: Vec2 = [(on[0] - o[0]) * u[0] + (on[1] - o[1]) * u[1], (on[1] - o[1]) * u[0] - (on[0] - o[0]) * u[1]];
  const stays = seen.every((at) => {
    const [px, py, pz] = at(own);
    return Math.hypot(px - on[0], py - on[1]) < CENTRE_MM && Math.abs(pz - o[2]) < CENTRE_MM;
  });
  return stays ? { on, own } : null;
}
const LEAST_TURN_RAD = 0.1;
const CENTRE_MM = 1e-3;

function disc({ on, own }: Centre, part: Polygon): Region {
  const reach = Math.max(...part.outer.map((p) => Math.hypot(p[0] - own[0], p[1] - own[1])));
  return [{ outer: ellipse(reach, reach, on), holes: [] }];
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
