/** A kind that no file names: a step of one size, to see that nothing but the list of kinds has to know of one. */
import { KINDS, type CreaseKind, type Kind } from '../kinds';

export const toyKind: CreaseKind = {
  ...(KINDS.get('step-fold') as CreaseKind),
  id: 'toy-box',
  title: 'Toy box',
  says: 'A box for trying out.',
  sign: 'M2 2 H14 V14 H2 Z',
  fitting: ({ lengthMm }, whole) => ({ depth: 12, height: 12, width: whole(lengthMm * 0.1, 5) }),
  sizeOf: (v, say) => `toy of ${say(v.depth as number)}`,
};

/** Adds it for as long as a test runs. */
export function withToyKind(): void {
  const kinds = KINDS as Map<string, Kind>;
  beforeAll(() => void kinds.set(toyKind.id, toyKind));
  afterAll(() => void kinds.delete(toyKind.id));
}
