/** What the flat and the posed view draw of a design, as plain data that crosses to the interface. */
import type { Assembly } from '@/core/assembly/assembly';
import { onFacet, poseAt } from '@/core/assembly/pose';
import { openTo } from '@/core/drives';
import { baseKindOf } from '@/core/document/fields';
import { dressingOf, stockOf, type Design } from '@/core/document/design';
import { placedArtwork, type PlacedArt } from '@/core/build/artwork';
import { readingAxes, readingUp } from '@/core/build/faces';
import { openingsOf } from '@/core/build/margins';
import { idOfLayer, ownerOfId, sharedName, wordsOfPart } from '@/core/ids';
import type { Piece } from '@/core/pattern/pattern';
import { atStart, wordsOfOwnPart } from '@/core/document/words';
import { PLAIN_BASE, SIDES, type Face, type Filler, type Side } from '@/core/kinds';
import { boxOf, contains, intersect, regionArea, ringsOf, type Polygon, type Region } from '@/core/plane/polygon';
import { lerp2, type Frame2, type Vec2 } from '@/core/plane/vec2';
import { basePiece } from '@/core/rules';
import type { Derived, SceneArt, SceneFacet, SceneFrame, StackLayer } from './protocol';

/**
 * A facet glued on another lies a caliper above it; glued from behind, below it, which is up in its own turned frame.
 */
function liftOf(design: Design, assembly: Assembly, facet: Assembly['facets'][number]): number {
  const face = assembly.mechanisms.find((m) => m.id === facet.mechanism)?.face;
  // What is fixed on a face lies at its true height; outside that of its leaf is still to be passed.
  if (face) return face.side === 'outside' ? face.caliperMm : 0;
  const bond = assembly.bonds.find((b) => b.b.piece === facet.piece && b.b.facet === facet.id);
  if (!bond) return 0;
  const caliper = (piece: string): number =>
    stockOf(design, assembly.pieces.find((p) => p.id === piece)!.stock).caliperMm;
  return bond.b.piece === basePiece(assembly).id
    ? -caliper(bond.a.piece)
    : caliper(facet.piece) + (bond.placement[10] < 0 ? caliper(bond.a.piece) : 0);
}

/** The drive a hand moves a facet by: that of its own joint, else the first of its mechanism that is not held still. */
function movedBy(assembly: Assembly, { mechanism, body }: Assembly['facets'][number]): { moves?: string } {
  const face = assembly.mechanisms.find((m) => m.id === mechanism)?.face;
  const own = assembly.drives.filter((d) => ownerOfId(d.id) === mechanism);
  if (own.length === 0) return {};
  const joint = assembly.linkage.joints.find((j) => j.b === body && (j.driven?.drive ?? 0) > 0);
  // Of the base only what has a drive of its own is moved by it; the rest opens with the card.
  if (!face) return joint ? { moves: assembly.drives[joint.driven!.drive].id } : {};
  const still = assembly.facets.find((f) => f.piece === face.piece && f.id === face.facet)?.body;
  if (body === still) return {};
  return { moves: joint ? assembly.drives[joint.driven!.drive].id : own[0].id };
}

/** Places of the opening at which a base is looked at for how much room it takes. */
const PARTS = [0, 0.25, 0.5, 0.75, 1];

function groundOf(design: Design, assembly: Assembly): Pick<Derived, 'ground'> {
  if (baseKindOf(design).id === PLAIN_BASE) return {};
  const [{ from, to }] = assembly.drives;
  const corners = PARTS.map((part) => poseAt(assembly, openTo(from + (to - from) * part))).flatMap((pose) =>
    assembly.facets.flatMap((f, i) =>
      f.mechanism === assembly.base.mechanism ? f.polygon.outer.map((p) => onFacet(pose, i, p)) : [],
    ),
  );
  const { min, max } = boxOf(corners.map(([x, y]): Vec2 => [x, y]));
  const [width, depth] = [max[0] - min[0], max[1] - min[1]];
  return { ground: { x: (min[0] + max[0]) / 2, y: (min[1] + max[1]) / 2, radius: Math.hypot(width, depth) / 2 } };
}

