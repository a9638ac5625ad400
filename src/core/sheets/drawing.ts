/** What is drawn for a piece: its lines by role, to the place where they are cut. One walk that every export shares. */
import type { Assembly } from '../assembly/assembly';
import { perforationCuts, type Making } from '../pattern/making';
import type { CreaseRole, LineRole, Piece } from '../pattern/pattern';
import { arrange } from '../plane/arrangement';
import { chainEdges } from '../plane/chain';
import { boxOf, regionBox, ringArea, ringsOf, type Box2, type Region, type Ring } from '../plane/polygon';
import { seenOn } from '../build/dressing';
import type { Design } from '../document/design';
import type { Side } from '../kinds';
import { lineWork, type ScoreStretch } from './line-work';

export interface DrawnLine {
  readonly role: LineRole;
  readonly points: Ring;
  readonly closed: boolean;
  /** Crease or glue area it belongs to. */
  readonly id: string;
  /** Which way a perforated crease folds. */
  readonly fold?: CreaseRole;
}
export interface Drawing {
  readonly id: string;
  readonly title: string;
  readonly mechanism: string;
  readonly stock: string;
  readonly box: Box2;
  /** Its paper, windows left out. */
  readonly region: Region;
  readonly lines: readonly DrawnLine[];
  /** What is drawn on its outside, in the same axes: seen from there it is the mirror image. */
  readonly outside: readonly DrawnLine[];
  /** Of another colour than its stock. */
  readonly colour?: string;
  /** How many of it are cut. */
  readonly count: number;
}

/** How a crease is produced: as said for itself, else for its role, else for all. */
export const makingOf = (design: Design, crease: string, role?: CreaseRole): Making =>
  design.making.creases[crease] ?? (role && design.making.roles?.[role]) ?? design.making.all;

/** How many of a piece are cut: for every copy of the card, and the spares. */
export const countOf = ({ sheets }: Design, piece: string, each = 1): number =>
  sheets.copies * each + (Object.hasOwn(sheets.spares ?? {}, piece) ? sheets.spares![piece] : 0);

/** Every piece of the design, mats included, as lines in its own axes (mm, y up). */
export function drawPieces(design: Design, assembly: Assembly): Drawing[] {
  const cut = assembly.pieces.filter((p) => !p.cutWith);
  return [...cut.map((p) => drawPiece(design, assembly, p)), ...drawLayers(design, assembly)];
}

function drawPiece(design: Design, assembly: Assembly, piece: Piece): Drawing {
  const { cuts, scores } = lineWork(piece, assembly.interruptions);
  const glue = piece.glue.map((g): DrawnLine => ({ role: 'glue', points: g.outline, closed: true, id: g.id }));
  return {
    id: piece.id,
    title: piece.title,
    mechanism: piece.mechanism,
    stock: piece.stock,
    box: boxOf(piece.outline.outer),
    region: [piece.outline],
    lines: [...cuts, ...drawnMarks(piece, 'inside'), ...drawnCreases(design, scores), ...glue],
    outside: drawnMarks(piece, 'outside'),
    count: countOf(design, piece.id, piece.times),
  };
}

/** Lines that are only drawn on a side, each once. */
function drawnMarks(piece: Piece, side: Side): DrawnLine[] {
  const marks = piece.lines.filter((l) => l.role === 'mark' && (l.side ?? 'inside') === side);
  const { vertices, edges } = arrange(marks);
  return chainEdges(
    vertices,
    edges.map((e): [number, number] => [e.from, e.to]),
  ).map(({ points, closed, first }): DrawnLine => {
    const { mechanism } = marks[edges[first].sources[0]];
    return { role: 'mark', points, closed, id: mechanism };
  });
}

/** Scores chained where they meet; perforated creases as their cuts. */
function drawnCreases(design: Design, scores: readonly ScoreStretch[]): DrawnLine[] {
  const perforated: DrawnLine[] = [];
  const scored: ScoreStretch[] = [];
  for (const s of scores) {
    const making = makingOf(design, s.crease.id, s.crease.role);
    const cuts = making.way === 'perforate' ? perforationCuts(s, making.cutMm, making.gapMm) : [];
    // A crease too short to be perforated is scored.
    if (cuts.length === 0) scored.push(s);
    const { id, role: fold } = s.crease;
    for (const { a, b } of cuts) perforated.push({ role: 'perforation', points: [a, b], closed: false, id, fold });
  }
  return [...perforated, ...(['valley', 'mountain'] as const).flatMap((role) => chainedScores(role, scored))];
}

function chainedScores(role: CreaseRole, scores: readonly ScoreStretch[]): DrawnLine[] {
  const own = scores.filter((s) => s.crease.role === role);
  const { vertices, edges } = arrange(own);
  return chainEdges(
    vertices,
    edges.map((e): [number, number] => [e.from, e.to]),
  ).map(({ points, closed, first }): DrawnLine => {
    const { id } = own[edges[first].sources[0]].crease;
    return { role, points, closed, id };
  });
}

/** Outlines of a region as they are cut: what falls out of it is a window. */
export const cutLines = (region: Region, id: string): DrawnLine[] =>
  region
    .flatMap(ringsOf)
    .map((points): DrawnLine => ({ role: ringArea(points) > 0 ? 'cut' : 'window', points, closed: true, id }));

/** Mats and layers with their foam, the face that is seen up; one that is doubled is cut twice. */
function drawLayers(design: Design, assembly: Assembly): Drawing[] {
  return assembly.layers.map(({ id, title, mechanism, stock, side, doubled, colour, ...own }): Drawing => {
    const [region, foam] = [own.region, own.foam].map((r) => seenOn(side, r));
    // Stuck all over it needs no line for that; on foam, the foam's own says where.
    const glue = own.glue === own.region || foam.length > 0 ? [] : seenOn(side, own.glue);
    return {
      id,
      title,
      mechanism,
      stock,
      box: regionBox(region),
      region,
      ...(colour === undefined ? {} : { colour: colour.toLowerCase() }),
      count: countOf(design, id, doubled ? 2 : 1),
      lines: [
        ...cutLines(region, id),
        ...glue.flatMap(ringsOf).map((points): DrawnLine => ({ role: 'glue', points, closed: true, id: `${id}.glue` })),
        ...foam.flatMap(ringsOf).map((points): DrawnLine => ({ role: 'glue', points, closed: true, id: `${id}.foam` })),
      ],
      outside: [],
    };
  });
}

/** Order in which roles are worked: scores first, inner cuts, then outlines (common practice, no source). */
export const CUT_ORDER: readonly LineRole[] = ['mark', 'valley', 'mountain', 'perforation', 'window', 'cut'];

/** Lines of a drawing in the order of cutting, glue areas left out; a piece's own outline comes last. */
export function inCutOrder(drawing: Drawing): DrawnLine[] {
  const rank = (l: DrawnLine): number => CUT_ORDER.indexOf(l.role) + (l.role === 'cut' && l.closed ? 1 : 0);
  return drawing.lines.filter((l) => l.role !== 'glue').sort((a, b) => rank(a) - rank(b));
}
