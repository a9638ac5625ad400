/** `foam`: foam stays inside what it carries, off everything that moves, and is thick only where nothing folds over it. */
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer } from '../assembly/assembly';
import { intersect, offset, regionArea, ringArea, type Polygon, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { leversOf, mm, titleOf, type Evidence, type Finding, type Rule } from './rule';

/** Foam closer to the edge of what it carries peeks out once it is pressed; common practice, no source. */
export const LEAST_FOAM_INSET_MM = 1;
/** Moving parts keep this far off foam (mm); common practice, no source. */
const CLEARANCE_MM = 1;
/** Overlap below this is rounding (mm²). */
const FROM_MM2 = 1;

export const foam: Rule = {
  id: 'foam',
  needs: 'closed',
  check: (evidence) => evidence.assembly.layers.filter((l) => l.foamMm > 0).flatMap((l) => checkLayer(evidence, l)),
};

function checkLayer({ assembly, closed }: Evidence, layer: AttachedLayer): Finding[] {
  const out: Finding[] = [];
  const facet = assembly.facets[layer.facet];
  const add = (severity: Finding['severity'], measured: number, limit: number, unit: Finding['unit'], aspect: string, message: string, ...keys: string[]): void => {
    out.push({ rule: 'foam', severity, mechanism: layer.mechanism, piece: layer.piece, measured, limit, unit, drive: { open: 0 }, aspect: `${layer.id} ${aspect}`, message, subjects: [facet.id, layer.id], levers: leversOf(layer.id, ...keys) });
  };
  if (layer.foam.length === 0) {
    add('blocks', layer.foamInsetMm, 0, 'mm', 'none', `${layer.title}: foam set ${mm(layer.foamInsetMm)} inside its edge leaves no foam to hold it; set it in less, or stick it flat.`, 'foamInsetMm', 'foamMm');
    return out;
  }
  if (layer.foamInsetMm < LEAST_FOAM_INSET_MM) add('risk', layer.foamInsetMm, LEAST_FOAM_INSET_MM, 'mm', 'inset', `${layer.title}: its foam comes within ${mm(layer.foamInsetMm)} of the edge it carries and will peek out; keep it ${mm(LEAST_FOAM_INSET_MM)} inside.`, 'foamInsetMm', 'foamMm');
  // What sticks out past its facet has no paper under its foam.
  const beyond = regionArea(layer.foam) - regionArea(intersect(layer.foam, [facet.polygon]));
  if (beyond > FROM_MM2) add('risk', beyond, 0, 'mm2', 'beyond', `${layer.title}: ${beyond.toFixed(0)} mm² of its foam lie past ${facet.id} and would stick elsewhere.`, 'foamInsetMm', 'x', 'y', 'foamMm');
  if (!assembly.leafBodies.has(facet.body)) add('blocks', layer.foamMm, 0, 'mm', 'moves', `${layer.title}: ${mm(layer.foamMm)} of foam on ${titleOf(assembly, layer.mechanism)}, which folds inside the closed card; parts that fold take flat adhesive only.`, 'foamMm');
  else if (closed) {
    const under = coveredBy(assembly, closed, layer);
    if (under.area > FROM_MM2) add('risk', under.area, 0, 'mm2', 'under', `${layer.title}: ${under.area.toFixed(0)} mm² of its foam lie where ${titleOf(assembly, under.mechanism)} folds down on it when closed.`, 'x', 'y', 'foamMm');
  }
  return out;
}

/** Area of a layer's foam over which moving facets lie at the closed pose. */
function coveredBy(assembly: Assembly, closed: Pose, layer: AttachedLayer): { area: number; mechanism: string } {
  const inWorld = (i: number, p: Polygon): Polygon => {
    const ring = (r: readonly Vec2[]): readonly Vec2[] => r.map((q): Vec2 => {
      const [x, y] = onFacet(closed, i, q);
      return [x, y];
    });
    const turn = (r: readonly Vec2[], sign: 1 | -1): readonly Vec2[] => (ringArea(r) * sign > 0 ? r : [...r].reverse());
    return { outer: turn(ring(p.outer), 1), holes: p.holes.map((h) => turn(ring(h), -1)) };
  };
  const patch: Region = layer.foam.map((p) => inWorld(layer.facet, p));
  let worst = { area: 0, mechanism: '' };
  assembly.facets.forEach((f, i) => {
    if (assembly.leafBodies.has(f.body)) return;
    const area = regionArea(intersect(patch, offset([inWorld(i, f.polygon)], CLEARANCE_MM)));
    if (area > worst.area) worst = { area, mechanism: f.mechanism };
  });
  return worst;
}
