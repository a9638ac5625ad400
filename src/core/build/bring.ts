/** A design that takes a brought-in template for its card. */
import { GUTTER } from '../kinds';
import { removeMechanism } from '../document/standing';
import type { Design } from '../document/design';
import type { Template } from '../document/template';
import { buildTemplate } from './template';

/**
 * What stands on the gutter stays; what stood on other creases of the old card goes with them. Creases that came
 * perforated are cut so again. Throws ShapeError where the template is no card.
 */
export function withTemplate(design: Design, template: Template): Design {
  const { making = {} } = buildTemplate(template, design.card.stock);
  const orphans = design.mechanisms.filter((m) => m.on !== GUTTER && m.on.startsWith('card.'));
  const kept = orphans.reduce(
    (d, { id }) => (d.mechanisms.some((m) => m.id === id) ? removeMechanism(d, id) : d),
    design,
  );
  const others = Object.entries(kept.making.creases).filter(([crease]) => !crease.startsWith('card.'));
  return {
    ...kept,
    card: { ...kept.card, template },
    making: { ...kept.making, creases: { ...Object.fromEntries(others), ...making } },
  };
}
