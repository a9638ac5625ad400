/**
 * Rigid motions of space as 3x4 matrices, row by row: [r00 r01 r02 tx, r10 … tz]. Lengths in mm, angles in rad.
 * Functions return new arrays; the hot loops of the solver live in `loop-error.ts`.
 */
export type Vec3 = readonly [x: number, y: number, z: number];
export type Rigid = Float64Array;

export const add3 = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub3 = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale3 = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross3 = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
// Nothing here comes near the ends of a double's range, which is all that `Math.hypot` takes several times as long for.
export const norm3 = (a: Vec3): number => Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
/** Distance between two points. */
export const dist3 = (a: Vec3, b: Vec3): number => Math.sqrt(squaredDist3(a, b));
/** Its square: who compares many distances takes one root. */
export function squaredDist3(a: Vec3, b: Vec3): number {
  const [x, y, z] = [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  return x * x + y * y + z * z;
}
export const unit3 = (a: Vec3): Vec3 => scale3(a, 1 / norm3(a));

export interface Box3 {
  readonly min: Vec3;
  readonly max: Vec3;
}
/** Smallest box round points. */
export function boxOf3(points: readonly Vec3[]): Box3 {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const p of points)
    for (let k = 0; k < 3; k++) {
      if (p[k] < min[k]) min[k] = p[k];
      if (p[k] > max[k]) max[k] = p[k];
    }
  return { min, max };
}
export const uniteBox3 = ({ min: p, max: r }: Box3, { min: q, max: s }: Box3): Box3 => ({
  min: [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.min(p[2], q[2])],
  max: [Math.max(r[0], s[0]), Math.max(r[1], s[1]), Math.max(r[2], s[2])],
});
export const growBox3 = ({ min, max }: Box3, by: number): Box3 => ({
  min: [min[0] - by, min[1] - by, min[2] - by],
  max: [max[0] + by, max[1] + by, max[2] + by],
});
export function boxesMeet3({ min: p, max: r }: Box3, { min: q, max: s }: Box3): boolean {
  for (let k = 0; k < 3; k++) if (p[k] > s[k] || q[k] > r[k]) return false;
  return true;
}
/** Least distance between two boxes; 0 where they meet. */
export const boxGap3 = (p: Box3, q: Box3): number =>
  Math.hypot(
    Math.max(0, p.min[0] - q.max[0], q.min[0] - p.max[0]),
    Math.max(0, p.min[1] - q.max[1], q.min[1] - p.max[1]),
    Math.max(0, p.min[2] - q.max[2], q.min[2] - p.max[2]),
  );

export const identity = (): Rigid => Float64Array.of(1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0);

export const compose = (a: Rigid, b: Rigid): Rigid => composeInto(new Float64Array(12), a, b);

/** a after b, written into `out`, which must be neither of them. */
export function composeInto(out: Rigid, a: Rigid, b: Rigid): Rigid {
  for (let r = 0; r < 12; r += 4) {
    const x = a[r];
    const y = a[r + 1];
    const z = a[r + 2];
    out[r] = x * b[0] + y * b[4] + z * b[8];
    out[r + 1] = x * b[1] + y * b[5] + z * b[9];
    out[r + 2] = x * b[2] + y * b[6] + z * b[10];
    out[r + 3] = x * b[3] + y * b[7] + z * b[11] + a[r + 3];
  }
  return out;
}

export const invert = (a: Rigid): Rigid => invertInto(new Float64Array(12), a);

/** Written into `out`, which must not be `a`. */
export function invertInto(out: Rigid, a: Rigid): Rigid {
  const tx = a[3];
  const ty = a[7];
  const tz = a[11];
  for (let r = 0; r < 3; r++) {
    out[4 * r] = a[r];
    out[4 * r + 1] = a[4 + r];
    out[4 * r + 2] = a[8 + r];
    out[4 * r + 3] = -(a[r] * tx + a[4 + r] * ty + a[8 + r] * tz);
  }
  return out;
}

