/** Document to assembly: mechanisms are built in the order in which they stand on each other. */
import { assemble, type Assembly, type Misfit, type PlacedMechanism } from '../assembly/assembly';
import { buildFoldCard, GUTTER, KINDS, type BasePieces, type Bond, type Contribution, type Host } from '../kinds';
import { findFacets, type Interruption } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import { intersect, largest, regionArea, regionBox, ringsOf, subtract, unite, type Region } from '../plane/polygon';
import { CLASH_FROM_MM2 } from '../tolerance';
import { outlineOf } from '../shapes/outline';
import { ShapeError, type Shape, type ShapeShelf } from '../shapes/shape';
import { buildTemplate } from './template';
import { attachedLayers, windowsAndDrawings } from './dressing';
import { cardValues, shelfOf, valuesOf, type Design, type Mechanism } from './design';

/** Thrown for a design that names a crease which is not there: an input error, not a finding. */
export class DesignError extends Error {}

export function buildAssembly(design: Design): Assembly {
  const shelf = shelfOf(design);
  const base = makeBase(design, (shape) => outlineOf(shape, shelf));
  const pieces = new Map<string, Piece>(base.pieces.map((p) => [p.id, p]));
  const hosts = new Map<string, Host>([[GUTTER, base.gutter], ...(base.hosts ?? []).map((h) => [h.crease, h] as const)]);
  const bonds: Bond[] = [...base.bonds];
  const interruptions: Interruption[] = [...base.interruptions];
  const contradictions: Misfit[] = [];
  const claims: Claim[] = [];
  const mechanisms: PlacedMechanism[] = [
    { id: 'card', kind: 'fold-card', title: design.name, host: null, landmarks: [], measures: () => base.measures },
  ];
  for (const m of inStandingOrder(design)) {
    const host = hosts.get(m.on);
    if (!host) throw new DesignError(`${m.id} stands on "${m.on}", which is not a crease of the design; creases are ${[...hosts.keys()].slice(0, 12).join(', ')}`);
    const part = contribute(m, host, (shape) => outlineOf(shape, shelf));
    addToPiece(pieces, host.piece, part);
    for (const p of part.pieces) pieces.set(p.id, p);
    for (const h of part.hosts) hosts.set(h.crease, h);
    contradictions.push(...part.unheld.map((what): Misfit => ({ kind: 'unheld', mechanism: m.id, piece: host.piece, what, at: host.frame.origin, sizeMm: 0 })));
    contradictions.push(...clashes(claims, ancestors(design, m), m.id, host.piece, part.claims));
    claims.push({ mechanism: m.id, piece: host.piece, region: part.claims });
    contradictions.push(...part.contradictions.map((c): Misfit => ({ kind: 'contradiction', mechanism: m.id, piece: host.piece, what: c.what, at: host.frame.origin, sizeMm: c.mm })));
    bonds.push(...part.bonds);
    interruptions.push(...part.interruptions);
    mechanisms.push({ id: m.id, kind: m.kind, title: m.name, host, landmarks: part.landmarks, measures: part.measures });
  }
  const dressed = [...pieces.values()].map((piece) => cutWindows(design, piece, interruptions, shelf));
  return assemble({
    attach: (facets) => attachedLayers(design, facets, shelf),
    pieces: dressed, bonds, interruptions, mechanisms, hosts, contradictions,
    lead: { crease: GUTTER, still: 'leafA', turning: 'leafB' },
  });
}

/** A shape that cannot be made is an input error that names where it stands. */
function makeBase(design: Design, outline: (shape: Shape) => Region): BasePieces {
  try {
    if (design.card.template) return buildTemplate(design.card.template, design.card.stock);
    return buildFoldCard(cardValues(design), design.card.stock, design.card.pageStock, outline);
  } catch (error) {
    if (error instanceof ShapeError) throw new DesignError(`card: ${error.message}`);
    throw error;
  }
}

function contribute(m: Mechanism, host: Host, outline: (shape: Shape) => Region): Contribution {
  try {
    return KINDS.get(m.kind)!.build(valuesOf(m), { id: m.id, host, stock: m.stock, outline });
  } catch (error) {
    if (error instanceof ShapeError) throw new DesignError(`${m.id}: ${error.message}`);
    throw error;
  }
}

/** Everything a mechanism stands on, at any depth. */
function ancestors(design: Design, m: Mechanism): Set<string> {
  const out = new Set<string>();
  for (let on: string | undefined = m.on.split('.')[0]; on !== undefined && on !== 'card' && !out.has(on); on = design.mechanisms.find((x) => x.id === on)?.on.split('.')[0]) out.add(on);
  return out;
}

interface Claim {
  readonly mechanism: string;
  readonly piece: string;
  readonly region: Region;
}
/** Paper that two mechanisms beside each other both want. What stands on another is cut from that one's paper. */
function clashes(claims: readonly Claim[], below: ReadonlySet<string>, id: string, piece: string, region: Region): Misfit[] {
  if (region.length === 0) return [];
  const box = regionBox(region);
  return claims.flatMap((c): Misfit[] => {
    if (c.piece !== piece || below.has(c.mechanism) || c.region.length === 0) return [];
    const other = regionBox(c.region);
    if (other.min[0] >= box.max[0] || other.max[0] <= box.min[0] || other.min[1] >= box.max[1] || other.max[1] <= box.min[1]) return [];
    const area = regionArea(intersect(c.region, region));
    return area < CLASH_FROM_MM2 ? [] : [{ kind: 'clash', mechanism: id, piece, what: c.mechanism, at: box.min, sizeMm: Math.sqrt(area) }];
  });
}

/** For searches that try values: null where a value makes a shape impossible. */
export function tryBuild(design: Design): Assembly | null {
  try {
    return buildAssembly(design);
  } catch (error) {
    if (error instanceof DesignError) return null;
    throw error;
  }
}

function addToPiece(pieces: Map<string, Piece>, id: string, part: Contribution): void {
  const piece = pieces.get(id)!;
  pieces.set(id, {
    ...piece,
    lines: [...piece.lines, ...part.lines],
    creases: [...piece.creases, ...part.hostCreases],
    labels: [...piece.labels, ...part.labels],
    owned: [...(piece.owned ?? []), ...part.owned],
    ...(part.waste.length > 0 ? { outline: largest(subtract([piece.outline], part.waste)) ?? piece.outline } : {}),
  });
}

/** A piece with the windows and drawings of its facets: those are placed on the facets as they are without any. */
function cutWindows(design: Design, piece: Piece, interruptions: readonly Interruption[], shelf: ShapeShelf): Piece {
  if (!design.layers.some((l) => l.as !== 'layer')) return piece;
  const { windows, drawn } = windowsAndDrawings(design, findFacets(piece, interruptions).facets, shelf);
  if (windows.length === 0 && drawn.length === 0) return piece;
  const rest = windows.length > 0 ? subtract([piece.outline], unite(windows)) : [piece.outline];
  const islands = rest.filter((p) => p !== largest(rest));
  return {
    ...piece,
    outline: largest(rest) ?? piece.outline,
    // An island of a window is cut all round: it stays in the pattern, where it is found to fall out.
    islands: islands,
    lines: [...piece.lines, ...drawn.flatMap(({ id, region }) => region.flatMap(ringsOf).flatMap((r) => r.map((a, i) => ({ role: 'mark' as const, a, b: r[(i + 1) % r.length], mechanism: id }))))],
  };
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
