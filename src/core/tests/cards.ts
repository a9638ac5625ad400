/** Cards for tests, in as few words as they can be said. */
import { addMechanism } from '../document/standing';
import { blankDesign, newLayer, type Design, type Layer } from '../document/design';
import type { ParameterValues } from '../kinds';
import { gather } from '../proof/evidence';
import { RULES, type Finding, type RuleId } from '../rules';

export const card = (gutter = 200, reach = 100, reachB = reach): Design => {
  const plain = blankDesign('test', gutter, reach);
  return { ...plain, card: { ...plain.card, parameters: { ...plain.card.parameters, reachB } } };
};
export const stand = (d: Design, kind: string, parameters: ParameterValues, on?: string): Design =>
  addMechanism(d, kind, on, parameters).design;

export const layered = (d: Design, ...layers: Partial<Layer>[]): Design => ({
  ...d,
  layers: layers.map((change, i): Layer => ({
    ...newLayer({
      id: `l${i + 1}`,
      name: 'Moon',
      facet: 'leafA',
      shape: { circle: 30 },
      as: 'layer',
      stock: 'card-160',
    }),
    ...change,
  })),
});

/** A card whose base is a silhouette, doubled about its foot. */
export const shapedCard = (path: string, reach: number): Design => {
  const plain = card(160, reach);
  return {
    ...plain,
    card: { ...plain.card, parameters: { ...plain.card.parameters, shape: { path }, hinge: 40 } },
  };
};
/** A rectangle whose free edges are scalloped: half circles of 12 mm at the sides, of 16 mm along the top. */
export const SCALLOPED = [
  'M-80 0',
  ...Array.from({ length: 8 }, () => 'a6 6 0 0 1 0 -12'),
  ...Array.from({ length: 10 }, () => 'a8 8 0 0 1 16 0'),
  ...Array.from({ length: 8 }, () => 'a6 6 0 0 1 0 12'),
  'Z',
].join(' ');

/** What one rule finds on a design. */
export function findings(d: Design, rule: RuleId, steps = 36): Finding[] {
  const { needs, check } = RULES.find((r) => r.id === rule)!;
  return check(gather(d, needs, steps));
}
