/** How fast what an input costs grows with its length. */

/** What one length took. */
export interface Grown {
  readonly n: number;
  readonly bytes: number;
  /** Of processor time. */
  readonly ms: number;
  /** Held by the process afterwards. */
  readonly mb: number;
  readonly fault: string | null;
}

/** Shorter times say more of the machine than of the input, ms. */
const LEAST_MS = 40;

/**
 * The steepest slope of time over length, both as logarithms, by least squares over three neighbours of which none is
 * too short to be measured; null where there are no three.
 */
export function exponentOf(lengths: readonly Pick<Grown, 'n' | 'ms'>[]): number | null {
  const slopes = lengths.slice(2).flatMap((_, k) => {
    const three = lengths.slice(k, k + 3);
    return three.every((g) => g.ms >= LEAST_MS) ? [slopeOf(three.map((g) => [Math.log(g.n), Math.log(g.ms)]))] : [];
  });
  return slopes.length === 0 ? null : Math.max(...slopes);
}

function slopeOf(points: readonly (readonly number[])[]): number {
  const [x, y] = [0, 1].map((k) => points.reduce((sum, p) => sum + p[k], 0) / points.length);
  const across = points.reduce((sum, p) => sum + (p[0] - x) * (p[1] - y), 0);
  return across / points.reduce((sum, p) => sum + (p[0] - x) ** 2, 0);
}
