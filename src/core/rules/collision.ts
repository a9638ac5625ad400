/**
 * `collision`: no two sheets of paper pass through each other at any drive value, beyond paper thickness; what is
 * stuck on facets counts, and what it holds down.
 */
import { poseAt, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { CARD } from '../ids';
import { distinctPairs, depthOf, nearPairs, placePlates, platesOf, type Pair, type Placed, type Plate } from './plates';
import { bridges, covers, foldedUpDeg, liftedMm } from './held-down';
import { finding, leversOf, type Evidence, type Finding, type Lever, type Rule } from './rule';
import { atDeg, wordsFor } from './words';

export { piercings, platesOf } from './plates';
export { bridges } from './held-down';

/** Folding up to this much only bows what lies across the crease, degrees; common practice, no source. */
const BOWS_DEG = 5;

/** Worst of what one pair does over the travel, and the openings between which it does. */
interface Worst {
  readonly measure: number;
  readonly open: number;
  readonly from: number;
  readonly to: number;
}
function worsened(known: Worst | undefined, measure: number, open: number): Worst {
  const range = { from: Math.min(known?.from ?? 180, open), to: Math.max(known?.to ?? 0, open) };
  return known && known.measure >= measure ? { ...known, ...range } : { measure, open, ...range };
}
const between = ({ from, to }: Worst): string =>
  to - from > 1 ? ` (between ${from.toFixed(0)}° and ${to.toFixed(0)}°)` : '';

export const collision: Rule = {
  id: 'collision',
  needs: 'travel',
  check: (evidence) => [...pierced(evidence), ...bridged(evidence), ...covered(evidence)],
};

/** Between two poses of the travel pairs that come near each other are looked at this finely, degrees. */
const FINE_DEG = 1.25;

/** Pairs that pass through each other anywhere on the travel. */
function* hitsOfTravel(
  evidence: Evidence,
  plates: readonly Plate[],
): Generator<{ pair: Pair; depth: number; open: number }> {
  const { assembly, travel, rough } = evidence;
  let before: { pose: Pose; placed: Placed[] } | null = null;
  for (const pose of travel) {
    const placed = placePlates(plates, pose);
    for (const pair of nearPairs(assembly, plates, placed)) {
      const depth = depthOf(plates, placed, pair);
      if (depth === 0) continue;
      yield { pair, depth, open: pose.openDeg };
    }
    if (before && !rough) yield* hitsBetween(evidence, plates, before, { pose, placed });
    before = { pose, placed };
  }
}

/**
 * What passes between two neighbouring poses of the travel unseen: only pairs of different mechanisms that come
 * near.
 */
function* hitsBetween(
  { assembly }: Evidence,
  plates: readonly Plate[],
  from: { pose: Pose; placed: readonly Placed[] },
  to: { pose: Pose; placed: readonly Placed[] },
): Generator<{ pair: Pair; depth: number; open: number }> {
  const steps = Math.ceil((to.pose.openDeg - from.pose.openDeg) / FINE_DEG);
  if (steps < 2) return;
  const moved = to.placed.reduce((m, p, k) => Math.max(m, movedMm(from.placed[k], p)), 0);
  const pairs = [...nearPairs(assembly, plates, to.placed, moved)].filter((p) => distinctPairs(assembly, plates, p));
  if (pairs.length === 0) return;
  for (let k = 1; k < steps; k++) {
    const pose = poseAt(assembly, from.pose.openDeg + ((to.pose.openDeg - from.pose.openDeg) * k) / steps);
    if (pose.stop) return;
    const placed = placePlates(plates, pose);
    for (const pair of pairs) {
      const depth = depthOf(plates, placed, pair);
      if (depth > 0) yield { pair, depth, open: pose.openDeg };
    }
  }
}
const movedMm = (p: Placed, q: Placed): number =>
  Math.max(...[0, 1, 2].flatMap((k) => [Math.abs(p.min[k] - q.min[k]), Math.abs(p.max[k] - q.max[k])]));

const ownerOf = (assembly: Assembly, { facet, layer }: Plate): string => layer?.id ?? assembly.facets[facet].mechanism;

function pierced(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  const plates = platesOf(evidence);
  const owner = (p: Plate): string => ownerOf(assembly, p);
  const worst = new Map<string, Worst & { pair: Pair }>();
  for (const { pair, depth, open } of hitsOfTravel(evidence, plates)) {
    const key = pair
      .map((k) => owner(plates[k]))
      .sort()
      .join('|');
    const known = worst.get(key);
    const next = worsened(known, depth, open);
    worst.set(key, { ...next, pair: known && next.measure === known.measure ? known.pair : pair });
  }
  return [...worst.values()].map((w): Finding => {
    // A layer is what moves of the pair, then a mechanism, then the card.
    const rank = (p: Plate): number => (p.layer ? 2 : owner(p) === CARD ? 0 : 1);
    const [first, second] = [plates[w.pair[0]], plates[w.pair[1]]];
    const [mover, other] = rank(first) === 0 || second.layer ? [second, first] : [first, second];
    const name = (p: Plate): string => p.layer?.title ?? say.title(owner(p)).replace(/^The card$/, 'the card');
    const own = owner(mover) === owner(other);
    const through = own ? 'itself' : name(other);
    return finding({
      rule: 'collision',
      severity: 'blocks',
      mechanism: assembly.facets[mover.facet].mechanism,
      piece: assembly.facets[mover.facet].piece,
      measured: w.measure,
      open: w.open,
      span: { from: w.from, to: w.to },
      aspect: mover.layer ? `${owner(mover)} ${owner(other)}` : owner(other),
      message: `${name(mover)} passes ${say.mm(w.measure)} through ${through} ${atDeg(w.open)}${between(w)}.`,
      subjects: [mover, other].map((p) => p.layer?.id ?? assembly.facets[p.facet].id),
      levers: [...plateLevers(assembly, mover), ...(own || owner(other) === CARD ? [] : plateLevers(assembly, other))],
    });
  });
}

function plateLevers(assembly: Assembly, { facet, layer }: Plate): Lever[] {
  const own = leversOf(assembly.facets[facet].mechanism, 'offset', 'width', 'height', 'depth', 'size');
  return layer ? [...layerLevers(layer.id, false), ...own] : own;
}
const layerLevers = (id: string, acrossFirst: boolean): Lever[] =>
  leversOf(id, ...(acrossFirst ? ['y', 'height', 'x', 'width'] : ['x', 'y', 'width', 'height']));

function bridged(evidence: Evidence): Finding[] {
  const { assembly, travel } = evidence;
  const say = wordsFor(evidence);
  return bridges(evidence).flatMap((bridge): Finding[] => {
    const { layer, crease, onto, acrossMm } = bridge;
    const folded = travel.reduce<Worst | undefined>((known, pose) => {
      const up = foldedUpDeg(pose, bridge);
      return up > BOWS_DEG ? worsened(known, up, pose.openDeg) : known;
    }, undefined);
    if (!folded) return [];
    const [line] = crease.segments;
    const along = Math.abs(line.b[0] - line.a[0]) > Math.abs(line.b[1] - line.a[1]);
    const towards = `folds up to ${folded.measure.toFixed(0)}° towards it${between(folded)}`;
    return [
      finding({
        rule: 'collision',
        severity: 'blocks',
        mechanism: layer.mechanism,
        piece: layer.piece,
        measured: acrossMm,
        open: folded.open,
        span: { from: folded.from, to: folded.to },
        aspect: `${layer.id} ${crease.id}`,
        message:
          `${layer.title} lies ${say.mm(acrossMm)} across ${say.partOf(crease.id)}, ` +
          `stuck to one side of a crease that ${towards}.`,
        subjects: [layer.id, assembly.facets[onto].id, crease.id],
        levers: layerLevers(layer.id, along),
      }),
    ];
  });
}

function covered(evidence: Evidence): Finding[] {
  const { assembly, travel } = evidence;
  const say = wordsFor(evidence);
  return covers(evidence).flatMap((cover): Finding[] => {
    const { layer, over, slackMm } = cover;
    const lifted = travel.reduce<Worst | undefined>((known, pose) => {
      const up = liftedMm(evidence, pose, cover);
      return up > slackMm ? worsened(known, up, pose.openDeg) : known;
    }, undefined);
    if (!lifted) return [];
    const facet = assembly.facets[over];
    return [
      finding({
        rule: 'collision',
        severity: 'blocks',
        mechanism: facet.mechanism,
        piece: layer.piece,
        measured: lifted.measure,
        open: lifted.open,
        span: { from: lifted.from, to: lifted.to },
        aspect: `${layer.id} over ${facet.id}`,
        message:
          `${layer.title} lies over ${say.partOf(facet.id)} and holds it down: ` +
          `it would have to lift ${say.mm(lifted.measure)} through it${between(lifted)}.`,
        subjects: [layer.id, facet.id],
        levers: [...layerLevers(layer.id, false), ...leversOf(facet.mechanism, 'offset', 'width')],
      }),
    ];
  });
}
