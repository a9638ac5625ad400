/**
 * `collision`: no two sheets of paper pass through each other at any drive value, beyond paper thickness; what is
 * stuck on facets counts, and what it holds down.
 */
import { betweenStates, OPEN, openOf, type State } from '../drives';
import { poseAt, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { CARD, ownerOfId } from '../ids';
import {
  depthOf,
  distinctPairs,
  nearPairs,
  placePlate,
  placePlates,
  platesOf,
  sweptBox,
  type Pair,
  type Placed,
  type Plate,
} from './plates';
import { byHandOf } from './by-hand';
import { bendingGives } from './hand-solids';
import { handStops } from './hand-stops';
import { raisedHits } from './raised';
import { samePlaces } from './same-place';
import { bridges, covers, foldedUpDeg, liftedMm } from './held-down';
import { metAtDeg, overFolds, turnedTowardsDeg } from './over-fold';
import type { Turn } from '../kinds';
import { finding, leversOf, turnsOf, type Evidence, type Finding, type Lever, type Rule } from './rule';
import { atState, wordsFor } from './words';

export { piercings, platesOf } from './plates';
export { bridges } from './held-down';

/** Folding up to this much only bows what lies across the crease, degrees; common practice, no source. */
const BOWS_DEG = 5;

/** Worst of what one pair does over the travel, and the openings between which it does. */
interface Worst {
  readonly measure: number;
  readonly at: State;
  readonly from: number;
  readonly to: number;
}
function worsened(known: Worst | undefined, measure: number, at: State): Worst {
  const open = openOf(at);
  const range = { from: Math.min(known?.from ?? 180, open), to: Math.max(known?.to ?? 0, open) };
  return known && known.measure >= measure ? { ...known, ...range } : { measure, at, ...range };
}
/** Worst of a measure over every pose that was looked at; undefined where it never passes what may be. */
const worstOf = ({ travel, byHand, named }: Evidence, of: (pose: Pose) => number, beyond: number): Worst | undefined =>
  [...travel, ...byHand, ...named].reduce<Worst | undefined>((known, pose) => {
    const measure = of(pose);
    return measure > beyond ? worsened(known, measure, pose.state) : known;
  }, undefined);
const between = ({ from, to }: Worst): string =>
  to - from > 1 ? ` (between ${from.toFixed(0)}° and ${to.toFixed(0)}°)` : '';

export const collision: Rule = {
  id: 'collision',
  needs: 'travel',
  check: (evidence) => [...pierced(evidence), ...stuckOver(evidence), ...bridged(evidence), ...covered(evidence)],
};

/** Between two poses of the travel pairs that come near each other are looked at this finely, degrees. */
const FINE_DEG = 1.25;

/** Paper or hardware that takes part in a collision: of a facet, or stuck on one. */
type Party = Pick<Plate, 'facet' | 'layer'>;
const of = (plates: readonly Plate[], [a, b]: Pair): readonly [Party, Party] => [plates[a], plates[b]];

/** Two that meet, how deep, and whether a hand moves one of them. */
interface Meeting {
  readonly pair: readonly [Party, Party];
  readonly depth: number;
  readonly at: State;
  readonly byHand?: boolean;
}

/** Whether a pair that crosses by so much does so for certain, as far as its paper bends in a pose. */
function certain(assembly: Assembly, plates: readonly Plate[], pose: Pose): (pair: Pair, depthMm: number) => boolean {
  const gives = bendingGives(assembly, pose);
  return ([a, b], depthMm) => depthMm > gives(plates[a], plates[b]);
}

/** Pairs that pass through each other anywhere on the travel. */
function* hitsOfTravel(evidence: Evidence, plates: readonly Plate[]): Generator<Meeting> {
  const { assembly, travel, rough } = evidence;
  let before: { pose: Pose; placed: Placed[] } | null = null;
  for (const pose of travel) {
    const placed = placePlates(plates, pose);
    const isCertain = certain(assembly, plates, pose);
    for (const pair of nearPairs(assembly, plates, placed)) {
      const depth = depthOf(plates, placed, pair, openOf(pose.state));
      if (isCertain(pair, depth)) yield { pair: of(plates, pair), depth, at: pose.state };
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
): Generator<Meeting> {
  const steps = Math.ceil((openOf(to.pose.state) - openOf(from.pose.state)) / FINE_DEG);
  if (steps < 2) return;
  const swept = to.placed.map((p, k) => sweptBox(from.placed[k], p));
  const pairs = [...nearPairs(assembly, plates, swept)].filter((p) => distinctPairs(assembly, plates, p));
  if (pairs.length === 0) return;
  const asked = [...new Set(pairs.flat())];
  for (let k = 1; k < steps; k++) {
    const pose = poseAt(assembly, betweenStates(from.pose.state, to.pose.state, k / steps));
    if (pose.stop) return;
    const placed: Placed[] = [];
    for (const i of asked) placed[i] = placePlate(plates[i], pose);
    const isCertain = certain(assembly, plates, pose);
    for (const pair of pairs) {
      const depth = depthOf(plates, placed, pair, openOf(pose.state));
      if (isCertain(pair, depth)) yield { pair: of(plates, pair), depth, at: pose.state };
    }
  }
}

/** What passes through what in a state that is named, hands at rest: it may be on nobody's way. */
function* hitsOfNamed({ assembly, named }: Evidence, plates: readonly Plate[]): Generator<Meeting> {
  const handsAtRest = ({ state }: Pose): boolean =>
    assembly.drives.every((d) => d.id === OPEN || state[d.id] === d.rest);
  for (const pose of named.filter(handsAtRest)) {
    const placed = placePlates(plates, pose);
    const isCertain = certain(assembly, plates, pose);
    for (const pair of nearPairs(assembly, plates, placed)) {
      const depth = depthOf(plates, placed, pair, openOf(pose.state));
      if (isCertain(pair, depth)) yield { pair: of(plates, pair), depth, at: pose.state };
    }
  }
}

const ownerOf = (assembly: Assembly, { facet, layer }: Party): string => layer?.id ?? assembly.facets[facet].mechanism;

function* hitsOf(evidence: Evidence, plates: readonly Plate[]): Generator<Meeting> {
  yield* hitsOfTravel(evidence, plates);
  yield* hitsOfNamed(evidence, plates);
  for (const { pair, depthMm, at } of raisedHits(evidence, evidence.travel)) yield { pair, depth: depthMm, at };
  for (const { pair, lapMm, at } of samePlaces(evidence)) yield { pair: of(plates, pair), depth: lapMm, at };
  for (const { pair, depthMm, at } of byHandOf(evidence).hits) yield { pair, depth: depthMm, at, byHand: true };
}

/** Worst of all meetings of two things. */
interface Told extends Worst, Pick<Meeting, 'pair' | 'byHand'> {
  /** Whether a hand stops there by itself, wherever they meet. */
  readonly stops: boolean;
}
const facetsOf = (pair: Meeting['pair']): number[] => pair.map((p) => p.facet);

function pierced(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  const plates = platesOf(evidence);
  const owner = (p: Party): string => ownerOf(assembly, p);
  const worst = new Map<string, Told>();
  for (const { pair, depth, at, byHand } of hitsOf(evidence, plates)) {
    const names = pair.map(owner).sort();
    // What meets as the card is opened needs no hand for it.
    if (byHand && worst.has(names.join('|'))) continue;
    const key = [...names, ...(byHand ? ['by hand'] : [])].join('|');
    const known = worst.get(key);
    const next = worsened(known, depth, at);
    const stops = (known?.stops ?? true) && byHand === true && handStops(evidence, facetsOf(pair), at);
    worst.set(key, { ...next, pair: known && next.measure === known.measure ? known.pair : pair, byHand, stops });
  }
  return [...worst.values()].filter(tellsMore(assembly, [...worst.values()])).map((w): Finding => {
    // A layer is what moves of the pair, then a mechanism, then the card.
    const rank = (p: Party): number => (p.layer ? 2 : owner(p) === CARD ? 0 : 1);
    const [first, second] = w.pair;
    const [mover, other] = rank(first) === 0 || second.layer ? [second, first] : [first, second];
    const name = (p: Party): string => p.layer?.title ?? (owner(p) === CARD ? 'the card' : say.title(owner(p)));
    const own = owner(mover) === owner(other);
    const through = own ? 'itself' : name(other);
    return finding({
      rule: 'collision',
      severity: w.stops ? 'note' : 'blocks',
      mechanism: assembly.facets[mover.facet].mechanism,
      piece: assembly.facets[mover.facet].piece,
      measured: w.measure,
      at: w.at,
      span: { from: w.from, to: w.to },
      aspect: [...(mover.layer ? [owner(mover)] : []), owner(other), ...(w.byHand ? ['by hand'] : [])].join(' '),
      message:
        `${name(mover)} passes ${say.mm(w.measure)} through ${through} ` + `${atState(w.at, say.title)}${between(w)}.`,
      subjects: [mover, other].map((p) => p.layer?.id ?? assembly.facets[p.facet].id),
      levers: [mover, ...(own || owner(other) === CARD ? [] : [other])].flatMap((p) =>
        plateLevers(assembly, p, w.byHand === true),
      ),
    });
  });
}

/**
 * What a hand brings together is told of the sheets themselves, not again of all that is stuck on them; what is in the
 * way of a hand is never left out for what only stops it.
 */
function tellsMore({ facets }: Assembly, all: readonly Told[]): (w: Told) => boolean {
  const bodies = ({ pair, stops }: Told): string =>
    [...facetsOf(pair).map((f) => facets[f].body)].sort().join() + (stops ? ' stops' : '');
  const bare = (w: Told): boolean => w.pair.every((p) => !p.layer);
  const told = new Set(
    all.filter((w) => w.byHand && bare(w)).flatMap((w) => [bodies(w), bodies({ ...w, stops: true })]),
  );
  return (w) => !w.byHand || bare(w) || !told.has(bodies(w));
}

function plateLevers(assembly: Assembly, { facet, layer }: Party, byHand: boolean): Lever[] {
  const { mechanism } = assembly.facets[facet];
  const turns = (...which: readonly Turn[]): Lever[] => turnsOf(assembly, mechanism, ...which);
  if (!layer) return byHand ? turns('place', 'stops', 'along', 'away') : turns('place', 'along', 'away');
  // What a hand moves is stopped before it where moving it aside one way was tried: there may not be time for all.
  const [first, ...others] = layerLevers(layer.id, false);
  const lower = layer.foamMm > 0 ? leversOf(layer.id, 'foamMm') : [];
  return [first, ...(byHand ? turns('stops') : []), ...others, ...lower, ...turns('place', 'along', 'away')];
}
const layerLevers = (id: string, acrossFirst: boolean): Lever[] =>
  leversOf(id, ...(acrossFirst ? ['y', 'height', 'x', 'width'] : ['x', 'y', 'width', 'height']), 'trimmed');

function stuckOver(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  return overFolds(evidence).flatMap((over): Finding[] => {
    const { sheet, turning, crease, acrossMm } = over;
    const folded = worstOf(evidence, (pose) => turnedTowardsDeg(pose, over), Math.max(BOWS_DEG, metAtDeg(over)));
    if (!folded) return [];
    const fixed = assembly.facets[sheet];
    return [
      finding({
        rule: 'collision',
        severity: 'blocks',
        mechanism: fixed.mechanism,
        piece: fixed.piece,
        measured: acrossMm,
        at: folded.at,
        span: { from: folded.from, to: folded.to },
        aspect: `${fixed.id} over ${crease.id}`,
        message:
          `${say.partOf(fixed.id)} ${over.lyingMm === null ? 'is stuck' : 'lies'} ${say.mm(acrossMm)} across ` +
          `${say.partOf(crease.id)}, ` +
          `which folds up to ${folded.measure.toFixed(0)}° towards it${between(folded)}.`,
        subjects: [fixed.id, assembly.facets[turning].id, crease.id],
        levers: [fixed, crease].flatMap((m) => turnsOf(assembly, m.mechanism, 'place', 'along', 'away')),
      }),
    ];
  });
}

function bridged(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  return bridges(evidence).flatMap((bridge): Finding[] => {
    const { layer, crease, onto, acrossMm, glued } = bridge;
    const folded = worstOf(evidence, (pose) => foldedUpDeg(assembly, pose, bridge), BOWS_DEG);
    if (!folded) return [];
    const [line] = crease.segments;
    const along = Math.abs(line.b[0] - line.a[0]) > Math.abs(line.b[1] - line.a[1]);
    const hand = glued && assembly.drives.some((d) => ownerOfId(d.id) === crease.mechanism);
    const towards = `folds up to ${folded.measure.toFixed(0)}°${hand ? '' : ` towards it${between(folded)}`}`;
    const reason = hand
      ? `which ${towards}: stuck to both sides it holds it flat; decoration goes on one side only.`
      : `stuck to one side of a crease that ${towards}.`;
    return [
      finding({
        rule: 'collision',
        severity: 'blocks',
        mechanism: layer.mechanism,
        piece: layer.piece,
        measured: acrossMm,
        at: folded.at,
        span: { from: folded.from, to: folded.to },
        aspect: `${layer.id} ${crease.id}`,
        message: `${layer.title} lies ${say.mm(acrossMm)} across ${say.partOf(crease.id)}, ${reason}`,
        subjects: [layer.id, assembly.facets[onto].id, crease.id],
        levers: [...layerLevers(layer.id, along), ...(hand ? leversOf(layer.id, 'onFacet') : [])],
      }),
    ];
  });
}

function covered(evidence: Evidence): Finding[] {
  const { assembly } = evidence;
  const say = wordsFor(evidence);
  return covers(evidence).flatMap((cover): Finding[] => {
    const { layer, over, slackMm } = cover;
    const lifted = worstOf(evidence, (pose) => liftedMm(evidence, pose, cover), slackMm);
    if (!lifted) return [];
    const facet = assembly.facets[over];
    return [
      finding({
        rule: 'collision',
        severity: 'blocks',
        mechanism: facet.mechanism,
        piece: layer.piece,
        measured: lifted.measure,
        at: lifted.at,
        span: { from: lifted.from, to: lifted.to },
        aspect: `${layer.id} over ${facet.id}`,
        message:
          `${layer.title} lies over ${say.partOf(facet.id)} and holds it down: ` +
          `it would have to lift ${say.mm(lifted.measure)} through it${between(lifted)}.`,
        subjects: [layer.id, facet.id],
        levers: [...layerLevers(layer.id, false), ...turnsOf(assembly, facet.mechanism, 'along')],
      }),
    ];
  });
}
