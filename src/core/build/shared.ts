/**
 * Panels of several mechanisms that lie on one face at one height and over each other are one sheet: one front panel
 * with the windows and slots of all, one backing, and foam that keeps off everything that moves between them. mm.
 */
import { isPartOf } from '../ids';
import type { PlacedMechanism } from '../assembly/assembly';
import type { Bond, Face, FoamPad } from '../kinds';
import { cutAsFoam, glueUnder, leftOutOf, toPiece } from '../kinds/on-facet/sheets';
import { compose, invert } from '../linkage';
import type { Piece } from '../pattern/pattern';
import {
  insidePoint,
  intersect,
  largest,
  mapRegion,
  regionArea,
  subtract,
  unite,
  type Polygon,
  type Region,
} from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { CLASH_FROM_MM2, LENGTH_EQUAL_MM } from '../tolerance';

export interface Panels {
  readonly pieces: Map<string, Piece>;
  readonly bonds: readonly Bond[];
  readonly foam: readonly FoamPad[];
}

/** A panel with the face it lies over. */
interface Panel {
  readonly piece: Piece;
  readonly face: Face;
}

export function sharePanels(
  pieces: ReadonlyMap<string, Piece>,
  bonds: readonly Bond[],
  foam: readonly FoamPad[],
  mechanisms: readonly PlacedMechanism[],
): Panels {
  const faces = new Map(mechanisms.flatMap((m) => (m.face ? [[m.id, m.face] as const] : [])));
  const panels = [...pieces.values()].flatMap((piece): Panel[] => {
    const face = piece.shares && faces.get(piece.mechanism);
    return face ? [{ piece, face }] : [];
  });
  let shared: Panels = { pieces: new Map(pieces), bonds, foam };
  for (const group of groupsOf(panels))
    shared = group[0].piece.shares === 'front' ? oneFront(shared, group) : oneBacking(shared, group);
  return shared;
}

const onOneFace = (a: Panel, b: Panel): boolean => a.face.facet === b.face.facet && a.face.side === b.face.side;
const apartMm = (a: Panel, b: Panel): number => Math.abs(a.piece.levelMm! - b.piece.levelMm!);
/** Alike enough to be one sheet. */
const alike = (a: Panel, b: Panel): boolean =>
  onOneFace(a, b) &&
  a.piece.shares === b.piece.shares &&
  a.piece.stock === b.piece.stock &&
  apartMm(a, b) < LENGTH_EQUAL_MM;

const whole = ({ outline }: Piece): Polygon => ({ outer: outline.outer, holes: [] });
/** What of a panel, in the axes of the face's piece. */
const onFacePiece = ({ face }: Panel, region: Region): Region => toPiece(face, region);
const sharedMm2 = (a: Panel, b: Panel): number =>
  regionArea(intersect(onFacePiece(a, [whole(a.piece)]), onFacePiece(b, [whole(b.piece)])));

/** Panels that are one sheet, in the order of the document; only where there are several. */
function groupsOf(panels: readonly Panel[]): Panel[][] {
  const groups: Panel[][] = [];
  for (const panel of panels) {
    const over = groups.filter((g) => g.some((p) => alike(p, panel) && sharedMm2(p, panel) > CLASH_FROM_MM2));
    if (over.length === 0) groups.push([panel]);
    else {
      over[0].push(...over.slice(1).flat(), panel);
      for (const g of over.slice(1)) groups.splice(groups.indexOf(g), 1);
    }
  }
  return groups.filter((g) => g.length > 1);
}

/** A region of one panel's axes in those of another over the same face. */
function into(to: Panel, from: Panel, region: Region): Region {
  const m = compose(invert(to.face.placement), from.face.placement);
  return mapRegion(region, ([x, y]): Vec2 => [m[0] * x + m[1] * y + m[3], m[4] * x + m[5] * y + m[7]]);
}

/** One outline for all, with the holes of each. */
function united(group: readonly Panel[]): Polygon {
  const [first] = group;
  const outers = unite(group.flatMap((p) => into(first, p, [whole(p.piece)])));
  const holes = group.flatMap((p) =>
    p.piece.outline.holes.flatMap((hole) => into(first, p, [{ outer: hole.toReversed(), holes: [] }])),
  );
  return largest(subtract(outers, holes))!;
}

function oneFront(so: Panels, group: readonly Panel[]): Panels {
  const [first, ...others] = group;
  const gone = new Map(others.map((p) => [p.piece.id, p]));
  const outline = united(group);
  const pieces = new Map([...so.pieces].filter(([id]) => !gone.has(id)));
  const at = (p: Panel, q: Vec2): Vec2 => into(first, p, [{ outer: [q], holes: [] }])[0].outer[0];
  const lines = others.flatMap((p) => p.piece.lines.map((l) => ({ ...l, a: at(p, l.a), b: at(p, l.b) })));
  const drawn = others.flatMap((p) => (p.piece.drawn ?? []).map((d) => ({ ...d, region: into(first, p, d.region) })));
  pieces.set(first.piece.id, {
    ...first.piece,
    title: `${first.piece.title}, shared`,
    outline,
    lines: [...first.piece.lines, ...lines],
    drawn: [...(first.piece.drawn ?? []), ...drawn],
    labels: first.piece.labels.map((l) => ({ ...l, at: insidePoint(outline) })),
  });
  const bonds = so.bonds
    .filter((b) => !gone.has(b.b.piece))
    .map((b): Bond => {
      const was = gone.get(b.a.piece);
      if (!was) return b;
      // What is fixed on a panel that is gone is fixed on the one that took its place.
      const moved = compose(invert(first.face.placement), was.face.placement);
      const a = { piece: first.piece.id, facet: first.piece.labels[0].name };
      return { ...b, a, placement: compose(moved, b.placement) };
    });
  return { ...so, pieces, bonds, foam: oneFoam(so.foam, group) };
}

/** Foam under a shared front: all there is room for, off everything that moves under it. */
function oneFoam(foam: readonly FoamPad[], group: readonly Panel[]): FoamPad[] {
  const own = group.flatMap((panel) =>
    foam.filter((pad) => isPartOf(pad.piece, panel.piece.mechanism)).map((pad) => ({ panel, pad })),
  );
  if (own.length < 2) return [...foam];
  const [{ panel: first, pad }] = own;
  const room = subtract(
    unite(own.flatMap((o) => into(first, o.panel, [...o.pad.region, ...o.pad.leftOut]))),
    own.flatMap((o) => into(first, o.panel, o.pad.keepOff)),
  );
  const region = cutAsFoam(room);
  const rest = foam.filter((f) => !own.some((o) => o.pad === f));
  return region.length === 0 ? rest : [...rest, { ...pad, region, leftOut: leftOutOf(room, region) }];
}

/** The backings stay where they are, so that what is riveted to them does; they are cut as one. */
function oneBacking(so: Panels, group: readonly Panel[]): Panels {
  const [first, ...others] = group;
  const pieces = new Map(so.pieces);
  const sheet = { ...first.piece, title: `${first.piece.title}, shared`, outline: united(group) };
  pieces.set(first.piece.id, { ...sheet, glue: glueUnder(first.face, sheet) });
  for (const { piece } of others) pieces.set(piece.id, { ...piece, glue: [], cutWith: first.piece.id });
  return { ...so, pieces };
}
