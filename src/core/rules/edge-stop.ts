/**
 * `stands`, where an edge stops a foot: it is looked for where the foot comes to rest.
 *
 *              ╱ flap, its foot on the ground
 *     hinge   ╱ ┌──────── what stops it: its edge faces the foot,
 *     ───────┴──┴──────── and it is as tall as that is thick
 *            stop   > fore edge
 *
 * A foot slides toward the fore edge, so paper on its hinge side stops nothing.
 */
import type { Footing } from '../kinds';
import { applyRigid, compose, invert, type Rigid } from '../linkage';
import { contains } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CONTACT_MM } from '../tolerance';
import { caliperOf, finding, leversOf, type Evidence, type Finding, type Rule } from './rule';
import { isPlanar, solidsOf, type Solid } from './solids';
import { wordsFor } from './words';

/** An edge this near to where the foot is to rest stops it there (mm); common practice, no source. */
const NEAR_MM = 0.5;
/** Of the foot's length an edge has to hold this part; common practice, no source. */
export const HELD_PART = 0.25;
/** Places along the foot at which an edge is looked for. */
const PLACES = 400;

export const edgeStop: Rule = {
  id: 'stands',
  needs: 'pattern',
  check: (evidence) =>
    evidence.assembly.mechanisms.flatMap((m) => (m.footings ?? []).flatMap((f) => checkFooting(evidence, m.id, f))),
};

/** What lies before a foot, in mm of its length. */
interface Stopped {
  readonly holdsMm: number;
  readonly lowMm: number;
  readonly wrongSideMm: number;
}

function checkFooting(evidence: Evidence, mechanism: string, footing: Footing): Finding[] {
  const { assembly } = evidence;
  const { piece, facet, stopMm, halfMm, tallMm } = footing;
  const ground = assembly.facets.findIndex((f) => f.piece === piece && f.id === facet);
  if (ground < 0) return [];
  const { holdsMm, lowMm, wrongSideMm } = lookBefore(evidence, ground, footing);
  const limit = 2 * halfMm * HELD_PART;
  if (holdsMm >= limit) return [];
  const say = wordsFor(evidence);
  const lacks =
    lowMm > holdsMm
      ? `what lies there is not as tall as its foot, ${say.fine(tallMm)}`
      : holdsMm > 0
        ? `an edge holds only ${say.mm(holdsMm)} of it; it needs ${say.mm(limit)}`
        : wrongSideMm > 0
          ? 'what lies there is on the hinge side of it'
          : 'no edge lies there';
  const stuck = assembly.layers.filter((l) => l.facet === ground);
  return [
    finding({
      rule: 'stands',
      severity: 'blocks',
      mechanism,
      piece,
      measured: holdsMm,
      limit,
      aspect: `${footing.aspect}edge`,
      message:
        `${say.title(mechanism)}: nothing stops the foot of ${say.part(footing.foot)} ` +
        `at ${say.mm(stopMm)}: ${lacks}.`,
      subjects: [facet, footing.foot, ...stuck.map((l) => l.id)],
      levers: [...leversOf(mechanism, footing.lever), ...stuck.flatMap((l) => leversOf(l.id, 'y', 'x', 'width'))],
    }),
  ];
}

function lookBefore(evidence: Evidence, ground: number, { stopMm, halfMm, tallMm }: Footing): Stopped {
  const top = caliperOf(evidence, evidence.assembly.facets[ground]) / 2;
  const lying = liesOn(evidence, ground);
  const heightAt = (at: Vec2): number => {
    let reached = top;
    for (const { fromMm, toMm, polygon, toSolid } of lying) {
      if (fromMm > reached + CONTACT_MM || toMm <= reached) continue;
      const [x, y] = applyRigid(toSolid, [...at, 0]);
      if (contains(polygon, [x, y])) reached = toMm;
    }
    return reached - top;
  };
  const step = (2 * halfMm) / PLACES;
  let [holdsMm, lowMm, wrongSideMm] = [0, 0, 0];
  for (let k = 0; k < PLACES; k++) {
    const x = -halfMm + (k + 0.5) * step;
    const [before, behind] = [heightAt([x, stopMm + NEAR_MM]), heightAt([x, stopMm - NEAR_MM])];
    if (behind > CONTACT_MM) wrongSideMm += step;
    else if (before >= tallMm - CONTACT_MM) holdsMm += step;
    else if (before > CONTACT_MM) lowMm += step;
  }
  return { holdsMm, lowMm, wrongSideMm };
}

interface Lying extends Pick<Solid, 'fromMm' | 'toMm' | 'polygon'> {
  /** From the ground's axes to those of its own piece. */
  readonly toSolid: Rigid;
}
/** What is one with the ground and lies flat over it, lowest first; heights over the middle of the ground's sheet. */
function liesOn(evidence: Evidence, ground: number): Lying[] {
  const { facets } = evidence.assembly;
  const { body, toBody } = facets[ground];
  return solidsOf(evidence)
    .flatMap((s, k): Lying[] => {
      if (k === ground || facets[s.facet].body !== body) return [];
      const seen = compose(invert(toBody), facets[s.facet].toBody);
      if (!isPlanar(seen)) return [];
      const [a, b] = [s.fromMm, s.toMm].map((h) => seen[11] + Math.sign(seen[10]) * h);
      return [{ fromMm: Math.min(a, b), toMm: Math.max(a, b), polygon: s.polygon, toSolid: invert(seen) }];
    })
    .sort((a, b) => a.fromMm - b.fromMm);
}
