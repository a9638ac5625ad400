/** The command line that decides: study, target, batch, and their parts. */
import { readFileSync, writeFileSync } from 'node:fs';
import { run } from './run';
import { at, ok, refused } from './tests/command';

beforeAll(() =>
  ok('new', at('step.json'), '--card', '160x100', '--kind', 'step-fold', 'depth=60', 'height=39', 'width=50'),
);
const text = async (...args: string[]): Promise<string> => (await run(args)).out!;

describe('study', () => {
  const ask = ['--made', '60', '--seed', '4'];
  test('tells how often it comes out well, and what matters', async () => {
    const told = await ok('study', at('step.json'), ...ask, '--cut', '0', '--fold', '0');
    expect(told).toMatchObject({ made: 60, seed: 4, scatter: { cut_mm: 0, score_mm: 0.25, fold_deg: 0 } });
    expect(told.most_sensitive).toEqual([
      { what: 'scoring: base of Step', step: 'score', id: 'step-fold-1.base', share_pct: 50 },
      { what: 'scoring: wall of Step', step: 'score', id: 'step-fold-1.wall', share_pct: 50 },
    ]);
    expect(told.overhang_mm.p50).toBeLessThan(told.overhang_mm.p95);
    expect(told.worst.map((w: { of: string }) => w.of)).toEqual(['overhang', 'closing', 'binding', 'edges']);
  });

  test('parts joined are the whole, to the byte, in any order', async () => {
    for (const k of [1, 2, 3])
      writeFileSync(at(`s${k}.json`), await text('study', at('step.json'), ...ask, '--part', `${k}/3`));
    const whole = await text('study', at('step.json'), ...ask);
    expect(await text('study', '--join', at('s3.json'), at('s1.json'), at('s2.json'))).toBe(whole);
    expect(await refused('study', '--join', at('s3.json'), at('s1.json'))).toMatch(/not all the parts/);
    expect(await refused('study', '--join', at('step.json'))).toMatch(/is not what study --part writes/);
    expect(await refused('study', '--join')).toMatch(/--join wants the files/);
  });

  test.each([
    [['--made', '0'], /--made is "0"; it must be a whole number from 1/],
    [['--score', '9'], /--score is "9"; it must be a number from 0 to 5/],
    [['--part', '4/3'], /--part is "4\/3"; it must be K\/N/],
    [['--part', '0/3'], /--part is "0\/3"/],
  ])('refuses %j in one line', async (args, why) => {
    expect(await refused('study', at('step.json'), ...args)).toMatch(why);
  });
});

