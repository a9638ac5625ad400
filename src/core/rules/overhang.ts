/** `overhang`: closed, nothing reaches past the leaves' outline. */
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { OVERHANG_FROM_MM } from '../tolerance';
import { baseExtent, leversOf, mm, titleOf, type Finding, type Lever, type Rule } from './rule';

export const SIDES = ['head', 'foot', 'fore', 'spine'] as const;
export type Side = (typeof SIDES)[number];
export type Overhang = Record<Side, number>;

/** Mm past each side at the closed pose, never below 0, for the facets that `wanted` picks. Head is the high end along the gutter. */
export function overhangOf(assembly: Assembly, closed: Pose, wanted: (mechanism: string) => boolean = () => true): Overhang {
  const { half, reachA, reachB } = baseExtent(assembly);
  const out: Overhang = { head: 0, foot: 0, fore: 0, spine: 0 };
  assembly.facets.forEach((f, i) => {
    if (!wanted(f.mechanism)) return;
    for (const p of f.polygon.outer) {
      const [x, y] = onFacet(closed, i, p);
      out.head = Math.max(out.head, x - half);
      out.foot = Math.max(out.foot, -half - x);
      out.fore = Math.max(out.fore, y - Math.max(reachA, reachB));
      out.spine = Math.max(out.spine, -y);
    }
  });
  for (const side of SIDES) if (out[side] < OVERHANG_FROM_MM) out[side] = 0;
  return out;
}

const WHERE: Record<Side, string> = {
  head: 'past the head (the high end of the gutter)', foot: 'past the foot (the low end of the gutter)', fore: 'past the fore edge', spine: 'out behind the fold',
};
/** A facet of the page may be out because of what it is cut from: levers climb to what a mechanism stands on. */
function levers(assembly: Assembly, mechanism: string, side: Side): Lever[] {
  const own = side === 'fore' ? ['depth', 'height', 'riser', 'size', 'lean'] : side === 'spine' ? ['lean', 'fold', 'size'] : ['offset', 'width', 'size'];
  const hostId = assembly.mechanisms.find((m) => m.id === mechanism)?.host?.crease.split('.')[0];
  const below = hostId && hostId !== 'card' ? leversOf(hostId, ...(side === 'fore' ? ['depth', 'height'] : ['offset'])) : [];
  return [...leversOf(mechanism, ...own), ...below, ...leversOf('card', side === 'fore' ? 'reach' : 'gutter')];
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
