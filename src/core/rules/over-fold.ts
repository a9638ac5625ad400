/**
 * What is fixed on a facet, by glue of its own, and lies over a fold of something else there: that cannot turn.
 *
 *           panel ╱           ═══ fixed over the fold: the panel would have to go through it
 *     ═══════════╱═══
 *     ──────────●────  facet  A sheet that ends at the fold, or beside it, is only pressed when the card is shut.
 */
import { group } from 'd3-array';
import { foldDeg, type Pose } from '../assembly/pose';
import type { Crease, Facet } from '../assembly/assembly';
import { applyRigid, compose, invert, type Rigid } from '../linkage';
import { commonStretches, reachBeside, stretchesInside } from '../plane/chord';
import type { Polygon } from '../plane/polygon';
import { dist2, lerp2, scale2, sub2, type Vec2 } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { caliperOf, type Evidence } from './rule';

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
  const all = facets.flatMap((facet, sheet) =>
    (byBody.get(facet.body) ?? []).flatMap(({ crease, home, turning }): OverFold[] => {
      if (facet.piece === crease.piece || facet.mechanism === crease.mechanism) return [];
      const seen = compose(invert(facet.toBody), facets[home].toBody);
      const acrossMm = Math.max(0, ...crease.segments.map((s) => across(facet.polygon, seen, s)));
      // An edge that laps over by no more than paper is thick slips off.
      if (acrossMm <= caliperOf(evidence, facet) + CONTACT_MM) return [];
      const side = sideOf(facet, facets[home], onto.has(`${facet.piece} ${crease.piece}`));
      return side === 0 ? [] : [{ sheet, home, turning, crease, side, acrossMm }];
    }),
  );
  // Of several sheets of one thing over one fold the one that reaches furthest is told.
  const told = group(all, ({ sheet, crease }) => `${facets[sheet].mechanism} ${crease.id}`);
  return [...told.values()].map((same) => same.reduce((most, o) => (o.acrossMm > most.acrossMm ? o : most)));
}

/**
 * On which side of a piece a sheet lies: as it is raised; at no height it lies on top of what it is glued onto, where
 * it was not turned over. 0: under it.
 */
function sideOf(sheet: Facet, home: Facet, isGluedOn: boolean): 1 | -1 | 0 {
  const on = compose(invert(home.toBody), sheet.toBody);
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
