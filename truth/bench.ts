/** Draws, judges, asks the rules, and counts. The same seed gives the same designs. */
import { buildAssembly } from '../src/core/build/build';
import { gather } from '../src/core/proof/evidence';
import type { Design } from '../src/core/document/design';
import { RULES, type Finding, type RuleId } from '../src/core/rules';
import { seeded } from '../src/core/linkage/random';
import { draw, families, isByHand } from './designs';
import { judgeHanging, judgeShut } from './judge-still';
import { judgeHands, type Judged } from './judge';

export interface Tally {
  readonly family: string;
  drawn: number;
  jams: number;
  undecided: number;
  readonly missed: { readonly number: number; readonly why: string }[];
  readonly falseAlarms: { readonly number: number; readonly why: string }[];
}

/** What the rules say runs into something as a hand moves it, or is held down; the first the judge has a say in. */
export function ruledJam(design: Design): Finding | null {
  const evidence = gather(design, 'travel', 12, buildAssembly(design));
  const found = RULES.filter((r) => r.id === 'collision' || r.id === 'bind')
    .flatMap((r) => r.check(evidence))
    .filter((f) => f.severity === 'blocks');
  return found.find(isOfSolids) ?? found[0] ?? null;
}
/** Paper that is held down by what is stuck over it is no solid in another's room: the judge has no say in that. */
const isOfSolids = (f: Finding): boolean => /by hand| under | glued to /.test(f.aspect);

type Ruled = (design: Design) => Finding | null;
const JUDGES: Readonly<Record<string, { readonly judge: (design: Design) => Judged; readonly ruled: Ruled }>> = {
  shut: { judge: judgeShut, ruled: ruledAs('overhang', ['blocks', 'risk']) },
  hanging: { judge: judgeHanging, ruled: ruledAs('tip', ['blocks']) },
};
const judgeOf = (family: string) => JUDGES[family]?.judge ?? judgeHands;
const ruledOf = (family: string): Ruled => JUDGES[family]?.ruled ?? ruledJam;

function ruledAs(rule: RuleId, severities: readonly Finding['severity'][]): Ruled {
  return (design) => {
    const evidence = gather(design, 'travel', 4, buildAssembly(design));
    const found = RULES.filter((r) => r.id === rule).flatMap((r) => r.check(evidence));
    return found.find((f) => severities.includes(f.severity)) ?? null;
  };
}

/**
 * @param family one only; all where it is empty
 * @param rounds of one design of each family, at most
 * @param more asked before each design: no ends it
 */
export function bench({
  seed,
  family = '',
  rounds = Infinity,
  more = () => true,
}: {
  readonly seed: number;
  readonly family?: string;
  readonly rounds?: number;
  readonly more?: () => boolean;
}): Tally[] {
  const tallies = families
    .filter((f) => family === '' || f === family)
    .map((name): Tally => ({ family: name, drawn: 0, jams: 0, undecided: 0, missed: [], falseAlarms: [] }));
  for (let number = 0; number < rounds && more(); number++)
    for (const tally of tallies) if (more()) judgeOne(tally, seed, number);
  return tallies;
}

function judgeOne(tally: Tally, seed: number, number: number): void {
  const { design } = draw(tally.family, seeded(seed * 100_003 + number));
  tally.drawn++;
  const { answer, why } = judgeOf(tally.family)(design);
  const found = ruledOf(tally.family)(design);
  if (answer === 'undecided') tally.undecided++;
  if (answer === 'jams') tally.jams++;
  if (answer === 'jams' && !found) tally.missed.push({ number, why });
  if (answer === 'moves' && found && (!isByHand(tally.family) || isOfSolids(found)))
    tally.falseAlarms.push({ number, why: found.message });
}

export const tableOf = (tallies: readonly Tally[]): string =>
  [
    '| family | drawn | jam | too near to tell | missed | false alarms |',
    '|---|---|---|---|---|---|',
    ...tallies.map(
      (t) => `| ${t.family} | ${t.drawn} | ${t.jams} | ${t.undecided} | ${t.missed.length} | ${t.falseAlarms.length} |`,
    ),
  ].join('\n');
