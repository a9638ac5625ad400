/** Ends of a room on the drawing, against the design put together and proved there. */
import { parameterOf, setParameter } from '../document/fields';
import { buildAssembly } from '../build/build';
import { gripAt, gripsOf } from '../build/grips';
import { dist2, distToSegment } from '../plane/vec2';
import { card, stand } from '../tests/cards';
import { demoCards } from '../tests/demo';
import { shelveFonts } from '../../fonts/shelve';
import { gripLimits } from './grip-limits';
import { roomOf } from './room';

beforeAll(shelveFonts);
/** Unequal leaves would close elsewhere: handbook, step fold. */
const REACH_MM = 100;
const step = () => stand(card(160, REACH_MM), 'step-fold', { depth: 40, height: 25, width: 50 });
const gripOf = (crease: string) => gripsOf(step(), 'step-fold-1').find((g) => g.crease === `step-fold-1.${crease}`)!;

test('the base of a step meets the fore edge where depth and height are the reach', () => {
  const limits = gripLimits(step(), gripOf('base'));
  const fore = limits.find((l) => l.by === 'fore edge')!;
  // A closed step reaches depth + height from the gutter (handbook 2): the room is searched to a twentieth of a mm.
  expect(Math.abs(fore.value - (REACH_MM - 25))).toBeLessThan(0.11);
  const there = buildAssembly(setParameter(step(), 'step-fold-1', 'depth', fore.value));
  const base = there.pieces.flatMap((p) => p.creases).find((c) => c.id === 'step-fold-1.base')!;
  for (const end of fore.lines[0]) expect(distToSegment(end, base.a, base.b)).toBeLessThan(1e-9);
});

test('each limit is an end of the room that something sets, and none without a room', () => {
  for (const crease of ['base', 'ridge']) {
    const grip = gripOf(crease);
    const { low, high } = roomOf(step(), 'step-fold-1', grip.parameter)!.clear!;
    expect(gripLimits(step(), grip).map((l) => l.value)).toEqual(
      [low, high].filter((e) => e.by !== '').map((e) => e.value),
    );
  }
  const spoilt = setParameter(step(), 'step-fold-1', 'depth', 400);
  expect(gripLimits(spoilt, { ...gripOf('base'), parameter: 'nothing' })).toEqual([]);
});

const all = demoCards().flatMap(([file, d]) => d.mechanisms.map((m) => [`${file}, ${m.kind}`, d, m.id] as const));
test.each(all)('lines of %s are where they are held at the number they have', (_, d, id) => {
  const byNumber = new Map(gripsOf(d, id).map((g) => [g.parameter, g]));
  for (const grip of byNumber.values()) {
    const now = gripAt(d, grip, parameterOf(d, id, grip.parameter) as number);
    expect(now).toHaveLength(grip.lines.length);
    const off = now.map(([a, b], k) => Math.max(dist2(a, grip.lines[k].a), dist2(b, grip.lines[k].b)));
    expect(Math.max(...off)).toBe(0);
  }
});
