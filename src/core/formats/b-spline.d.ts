declare module 'b-spline' {
  /** Point of a B-spline at t in 0..1 of its knots' domain. Throws where t is outside or the knots do not fit. */
  export default function interpolate(
    t: number,
    degree: number,
    points: readonly (readonly number[])[],
    knots?: readonly number[],
    weights?: readonly number[],
  ): number[];
}
