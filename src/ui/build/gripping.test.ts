import fc from 'fast-check';
import { dragged, keyStep, typedOn, type Dragging } from './gripping';

const drag = (change: Partial<Dragging> = {}): Dragging => ({
  start: 20,
  way: [0, 0.5],
  snaps: [],
  within: 0.2,
  parameter: { unit: 'mm', min: 1, max: 100 },
  unit: 'mm',
  ...change,
});

test('a line that goes half as far as its number follows the pointer', () =>
  fc.assert(
    fc.property(fc.double({ min: -9, max: 30, noNaN: true }), (dy) => {
      const { value } = dragged([3, dy], drag());
      expect(Math.abs(value - (20 + 2 * dy))).toBeLessThanOrEqual(0.2);
    }),
  ));
test('it rests on whole millimetres, and on sixteenths of an inch', () => {
  expect(dragged([0, 2.54], drag()).value).toBe(25);
  const inches = dragged([0, 1.6], drag({ unit: 'in', start: 25.4 })).value;
  expect((inches / 25.4) * 16).toBeCloseTo(18, 9);
});
test('between those it is told to a tenth', () => expect(dragged([0, 2.28], drag()).value).toBe(24.6));
test('near something it would line up with it does, and says with what', () => {
  const snaps = [{ by: 6.13, name: 'gutter' }];
  expect(dragged([0, 3], drag({ snaps }))).toEqual({ value: 26.13, at: 'gutter' });
  expect(dragged([0, 2.9], drag({ snaps })).at).toBeNull();
});
test('it goes no further than its field allows', () => {
  expect(dragged([0, 400], drag()).value).toBe(100);
  expect(dragged([0, -400], drag()).value).toBe(1);
});
test('arrow keys step by a whole mark, by ten and by a tenth', () => {
  const key = (k: string, more = {}) =>
    keyStep({ key: k, shiftKey: false, altKey: false, ...more }, { unit: 'mm' }, 'mm');
  expect([key('ArrowUp'), key('ArrowLeft'), key('ArrowRight', { shiftKey: true }), key('a')]).toEqual([
    1,
    -1,
    10,
    null,
  ]);
  expect(key('ArrowDown', { altKey: true })).toBeCloseTo(-0.1);
});
test('typing builds a number up, and nothing else', () => {
  expect(['1', ' ', '3', '/', '8', 'q', 'Backspace'].reduce((t, k) => typedOn(t, k) ?? t, '')).toBe('1 3/');
});
