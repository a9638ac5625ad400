/**
 * Drives that are moved by hand and can meet: parts that one moves come where parts of the other come, or are the same.
 * Those are looked at two at a time, over a grid of both; drives that never come near each other need no such product.
 */
import { canBe, handSteps, moved, openOf, OPEN, restOf, type Drive, type State } from '../drives';
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { boxesMeet3, growBox3, uniteBox3, type Box3 } from '../linkage';
import { CONTACT_MM } from '../tolerance';
import { carrierOf } from '../assembly/carrier';
import { placePlate, type Plate } from './plates';

export interface DrivePair {
  readonly a: Drive;
  readonly b: Drive;
  /** Openings at which their parts can meet, degrees. */
  readonly openings: readonly number[];
  /** Plates that each moves, by index (`platesOf`). */
  readonly parts: readonly [readonly number[], readonly number[]];
}

/** What a drive does at one opening: the plates it moves, and the box each passes through. */
interface Sweep {
  readonly boxes: ReadonlyMap<number, Box3>;
}

/** Pairs of drives that can meet in the poses of `byHand`, in the order of the drives. */
export function drivePairs(assembly: Assembly, byHand: readonly Pose[], plates: readonly Plate[]): DrivePair[] {
  const known = found.get(byHand);
  if (known) return known;
  const pairs = lookFor(assembly, byHand, plates);
  found.set(byHand, pairs);
  return pairs;
}
const found = new WeakMap<readonly Pose[], DrivePair[]>();

function lookFor(assembly: Assembly, byHand: readonly Pose[], plates: readonly Plate[]): DrivePair[] {
  const [, ...drives] = assembly.drives;
  if (drives.length < 2) return [];
  const openings = [...new Set(byHand.map((p) => openOf(p.state)))];
  const carriers = plates.map((plate) => carrierOf(assembly, plate.facet));
  const beside = (k: number, j: number): boolean => carriers[k] !== null && carriers[k] === carriers[j];
  const sweeps = drives.map((d) => openings.map((open) => sweepOf(assembly, byHand, plates, d, open)));
  return drives.flatMap((a, i) =>
    drives.slice(i + 1).flatMap((b, k): DrivePair[] => {
      const [p, q] = [sweeps[i], sweeps[i + 1 + k]];
      const met = openings.filter((_, o) => meets(p[o], q[o], (k, j) => !beside(k, j)));
      // Over one face the opening changes nothing between them: once is enough.
      const once = openings.findIndex((_, o) => meets(p[o], q[o], beside));
      if (once >= 0 && !met.includes(openings[once])) met.push(openings[once]);
      if (met.length === 0) return [];
      const parts = [p, q].map((s) => [...new Set(s.flatMap(({ boxes }) => [...boxes.keys()]))]);
      return [{ a, b, openings: met, parts: [parts[0], parts[1]] }];
    }),
  );
}

/** States of a pair: both from end to end, no more coarsely than one alone, at every opening where they can meet. */
export function* pairStates(assembly: Assembly, { a, b, openings }: DrivePair): Generator<State> {
  const rest = restOf(assembly.drives);
  for (const open of openings)
    for (const x of valuesOf(a))
      for (const y of valuesOf(b)) {
        const state = moved(moved({ ...rest, [OPEN]: open }, a.id, x), b.id, y);
        if (canBe(assembly.drives, state)) yield state;
      }
}
const valuesOf = (drive: Drive): number[] => {
  const steps = handSteps(drive);
  // One that goes round is at its end where it began.
  const { from, to, round } = drive;
  return Array.from({ length: round ? steps : steps + 1 }, (_, k) => from + ((to - from) * k) / steps);
};

function sweepOf(
  { drives, facets }: Assembly,
  byHand: readonly Pose[],
  plates: readonly Plate[],
  drive: Drive,
  open: number,
): Sweep {
  const rest = restOf(drives);
  const at = byHand.filter((p) => openOf(p.state) === open);
  const still = at.find((p) => drives.every((d) => d.id === OPEN || p.state[d.id] === rest[d.id]));
  const along = at.filter((p) => p.state[drive.id] !== rest[drive.id]);
  const boxes = new Map<number, Box3>();
  if (!still) return { boxes };
  const goes = facets.map((_, f) => along.some((p) => p.placed[f].some((v, k) => differs(v, still.placed[f][k]))));
  plates.forEach((plate, k) => {
    if (!goes[plate.facet]) return;
    const thick = plate.caliperMm / 2 + CONTACT_MM;
    const places = [still, ...along].map((p): Box3 => placePlate(plate, p));
    boxes.set(k, growBox3(places.reduce(uniteBox3), thick));
  });
  return { boxes };
}
const differs = (v: number, w: number): boolean => Math.abs(v - w) > MOVED_FROM;
/** Of a place in mm, or a sine: what the solver leaves of a part that stays where it is is far below this. */
const MOVED_FROM = 1e-7;

/** A part of one comes where a part of the other comes, or both move the same part; among those that `counts`. */
const meets = ({ boxes: p }: Sweep, { boxes: q }: Sweep, counts: (k: number, j: number) => boolean): boolean =>
  [...p].some(([k, box]) => [...q].some(([j, other]) => counts(k, j) && (k === j || boxesMeet3(box, other))));
