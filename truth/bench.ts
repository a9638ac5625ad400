/** Draws, judges, asks the rules, and counts. The same seed gives the same designs. */
import { buildAssembly } from '../src/core/build/build';
import { gather } from '../src/core/proof/evidence';
import { RULES, type Finding } from '../src/core/rules';
import { seeded } from '../src/core/linkage/random';
import { draw, families } from './designs';
import { judgeHands } from './judge';

export interface Tally {
  readonly family: string;
  drawn: number;
  jams: number;
  undecided: number;
  readonly missed: { readonly number: number; readonly why: string }[];
  readonly falseAlarms: { readonly number: number; readonly why: string }[];
}

/** What the rules say runs into something as a hand moves it. */
export function ruledJam(design: Parameters<typeof gather>[0]): Finding | null {
  const evidence = gather(design, 'travel', 12, buildAssembly(design));
  const found = RULES.filter((r) => r.id === 'collision' || r.id === 'bind').flatMap((r) => r.check(evidence));
  // Paper that is held down by what is stuck over it is no solid in another's room: this judge has no say in it.
  return found.find((f) => f.severity === 'blocks' && /by hand| under | glued to /.test(f.aspect)) ?? null;
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
  const { answer, why } = judgeHands(design);
  const found = ruledJam(design);
  if (answer === 'undecided') tally.undecided++;
  if (answer === 'jams') tally.jams++;
  if (answer === 'jams' && !found) tally.missed.push({ number, why });
  if (answer === 'moves' && found) tally.falseAlarms.push({ number, why: found.message });
}

export const tableOf = (tallies: readonly Tally[]): string =>
  [
    '| family | drawn | jam | too near to tell | missed | false alarms |',
    '|---|---|---|---|---|---|',
    ...tallies.map(
      (t) => `| ${t.family} | ${t.drawn} | ${t.jams} | ${t.undecided} | ${t.missed.length} | ${t.falseAlarms.length} |`,
    ),
  ].join('\n');
