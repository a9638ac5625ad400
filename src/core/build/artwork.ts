/** What is printed on the paper: pictures and words, clipped to the facet or layer that carries them. mm. */
import type { Assembly } from '../assembly/assembly';
import { sideOf, type Artwork, type Design } from '../document/design';
import { layerId } from '../ids';
import type { Side } from '../kinds';
import {
  intersect,
  mapRegion,
  offset,
  regionBox,
  ringArea,
  subtract,
  unite,
  type Polygon,
  type Region,
} from '../plane/polygon';
import { turnPoint } from '../plane/turning';
import { add2, sub2, type Vec2 } from '../plane/vec2';
import { textRegion } from '../shapes/text';
import { seenOn } from './dressing';

/** Where a picture's lower left, right and up lie: a point (u, v) of it, 0 to 1, is at origin + u right + v up. */
export interface PictureFrame {
  readonly origin: Vec2;
  readonly right: Vec2;
  readonly up: Vec2;
}
interface Common {
  readonly id: string;
  readonly name: string;
  /** Facet whose paper it is on, by index, and the piece that is. */
  readonly facet: number;
  readonly piece: string;
  /** The layer it is on, where it is on one: by the id of its drawing. */
  readonly layer?: string;
  readonly side: Side;
  /** What of it is printed with the bleed, and what of it is seen, in the axes of the facet's piece. */
  readonly printed: Region;
  readonly seen: Region;
}
export type PlacedArt = Common &
  ({ readonly picture: string; readonly frame: PictureFrame } | { readonly ink: Region; readonly colour: string });

/** Artwork that has a place, in the order in which it is printed: later over earlier. */
export function placedArtwork(design: Design, assembly: Assembly): PlacedArt[] {
  return (design.artwork ?? []).flatMap((art): PlacedArt[] => {
    const carrier = carrierOf(design, assembly, art);
    if (!carrier) return [];
    const { region, bled, ...on } = carrier;
    const common = { id: art.id, name: art.name, ...on };
    const { min, max } = regionBox(seenOn(on.side, region));
    const middle: Vec2 = [(min[0] + max[0]) / 2 + art.x, (min[1] + max[1]) / 2 + art.y];
    if ('text' in art.what) {
      const { text, colour } = art.what;
      const set = textRegion(text);
      if (set.length === 0) return [];
      const ink = onPaper(on.side, centred(set), middle, art.turnDeg);
      return [{ ...common, printed: bled, seen: region, ink, colour }];
    }
    const { picture: id } = art.what;
    const picture = design.pictures?.find((p) => p.id === id);
    if (!picture) return [];
    const size: Vec2 = [art.widthMm, (art.widthMm * picture.heightPx) / picture.widthPx];
    const frame = frameOn(on.side, size, middle, art.turnDeg);
    // Past its own edges a picture has nothing to show.
    const [printed, seen] = [bled, region].map((r) => intersect(r, [pictureOutline(frame)]));
    return [{ ...common, printed, seen, picture: id, frame }];
  });
}

function pictureOutline({ origin: [x, y], right: [rx, ry], up: [ux, uy] }: PictureFrame): Polygon {
  const ring: Vec2[] = [
    [x, y],
    [x + rx, y + ry],
    [x + rx + ux, y + ry + uy],
    [x + ux, y + uy],
  ];
  return { outer: ringArea(ring) > 0 ? ring : ring.reverse(), holes: [] };
}

/** The paper that carries it, with its bleed: past the edge of its piece only, not over the facet beside it. */
function carrierOf(design: Design, assembly: Assembly, { on, side: asked, bleedMm }: Artwork) {
  const layer = assembly.layers.find((l) => l.id === on);
  if (layer) {
    const { facet, piece, region, side } = layer;
    const bled = bleedMm > 0 ? offset(region, bleedMm, 'round') : region;
    return { facet, piece, layer: layer.id, side, region, bled };
  }
  const facet = assembly.facets.findIndex((f) => f.id === on && !f.bent);
  if (facet < 0) return null;
  const { polygon, piece } = assembly.facets[facet];
  const region: Region = [polygon];
  const outline = assembly.pieces.find((p) => p.id === piece)!.outline;
  const side = asked ?? 'inside';
  return { facet, piece, side, region, bled: bleedMm > 0 ? pastEdge(polygon, outline, bleedMm) : region };
}
const pastEdge = (facet: Polygon, outline: Polygon, bleedMm: number): Region =>
  unite([facet], subtract(offset([facet], bleedMm, 'round'), [{ outer: outline.outer, holes: [] }]));

const centred = (region: Region): Region => {
  const { min, max } = regionBox(region);
  return mapRegion(region, ([x, y]): Vec2 => [x - (min[0] + max[0]) / 2, y - (min[1] + max[1]) / 2]);
};

/** Turned and put at its middle as its side is seen, then in the axes of the piece. */
const onPaper = (side: Side, region: Region, middle: Vec2, turnDeg: number): Region =>
  seenOn(
    side,
    mapRegion(region, (p) => turnedAt(p, middle, turnDeg)),
  );

const turnedAt = (p: Vec2, middle: Vec2, turnDeg: number): Vec2 => add2(middle, turnPoint(p, turnDeg));

function frameOn(side: Side, [w, h]: Vec2, middle: Vec2, turnDeg: number): PictureFrame {
  const at = (x: number, y: number): Vec2 => {
    const [px, py] = turnedAt([x, y], middle, turnDeg);
    return side === 'inside' ? [px, py] : [-px, py];
  };
  const [origin, right, up] = [at(-w / 2, -h / 2), at(w / 2, -h / 2), at(-w / 2, h / 2)];
  return { origin, right: sub2(right, origin), up: sub2(up, origin) };
}

/** What a piece or layer carries, in the axes of its own drawing, which has what is seen of it up. */
export function artOfDrawing(all: readonly PlacedArt[], drawing: string, side: Side): PlacedArt[] {
  return all.flatMap((art): PlacedArt[] => {
    if (art.layer !== undefined) {
      // A layer is printed on its face, whichever side of the card that is on.
      return art.layer === drawing && side === 'inside' ? [asSeen(art)] : [];
    }
    return art.piece === drawing && art.side === side ? [art] : [];
  });
}

function asSeen(art: PlacedArt): PlacedArt {
  if (art.side === 'inside') return art;
  const flip = ([x, y]: Vec2): Vec2 => [-x, y];
  const regions = { printed: seenOn('outside', art.printed), seen: seenOn('outside', art.seen) };
  if ('ink' in art) return { ...art, ...regions, ink: seenOn('outside', art.ink) };
  const { origin, right, up } = art.frame;
  return { ...art, ...regions, frame: { origin: flip(origin), right: flip(right), up: flip(up) } };
}

/** Names of what artwork can be on: facets that take something flat, and layers. */
export const artCarriers = (design: Design, assembly: Assembly): readonly { id: string; side: Side | null }[] => [
  ...assembly.facets.filter((f) => !f.bent).map((f) => ({ id: f.id, side: null })),
  ...design.layers.filter((l) => l.as === 'layer').map((l) => ({ id: layerId(l.id), side: sideOf(l) })),
];
