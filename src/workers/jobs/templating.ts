/** Whole templates: read, mended, folded and joined. */
import { keptStocks, withTemplate } from '@/core/build/bring';
import { keptOf, sheetsNamed, templateLines } from '@/core/build/template';
import { proposeJoins, roleChoices, settleJoins } from '@/core/build/template-proposals';
import { severingIn } from '@/core/build/template-severing';
import { waterfallIn, withWaterfall } from '@/core/build/template-waterfall';
import type { Design } from '@/core/document/design';
import { checkTemplate } from '@/core/document/schema';
import type { Template } from '@/core/document/template';
import { readTemplate } from '@/core/formats/template-read';
import { findFaults } from '@/core/pattern/mending';
import { contains, insidePoint } from '@/core/plane/polygon';
import { ShapeError } from '@/core/shapes/shape';
import type { Engine, OfferedPiece } from '../protocol';
import { answer } from './at-hand';

export const templating: Pick<
  Engine,
  'template' | 'bringTemplate' | 'bringWaterfall' | 'offers' | 'settle' | 'faults'
> = {
  template: (text, name) => answer(() => readTemplate(text, name)),
  bringTemplate: (design, template, stocks) =>
    answer(() => {
      refuseBad(template);
      return withTemplate(design, template, stocks);
    }),
  bringWaterfall: (design, template, stocks) =>
    answer(() => {
      refuseBad(template);
      const found = waterfallIn(template);
      if (!found) throw new ShapeError('these pieces are no waterfall: it has panels of one size and a scored belt');
      return withWaterfall(design, template, found, stocks);
    }),
  offers: (design, template) =>
    answer(() => ({
      pieces: piecesOf(design, template),
      joins: proposeJoins(template),
      folds: roleChoices(template),
      kept: keptOf(template),
      waterfall: waterfallIn(template),
    })),
  settle: (template) => answer(() => settleJoins(template, proposeJoins(template))),
  faults: (template) =>
    answer(() => {
      const lines = templateLines(template);
      const faults = findFaults(templateLines({ ...template, mended: false }));
      return { lines, faults, severing: severingIn(template, lines) };
    }),
};

function refuseBad(template: Template): void {
  const why = checkTemplate(template);
  if (why) throw new ShapeError(`the template cannot be kept: ${why}`);
}

/** Pieces of a template, and what each is cut from so far. */
function piecesOf(design: Design, template: Template): OfferedPiece[] {
  const kept = keptStocks(design, template);
  return sheetsNamed({ ...template, scale: 1 }).map(({ id, title, sheet }) => ({
    ...{ id, title },
    outline: sheet.outer,
    at: insidePoint(sheet.rest),
    stock: kept.find(({ at }) => contains(sheet.rest, at))?.stock ?? design.card.stock,
  }));
}
