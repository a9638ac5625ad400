/** What a hand picks, carries, measures and draws on the flat view, against designs that are put together anew. */
import { buildAssembly } from '@/core/build/build';
import { ownHoldOf } from '@/core/build/own-ends';
import { poseAt } from '@/core/assembly/pose';
import type { Design } from '@/core/document/design';
import { checkDesign } from '@/core/document/schema';
import type { OwnLine, ParameterValues } from '@/core/kinds';
import { card, stand } from '@/core/tests/cards';
import { sceneOf } from '@/workers/scene';
import type { Scene, ScenePose } from '@/workers/protocol';
import { carried, mayGoOnto } from './carrying';
import { groundOn, withLine } from './drawing-lines';
import { measureBetween } from './measuring';
import { aroundNow, fromFrame, inFrame, onGrid, ownAxes, pickAt, spotOf } from './picking';

const sceneFor = (design: Design): Scene => ({ ...sceneOf(design, buildAssembly(design)), design });
const posed = (design: Design, open: number): ScenePose => {
  const { placed } = poseAt(buildAssembly(design), { open });
  return { placed: Float64Array.from(placed.flatMap((m) => [...m])) } as unknown as ScenePose;
};
const step = stand(card(), 'step-fold', { depth: 30, height: 20, width: 40 });
const plainPick = (scene: Scene, at: readonly [number, number], within = 2) =>
  pickAt(scene, { around: aroundNow(scene, 'card'), frame: ownAxes('card') }, at, within);

describe('picking', () => {
  const scene = sceneFor(step);
  test('takes points before lines, and nothing out of reach', () => {
    expect(plainPick(scene, [-99.4, 0.8])).toMatchObject({ name: 'start of the gutter', at: [-100, 0] });
    expect(plainPick(scene, [-60, 0.8])).toMatchObject({ name: 'on the gutter', spot: { of: 'card.gutter', at: 0.2 } });
    expect(plainPick(scene, [99, 99])).toMatchObject({ name: 'upper right of the back', at: [100, 100] });
    expect(plainPick(scene, [-60, 9])).toMatchObject({ name: null, at: [-60, 9] });
    expect(plainPick(scene, [-60, 9], 0)).toMatchObject({ name: null });
  });
  test('what is led away from a place is not held by that place, nor by lines through it', () => {
    const picking = { around: aroundNow(scene, 'card'), frame: ownAxes('card') };
    const from = (leaving: readonly [number, number], at: readonly [number, number]) =>
      pickAt(scene, { ...picking, leaving }, at, 2);
    expect(plainPick(scene, [-99, 1]).name).toBe('start of the gutter');
    expect(from([-100, 0], [-99, 1])).toMatchObject({ name: null, at: [-99, 1] });
    expect(from([-100, 0], [-60, 1])).toMatchObject({ name: null, at: [-60, 1] });
    expect(from([-100, 0.5], [-60, 1]).name).toBe('on the gutter');
    expect(from([-100, 0], [99, 99]).name).toBe('upper right of the back');
  });
  test('a free place is told by whole millimetres in the axes it is drawn in', () => {
    const frame = { piece: 'card', origin: [10, 5], x: [0, 1], y: [-1, 0] } as const;
    expect(onGrid([3.3, 9.4], frame)).toEqual([3, 9]);
    expect(spotOf({ piece: 'card', at: [3, 9], name: null }, frame)).toEqual({ x: 4, y: 7 });
    expect(fromFrame(inFrame([3.3, 9.4], frame), frame)).toEqual([3.3, 9.4]);
  });
});

