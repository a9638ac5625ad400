/** How large things are seen by an eye in perspective. */

/** What the rulers along the posed view need to know. */
export interface Seen {
  /** Pixels for a millimetre at what is in the middle of the view. */
  readonly scale: number;
  /** Where the middle of the gutter is seen, pixels of the view. */
  readonly zeroX: number;
  readonly zeroY: number;
  readonly width: number;
  readonly height: number;
}

const halfRad = (fovDeg: number): number => (fovDeg * Math.PI) / 360;

/** @param fovDeg angle that the height of the view takes in */
export const pxPerMmAt = (distanceMm: number, fovDeg: number, heightPx: number): number =>
  heightPx / (2 * distanceMm * Math.tan(halfRad(fovDeg)));

/** Some of the view stays free round what is fitted into it. */
const EASE = 1.15;

/**
 * How far off a ball of that radius just fits into the view.
 * @param room width of the view by its height, at most 1
 */
export const fittingDistance = (radiusMm: number, fovDeg: number, room: number): number =>
  (EASE * radiusMm) / Math.sin(Math.atan(Math.tan(halfRad(fovDeg)) * room));
