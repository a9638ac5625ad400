/**
 * What lies on the facets: mats and layers as outlines in the axes of the facet's piece, with their foam. Lengths in
 * mm.
 */
import type { AttachedLayer } from '../assembly/assembly';
import { boxOf, intersect, mapRegion, offset, rectangle, regionBox, type Polygon, type Region } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { outlineOf } from '../shapes/outline';
import { turned } from '../shapes/steps';
import { asPaper, type ShapeShelf } from '../shapes/shape';
import { layerId, matId } from '../ids';
import { nameOfPart } from '../document/words';
import type { Piece } from '../pattern/pattern';
import type { Footing, Side } from '../kinds';
import { sideOf, type Design, type Layer, type Mat } from '../document/design';

export const DEFAULT_FOAM_INSET_MM = 3;

/** What is seen on a side, in the axes of the piece, and back: the outside is the mirror image of the inside. */
export const seenOn = (side: Side, region: Region): Region =>
  side === 'inside' ? region : mapRegion(region, ([x, y]): Vec2 => [-x, y], true);

/** Outline of a layer's shape where it lies on its facet, in the axes of the facet's piece. */
export function layerOutline(layer: Layer, facet: Polygon, shelf: ShapeShelf): Region {
  const side = sideOf(layer);
  return seenOn(side, outlineAsSeen(layer, seenOn(side, [facet])[0], shelf));
}
function outlineAsSeen(layer: Layer, facet: Polygon, shelf: ShapeShelf): Region {
  const own = turned(outlineOf(layer.shape, layer.as === 'layer' ? asPaper(shelf) : shelf), layer.turnDeg);
  const { min, max } = regionBox(own);
  const [w, h] = [max[0] - min[0], max[1] - min[1]];
  const sx = layer.width !== null ? layer.width / w : layer.height !== null ? layer.height / h : 1;
  const sy = layer.height !== null ? layer.height / h : sx;
  const box = boxOf(facet.outer);
  const at = (axis: 0 | 1, from: 'low' | 'middle' | 'high', shift: number): [facet: number, shape: number] => {
    const part = { low: 0, middle: 0.5, high: 1 }[from];
    return [box.min[axis] + (box.max[axis] - box.min[axis]) * part + shift, part];
  };
  const [fx, px] = at(0, layer.from.x, layer.x);
  const [fy, py] = at(1, layer.from.y, layer.y);
  return mapRegion(own, ([x, y]): Vec2 => [fx + (x - min[0] - w * px) * sx, fy + (y - min[1] - h * py) * sy]);
}

/** Outlines of a facet's mats: each inset from the one below it; holes of the facet grow with it. */
export function matOutlines(
  facet: Polygon,
  mats: readonly Mat[],
  side: Side = 'inside',
): { mat: Mat; region: Region }[] {
  let region: Region = seenOn(side, [facet]);
  return mats.flatMap((mat) => {
    region = inset(region, mat);
    return region.length === 0 ? [] : [{ mat, region: seenOn(side, region) }];
  });
}

function inset(region: Region, mat: Mat): Region {
  const corners = mat.corners ?? 'sharp';
  if (!mat.sides) {
    const sharp = offset(region, -mat.insetMm, 'sharp');
    // Round corners have the inset for their radius, as a rounded corner punch would leave them.
    return corners === 'sharp' || mat.insetMm === 0
      ? sharp
      : offset(offset(sharp, -mat.insetMm, 'sharp'), mat.insetMm, 'round');
  }
  const { left, right, top, bottom } = mat.sides;
  const { min, max } = regionBox(region);
  if (min[0] + left >= max[0] - right || min[1] + bottom >= max[1] - top) return [];
  const kept = intersect(region, [
    { outer: rectangle(min[0] + left, min[1] + bottom, max[0] - right, max[1] - top), holes: [] },
  ]);
  const r = Math.min(left, right, top, bottom);
  return corners === 'sharp' || r === 0 ? kept : offset(offset(kept, -r, 'sharp'), r, 'round');
}

/** The part of a layer that carries foam. */
export const foamOutline = (region: Region, foamMm: number, insetMm: number): Region =>
  foamMm > 0 ? offset(region, -insetMm, 'sharp') : [];

/** A layer's paper, cut off where its facet ends if that is wished and leaves any. */
function trimmed({ trimmed: wished }: Layer, region: Region, facet: Polygon): Region {
  const within = wished ? intersect(region, [facet]) : [];
  return within.length > 0 ? within : region;
}

/** Moved across, so that its edge toward the hinge lies where a foot comes to rest. */
function broughtTo(region: Region, stopMm: number): Region {
  const by = stopMm - regionBox(region).min[1];
  return mapRegion(region, ([x, y]): Vec2 => [x, y + by]);
}

