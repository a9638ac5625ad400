/** `tip`: what floats or stands has the middle of its weight well over what carries it. */
import { WELD_MM } from '../tolerance';
import { leversOf, mm, titleOf, type Rule } from './rule';

/** Handbook section 1; common practice, no source. */
export const LEAST_TIP_MM = 5;

export const tip: Rule = {
  id: 'tip',
  needs: 'pattern',
  check: ({ assembly }) => assembly.mechanisms.flatMap((m) => {
    const { tip_mm: margin } = m.measures({ local: () => undefined, closed: () => undefined });
    if (margin === undefined || margin >= LEAST_TIP_MM - WELD_MM) return [];
    return [{
      rule: 'tip' as const, severity: margin < 0 ? 'blocks' as const : 'risk' as const, mechanism: m.id, piece: m.host?.piece ?? '', measured: margin, limit: LEAST_TIP_MM, unit: 'mm' as const, drive: { open: 90 }, aspect: 'weight',
      message: margin < 0
        ? `${titleOf(assembly, m.id)} is top-heavy: the middle of its figure's weight lies ${mm(-margin)} outside the band that carries it.`
        : `${titleOf(assembly, m.id)}: the middle of its figure's weight lies only ${mm(margin)} inside the band that carries it; below ${mm(LEAST_TIP_MM)} it tips.`,
      subjects: [`${m.id}.halfA`, `${m.id}.halfB`], levers: leversOf(m.id, 'width', 'quarter', 'slit', 'axisShift'),
    }];
  }),
};
