/** WCAG 2.2, success criterion 2.2.2: what moves by itself and longer than five seconds must be stoppable. */
import { foldWhenAsked, restingFrame } from './folding';

const FRAMES = 10;
const FIVE_SECONDS_MS = 5000;

function folding(rounds: number) {
  const target = new EventTarget() as Element;
  const shown: number[] = [];
  let see: () => void = () => undefined;
  const end = foldWhenAsked(target, {
    frames: FRAMES,
    rounds,
    show: (k) => shown.push(k),
    whenSeen: (_, seen) => {
      see = seen;
      return () => (see = () => undefined);
    },
  });
  const after = (ms: number): readonly number[] => {
    shown.length = 0;
    jest.advanceTimersByTime(ms);
    return [...shown];
  };
  return { target, end, after, see: () => see() };
}

beforeEach(() => {
  jest.useFakeTimers();
});
afterEach(() => {
  jest.useRealTimers();
});

test.each([1, 3])('seen, it folds there and back %d times, ends where it rests, within five seconds', (rounds) => {
  const { after, see } = folding(rounds);
  expect(after(60_000)).toEqual([]);
  see();
  const shown = after(FIVE_SECONDS_MS);
  expect(shown).toHaveLength(rounds * (2 * FRAMES - 2));
  expect(shown.at(-1)).toBe(restingFrame(FRAMES));
  expect(new Set(shown)).toEqual(new Set(Array.from({ length: FRAMES }, (_, k) => k)));
  shown.slice(1).forEach((k, i) => expect(Math.abs(k - shown[i])).toBe(1));
  expect(after(60_000)).toEqual([]);
});

test('while it is pointed at it folds, then to the end of its round', () => {
  const { target, after } = folding(0);
  expect(after(FIVE_SECONDS_MS)).toEqual([]);
  target.dispatchEvent(new Event('pointerenter'));
  expect(after(3 * FIVE_SECONDS_MS).length).toBeGreaterThan(100);
  target.dispatchEvent(new Event('pointerleave'));
  const rest = after(FIVE_SECONDS_MS);
  expect(rest.length).toBeLessThan(2 * FRAMES);
  expect(rest.at(-1)).toBe(restingFrame(FRAMES));
  target.dispatchEvent(new Event('pointerenter'));
  expect(after(FIVE_SECONDS_MS).length).toBeGreaterThan(40);
});

test('the focus makes it fold once, each time', () => {
  const { target, after } = folding(0);
  for (let k = 0; k < 2; k++) {
    target.dispatchEvent(new Event('focus'));
    expect(after(FIVE_SECONDS_MS)).toHaveLength(2 * FRAMES - 2);
  }
});

test('ended, or with one frame, it never moves', () => {
  const { target, end, after, see } = folding(1);
  end();
  see();
  target.dispatchEvent(new Event('focus'));
  expect(after(FIVE_SECONDS_MS)).toEqual([]);
  const one = { frames: 1, rounds: 1, show: () => expect(0).toBe(1), whenSeen: () => () => undefined };
  foldWhenAsked(target, one);
  target.dispatchEvent(new Event('focus'));
  jest.advanceTimersByTime(FIVE_SECONDS_MS);
});
