/**
 * What is stuck over an opening: it hides what shows there (`covered`), and where something moves behind, its adhesive
 * takes hold of that (`bind`).
 *
 *          ▒▒▒▒▒▒▒▒▒▒▒▒▒▒   a layer over the edge of an opening
 *     ══════════╗    ╔════  the facet that it is stuck on
 *             ━━━━━━━━━━    what moves behind, or shows
 */
import type { AttachedLayer } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { carrierOf } from '../assembly/carrier';
import { boxesMeet, intersect, regionArea, regionBox, subtract, type Region } from '../plane/polygon';
import { movedFacets, pathsOf, type HandPath } from './looks';
import { overIn, sameHeight, seenOver } from './meeting';
import { HIDDEN_FROM_MM2 } from '../tolerance';
import { finding, leversOf, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { solidsOf } from './solids';
import { wordsFor } from './words';

/** What moves further behind an opening than this is not reached by what is stuck over it, mm; no source. */
const REACHED_MM = 3;

/** What is cut out of the facet that a layer is stuck on. */
const openingsUnder = ({ assembly }: Evidence, { facet }: AttachedLayer): Region =>
  assembly.facets[facet].polygon.holes.map((ring) => ({ outer: [...ring].reverse(), holes: [] }));

/** Windows of what is fixed on a face, and those cut by hand, where something is stuck over them. */
export const hides: Rule = {
  id: 'covered',
  needs: 'pattern',
  check: (evidence) => {
    const { assembly } = evidence;
    const say = wordsFor(evidence);
    return assembly.layers.flatMap((layer): Finding[] => {
      const openings = openingsUnder(evidence, layer);
      const hidden = openings.length === 0 ? 0 : regionArea(intersect(layer.region, openings));
      if (hidden <= HIDDEN_FROM_MM2) return [];
      const facet = assembly.facets[layer.facet];
      const all = regionArea(openings) - hidden <= HIDDEN_FROM_MM2;
      // Paper behind a window that it fills is what shows there.
      const behind = layer.side === 'outside' && !carrierOf(assembly, layer.facet);
      return [
        finding({
          rule: 'covered',
          severity: all && behind ? 'note' : 'risk',
          mechanism: layer.mechanism,
          piece: layer.piece,
          measured: hidden,
          unit: 'mm2',
          aspect: `${layer.id} over`,
          message: `${layer.title} hides ${say.mm2(hidden)} of what shows through ${say.partOf(facet.id)}.`,
          subjects: [layer.id, facet.id],
          levers: leversOf(layer.id, 'x', 'y', 'width', 'height'),
        }),
      ];
    });
  },
};

/** What is stuck on one facet and reaches over another that a hand moves behind it. */
export const stuckToMover: Rule = {
  id: 'bind',
  needs: 'travel',
  check: (evidence) => {
    const { assembly, byHand } = evidence;
    const flat = pathsOf(assembly, byHand).filter((p) => p.open === assembly.drives[0].to);
    return flat.flatMap((path) => assembly.layers.flatMap((layer) => gluedIn(evidence, path, layer)));
  },
};

function gluedIn(evidence: Evidence, path: HandPath, layer: AttachedLayer): Finding[] {
  const { assembly } = evidence;
  const own = assembly.facets[layer.facet];
  const paper = assembly.facets.flatMap((f) => (f.piece === own.piece ? [f.polygon] : []));
  const bare = subtract(layer.glue, paper);
  if (regionArea(bare) <= HIDDEN_FROM_MM2) return [];
  let worst: { readonly areaMm2: number; readonly facet: number; readonly pose: Pose } | null = null;
  for (const facet of movedFacets(path.poses)) {
    // What folds or lifts out of its own sheet is asked by `collision`: it is held down across a crease or a cut.
    if (assembly.facets[facet].body === own.body || assembly.facets[facet].piece === own.piece) continue;
    for (const pose of path.poses) {
      const areaMm2 = behind(evidence, path.poses[0], pose, layer, bare, facet);
      if (areaMm2 > (worst?.areaMm2 ?? HIDDEN_FROM_MM2)) worst = { areaMm2, facet, pose };
    }
  }
  if (!worst) return [];
  const say = wordsFor(evidence);
  const mover = assembly.facets[worst.facet];
  return [
    finding({
      rule: 'bind',
      severity: 'blocks',
      mechanism: mover.mechanism,
      piece: mover.piece,
      measured: worst.areaMm2,
      unit: 'mm2',
      at: worst.pose.state,
      aspect: `${path.drive.id} glued to ${layer.id}`,
      message:
        `${layer.title} reaches ${say.mm2(worst.areaMm2)} over ${say.partOf(mover.id)}, which moves behind it: ` +
        `its adhesive would hold that.`,
      subjects: [layer.id, mover.id],
      levers: [
        ...leversOf(layer.id, 'x', 'trimmed'),
        ...turnsOf(assembly, mover.mechanism, 'stops'),
        ...leversOf(layer.id, 'y', 'width', 'height'),
      ],
    }),
  ];
}

/** How much of what a layer has no paper under lies over a sheet that keeps its height close behind, mm². */
function behind(evidence: Evidence, rest: Pose, pose: Pose, layer: AttachedLayer, bare: Region, facet: number): number {
  const solids = solidsOf(evidence);
  const [p, q] = [solids[layer.facet], solids[facet]];
  const over = overIn(pose, p, q);
  if (!over || !sameHeight(over, overIn(rest, p, q))) return 0;
  const sign = layer.side === 'outside' ? -1 : 1;
  const depthMm = sign > 0 ? p.fromMm - over.toMm : over.fromMm - p.toMm;
  if (depthMm < -(p.toMm - p.fromMm) || depthMm > REACHED_MM) return 0;
  const there = seenOver(q, over);
  return boxesMeet(regionBox(bare), regionBox(there)) ? regionArea(intersect(bare, there)) : 0;
}
