/** What is put on a card lands where nothing blocks it, at the sizes that it is offered with. */
import { buildAssembly } from '../build/build';
import { GUTTER, KINDS } from '../kinds';
import { boxOf } from '../plane/polygon';
import { examine } from '../proof/prove';
import type { LengthUnit } from '../units/length';
import { blankIn, type Design } from './design';
import { baseKindOf, cardValues, setParameter } from './fields';
import { fittingFace, fittingParameters } from './fitting';
import { addMechanism, naturalMount } from './standing';

/** As the sheet of kinds offers it: its face as its reader sees that. */
function landed(card: Design, kind: string, units: LengthUnit): Design {
  const { hosts, facets } = buildAssembly(card);
  const { on, mount } = naturalMount(card, kind);
  if (!mount) {
    const { lengthMm, reachA, reachB } = hosts.get(GUTTER)!;
    return addMechanism(card, kind, GUTTER, fittingParameters(kind, { lengthMm, reachA, reachB }, units)).design;
  }
  const { min, max } = boxOf(facets.find((f) => f.id === on)!.polygon.outer);
  const [x, y] = [max[0] - min[0], max[1] - min[1]];
  const [upX] = baseKindOf(card).up(cardValues(card), on, mount.side);
  const seen = Math.abs(upX) > 0.5 ? { widthMm: y, heightMm: x } : { widthMm: x, heightMm: y };
  return addMechanism(card, kind, { on, mount }, fittingFace(kind, seen, units)).design;
}

describe.each([
  ['side', 'mm', 180, 130],
  ['top', 'mm', 180, 130],
  ['top', 'in', 127, 178],
  ['side', 'mm', 150, 105],
  ['side', 'in', 105, 150],
  ['side', 'mm', 210, 99],
  ['top', 'in', 99, 210],
  ['top', 'mm', 80, 120],
  ['side', 'in', 80, 120],
] as const)('ready to cut on a card folded at its %s, in %s, %d by %d mm', (fold, units, gutter, reach) => {
  const card = setParameter(blankIn(units, 'Card', gutter, reach), 'card', 'fold', fold);
  test.each([...KINDS.keys()].filter((id) => id !== 'own-lines'))('%s', (kind) => {
    const found = examine(landed(card, kind, units), 12).findings.filter((f) => f.severity !== 'note');
    // Whether it fits the sheet is asked of the card's size, not of where it lands.
    expect(found.filter((f) => f.rule !== 'sheet-fit').map((f) => f.message)).toEqual([]);
  });
});

test('inside a card folded at its top it goes on the leaf before its reader, inside others on the right one', () => {
  const on = (fold: string) => naturalMount(setParameter(blankIn('mm', 'Card'), 'card', 'fold', fold), 'waterfall').on;
  expect([on('top'), on('side')]).toEqual(['leafA', 'leafB']);
});
