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
export const norm3 = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
export const unit3 = (a: Vec3): Vec3 => scale3(a, 1 / norm3(a));

export const identity = (): Rigid => Float64Array.of(1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0);

export function compose(a: Rigid, b: Rigid): Rigid {
  const out = new Float64Array(12);
  for (let r = 0; r < 12; r += 4) {
    const [x, y, z] = [a[r], a[r + 1], a[r + 2]];
    out[r] = x * b[0] + y * b[4] + z * b[8];
    out[r + 1] = x * b[1] + y * b[5] + z * b[9];
    out[r + 2] = x * b[2] + y * b[6] + z * b[10];
    out[r + 3] = x * b[3] + y * b[7] + z * b[11] + a[r + 3];
  }
  return out;
}

export function invert(a: Rigid): Rigid {
  const [tx, ty, tz] = [a[3], a[7], a[11]];
  return Float64Array.of(
    a[0], a[4], a[8], -(a[0] * tx + a[4] * ty + a[8] * tz),
    a[1], a[5], a[9], -(a[1] * tx + a[5] * ty + a[9] * tz),
    a[2], a[6], a[10], -(a[2] * tx + a[6] * ty + a[10] * tz),
  );
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
  return ([[0, 1], [1, 0], [0, -1], [-1, 0]] as const)[((whole % 4) + 4) % 4];
}

/** Turn by `angle` about the unit `axis` through `point`, right-hand rule. Source: Rodrigues' rotation formula. */
export function turnAbout(point: Vec3, axis: Vec3, angle: number): Rigid {
  const [s, c] = exactSinCos(angle);
  const k = 1 - c;
  const [x, y, z] = axis;
  const m = Float64Array.of(
    c + x * x * k, x * y * k - z * s, x * z * k + y * s, 0,
    y * x * k + z * s, c + y * y * k, y * z * k - x * s, 0,
    z * x * k - y * s, z * y * k + x * s, c + z * z * k, 0,
  );
  const moved = rotateOnly(m, point);
  m[3] = point[0] - moved[0];
  m[7] = point[1] - moved[1];
  m[11] = point[2] - moved[2];
  return m;
}

export const shiftBy = ([x, y, z]: Vec3): Rigid => Float64Array.of(1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z);

/** Placement of one sheet's plane on another: local x, y of the upper go to `origin`, `along` (unit) of the lower; z stays. */
export const placeOnSheet = (origin: readonly [number, number], along: readonly [number, number]): Rigid =>
  Float64Array.of(along[0], -along[1], 0, origin[0], along[1], along[0], 0, origin[1], 0, 0, 1, 0);

/** Rotation vector (axis times angle) of the rotation part; keeps its digits near 0 and near half a turn. */
export function rotationLog(m: Rigid): Vec3 {
  const v: Vec3 = [(m[9] - m[6]) / 2, (m[2] - m[8]) / 2, (m[4] - m[1]) / 2];
  const sin = norm3(v);
  const cos = (m[0] + m[5] + m[10] - 1) / 2;
  if (sin > 1e-9 || cos > 0) return scale3(v, sin < 1e-12 ? 1 : Math.atan2(sin, cos) / sin);
  // Half a turn: the axis is the largest column of R + I.
  const columns: Vec3[] = [[m[0] + 1, m[4], m[8]], [m[1], m[5] + 1, m[9]], [m[2], m[6], m[10] + 1]];
  const axis = columns.reduce((best, c) => (norm3(c) > norm3(best) ? c : best));
  return scale3(unit3(axis), Math.atan2(sin, cos));
}
