/** Where the weight of a card lies in a pose: its paper, what is stuck on it, foam, spacers and rivets. */
import type { Pose } from '../assembly/pose';
import { add3, applyRigid, scale3, type Vec3 } from '../linkage';
import { BOARD_DENSITY, BRASS_DENSITY, FOAM_DENSITY } from '../paper/weights';
import { regionArea, type Region } from '../plane/polygon';
import { centreOfArea } from '../shapes/axis';
import type { Evidence } from './rule';
import { solidsOf, type Solid } from './solids';

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

const known = new WeakMap<Seen['assembly'], readonly Part[]>();
function partsOf(evidence: Seen): readonly Part[] {
  const parts = known.get(evidence.assembly) ?? solidsOf(evidence).map(partOf(gramsOf(evidence)));
  known.set(evidence.assembly, parts);
  return parts;
}
const partOf =
  (gramsPerMm2: (s: Solid) => number) =>
  (s: Solid): Part => ({
    facet: s.facet,
    region: s.polygon.outer.length > 0 ? [s.polygon] : [],
    heightMm: (s.fromMm + s.toMm) / 2,
    gramsPerMm2: gramsPerMm2(s),
  });

function gramsOf({ assembly, brief }: Seen): (s: Solid) => number {
  const stocks = new Map(assembly.pieces.map((p) => [p.id, p.stock]));
  return ({ stuff, facet, layer, fromMm, toMm }) => {
    if (stuff === 'sheet') return paper(brief.stock(stocks.get(assembly.facets[facet].piece)!).gsm);
    if (stuff === 'layer') return paper(brief.stock(layer!.stock).gsm);
    return sheetOf(DENSITY[stuff], toMm - fromMm);
  };
}
const DENSITY = { foam: FOAM_DENSITY, spacer: BOARD_DENSITY, token: BOARD_DENSITY, rivet: BRASS_DENSITY } as const;
