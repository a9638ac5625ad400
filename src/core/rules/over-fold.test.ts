/**
 * What is fixed over the fold of something else keeps it from turning; what lies beside that fold is only pressed. The
 * limit is the fold itself: known from plane geometry (the panel turns about it).
 */
import { CENTRE, type Design } from '../document/design';
import { addMechanism } from '../document/standing';
import { gather, prove, setLever } from '../proof/prove';
import { card, findings, stand } from '../tests/cards';
import { metAtDeg, overFolds } from './over-fold';

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

describe('what only lies there: an insert that stands out of its pocket, not stuck to the leaf', () => {
  // On leaf A, turned so that it stands out towards the fold: at x = 3.31 it laps the end of the band by 5.625 mm.
  const AT_X = 3.31;
  const LAPS = 5.625;
  const insert = (acrossMm: number): Design => {
    const plain = card(190, 139.46, 138.73);
    const band = stand({ ...plain, card: { ...plain.card, stock: 'card-240' } }, 'floating-band', {
      ...{ slit: 84.49, offset: -42.79 },
    });
    return addMechanism(
      band,
      'pocket',
      { on: 'leafA', mount: { ...CENTRE, side: 'inside', x: AT_X + LAPS - acrossMm, y: 10.33, turnDeg: 90 } },
      {
        ...{ width: 125.73, height: 55.5, tape: 10.19, insertWidth: 76.14, corner: 2.34, play: 1.3, notch: 9.18 },
        hinge: 7.47,
      },
    ).design;
  };
  const lapped = (d: Design) => overFolds(gather(d, 'closed')).filter((o) => o.lyingMm !== null);
  const met = (d: Design): boolean =>
    findings(d, 'collision').some((f) => f.severity === 'blocks' && /insert of Pocket lies .* across/.test(f.message));

  test('it is measured as far as it was put over the fold (plane geometry)', () => {
    for (const mm of [1, 2.5, 5]) expect(lapped(insert(mm))[0].acrossMm).toBeCloseTo(mm, 6);
  });
  test('over the fold by more than the paper is thick it is in the way; at that, and beside the fold, not', () => {
    // Card of 0.3 mm, and 0.05 mm within which paper only touches.
    expect([5.6, 1, 0.36].map((mm) => met(insert(mm)))).toEqual([true, true, true]);
    expect([0.34, 0.3, 0, -0.5, -3].map((mm) => met(insert(mm)))).toEqual([false, false, false, false, false]);
  });
  test('a panel meets it once its height over the leaf, seen along the fold, is reached (a right triangle)', () => {
    for (const mm of [1, 3]) {
      const [over] = lapped(insert(mm));
      expect(over.lyingMm).toBeCloseTo(0.3, 6);
      expect(Math.tan((metAtDeg(over) * Math.PI) / 180)).toBeCloseTo(0.3 / mm, 6);
    }
  });
  test('moved further along it clears, and nothing new blocks', () => {
    const proof = prove(insert(4));
    const finding = proof.findings.find((f) => /insert of Pocket lies/.test(f.message))!;
    expect(finding.remedies!.length).toBeGreaterThan(0);
    const [{ mechanism, parameter, value }] = finding.remedies!;
    const after = prove(setLever(insert(4), mechanism, parameter, value)).findings;
    expect(after.filter((f) => f.severity === 'blocks')).toEqual([]);
  });
});
