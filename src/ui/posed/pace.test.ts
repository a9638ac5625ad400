import { LEVELS, Pace } from './pace';

/** Frames of a machine that needs so many ms for a whole frame, and its part of that for a level. */
function drive(pace: Pace, frames: number, whole: number): number {
  const cost = [1, 0.6, 0.4, 0.3, 0.2];
  let [now, level] = [0, 0];
  for (let k = 0; k < frames; k++) level = pace.frame((now += whole * cost[level]));
  return level;
}

test('a quick machine draws everything', () => expect(drive(new Pace(), 200, 9)).toBe(0));
test('a slow one steps back until it keeps up, and no further', () => {
  expect(drive(new Pace(), 40, 40)).toBe(1);
  expect(drive(new Pace(), 60, 400)).toBe(LEVELS.length - 1);
});
test('it goes on from there, and a pause counts for nothing', () => {
  const pace = new Pace();
  expect(drive(pace, 60, 80)).toBe(3);
  pace.rest();
  expect(pace.frame(10_000)).toBe(3);
  expect(pace.frame(20_000)).toBe(3);
});
test('one long frame is no reason, unless it is a crawl', () => {
  const pace = new Pace();
  let now = 0;
  for (let k = 0; k < 50; k++) expect(pace.frame((now += k % 10 === 0 ? 60 : 9))).toBe(0);
  expect(pace.frame((now += 120))).toBe(1);
});
test('where it has become quick it draws more again', () => {
  const pace = new Pace();
  drive(pace, 60, 80);
  let [now, level] = [0, 3];
  for (let k = 0; k < 300; k++) level = pace.frame((now += 8));
  expect(level).toBe(0);
});
