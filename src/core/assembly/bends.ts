/**
 * Paper that bends (`Bend`) as many narrow strips, each flat: so every rule and picture sees it as it sees facets. It
 * is no part of the linkage: where its ends are follows from the pose, and its curve from that.
 */
import type { Bend } from '../kinds';
import {
  add3,
  applyRigid,
  bowed,
  cross3,
  dot3,
  norm3,
  rotateOnly,
  scale3,
  sub3,
  unit3,
  type Bow,
  type Rigid,
  type Vec3,
} from '../linkage';
import type { FlatFacet } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import { intersect, rectangle, regionBox } from '../plane/polygon';
import type { Assembly, Facet } from './parts';

/** Strips that one bend is posed in: an even number, so that it can lie folded in its middle. */
const STRIPS = 32;

/** A facet as it is; what bends, as its strips from the high end to the low one. */
export function bentStrips(
  bends: readonly Bend[],
  piece: Piece,
  facet: FlatFacet,
): (FlatFacet & Pick<Facet, 'bent'>)[] {
  const bend = bends.find((b) => b.piece === piece.id && b.facet === facet.id);
  if (!bend) return [facet];
  const { lengthMm, id } = bend;
  const { min, max } = regionBox([facet.polygon]);
  return Array.from({ length: STRIPS }, (_, k) => {
    const [fromMm, toMm] = [(k * lengthMm) / STRIPS, ((k + 1) * lengthMm) / STRIPS];
    const band = rectangle(min[0] - 1, lengthMm / 2 - toMm, max[0] + 1, lengthMm / 2 - fromMm);
    return { band, bent: { bend: id, fromMm, toMm } };
  }).flatMap(({ band, bent }, k) =>
    intersect([facet.polygon], [{ outer: band, holes: [] }]).map((polygon, n) => ({
      ...facet,
      id: `${facet.id}-${k + 1}${n === 0 ? '' : `-${n + 1}`}`,
      polygon,
      bent,
    })),
  );
}

/** The strip that begins where a bend has its middle. */
export const middleStrip = (facets: readonly Pick<Facet, 'bent'>[], bend: string): number => {
  const own = facets.flatMap((f, i) => (f.bent?.bend === bend ? [i] : []));
  return own[own.length >> 1] ?? -1;
};

/** The strip of a bend that one of its creases runs along. */
export function stripBeside(facets: readonly Facet[], { id, creases }: Bend, crease: string): number {
  const at = crease === creases[0] ? (f: Facet) => f.bent!.fromMm : (f: Facet) => -f.bent!.toMm;
  return facets.reduce((best, f, i) => {
    if (f.bent?.bend !== id) return best;
    return best < 0 || at(f) < at(facets[best]) ? i : best;
  }, -1);
}

/** Bodies that are tied to the card, those of strips among them: their ends tie them. */
export function tiedBends(facets: readonly Facet[], tied: ReadonlySet<number>): ReadonlySet<number> {
  return new Set([...tied, ...facets.flatMap((f) => (f.bent ? [f.body] : []))]);
}

/** What bends, in a pose. */
export interface PosedBow {
  readonly bow: Bow;
  /** Fold of its two creases, rad. */
  readonly foldRad: number;
}

/** Puts the strips of every bend where its curve is, among the placements of the facets. */
export function placeBends(assembly: Pick<Assembly, 'facets' | 'bends'>, placed: Rigid[]): Map<string, PosedBow> {
  const out = new Map<string, PosedBow>();
  for (const bend of assembly.bends) {
    const ends = bend.ends.map((id) => assembly.facets.findIndex((f) => f.piece === bend.piece && f.id === id));
    if (ends.some((i) => i < 0)) continue;
    const { bow, foldRad, place } = curveOf(bend, placed[ends[0]], placed[ends[1]]);
    assembly.facets.forEach((f, i) => {
      if (f.bent?.bend === bend.id) placed[i] = place(f.bent.fromMm, f.bent.toMm);
    });
    out.set(bend.id, { bow, foldRad });
  }
  return out;
}

/** The curve between two posed ends, and where a strip of it lies. */
function curveOf(
  { lengthMm, from }: Bend,
  high: Rigid,
  low: Rigid,
): PosedBow & { readonly place: (fromMm: number, toMm: number) => Rigid } {
  const along = rotateOnly(high, [1, 0, 0]);
  const [start, end] = [applyRigid(high, [from, lengthMm / 2, 0]), applyRigid(low, [from, -lengthMm / 2, 0])];
  // Away from where it is glued, on what that lies on.
  const outward: readonly Vec3[] = [rotateOnly(high, [0, -1, 0]), rotateOnly(low, [0, 1, 0])];
  const across = (v: Vec3): Vec3 => sub3(v, scale3(along, dot3(v, along)));
  const chord = across(sub3(end, start));
  // Shut, its lines lie on each other: what lies between them is seen from the way both leaves run.
  const up = rotateOnly(high, [0, 0, -1]);
  const chordMm = norm3(chord);
  const x = chordMm > NO_CHORD_MM ? unit3(chord) : up;
  const y = unit3(cross3(x, along));
  const mostRad = Math.max(...outward.map((u, k) => Math.acos(clamp((k === 0 ? 1 : -1) * dot3(u, x)))));
  const bow = bowed(lengthMm, chordMm, mostRad);
  const middle = add3(start, scale3(x, chordMm / 2));
  const inSpace = (alongMm: number): Vec3 => {
    const [u, v] = bow.at(alongMm);
    return add3(middle, add3(scale3(x, u), scale3(y, v)));
  };
  const place = (fromMm: number, toMm: number): Rigid => {
    const [p, q] = [inSpace(fromMm), inSpace(toMm)];
    // From the high end to the low one its piece's y falls.
    const fall = sub3(p, q);
    const ey = norm3(fall) > NO_CHORD_MM ? unit3(fall) : outward[0];
    const ez = cross3(along, ey);
    // A chord is a hair shorter than its strip: each is held at the end that is nearer to its glue.
    const [held, alongMm] = fromMm + toMm <= lengthMm ? [p, fromMm] : [q, toMm];
    const at = sub3(held, add3(scale3(along, from), scale3(ey, lengthMm / 2 - alongMm)));
    return Float64Array.of(
      ...[along[0], ey[0], ez[0], at[0]],
      ...[along[1], ey[1], ez[1], at[1]],
      ...[along[2], ey[2], ez[2], at[2]],
    );
  };
  return { bow, foldRad: bow.endRad - mostRad, place };
}

/** Lines this near to each other lie together, mm. */
const NO_CHORD_MM = 1e-9;
const clamp = (c: number): number => Math.min(1, Math.max(-1, c));
