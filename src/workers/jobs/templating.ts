/** Whole templates: read, mended, folded and joined. */
import { withTemplate } from '@/core/build/bring';
import { keptOf, templateLines } from '@/core/build/template';
import { proposeJoins, roleChoices, settleJoins } from '@/core/build/template-proposals';
import { sheetsOf } from '@/core/build/template-sheets';
import { checkTemplate } from '@/core/document/schema';
import { readTemplate } from '@/core/formats/template-read';
import { findFaults } from '@/core/pattern/mending';
import type { Engine } from '../protocol';
import { answer } from './at-hand';

export const templating: Pick<Engine, 'template' | 'bringTemplate' | 'offers' | 'settle' | 'faults'> = {
  template: (text, name) => answer(() => readTemplate(text, name)),
  bringTemplate: (design, template) =>
    answer(() => {
      const why = checkTemplate(template);
      if (why) throw new Error(`The template cannot be kept: ${why}`);
      return withTemplate(design, template);
    }),
  offers: (template) =>
    answer(() => ({
      sheets: sheetsOf(templateLines({ ...template, scale: 1 })).map((s) => s.outer),
      joins: proposeJoins(template),
      folds: roleChoices(template),
      kept: keptOf(template),
    })),
  settle: (template) => answer(() => settleJoins(template, proposeJoins(template))),
  faults: (template) =>
    answer(() => ({
      lines: templateLines(template),
      faults: findFaults(templateLines({ ...template, mended: false })),
    })),
};
