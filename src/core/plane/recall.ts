/**
 * What was worked out of outlines is kept for a while: a remedy is tried a hundred times, and all but one mechanism
 * of the card stays as it was.
 *
 * Invariant: an answer is only given again for the same rings and numbers, to the last bit; so it is the same answer.
 */
import type { Ring } from './ring';

/** Corners of questions and answers that are kept, over all that one recall knows; about 80 bytes each. */
const MOST_CORNERS = 60_000;
/** What has more corners than this is not kept: it would push out all others. */
const MOST_OF_ONE = 6_000;

interface Answered<R> {
  readonly rings: readonly Ring[];
  readonly numbers: readonly number[];
  readonly corners: number;
  readonly answer: R;
}

export class Recall<R> {
  /** By their hash, the one that was asked longest ago first. */
  private readonly known = new Map<number, Answered<R>>();
  private corners = 0;

  /** @param weigh corners of an answer: few lines that all cross each other have a thousand times as many faces */
  constructor(private readonly weigh: (answer: R) => number) {}

  /**
   * The answer that was given before, or `work()`.
   * @param rings never changed afterwards, nor may the answer be
   * @param numbers all else that the answer depends on
   */
  of(rings: readonly Ring[], numbers: readonly number[], work: () => R): R {
    const asked = rings.reduce((n, r) => n + r.length, 1);
    if (asked > MOST_OF_ONE) return work();
    const key = hashOf(rings, numbers);
    const found = this.known.get(key);
    if (found && sameNumbers(found.numbers, numbers) && sameRings(found.rings, rings)) {
      this.known.delete(key);
      this.known.set(key, found);
      return found.answer;
    }
    const answer = work();
    const corners = asked + this.weigh(answer);
    if (corners <= MOST_OF_ONE) this.keep(key, { rings, numbers, corners, answer });
    return answer;
  }

  private keep(key: number, answered: Answered<R>): void {
    this.forget(key);
    this.known.set(key, answered);
    this.corners += answered.corners;
    for (const oldest of this.known.keys()) {
      if (this.corners <= MOST_CORNERS) return;
      this.forget(oldest);
    }
  }

  private forget(key: number): void {
    this.corners -= this.known.get(key)?.corners ?? 0;
    this.known.delete(key);
  }
}

const bits = new Float64Array(1);
const halves = new Int32Array(bits.buffer);
/** Fowler, Noll and Vo's hash, 32 bits, over halves of doubles. */
const PRIME = 16_777_619;
function mixed(hash: number, value: number): number {
  bits[0] = value;
  return Math.imul(Math.imul(hash ^ halves[0], PRIME) ^ halves[1], PRIME);
}
function hashOf(rings: readonly Ring[], numbers: readonly number[]): number {
  let hash = rings.length;
  for (const n of numbers) hash = mixed(hash, n);
  for (const ring of rings) {
    hash = mixed(hash, ring.length);
    for (const p of ring) hash = mixed(mixed(hash, p[0]), p[1]);
  }
  return hash;
}

const sameNumbers = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((v, k) => Object.is(v, b[k]));

function sameRings(a: readonly Ring[], b: readonly Ring[]): boolean {
  return a.length === b.length && a.every((ring, k) => ring === b[k] || sameRing(ring, b[k]));
}
function sameRing(a: Ring, b: Ring): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (!Object.is(a[i][0], b[i][0]) || !Object.is(a[i][1], b[i][1])) return false;
  return true;
}
