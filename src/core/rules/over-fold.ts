/**
 * What lies on a facet, stuck there or held there by what it belongs to, and over a fold of something else on it: that
 * cannot turn.
 *
 *           panel ╱           ═══ over the fold: the panel would have to go through it
 *     ═══════════╱═══
 *     ──────────●────  facet  A sheet that ends at the fold, or beside it, is only pressed when the card is shut.
 *
 * A disc, an insert, a strip is not stuck to what it lies on, but stays there while the card opens: a panel that turns
 * up under it meets it once it is turned so far that the sheet, at its height, reaches over it.
 */
import { group } from 'd3-array';
import { foldDeg, poseAt, type Pose } from '../assembly/pose';
import type { Assembly, Crease } from '../assembly/assembly';
import { moved, OPEN, restOf } from '../drives';
import { applyRigid, compose, invert, type Rigid } from '../linkage';
import { commonStretches, reachBeside, stretchesInside } from '../plane/chord';
import type { Polygon } from '../plane/polygon';
import { dist2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { radToDeg } from '../units/angle';
import { caliperOf, type Evidence } from './rule';
import { isPlanar } from './solids';

export interface OverFold {
  /** Facet that is fixed, the one it is fixed on, and the one that would turn: by index. */
  readonly sheet: number;
  readonly home: number;
  readonly turning: number;
  readonly crease: Crease;
  /** Towards the inside of the crease's piece, or its outside. */
  readonly side: 1 | -1;
  /** How far it lies across the fold on both sides, mm. */
  readonly acrossMm: number;
  /** It lies there without being stuck, so high over the facet, mm; null where it is stuck. */
  readonly lyingMm: number | null;
}

/** Places along a fold at which it is asked how far a sheet reaches past it. */
const SAMPLES = 12;

export function overFolds(evidence: Pick<Evidence, 'assembly' | 'brief'>): OverFold[] {
  const { facets, creases, pieces } = evidence.assembly;
  const onto = new Set(pieces.flatMap((p) => p.glue.map((g) => `${p.id} ${g.onto.piece}`)));
  const folding = creases.flatMap((crease) => {
    const { a, b } = crease;
    if (facets[a].body === facets[b].body) return [];
    return [{ crease, home: a, turning: b }, { crease, home: b, turning: a }]; // prettier-ignore
  });
  const byBody = group(folding, ({ home }) => facets[home].body);
  const lies = lyingOn(evidence.assembly);
  const all = facets.flatMap((facet, sheet) => {
    const lying = lies(sheet);
    const stuck = (byBody.get(facet.body) ?? []).map((fold) => ({ ...fold, at: null }));
    const loose = lying ? (byBody.get(lying.body) ?? []).map((fold) => ({ ...fold, at: lying.pose })) : [];
    return [...stuck, ...loose].flatMap(({ crease, home, turning, at }): OverFold[] => {
      if (facet.piece === crease.piece || facet.mechanism === crease.mechanism) return [];
      const seen = at
        ? compose(invert(at.placed[sheet]), at.placed[home])
        : compose(invert(facet.toBody), facets[home].toBody);
      const acrossMm = Math.max(0, ...crease.segments.map((s) => across(facet.polygon, seen, s)));
      // An edge that laps over by no more than paper is thick slips off.
      if (acrossMm <= caliperOf(evidence, facet) + CONTACT_MM) return [];
      const on = invert(seen);
      const side = sideOf(on, onto.has(`${facet.piece} ${crease.piece}`));
      const lyingMm = at ? Math.abs(on[11]) : null;
      return side === 0 ? [] : [{ sheet, home, turning, crease, side, acrossMm, lyingMm }];
    });
  });
  // Of several sheets of one thing over one fold the one that reaches furthest is told.
  const told = group(all, ({ sheet, crease }) => `${facets[sheet].mechanism} ${crease.id}`);
  return [...told.values()].map((same) => same.reduce((most, o) => (o.acrossMm > most.acrossMm ? o : most)));
}

/**
 * On which side of a piece a sheet lies that is seen from it: as it is raised; at no height on top of what it is glued
 * onto, where it was not turned over. 0: under it.
 */
function sideOf(on: Rigid, isGluedOn: boolean): 1 | -1 | 0 {
  if (Math.abs(on[11]) > CONTACT_MM) return on[11] > 0 ? 1 : -1;
  return isGluedOn ? (on[10] > 0 ? 1 : -1) : 0;
}

/** How far a sheet reaches past a fold on both of its sides, where it reaches furthest, mm. */
function across(sheet: Polygon, seen: Rigid, fold: { readonly a: Vec2; readonly b: Vec2 }): number {
  const [a, b] = [fold.a, fold.b].map(([x, y]): Vec2 => {
    const [u, v] = applyRigid(seen, [x, y, 0]);
    return [u, v];
  });
  const length = dist2(a, b);
  const along = scale2(sub2(b, a), 1 / length);
  const over = commonStretches(stretchesInside(sheet, a, along), [{ from: 0, to: length }]);
  return over.reduce((most, { from, to }) => {
    const reaches = Array.from({ length: SAMPLES }, (_, k) => {
      const t = from + ((to - from) * (k + 0.5)) / SAMPLES;
      return reachBeside(sheet, lerp2(a, b, t / length), [-along[1], along[0]]);
    });
    return Math.max(most, Math.min(to - from, Math.max(...reaches)));
  }, 0);
}

/** How far the fold has turned towards what lies over it, degrees. */
export const turnedTowardsDeg = (pose: Pose, { crease, side }: OverFold): number => side * foldDeg(pose, crease);

/** How far it may turn before it meets what lies over it, degrees; what is stuck is met at once. */
export const metAtDeg = ({ lyingMm, acrossMm }: OverFold): number =>
  lyingMm === null ? 0 : radToDeg(Math.atan2(lyingMm, acrossMm));

/** Openings at which a sheet that is held on a face is seen lying there, degrees. */
const SEEN_AT_DEG = [180, 120, 60];
/** What the solver leaves of a place that does not change, mm or a sine, is far below this. */
const STAYS_WITHIN = 1e-4;

/** The body that a sheet lies on flat, all hands at rest, from where the card lies flat until it is nearly shut. */
function lyingOn(assembly: Assembly): (sheet: number) => { readonly body: number; readonly pose: Pose } | null {
  const { facets, mechanisms, drives } = assembly;
  const rest = restOf(drives);
  let known: readonly Pose[] | undefined;
  const posed = (): readonly Pose[] =>
    (known ??= SEEN_AT_DEG.filter((deg) => deg <= drives[0].to)
      .map((deg) => poseAt(assembly, moved(rest, OPEN, deg)))
      .filter((pose) => !pose.stop));
  return (sheet) => {
    const face = mechanisms.find((m) => m.id === facets[sheet].mechanism)?.face;
    const ground = face ? facets.findIndex((f) => f.id === face.facet && f.piece === face.piece) : -1;
    if (ground < 0 || facets[ground].body === facets[sheet].body) return null;
    const seen = posed().map((pose) => compose(invert(pose.placed[ground]), pose.placed[sheet]));
    if (seen.length === 0 || !isPlanar(seen[0])) return null;
    const stays = seen.every((s) => s.every((v, k) => Math.abs(v - seen[0][k]) < STAYS_WITHIN));
    return stays ? { body: facets[ground].body, pose: posed()[0] } : null;
  };
}
