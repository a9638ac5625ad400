/**
 * `covered`, of rivets: a head holds by the paper all round it. An opening that it reaches into shows it, and one that
 * it falls into holds nothing; the hole that it goes through is no opening.
 *
 *          ▂▂▂▂▂▂▂▂        head of the rivet
 *     ════════╡╞═══   ╔═   its sheet: the hole, then a window cut beside it
 */
import { contains, distanceToEdge, regionBox, subtract, type Polygon } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { finding, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { solidsOf, type Solid } from './solids';
import { wordsFor } from './words';

/** Round edges are drawn by chords that lie inside them by less than this, mm. */
const FROM_MM = 0.01;

export const rivetsHold: Rule = {
  id: 'covered',
  needs: 'pattern',
  check: (evidence) =>
    solidsOf(evidence)
      .filter((s) => s.stuff === 'rivet' && !saidByItsKind(evidence, s))
      .flatMap((head) => held(evidence, head)),
};

/** A kind asks of the windows that it cuts itself. */
const saidByItsKind = ({ assembly }: Evidence, { facet }: Solid): boolean =>
  assembly.mechanisms.some(
    ({ id, demands }) =>
      id === assembly.facets[facet].mechanism &&
      demands.some((d) => d.ofRivet && d.measured < d.least - SIZE_ROUNDING_MM),
  );

function held(evidence: Evidence, head: Solid): Finding[] {
  const { assembly } = evidence;
  const facet = assembly.facets[head.facet];
  const { min, max } = regionBox([head.polygon]);
  const middle: Vec2 = [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2];
  const radius = (max[0] - min[0]) / 2;
  const paper = assembly.facets.filter((f) => f.piece === facet.piece).map((f) => f.polygon);
  const bare = subtract([head.polygon], paper).filter((part) => !isItsHole(part, middle, radius));
  const intoMm = Math.max(0, ...bare.map((part) => radius - nearestMm(part, middle)));
  if (intoMm <= FROM_MM) return [];
  const say = wordsFor(evidence);
  const falls = head.polygon.outer.every((p) => !paper.some((part) => contains(part, p)));
  return [
    finding({
      rule: 'covered',
      severity: falls ? 'blocks' : 'risk',
      mechanism: facet.mechanism,
      piece: facet.piece,
      measured: intoMm,
      limit: 0,
      aspect: `rivet in ${facet.id} at ${middle.map((v) => v.toFixed(2)).join(' ')}`,
      message: falls
        ? `A rivet of ${say.title(facet.mechanism)} falls through an opening of ${say.partOf(facet.id)}: its head is ` +
          `${say.mm(2 * radius)} wide.`
        : `The head of a rivet of ${say.title(facet.mechanism)} reaches ${say.mm(intoMm)} into an opening of ` +
          `${say.partOf(facet.id)}.`,
      subjects: [facet.id],
      levers: turnsOf(assembly, facet.mechanism, 'place', 'size'),
    }),
  ];
}

/** What a rivet goes through lies under its head whole. */
const isItsHole = ({ outer }: Polygon, middle: Vec2, radius: number): boolean =>
  contains({ outer, holes: [] }, middle) &&
  outer.every(([x, y]) => Math.hypot(x - middle[0], y - middle[1]) < radius - SIZE_ROUNDING_MM);

const nearestMm = (part: Polygon, p: Vec2): number => (contains(part, p) ? 0 : distanceToEdge(part, p));
