/** A kind says everything about itself: one that is added while the program runs is known on every floor. */
import { buildAssembly } from '../build/build';
import { fittingParameters } from '../document/fitting';
import { checkDesign } from '../document/schema';
import { addMechanism } from '../document/standing';
import { prove } from '../proof/prove';
import { card, stand } from '../tests/cards';
import { withToyKind } from '../tests/toy-kind';

withToyKind();

test('it starts with its own sizes, passes the door, and is proved', () => {
  const host = { lengthMm: 204, reachA: 100, reachB: 100 };
  expect(fittingParameters('toy-box', host)).toEqual({ deep: 12, tall: 12, wide: 20 });
  const d = addMechanism(card(), 'toy-box', 'card.gutter', fittingParameters('toy-box', host)).design;
  expect(checkDesign(JSON.parse(JSON.stringify(d))).ok).toBe(true);
  expect(d.mechanisms[0]).toMatchObject({ id: 'toy-box-1', name: 'Toy box' });
  expect([...buildAssembly(d).hosts.keys()]).toContain('toy-box-1.ridge');
  expect(prove(d, 6).verdict).toBe('clear');
});

test('remedies turn its own numbers', () => {
  const tall = stand(card(200, 100), 'toy-box', { deep: 60, tall: 50, wide: 40 });
  const [finding] = prove(tall, 6).findings;
  expect(finding).toMatchObject({ rule: 'overhang', mechanism: 'toy-box-1' });
  expect(finding.remedies).toContainEqual({ mechanism: 'toy-box-1', parameter: 'deep', value: 50 });
});

test('a kind that is not there is refused by name', () => {
  const d = stand(card(), 'toy-box', {});
  const other = { ...d, mechanisms: [{ ...d.mechanisms[0], kind: 'toy-ball' }] };
  expect(checkDesign(other)).toMatchObject({ ok: false, why: expect.stringMatching(/kind/) });
});
