/** Brought-in templates for tests: a group of lines for every role, by its name. */
import { TEMPLATE_ROLES, type TemplateRole } from '../pattern/pattern';
import type { Vec2 } from '../plane/vec2';
import type { Template } from '../document/template';

export const plainTemplate = (lines: Template['lines'], more: Partial<Template> = {}): Template => ({
  name: 'plain',
  scale: 1,
  mended: false,
  picked: {},
  lead: null,
  lines,
  groups: TEMPLATE_ROLES.map((role) => ({ key: role, layer: role, colour: '#000', dashed: false, role })),
  ...more,
});

/** A line of a template by what it is for. */
export const drawnLine = (
  id: string,
  role: TemplateRole,
  closed: boolean,
  ...points: readonly Vec2[]
): Template['lines'][number] => ({ id, group: role, closed, points });

const layer = (id: string, ...d: string[]): string =>
  `<g id="${id}" fill="none" stroke="#000">${d.map((p) => `<path d="${p}"/>`).join('')}</g>`;
/** A page, and a step of 40 and 25 with sides of 30 and 45, its glue drawn on both: as another program writes them. */
export const TWO_PIECES =
  '<svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="300mm" viewBox="0 0 420 300">' +
  layer('cut', 'M10 10H210V290H10Z', 'M300 100H360V195H300Z') +
  layer('valley', 'M10 150H210', 'M300 110H360', 'M300 185H360') +
  layer('mountain', 'M300 140H360') +
  layer('glue', 'M81 101H139V109H81Z', 'M301 101H359V109H301Z', 'M82 176H138V184H82Z', 'M302 186H358V194H302Z') +
  '</svg>';
/** A page of 100 by 150 with a step, as a machine's file has it: all of it black, its folds among the cuts. */
export const STEP_OF_CUTS =
  '<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="170mm" viewBox="0 0 120 170">' +
  layer('all', 'M10 10H110V160H10Z', 'M40 65V115', 'M80 65V115', 'M40 65H80', 'M40 115H80', 'M40 95H80') +
  layer('more', 'M10 85H40', 'M80 85H110') +
  '</svg>';

/** A waterfall as it is sold to be put together, all of it cuts: its card as two leaves, its belt scored four times. */
export const WATERFALL_SOLD =
  '<svg xmlns="http://www.w3.org/2000/svg" width="480mm" height="270mm" viewBox="0 0 480 270">' +
  layer('card', 'M10 10H170V130H10Z', 'M10 130H170V250H10Z') +
  layer('belt', 'M190 10H208V170H190Z', ...[30, 41, 52, 63].map((y) => `M190 ${y}H208`)) +
  layer('panels', ...[0, 1, 2, 3].map((k) => `M${230 + 60 * k} 10h50v42h-50Z`)) +
  layer(
    'strap',
    'M230 100h44v12h-44Z',
    ...[237, 267].map((x) => `M${x - 1.5} 106a1.5 1.5 0 1 0 3 0a1.5 1.5 0 1 0 -3 0Z`),
  ) +
  '</svg>';
