/** Planes led from the side; closed form: what stands on a platform stands as high as its plane. */
import { card, stand } from '@/core/tests/cards';
import { planeLed, planesOf, platformBetween, topOf } from './plane-side';

const ID = 'plane-stack-1';
const plane = (depth: number, base: number, height: number) => ({ depth, base, height, width: 40 });
const stack = () =>
  stand(card(200, 120), 'plane-stack', { planes: [plane(60, 0, 30), plane(30, 30, 20), plane(15, 0, 12)] });

test('a top that is led up takes along what stands on its platform, and nothing else', () => {
  const { next, label } = planeLed(stack(), ID, 0, 'top', [99, 41.2]);
  const [first, second, third] = planesOf(next, ID);
  // To halves of a millimetre.
  expect([first.height, first.depth]).toEqual([41, 60]);
  expect([second.base, second.height]).toEqual([topOf(first), 20]);
  expect(third).toEqual(planesOf(stack(), ID)[2]);
  expect(label).toBe('plane 1 height 41');
});

test('a top that stands on a platform is as high as it is above that', () => {
  expect(planesOf(planeLed(stack(), ID, 1, 'top', [0, 55]).next, ID)[1]).toMatchObject({ base: 30, height: 25 });
});

test('a foot sets how far out it stands, and never behind the crease', () => {
  expect(planesOf(planeLed(stack(), ID, 2, 'foot', [22.3, 8]).next, ID)[2]).toMatchObject({ depth: 22.5, height: 12 });
  expect(planesOf(planeLed(stack(), ID, 2, 'foot', [-7, 8]).next, ID)[2].depth).toBe(1);
});

test('a platform goes from the plane further out, and is taken away again', () => {
  const { next, label } = platformBetween(stack(), ID, [2, 0]);
  expect(planesOf(next, ID).map((p) => p.joins)).toEqual([2, null, null]);
  expect(label).toBe('platform from plane 1 to plane 3');
  expect(planesOf(platformBetween(next, ID, [0, 2]).next, ID)[0].joins).toBeNull();
});
