/** Where the weight of a card lies in a pose: its paper, what is stuck on it, foam, spacers and rivets. */
import type { AttachedLayer } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { add3, applyRigid, scale3, type Vec3 } from '../linkage';
import { BOARD_DENSITY, BRASS_DENSITY, FOAM_DENSITY } from '../paper/weights';
import { regionArea, type Region } from '../plane/polygon';
import { centreOfArea } from '../shapes/axis';
import { caliperOf, type Evidence } from './rule';

export interface Weight {
  readonly grams: number;
  /** Centre of mass, world axes, mm. */
  readonly at: Vec3;
}

type Seen = Pick<Evidence, 'assembly' | 'brief'>;

/** A flat part of even thickness: its region in the axes of a facet's piece, its middle at a height over that. */
interface Part {
  readonly facet: number;
  readonly region: Region;
  readonly heightMm: number;
  readonly gramsPerMm2: number;
}

/** Grams of a square millimetre of paper. */
const paper = (gsm: number): number => gsm * 1e-6;
/** Grams of a square millimetre of so much of a material, mg/mm³. */
const sheetOf = (density: number, thickMm: number): number => density * thickMm * 1e-3;

/** @param counts which facets count, with all that is on them; every one unless said */
export function weightAt(evidence: Seen, pose: Pose, counts: (facet: number) => boolean = () => true): Weight {
  let grams = 0;
  let moment: Vec3 = [0, 0, 0];
  for (const { facet, region, heightMm, gramsPerMm2 } of partsOf(evidence)) {
    if (!counts(facet)) continue;
    const own = gramsPerMm2 * regionArea(region);
    if (own === 0) continue;
    const [x, y] = centreOfArea(region);
    grams += own;
    moment = add3(moment, scale3(applyRigid(pose.placed[facet], [x, y, heightMm]), own));
  }
  return { grams, at: grams > 0 ? scale3(moment, 1 / grams) : [0, 0, 0] };
}

const known = new WeakMap<Seen['assembly'], Part[]>();
function partsOf(evidence: Seen): readonly Part[] {
  const parts = known.get(evidence.assembly) ?? [
    ...facetParts(evidence),
    ...layerParts(evidence),
    ...fillParts(evidence),
  ];
  known.set(evidence.assembly, parts);
  return parts;
}

function facetParts({ assembly, brief }: Seen): Part[] {
  const stockOf = new Map(assembly.pieces.map((p) => [p.id, p.stock]));
  // What a shared sheet takes the place of is not cut.
  const cutWith = new Set(assembly.pieces.flatMap((p) => (p.cutWith ? [p.id] : [])));
  return assembly.facets.flatMap((f, facet): Part[] =>
    cutWith.has(f.piece)
      ? []
      : [{ facet, region: [f.polygon], heightMm: 0, gramsPerMm2: paper(brief.stock(stockOf.get(f.piece)!).gsm) }],
  );
}

/** Mats and layers over each other, each with its foam under it. */
function layerParts(evidence: Seen): Part[] {
  const { assembly, brief } = evidence;
  const tops = new Map<string, number>();
  return [...assembly.layers]
    .sort((a, b) => a.order - b.order)
    .flatMap((layer): Part[] => {
      const place = `${layer.facet} ${layer.side}`;
      const { caliperMm, gsm } = brief.stock(layer.stock);
      const ground = caliperOf(evidence, assembly.facets[layer.facet]) / 2;
      const under = tops.get(place) ?? ground;
      const foamTop = under + layer.foamMm;
      tops.set(place, foamTop + caliperMm);
      const part = (region: Region, heightMm: number, gramsPerMm2: number): Part => ({
        facet: layer.facet,
        region,
        heightMm: upOf(layer) * heightMm,
        gramsPerMm2,
      });
      return [
        part(layer.region, foamTop + caliperMm / 2, paper(gsm)),
        // One more like it on the other face of the paper.
        ...(layer.doubled ? [part(layer.region, -(ground + caliperMm / 2), paper(gsm))] : []),
        part(layer.foam, under + layer.foamMm / 2, sheetOf(FOAM_DENSITY, layer.foamMm)),
      ];
    });
}
const upOf = ({ side }: AttachedLayer): 1 | -1 => (side === 'outside' ? -1 : 1);

/** Foam between sheets, spacers, rivets and tokens. */
function fillParts(evidence: Seen): Part[] {
  const { assembly } = evidence;
  const foam = assembly.foam.map((pad) => ({ ...pad, fromMm: null, look: 'foam' as const }));
  return [...foam, ...assembly.fillers].flatMap(({ piece, facet: id, region, fromMm, thickMm, look }): Part[] => {
    const facet = assembly.facets.findIndex((f) => f.piece === piece && f.id === id);
    if (facet < 0) return [];
    const from = fromMm ?? caliperOf(evidence, assembly.facets[facet]) / 2;
    const gramsPerMm2 = sheetOf(DENSITY[look], thickMm);
    return [{ facet, region, heightMm: from + thickMm / 2, gramsPerMm2 }];
  });
}
const DENSITY = { foam: FOAM_DENSITY, spacer: BOARD_DENSITY, token: BOARD_DENSITY, rivet: BRASS_DENSITY } as const;
