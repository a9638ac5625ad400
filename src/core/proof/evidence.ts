/** What rules are given: the design put together, what it is for, and its poses. */
import { canBe, handSteps, OPEN, restOf, stateIn, travelStates, valueWithin } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt, type Pose } from '../assembly/pose';
import { buildAssembly } from '../build/build';
import { marginOf, stockOf, type Design } from '../document/design';
import { baseKindOf, cardValues } from '../document/fields';
import { meantOutMm } from '../document/settings';
import { wordsOfOwnPart } from '../document/words';
import { statesOf } from '../document/states';
import { envelopeOf, formatOf, sheetOf } from '../document/post';
import type { Brief, Evidence, Rule } from '../rules';

export const DEFAULT_STEPS = 36;
export const MOST_STEPS = 720;

export const briefOf = (design: Design): Brief => ({
  words: (part) => wordsOfOwnPart(design, part),
  units: design.units,
  stayInside: design.card.stayInside,
  sentOpen: design.post.sent === 'open',
  meantOutMm: (of) => meantOutMm(design, of),
  envelope: envelopeOf(design),
  post: formatOf(design),
  stock: (id) => stockOf(design, id),
  states: statesOf(design),
  stands: baseKindOf(design).stands,
  up: (facet) => baseKindOf(design).up(cardValues(design), facet, 'inside'),
  sheetMarginMm: (stock) => marginOf(design, stock),
  sheet: sheetOf,
});

/** The closed pose: every drive at rest; null where the travel does not reach it. */
export function closedPose(assembly: Assembly): Pose | null {
  const pose = poseAt(assembly, restOf(assembly.drives));
  return pose.stop ? null : pose;
}

/**
 * Evidence for rules that need no more than `needs`.
 * @param openings at which what is moved by hand is looked at
 */
export function gather(
  design: Design,
  needs: Rule['needs'],
  steps = DEFAULT_STEPS,
  assembly = buildAssembly(design),
  openings = HAND_OPENINGS,
): Evidence {
  return {
    assembly,
    brief: briefOf(design),
    closed: needs === 'pattern' ? null : closedPose(assembly),
    travel: needs === 'travel' ? [...walk(assembly, steps)] : [],
    byHand: needs === 'travel' ? [...handWalk(assembly, openings)] : [],
    named: needs === 'travel' ? namedPoses(design, assembly) : [],
  };
}

/** The card in every state that is named and that it reaches. */
export const namedPoses = (design: Design, assembly: Assembly): Pose[] =>
  statesOf(design)
    .map((named) => poseAt(assembly, stateIn(assembly.drives, named)))
    .filter((pose) => !pose.stop);

/** Openings at which what is moved by hand is looked at. */
const HAND_OPENINGS: readonly number[] = [180, 135, 90, 45, 0];
/** Poses of every drive but the opening from end to end, at several openings, all others at rest. */
export function* handWalk(assembly: Assembly, openings = HAND_OPENINGS): Generator<Pose> {
  const [opening, ...drives] = assembly.drives;
  const reached = new Set(openings.map((open) => valueWithin(opening, open)));
  for (const drive of drives)
    for (const open of reached)
      for (const state of travelStates(drive, handSteps(drive), { ...restOf(assembly.drives), [OPEN]: open })) {
        if (!canBe(assembly.drives, state)) continue;
        const pose = poseAt(assembly, state);
        if (!pose.stop) yield pose;
      }
}

/** Poses of the opening's travel at even steps, everything else at rest, leaving out what the travel does not reach. */
export function* walk(assembly: Assembly, steps: number): Generator<Pose> {
  const [opening] = assembly.drives;
  for (const state of travelStates(opening, steps, restOf(assembly.drives))) {
    const pose = poseAt(assembly, state);
    if (!pose.stop) yield pose;
  }
}
