/** Layers that hold down what must lift: stuck to one facet and lying over another of the same sheet. */
import { foldDeg, type Pose } from '../assembly/pose';
import type { Assembly, AttachedLayer, Crease } from '../assembly/assembly';
import { ownerOfId } from '../ids';
import { applyRigid, compose, invert } from '../linkage';
import { boxesMeet, intersect, offset, regionBox, type Region } from '../plane/polygon';
import { distToLine, sideOf } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { caliperOf, type Evidence } from './rule';

/** A layer across a crease of its own facet: in the way when the crease folds up towards it. */
export interface Bridge {
  readonly layer: AttachedLayer;
  readonly crease: Crease;
  /** Facet on the far side of the crease, by index. */
  readonly onto: number;
  /** How far the layer lies across the crease, mm. */
  readonly acrossMm: number;
  /** Its adhesive reaches across it too. */
  readonly glued: boolean;
}

export function bridges({ assembly, brief }: Pick<Evidence, 'assembly' | 'brief'>): Bridge[] {
  return assembly.layers.flatMap((layer) =>
    assembly.creases.flatMap((crease): Bridge[] => {
      if (crease.piece !== layer.piece || (crease.a !== layer.facet && crease.b !== layer.facet)) return [];
      const onto = crease.a === layer.facet ? crease.b : crease.a;
      const [line] = crease.segments;
      if (!line || onto === layer.facet) return [];
      const over = intersect(layer.region, [assembly.facets[onto].polygon]).flatMap((p) => p.outer);
      // Beside the crease, on the facet's own side of its line, it swings up with the facet.
      const far = onto === crease.b ? 1 : -1;
      const acrossMm = over.reduce(
        (most, p) => (sideOf(line.a, line.b, p) * far > 0 ? Math.max(most, distToLine(p, line.a, line.b)) : most),
        0,
      );
      const glued = intersect(layer.glue, [assembly.facets[onto].polygon]).length > 0;
      const bears = brief.stock(layer.stock).caliperMm + CONTACT_MM;
      return acrossMm > bears ? [{ layer, crease, onto, acrossMm, glued }] : [];
    }),
  );
}

/**
 * How far a crease has folded up towards the layer that lies over it, degrees; of a crease that a hand folds, how far
 * it has folded either way, where what lies across it is stuck to both its sides.
 */
export function foldedUpDeg({ drives }: Assembly, pose: Pose, { crease, layer, glued }: Bridge): number {
  const deg = foldDeg(pose, crease);
  return glued && drives.some((d) => ownerOfId(d.id) === crease.mechanism) ? Math.abs(deg) : towards(layer) * deg;
}
/** What goes towards a layer of the inside goes away from one of the outside. */
const towards = ({ side }: AttachedLayer): 1 | -1 => (side === 'inside' ? 1 : -1);

/** A layer over paper of another body, across a cut. */
export interface Cover {
  readonly layer: AttachedLayer;
  /** Facet it lies over, by index. */
  readonly over: number;
  readonly region: Region;
  /** What that facet may lift before the layer stops it, mm: what their paper gives. */
  readonly slackMm: number;
}

/** Layers that lie over facets which neither carry them nor are joined to their own by a crease. */
export function covers(evidence: Pick<Evidence, 'assembly' | 'brief'>): Cover[] {
  const { assembly, brief } = evidence;
  return assembly.layers.flatMap((layer) => {
    const box = regionBox(layer.region);
    const { body } = assembly.facets[layer.facet];
    const joined = new Set(
      assembly.creases.flatMap((c) => (c.a === layer.facet ? [c.b] : c.b === layer.facet ? [c.a] : [])),
    );
    return assembly.facets.flatMap((facet, over): Cover[] => {
      if (facet.piece !== layer.piece || facet.body === body || joined.has(over)) return [];
      if (!boxesMeet(box, regionBox([facet.polygon]))) return [];
      const slackMm = brief.stock(layer.stock).caliperMm + caliperOf(evidence, facet) + CONTACT_MM;
      // An edge that laps over by no more than paper is thick slips off.
      const region = offset(intersect(layer.region, [facet.polygon]), -slackMm / 2);
      return region.length > 0 ? [{ layer, over, region, slackMm }] : [];
    });
  });
}

/** How far what a layer lies over has risen through the layer's facet towards it, mm; below 0 it has sunk. */
export function liftedMm(evidence: Pick<Evidence, 'assembly'>, pose: Pose, { layer, over, region }: Cover): number {
  const seen = compose(invert(pose.placed[layer.facet]), pose.placed[over]);
  return region
    .flatMap((p) => p.outer)
    .reduce((most, [x, y]) => Math.max(most, towards(layer) * applyRigid(seen, [x, y, 0])[2]), -Infinity);
}
