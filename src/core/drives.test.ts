/** States: a value for every drive. Names and meanings of `docs/architecture.md`, drives. */
import fc from 'fast-check';
import { betweenStates, driveNamed, OPENING, restOf, travelStates, within, type Drive } from './drives';

const TURN: Drive = { id: 'disc.turn', label: 'Turn', unit: 'deg', from: 0, to: 360, rest: 0 };
const SLIDE: Drive = { id: 'meteor.slide', label: 'Slide', unit: 'mm', from: 2, to: 42, rest: 5 };
const all = [OPENING, TURN, SLIDE];
const value = fc.double({ min: -1000, max: 1000, noNaN: true });

test('a state is held within every range, and what is not named is at rest', () => {
  fc.assert(
    fc.property(value, value, value, (open, turn, slide) => {
      const state = within(all, { open, 'disc.turn': turn, 'meteor.slide': slide });
      for (const d of all) {
        expect(state[d.id]).toBeGreaterThanOrEqual(d.from);
        expect(state[d.id]).toBeLessThanOrEqual(d.to);
      }
      expect(within(all, state)).toEqual(state);
    }),
  );
  expect(within(all, { open: 30 })).toEqual({ open: 30, 'disc.turn': 0, 'meteor.slide': 5 });
  expect(within(all, { open: 30, gone: 4 })).not.toHaveProperty('gone');
});

test('a travel runs from one end to the other in even steps, the others held', () => {
  const held = { ...restOf(all), open: 90 };
  const states = travelStates(SLIDE, 4, held);
  expect(states.map((s) => s['meteor.slide'])).toEqual([2, 12, 22, 32, 42]);
  for (const s of states) expect(s).toMatchObject({ open: 90, 'disc.turn': 0 });
  expect(betweenStates(states[0], states[1], 0.5)).toEqual({ ...held, 'meteor.slide': 7 });
});

test('a drive is named by its id, or by its end where only one ends so', () => {
  expect(driveNamed(all, 'disc.turn')).toBe(TURN);
  expect(driveNamed(all, 'turn')).toBe(TURN);
  expect(driveNamed(all, 'open')).toBe(OPENING);
  // A level of an easel opens too: `open` alone is still the card.
  expect(driveNamed([...all, { ...OPENING, id: 'level.open' }], 'open')).toBe(OPENING);
  expect(driveNamed([...all, { ...TURN, id: 'wheel.turn' }], 'turn')).toBeNull();
  expect(driveNamed(all, 'urn')).toBeNull();
});
