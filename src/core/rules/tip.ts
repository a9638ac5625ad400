/** `tip`: what floats or stands has the middle of its weight well over what carries it. */
import { openTo } from '../drives';
import { WELD_MM } from '../tolerance';
import { finding, turnsOf, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/** Common practice, no source. */
export const LEAST_TIP_MM = 5;

export const tip: Rule = {
  id: 'tip',
  needs: 'pattern',
  check: (evidence) => {
    const say = wordsFor(evidence);
    return evidence.assembly.mechanisms.flatMap((m): Finding[] => {
      const { tip_mm: margin } = m.measures({ local: () => undefined, closed: () => undefined });
      if (margin === undefined || margin >= LEAST_TIP_MM - WELD_MM) return [];
      const middle = "the middle of its figure's weight lies";
      return [
        finding({
          rule: 'tip',
          severity: margin < 0 ? 'blocks' : 'risk',
          mechanism: m.id,
          piece: m.host?.piece,
          measured: margin,
          limit: LEAST_TIP_MM,
          at: openTo(90),
          aspect: 'weight',
          message:
            margin < 0
              ? `${say.title(m.id)} is top-heavy: ${middle} ${say.mm(-margin)} outside the band that carries it.`
              : `${say.title(m.id)}: ${middle} only ${say.mm(margin)} inside the band that carries it; ` +
                `below ${say.mm(LEAST_TIP_MM)} it tips.`,
          subjects: [`${m.id}.halfA`, `${m.id}.halfB`],
          levers: turnsOf(evidence.assembly, m.id, 'weight'),
        }),
      ];
    });
  },
};
