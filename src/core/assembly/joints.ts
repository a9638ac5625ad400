/** Creases as joints of the linkage: collinear stretches between the same two bodies are one joint. */
import { applyRigid, compose, creaseMotion, invert, type Joint, type Rigid } from '../linkage';
import type { FlatHinge } from '../pattern/facets';
import type { CreaseLine } from '../pattern/pattern';
import { dot2, lerp2, sub2, type Vec2 } from '../plane/vec2';
import type { Bend } from '../kinds';
import { stripBeside } from './bends';
import type { Crease, Facet, FlatPatterns, Parts } from './parts';

export function makeJoints(
  parts: Parts,
  flat: FlatPatterns,
  facets: readonly Facet[],
  indexOf: ReadonlyMap<string, number>,
): { creases: Crease[]; joints: Joint[] } {
  const joints: Joint[] = [];
  const jointOf = new Map<string, number>();
  const key = (id: string, a: Facet, b: Facet): string =>
    `${id}|${Math.min(a.body, b.body)}|${Math.max(a.body, b.body)}`;
  const add = (from: Vec2, to: Vec2, a: Facet, b: Facet, crease: CreaseLine): number => {
    joints.push(jointAlong(from, to, a, b, crease, drivenBy(parts, crease)));
    jointOf.set(key(crease.id, a, b), joints.length - 1);
    return joints.length - 1;
  };

  // The lead turns even where its crease is wholly taken up by what stands on it.
  const lead = parts.pieces.flatMap((p) => p.creases).find((c) => c.id === parts.lead.crease)!;
  const leadPiece = parts.hosts.get(parts.lead.crease)!.piece;
  const still = indexOf.get(`${leadPiece}|${parts.lead.still}`);
  const turning = indexOf.get(`${leadPiece}|${parts.lead.turning}`);
  // Facet b is on the left: the leaf that turns lies on the right of the gutter's own direction.
  if (still !== undefined && turning !== undefined && facets[still].body !== facets[turning].body)
    add(lead.b, lead.a, facets[still], facets[turning], lead);

  const creases = parts.pieces.flatMap((piece) => {
    const pattern = flat.get(piece.id)!;
    const facetOf = (local: number): number => indexOf.get(`${piece.id}|${pattern.facets[local].id}`)!;
    return pattern.hinges.map((hinge): Crease => {
      const [a, b] = [facetOf(hinge.a), facetOf(hinge.b)];
      const bend = (parts.bends ?? []).find((other) => other.creases.includes(hinge.crease.id));
      if (bend) return besideBend(hinge, piece.id, a, b, bend, facets);
      const joint =
        facets[a].body === facets[b].body
          ? -1
          : (jointOf.get(key(hinge.crease.id, facets[a], facets[b])) ??
            add(...endsOf(hinge), facets[a], facets[b], hinge.crease));
      const { id, role, mechanism } = hinge.crease;
      return { id, role, mechanism, piece: piece.id, segments: hinge.segments, a, b, joint };
    });
  });
  return { creases, joints: withFollowers(parts, creases, joints) };
}

/** What bends is no part of the linkage: its crease turns as its curve says. */
function besideBend(
  { crease, segments }: FlatHinge,
  piece: string,
  a: number,
  b: number,
  bend: Bend,
  facets: readonly Facet[],
): Crease {
  const strip = stripBeside(facets, bend, crease.id);
  const { id, role, mechanism } = crease;
  const sides = facets[a].bent ? { a: strip, b } : { a, b: strip };
  return { id, role, mechanism, piece, segments, ...sides, joint: -1, bend: bend.id };
}

/**
 * Where a hinge begins and ends, on the line of its crease: welded with an outline that runs beside it, the corners of
 * its facets may be WELD_MM off that line, and a loop of such axes closes that much too late.
 */
function endsOf({ crease, segments }: FlatHinge): [Vec2, Vec2] {
  const along = sub2(crease.b, crease.a);
  const onCrease = (p: Vec2): Vec2 => lerp2(crease.a, crease.b, dot2(sub2(p, crease.a), along) / dot2(along, along));
  return [onCrease(segments[0].a), onCrease(segments[segments.length - 1].b)];
}

/** Index of the opening among the drives. */
const OPENING = 0;

/** The gutter, and creases of the base that open with it. */
const opens = ({ lead, base }: Parts, { id, ends, mechanism }: CreaseLine): boolean =>
  (id === lead.crease && !lead.follows) || (ends[0] === Math.PI && ends[1] === 0 && mechanism === base.mechanism);

/** What turns a crease: the opening, a drive of its own, or nothing; then it is solved for. */
function drivenBy(parts: Parts, crease: CreaseLine): Joint['driven'] {
  const role = crease.role === 'valley' ? 1 : -1;
  const { drive } = crease;
  if (drive) {
    const k = (parts.drives ?? []).findIndex((d) => d.id === drive.id);
    return { drive: k + 1, at: role * drive.at, rate: role * drive.rate };
  }
  return opens(parts, crease) ? { drive: OPENING, at: 0, rate: role } : undefined;
}

/** What a crease stands on leads its stiffness, where that turns too. */
function withFollowers(parts: Parts, creases: readonly Crease[], joints: readonly Joint[]): Joint[] {
  const follow = new Map<string, number>();
  creases.forEach((c) => c.joint >= 0 && follow.set(c.id, c.joint));
  const standsOn = new Map(parts.pieces.flatMap((p) => p.creases.map((c) => [c.id, c.standsOn] as const)));
  return joints.map((j) => {
    const host = standsOn.get(j.id);
    return host === undefined || host === parts.lead.crease || !follow.has(host)
      ? j
      : { ...j, follows: follow.get(host) };
  });
}

function jointAlong(from: Vec2, to: Vec2, a: Facet, b: Facet, crease: CreaseLine, driven: Joint['driven']): Joint {
  const sheet = creaseMotion(from, to) as Extract<Joint['motion'], { kind: 'hinge' }>;
  const axis: readonly [number, number, number] = [
    a.toBody[0] * sheet.axis[0] + a.toBody[1] * sheet.axis[1],
    a.toBody[4] * sheet.axis[0] + a.toBody[5] * sheet.axis[1],
    a.toBody[8] * sheet.axis[0] + a.toBody[9] * sheet.axis[1],
  ];
  const inBody = (p: Vec2): readonly [number, number, number] => applyRigid(a.toBody, [p[0], p[1], 0]);
  const role = crease.role === 'valley' ? 1 : -1;
  return {
    id: crease.id,
    a: a.body,
    b: b.body,
    motion: { kind: 'hinge', point: inBody(from), axis },
    placement: sameFrame(a.toBody, b.toBody) ? null : compose(a.toBody, invert(b.toBody)),
    role,
    ends: crease.ends,
    span: [inBody(from), inBody(to)],
    ...(driven ? { driven } : {}),
  };
}

const sameFrame = (a: Rigid, b: Rigid): boolean => a.every((x, i) => x === b[i]);
