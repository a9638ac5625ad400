/** Over a face the shut card is as thick as what is fixed there reaches, with the room between its sheets. */
import fc from 'fast-check';
import { addMechanism } from '../document/standing';
import { CENTRE, newLayer, type Design } from '../document/design';
import type { ParameterValues, Side } from '../kinds';
import { gather } from '../proof/evidence';
import { card } from '../tests/cards';
import { closedStack, stackAt } from './stack-map';

const LEAF = card().stocks.find((s) => s.id === card().card.stock)!.caliperMm;
const SHEET = card().stocks.find((s) => s.id === 'card-240')!.caliperMm;
const HEAD = 0.4;
const on = (kind: string, values: ParameterValues, side: Side, onto = 'leafB'): Design =>
  addMechanism(card(260, 200), kind, { on: onto, mount: { ...CENTRE, side } }, values).design;
const stack = (d: Design) => closedStack(gather(d, 'closed', 2))!;
const side = fc.constantFrom('inside' as const, 'outside' as const);
const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('a wheel with its spacers: back, spacers, wheel, carrier and the head of its rivet', () => {
  fc.assert(
    fc.property(fc.array(mm(0.2, 3), { minLength: 1, maxLength: 4 }), side, (spacers, where) => {
      const d = on('carrier-wheel', { spacers: spacers.map((thickness) => ({ thickness })) }, where);
      const between = spacers.reduce((sum, t) => sum + t, 0);
      expect(stack(d).greatest.mm).toBeCloseTo(2 * LEAF + 3 * SHEET + between + HEAD, 4);
    }),
    { numRuns: 8 },
  );
});

test('a disc under its panel: backing, foam, panel, head; the room over the disc counts', () => {
  fc.assert(
    fc.property(mm(0.5, 4), side, (foam, where) => {
      const map = stack(on('volvelle', { foam }, where));
      expect(map.greatest.mm).toBeCloseTo(2 * LEAF + 2 * SHEET + foam + HEAD, 4);
    }),
    { numRuns: 8 },
  );
});

test('a token in its gap adds nothing; its carrier in front does', () => {
  const d = on('track-slider', { foamThickness: 2, token: { diameter: 19, thickness: 1.5 } }, 'inside');
  expect(stack(d).greatest.mm).toBeCloseTo(2 * LEAF + 3 * SHEET + 2, 4);
});

test('what lies on both leaves adds up, and paper stuck on a face’s leaf lies under none of it', () => {
  const wheel = on('volvelle', { foam: 1 }, 'inside');
  const both = addMechanism(
    wheel,
    'volvelle',
    { on: 'leafA', mount: { ...CENTRE, side: 'inside' } },
    { foam: 2 },
  ).design;
  const each = (foam: number): number => 2 * SHEET + foam + HEAD;
  expect(stack(both).greatest.mm).toBeCloseTo(2 * LEAF + each(1) + each(2), 4);
  // Beside everything there are the two leaves alone, and a patch where it is stuck.
  const patch = newLayer({
    ...{ id: 'p', name: 'Patch', facet: 'leafA', shape: { circle: 20 }, as: 'layer', stock: 'card-160' },
  });
  const map = stack({ ...both, layers: [{ ...patch, x: 110, y: 80 }] });
  expect(stackAt(map, [-120, 20])).toBeCloseTo(2 * LEAF, 5);
  expect(stackAt(map, [110, 180])).toBeCloseTo(2 * LEAF + card().stocks.find((s) => s.id === 'card-160')!.caliperMm, 5);
});
