/** `foam`, moved by hand: no part of one mechanism comes to where another's foam lies over the same face. */
import { openOf, restOf } from '../drives';
import type { Facet } from '../assembly/assembly';
import { carrierOf, sameFace } from '../assembly/carrier';
import type { Pose } from '../assembly/pose';
import type { FoamPad } from '../kinds';
import { compose, invert, rotateOnly } from '../linkage';
import { boxesMeet, intersect, mapRegion, offset, regionArea, regionBox, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { FLAT_SINE } from './solids';
import { CLEARANCE_MM, FROM_MM2 } from './foam';
import { caliperOf, finding, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { atState, wordsFor } from './words';

export const foamSweep: Rule = {
  id: 'foam',
  needs: 'travel',
  check: (evidence) => {
    const worst = new Map<string, Met>();
    for (const met of meetings(evidence)) {
      const key = `${met.pad.id} ${met.mover.mechanism}`;
      const known = worst.get(key);
      if (!known || met.areaMm2 > known.areaMm2 || met.nearMm2 > known.nearMm2) worst.set(key, met);
    }
    return [...worst.values()].map((met) => told(evidence, met));
  },
};

/** A part that comes into another mechanism's foam. */
interface Met {
  readonly pad: FoamPad;
  readonly owner: string;
  readonly mover: Facet;
  /** Of the foam it comes into, and comes near. */
  readonly areaMm2: number;
  readonly nearMm2: number;
  readonly pose: Pose;
}

function* meetings(evidence: Evidence): Generator<Met> {
  const { assembly, byHand } = evidence;
  const { facets, drives } = assembly;
  const rest = restOf(drives);
  const pads = assembly.foam.flatMap((pad) => {
    const facet = facets.findIndex((f) => f.piece === pad.piece && f.id === pad.facet);
    const face = facet < 0 ? null : carrierOf(assembly, facet);
    return face ? [{ pad, facet, face, box: regionBox(offset(pad.region, CLEARANCE_MM)) }] : [];
  });
  if (pads.length === 0) return;
  const faces = facets.map((_, k) => carrierOf(assembly, k));
  // Over one face the opening changes nothing between them.
  for (const pose of byHand.filter((p) => openOf(p.state) === drives[0].to)) {
    if (drives.slice(1).every((d) => pose.state[d.id] === rest[d.id])) continue;
    for (const { pad, facet, face, box } of pads)
      for (const [k, mover] of facets.entries()) {
        const owner = facets[facet].mechanism;
        if (mover.mechanism === owner || !sameFace(faces[k], face)) continue;
        const region = inAxesOf(evidence, pose, facet, k, pad.thickMm);
        if (region.length === 0 || !boxesMeet(box, regionBox(region))) continue;
        const nearMm2 = regionArea(intersect(pad.region, offset(region, CLEARANCE_MM)));
        if (nearMm2 <= FROM_MM2) continue;
        yield { pad, owner, mover, nearMm2, areaMm2: regionArea(intersect(pad.region, region)), pose };
      }
  }
}

/** A facet in the axes of the foam's, where it lies at the foam's height; empty where it does not. */
function inAxesOf(evidence: Evidence, pose: Pose, foam: number, mover: number, thickMm: number): Region {
  const { facets } = evidence.assembly;
  const between = compose(invert(pose.placed[foam]), pose.placed[mover]);
  const normal = rotateOnly(between, [0, 0, 1]);
  if (Math.hypot(normal[0], normal[1]) > FLAT_SINE) return [];
  const half = caliperOf(evidence, facets[mover]) / 2;
  const from = caliperOf(evidence, facets[foam]) / 2;
  const lap = Math.min(between[11] + half, from + thickMm) - Math.max(between[11] - half, from);
  if (lap < CONTACT_MM) return [];
  return mapRegion(
    [facets[mover].polygon],
    ([x, y]): Vec2 => [between[0] * x + between[1] * y + between[3], between[4] * x + between[5] * y + between[7]],
    normal[2] < 0,
  );
}

function told(evidence: Evidence, { pad, owner, mover, areaMm2, nearMm2, pose }: Met): Finding {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  const blocks = areaMm2 > FROM_MM2;
  const there = blocks
    ? `${say.mm2(areaMm2)} of its foam lie where ${say.partOf(mover.id)} moves`
    : `its foam lies within ${say.mm(CLEARANCE_MM)} of where ${say.partOf(mover.id)} moves`;
  return finding({
    rule: 'foam',
    severity: blocks ? 'blocks' : 'risk',
    mechanism: owner,
    piece: pad.piece,
    measured: blocks ? areaMm2 : nearMm2,
    unit: 'mm2',
    at: pose.state,
    aspect: `${pad.id} swept by ${mover.mechanism}`,
    message: `${say.title(owner)}: ${there}, ${atState(pose.state, say.title)}.`,
    subjects: [pad.facet, mover.id],
    levers: [owner, mover.mechanism].flatMap((m) => turnsOf(assembly, m, 'place', 'size', 'stops')),
  });
}
