/**
 * A strip that proves the settings of a cutter on a scrap of the card itself: perforations, scores, webs from where
 * they tear, corners, a slot with its token, a hinge; each with its number beside it.
 */
import { perforationCuts } from '../pattern/making';
import type { LineRole } from '../pattern/pattern';
import { boxOf, rectangle, ringsOf, type Ring } from '../plane/polygon';
import type { Vec2 } from '../plane/vec2';
import { arcPoints, ellipse } from '../shapes/curve';
import { textRegion } from '../shapes/text';
import { trimNumber } from '../units/length';
import type { Drawing, DrawnLine } from './drawing';

/** Cut and gap of the perforations that are tried, mm; common practice, no source. */
export const STRIP_PERFORATIONS: readonly (readonly [cutMm: number, gapMm: number])[] = [
  [1, 1],
  [2, 1],
  [3, 1],
  [3, 2],
  [5, 2],
];
/** Webs of the comb, mm. */
export const STRIP_WEBS_MM = [0.5, 1, 1.5, 2, 2.5, 3, 3.5, 4] as const;
export const STRIP_SIZE: Vec2 = [180, 90];
const SLOT_MM = 6;
const SLOT_LENGTH_MM = 32;
const TOKEN_MM = 16;
const TOOTH_MM = 14;
/** Width of the gaps of the comb, mm. */
const BETWEEN_MM = 3;
const LETTERS_MM = 3.2;
const FONT = 'josefin-sans';

/** The strip and the token that runs in its slot. Needs the font of its numbers on the shelf (`shapes/fonts`). */
export function testStrip(stock: string): Drawing[] {
  const lines: DrawnLine[] = [
    ...perforations(8, 84),
    ...scores(8, 50),
    ...comb(74, 60),
    ...corners(74, 34),
    ...slot(128, 34),
    ...hinge(8, 8),
  ];
  const outline = rectangle(0, 0, ...STRIP_SIZE);
  const token = ellipse(TOKEN_MM / 2, TOKEN_MM / 2);
  return [
    drawing('test-strip', 'Test strip', stock, outline, [...lines, cut(outline, 'strip')]),
    drawing('test-token', 'Token of the test strip', stock, token, [cut(token, 'token'), ...label('token', [-4, -1])]),
  ];
}
/** What its numbers are set in, for those who fetch fonts. */
export const STRIP_TEXT = { text: { string: '0', font: FONT, size: LETTERS_MM } } as const;

const drawing = (id: string, title: string, stock: string, outline: Ring, lines: readonly DrawnLine[]): Drawing => {
  const holes = lines.filter((l) => l.role === 'window').map((l) => [...l.points].reverse());
  return {
    id,
    title,
    mechanism: 'card',
    stock,
    box: boxOf(outline),
    region: [{ outer: outline, holes }],
    lines,
    outside: [],
    count: 1,
  };
};

const line = (role: LineRole, points: Ring, id: string, closed = false): DrawnLine => ({ role, points, closed, id });
const cut = (points: Ring, id: string): DrawnLine => line('cut', points, id, true);

/** Letters as lines that are drawn, from their lower left. */
function label(text: string, [x, y]: Vec2): DrawnLine[] {
  return textRegion({ string: text, font: FONT, size: LETTERS_MM })
    .flatMap(ringsOf)
    .map((ring) =>
      line(
        'mark',
        ring.map(([px, py]): Vec2 => [px + x, py + y]),
        'label',
        true,
      ),
    );
}

function perforations(x: number, top: number): DrawnLine[] {
  return STRIP_PERFORATIONS.flatMap(([cutMm, gapMm], k) => {
    const y = top - 6 * k;
    const cuts = perforationCuts({ a: [x, y], b: [x + 40, y] }, cutMm, gapMm);
    const folds = cuts.map(({ a, b }) => ({ ...line('perforation', [a, b], `p${k}`), fold: 'valley' as const }));
    return [...folds, ...label(`${cutMm}:${gapMm}`, [x + 43, y - 1])];
  });
}

function scores(x: number, top: number): DrawnLine[] {
  return (['valley', 'mountain'] as const).flatMap((role, k) => {
    const y = top - 7 * k;
    return [line(role, [[x, y], [x + 40, y]], role), ...label(role, [x + 43, y - 1])]; // prettier-ignore
  });
}

/** Teeth of paper that grow wider, between windows. */
function comb(x: number, y: number): DrawnLine[] {
  let at = x;
  return STRIP_WEBS_MM.flatMap((web, k) => {
    const window = rectangle(at, y, at + BETWEEN_MM, y + TOOTH_MM);
    at += BETWEEN_MM + web;
    const words = label(trimNumber(web, 1), [at - web, y + TOOTH_MM + 1.5 + (k % 2) * 4]);
    const last = k === STRIP_WEBS_MM.length - 1 ? [rectangle(at, y, at + BETWEEN_MM, y + TOOTH_MM)] : [];
    return [...[window, ...last].map((w) => line('window', w, `web ${web}`, true)), ...words];
  });
}

/** A square, a sharp point and a rounded window: what corners come out like. */
function corners(x: number, y: number): DrawnLine[] {
  const point: Ring = [[x + 16, y], [x + 30, y + 5], [x + 16, y + 10]]; // prettier-ignore
  return [
    line('window', rectangle(x, y, x + 10, y + 10), 'square', true),
    line('window', point, 'point', true),
    line('window', ellipse(1.5, 1.5, [x + 40, y + 5]), 'small circle', true),
    ...label('corners', [x, y + 12.5]),
    ...label('R 1.5', [x + 36, y + 12.5]),
  ];
}

function slot(x: number, y: number): DrawnLine[] {
  const r = SLOT_MM / 2;
  const end = (cx: number, from: number): Vec2[] => arcPoints([cx, y + r], r, r, from, Math.PI);
  const ring = [...end(x + SLOT_LENGTH_MM, -Math.PI / 2), ...end(x, Math.PI / 2)];
  return [line('window', ring, 'slot', true), ...label(`slot ${SLOT_MM}, token ${TOKEN_MM}`, [x, y + 9])];
}

/** A flap that is cut on three sides and folds on the fourth. */
function hinge(x: number, y: number): DrawnLine[] {
  const flap: Ring = [[x, y + 18], [x, y], [x + 34, y], [x + 34, y + 18]]; // prettier-ignore
  return [line('cut', flap, 'hinge'), line('valley', [flap[0], flap[3]], 'hinge'), ...label('hinge', [x + 12, y + 8])];
}
