/** The part of a large card in which remedies are looked for: what a finding is about, with what lies round it. */
import type { Assembly } from '../assembly/assembly';
import { facetOutline, type Pose } from '../assembly/pose';
import type { Design } from '../document/design';
import { removeMechanism, standingOn } from '../document/standing';
import { CARD, ownerOfId } from '../ids';
import { boxesMeet, boxOf, type Box2 } from '../plane/polygon';
import type { Finding } from '../rules';

/** Cards of up to this many mechanisms are quick enough to be tried whole. */
export const TRIED_WHOLE = 12;
/** What comes this near to it as the card lies closed belongs to the part, mm: wider than any paper that is narrow. */
const AROUND_MM = 8;

/** Null where the whole card is to be tried. Values found in a part are candidates: they are proved on the card. */
export function partFor(design: Design, assembly: Assembly, closed: Pose, finding: Finding): Design | null {
  if (design.mechanisms.length <= TRIED_WHOLE) return null;
  const about = [finding.mechanism, ...finding.levers.map((l) => l.mechanism), ...finding.subjects.map(ownerOfId)];
  const asked = new Set(about.filter((id) => id !== CARD).flatMap((id) => standingOn(design, id)));
  const boxes = closedBoxes(assembly, closed);
  const near = [...asked].map((id) => boxes.get(id)).filter((b) => b !== undefined);
  const meets = (id: string): boolean => {
    const box = boxes.get(id);
    return box !== undefined && near.some((b) => boxesMeet(grown(b), box));
  };
  const kept = withHosts(
    design,
    design.mechanisms.map((m) => m.id).filter((id) => asked.has(id) || meets(id)),
  );
  return kept.size === design.mechanisms.length ? null : without(design, kept);
}

const grown = ({ min, max }: Box2): Box2 => ({
  min: [min[0] - AROUND_MM, min[1] - AROUND_MM],
  max: [max[0] + AROUND_MM, max[1] + AROUND_MM],
});

/** Box of every mechanism's own facets in the plane of the closed card. */
function closedBoxes(assembly: Assembly, closed: Pose): Map<string, Box2> {
  const boxes = new Map<string, Box2>();
  assembly.facets.forEach((f, i) => {
    const known = boxes.get(f.mechanism);
    const corners = facetOutline(closed, assembly.facets, i).map(([x, y]) => [x, y] as const);
    boxes.set(f.mechanism, boxOf(known ? [...corners, known.min, known.max] : corners));
  });
  return boxes;
}

/** Mechanisms with all they stand on. */
function withHosts(design: Design, ids: readonly string[]): Set<string> {
  const on = new Map(design.mechanisms.map((m) => [m.id, ownerOfId(m.on)]));
  const kept = new Set<string>();
  for (const id of ids) for (let at: string | undefined = id; at && on.has(at); at = on.get(at)) kept.add(at);
  return kept;
}

const without = (design: Design, kept: ReadonlySet<string>): Design =>
  design.mechanisms.reduce((d, m) => (kept.has(m.id) ? d : removeMechanism(d, m.id)), design);
