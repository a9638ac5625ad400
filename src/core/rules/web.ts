/** `web`: no strip of paper between two cuts, or a cut and an edge, is narrower than the stock's least web. */
import type { Piece } from '../pattern/pattern';
import { narrowestNeck } from '../plane/web';
import { distToSegment, type Vec2 } from '../plane/vec2';
import { leversOf, mm, titleOf, type Finding, type Rule } from './rule';

/** The mechanism whose cut runs nearest to a place. */
function nearestCut(piece: Piece, at: Vec2): string {
  let best = { mechanism: piece.mechanism, d: Infinity };
  for (const l of piece.lines) {
    const d = distToSegment(at, l.a, l.b);
    if (l.role === 'cut' && d < best.d) best = { mechanism: l.mechanism, d };
  }
  return best.mechanism;
}

export const web: Rule = {
  id: 'web',
  needs: 'pattern',
  check: ({ assembly, brief, rough }) => assembly.pieces.flatMap((piece): Finding[] => {
    const stock = brief.stock(piece.stock);
    const cuts = piece.lines.filter((l) => l.role === 'cut').map((l) => [l.a, l.b]);
    const neck = narrowestNeck({ paper: [piece.outline], cuts }, stock.leastWebMm, rough ? 0 : undefined);
    if (!neck) return [];
    const mechanism = nearestCut(piece, neck.at);
    return [{
      rule: 'web', severity: neck.widthMm < stock.leastWebMm / 2 ? 'blocks' : 'risk', mechanism, piece: piece.id, measured: neck.widthMm, limit: stock.leastWebMm, unit: 'mm', drive: { open: 180 }, aspect: piece.id,
      message: `${piece.title} is only ${mm(neck.widthMm)} wide near ${neck.at[0].toFixed(0)}, ${neck.at[1].toFixed(0)} mm (${titleOf(assembly, mechanism)}); ${stock.name} tears below ${mm(stock.leastWebMm)}.`,
      subjects: [piece.id], levers: leversOf(mechanism, 'offset', 'width', 'depth', 'height', 'size', 'tab'),
    }];
  }),
};
