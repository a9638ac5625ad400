/**
 * What lies off its leaf is pressed only where the card is nearly shut; opened further it is as high as it is. The
 * limit is plane geometry: a page at an angle over a leaf, and the near edge of a panel held above that leaf.
 */
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { buildAssembly } from '../build/build';
import { CONTACT_MM } from '../tolerance';
import { card, findings, stand } from '../tests/cards';
import { platesOf, PRESSED_BELOW_DEG, takenUpMm } from './plates';
import { gather } from '../proof/evidence';

const LEAVES = 4;
const REACH = { a: 130, b: 110 };
const PANEL = 60;
const SLIDER = { width: PANEL, height: 50, path: { line: 20 }, carrier: 12, foamThickness: 3, layers: 1 };
const TITLE = /Sliding token/;

/** A bundle in the gutter, and on the leaf beside it the panel of a slider that begins so far from the gutter. */
function beside(fromGutterMm: number): Design {
  const bundle = stand(card(190, REACH.a, REACH.b), 'leaf-bundle', { count: LEAVES, height: 60 });
  const x = fromGutterMm + PANEL / 2 - REACH.a / 2;
  const mount = { ...CENTRE, side: 'inside' as const, x };
  return addMechanism(bundle, 'track-slider', { on: 'leafA', mount }, SLIDER).design;
}
const blocked = (d: Design): string[] =>
  findings(d, 'collision', 36)
    .filter((f) => f.severity === 'blocks' && TITLE.test(f.message) && !/by hand/.test(f.aspect))
    .map((f) => f.message);

test('a page that leans over a panel is in its way from where the panel is higher than the page, on', () => {
  const d = beside(20);
  const { facets } = buildAssembly(d);
  const front = facets.find((f) => f.id === 'track-slider-1.front')!;
  const plates = platesOf(gather(d, 'closed', 0));
  const page = plates.find((p) => facets[p.facet].id.startsWith('leaf-bundle-1'))!;
  const panel = plates.find((p) => facets[p.facet].id === front.id)!;
  const lean = ((PRESSED_BELOW_DEG / LEAVES) * Math.PI) / 180;
  // As high as the panel stands over the page there, less what two sheets take up.
  const beyond = page.caliperMm + panel.caliperMm + CONTACT_MM;
  const limit = (front.levelMm * Math.cos(lean) - beyond) / Math.sin(lean);
  expect(limit).toBeGreaterThan(5);
  expect([limit - 2, limit - 0.05].map((x) => blocked(beside(x)).length)).toEqual([1, 1]);
  expect([limit + 0.05, limit + 2].map((x) => blocked(beside(x)))).toEqual([[], []]);
});

test('pressed below 60 degrees, not at 60 nor above', () => {
  const plates = platesOf(gather(beside(20), 'closed', 0));
  const [p, q] = [
    { ...plates[0], levelMm: 1.25 },
    { ...plates[1], levelMm: 2 },
  ];
  const paper = p.caliperMm + q.caliperMm + CONTACT_MM;
  expect([0, 59.999].map((open) => takenUpMm(p, q, open))).toEqual([paper + 3.25, paper + 3.25]);
  expect([60, 60.001, 180].map((open) => takenUpMm(p, q, open))).toEqual([paper, paper, paper]);
});
