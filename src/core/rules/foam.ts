/**
 * `foam`: foam stays inside what it carries, off everything that moves, and is thick only where nothing folds over
 * it.
 */
import { CLOSED, openTo, type State } from '../drives';
import { poseAt, type Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import type { FoamPad, Side } from '../kinds';
import { applyRigid, compose, invert, type Rigid } from '../linkage';
import {
  contains,
  insidePoint,
  intersect,
  offset,
  regionArea,
  regionBox,
  type Polygon,
  type Region,
} from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { centreOfArea } from '../shapes/axis';
import { CONTACT_MM } from '../tolerance';
import { carrierOf, sameFace, type FaceOf } from '../assembly/carrier';
import { bearsLoad } from './loads';
import {
  caliperOf,
  finding,
  isBase,
  leversOf,
  turnsOf,
  type Draft,
  type Evidence,
  type Finding,
  type Rule,
} from './rule';
import { postedPose } from './posted';
import { shutOutline } from './shut';
import { atState, wordsFor } from './words';

/** Foam closer to the edge of what it carries peeks out once it is pressed; common practice, no source. */
export const LEAST_FOAM_INSET_MM = 1;
/** Moving parts keep this far off foam (mm); common practice, no source. */
export const CLEARANCE_MM = 1;
/** Overlap below this is rounding (mm²). */
export const FROM_MM2 = 1;

export const foam: Rule = {
  id: 'foam',
  needs: 'closed',
  check: (evidence) => [
    ...evidence.assembly.layers.filter((l) => l.foamMm > 0).flatMap((l) => checkLayer(evidence, l)),
    ...underLoad(evidence),
    ...leftOut(evidence),
    ...evidence.assembly.foam.flatMap((pad) => checkPad(evidence, pad)),
  ],
};

/** Foam as the adhesive of what shears or folds: its two sides slide on each other until it tears. */
function underLoad(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  return assembly.pieces.flatMap((piece) =>
    piece.glue
      .filter((glue) => glue.adhesive === 'foam' && bearsLoad(assembly, piece))
      .map(({ id, mechanism, thickMm = 0, facet }) =>
        finding({
          rule: 'foam',
          severity: 'blocks',
          mechanism,
          piece: piece.id,
          measured: thickMm,
          at: CLOSED,
          aspect: `${id} glued`,
          message:
            `${say.title(mechanism)}: ${say.part(id)} is stuck with ${say.mm(thickMm)} of foam where it folds; ` +
            `parts that fold take flat adhesive only.`,
          subjects: [id, facet],
        }),
      ),
  );
}

/** Foam between sheets that falls apart into strips too narrow to cut: they are left out, and named. */
function leftOut(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  return assembly.foam
    .filter((pad) => pad.leftOut.length > 0)
    .map((pad) => {
      const { length } = pad.leftOut;
      const mechanism = assembly.facets.find((f) => f.piece === pad.piece)?.mechanism ?? assembly.base.mechanism;
      const strips = length === 1 ? 'one strip' : `${length} strips`;
      const { min, max } = regionBox(pad.leftOut);
      const place = say.place([(min[0] + max[0]) / 2, (min[1] + max[1]) / 2]);
      return finding({
        rule: 'foam',
        severity: 'note',
        mechanism,
        piece: pad.piece,
        measured: regionArea(pad.leftOut),
        unit: 'mm2',
        at: CLOSED,
        aspect: `${pad.id} left out`,
        message: `${say.title(mechanism)}: ${strips} of its foam near ${place}, too narrow to cut, are left out.`,
        subjects: [pad.facet],
      });
    });
}

function checkLayer(evidence: Evidence, layer: AttachedLayer): Finding[] {
  const { assembly } = evidence;
  const lies = postedPose(evidence);
  const say = wordsFor(evidence);
  const facet = assembly.facets[layer.facet];
  const of = (
    draft: Pick<Draft, 'severity' | 'measured' | 'limit' | 'unit' | 'aspect' | 'message'>,
    ...keys: string[]
  ) =>
    finding({
      ...draft,
      rule: 'foam',
      mechanism: layer.mechanism,
      piece: layer.piece,
      at: CLOSED,
      aspect: `${layer.id} ${draft.aspect}`,
      message: `${layer.title}: ${draft.message}`,
      subjects: [facet.id, layer.id],
      levers: leversOf(layer.id, ...keys),
    });
  const { foamMm, foamInsetMm } = layer;
  if (layer.foam.length === 0) {
    const message =
      `foam set ${say.mm(foamInsetMm)} inside its edge leaves no foam to hold it; set ` +
      `it in less, or stick it flat.`;
    return [of({ severity: 'blocks', measured: foamInsetMm, aspect: 'none', message }, 'foamInsetMm', 'foamMm')];
  }
  const out: Finding[] = [];
  if (foamInsetMm < LEAST_FOAM_INSET_MM) {
    const limit = LEAST_FOAM_INSET_MM;
    const peeks = `its foam comes within ${say.mm(foamInsetMm)} of the edge it carries and will peek out`;
    const message = `${peeks}; keep it ${say.mm(limit)} inside.`;
    out.push(of({ severity: 'risk', measured: foamInsetMm, limit, aspect: 'inset', message }, 'foamInsetMm', 'foamMm'));
  }
  // What sticks out past its facet has no paper under its foam.
  const beyond = regionArea(layer.foam) - regionArea(intersect(layer.foam, [facet.polygon]));
  if (beyond > FROM_MM2) {
    const message = `${say.mm2(beyond)} of its foam lie past ${say.partOf(facet.id)} and would stick elsewhere.`;
    const draft = { severity: 'risk', measured: beyond, unit: 'mm2', aspect: 'beyond', message } as const;
    out.push(of(draft, 'foamInsetMm', 'x', 'y', 'foamMm'));
  }
  const met = meetsOnTheWay(evidence, layer);
  if (met) {
    const where = `comes within ${say.fine(met.gapMm)} of it ${atState(met.state, say.title)}`;
    const message = `${say.fine(foamMm)} of foam, and ${say.partOf(met.facet)} ${where}; stick it flat there.`;
    out.push(of({ severity: 'blocks', measured: foamMm, limit: met.gapMm, aspect: 'moves', message }, 'foamMm'));
  }
  const under = lies && !met && pressedOn(evidence, lies, layer);
  if (under && under.area > FROM_MM2) {
    const when = evidence.brief.sentOpen ? 'as it is sent' : 'when closed';
    const where = `lie where ${say.title(under.mechanism)} folds down on it ${when}`;
    const message = `${say.mm2(under.area)} of its foam ${where}.`;
    const draft = { severity: 'risk', measured: under.area, unit: 'mm2', aspect: 'under', message } as const;
    out.push(of(draft, 'x', 'y', 'foamMm'));
  }
  return out;
}

/** Foam of a kind, where something of another mechanism folds down on it: as with what is stuck on by hand. */
function checkPad(evidence: Evidence, pad: FoamPad): Finding[] {
  const { assembly } = evidence;
  const lies = postedPose(evidence);
  const facet = assembly.facets.findIndex((f) => f.piece === pad.piece && f.id === pad.facet);
  if (!lies || facet < 0) return [];
  const say = wordsFor(evidence);
  const { mechanism } = assembly.facets[facet];
  // What is fixed over the same face lies on the panel that this foam carries: its height is its own design.
  const face = carrierOf(assembly, facet);
  const side = face?.side ?? 'inside';
  const under = coveredBy(assembly, lies, { facet, side, foam: pad.region, own: mechanism, besides: face });
  if (under.area <= FROM_MM2) return [];
  const when = evidence.brief.sentOpen ? 'as it is sent' : 'when closed';
  return [
    finding({
      rule: 'foam',
      severity: 'risk',
      mechanism,
      piece: pad.piece,
      measured: under.area,
      unit: 'mm2',
      at: CLOSED,
      aspect: `${pad.id} under ${under.mechanism}`,
      message:
        `${say.title(mechanism)}: ${say.mm2(under.area)} of its ${say.fine(pad.thickMm)} of foam lie where ` +
        `${say.title(under.mechanism)} folds down on it ${when}.`,
      subjects: [pad.facet],
      levers: [
        ...turnsOf(assembly, mechanism, 'place', 'size'),
        ...leversOf(mechanism, pad.lever),
        ...turnsOf(assembly, under.mechanism, 'place', 'away', 'along'),
      ],
    }),
  ];
}

/** Openings at which foam may not be met: nearer to shut all that faces each other is near. Degrees. */
const ON_THE_WAY = [60, 90, 120, 150, 180] as const;

/** What comes nearest to a layer on foam while the card is open, nearer than that is high; null where nothing does. */
function meetsOnTheWay(
  evidence: Evidence,
  layer: AttachedLayer,
): { readonly facet: string; readonly gapMm: number; readonly state: State } | null {
  const { assembly } = evidence;
  const own = assembly.facets[layer.facet];
  // What lies still on a leaf is met by what a hand or the opening moves: `collision` and `foam` of those say so.
  if (assembly.leafBodies.has(own.body)) return null;
  const sign = layer.side === 'outside' ? -1 : 1;
  const ground = caliperOf(evidence, own) / 2;
  const middles = layer.foam.map((p) => {
    const centre = centreOfArea([p]);
    return contains(p, centre) ? centre : insidePoint(p);
  });
  const places = [...layer.foam.flatMap((p) => p.outer), ...middles];
  // Beside a crease both its sides are near each other: there the middle of the foam counts.
  const hinged = new Set(
    assembly.creases
      .flatMap((c) => (c.a === layer.facet ? [c.b] : c.b === layer.facet ? [c.a] : []))
      .map((f) => assembly.facets[f].body),
  );
  let nearest: { facet: string; gapMm: number; state: State } | null = null;
  for (const open of ON_THE_WAY) {
    const pose = poseAt(assembly, openTo(open));
    if (pose.stop || pose.flexMm > 0) continue;
    for (const [k, facet] of assembly.facets.entries()) {
      if (facet.body === own.body) continue;
      const seen = compose(invert(pose.placed[k]), pose.placed[layer.facet]);
      for (const at of hinged.has(facet.body) ? middles : places) {
        const gapMm = gapAbove(seen, facet.polygon, at, sign) - ground - caliperOf(evidence, facet) / 2;
        if (gapMm < layer.foamMm - CONTACT_MM && gapMm > -CONTACT_MM && gapMm < (nearest?.gapMm ?? Infinity))
          nearest = { facet: facet.id, gapMm: Math.max(0, gapMm), state: pose.state };
      }
    }
  }
  return nearest;
}

/**
 * How far up over a place of one sheet another lies, mm; Infinity where it is not over it.
 * @param seen from the first sheet's axes to the other's
 * @param sign 1: up is the inside of the first; -1: its outside
 */
function gapAbove(seen: Rigid, other: Polygon, [x, y]: Vec2, sign: 1 | -1): number {
  const [, , z] = applyRigid(seen, [x, y, 0]);
  const rise = sign * seen[10];
  // Along the normal the other's plane is met where its height is used up.
  const gap = -z / rise;
  if (!(gap > 0) || !Number.isFinite(gap)) return Infinity;
  const [u, v] = applyRigid(seen, [x, y, sign * gap]);
  return contains(other, [u, v]) ? gap : Infinity;
}

/** Area of a layer's foam on which something folds down as the card is shut. */
const pressedOn = ({ assembly }: Evidence, closed: Pose, layer: AttachedLayer): { area: number; mechanism: string } =>
  coveredBy(assembly, closed, {
    ...{ facet: layer.facet, side: layer.side, foam: layer.foam },
    // What one mechanism folds of itself lies on its own foam by design; a base is more than one mechanism.
    own:
      isBase(assembly, layer.mechanism) || assembly.leafBodies.has(assembly.facets[layer.facet].body)
        ? null
        : layer.mechanism,
  });

/** Foam on a facet; of `own` nothing presses on it. */
interface OnFacet {
  readonly facet: number;
  readonly side: Side;
  readonly foam: Region;
  readonly own: string | null;
  /** Nor does what is carried by this face. */
  readonly besides?: FaceOf | null;
}

/** Whether a facet lies on the side of the closed card that foam is on. */
function onItsSide(assembly: Assembly, { facet: on, side }: OnFacet, facet: number): boolean {
  const carrier = carrierOf(assembly, facet);
  const base = carrierOf(assembly, on) ?? { facet: assembly.facets[on].id, side };
  return side === 'outside' ? sameFace(carrier, base) : carrier?.side !== 'outside';
}

/** Area of foam over which moving facets lie at the closed pose. */
function coveredBy(assembly: Assembly, closed: Pose, on: OnFacet): { area: number; mechanism: string } {
  const inWorld = (i: number, p: Polygon): Polygon => shutOutline(closed, i, p);
  const patch: Region = on.foam.map((p) => inWorld(on.facet, p));
  const { body } = assembly.facets[on.facet];
  let worst = { area: 0, mechanism: '' };
  assembly.facets.forEach((f, i) => {
    if (assembly.leafBodies.has(f.body) || f.body === body || f.mechanism === on.own) return;
    if (!onItsSide(assembly, on, i) || (on.besides && sameFace(carrierOf(assembly, i), on.besides))) return;
    const area = regionArea(intersect(patch, offset([inWorld(i, f.polygon)], CLEARANCE_MM)));
    if (area > worst.area) worst = { area, mechanism: f.mechanism };
  });
  return worst;
}
