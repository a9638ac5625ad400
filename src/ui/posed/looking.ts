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

/** Less is not seen on a ruler, pixels. */
const SAME_PX = 0.2;
/** Whether rulers would look the same: an eye that rests still tells of itself with every frame. */
export const seenAlike = (a: Seen | null, b: Seen): boolean =>
  a !== null &&
  a.width === b.width &&
  a.height === b.height &&
  [a.zeroX - b.zeroX, a.zeroY - b.zeroY, (a.scale / b.scale - 1) * Math.max(a.width, a.height)].every(
    (off) => Math.abs(off) < SAME_PX,
  );

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
