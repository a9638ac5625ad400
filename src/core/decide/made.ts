/**
 * A card as it was made: the linkage with its creases beside where they are drawn and its parts glued a little
 * otherwise. It is posed near the pose of the design: paper takes up what does not close by bending, so the pose of
 * least gap at the same opening is taken, not a walk that would stop a hair before the card is shut.
 */
import { glued, linked, type Assembly, type Facet } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { ringsOf, type Polygon } from '../plane/polygon';
import {
  applyRigid,
  bentBy,
  carriedOn,
  compose,
  cross3,
  gapsOf,
  largestGap,
  leastBending,
  placeBodies,
  placeOnSheet,
  rotateOnly,
  scale3,
  turnAbout,
  type Joint,
  type Linkage,
  type Rigid,
  type Vec3,
} from '../linkage';
import type { Bond } from '../kinds';
import type { CreaseLine } from '../pattern/pattern';
import { distToSegment, lerp2, type Vec2 } from '../plane/vec2';
import { LOOP_ACCEPT_MM } from '../tolerance';
import { degToRad } from '../units/angle';
import type { Unjoined } from '../build/build';
import type { Astray } from './scatter';

export interface Made {
  readonly facets: readonly Facet[];
  readonly linkage: Linkage;
}
export interface MadePose {
  /** Placement of each facet's piece frame, by facet index. */
  readonly placed: readonly Rigid[];
  /** The same of its bodies. */
  readonly bodies: readonly Rigid[];
  /** What does not close, mm. */
  readonly gapMm: number;
}

/** A design made ready to be made: what does not change from card to card. */
export class Making {
  private readonly lines: ReadonlyMap<string, CreaseLine>;
  /** A facet on whose sheet the line of each joint lies, by joint. */
  private readonly facetOf: readonly number[];
  /** Whether each edge of a facet, in the order of its corners, is a crease; by facet. */
  private readonly isCrease: readonly (readonly boolean[])[];

  /** @param nominal the design as drawn, put together */
  constructor(
    private readonly parts: Unjoined,
    private readonly nominal: Assembly,
  ) {
    const { pieces, creases, facets, linkage } = nominal;
    this.lines = new Map(pieces.flatMap((p) => p.creases.map((c) => [c.id, c] as const)));
    const beside = new Map(creases.filter((c) => c.joint >= 0).map((c) => [c.joint, c.a]));
    this.facetOf = linkage.joints.map((j, k) => beside.get(k) ?? facets.findIndex((f) => f.body === j.a));
    this.isCrease = facets.map((f) => creaseEdges(f, pieces.find((p) => p.id === f.piece)?.creases ?? []));
  }

  card(astray: Astray): Made {
    const { laid } = this.parts;
    const bonds = laid.parts.bonds.map((b) => gluedAstray(b, laid.facets, laid.indexOf, astray));
    const isGlued = bonds.some((b, k) => b !== laid.parts.bonds[k]);
    const again = isGlued ? glued(laid, bonds) : null;
    const facets = again?.facets ?? this.nominal.facets;
    const linkage = again ? linked(again).linkage : this.nominal.linkage;
    const joints = linkage.joints.map((joint, k) => {
      const crease = this.lines.get(joint.id);
      return crease ? scoredAstray(joint, facets[this.facetOf[k]].toBody, crease, astray) : joint;
    });
    return { facets, linkage: { ...linkage, joints } };
  }

  /** Corners of a facet as drawn and with its cut edges off, in the axes of its piece. */
  corners(facet: number, astray: Astray): readonly { readonly drawn: Vec2; readonly made: Vec2 }[] {
    const { polygon, piece } = this.nominal.facets[facet];
    return cutCorners(polygon, astray.of('cut', piece), this.isCrease[facet]);
  }

  /** A facet with its cut edges off, in the axes of its piece. */
  outline(facet: number, astray: Astray): Polygon {
    const made = this.corners(facet, astray).map((c) => c.made);
    let first = 0;
    const [outer, ...holes] = ringsOf(this.nominal.facets[facet].polygon).map((ring) =>
      made.slice(first, (first += ring.length)),
    );
    return { outer, holes };
  }
}

/** The pose of least gap near that of the design, with the card as far open. */
export function madePose({ facets, linkage }: Made, near: Pose): MadePose {
  const { q } = near.folds;
  const rigid = placeBodies(linkage, q);
  const closes = largestGap(linkage, rigid).mm <= LOOP_ACCEPT_MM;
  const { bodies, gap } = closes ? { bodies: rigid, gap: { mm: 0 } } : leastBending(linkage, rigid, q);
  return { placed: facets.map((f) => compose(bodies[f.body], f.toBody)), bodies, gapMm: gap.mm };
}

/**
 * The same to first order, for a card that came out next to one whose bodies are known: where parts lie, and every gap,
 * mm.
 */
