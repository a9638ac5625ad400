/** Document to assembly: mechanisms are built in the order in which they stand on each other. */
import {
  assemble,
  layOut,
  type Assembly,
  type AttachedLayer,
  type BaseOf,
  type LaidOut,
  type Misfit,
  type PlacedMechanism,
} from '../assembly/assembly';
import type { Drive } from '../drives';
import { placeOnSheet, type Rigid } from '../linkage';
import {
  faceMounting,
  KINDS,
  type Base,
  type Bend,
  type Bond,
  type Contribution,
  type CreaseKind,
  type FaceMounting,
  type Filler,
  type FoamPad,
  type Hardware,
  type Host,
  type Kind,
  type MovingJoint,
} from '../kinds';
import { findFacets, type Interruption } from '../pattern/facets';
import type { Piece } from '../pattern/pattern';
import {
  boxesMeet,
  contains,
  distanceToEdge,
  intersect,
  largest,
  regionArea,
  regionBox,
  ringsOf,
  subtract,
  unite,
  type Polygon,
  type Region,
} from '../plane/polygon';
import { CLASH_FROM_MM2, OFF_PAPER_FROM_MM } from '../tolerance';
import type { Vec2 } from '../plane/vec2';
import { formatSaid } from '../units/length';
import { CARD, ownerOfId } from '../ids';
import { outlineOf } from '../shapes/outline';
import { ShapeError, type Shape, type ShapeShelf } from '../shapes/shape';
import { stackClashes } from './stacked';
import { sharePanels } from './shared';
import { laidNowhere } from './nowhere';
import { buildTemplate } from './template';
import { endedFolds } from './ended-folds';
import { withGluing } from './gluing';
import { ofOwnStock, stockOfPiece, thickestMm } from './own-stocks';
import { attachedLayers, windowsAndDrawings } from './dressing';
import { baseKindOf, cardValues, isBase, valuesOf, wholeValues } from '../document/fields';
import { CENTRE, shelfOf, stockOf, type Design, type Mechanism } from '../document/design';
import { builtBefore } from './built-before';
import { faceOf } from './faces';

/** Thrown for a design that names a crease which is not there: an input error, not a finding. */
export class DesignError extends Error {}

/** Facets found, and what is stuck on them: all that an assembly is put together from. */
export interface Unjoined {
  readonly laid: LaidOut;
  readonly layers: readonly AttachedLayer[];
}

export const buildAssembly = (design: Design): Assembly => putTogether(design).assembly;

/** A design put together, and what of. Throws DesignError. */
export function putTogether(design: Design): { readonly assembly: Assembly; readonly parts: Unjoined } {
  const { parts, pieces, mechanisms, lost } = partsOf(design);
  const { laid, layers } = parts;
  const whole = assemble(laid, layers);
  const caliperOf = (piece: string): number => stockOf(design, pieces.get(piece)!.stock).caliperMm;
  const stacked = stackClashes(laid, mechanisms, caliperOf);
  const misfits = [...whole.misfits, ...lost, ...stacked, ...laidNowhere(design, whole)];
  return { assembly: { ...whole, misfits }, parts };
}

function partsOf(design: Design) {
  const shelf = shelfOf(design);
  const outline = (shape: Shape): Region => outlineOf(shape, shelf);
  const base = makeBase(design, outline);
  const gathered = gather(design, base, outline);
  const { interruptions, plain: _plain, claims: _claims, design: _design, brought: _brought, ...rest } = gathered;
  const panels = sharePanels(gathered.pieces, rest.bonds, rest.foam, rest.mechanisms);
  const { pieces, bonds, foam } = panels;
  const parts = { ...rest, bonds, foam };
  const glued = withGluing(design, [...pieces.values()]);
  const dressed = glued.pieces.map((piece) => cutWindows(design, piece, interruptions, shelf));
  const { lead, opening } = base;
  const ended = [...interruptions, ...endedFolds(dressed, interruptions)];
  const laid = layOut({ ...parts, interruptions: ended, pieces: dressed, base: plainBase(base), lead, opening });
  const layers = attachedLayers(design, laid.facets, shelf, base.footings);
  return { parts: { laid, layers }, pieces, mechanisms: rest.mechanisms, lost: glued.lost };
}

/** Everything that mechanisms contribute, in standing order. */
function gather(design: Design, base: Base, outline: (shape: Shape) => Region): Gathered {
  const gathered = gatherBase(design, base);
  for (const m of inStandingOrder(design)) {
    const kind = KINDS.get(m.kind)!;
    const onFace = m.mount || kind.mount === 'face' ? faceMounting(kind) : null;
    if (onFace) addOnFace(gathered, m, kind, onFace, outline);
    else addOnCrease(gathered, m, kind as CreaseKind, outline);
  }
  return gathered;
}

