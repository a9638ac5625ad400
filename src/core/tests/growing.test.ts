/** The measure of growth, on times made up from a power of n. */
import { exponentOf } from '../../../fuzz/exponent';
import { GROWING } from '../../../fuzz/growing';
import { faultOf } from '../../../fuzz/inputs';
import { shelveFonts } from '../../fonts/shelve';

const taking = (of: (n: number) => number) => [1, 2, 4, 8, 16].map((n) => ({ n, ms: of(n) }));

test('a power is found again, whatever it is', () => {
  for (const power of [0, 1, 1.3, 2]) expect(exponentOf(taking((n) => 100 * n ** power))).toBeCloseTo(power, 9);
});
test('the steepest part counts, and times too short to be measured do not', () => {
  expect(exponentOf(taking((n) => (n < 4 ? 100 : 100 * (n / 4) ** 2)))).toBeCloseTo(2, 9);
  expect(exponentOf(taking((n) => n ** 1.2))).toBeNull();
});
test('every growing input is read or refused with a reason at its shortest', () => {
  shelveFonts();
  expect(new Set(GROWING.map((g) => g.name)).size).toBe(GROWING.length);
  // Files to cut are cut to their end, which is work of its own: the simulated cutter's tests have those.
  for (const { name, kind, from, text } of GROWING.filter((g) => !g.kind.startsWith('cut')))
    expect([name, faultOf({ kind, text: text(from) })?.message ?? null]).toEqual([name, null]);
}, 300_000);
