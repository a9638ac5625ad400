/** `web`: no strip of paper between two cuts, or a cut and an edge, is narrower than the stock's least web. */
import type { Piece } from '../pattern/pattern';
import { narrowestNeck, sheetOf } from '../plane/web';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { demanded } from './demands';
import { finding, turnsOf, type Evidence, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/** Paper narrower than this part of its limit tears as it is cut: it blocks; common practice, no source. */
const TEARS_AT = 0.5;
const severityAt = (widthMm: number, limitMm: number): Finding['severity'] =>
  widthMm < limitMm * TEARS_AT ? 'blocks' : 'risk';

export const web: Rule = {
  id: 'web',
  needs: 'pattern',
  check: (evidence) => [
    ...demanded(evidence, 'web'),
    ...evidence.assembly.pieces.flatMap((piece) => narrowPaper(evidence, piece)),
  ],
};

/** The mechanism whose cut runs nearest to a place. */
function nearestCut(piece: Piece, at: Vec2): string {
  let best = { mechanism: piece.mechanism, d: Infinity };
  for (const l of piece.lines) {
    const d = distToSegment(at, l.a, l.b);
    if (l.role === 'cut' && d < best.d) best = { mechanism: l.mechanism, d };
  }
  return best.mechanism;
}

function narrowPaper(evidence: Evidence, piece: Piece): Finding[] {
  const { brief, rough } = evidence;
  const say = wordsFor(evidence);
  const stock = brief.stock(piece.stock);
  const limit = stock.leastWebMm;
  const cuts = piece.lines.filter((l) => l.role === 'cut');
  const neck = narrowestNeck(sheetOf(piece.outline, cuts), limit, rough ? 0 : undefined);
  if (!neck) return [];
  const mechanism = nearestCut(piece, neck.at);
  const where = `near ${say.place(neck.at)} (${say.title(mechanism)})`;
  return [
    finding({
      rule: 'web',
      severity: severityAt(neck.widthMm, limit),
      mechanism,
      piece: piece.id,
      measured: neck.widthMm,
      limit,
      // Which of the two cuts beside it is named may change with the design: it belongs to its piece.
      about: piece.id,
      aspect: 'narrow',
      message:
        `${piece.title} is only ${say.mm(neck.widthMm)} wide ${where}; ` +
        `${stock.name} tears below ${say.mm(limit)}.`,
      subjects: [piece.id],
      levers: turnsOf(evidence.assembly, mechanism, 'along', 'away', 'tabs', 'relief'),
    }),
  ];
}
