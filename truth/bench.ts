/** Draws, judges, asks the rules, and counts. The same seed gives the same designs. */
import { buildAssembly } from '../src/core/build/build';
import { gather } from '../src/core/proof/evidence';
import type { Design } from '../src/core/document/design';
import { RULES, type Finding, type RuleId } from '../src/core/rules';
import { seeded } from '../src/core/linkage/random';
import { draw, families, isByHand } from './designs';
import { judgeHanging, judgeShut } from './judge-still';
import { judgeBoth } from './judge-both';
import { judgeRising } from './judge-rising';
import { judgeHands, OPENINGS, type Judged } from './judge';

/** A design by its number, and what the judge or the rule said of it. */
interface Judgement {
  readonly number: number;
  readonly why: string;
}
export interface Tally {
  readonly family: string;
  drawn: number;
  jams: number;
  readonly undecided: Judgement[];
  readonly missed: Judgement[];
  readonly falseAlarms: Judgement[];
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

const isCollision = (f: Finding): boolean => f.rule === 'collision';

type Ruled = (design: Design) => Finding | null;
const JUDGES: Readonly<Record<string, { readonly judge: (design: Design) => Judged; readonly ruled: Ruled }>> = {
  both: { judge: (design) => judgeBoth(design), ruled: ruledBetween },
  shut: { judge: judgeShut, ruled: ruledAs('overhang', ['blocks', 'risk']) },
  hanging: { judge: judgeHanging, ruled: ruledAs('tip', ['blocks']) },
  rising: { judge: judgeRising, ruled: ruledBlock },
  mixed: { judge: judgeMixed, ruled: ruledBlock },
};
const judgeOf = (family: string) => JUDGES[family]?.judge ?? judgeHands;
const ruledOf = (family: string): Ruled => JUDGES[family]?.ruled ?? ruledJam;

/** What two things do to each other as hands move them; what one does to itself is its own kind's business. */
function ruledBetween(design: Design): Finding | null {
  const evidence = gather(design, 'travel', 4, buildAssembly(design));
  const found = RULES.filter((r) => r.id === 'collision').flatMap((r) => r.check(evidence));
  return found.find((f) => design.mechanisms.some((m) => m.id !== f.mechanism && f.aspect.startsWith(m.id))) ?? null;
}

/** What passes through something as the card opens; else whatever keeps it from being told clear. */
function ruledBlock(design: Design): Finding | null {
  const evidence = gather(design, 'travel', 36, buildAssembly(design));
  const found = RULES.flatMap((r) => r.check(evidence)).filter((f) => f.severity === 'blocks');
  return found.find((f) => f.rule === 'collision') ?? found[0] ?? null;
}

/** As each hand moves it, while it opens, and as two hands move it at once: the first that jams, else any doubt. */
function judgeMixed(design: Design): Judged {
  let doubt: Judged | null = null;
  for (const judge of [judgeHands, judgeRising, judgeTwo]) {
    const judged = judge(design, true);
    if (judged.answer === 'jams') return judged;
    if (judged.answer === 'undecided') doubt ??= judged;
  }
  return doubt ?? { answer: 'moves', why: '' };
}
const judgeTwo = (design: Design, lowIsLeaf: boolean): Judged => judgeBoth(design, OPENINGS, lowIsLeaf);

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
    .map((name): Tally => ({ family: name, drawn: 0, jams: 0, undecided: [], missed: [], falseAlarms: [] }));
  for (let number = 0; number < rounds && more(); number++)
    for (const tally of tallies) if (more()) judgeOne(tally, seed, number);
  return tallies;
}

function judgeOne(tally: Tally, seed: number, number: number): void {
  const { design } = draw(tally.family, seeded(seed * 100_003 + number));
  tally.drawn++;
  const { answer, why } = judgeOf(tally.family)(design);
  const found = ruledOf(tally.family)(design);
  if (answer === 'undecided') tally.undecided.push({ number, why: found ? `${why}; told: ${found.message}` : why });
  if (answer === 'jams') tally.jams++;
  if (answer === 'jams' && !found) tally.missed.push({ number, why });
  const isAsked = isByHand(tally.family)
    ? isOfSolids
    : ['rising', 'mixed'].includes(tally.family)
      ? isCollision
      : () => true;
  if (answer === 'moves' && found && isAsked(found)) tally.falseAlarms.push({ number, why: found.message });
}

export const tableOf = (tallies: readonly Tally[]): string =>
  [
    '| family | drawn | jam | too near to tell | missed | false alarms |',
    '|---|---|---|---|---|---|',
    ...tallies.map(
      ({ family, drawn, jams, undecided, missed, falseAlarms }) =>
        `| ${[family, drawn, jams, undecided.length, missed.length, falseAlarms.length].join(' | ')} |`,
    ),
  ].join('\n');
