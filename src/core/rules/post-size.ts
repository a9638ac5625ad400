/** `post-size`: the closed card fits its envelope less the ease, and the post format's limits. */
import { ENVELOPE_EASE_MM } from '../paper/sizes';
import { overhangOf } from './overhang';
import { baseExtent, leversOf, mm, type Evidence, type Finding, type Rule } from './rule';

/** Closed size, mm: along the gutter, and away from it. */
export function closedSize({ assembly, closed }: Pick<Evidence, 'assembly' | 'closed'>): { alongMm: number; awayMm: number } {
  const { half, reachA, reachB } = baseExtent(assembly);
  const past = closed ? overhangOf(assembly, closed) : { head: 0, foot: 0, fore: 0, spine: 0 };
  return { alongMm: 2 * half + past.head + past.foot, awayMm: Math.max(reachA, reachB) + past.fore + past.spine };
}

export const postSize: Rule = {
  id: 'post-size',
  needs: 'closed',
  check: (evidence) => {
    const { brief } = evidence;
    const { alongMm, awayMm } = closedSize(evidence);
    const [short, long] = [Math.min(alongMm, awayMm), Math.max(alongMm, awayMm)];
    const out: Finding[] = [];
    const lever = (side: 'short' | 'long'): string => ((side === 'long') === (alongMm >= awayMm) ? 'gutter' : 'reach');
    const add = (severity: Finding['severity'], measured: number, limit: number, unit: Finding['unit'], aspect: string, message: string, ...keys: string[]): void => {
      out.push({ rule: 'post-size', severity, mechanism: 'card', piece: 'card', measured, limit, unit, drive: { open: 0 }, aspect, message, subjects: [], levers: leversOf('card', ...keys) });
    };
    if (brief.envelope) {
      const { name, shortMm, longMm } = brief.envelope;
      for (const [side, size, room] of [['short', short, shortMm - ENVELOPE_EASE_MM], ['long', long, longMm - ENVELOPE_EASE_MM]] as const) {
        if (size > room + 1e-6) add('blocks', size, room, 'mm', `envelope ${side}`, `The closed card is ${mm(size)} on its ${side} side; envelope ${name} takes ${mm(room)} with ${ENVELOPE_EASE_MM} mm of ease: too tight by ${mm(size - room)}.`, lever(side));
      }
    }
    if (brief.post) {
      const { name, least, most, aspect } = brief.post;
      // What is posted is the envelope, where there is one.
      const [s, l] = brief.envelope ? [brief.envelope.shortMm, brief.envelope.longMm] : [short, long];
      const what = brief.envelope ? `Envelope ${brief.envelope.name}` : 'The closed card';
      for (const [side, size, limit] of [['short', s, most.shortMm], ['long', l, most.longMm]] as const) {
        if (size > limit + 1e-6) add('blocks', size, limit, 'mm', `most ${side}`, `${what} is ${mm(size)} on its ${side} side; ${name} takes at most ${mm(limit)}.`, lever(side));
      }
      if (least) {
        for (const [side, size, limit] of [['short', s, least.shortMm], ['long', l, least.longMm]] as const) {
          if (size < limit - 1e-6) add('blocks', size, limit, 'mm', `least ${side}`, `${what} is ${mm(size)} on its ${side} side; ${name} takes no less than ${mm(limit)}.`, lever(side));
        }
      }
      if (aspect && (l / s < aspect[0] || l / s > aspect[1])) {
        add('risk', l / s, l / s < aspect[0] ? aspect[0] : aspect[1], 'ratio', 'aspect', `${what} is ${(l / s).toFixed(2)} times as long as high; ${name} machines take ${aspect[0]} to ${aspect[1]}, beyond that postage rises.`, 'gutter', 'reach');
      }
    }
    return out;
  },
};
