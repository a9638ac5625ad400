/** Picking lines of a template: what a click, a box, a key and "all like it" pick. */
import { drawnLine, plainTemplate } from '@/core/tests/templates';
import { templateLines } from '@/core/build/template';
import { alikeTo, beside, clicked, inBox, withRole } from './picking';
import { ROLE_KEYS, roleOfKey } from './roleWords';

const template = plainTemplate([
  drawnLine('a', 'cut', false, [0, 0], [30, 0]),
  drawnLine('b', 'cut', false, [0, 10], [30.49, 10]),
  drawnLine('c', 'cut', false, [0, 20], [30.51, 20]),
  drawnLine('d', 'valley', false, [0, 30], [30, 30]),
]);
const lines = templateLines(template);

test('a click picks one; with Shift it adds, and takes away again', () => {
  expect(clicked(['a', 'b'], 'c', false)).toEqual(['c']);
  expect(clicked(['a'], 'c', true)).toEqual(['a', 'c']);
  expect(clicked(['a', 'c'], 'a', true)).toEqual(['c']);
});

test('a box picks what lies in it wholly, whichever corner it was begun at', () => {
  expect(inBox(lines, [-1, -1], [30, 10])).toEqual(['a']);
  expect(inBox(lines, [31, 30], [0, 0])).toEqual(['a', 'b', 'c', 'd']);
  expect(inBox(lines, [0.01, -1], [40, 40])).toEqual([]);
});

test('all like a line are drawn as it is, and as long to half a millimetre: just below it and just above', () => {
  expect(alikeTo(template, lines, ['a'])).toEqual(['a', 'b']);
  expect(alikeTo(template, lines, ['d', 'c'])).toEqual(['b', 'c', 'd']);
});

test('keys go round the lines, and each role has one of its own', () => {
  expect([beside(lines, [], 1), beside(lines, ['d'], 1), beside(lines, ['b'], -1)]).toEqual(['a', 'a', 'a']);
  expect(new Set(Object.values(ROLE_KEYS)).size).toBe(Object.keys(ROLE_KEYS).length);
  for (const [role, key] of Object.entries(ROLE_KEYS)) expect(roleOfKey(key.toUpperCase())).toBe(role);
  expect(roleOfKey('x')).toBeUndefined();
});

test('a role is given to all that is picked, and to nothing else; of a row of dashes to every one', () => {
  const changed = templateLines(withRole(template, lines, ['a', 'c'], 'mountain'));
  expect(changed.map((l) => l.role)).toEqual(['mountain', 'cut', 'mountain', 'valley']);
  const row = [{ ...lines[0], joined: ['a', 'b'] }];
  expect(withRole(template, row, ['a'], 'mark').picked).toEqual({ a: 'mark', b: 'mark' });
});
