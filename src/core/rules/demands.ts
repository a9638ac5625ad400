/**
 * `captive`, `bind`, `grip`, `covered`, `stands`: what must hold of parts that move. Each kind measures its own
 * parts (docs/mechanisms.md); these rules hold what it measured against what is asked.
 */
import type { Demand } from '../kinds';
import { restOf } from '../drives';
import type { PlacedMechanism } from '../assembly/assembly';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { finding, leversOf, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

const demanding = (id: Demand['rule']): Rule => ({
  id,
  needs: 'pattern',
  check: (evidence) => demanded(evidence, id),
});

/** What the kinds ask of their own parts under a rule, and do not have. */
export const demanded = (evidence: Evidence, rule: Demand['rule']): Finding[] =>
  evidence.assembly.mechanisms.flatMap((m) =>
    m.demands
      .filter((d) => d.rule === rule && d.measured < d.least - SIZE_ROUNDING_MM)
      .map((d) => told(evidence, m, d)),
  );

function told(evidence: Evidence, m: PlacedMechanism, d: Demand): Finding {
  const say = wordsFor(evidence);
  const { facets, creases } = evidence.assembly;
  const blocks = d.measured < d.blocksUnder - SIZE_ROUNDING_MM;
  const limit = blocks ? d.blocksUnder : d.least;
  const size = (value: number): string => (d.unit === 'deg' ? `${value.toFixed(1)}°` : say.mm(value));
  const rest = restOf(evidence.assembly.drives);
  return finding({
    rule: d.rule,
    severity: blocks ? 'blocks' : 'risk',
    mechanism: m.id,
    piece: [...facets, ...creases].find((part) => d.subjects.includes(part.id))?.piece ?? '',
    measured: d.measured,
    limit,
    unit: d.unit,
    at: d.at ? { ...rest, [d.at.drive]: d.at.value } : rest,
    aspect: d.aspect,
    message: `${say.title(m.id)}: ${d.says} ${size(d.measured)}; it needs ${size(d.least)}.`,
    subjects: d.subjects,
    levers: leversOf(m.id, ...d.levers),
  });
}

export const DEMANDING: readonly Rule[] = (['captive', 'bind', 'grip', 'covered', 'stands'] as const).map(demanding);