export const applyRigid = (m: Rigid, [x, y, z]: Vec3): Vec3 => [
  m[0] * x + m[1] * y + m[2] * z + m[3],
  m[4] * x + m[5] * y + m[6] * z + m[7],
  m[8] * x + m[9] * y + m[10] * z + m[11],
];
/** Turn a direction by the rotation part only. */
export const rotateOnly = (m: Rigid, [x, y, z]: Vec3): Vec3 => [
  m[0] * x + m[1] * y + m[2] * z,
  m[4] * x + m[5] * y + m[6] * z,
  m[8] * x + m[9] * y + m[10] * z,
];

/** Sine and cosine that are exact at quarter turns, so that folds of 0 and 180 leave no trace. */
export function exactSinCos(angle: number): readonly [sin: number, cos: number] {
  const quarters = angle / (Math.PI / 2);
  const whole = Math.round(quarters);
  if (quarters !== whole) return [Math.sin(angle), Math.cos(angle)];
  return (
    [
      [0, 1],
      [1, 0],
      [0, -1],
      [-1, 0],
    ] as const
  )[((whole % 4) + 4) % 4];
}

/** Turn by `angle` about the unit `axis` through `point`, right-hand rule. Source: Rodrigues' rotation formula. */
export const turnAbout = (point: Vec3, axis: Vec3, angle: number): Rigid =>
  turnInto(new Float64Array(12), point, axis, angle);

/** The same, written into `m`. */
export function turnInto(m: Rigid, point: Vec3, axis: Vec3, angle: number): Rigid {
  const [s, c] = exactSinCos(angle);
  const k = 1 - c;
  const [x, y, z] = axis;
  const [px, py, pz] = point;
  m[0] = c + x * x * k;
  m[1] = x * y * k - z * s;
  m[2] = x * z * k + y * s;
  m[4] = y * x * k + z * s;
  m[5] = c + y * y * k;
  m[6] = y * z * k - x * s;
  m[8] = z * x * k - y * s;
  m[9] = z * y * k + x * s;
  m[10] = c + z * z * k;
  m[3] = px - (m[0] * px + m[1] * py + m[2] * pz);
  m[7] = py - (m[4] * px + m[5] * py + m[6] * pz);
  m[11] = pz - (m[8] * px + m[9] * py + m[10] * pz);
  return m;
}

export const shiftBy = ([x, y, z]: Vec3): Rigid => Float64Array.of(1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z);

/**
 * Placement of one sheet's plane on another: local x, y of the upper go to `origin`, `along` (unit) of the lower; z
 * stays.
 */
export const placeOnSheet = (origin: readonly [number, number], along: readonly [number, number]): Rigid =>
  Float64Array.of(along[0], -along[1], 0, origin[0], along[1], along[0], 0, origin[1], 0, 0, 1, 0);

/** Rotation vector (axis times angle) of the rotation part; keeps its digits near 0 and near half a turn. */
export function rotationLog(m: Rigid): Vec3 {
  const v: Vec3 = [(m[9] - m[6]) / 2, (m[2] - m[8]) / 2, (m[4] - m[1]) / 2];
  const sin = norm3(v);
  const cos = (m[0] + m[5] + m[10] - 1) / 2;
  if (sin > 1e-9 || cos > 0) return scale3(v, sin < 1e-12 ? 1 : Math.atan2(sin, cos) / sin);
  // Half a turn: the axis is the largest column of R + I.
  const columns: Vec3[] = [
    [m[0] + 1, m[4], m[8]],
    [m[1], m[5] + 1, m[9]],
    [m[2], m[6], m[10] + 1],
  ];
  const axis = columns.reduce((best, c) => (norm3(c) > norm3(best) ? c : best));
  return scale3(unit3(axis), Math.atan2(sin, cos));
}