describe('target', () => {
  const free = ['--free', 'step-fold-1.height=10..60'];
  test('finds the closed form, and says it as parameters and measures', async () => {
    const told = await ok('target', at('step.json'), '--want', 'step-fold-1.ridge_z=31.4@90', ...free);
    expect(told.found).toEqual([
      {
        parameters: { 'step-fold-1': { height: 31.4 } },
        measures: { 'step-fold-1': { ridge_z: 31.4 } },
        verdict: 'clear',
      },
    ]);
    expect([told.nearest, told.against]).toEqual([null, []]);
  });

  test('finds nothing where there is nothing, with code 3', async () => {
    const { code, out } = await run(['target', at('step.json'), '--want', 'card.lift_mm=80', ...free]);
    expect(code).toBe(3);
    const told = JSON.parse(out!);
    expect(told.found).toEqual([]);
    expect(told.nearest.parameters['step-fold-1'].height).toBeGreaterThan(20);
    expect(told.against.length).toBeGreaterThan(0);
  });

  test('in a state that is named, or that a hand makes', async () => {
    await ok('new', at('tab.json'), '--card', '200x140', '--kind', 'lift-tab', '--on', 'leafB', 'lower=30', 'upper=40');
    const tab = (state: string, ...more: string[]): Promise<string> =>
      text('target', at('tab.json'), '--want', `lift-tab-1.lift_mm>=5@${state}`, '--free', 'lift-tab-1.width', ...more);
    const found = (out: string) => JSON.parse(out).found[0]?.measures['lift-tab-1'];
    // Closed, nothing is pulled.
    expect(found(await tab('post'))).toBeUndefined();
    const lift = found(await tab('90,lift-tab-1.pull=12')).lift_mm;
    // A triangle of 30, 40 and 58.
    expect(lift).toBeCloseTo((2 * Math.sqrt(64 * 34 * 24 * 6)) / 58, 6);
    expect(found(await tab('pull=12')).lift_mm).toBe(lift);
    const both = found(await tab('90,pull=12', '--want', 'lift-tab-1.lift_mm>=1@60,pull=3'));
    expect(Object.keys(both)).toEqual(['lift_mm@90,lift-tab-1.pull=12', 'lift_mm@60,lift-tab-1.pull=3']);
  });

  test('parts joined are the whole, to the byte', async () => {
    const ask = ['target', at('step.json'), '--want', 'card.lift_mm=max', '--want', 'step-fold-1.room_mm>=5', ...free];
    for (const k of [1, 2]) writeFileSync(at(`t${k}.json`), await text(...ask, '--part', `${k}/2`));
    expect(await text('target', '--join', at('t2.json'), at('t1.json'))).toBe(await text(...ask));
    expect(await refused('target', '--join', at('t1.json'))).toMatch(/not all the parts/);
  });

  test.each([
    [['--want', 'step-fold-1.ridge_q=3'], /it has no such measure at 90°; it has .*ridge_z/],
    [['--want', 'nobody.ridge_z=3'], /there is no mechanism "nobody"; there are card, step-fold-1/],
    [['--want', 'ridge=3'], /must be MECH\.MEASURE=VALUE/],
    [['--want', 'step-fold-1.ridge_z=ell'], /--want/],
    [['--want', 'step-fold-1.ridge_z=3@200'], /--open is "200"/],
    [['--want', 'step-fold-1.ridge_z=3@moon'], /--want .*has no state of that name; it has "post"/],
    [['--want', 'step-fold-1.ridge_z=3@90,pull=3'], /--want .*has no drive "pull"; it has open/],
    [['--want', 'step-fold-1.ridge_z=3@90,60'], /after @ comes one opening/],
    [[], /--want is missing/],
  ])('refuses %j in one line', async (args, why) => {
    expect(await refused('target', at('step.json'), ...args, ...free)).toMatch(why);
  });
  test.each([
    ['step-fold-1.ell', /has no number "ell"/],
    ['step-fold-1.height=60..10', /it must go upwards/],
    ['height', /must be MECH\.KEY/],
  ])('refuses --free %s in one line', async (given, why) => {
    const wanted = ['--want', 'step-fold-1.ridge_z=31'];
    expect(await refused('target', at('step.json'), ...wanted, '--free', given)).toMatch(why);
    expect(await refused('target', at('step.json'), ...wanted)).toMatch(/--free is missing/);
  });
});

describe('batch', () => {
  const card = (): string => JSON.stringify(JSON.parse(readFileSync(at('step.json'), 'utf8')));
  const lines = (): string =>
    [
      JSON.stringify({ id: 'file', file: at('step.json') }),
      card(),
      '',
      '{"id": 7, "card": {}}',
      'no json',
      '[]',
      JSON.stringify({ id: 'inside', card: JSON.parse(card()) }),
      JSON.stringify({ id: 'gone', file: at('gone.json') }),
    ].join('\n');
  const told = (out: string) =>
    out
      .trim()
      .split('\n')
      .map((l) => JSON.parse(l));

  test('one line out for each line in, in order, whatever is wrong with some', async () => {
    writeFileSync(at('lines.txt'), lines());
    const out = told(await text('batch', 'prove', '--from', at('lines.txt')));
    expect(out.map((o) => [o.line, o.id, o.code])).toEqual([
      [1, 'file', 0],
      [2, undefined, 0],
      [4, '7', 2],
      [5, undefined, undefined],
      [6, undefined, undefined],
      [7, 'inside', 0],
      [8, 'gone', 2],
    ]);
    expect(out[0].result).toEqual(out[1].result);
    expect(out[0].result).toEqual(await ok('prove', at('step.json')));
    expect(out[2].error).toMatch(/line 4: "rhabdoplex" is missing/);
    expect(out[3].error).toMatch(/not JSON/);
  });

  test('options go to the verb, and parts joined are the whole, to the byte', async () => {
    writeFileSync(at('lines.txt'), lines());
    const ask = ['batch', 'pose', '--open', '70', '--from', at('lines.txt')];
    const whole = await text(...ask);
    expect(told(whole)[0].result).toEqual(await ok('pose', at('step.json'), '--open', '70'));
    for (const k of [1, 2, 3]) writeFileSync(at(`b${k}.txt`), await text(...ask, '--part', `${k}/3`));
    expect(await text('batch', '--join', at('b2.txt'), at('b3.txt'), at('b1.txt'))).toBe(whole);
    expect(await refused('batch', '--join', at('b2.txt'), at('b2.txt'))).toMatch(/is there twice/);
    expect(await refused('batch', '--join', at('step.json'))).toMatch(/is not what batch writes/);
  });

  test('only verbs that answer for one card', async () => {
    expect(await refused('batch', 'kinds')).toMatch(/batch is for prove, pose, cutlist, study, target/);
  });
});
