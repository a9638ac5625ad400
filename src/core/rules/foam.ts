/**
 * `foam`: foam stays inside what it carries, off everything that moves, and is thick only where nothing folds over
 * it.
 */
import { CLOSED } from '../drives';
import type { Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import { intersect, offset, regionArea, regionBox, type Polygon, type Region } from '../plane/polygon';
import { carrierOf, faceName } from '../assembly/carrier';
import { bearsLoad } from './loads';
import { finding, leversOf, type Draft, type Evidence, type Finding, type Rule } from './rule';
import { postedPose } from './posted';
import { shutOutline } from './shut';
import { wordsFor } from './words';

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
  // Of a card that is sent open flat nothing is pressed shut over its foam.
  if (!assembly.leafBodies.has(facet.body) && !evidence.brief.sentOpen) {
    const where = `${say.mm(foamMm)} of foam on ${say.title(layer.mechanism)}, which folds inside the closed card`;
    const message = `${where}; parts that fold take flat adhesive only.`;
    out.push(of({ severity: 'blocks', measured: foamMm, aspect: 'moves', message }, 'foamMm'));
  } else if (lies) {
    const under = coveredBy(assembly, lies, layer);
    if (under.area > FROM_MM2) {
      const when = evidence.brief.sentOpen ? 'as it is sent' : 'when closed';
      const where = `lie where ${say.title(under.mechanism)} folds down on it ${when}`;
      const message = `${say.mm2(under.area)} of its foam ${where}.`;
      const draft = { severity: 'risk', measured: under.area, unit: 'mm2', aspect: 'under', message } as const;
      out.push(of(draft, 'x', 'y', 'foamMm'));
    }
  }
  return out;
}

/** Whether a facet lies on the side of the closed card that a layer is stuck on. */
function onItsSide(assembly: Assembly, layer: AttachedLayer, facet: number): boolean {
  const carrier = carrierOf(assembly, facet);
  return layer.side === 'outside'
    ? carrier === faceName(assembly.facets[layer.facet].id, 'outside')
    : !carrier?.endsWith(' outside');
}

/** Area of a layer's foam over which moving facets lie at the closed pose. */
function coveredBy(assembly: Assembly, closed: Pose, layer: AttachedLayer): { area: number; mechanism: string } {
  const inWorld = (i: number, p: Polygon): Polygon => shutOutline(closed, i, p);
  const patch: Region = layer.foam.map((p) => inWorld(layer.facet, p));
  const onLeaf = assembly.leafBodies.has(assembly.facets[layer.facet].body);
  let worst = { area: 0, mechanism: '' };
  assembly.facets.forEach((f, i) => {
    // What moves with it, and the tabs of its own piece, lie under it.
    const own = !onLeaf && f.piece === layer.piece;
    if (assembly.leafBodies.has(f.body) || own || !onItsSide(assembly, layer, i)) return;
    const area = regionArea(intersect(patch, offset([inWorld(i, f.polygon)], CLEARANCE_MM)));
    if (area > worst.area) worst = { area, mechanism: f.mechanism };
  });
  return worst;
}
