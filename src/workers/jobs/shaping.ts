/** Outlines: their figures, and what is brought in from drawings and photographs. */
import {
  letterLines,
  measureOver,
  outlineFigures,
  planeOutlines,
  strutSheet,
  workedShape,
} from '@/core/build/workshop';
import { blankDesign } from '@/core/document/design';
import { type Region, regionBox, ringsOf } from '@/core/plane/polygon';
import { sweepsOf } from '@/core/proof/sweep';
import { standing } from '@/core/shapes/outline';
import { pathDataOf } from '@/core/shapes/path-data';
import { readSvg, shapeOfSvg } from '@/core/shapes/svg-read';
import { letters } from '@/core/shapes/text';
import { traceShape } from '@/core/shapes/trace';
import type { Brought, Engine } from '../protocol';
import { answer, assemblyOf, fontsFor } from './at-hand';

export const shaping: Pick<
  Engine,
  'outline' | 'worked' | 'struts' | 'planes' | 'letterLines' | 'sweeps' | 'over' | 'bringSvg' | 'trace' | 'letters'
> = {
  outline: (design, shape) =>
    answer(async () => {
      await fontsFor([shape, design.shapes]);
      return outlineFigures(design, shape);
    }),
  worked: (design, asset, steps) =>
    answer(async () => {
      await fontsFor([asset, design.shapes]);
      return workedShape(design, asset, steps);
    }),
  struts: (design, id) =>
    answer(async () => {
      await fontsFor(design);
      return strutSheet(design, id);
    }),
  planes: (design, id) =>
    answer(async () => {
      await fontsFor(design);
      return planeOutlines(design, id);
    }),
  letterLines: (design, id) =>
    answer(async () => {
      await fontsFor(design);
      return letterLines(design, id);
    }),
  sweeps: (design, id) =>
    answer(async () =>
      sweepsOf(await assemblyOf(design), id).map(({ drive, piece, region }) => ({
        drive,
        piece,
        rings: region.flatMap(ringsOf),
      })),
    ),
  over: (design, id, measure) => answer(async () => measureOver(await assemblyOf(design), id, measure)),
  bringSvg: (text) =>
    answer(() => {
      const drawing = readSvg(text);
      return brought(shapeOfSvg(drawing), drawing.leftOut);
    }),
  trace: (raster, wishes) => answer(() => brought(traceShape(raster, wishes), [])),
  letters: (text) =>
    answer(async () => {
      await fontsFor({ text });
      return letters(text).map(({ letter, region }) => {
        const { min, max } = regionBox(region);
        return { letter, path: pathDataOf(region), x: (min[0] + max[0]) / 2 };
      });
    }),
};

/** A region from elsewhere, centred on its foot: its middle on x = 0, its lowest point on y = 0. */
function brought(region: Region, leftOut: readonly string[]): Brought {
  const path = pathDataOf(standing(region, null));
  return { path, leftOut, outline: outlineFigures(blankDesign(''), { path, rule: 'nonzero' }) };
}
