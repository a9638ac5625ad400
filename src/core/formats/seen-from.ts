/** From where a step of the work is seen best: the view in which most of what it is about shows. */
import type { Assembly } from '../assembly/assembly';
import type { Pose } from '../assembly/pose';
import type { Design } from '../document/design';
import { unit3, type Vec3 } from '../linkage';
import { contains, insidePoint, ringArea, type Ring } from '../plane/polygon';
import { lerp2, type Vec2 } from '../plane/vec2';
import { drawPicture, READER, type Picture, type PicturePart } from './picture';

/** As its reader sees it, then from the other hand, from behind, from above, and from underneath. */
const VIEWS: readonly Vec3[] = [
  READER,
  unit3([-0.55, 0.75, 0.62]),
  unit3([0.5, -0.8, 0.5]),
  unit3([0.12, 0.3, 0.95]),
  unit3([0.55, 0.6, -0.62]),
];
/** Another view is taken where it shows this much more. */
const BETTER_PART = 1.3;

/** The picture in which most of the parts shows; the reader's where that is nearly as good. */
export function pictureOfStep(
  design: Design,
  assembly: Assembly,
  pose: Pose,
  subjects: ReadonlySet<string>,
  shown: (facet: number) => boolean = () => true,
): { readonly picture: Picture; readonly from: Vec3 } {
  const plain = { picture: drawPicture(design, assembly, pose, { shown }), from: READER };
  if (subjects.size === 0) return plain;
  let best = { ...plain, seen: shownMm2(plain.picture, subjects) * BETTER_PART };
  for (const from of VIEWS.slice(1)) {
    const picture = drawPicture(design, assembly, pose, { from, shown });
    const seen = shownMm2(picture, subjects);
    if (seen > best.seen) best = { picture, from, seen };
  }
  return best;
}

/** How much of some parts shows on a picture, mm² of the page. */
export function shownMm2({ parts }: Picture, subjects: ReadonlySet<string>): number {
  return parts.reduce((sum, part, k) => {
    if (!subjects.has(part.id)) return sum;
    const spots = spotsIn(part);
    // What is painted later covers; other parts of the step do not hide it.
    const open = spots.filter((p) => !parts.slice(k + 1).some((over) => !subjects.has(over.id) && covers(over, p)));
    return sum + (Math.abs(ringArea(part.points)) * open.length) / Math.max(1, spots.length);
  }, 0);
}

const polygonOf = ({ points, holes }: PicturePart) => ({ outer: points, holes });
const covers = (part: PicturePart, p: Vec2): boolean => contains(polygonOf(part), p);

/** Places on a part: one inside, and between that and each corner. */
function spotsIn(part: PicturePart): Vec2[] {
  if (Math.abs(ringArea(part.points)) < SEEN_FROM_MM2) return [];
  const middle = insidePoint({ outer: counterClockwise(part.points), holes: [] });
  const between = part.points.map((p): Vec2 => lerp2(middle, p, 0.7));
  return [middle, ...between].filter((p) => covers(part, p));
}
/** Seen on edge a part shows nothing, mm². */
const SEEN_FROM_MM2 = 0.01;
const counterClockwise = (ring: Ring): Ring => (ringArea(ring) > 0 ? ring : [...ring].reverse());
