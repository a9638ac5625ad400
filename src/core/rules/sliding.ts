/** Sheets that lie flat on a part of the way only, and slide into each other's edges there. */
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import { isStuck, type HandHit } from './hand-solids';
import type { SolidPair } from './looks';
import { atOneHeight, lapOf, overIn, sameHeight } from './meeting';
import type { Solid } from './solids';

/**
 * Sheets that lie flat over each other on a part of the way only, as what has turned over and is drawn on: where they
 * slide from beside each other to over each other at one height, one has run into the other's edge.
 */
export class Sliding {
  private before: Pose | null = null;
  private over: readonly SolidPair[] = [];

  constructor(
    private readonly assembly: Assembly,
    private readonly solids: readonly Solid[],
  ) {}

  /** What ran into an edge since the look before, or will on the way back. */
  look(pose: Pose, near: readonly SolidPair[]): HandHit[] {
    const { before } = this;
    const now = near.filter((pair) => this.lap(pose, pair) > 0);
    const was = this.over;
    this.before = pose;
    this.over = now;
    if (!before) return [];
    const [came, went] = [now.filter((p) => !has(was, p)), was.filter((p) => !has(now, p))];
    return [
      ...came.flatMap((pair) => this.hitAt(pose, before, pair)),
      ...went.flatMap((pair) => this.hitAt(before, pose, pair)),
    ];
  }

  private hitAt(lies: Pose, beside: Pose, pair: SolidPair): HandHit[] {
    const [p, q] = this.both(pair);
    const own = this.assembly.facets[p.facet].mechanism === this.assembly.facets[q.facet].mechanism;
    if (own && !isStuck(p) && !isStuck(q)) return [];
    if (!sameHeight(overIn(lies, p, q), overIn(beside, p, q)) || this.lap(beside, pair) > 0) return [];
    return [{ pair: [p, q], depthMm: this.lap(lies, pair), at: lies.state }];
  }
  /** How far two lap at one height, mm; 0 where their planes are not parallel. */
  private lap(pose: Pose, pair: SolidPair): number {
    const [p, q] = this.both(pair);
    const over = overIn(pose, p, q);
    return over && atOneHeight(p, q, over) ? lapOf(p, q, over) : 0;
  }
  private both = ([a, b]: SolidPair): [Solid, Solid] => [this.solids[a], this.solids[b]];
}
const has = (pairs: readonly SolidPair[], [a, b]: SolidPair): boolean => pairs.some((p) => p[0] === a && p[1] === b);
