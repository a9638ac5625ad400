/** `stock`: what slides, pulls or turns is stiff enough. */
import { restOf } from '../drives';
import { finding, type Finding, type Rule } from './rule';
import { wordsFor } from './words';

/** Lightest paper of a part that is moved by hand, g/m² (80 lb cover); common practice, no source. */
export const LEAST_MOVING_GSM = 216;

export const stock: Rule = {
  id: 'stock',
  needs: 'pattern',
  neverBlocks: true,
  check: (evidence) => {
    const { assembly, brief } = evidence;
    const say = wordsFor(evidence);
    // What only folds may be as light as any leaf.
    const creases = new Set(assembly.creases.map((c) => c.joint));
    const moving = new Set(
      assembly.linkage.joints.flatMap((j, k) => ((j.driven?.drive ?? 0) > 0 && !creases.has(k) ? [j.b] : [])),
    );
    const pieces = new Set(assembly.facets.filter((f) => moving.has(f.body)).map((f) => f.piece));
    return [...pieces].flatMap((id): Finding[] => {
      const piece = assembly.pieces.find((p) => p.id === id)!;
      const { gsm, name } = brief.stock(piece.stock);
      if (gsm >= LEAST_MOVING_GSM) return [];
      return [
        finding({
          rule: 'stock',
          severity: 'risk',
          mechanism: piece.mechanism,
          piece: id,
          measured: gsm,
          limit: LEAST_MOVING_GSM,
          unit: 'count',
          at: restOf(assembly.drives),
          aspect: id,
          subjects: [id],
          message:
            `${say.title(piece.mechanism)}: ${say.part(id)} is moved by hand and is cut from ${name}, ${gsm} g/m²; ` +
            `it bends unless it is of ${LEAST_MOVING_GSM} g/m² or doubled.`,
        }),
      ];
    });
  },
};
