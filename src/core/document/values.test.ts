/** Lengths and angles inside shapes, lists and ways, as text: read as a field reads them (an inch is 25.4 mm, 1959). */
import { KINDS } from '../kinds';
import { readValue } from './values';
import type { LengthUnit } from '../units/length';

const parameterOf = (kind: string, key: string) => KINDS.get(kind)!.parameters.find((p) => p.key === key)!;
const read = (kind: string, key: string, text: string, unit: LengthUnit = 'mm') =>
  readValue(parameterOf(kind, key), text, unit);

test.each([
  ['{"circle": "2 1/2 in"}', { circle: 63.5 }],
  ['{"circle": "10cm/4"}', { circle: 25 }],
  ['{"rect": {"width": "1in", "height": 20, "corner": "1/8in"}}', { rect: { width: 25.4, height: 20, corner: 3.175 } }],
  ['{"regular": {"sides": "6", "diameter": "40 mm"}}', { regular: { sides: 6, diameter: 40 } }],
  [
    '{"arc": {"radius": "1 in", "width": 6, "from": "45°", "to": "90 + 45"}}',
    { arc: { radius: 25.4, width: 6, from: 45, to: 135 } },
  ],
  [
    '{"polygon": [[0, 0], ["1in", 0], ["1in", "1/2in"]]}',
    {
      polygon: [
        [0, 0],
        [25.4, 0],
        [25.4, 12.7],
      ],
    },
  ],
])('%s', (text, value) => expect(read('half-cut', 'shape', text)).toEqual({ ok: true, value }));

test('a bare text takes the unit of the card, words stay words', () => {
  expect(read('half-cut', 'shape', '{"circle": "2 1/2"}', 'in')).toEqual({ ok: true, value: { circle: 63.5 } });
  const lettered = '{"text": {"string": "12", "font": "lora", "size": "1in"}}';
  expect(read('half-cut', 'shape', lettered)).toEqual({
    ok: true,
    value: { text: { string: '12', font: 'lora', size: 25.4 } },
  });
});

test('in lists and ways', () => {
  expect(read('track-slider', 'path', '{"line": "2in"}')).toEqual({ ok: true, value: { line: 50.8 } });
  const tiers = read('step-strips', 'tiers', '[{"p": "1in", "q": "29.7cm / 9", "from": "-1 1/2in", "to": 30}]');
  expect(tiers).toEqual({ ok: true, value: [{ p: 25.4, q: 33, from: -38.1, to: 30 }] });
});

test('what is no length is refused at its place', () => {
  for (const text of ['{"circle": "wide"}', '{"circle": "2 kg"}', '{"circle": "3in x 2in"}'])
    expect(read('half-cut', 'shape', text)).toMatchObject({ ok: false });
});

describe('what is refused', () => {
  const why = (text: string, unit: LengthUnit = 'mm', key = 'depth', kind = 'step-fold') => {
    const answer = read(kind, key, text, unit);
    return answer.ok ? null : answer;
  };
  test('is named by its key for a file, and without it beside a field that is named', () => {
    const few = why('0')!;
    expect(few.why).toBe(`depth ${few.says}`);
    expect(few.says).toMatch(/^is 0 mm; it must be at least \d+(\.\d+)? mm$/);
    const none = why('wide')!;
    expect(none.why).toBe(`depth: ${none.says}`);
    expect(why('round', 'mm', 'edge')!.says).toMatch(/^is "round"; it must be one of/);
  });
  test('says its limit in the unit of whoever typed it (an inch is 25.4 mm, 1959)', () => {
    const { min } = parameterOf('step-fold', 'depth');
    const least = Number((min! / 25.4).toFixed(4));
    expect(why('0', 'in')!.says).toBe(`is 0 in; it must be at least ${least} in`);
    expect(why('1/2', 'in')).toBeNull();
  });
});