/** What a mechanism brings, and where it stands. */
export interface Brought {
  readonly part: Contribution;
  /** The piece it is put on, as it was before, and what had ended folds of it. */
  readonly piece: Piece;
  readonly interruptions: readonly Interruption[];
  /** From its axes to those of that piece. */
  readonly placement: Rigid;
  readonly sideA: string;
  readonly sideB: string;
  readonly crease: string;
}
/** What every mechanism brings, by id. Throws DesignError. */
export function broughtBy(design: Design): ReadonlyMap<string, Brought> {
  const shelf = shelfOf(design);
  const outline = (shape: Shape): Region => outlineOf(shape, shelf);
  const { brought, interruptions } = gather(design, makeBase(design, outline), outline);
  return new Map(
    [...brought].map(([id, { ended, ...b }]) => [id, { ...b, interruptions: interruptions.slice(0, ended) }]),
  );
}

/** What mechanisms have contributed so far. */
interface Gathered {
  readonly design: Design;
  readonly pieces: Map<string, Piece>;
  readonly plain: Map<string, Piece>;
  readonly hosts: Map<string, Host>;
  readonly bonds: Bond[];
  readonly interruptions: Interruption[];
  readonly contradictions: Misfit[];
  readonly claims: Claim[];
  readonly mechanisms: PlacedMechanism[];
  readonly drives: Drive[];
  readonly moving: MovingJoint[];
  readonly bends: Bend[];
  readonly foam: FoamPad[];
  readonly fillers: Filler[];
  readonly hardware: Hardware[];
  /** `ended`: how many folds had been ended before. */
  readonly brought: Map<string, Omit<Brought, 'interruptions'> & { readonly ended: number }>;
}

function plainBase({ pieces, interruptions, inner = [] }: Base): BaseOf {
  let facets: ReturnType<BaseOf['facets']> | undefined;
  const find = () =>
    pieces.flatMap((p) =>
      findFacets(p, interruptions).facets.map(({ id, polygon }) => ({
        ...{ id, polygon, piece: p.id, inner: inner.includes(p.id) },
      })),
    );
  return { mechanism: CARD, facets: () => (facets ??= find()) };
}

function gatherBase(design: Design, base: Base): Gathered {
  const pieces = base.pieces.map(ofOwnStock(design)).map((p) => [p.id, p] as const);
  const kind = baseKindOf(design);
  const { landmarks = [], demands = [], footings = [], measures } = base;
  const card = { id: CARD, kind: kind.id, title: design.name, host: null, landmarks, demands, footings, measures };
  const turns = kind.turns(cardValues(design));
  return {
    design,
    pieces: new Map(pieces),
    plain: new Map(pieces),
    hosts: new Map(base.hosts.map((h) => [h.crease, h])),
    bonds: [...base.bonds],
    interruptions: [...base.interruptions],
    contradictions: [],
    claims: [],
    mechanisms: [{ ...card, turns }],
    drives: [...(base.drives ?? [])],
    moving: [...(base.joints ?? [])],
    bends: [],
    foam: [],
    fillers: [...(base.fillers ?? [])],
    hardware: [...(base.hardware ?? [])],
    brought: new Map(),
  };
}

function addOnCrease(so: Gathered, m: Mechanism, kind: CreaseKind, outline: (shape: Shape) => Region): void {
  const { design, pieces, hosts } = so;
  const host = hosts.get(m.on);
  if (!host)
    throw new DesignError(
      `${m.id} stands on "${m.on}", which is not a crease of the design; creases are ` +
        `${[...hosts.keys()].slice(0, 12).join(', ')}`,
    );
  const { outline: paper } = pieces.get(host.piece)!;
  const say = (mm: number): string => formatSaid(mm, design.units);
  const onPiece = { piece: pieces.get(host.piece)!, interruptions: so.interruptions };
  const context = { id: m.id, host, so: onPiece, stock: m.stock, outline, paper, say };
  const part = built(m, () => builtBefore(design, m, context, (c) => kind.build(wholeValues(m), c)));
  const placement = placeOnSheet(host.frame.origin, host.frame.along);
  const ended = so.interruptions.length;
  so.brought.set(m.id, { part, piece: onPiece.piece, ended, placement, ...sidesOf(host) });
  addToPiece(pieces, host.piece, part);
  so.contradictions.push(
    ...misfitsOf(part, m.id, host.piece, host.frame.origin),
    ...clashes(so.claims, ancestors(design, m), m.id, host.piece, part.claims),
    ...offPaper(m.id, host.piece, part, paper),
  );
  so.claims.push({ mechanism: m.id, piece: host.piece, region: part.claims });
  addParts(so, m, part, 0, { host, turns: kind.turns(wholeValues(m)) });
}

