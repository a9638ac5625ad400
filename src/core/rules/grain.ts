/** `grain`: long creases run along the grain; across it card cracks and folds where it likes. */
import type { CreaseLine } from '../pattern/pattern';
import { stockSetting } from '../ids';
import { dist2 } from '../plane/vec2';
import { SIZE_ROUNDING_MM } from '../tolerance';
import { finding, leversOf, type Finding, type Rule } from './rule';
import { laidOn } from './sheet-fit';
import { wordsFor } from './words';

/** A crease as long as this cracks where it crosses the grain, mm; common practice, no source. */
export const LONG_CREASE_MM = 75;
/** It crosses the grain where it lies nearer to the square of that, as a sine. */
const ACROSS = Math.SQRT1_2;

export const grain: Rule = {
  id: 'grain',
  needs: 'pattern',
  neverBlocks: true,
  check: (evidence) => {
    const { assembly, brief } = evidence;
    const say = wordsFor(evidence);
    return assembly.pieces.flatMap((piece): Finding[] => {
      const laid = laidOn(evidence, piece);
      if (!laid || laid.sheetTooSmall || brief.stock(piece.stock).grain === 'none') return [];
      const crossing = piece.creases.filter(
        (c) => dist2(c.a, c.b) >= LONG_CREASE_MM - SIZE_ROUNDING_MM && sineToGrain(c, laid.grainAlongX) > ACROSS,
      );
      const [worst] = [...crossing].sort((a, b) => dist2(b.a, b.b) - dist2(a.a, a.b));
      if (piece.creases.length === 0 || (!laid.turned && !worst)) return [];
      const size = `${say.mm(laid.widthMm)} x ${say.mm(laid.heightMm)}`;
      const common = {
        rule: 'grain',
        severity: 'note',
        mechanism: piece.mechanism,
        piece: piece.id,
        measured: worst ? dist2(worst.a, worst.b) : 0,
        limit: LONG_CREASE_MM,
        aspect: piece.id,
        levers: leversOf(stockSetting(piece.stock), 'grain', 'sheet'),
      } as const;
      const across = `the grain of ${brief.stock(piece.stock).name}`;
      return [
        finding({
          ...common,
          subjects: [piece.id, ...crossing.map((c) => c.id)],
          message: laid.turned
            ? `${piece.title} (${size}) fits ${laid.sheet.name} only with its longest crease across ${across}.`
            : `${say.partOf(worst.id)} of ${piece.title.toLowerCase()} is ${say.mm(common.measured)} long and ` +
              `crosses ${across}, which runs along its longest crease.`,
        }),
      ];
    });
  },
};

const sineToGrain = ({ a, b }: CreaseLine, grainAlongX: boolean): number =>
  Math.abs(grainAlongX ? b[1] - a[1] : b[0] - a[0]) / dist2(a, b);
