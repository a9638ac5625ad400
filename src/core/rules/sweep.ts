/** `sweep`: the same as overhang through the whole travel, where the card must stay inside its outline. */
import type { State } from '../drives';
import { onFacet, type Pose } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { OVERHANG_FROM_MM } from '../tolerance';
import { baseExtent, finding, isBase, turnsOf, type Finding, type Rule } from './rule';
import { atState, wordsFor } from './words';

/**
 * How far a pose reaches past the cylinder that the fore edges sweep, and past the ends of the gutter, mm; negative:
 * room left.
 * Null without facets that move.
 */
export function reachPast(
  assembly: Assembly,
  pose: Pose,
  wanted: (mechanism: string) => boolean,
): { fore: number; ends: number } | null {
  const { foot, head, fore: radius } = baseExtent(assembly);
  let fore = -Infinity;
  let ends = -Infinity;
  const take = ([x, y, z]: readonly [number, number, number]): void => {
    fore = Math.max(fore, Math.hypot(y, z) - radius);
    ends = Math.max(ends, x - head, foot - x);
  };
  assembly.facets.forEach((f, i) => {
    if (!wanted(f.mechanism) || isBase(assembly, f.mechanism)) return;
    for (const p of f.polygon.outer) take(onFacet(pose, i, p));
  });
  for (const l of assembly.layers) {
    if (!wanted(l.mechanism) || isBase(assembly, l.mechanism)) continue;
    for (const p of l.region.flatMap((r) => r.outer)) take(onFacet(pose, l.facet, p));
  }
  return fore === -Infinity ? null : { fore, ends };
}

export const sweep: Rule = {
  id: 'sweep',
  needs: 'travel',
  check: (evidence) => {
    const { assembly, brief, travel } = evidence;
    if (!brief.stayInside) return [];
    const say = wordsFor(evidence);
    const out: Finding[] = [];
    for (const m of assembly.mechanisms) {
      let worst: { past: number; at: State; side: 'fore' | 'ends' } | null = null;
      for (const pose of travel) {
        const past = reachPast(assembly, pose, (id) => id === m.id);
        if (!past) continue;
        for (const side of ['fore', 'ends'] as const)
          if (past[side] > (worst?.past ?? OVERHANG_FROM_MM)) worst = { past: past[side], at: pose.state, side };
      }
      if (!worst) continue;
      const fore = worst.side === 'fore';
      const where = fore ? 'the fore edges' : 'an end of the gutter';
      out.push(
        finding({
          rule: 'sweep',
          severity: 'risk',
          mechanism: m.id,
          measured: worst.past,
          at: worst.at,
          aspect: worst.side,
          message:
            `${say.title(m.id)} sweeps ${say.mm(worst.past)} past ${where} ${atState(worst.at, say.title)}, ` +
            'where it must stay inside.',
          subjects: assembly.facets.filter((f) => f.mechanism === m.id).map((f) => f.id),
          levers: [
            ...turnsOf(assembly, m.id, fore ? 'away' : 'along'),
            ...turnsOf(assembly, assembly.base.mechanism, fore ? 'away' : 'along'),
          ],
        }),
      );
    }
    return out;
  },
};
