/**
 * The plane curve of a strip that cannot stretch, hinged at both ends: the classical elastica. With inflections at its
 * ends its tangent is `sin(phi/2) = k sn(u)`, where u runs from -K to K over its length, and k is its modulus.
 * Elliptic functions by the arithmetic-geometric mean (Abramowitz and Stegun 16.4, 17.6).
 */
import { ELASTICA_PART } from '../tolerance';

export interface Complete {
  readonly K: number;
  readonly E: number;
}

interface Means {
  readonly a: readonly number[];
  readonly c: readonly number[];
}
/** Arithmetic-geometric means from 1 and the complementary modulus, until they agree. */
function means(modulus: number): Means {
  const a = [1];
  const c = [modulus];
  let b = Math.sqrt(1 - modulus * modulus);
  while (Math.abs(c[c.length - 1]) > Number.EPSILON && a.length < 16) {
    const last = a[a.length - 1];
    a.push((last + b) / 2);
    c.push((last - b) / 2);
    b = Math.sqrt(last * b);
  }
  return { a, c };
}

/** Complete elliptic integrals of the first and second kind. @param modulus 0 to below 1 */
export function complete(modulus: number): Complete {
  const { a, c } = means(modulus);
  const K = Math.PI / (2 * a[a.length - 1]);
  const sum = c.reduce((s, x, n) => s + 2 ** (n - 1) * x * x, 0);
  return { K, E: K * (1 - sum) };
}

/** Jacobi's amplitude, and the incomplete integral of the second kind up to it. */
function amplitude(u: number, modulus: number, { K, E }: Complete): { phi: number; E: number } {
  const { a, c } = means(modulus);
  const last = a.length - 1;
  let phi = 2 ** last * a[last] * u;
  let zeta = 0;
  for (let n = last; n > 0; n--) {
    zeta += c[n] * Math.sin(phi);
    phi = (phi + Math.asin((c[n] / a[n]) * Math.sin(phi))) / 2;
  }
  return { phi, E: (E / K) * u + zeta };
}

/** Distance of the ends over the length of a pinned strip: 1 straight, 0 with its ends together, then crossed. */
const chordPart = (modulus: number): number => {
  const { K, E } = complete(modulus);
  return (2 * E) / K - 1;
};

/** Modulus of the pinned strip whose ends lie so far apart. @param part of its length, 0 to 1 */
function modulusAt(part: number): number {
  let [straight, bent] = [0, MODULUS_TOGETHER];
  while (bent - straight > ELASTICA_PART) {
    const middle = (straight + bent) / 2;
    if (chordPart(middle) > part) straight = middle;
    else bent = middle;
  }
  return (straight + bent) / 2;
}
/** Above the modulus at which the ends of a pinned strip lie together. */
const MODULUS_TOGETHER = 0.91;

/** A strip between two lines, seen along them: its ends on the x axis, its middle at x = 0, bulging to y > 0; mm. */
export interface Bow {
  /** Height of its middle over the line between its ends; and what that would be with nothing to rest on. */
  readonly bulgeMm: number;
  readonly freeBulgeMm: number;
  /** Between that line and the strip where it leaves its ends, rad. */
  readonly endRad: number;
  /** How far from each end it lies on what it is glued to. */
  readonly liesMm: number;
  /** How much shorter it is than the distance of its ends: so far it would have to stretch. */
  readonly shortMm: number;
  /** A place on it, so far along it from its first end, at x < 0. */
  readonly at: (alongMm: number) => readonly [x: number, y: number];
}

/**
 * The strip of a length between two lines `chordMm` apart. It leaves them at no more than `mostRad`: the angle to what
 * they lie on, past which it comes to rest on that, and lifts off further out, without a bend there.
 */
export function bowed(lengthMm: number, chordMm: number, mostRad: number): Bow {
  if (chordMm >= lengthMm) return taut(lengthMm, chordMm);
  const free = modulusAt(chordMm / lengthMm);
  const endRad = 2 * Math.asin(free);
  const freeBulgeMm = (lengthMm * free) / complete(free).K;
  if (endRad <= mostRad) return { ...lifted(lengthMm, chordMm, free, endRad, 0), freeBulgeMm };
  // It lies on what it is glued to: so far that the rest, a pinned strip too, lifts off along that.
  const modulus = Math.sin(mostRad / 2);
  const part = chordPart(modulus);
  const liesMm = (part * lengthMm - chordMm) / (2 * (part - Math.cos(mostRad)));
  return { ...lifted(lengthMm, chordMm, modulus, mostRad, liesMm), freeBulgeMm };
}

function taut(lengthMm: number, chordMm: number): Bow {
  return {
    bulgeMm: 0,
    freeBulgeMm: 0,
    endRad: 0,
    liesMm: 0,
    shortMm: chordMm - lengthMm,
    at: (alongMm) => [chordMm * (alongMm / lengthMm - 0.5), 0],
  };
}

function lifted(
  lengthMm: number,
  chordMm: number,
  modulus: number,
  endRad: number,
  liesMm: number,
): Omit<Bow, 'freeBulgeMm'> {
  const freeMm = lengthMm - 2 * liesMm;
  const whole = complete(modulus);
  const scale = freeMm / (2 * whole.K);
  const [c, s] = [Math.cos(endRad), Math.sin(endRad)];
  const rise = liesMm * s;
  const at = (alongMm: number): readonly [number, number] => {
    const fromEnd = Math.min(alongMm, lengthMm - alongMm);
    const side = alongMm <= lengthMm / 2 ? -1 : 1;
    if (fromEnd < liesMm) return [side * (chordMm / 2 - fromEnd * c), fromEnd * s];
    const u = (alongMm - lengthMm / 2) / (scale || 1);
    const { phi, E } = amplitude(u, modulus, whole);
    return [scale * (2 * E - u), rise + 2 * modulus * scale * Math.cos(phi)];
  };
  return { bulgeMm: rise + 2 * modulus * scale, endRad, liesMm, shortMm: 0, at };
}
