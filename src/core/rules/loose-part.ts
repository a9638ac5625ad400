/** `loose-part`: nothing that should stay falls out when cut, and every crease has paper on both sides. */
import { leversOf, mm, titleOf, type Finding, type Rule } from './rule';

export const loosePart: Rule = {
  id: 'loose-part',
  needs: 'pattern',
  check: ({ assembly }) => {
    const out: Finding[] = [];
    const add = (mechanism: string, piece: string, measured: number, what: string, message: string): void => {
      if (out.some((f) => f.mechanism === mechanism && f.aspect === what)) return;
      out.push({ rule: 'loose-part', severity: 'blocks', mechanism, piece, measured, limit: 0, unit: 'mm', drive: { open: 180 }, aspect: what, message, subjects: [what], levers: leversOf(mechanism, 'depth', 'height', 'offset', 'width', 'size', 'riser', 'contact', 'strutMin', 'footMin', 'figureHeight', 'rise') });
    };
    // What is on the same paper as another, or held by nothing, breaks the cuts of both: said first, and said once.
    const broken = new Set<string>();
    for (const m of assembly.misfits) {
      const title = titleOf(assembly, m.mechanism);
      if (m.kind === 'unheld') {
        broken.add(m.mechanism);
        add(m.mechanism, m.piece, m.sizeMm, m.what, `${title}: ${m.what}.`);
      }
      if (m.kind === 'clash') {
        broken.add(m.mechanism).add(m.what).add('card');
        add(m.mechanism, m.piece, m.sizeMm, `clash ${m.what}`, `${title} and ${titleOf(assembly, m.what)} are cut from the same paper (${(m.sizeMm ** 2).toFixed(0)} mm² of it); move one along, or stand it on the other.`);
      }
    }
    const missing = new Set(assembly.misfits.filter((m) => m.kind === 'missing-facet').map((m) => m.mechanism));
    for (const m of assembly.misfits) {
      if (broken.has(m.mechanism)) continue;
      const title = titleOf(assembly, m.mechanism);
      const name = m.what.split('.').pop();
      if (m.kind === 'loose-part') add(m.mechanism, m.piece, m.sizeMm, m.what, `${title}: ${name} falls out when cut; nothing ties it to the rest of the piece.`);
      if (m.kind === 'missing-facet') add(m.mechanism, m.piece, m.sizeMm, m.what, `${title}: its ${name} has no paper to be cut from; it lies off the piece or on top of another cut.`);
      // A missing facet leaves its creases idle too: once is enough.
      if (m.kind === 'idle-crease' && !missing.has(m.mechanism)) add(m.mechanism, m.piece, m.sizeMm, m.what, `${title}: ${mm(m.sizeMm)} of crease ${name} has paper on one side only, or ends in air.`);
    }
    return out;
  },
};
