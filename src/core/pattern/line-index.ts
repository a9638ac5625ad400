/** Lines by place: which of them have a stretch in a box, without going through all of them. */
import Flatbush from 'flatbush';
import { segmentsOf, type PlainLine } from './plain-line';
import { boxOf } from '../plane/ring';
import type { Vec2 } from '../plane/vec2';

export interface Stretch<L> {
  readonly line: L;
  readonly a: Vec2;
  readonly b: Vec2;
}

export class LineIndex<L extends PlainLine> {
  private readonly stretches: readonly Stretch<L>[];
  private readonly index: Flatbush | null;

  constructor(lines: readonly L[]) {
    this.stretches = lines.flatMap((line) => segmentsOf(line).map(([a, b]) => ({ line, a, b })));
    this.index = this.stretches.length > 0 ? new Flatbush(this.stretches.length) : null;
    for (const { a, b } of this.stretches)
      this.index?.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
    this.index?.finish();
  }

  /** Stretches whose boxes come within `by` mm of that of some points, in the order in which they were given. */
  near(points: readonly Vec2[], by: number): Stretch<L>[] {
    if (!this.index) return [];
    const { min, max } = boxOf(points);
    return this.index
      .search(min[0] - by, min[1] - by, max[0] + by, max[1] + by)
      .sort((i, j) => i - j)
      .map((i) => this.stretches[i]);
  }

  /** Lines with stretches whose boxes meet that of some points, in the order in which they were given. */
  linesNear(points: readonly Vec2[]): L[] {
    return [...new Set(this.near(points, 0).map((s) => s.line))];
  }
}

/** So many lines that changed since an index was made are gone through one by one; then a new one is made. */
const MOST_CHANGED = 64;

/** The same of lines that change one at a time. */
export class ChangingLines<L extends PlainLine> {
  private readonly places: ReadonlyMap<string, number>;
  private readonly now: L[];
  private index: LineIndex<L>;
  private changed = new Set<string>();

  constructor(lines: readonly L[]) {
    this.now = [...lines];
    this.places = new Map(lines.map((l, k) => [l.id, k]));
    this.index = new LineIndex(this.now);
  }

  get lines(): readonly L[] {
    return this.now;
  }

  byId(id: string): L | undefined {
    const place = this.places.get(id);
    return place === undefined ? undefined : this.now[place];
  }

  put(line: L): void {
    this.now[this.places.get(line.id)!] = line;
    this.changed.add(line.id);
    if (this.changed.size <= MOST_CHANGED) return;
    this.index = new LineIndex(this.now);
    this.changed = new Set();
  }

  /** As `LineIndex.near`; of a line that changed all stretches come. */
  near(points: readonly Vec2[], by: number): Stretch<L>[] {
    const place = ({ line }: Stretch<L>): number => this.places.get(line.id)!;
    const changed = [...this.changed].flatMap((id) => {
      const line = this.byId(id)!;
      return segmentsOf(line).map(([a, b]) => ({ line, a, b }));
    });
    const still = this.index.near(points, by).filter((s) => !this.changed.has(s.line.id));
    return changed.length === 0 ? still : [...still, ...changed].sort((s, t) => place(s) - place(t));
  }
}
