/** `flat-fold`: at the closed pose every facet lies in one plane and every loop closes. */
import { onFacet } from '../assembly/pose';
import { FLAT_PLANE_MM, LENGTH_EQUAL_MM } from '../tolerance';
import type { Assembly } from '../assembly/assembly';
import { radToDeg } from '../units/angle';
import { leversOf, mm, titleOf, type Finding, type Rule } from './rule';

/** The mechanism that a joint of the linkage belongs to. */
export const mechanismOfJoint = (assembly: Assembly, joint: number): string => {
  const id = assembly.linkage.joints[joint]?.id;
  return assembly.creases.find((c) => c.id === id)?.mechanism ?? 'card';
};

export const flatFold: Rule = {
  id: 'flat-fold',
  needs: 'closed',
  check: ({ assembly, closed }) => {
    const out: Finding[] = [];
    const add = (mechanism: string, measured: number, limit: number, open: number, message: string, aspect: string): void => {
      out.push({
        rule: 'flat-fold', severity: 'blocks', mechanism, piece: assembly.facets.find((f) => f.mechanism === mechanism)?.piece ?? '', measured, limit, unit: 'mm', drive: { open }, message, aspect,
        subjects: assembly.creases.filter((c) => c.mechanism === mechanism).map((c) => c.id), levers: leversOf(mechanism, 'riser', 'tread', 'depth', 'height', 'fold', 'lean'),
      });
    };
    for (const gap of assembly.travel.closedGaps()) {
      if (gap.mm <= LENGTH_EQUAL_MM) continue;
      const mechanism = mechanismOfJoint(assembly, gap.joints[0]);
      add(mechanism, gap.mm, 0, 0, `${titleOf(assembly, mechanism)} cannot close flat: its two ways round differ by ${mm(gap.mm)}.`, 'gap');
    }
    for (const { kind, mechanism, what, sizeMm } of assembly.misfits) {
      if (kind === 'contradiction') add(mechanism, sizeMm, 0, 180, `${titleOf(assembly, mechanism)}: ${what}`, 'contradiction');
    }
    if (!closed && out.length === 0) {
      const stop = assembly.travel.at(Math.PI).stop;
      const mechanism = stop && stop.joints.length > 0 ? mechanismOfJoint(assembly, stop.joints[0]) : 'card';
      const at = 180 - radToDeg(stop?.drive ?? 0);
      out.push({
        rule: 'flat-fold', severity: 'blocks', mechanism, piece: '', measured: at, limit: 0, unit: 'deg', drive: { open: at }, aspect: 'stop', subjects: [], levers: [],
        message: `The card cannot close further than ${at.toFixed(1)}°: ${titleOf(assembly, mechanism)} stands in the way.`,
      });
    }
    if (closed) {
      assembly.facets.forEach((f, i) => {
        const height = f.polygon.outer.reduce((h, p) => Math.max(h, Math.abs(onFacet(closed, i, p)[2])), 0);
        if (height > FLAT_PLANE_MM) add(f.mechanism, height, FLAT_PLANE_MM, 0, `${titleOf(assembly, f.mechanism)} stands ${mm(height)} off the page when closed.`, f.id);
      });
    }
    return out;
  },
};