describe('a line that is drawn', () => {
  /** Draws from one place to another on the card, as the view does, and tells where the line came to lie. */
  function drawn(design: Design, selected: string, from: readonly [number, number], to: readonly [number, number]) {
    const scene = sceneFor(design);
    const ground = groundOn(scene, 'card', selected)!;
    const known = ownHoldOf(design, ground.id ?? '').around.find((a) => a.piece === 'card');
    const picking = { around: known ?? aroundNow(scene, 'card'), frame: ground.frame };
    const [a, b] = [from, to].map((p) => pickAt(scene, picking, p, 2));
    const way = { from: spotOf(a, ground.frame), to: spotOf(b, ground.frame) };
    const next = withLine(design, ground, 'valley', way);
    expect(checkDesign(JSON.parse(JSON.stringify(next.design))).ok).toBe(true);
    const name = (next.design.mechanisms.at(-1)!.parameters.lines as readonly OwnLine[]).at(-1)!.name;
    const crease = buildAssembly(next.design)
      .pieces.flatMap((p) => p.creases)
      .find((c) => c.id === `${next.id}.${name}`);
    return { ...next, crease, picked: [a, b] };
  }
  const near = (found: readonly number[], wanted: readonly number[]) =>
    found.forEach((v, k) => expect(v).toBeCloseTo(wanted[k], 6));

  test('lies where it was pointed at, on a plain card', () => {
    const { crease, id } = drawn(card(), 'card', [-99, 99], [0.5, 0.5]);
    expect(id).toBe('own-lines-1');
    near([...crease!.a, ...crease!.b], [-100, 100, 0, 0]);
  });
  test('a second one hangs on the first by its name, and on the leaf as it was before', () => {
    const first = drawn(card(), 'card', [-99, 60], [99, 60]);
    const second = drawn(first.design, first.id, [-99.5, 60.4], [99, 99]);
    expect(second.picked[0].spot).toEqual({ of: 'fold', at: 'start' });
    near([...second.crease!.a, ...second.crease!.b], [-100, 60, 100, 100]);
    expect(buildAssembly(second.design).misfits.filter((m) => m.kind === 'unheld')).toEqual([]);
  });
  test('on a crease that runs slantwise, corners are those that were pointed at', () => {
    const slanted = stand(card(), 'own-lines', {
      numbers: [],
      lines: [{ name: 'slope', role: 'valley', from: { x: -100, y: 20 }, to: { x: 100, y: 80 } }],
    } as unknown as ParameterValues);
    const on = stand(
      slanted,
      'own-lines',
      { numbers: [], lines: [] } as unknown as ParameterValues,
      'own-lines-1.slope',
    );
    const { crease, picked } = drawn(on, 'own-lines-2', [99.5, 99.5], [-99.5, 99.5]);
    [...crease!.a, ...crease!.b].forEach((v, k) => expect(v).toBeCloseTo([...picked[0].at, ...picked[1].at][k], 3));
    expect(picked.map((p) => p.at)).toEqual([
      [100, 100],
      [-100, 100],
    ]);
  });
});

describe('what is carried', () => {
  const scene = sceneFor(step);
  const carry = {
    id: 'step-fold-1',
    piece: 'card',
    by: [15.2, 40] as const,
    at: [0, 0] as const,
    onto: null,
    copy: false,
  };
  test('goes along its crease by as much as the hand does along it, to half a millimetre', () => {
    expect(carried(step, scene, carry).mechanisms[0].parameters.offset).toBe(15);
  });
  test('a copy leaves the first where it is', () => {
    const next = carried(step, scene, { ...carry, copy: true });
    expect(next.mechanisms.map((m) => [m.id, m.parameters.offset ?? 0])).toEqual([
      ['step-fold-1', 0],
      ['step-fold-2', 15],
    ]);
  });
  test('onto another crease its middle lies under the hand, and never onto itself', () => {
    const two = stand(step, 'step-fold', { depth: 6, height: 6, width: 10 });
    const next = carried(two, sceneFor(two), {
      ...carry,
      id: 'step-fold-2',
      onto: 'step-fold-1.ridge',
      at: [8, 10],
    });
    expect(next.mechanisms[1]).toMatchObject({ on: 'step-fold-1.ridge', parameters: { offset: 8 } });
    expect(mayGoOnto(two, 'step-fold-1', 'step-fold-1.ridge')).toBe(false);
    expect(mayGoOnto(two, 'step-fold-2', 'card.gutter')).toBe(false);
    expect(mayGoOnto(two, 'step-fold-2', 'step-fold-1.ridge')).toBe(true);
  });
  test('on a face it goes both ways', () => {
    const d = stand(card(), 'pocket', {});
    const before = d.mechanisms[0].mount!;
    const { right, up } = sceneFor(d).axes['pocket-1'];
    const by = [right[0] * 3 + up[0] * 7, right[1] * 3 + up[1] * 7] as const;
    const piece = sceneFor(d).axes['pocket-1'].piece;
    const { mount } = carried(d, sceneFor(d), { ...carry, id: 'pocket-1', piece, by }).mechanisms[0];
    expect([mount!.x - before.x, mount!.y - before.y]).toEqual([3, 7]);
  });
});

describe('measuring', () => {
  const d = card(200, 100);
  const scene = sceneFor(d);
  test.each([0, 60, 90, 180])('two fore edges of a card opened to %d° lie as far apart as a chord says', (open) => {
    const [a, b] = [plainPick(scene, [0, 100]), plainPick(scene, [0, -100])];
    const { flatMm, trueMm } = measureBetween(scene, posed(d, open), a, b);
    expect(flatMm).toBeCloseTo(200, 6);
    expect(trueMm).toBeCloseTo(200 * Math.sin((open / 2) * (Math.PI / 180)), 6);
  });
  test('parallel lines are as far apart as they lie, whatever place of them was pointed at', () => {
    const [a, b] = [plainPick(scene, [-60, 0.5]), plainPick(scene, [30, 99.5])];
    expect(measureBetween(scene, null, a, b)).toMatchObject({ flatMm: expect.closeTo(100, 6), trueMm: null });
  });
  test('lines across each other have an angle, flat and as the card stands', () => {
    const [a, b] = [plainPick(scene, [-60, 0.5]), plainPick(scene, [99.5, 30])];
    const found = measureBetween(scene, posed(d, 90), a, b);
    expect(found.flatDeg).toBeCloseTo(90, 6);
    expect(found.trueDeg).toBeCloseTo(90, 6);
  });
});
