/** Ways of tools, cut into pieces that are found by place. mm, y up. */
import Flatbush from 'flatbush';
import { dist2, distToSegment, lerp2, type Vec2 } from '../plane/vec2';

/** Lines are looked at this far apart, mm. */
const SAMPLE_MM = 0.5;

/** A way with the number of its stroke. */
export interface NumberedWay {
  readonly tip: readonly Vec2[];
  readonly stroke: number;
}
export interface Piece {
  readonly a: Vec2;
  readonly b: Vec2;
  readonly stroke: number;
  /** How far along its stroke it begins, mm. */
  readonly from: number;
}

/** All pieces of the ways, by place. */
export class Pieces {
  readonly all: readonly Piece[];
  private readonly index: Flatbush;

  constructor(cuts: readonly NumberedWay[]) {
    this.all = cuts.flatMap(({ tip, stroke }) => {
      let from = 0;
      return tip.slice(1).map((b, k): Piece => {
        const piece = { a: tip[k], b, stroke, from };
        from += dist2(tip[k], b);
        return piece;
      });
    });
    this.index = new Flatbush(Math.max(1, this.all.length));
    for (const { a, b } of this.all)
      this.index.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
    if (this.all.length === 0) this.index.add(0, 0, 0, 0);
    this.index.finish();
  }
  near([x, y]: Vec2, mm: number): Piece[] {
    if (this.all.length === 0) return [];
    return this.index
      .search(x - mm, y - mm, x + mm, y + mm)
      .map((k) => this.all[k])
      .filter(({ a, b }) => distToSegment([x, y], a, b) <= mm);
  }
  distance(p: Vec2): number {
    for (let mm = 0.5; mm < 1e4; mm *= 4) {
      const near = this.near(p, mm);
      if (near.length > 0) return Math.min(...near.map(({ a, b }) => distToSegment(p, a, b)));
    }
    return Infinity;
  }
}

/** Points of a way, its corners among them. */
export function* samplesOf(way: readonly Vec2[]): Generator<{ p: Vec2; along: number; u: Vec2 }> {
  let along = 0;
  for (let k = 1; k < way.length; k++) {
    const [a, b] = [way[k - 1], way[k]];
    const mm = dist2(a, b);
    if (mm === 0) continue;
    const steps = Math.ceil(mm / SAMPLE_MM);
    const u: Vec2 = [(b[0] - a[0]) / mm, (b[1] - a[1]) / mm];
    for (let i = 0; i < steps; i++) yield { p: lerp2(a, b, i / steps), along: along + (mm * i) / steps, u };
    along += mm;
  }
  if (way.length > 1) yield { p: way[way.length - 1], along, u: [0, 0] };
}