const sidesOf = ({ sideA, sideB, crease }: Host): Pick<Host, 'sideA' | 'sideB' | 'crease'> => ({
  sideA,
  sideB,
  crease,
});

function addOnFace(
  so: Gathered,
  m: Mechanism,
  { turns: turnsOf }: Kind,
  { build }: FaceMounting,
  outline: (shape: Shape) => Region,
): void {
  const { design, pieces, plain, interruptions } = so;
  const face = faceOf(design, { plain, now: pieces, interruptions }, m.on, m.mount ?? CENTRE);
  if (!face) {
    const facets = [...pieces.values()].flatMap((p) => p.labels.map((l) => l.name));
    throw new DesignError(
      `${m.id} is fixed on "${m.on}", which is not a facet of the design; facets are ` +
        `${facets.slice(0, 12).join(', ')}`,
    );
  }
  const caliperMm = thickestMm(design, m.id, m.stock);
  const say = (mm: number): string => formatSaid(mm, design.units);
  const onPiece = { piece: pieces.get(face.piece)!, interruptions };
  const context = { id: m.id, face, so: onPiece, stock: m.stock, caliperMm, outline, say };
  const part = built(m, () => builtBefore(design, m, context, (c) => build(wholeValues(m), c)));
  const before = { piece: onPiece.piece, ended: interruptions.length, placement: face.placement };
  so.brought.set(m.id, { part, ...before, sideA: face.facet, sideB: '', crease: '' });
  addToPiece(pieces, face.piece, part);
  so.contradictions.push(...misfitsOf(part, m.id, face.piece, [face.placement[3], face.placement[7]]));
  const turns = turnsOf(wholeValues(m));
  addParts(so, m, part, pieces.get(face.piece)!.levelMm ?? 0, { host: null, face, turns });
}

/** What every mechanism may bring, whatever it stands on. */
function addParts(
  so: Gathered,
  m: Mechanism,
  part: Contribution,
  levelMm: number,
  mount: Pick<PlacedMechanism, 'host' | 'face' | 'turns'>,
): void {
  for (const own of part.pieces.map(ofOwnStock(so.design))) {
    const piece = own.levelMm === undefined ? own : { ...own, levelMm: own.levelMm + levelMm };
    so.pieces.set(piece.id, piece);
    so.plain.set(piece.id, piece);
  }
  for (const h of part.hosts) so.hosts.set(h.crease, h);
  so.interruptions.push(...part.interruptions);
  so.bonds.push(...part.bonds);
  so.drives.push(...part.drives.map((d) => ({ ...d, label: `${m.name}: ${d.label}` })));
  so.moving.push(...part.joints);
  so.bends.push(...part.bends);
  so.foam.push(...part.foam);
  so.fillers.push(...part.fillers);
  so.hardware.push(...part.hardware.map((h) => ({ ...h, mechanism: m.id })));
  const { landmarks, measures, demands } = part;
  so.mechanisms.push({ id: m.id, kind: m.kind, title: m.name, ...mount, landmarks, measures, demands });
}

const refuse = (why: string): never => {
  throw new ShapeError(why);
};

/** A shape that cannot be made is an input error that names where it stands. */
function makeBase(design: Design, outline: (shape: Shape) => Region): Base {
  try {
    if (design.card.template) return buildTemplate(design.card.template, design.card.stock);
    const { stock, pageStock } = design.card;
    const caliperOf = (id: string): number => stockOf(design, id).caliperMm;
    const stockFor = (piece: string): string => stockOfPiece(design, piece, stock);
    return baseKindOf(design).build(cardValues(design), { stock, pageStock, caliperOf, stockFor, outline, refuse });
  } catch (error) {
    if (error instanceof ShapeError) throw new DesignError(`${CARD}: ${error.message}`);
    throw error;
  }
}

function built(m: Mechanism, build: () => Contribution): Contribution {
  try {
    return build();
  } catch (error) {
    if (error instanceof ShapeError) throw new DesignError(`${m.id}: ${error.message}`);
    throw error;
  }
}