export function sceneOf(design: Design, assembly: Assembly): Derived {
  return {
    ...groundOf(design, assembly),
    pieces: assembly.pieces.map(({ id, title, mechanism, stock, outline, islands }) => ({
      id,
      title,
      mechanism,
      stock,
      rings: [outline, ...(islands ?? [])].flatMap(ringsOf),
    })),
    facets: assembly.facets.map((f, i) => ({
      id: f.id,
      piece: f.piece,
      mechanism: f.mechanism,
      rings: ringsOf(f.polygon),
      liftMm: liftOf(design, assembly, f),
      ...(f.bent ? { bent: f.bent.bend } : {}),
      ...movedBy(assembly, f),
      fills: fillsOf(design, assembly, f),
      drawn: drawnOn(assembly, f),
      colours: {
        inside: dressingOf(design, f.id, 'inside')?.colour,
        outside: dressingOf(design, f.id, 'outside')?.colour,
      },
      mats: SIDES.flatMap((side) => matsOf(design, assembly, i, side)),
    })),
    creases: [
      ...assembly.creases.map(({ id, role, mechanism, piece, segments }) => ({ id, role, mechanism, piece, segments })),
      ...assembly.pieces
        .filter((p) => p.apart)
        .flatMap((p) =>
          p.creases.map((c) => ({ id: c.id, role: c.role, mechanism: c.mechanism, piece: p.id, segments: [c] })),
        ),
    ],
    cuts: assembly.pieces.flatMap((p) =>
      p.lines.map(({ a, b, mechanism, role, side }) => ({
        ...{ piece: p.id, mechanism, a, b },
        ...(role === 'mark' ? { drawn: side ?? 'inside' } : {}),
      })),
    ),
    glue: assembly.pieces.flatMap((p) =>
      p.glue.map((g) => ({ id: g.id, mechanism: g.mechanism, piece: p.id, outline: g.outline })),
    ),
    openings: openingsOf(assembly).map(({ region, ...own }) => ({ ...own, rings: region.flatMap(ringsOf) })),
    footings: assembly.mechanisms.flatMap((m) => (m.footings ?? []).map((f) => f.facet)),
    hosts: [...assembly.hosts.values()].map(({ crease, piece, frame, lengthMm, reachA, reachB }) => ({
      crease,
      piece,
      x: frame.origin[0],
      origin: frame.origin,
      along: frame.along,
      lengthMm,
      reachA,
      reachB,
    })),
    faces: assembly.facets
      .filter((f) => !f.bent)
      .map((f) => {
        const { min, max } = boxOf(f.polygon.outer);
        // Read along the piece's x, a face is as high as it is wide in its piece.
        const piece = assembly.pieces.find((p) => p.id === f.piece)!;
        const turned = Math.abs(readingUp(design, piece, f.id, 'inside')[0]) > 0.5;
        const [along, away] = [max[0] - min[0], max[1] - min[1]];
        const { right, up } = readingAxes(design, piece, f.id, 'inside');
        const frame = { piece: f.piece, origin: lerp2(min, max, 0.5), x: right, y: up };
        return { facet: f.id, widthMm: turned ? away : along, heightMm: turned ? along : away, frame };
      }),
    stacks: Object.fromEntries(
      assembly.mechanisms.flatMap((m) => (m.face ? [[m.id, stackOf(design, assembly, m.id, m.face)]] : [])),
    ),
    frames: Object.fromEntries(
      assembly.mechanisms.flatMap(({ id, face, host }): [string, SceneFrame][] => {
        if (host) return [[id, frameOf(host.piece, host.frame)]];
        return face ? [[id, frameOfFace(face)]] : [];
      }),
    ),
    whole: assembly.pieces.flatMap((p) => p.creases.map(({ id, role, a, b }) => ({ id, role, piece: p.id, a, b }))),
    axes: Object.fromEntries(
      assembly.mechanisms.flatMap(({ id, face }) => {
        const piece = assembly.pieces.find((p) => p.id === face?.piece);
        return face && piece ? [[id, { piece: piece.id, ...readingAxes(design, piece, face.facet, face.side) }]] : [];
      }),
    ),
    artwork: placedArtwork(design, assembly).map((art, k) => sceneArt(design, assembly, art, k)),
    drives: assembly.drives,
  };
}

/** What is printed lies this far off its paper, so that it is seen, mm. */
const PRINT_LIFT_MM = 0.04;

/** Later prints lie over earlier ones. */
function sceneArt(design: Design, assembly: Assembly, art: PlacedArt, order: number): SceneArt {
  const facet = assembly.facets[art.facet];
  const lift = liftOf(design, assembly, facet);
  const under = lift - stockOf(design, assembly.pieces.find((p) => p.id === art.piece)!.stock).caliperMm;
  const mat = art.layer && matsOf(design, assembly, art.facet, art.side).find((m) => m.id === art.layer);
  const over = (mat ? mat.liftMm : 0) + PRINT_LIFT_MM * (1 + order / 8);
  const common = {
    id: art.id,
    facet: art.facet,
    side: art.side,
    clip: art.seen.flatMap(ringsOf),
    liftMm: art.side === 'inside' ? lift + over : under - over,
  };
  return 'ink' in art
    ? { ...common, ink: intersect(art.ink, art.seen).flatMap(ringsOf), colour: art.colour }
    : { ...common, picture: art.picture, frame: art.frame };
}

const frameOf = (piece: string, { origin, along }: Frame2): SceneFrame => ({
  piece,
  origin,
  x: along,
  y: [-along[1], along[0]],
});
const frameOfFace = ({ piece, placement: m }: Face): SceneFrame => ({
  piece,
  origin: [m[3], m[7]],
  x: [m[0], m[4]],
  y: [m[1], m[5]],
});

