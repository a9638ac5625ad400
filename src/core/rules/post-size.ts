/** `post-size`: the card as it is sent fits its envelope less the ease, and the post format's limits. */
import { ENVELOPE_EASE_MM } from '../paper/sizes';
import { POST } from '../ids';
import { SIZE_ROUNDING_MM } from '../tolerance';
import type { Turn } from '../kinds';
import { postedSize, postedState } from './posted';
import { basePiece, finding, leversOf, turnsOf, type Draft, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/** What is judged, as a sentence begins. */
const card = ({ brief }: Evidence): string => (brief.sentOpen ? 'The card, sent open flat,' : 'The closed card');

type Sided = readonly [side: 'short' | 'long', size: number, limit: number];

export const postSize: Rule = {
  id: 'post-size',
  needs: 'closed',
  check: (evidence) => [...inEnvelope(evidence), ...inPost(evidence)],
};

/** The sides of the card as it is sent, and the parameter of the base behind each. */
function sidesOf(evidence: Evidence): { short: number; long: number; turn: (side: 'short' | 'long') => Turn } {
  const { alongMm, awayMm } = postedSize(evidence);
  return {
    short: Math.min(alongMm, awayMm),
    long: Math.max(alongMm, awayMm),
    turn: (side) => ((side === 'long') === alongMm >= awayMm ? 'along' : 'away'),
  };
}

const sizeFinding = (
  { assembly, brief }: Evidence,
  draft: Pick<Draft, 'severity' | 'measured' | 'limit' | 'unit' | 'aspect' | 'message'>,
  ...turns: Turn[]
): Finding =>
  finding({
    ...draft,
    rule: 'post-size',
    mechanism: assembly.base.mechanism,
    piece: basePiece(assembly).id,
    at: postedState(assembly, brief),
    levers: [
      ...turnsOf(assembly, assembly.base.mechanism, ...turns),
      ...(brief.envelope ? leversOf(POST, 'envelope') : []),
    ],
  });

function inEnvelope(evidence: Evidence): Finding[] {
  const { envelope } = evidence.brief;
  if (!envelope) return [];
  const say = wordsFor(evidence);
  const { short, long, turn } = sidesOf(evidence);
  const rooms: Sided[] = [
    ['short', short, envelope.shortMm - ENVELOPE_EASE_MM],
    ['long', long, envelope.longMm - ENVELOPE_EASE_MM],
  ];
  return rooms
    .filter(([, size, limit]) => size > limit + SIZE_ROUNDING_MM)
    .map(([side, measured, limit]) => {
      const takes = `envelope ${envelope.name} takes ${say.mm(limit)} with ${say.mm(ENVELOPE_EASE_MM)} of ease`;
      const message =
        `${card(evidence)} is ${say.mm(measured)} on its ${side} side; ${takes}: ` +
        `too tight by ${say.mm(measured - limit)}.`;
      return sizeFinding(
        evidence,
        { severity: 'blocks', measured, limit, aspect: `envelope ${side}`, message },
        turn(side),
      );
    });
}

function inPost(evidence: Evidence): Finding[] {
  const { envelope, post } = evidence.brief;
  if (!post) return [];
  const say = wordsFor(evidence);
  const { turn, ...sides } = sidesOf(evidence);
  // What is posted is the envelope, where there is one.
  const [short, long] = envelope ? [envelope.shortMm, envelope.longMm] : [sides.short, sides.long];
  const what = envelope ? `Envelope ${envelope.name}` : card(evidence);
  const { name, least, most, aspect } = post;
  const is = (side: string, size: number): string => `${what} is ${say.mm(size)} on its ${side} side; ${name} takes`;
  const over: Sided[] = [
    ['short', short, most.shortMm],
    ['long', long, most.longMm],
  ];
  const under: Sided[] = least
    ? [
        ['short', short, least.shortMm],
        ['long', long, least.longMm],
      ]
    : [];
  const out = [
    ...over
      .filter(([, size, limit]) => size > limit + SIZE_ROUNDING_MM)
      .map(([side, measured, limit]) => {
        const message = `${is(side, measured)} at most ${say.mm(limit)}.`;
        return sizeFinding(
          evidence,
          { severity: 'blocks', measured, limit, aspect: `most ${side}`, message },
          turn(side),
        );
      }),
    ...under
      .filter(([, size, limit]) => size < limit - SIZE_ROUNDING_MM)
      .map(([side, measured, limit]) => {
        const message = `${is(side, measured)} no less than ${say.mm(limit)}.`;
        return sizeFinding(
          evidence,
          { severity: 'blocks', measured, limit, aspect: `least ${side}`, message },
          turn(side),
        );
      }),
  ];
  const ratio = long / short;
  if (aspect && (ratio < aspect[0] || ratio > aspect[1])) {
    const limit = ratio < aspect[0] ? aspect[0] : aspect[1];
    const machines = `${name} machines take ${aspect[0]} to ${aspect[1]}, beyond that postage rises`;
    const message = `${what} is ${ratio.toFixed(2)} times as long as high; ${machines}.`;
    const draft = { severity: 'risk', measured: ratio, limit, unit: 'ratio', aspect: 'aspect', message } as const;
    out.push(sizeFinding(evidence, draft, 'along', 'away'));
  }
  return out;
}
