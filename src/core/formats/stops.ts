/** What is moved by hand, as it is seen at each of its stops: straight on, by itself. */
import { FLAT, moved, restOf } from '../drives';
import type { Assembly } from '../assembly/assembly';
import { poseAt } from '../assembly/pose';
import { valuesIn } from '../document/fields';
import type { Design } from '../document/design';
import { ownerOfId } from '../ids';
import { KINDS } from '../kinds';
import { compose, type Vec3 } from '../linkage';
import { drawPicture, type Picture } from './picture';

export interface StopPicture {
  readonly drive: string;
  readonly value: number;
  readonly picture: Picture;
}

/** A picture for each stop of a mechanism; none where its kind has no stops. */
export function stopPictures(design: Design, assembly: Assembly, mechanism: string): StopPicture[] {
  const placed = assembly.mechanisms.find((m) => m.id === mechanism);
  const kind = KINDS.get(placed?.kind ?? '');
  const drive = assembly.drives.find((d) => ownerOfId(d.id) === mechanism);
  if (!placed?.face || kind?.mount !== 'face' || !kind.stops || !drive) return [];
  const { facet, piece, placement } = placed.face;
  const under = assembly.facets.findIndex((f) => f.id === facet && f.piece === piece);
  const level = (i: number): number => assembly.facets[i].levelMm;
  return kind.stops(valuesIn(design, mechanism)!).map((value) => {
    const pose = poseAt(assembly, moved({ ...restOf(assembly.drives), ...FLAT }, drive.id, value));
    const axes = compose(pose.placed[under], placement);
    const [up, from]: [Vec3, Vec3] = [
      [axes[1], axes[5], axes[9]],
      [axes[2], axes[6], axes[10]],
    ];
    const shown = (i: number): boolean => assembly.facets[i].mechanism === mechanism;
    // Sheets over each other are told apart by their height over the face, a hundredth of a millimetre is enough.
    const rank = (i: number): number => Math.round(level(i) * 100);
    return { drive: drive.id, value, picture: drawPicture(design, assembly, pose, { from, up, rank, shown }) };
  });
}