const drawnOn = (assembly: Assembly, { piece, polygon }: Assembly['facets'][number]): SceneFacet['drawn'] =>
  (assembly.pieces.find((p) => p.id === piece)?.drawn ?? []).map(({ side, region }) => ({
    side,
    rings: region.filter((p) => contains(polygon, p.outer[0])).flatMap(ringsOf),
  }));

/** What stands on a facet beside paper. */
function fillsOf(design: Design, assembly: Assembly, { piece, id }: Assembly['facets'][number]): SceneFacet['fills'] {
  const { caliperMm } = stockOf(design, assembly.pieces.find((p) => p.id === piece)!.stock);
  const on = (part: { readonly piece: string; readonly facet: string }): boolean =>
    part.piece === piece && part.facet === id;
  return [
    ...assembly.foam
      .filter(on)
      .map((pad) => ({ ...pad, fromMm: caliperMm / 2, look: 'foam' as const }))
      .map(fill),
    ...assembly.fillers.filter(on).map(fill),
  ];
}
const fill = ({ region, fromMm, thickMm, look }: Pick<Filler, 'region' | 'fromMm' | 'thickMm' | 'look'> | Pad) => ({
  rings: region.flatMap(ringsOf),
  from: fromMm,
  to: fromMm + thickMm,
  look,
});
type Pad = Pick<Filler, 'region' | 'fromMm' | 'thickMm'> & { readonly look: 'foam' };

/** "Carrier" for each of several carriers. */
function titleOfAlike({ id, title }: Pick<Piece, 'id' | 'title'>): string {
  const name = sharedName(id);
  return name === null ? title : atStart(wordsOfPart(name));
}

/** The sheets and the foam of a mechanism over its face, from below; parts alike at one height are one. */
function stackOf(design: Design, assembly: Assembly, mechanism: string, face: Face): StackLayer[] {
  const caliper = (stock: string): number => stockOf(design, stock).caliperMm;
  const ground = assembly.pieces.find((p) => p.id === face.piece)?.levelMm ?? 0;
  const own = assembly.pieces.filter((p) => p.mechanism === mechanism && p.levelMm !== undefined && !p.apart);
  const moves = new Set(assembly.facets.filter((f) => movedBy(assembly, f).moves).map((f) => f.piece));
  const sheets = own.map((p): StackLayer => {
    const [level, half] = [p.levelMm! - ground, caliper(p.stock) / 2];
    const kind = moves.has(p.id) ? 'moving' : 'sheet';
    return { name: titleOfAlike(p), kind, from: level - half, to: level + half };
  });
  const foam = assembly.foam.flatMap(({ piece, thickMm, lever }): StackLayer[] => {
    const under = own.find((p) => p.id === piece);
    const from = under && under.levelMm! - ground + caliper(under.stock) / 2;
    return from === undefined ? [] : [{ name: 'Foam', kind: 'foam', from, to: from + thickMm, lever }];
  });
  const fillers = assembly.fillers.flatMap(({ piece, name, look, fromMm, thickMm, lever }): StackLayer[] => {
    const under = own.find((p) => p.id === piece);
    const from = under && under.levelMm! - ground + fromMm;
    return from === undefined ? [] : [{ name, kind: look, from, to: from + thickMm, ...(lever ? { lever } : {}) }];
  });
  const half = face.caliperMm / 2;
  const all: StackLayer[] = [
    { name: wordsOfOwnPart(design, face.facet), kind: 'face', from: -half, to: half },
    // A token is as thick as it is, whatever it is cut from.
    ...sheets.filter((s) => !fillers.some((f) => f.name === s.name)),
    ...foam,
    ...fillers,
  ];
  const alike = (a: StackLayer, b: StackLayer): boolean => a.name === b.name && Math.abs(a.from - b.from) < 1e-6;
  return all.filter((l, i) => all.findIndex((o) => alike(o, l)) === i).sort((a, b) => a.from - b.from);
}

/** What is stuck on a side of a facet, each on all that was stuck there before. */
function matsOf(design: Design, assembly: Assembly, facet: number, side: Side): SceneFacet['mats'] {
  let liftMm = 0;
  return assembly.layers
    .filter((l) => l.facet === facet && l.side === side)
    .map((l) => {
      const { caliperMm, insideColour } = stockOf(design, l.stock);
      liftMm += l.foamMm + caliperMm;
      return {
        id: l.id,
        side,
        rings: l.region.flatMap(ringsOf),
        foam: l.foam.flatMap(ringsOf),
        glue: gluedWithin(l, assembly.facets[facet].polygon).flatMap(ringsOf),
        colour: l.colour ?? insideColour,
        caliperMm,
        liftMm,
      };
    });
}

/** Less of it is rounding, mm². */
const SOME_MM2 = 1e-3;
/** The glue of a layer that has to end before its paper does; nothing where all of it is stuck, or carried by foam. */
function gluedWithin({ id, region, glue, foam }: Assembly['layers'][number], facet: Polygon): Region {
  if (foam.length > 0 || idOfLayer(id) === null) return [];
  const own = intersect(glue, [facet]);
  return regionArea(region) - regionArea(own) > SOME_MM2 ? own : [];
}