export function madeNear(
  { facets, linkage }: Made,
  near: Pose,
  beside: readonly Rigid[],
): { readonly placed: readonly Rigid[]; readonly gaps: readonly Vec3[] } {
  const { q } = near.folds;
  const bodies = bentBy(linkage, carriedOn(linkage, q, beside, placeBodies(linkage, q)), q);
  return { placed: facets.map((f) => compose(bodies[f.body], f.toBody)), gaps: gapsOf(linkage, bodies) };
}

/** A bond with the second piece shifted and turned in its own plane, about the middle of its facet. */
function gluedAstray(bond: Bond, facets: readonly Facet[], indexOf: ReadonlyMap<string, number>, astray: Astray): Bond {
  const [dx, dy] = [astray.of('glueX', bond.id), astray.of('glueY', bond.id)];
  const turn = degToRad(astray.of('glueTurn', bond.id));
  const facet = facets[indexOf.get(`${bond.b.piece}|${bond.b.facet}`) ?? -1];
  if (!facet || (dx === 0 && dy === 0 && turn === 0)) return bond;
  const [x, y] = middleOf(facet.polygon.outer);
  const shifted = compose(placeOnSheet([dx, dy], [1, 0]), turnAbout([x, y, 0], [0, 0, 1], turn));
  return { ...bond, placement: compose(bond.placement, shifted) };
}
function middleOf(ring: readonly Vec2[]): Vec2 {
  const sum = ring.reduce(([x, y], p) => [x + p[0], y + p[1]], [0, 0]);
  return [sum[0] / ring.length, sum[1] / ring.length];
}

/** A crease moved across itself and turned about its middle, within its sheet. */
function scoredAstray(joint: Joint, toBody: Rigid, crease: CreaseLine, astray: Astray): Joint {
  const [off, turn] = [astray.of('score', crease.id), degToRad(astray.of('fold', crease.id))];
  if (joint.motion.kind !== 'hinge' || (off === 0 && turn === 0)) return joint;
  const normal = rotateOnly(toBody, [0, 0, 1]);
  const along = rotateOnly(toBody, [crease.b[0] - crease.a[0], crease.b[1] - crease.a[1], 0]);
  const side = cross3(normal, along);
  const shift = scale3(side, off / Math.hypot(...side));
  const [mx, my] = lerp2(crease.a, crease.b, 0.5);
  const about = turnAbout(applyRigid(toBody, [mx, my, 0]), normal, turn);
  const move = (p: Vec3): Vec3 => {
    const [x, y, z] = applyRigid(about, p);
    return [x + shift[0], y + shift[1], z + shift[2]];
  };
  const { motion, span } = joint;
  return {
    ...joint,
    motion: { ...motion, point: move(motion.point), axis: rotateOnly(about, motion.axis) },
    span: [move(span[0]), move(span[1])],
  };
}

/**
 * Corners of a polygon whose cut edges lie off to their right by so much: outwards.
 * @param isCrease of the edge that begins at each corner
 */
function cutCorners(polygon: Polygon, off: number, isCrease: readonly boolean[]) {
  let first = 0;
  return ringsOf(polygon).flatMap((ring) => {
    const edgeOff = ring.map((_, k) => (isCrease[first + k] ? 0 : off));
    first += ring.length;
    return ring.map((drawn, k) => {
      const last = (k + ring.length - 1) % ring.length;
      const made = cornerOff(ring[last], drawn, ring[(k + 1) % ring.length], edgeOff[last], edgeOff[k]);
      return { drawn, made };
    });
  });
}

/** Sharper corners are not drawn out further than this, in parts of the offset. */
const MOST_DRAWN_OUT = 4;
/** Where the two edges of a corner meet when each lies so far to its right. */
function cornerOff(before: Vec2, at: Vec2, after: Vec2, first: number, second: number): Vec2 {
  if (first === 0 && second === 0) return at;
  const right = (a: Vec2, b: Vec2): Vec2 => {
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    return [(b[1] - a[1]) / long, -(b[0] - a[0]) / long];
  };
  const [m, n] = [right(before, at), right(at, after)];
  const det = m[0] * n[1] - m[1] * n[0];
  const most = MOST_DRAWN_OUT * Math.max(Math.abs(first), Math.abs(second));
  const [x, y] = [(first * n[1] - second * m[1]) / det, (second * m[0] - first * n[0]) / det];
  const far = Math.hypot(x, y);
  if (Number.isFinite(far) && far <= most) return [at[0] + x, at[1] + y];
  // Edges that go straight on, or nearly back: half of each.
  return [at[0] + (first * m[0] + second * n[0]) / 2, at[1] + (first * m[1] + second * n[1]) / 2];
}

/** Which edges of a facet run along creases of its piece, in the order of its corners. */
function creaseEdges({ polygon }: Pick<Facet, 'polygon'>, creases: readonly CreaseLine[]): boolean[] {
  const on = (p: Vec2, c: CreaseLine): boolean => distToSegment(p, c.a, c.b) < ON_CREASE_MM;
  return ringsOf(polygon).flatMap((ring) =>
    ring.map((p, k) => creases.some((c) => on(p, c) && on(ring[(k + 1) % ring.length], c))),
  );
}
const ON_CREASE_MM = 1e-3;
