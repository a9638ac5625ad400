/** `web`: no strip of paper between two cuts, or a cut and an edge, is narrower than the stock's least web. */
import type { Piece } from '../pattern/pattern';
import { narrowestNeck, sheetOf } from '../plane/web';
import { dist2, distToSegment, type Vec2 } from '../plane/vec2';
import { LEAST_STRUT_MM } from '../kinds/struts';
import { WELD_MM } from '../tolerance';
import { leversOf, mm, titleOf, type Evidence, type Finding, type Rule } from './rule';

/** The mechanism whose cut runs nearest to a place. */
function nearestCut(piece: Piece, at: Vec2): string {
  let best = { mechanism: piece.mechanism, d: Infinity };
  for (const l of piece.lines) {
    const d = distToSegment(at, l.a, l.b);
    if (l.role === 'cut' && d < best.d) best = { mechanism: l.mechanism, d };
  }
  return best.mechanism;
}

/** Struts have a limit of their own. */
function narrowStruts({ assembly }: Pick<Evidence, 'assembly'>): Finding[] {
  return assembly.mechanisms.filter((m) => m.kind === 'strut-figure').flatMap((m): Finding[] => {
    const widths = assembly.pieces.flatMap((p) => p.creases.filter((c) => c.id.startsWith(`${m.id}.ridge-`)).map((c) => ({ id: c.id, piece: p.id, width: dist2(c.a, c.b) })));
    const least = widths.reduce((a, b) => (b.width < a.width ? b : a), { id: '', piece: '', width: Infinity });
    if (least.width >= LEAST_STRUT_MM - WELD_MM) return [];
    return [{
      rule: 'web', severity: least.width < LEAST_STRUT_MM / 2 ? 'blocks' : 'risk', mechanism: m.id, piece: least.piece, measured: least.width, limit: LEAST_STRUT_MM, unit: 'mm', drive: { open: 180 }, aspect: 'strut',
      message: `${m.title}: a strut is only ${mm(least.width)} wide; struts hold from ${mm(LEAST_STRUT_MM)}.`, subjects: [least.id], levers: leversOf(m.id, 'strutMin'),
    }];
  });
}

export const web: Rule = {
  id: 'web',
  needs: 'pattern',
  check: ({ assembly, brief, rough }) => [...narrowStruts({ assembly }), ...assembly.pieces.flatMap((piece): Finding[] => {
    const stock = brief.stock(piece.stock);
    const sheet = sheetOf(piece.outline, piece.lines.filter((l) => l.role === 'cut'));
    const neck = narrowestNeck(sheet, stock.leastWebMm, rough ? 0 : undefined);
    if (!neck) return [];
    const mechanism = nearestCut(piece, neck.at);
    return [{
      rule: 'web', severity: neck.widthMm < stock.leastWebMm / 2 ? 'blocks' : 'risk', mechanism, piece: piece.id, measured: neck.widthMm, limit: stock.leastWebMm, unit: 'mm', drive: { open: 180 }, aspect: piece.id,
      message: `${piece.title} is only ${mm(neck.widthMm)} wide near ${neck.at[0].toFixed(0)}, ${neck.at[1].toFixed(0)} mm (${titleOf(assembly, mechanism)}); ${stock.name} tears below ${mm(stock.leastWebMm)}.`,
      subjects: [piece.id], levers: leversOf(mechanism, 'offset', 'width', 'depth', 'height', 'size', 'tab', 'figureHeight', 'relief', 'slit'),
    }];
  })],
};
