/** Document to assembly: mechanisms are built in the order in which they stand on each other. */
import { assemble, type Assembly, type Misfit, type PlacedMechanism } from '../assembly/assembly';
import { buildFoldCard, GUTTER, KINDS, type Bond, type Contribution, type Host } from '../kinds';
import type { Interruption } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import { cardValues, valuesOf, type Design, type Mechanism } from './design';

/** Thrown for a design that names a crease which is not there: an input error, not a finding. */
export class DesignError extends Error {}

export function buildAssembly(design: Design): Assembly {
  const base = buildFoldCard(cardValues(design), design.card.stock, design.card.pageStock);
  const pieces = new Map<string, Piece>(base.pieces.map((p) => [p.id, p]));
  const hosts = new Map<string, Host>([[GUTTER, base.gutter]]);
  const bonds: Bond[] = [...base.bonds];
  const interruptions: Interruption[] = [];
  const contradictions: Misfit[] = [];
  const mechanisms: PlacedMechanism[] = [
    { id: 'card', kind: 'fold-card', title: design.name, host: null, landmarks: [], measures: () => base.measures },
  ];
  for (const m of inStandingOrder(design)) {
    const host = hosts.get(m.on);
    if (!host) throw new DesignError(`${m.id} stands on "${m.on}", which is not a crease of the design; creases are ${[...hosts.keys()].slice(0, 12).join(', ')}`);
    const part = KINDS.get(m.kind)!.build(valuesOf(m), { id: m.id, host, stock: m.stock });
    addToPiece(pieces, host.piece, part);
    for (const p of part.pieces) pieces.set(p.id, p);
    for (const h of part.hosts) hosts.set(h.crease, h);
    contradictions.push(...part.contradictions.map((c): Misfit => ({ kind: 'contradiction', mechanism: m.id, piece: host.piece, what: c.what, at: host.frame.origin, sizeMm: c.mm })));
    bonds.push(...part.bonds);
    interruptions.push(...part.interruptions);
    mechanisms.push({ id: m.id, kind: m.kind, title: m.name, host, landmarks: part.landmarks, measures: part.measures });
  }
  return assemble({
    pieces: [...pieces.values()], bonds, interruptions, mechanisms, hosts, contradictions,
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB' },
  });
}

function addToPiece(pieces: Map<string, Piece>, id: string, part: Contribution): void {
  const piece = pieces.get(id)!;
  pieces.set(id, {
    ...piece,
    lines: [...piece.lines, ...part.lines],
    creases: [...piece.creases, ...part.hostCreases],
    labels: [...piece.labels, ...part.labels],
  });
}

/** What is stood on comes before what stands on it; otherwise the document's order. */
export function inStandingOrder(design: Design): Mechanism[] {
  const byId = new Map(design.mechanisms.map((m) => [m.id, m]));
  const out: Mechanism[] = [];
  const seen = new Set<string>();
  const visit = (m: Mechanism): void => {
    if (seen.has(m.id)) return;
    seen.add(m.id);
    const host = byId.get(m.on.split('.')[0]);
    if (host) visit(host);
    out.push(m);
  };
  design.mechanisms.forEach(visit);
  return out;
}