/** What a part says of itself that cannot be made. */
function misfitsOf(part: Contribution, mechanism: string, piece: string, at: Vec2): Misfit[] {
  const common = { mechanism, piece, at };
  return [
    ...part.unheld.map(({ key, what }): Misfit => ({ ...common, kind: 'unheld', key, what, sizeMm: 0 })),
    ...part.contradictions.map(({ key, what, mm }): Misfit => ({
      ...common,
      kind: 'contradiction',
      key,
      what,
      sizeMm: mm,
    })),
  ];
}

/** Paper that a mechanism is cut from and that is not there: how much, and how far past the edge. */
function offPaper(mechanism: string, piece: string, part: Contribution, paper: Polygon): Misfit[] {
  const { claims, lines, unheld } = part;
  // It has said itself what it lacks.
  if (unheld.length > 0) return [];
  const sheet = { outer: paper.outer, holes: [] };
  const missing = claims.length > 0 ? subtract(claims, [sheet]) : [];
  const past = (p: Vec2): number => (contains(sheet, p) ? 0 : distanceToEdge(sheet, p));
  const outside = [
    ...missing.flatMap((p) => p.outer),
    ...lines.filter((l) => l.role === 'cut').flatMap((l) => [l.a, l.b]),
  ].map((at) => ({ at, mm: past(at) }));
  const furthest = outside.reduce((best, p) => (p.mm > best.mm ? p : best), { at: [0, 0] as Vec2, mm: 0 });
  const areaMm2 = regionArea(missing);
  if (furthest.mm <= OFF_PAPER_FROM_MM) return [];
  return [{ kind: 'off-paper', mechanism, piece, what: piece, at: furthest.at, sizeMm: furthest.mm, areaMm2 }];
}

const parentOf = (design: Design, id: string): string | undefined => {
  const m = design.mechanisms.find((x) => x.id === id);
  return m && ownerOfId(m.on);
};
/** Everything a mechanism stands on, at any depth. */
function ancestors(design: Design, m: Mechanism): Set<string> {
  const out = new Set<string>();
  for (
    let on: string | undefined = ownerOfId(m.on);
    on !== undefined && !isBase(on) && !out.has(on);
    on = parentOf(design, on)
  )
    out.add(on);
  return out;
}

interface Claim {
  readonly mechanism: string;
  readonly piece: string;
  readonly region: Region;
}
/** Paper that two mechanisms beside each other both want. What stands on another is cut from that one's paper. */
function clashes(
  claims: readonly Claim[],
  below: ReadonlySet<string>,
  id: string,
  piece: string,
  region: Region,
): Misfit[] {
  if (region.length === 0) return [];
  const box = regionBox(region);
  return claims.flatMap((c): Misfit[] => {
    if (c.piece !== piece || below.has(c.mechanism) || c.region.length === 0) return [];
    if (!boxesMeet(box, regionBox(c.region))) return [];
    const area = regionArea(intersect(c.region, region));
    return area < CLASH_FROM_MM2
      ? []
      : [
          {
            kind: 'clash',
            mechanism: id,
            piece,
            what: c.mechanism,
            at: box.min,
            sizeMm: Math.sqrt(area),
            areaMm2: area,
          },
        ];
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
  const gone = windows.flatMap(({ region }) => region);
  const rest = windows.length > 0 ? subtract([piece.outline], unite(gone)) : [piece.outline];
  const islands = rest.filter((p) => p !== largest(rest));
  return {
    ...piece,
    outline: largest(rest) ?? piece.outline,
    // An island of a window is cut all round: it stays in the pattern, where it is found to fall out.
    islands: islands,
    ...(windows.length > 0 ? { openings: windows } : {}),
    drawn: [...(piece.drawn ?? []), ...drawn.map(({ side, region }) => ({ side, region }))],
    lines: [
      ...piece.lines,
      ...drawn.flatMap(({ id, region, side }) =>
        region
          .flatMap(ringsOf)
          .flatMap((r) =>
            r.map((a, i) => ({ role: 'mark' as const, side, a, b: r[(i + 1) % r.length], mechanism: id })),
          ),
      ),
    ],
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
    // Two that hang on each other are built as they stand in the document: the first finds nothing there and says so.
    for (const id of [m.on, ...(KINDS.get(m.kind)?.hangsOn?.(valuesOf(m)) ?? [])]) {
      const host = byId.get(ownerOfId(id));
      if (host) visit(host);
    }
    out.push(m);
  };
  design.mechanisms.forEach(visit);
  return out;
}
