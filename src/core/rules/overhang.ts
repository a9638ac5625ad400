/** `overhang`: closed, nothing reaches past the leaves' outline. */
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { contains, distanceToEdge } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { OVERHANG_FROM_MM } from '../tolerance';
import { baseExtent, leversOf, mm, titleOf, type Finding, type Lever, type Rule } from './rule';

export const SIDES = ['head', 'foot', 'fore', 'spine'] as const;
export type Side = (typeof SIDES)[number];
export type Overhang = Record<Side, number>;

/** Mm past each side at the closed pose, never below 0, for the facets that `wanted` picks. Head is the high end along the gutter. */
export function overhangOf(assembly: Assembly, closed: Pose, wanted: (mechanism: string) => boolean = () => true): Overhang {
  const past = pastOutline(assembly);
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
  for (const l of assembly.layers) if (wanted(l.mechanism)) for (const p of l.region) for (const q of p.outer) worldXY(l.facet, q);
  for (const side of SIDES) if (out[side] < OVERHANG_FROM_MM) out[side] = 0;
  return out;
}

/** How far a place lies past each side of the closed base, mm; a shaped base is asked for its own outline. */
function pastOutline(assembly: Assembly): (x: number, y: number) => Overhang {
  const { half, reachA, reachB } = baseExtent(assembly);
  const { outline } = assembly.pieces.find((p) => p.id === 'card')!;
  const plain = outline.outer.length <= 4;
  const leaves = plain ? [] : [outline, { outer: outline.outer.map(([x, y]): Vec2 => [x, -y]), holes: [] }];
  return (x, y) => {
    const box = { head: x - half, foot: -half - x, fore: y - Math.max(reachA, reachB), spine: -y };
    if (plain || leaves.some((p) => contains({ outer: p.outer, holes: [] }, [x, y]))) return plain ? box : { head: 0, foot: 0, fore: 0, spine: -y };
    // Past the silhouette: by the distance to it, on the side it lies.
    const by = Math.min(...leaves.map((p) => distanceToEdge({ outer: p.outer, holes: [] }, [x, y])));
    if (y < 0) return { head: 0, foot: 0, fore: 0, spine: -y };
    const side: Side = Math.abs(x) / half > y / reachA ? (x > 0 ? 'head' : 'foot') : 'fore';
    return { head: 0, foot: 0, fore: 0, spine: 0, [side]: by };
  };
}

const WHERE: Record<Side, string> = {
  head: 'past the head (the high end of the gutter)', foot: 'past the foot (the low end of the gutter)', fore: 'past the fore edge', spine: 'out behind the fold',
};
/** A facet of the page may be out because of what it is cut from: levers climb to what a mechanism stands on. */
function levers(assembly: Assembly, mechanism: string, side: Side): Lever[] {
  const own = side === 'fore' ? ['depth', 'height', 'figureHeight', 'riser', 'size', 'lean', 'slit', ...planeLevers(assembly, mechanism)] : side === 'spine' ? ['lean', 'fold', 'size'] : ['offset', 'width', 'size', 'figureHeight'];
  const hostId = assembly.mechanisms.find((m) => m.id === mechanism)?.host?.crease.split('.')[0];
  const below = hostId && hostId !== 'card' ? leversOf(hostId, ...(side === 'fore' ? ['depth', 'height'] : ['offset'])) : [];
  return [...leversOf(mechanism, ...own), ...below, ...leversOf('card', side === 'fore' ? 'reach' : 'gutter')];
}

/** Numbers of each plane of a stack. */
function planeLevers(assembly: Assembly, mechanism: string): string[] {
  const m = assembly.mechanisms.find((x) => x.id === mechanism);
  if (m?.kind !== 'plane-stack') return [];
  return m.landmarks.flatMap(({ name }) => { const at = name.replace('.top', ''); return [`${at}.height`, `${at}.depth`]; });
}

export const overhang: Rule = {
  id: 'overhang',
  needs: 'closed',
  check: ({ assembly, closed }) => {
    if (!closed) return [];
    const out: Finding[] = [];
    for (const m of assembly.mechanisms) {
      if (m.id === 'card') continue;
      const past = overhangOf(assembly, closed, (id) => id === m.id);
      for (const side of SIDES) {
        if (past[side] === 0) continue;
        out.push({
          rule: 'overhang', severity: 'blocks', mechanism: m.id, piece: assembly.facets.find((f) => f.mechanism === m.id)?.piece ?? '', measured: past[side], limit: 0, unit: 'mm', drive: { open: 0 }, aspect: side,
          message: `${titleOf(assembly, m.id)} reaches ${mm(past[side])} ${WHERE[side]} when closed.`,
          subjects: assembly.facets.filter((f) => f.mechanism === m.id).map((f) => f.id), levers: levers(assembly, m.id, side),
        });
      }
    }
    return out;
  },
};