/** Everything that is stuck on facets. `order` counts up from the facet. */
export function attachedLayers(
  design: Design,
  facets: readonly {
    readonly id: string;
    readonly polygon: Polygon;
    readonly mechanism: string;
    readonly piece: string;
  }[],
  shelf: ShapeShelf,
  footings: readonly Footing[] = [],
): AttachedLayer[] {
  const index = new Map(facets.map((f, i) => [f.id, i]));
  const height = new Map<string, number>();
  const next = (facet: number, side: Side): number => {
    const key = `${facet} ${side}`;
    height.set(key, (height.get(key) ?? 0) + 1);
    return height.get(key)!;
  };
  const mats = design.dressing.flatMap((dressing) => {
    const { facet: id, mats: list } = dressing;
    const side = sideOf(dressing);
    const i = index.get(id);
    if (i === undefined) return [];
    return matOutlines(facets[i].polygon, list, side).map(({ mat, region }, k): AttachedLayer => ({
      id: matId(id, k + 1, side),
      title: `Mat ${k + 1} on the ${side === 'outside' ? 'outside of the ' : ''}${nameOfPart(design, id)}`,
      side,
      mechanism: facets[i].mechanism,
      facet: i,
      piece: facets[i].piece,
      region,
      glue: region,
      stock: mat.stock,
      ...(mat.colour ? { colour: mat.colour } : {}),
      foamMm: mat.foamMm ?? 0,
      foam: foamOutline(region, mat.foamMm ?? 0, mat.foamInsetMm ?? DEFAULT_FOAM_INSET_MM),
      foamInsetMm: mat.foamInsetMm ?? DEFAULT_FOAM_INSET_MM,
      order: next(i, side),
      doubled: mat.doubled === true,
    }));
  });
  const layers = design.layers
    .filter((l) => l.as === 'layer')
    .flatMap((l): AttachedLayer[] => {
      const i = index.get(l.facet);
      if (i === undefined) return [];
      const drawn = layerOutline(l, facets[i].polygon, shelf);
      const footing = l.stops ? footings.find((f) => f.facet === l.facet && f.piece === facets[i].piece) : undefined;
      const region = trimmed(l, footing ? broughtTo(drawn, footing.stopMm) : drawn, facets[i].polygon);
      const glue = gluedPart(l, region, facets[i].polygon);
      return [
        {
          id: layerId(l.id),
          title: l.name,
          side: sideOf(l),
          mechanism: facets[i].mechanism,
          facet: i,
          piece: facets[i].piece,
          region,
          glue,
          stock: l.stock,
          ...(l.colour ? { colour: l.colour } : {}),
          foamMm: l.foamMm,
          foam: l.glued
            ? intersect(foamOutline(region, l.foamMm, l.foamInsetMm), glue)
            : foamOutline(region, l.foamMm, l.foamInsetMm),
          foamInsetMm: l.foamInsetMm,
          order: next(i, sideOf(l)),
          doubled: l.doubled === true,
        },
      ];
    });
  return [...mats, ...layers];
}

/** The part of a layer that is stuck, in the axes of its facet's piece. */
function gluedPart(layer: Layer, region: Region, facet: Polygon): Region {
  const { onFacet, insetMm = 0, free } = layer.glued ?? {};
  const inner = insetMm > 0 ? offset(region, -insetMm, 'sharp') : region;
  const own = onFacet ? intersect(inner, [facet]) : inner;
  if (!free || own.length === 0) return own;
  const side = sideOf(layer);
  const { min, max } = regionBox(seenOn(side, region));
  const [x0, y0, x1, y1] = [min[0] + free.left, min[1] + free.bottom, max[0] - free.right, max[1] - free.top];
  return x0 < x1 && y0 < y1 ? intersect(own, seenOn(side, [{ outer: rectangle(x0, y0, x1, y1), holes: [] }])) : [];
}

/** Windows and drawings of a piece: what falls out, and the lines that are only drawn. */
export function windowsAndDrawings(
  design: Design,
  facets: readonly { readonly id: string; readonly polygon: Polygon }[],
  shelf: ShapeShelf,
): { windows: NonNullable<Piece['openings']>; drawn: readonly { id: string; region: Region; side: Side }[] } {
  const on = design.layers.flatMap((l) => {
    const facet = l.as === 'layer' ? undefined : facets.find((f) => f.id === l.facet);
    return facet ? [{ layer: l, region: layerOutline(l, facet.polygon, shelf), facet }] : [];
  });
  return {
    windows: on
      .filter((o) => o.layer.as === 'window')
      .map((o) => ({ layer: o.layer.id, facet: o.layer.facet, region: o.region })),
    drawn: on
      .filter((o) => o.layer.as === 'drawn')
      .map((o) => ({ id: o.layer.id, region: o.region, side: sideOf(o.layer) })),
  };
}
