/** `overhang`: closed, nothing reaches past the leaves' outline. */
import { CLOSED } from '../drives';
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { preparePolygon } from '../plane/prepared';
import type { Vec2 } from '../plane/vec2';
import { OVERHANG_FROM_MM } from '../tolerance';
import { CARD, ownerOfId } from '../ids';
import { baseExtent, finding, leversOf, type Finding, type Lever, type Rule } from './rule';
import { wordsFor } from './words';

export const SIDES = ['head', 'foot', 'fore', 'spine'] as const;
export type Side = (typeof SIDES)[number];
export type Overhang = Record<Side, number>;

/**
 * Mm past each side at the closed pose, never below 0, for the facets that `wanted` picks. Head is the high end along
 * the gutter.
 */
export function overhangOf(
  assembly: Assembly,
  closed: Pose,
  wanted: (mechanism: string) => boolean = () => true,
  past = pastOutline(assembly),
): Overhang {
  const out: Overhang = { head: 0, foot: 0, fore: 0, spine: 0 };
  const add = (x: number, y: number): void => {
    const over = past(x, y);
    for (const side of SIDES) out[side] = Math.max(out[side], over[side]);
  };
  const worldXY = (facet: number, p: Vec2): void => {
    const [x, y] = onFacet(closed, facet, p);
    add(x, y);
  };
  assembly.facets.forEach((f, i) => {
    if (wanted(f.mechanism)) for (const p of f.polygon.outer) worldXY(i, p);
  });
  for (const l of assembly.layers)
    if (wanted(l.mechanism)) for (const p of l.region) for (const q of p.outer) worldXY(l.facet, q);
  for (const side of SIDES) if (out[side] < OVERHANG_FROM_MM) out[side] = 0;
  return out;
}

const NONE: Overhang = { head: 0, foot: 0, fore: 0, spine: 0 };

type Past = (x: number, y: number) => Overhang;

/** How far a place lies past each side of the box round the closed base, mm: what an envelope sees. */
function pastBox(assembly: Assembly): Past {
  const { foot, head, reachA, reachB } = baseExtent(assembly);
  return (x, y) => ({ head: x - head, foot: foot - x, fore: y - Math.max(reachA, reachB), spine: -y });
}

/** How far a place lies past each side of the closed base, mm; a shaped base is asked for its own outline. */
function pastOutline(assembly: Assembly): Past {
  const { foot, head, reachA, reachB } = baseExtent(assembly);
  const middle = (foot + head) / 2;
  const { outer } = assembly.pieces.find((p) => p.id === CARD)!.outline;
  const box = pastBox(assembly);
  if (outer.length <= 4) return box;
  const leaves = [outer, outer.map(([x, y]): Vec2 => [x, -y])].map((ring) =>
    preparePolygon({ outer: ring, holes: [] }),
  );
  return (x, y) => {
    if (y < 0 || leaves.some((p) => p.contains([x, y]))) return { ...NONE, spine: -y };
    // Past the silhouette: by the distance to it, on the side it lies.
    const by = Math.min(...leaves.map((p) => p.distanceToEdge([x, y])));
    const beside = Math.abs(x - middle) / (head - middle) > y / Math.max(reachA, reachB);
    const side: Side = beside ? (x > middle ? 'head' : 'foot') : 'fore';
    return { ...NONE, [side]: by };
  };
}

const WHERE: Record<Side, string> = {
  head: 'past the head (the high end of the gutter)',
  foot: 'past the foot (the low end of the gutter)',
  fore: 'past the fore edge',
  spine: 'out behind the fold',
};
/** A facet of the page may be out because of what it is cut from: levers climb to what a mechanism stands on. */
function levers(assembly: Assembly, mechanism: string, side: Side): Lever[] {
  const own =
    side === 'fore'
      ? ['depth', 'height', 'figureHeight', 'riser', 'size', 'lean', 'slit', ...planeLevers(assembly, mechanism)]
      : side === 'spine'
        ? ['lean', 'fold', 'size']
        : ['offset', 'width', 'size', 'figureHeight'];
  const hostId = assembly.mechanisms.find((m) => m.id === mechanism)?.host?.crease;
  const below =
    hostId && ownerOfId(hostId) !== CARD
      ? leversOf(ownerOfId(hostId), ...(side === 'fore' ? ['depth', 'height'] : ['offset']))
      : [];
  return [...leversOf(mechanism, ...own), ...below, ...leversOf('card', side === 'fore' ? 'reach' : 'gutter')];
}

/** Numbers of each plane of a stack. */
function planeLevers(assembly: Assembly, mechanism: string): string[] {
  const m = assembly.mechanisms.find((x) => x.id === mechanism);
  if (m?.kind !== 'plane-stack') return [];
  return m.landmarks.flatMap(({ name }) => {
    const at = name.replace('.top', '');
    return [`${at}.height`, `${at}.depth`];
  });
}

export const overhang: Rule = {
  id: 'overhang',
  needs: 'closed',
  check: (evidence) => {
    const { assembly, closed } = evidence;
    if (!closed) return [];
    const say = wordsFor(evidence);
    const out: Finding[] = [];
    for (const m of assembly.mechanisms) {
      if (m.id === 'card') continue;
      const past = overhangOf(assembly, closed, (id) => id === m.id);
      // Past a shaped outline but inside its box it shows, and goes into the envelope all the same.
      const boxed = overhangOf(assembly, closed, (id) => id === m.id, pastBox(assembly));
      for (const side of SIDES) {
        if (past[side] === 0) continue;
        const own = assembly.facets.filter((f) => f.mechanism === m.id);
        out.push(
          finding({
            rule: 'overhang',
            severity: boxed[side] > 0 ? 'blocks' : 'risk',
            mechanism: m.id,
            piece: own[0]?.piece,
            measured: past[side],
            at: CLOSED,
            aspect: side,
            message: `${say.title(m.id)} reaches ${say.mm(past[side])} ${WHERE[side]} when closed.`,
            subjects: own.map((f) => f.id),
            levers: levers(assembly, m.id, side),
          }),
        );
      }
    }
    return out;
  },
};
