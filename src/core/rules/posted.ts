/** The card as it goes into its envelope: shut, or sent open flat. */
import { CLOSED, openTo, type State } from '../drives';
import { onFacet, poseAt, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import type { Vec2 } from '../plane/vec2';
import { boxOf } from '../plane/polygon';
import { pastItsBox } from './overhang';
import { baseExtent, type Brief, type Evidence } from './rule';
import { closedStack, thicknessMap, type ThicknessMap } from './stack-map';

type Asked = Pick<Evidence, 'assembly' | 'brief' | 'closed'>;

/** The card as it is sent, everything else at rest. */
export const postedState = ({ drives }: Assembly, { sentOpen }: Brief): State =>
  sentOpen ? openTo(drives[0].to) : CLOSED;

/** Null where the card does not come to lie so. */
export function postedPose({ assembly, brief, closed }: Asked): Pose | null {
  if (!brief.sentOpen) return closed;
  const pose = poseAt(assembly, postedState(assembly, brief));
  return pose.stop ? null : pose;
}

/** Along the gutter, and away from it. */
interface FlatMm {
  readonly alongMm: number;
  readonly awayMm: number;
}

/** Size of the card as it is sent. */
export function postedSize(evidence: Asked): FlatMm {
  const open = evidence.brief.sentOpen ? postedPose(evidence) : null;
  if (!open) return closedSize(evidence);
  const { min, max } = boxOf(cornersIn(evidence.assembly, open));
  return { alongMm: max[0] - min[0], awayMm: max[1] - min[1] };
}

/** Size of the box round the shut card, with what reaches past that: corners inside it do not count. */
export function closedSize({ assembly, closed }: Pick<Asked, 'assembly' | 'closed'>): FlatMm {
  const { foot, head, spine, fore } = baseExtent(assembly);
  const past = closed ? pastItsBox(assembly, closed) : { head: 0, foot: 0, fore: 0, spine: 0 };
  return { alongMm: head - foot + past.head + past.foot, awayMm: fore - spine + past.fore + past.spine };
}

function cornersIn(assembly: Assembly, pose: Pose): Vec2[] {
  const onPage = (facet: number, outline: readonly Vec2[]): Vec2[] =>
    outline.map((p) => {
      const [x, y] = onFacet(pose, facet, p);
      return [x, y];
    });
  return [
    ...assembly.facets.flatMap((f, i) => onPage(i, f.polygon.outer)),
    ...assembly.layers.flatMap((l) => l.region.flatMap((p) => onPage(l.facet, p.outer))),
  ];
}

/** The stack of the card as it is sent; null where it does not come to lie so. */
export function postedStack(evidence: Evidence): ThicknessMap | null {
  if (!evidence.brief.sentOpen) return closedStack(evidence);
  const pose = postedPose(evidence);
  return pose && thicknessMap(evidence, pose);
}
