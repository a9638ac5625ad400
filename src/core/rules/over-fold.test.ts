/**
 * What is fixed over the fold of something else keeps it from turning; what lies beside that fold is only pressed. The
 * limit is the fold itself: known from plane geometry (the panel turns about it).
 */
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { card, findings, stand } from '../tests/cards';

/** A glued step whose base fold lies 20 mm up leaf A, and a pocket on that leaf; unequal leaves. */
const AT = 20;
/** Read with the fold upright, the pocket is as long away from that as it is wide. */
const POCKET = 60;
function over(foldMm: number): Design {
  const plain = card(190, 130, 110);
  const step = stand({ ...plain, card: { ...plain.card, stock: 'card-240' } }, 'step-fold', {
    ...{ build: 'glued', depth: AT, height: 40, width: 50 },
  });
  // Its foot comes `foldMm` below the fold; leaf A reaches from 0 to 130.
  const x = AT - foldMm + POCKET / 2 - 130 / 2;
  return addMechanism(
    step,
    'pocket',
    { on: 'leafA', mount: { ...CENTRE, side: 'inside', x } },
    { width: POCKET, height: 36, insertWidth: 40, insertHeight: 30, notch: 9 },
  ).design;
}
const met = (d: Design): boolean =>
  findings(d, 'collision').some((f) => f.severity === 'blocks' && /Pocket/.test(f.message) && /Step/.test(f.message));

test('a pocket stuck over the fold of a step by more than the paper is thick is in its way', () => {
  expect([1.2, 2, 5, 10].map((mm) => met(over(mm)))).toEqual([true, true, true, true]);
});

test('at the fold, and beside it, the step turns freely', () => {
  expect([0, -0.5, -2, -6].map((mm) => met(over(mm)))).toEqual([false, false, false, false]);
});
