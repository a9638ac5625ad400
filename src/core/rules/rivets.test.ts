/** Heads of rivets beside openings that are cut by hand; what holds is sampled here, with no geometry of the core's. */
import fc from 'fast-check';
import type { Design } from '../document/design';
import { gather } from '../proof/prove';
import { card, layered, stand } from '../tests/cards';
import { rivetsHold } from './rivets';

/** A square window of 10 mm on a facet, its middle so far from that of the facet. */
const windowed = (d: Design, facet: string, x: number, y: number): Design =>
  layered(d, { facet, shape: { rect: { width: 10, height: 10 } }, as: 'window', x, y });
const KINDS: readonly (readonly [kind: string, facet: string])[] = [
  ['volvelle', 'volvelle-1.front'],
  ['carrier-wheel', 'carrier-wheel-1.wheel'],
];
/** Of either kind, whose rivet goes through the middle of that facet. */
const [HEAD_MM, HOLE_MM] = [4, 1.5];
const told = (d: Design) => rivetsHold.check(gather(d, 'pattern', 2));

describe.each(KINDS)('%s', (kind, facet) => {
  const plain = stand(card(220, 170), kind, {});
  test('its own holes are no openings', () => expect(told(plain)).toEqual([]));
  test('just beside the head, at it, and just under it', () => {
    expect(told(windowed(plain, facet, 9.001, 0))).toEqual([]);
    expect(told(windowed(plain, facet, 9, 0))).toEqual([]);
    const [found] = told(windowed(plain, facet, 8.98, 0));
    expect([found.severity, found.measured.toFixed(3)]).toEqual(['risk', '0.020']);
  });
  test('where its hole opens into the window it reaches in whole; where no paper is left it falls through', () => {
    expect(told(windowed(plain, facet, 6, 0))[0]).toMatchObject({ severity: 'risk', measured: HEAD_MM });
    expect(told(windowed(plain, facet, 0, 0))[0]).toMatchObject({ severity: 'blocks', measured: HEAD_MM });
  });
  test('wherever the window is: held against points all over the head', () => {
    const place = fc.double({ min: -11, max: 11, noNaN: true });
    fc.assert(
      fc.property(place, place, (x, y) => {
        const isCut = (px: number, py: number): boolean => Math.abs(px - x) < 5 && Math.abs(py - y) < 5;
        const turns = Array.from({ length: 720 }, (_, k) => (k * Math.PI) / 360);
        const radii = Array.from({ length: 81 }, (_, k) => (HEAD_MM * k) / 80).filter((r) => r > HOLE_MM);
        const bare = radii.filter((r) => turns.some((t) => isCut(r * Math.cos(t), r * Math.sin(t))));
        const found = told(windowed(plain, facet, x, y));
        // Between what is sampled nothing is said of it.
        const close = Math.min(Math.abs(Math.hypot(Math.max(0, Math.abs(x) - 5), Math.max(0, Math.abs(y) - 5)) - 4), 1);
        if (close < 0.1) return;
        expect(found.length).toBe(bare.length > 0 ? 1 : 0);
        if (found.length === 0) return;
        const rim = turns.every((t) => isCut(3.999 * Math.cos(t), 3.999 * Math.sin(t)));
        expect(found[0].severity).toBe(rim ? 'blocks' : 'risk');
        if (bare[0] > HOLE_MM + 0.1) expect(Math.abs(found[0].measured - (HEAD_MM - bare[0]))).toBeLessThan(0.06);
      }),
      { numRuns: 25 },
    );
  });
});
