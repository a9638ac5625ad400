/**
 * What the shape workshop asks: outlines with their figures, struts and their trade, lift over the opening. Plain
 * data.
 */
import { measuresOf, poseOpen } from '../assembly/pose';
import type { Assembly } from '../assembly/assembly';
import { listOf, shapeOf, strutTrade, type StrutTrade } from '../kinds';
import { heldFigure } from '../kinds/on-crease/strut-figure';
import { planeOutline } from '../kinds/on-crease/plane-stack';
import { regionArea, regionBox, ringsOf, type Region, type Ring } from '../plane/polygon';
import { letterLine, type LetterLine } from '../shapes/letter-line';
import { assetOutline, outlineOf } from '../shapes/outline';
import type { Shape, ShapeAsset } from '../shapes/shape';
import { deviation } from '../shapes/steps';
import { islandsOf, looseParts, tiesOf, type Tie } from '../shapes/ties';
import { cardValues, valuesOf } from '../document/fields';
import { shelfOf, type Design } from '../document/design';

export interface Outline {
  readonly rings: readonly Ring[];
  readonly min: readonly [number, number];
  readonly max: readonly [number, number];
  readonly areaMm2: number;
  readonly points: number;
  /** Pieces of paper that it is. */
  readonly parts: number;
  /** Islands that fall out where it is cut as a window. */
  readonly islands: number;
  /** Parts that hang on nothing where it is itself cut from paper. */
  readonly loose: number;
}
const figures = (region: Region): Outline => {
  const { min, max } = regionBox(region);
  const rings = region.flatMap(ringsOf);
  return {
    rings,
    min: [min[0], min[1]],
    max: [max[0], max[1]],
    areaMm2: regionArea(region),
    points: rings.reduce((n, r) => n + r.length, 0),
    parts: region.length,
    islands: islandsOf(region).length,
    loose: looseParts(region).length,
  };
};

export const outlineFigures = (design: Design, shape: Shape): Outline => figures(outlineOf(shape, shelfOf(design)));

export interface WorkedShape extends Outline {
  /** What the last step moved points by (mm), where it simplifies. */
  readonly deviationMm: number | null;
  readonly ties: readonly Tie[];
}
/** A kept shape after its first `steps` steps. */
export function workedShape(design: Design, asset: ShapeAsset, steps: number): WorkedShape {
  const shelf = shelfOf(design);
  const region = assetOutline(asset, shelf, steps);
  const last = asset.steps[steps - 1];
  const before = (): Region => assetOutline(asset, shelf, steps - 1);
  return {
    ...figures(region),
    deviationMm: last?.do === 'simplify' ? deviation(before(), region) : null,
    ties: last?.do === 'ties' ? [...tiesOf(before(), last).ties] : [],
  };
}

export interface StrutSheet {
  readonly struts: readonly { readonly x: number; readonly width: number; readonly level: number }[];
  readonly feet: readonly { readonly x: number; readonly width: number }[];
  readonly lossPct: number;
  readonly trade: readonly StrutTrade[];
}
/** Struts and feet as they are, and how they would be at other least widths. */
export function strutSheet(design: Design, id: string): StrutSheet {
  const values = valuesOf(design.mechanisms.find((m) => m.id === id)!);
  const outline = (shape: Shape): Region => outlineOf(shape, shelfOf(design));
  const { held } = heldFigure(values, outline);
  return {
    struts: held.holds.map((h) => ({ x: (h.from + h.to) / 2, width: h.to - h.from, level: h.level })),
    feet: held.feet.map((f) => ({ x: (f.from + f.to) / 2, width: f.to - f.from })),
    lossPct: held.lossPct,
    trade: strutTrade(values, outline),
  };
}

export interface LetteredPlane {
  readonly plane: number;
  readonly line: LetterLine;
}
/** Words that stand as planes of a stack, by the number of the plane from 0: where their letters are trimmed. */
export function letterLines(design: Design, id: string): LetteredPlane[] {
  const values = valuesOf(design.mechanisms.find((m) => m.id === id)!);
  return listOf(values, 'planes').flatMap((item, plane) => {
    const shape = shapeOf(item, 'shape');
    const drawn = shape ? outlineOf(shape, shelfOf(design)) : [];
    if (drawn.length < 2) return [];
    const [height, width] = [item.height as number, (item.width ?? null) as number | null];
    return [{ plane, line: letterLine(drawn, height, width, values.contact as number) }];
  });
}

/** Silhouettes of the planes of a stack in (x, h), for its views. */
export function planeOutlines(design: Design, id: string): readonly (readonly Ring[])[] {
  const values = valuesOf(design.mechanisms.find((m) => m.id === id)!);
  return listOf(values, 'planes').map((item) =>
    planeOutline(item, values.contact as number, (s) => outlineOf(s, shelfOf(design))).region.flatMap(ringsOf),
  );
}

/** A measure of a mechanism over the whole opening, where it can be read. */
export function measureOver(
  assembly: Assembly,
  id: string,
  name: string,
  steps = 36,
): { open: number; value: number }[] {
  const m = assembly.mechanisms.find((x) => x.id === id);
  if (!m) return [];
  return Array.from({ length: steps + 1 }, (_, k) => (180 * k) / steps).flatMap((open) => {
    const pose = poseOpen(assembly, open);
    const value = pose.stop ? undefined : measuresOf(assembly, pose, null, m)[name];
    return value === undefined ? [] : [{ open, value }];
  });
}

/** Free id for a kept shape, made from its name. */
export function freeAssetId(design: Design, name: string): string {
  const base =
    name
      .toLowerCase()
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 30) || 'shape';
  const taken = new Set(design.shapes.map((s) => s.id));
  if (!taken.has(base)) return base;
  let n = 2;
  while (taken.has(`${base}-${n}`)) n++;
  return `${base}-${n}`;
}

/** Whether a kept shape is cut as a window anywhere, and whether it is paper itself. */
export function cutAs(design: Design, asset: string): { readonly window: boolean; readonly paper: boolean } {
  const uses = (value: unknown): boolean => JSON.stringify(value ?? null).includes(`"asset":"${asset}"`);
  const layers = design.layers.filter((l) => uses(l.shape));
  return {
    window: layers.some((l) => l.as === 'window'),
    paper: layers.some((l) => l.as === 'layer') || design.mechanisms.some((m) => uses(m.parameters)),
  };
}

/** Where a kept shape is used, in words. */
export function usesOf(design: Design, asset: string): string[] {
  const names = (value: unknown): boolean => JSON.stringify(value ?? null).includes(`"asset":"${asset}"`);
  return [
    ...design.mechanisms.filter((m) => names(m.parameters)).map((m) => m.name),
    ...design.layers.filter((l) => names(l.shape)).map((l) => l.name),
    ...design.shapes.filter((s) => s.id !== asset && (names(s.source) || names(s.steps))).map((s) => s.name),
    ...(names(cardValues(design)) ? ['the card'] : []),
  ];
}
