/** A kind that no file names, with numbers of its own: nothing but the list of kinds has to know of one. */
import { KINDS, num, type CreaseKind, type Kind, type Parameter } from '../kinds';

const step = KINDS.get('step-fold') as CreaseKind;
const OWN: Readonly<Record<string, string>> = { depth: 'deep', height: 'tall', width: 'wide' };
const renamed = (p: Parameter): Parameter => ({ ...p, key: OWN[p.key] });

export const toyKind: CreaseKind = {
  ...step,
  id: 'toy-box',
  title: 'Toy box',
  says: 'A box for trying out.',
  sign: 'M2 2 H14 V14 H2 Z',
  parameters: step.parameters.filter((p) => OWN[p.key]).map(renamed),
  fitting: ({ lengthMm }, whole) => ({ deep: 12, tall: 12, wide: whole(lengthMm * 0.1, 5) }),
  turns: () => ({ away: ['deep', 'tall'], along: ['wide'] }),
  sizeOf: (v, say) => `toy of ${say(num(v, 'deep'))}`,
  build: (values, context) => {
    const defaults = Object.fromEntries(step.parameters.map((p) => [p.key, p.default]));
    const own = Object.fromEntries(Object.entries(OWN).map(([key, name]) => [key, values[name]]));
    return step.build({ ...defaults, ...own }, context);
  },
};

/** Adds it for as long as a test runs. */
export function withToyKind(): void {
  const kinds = KINDS as Map<string, Kind>;
  beforeAll(() => void kinds.set(toyKind.id, toyKind));
  afterAll(() => void kinds.delete(toyKind.id));
}
