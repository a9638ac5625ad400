/** Pieces with a stock of their own: cut from it, as thick as it, and gone with what they belong to. */
import fc from 'fast-check';
import type { Design } from '../document/design';
import { stockOf } from '../document/design';
import { repairDesign } from '../document/repair';
import { checkDesign } from '../document/schema';
import { copiedText, pasted } from '../document/several';
import { removeMechanism } from '../document/standing';
import { CARD } from '../ids';
import { cutList } from '../sheets/cutlist';
import { card, findings, stand } from '../tests/cards';
import { buildAssembly } from './build';

const wheel = stand(card(200, 150), 'carrier-wheel', {});
const PIECES = buildAssembly(wheel).pieces.flatMap((p) => (p.id === CARD ? [] : [p.id]));
const cutFrom = (design: Design, own: Readonly<Record<string, string>>): Design => ({
  ...design,
  cutFrom: Object.entries(own).map(([piece, stock]) => ({ piece, stock })),
});
const ID = 'carrier-wheel-1';
const of = (part: string): string => `${ID}.${part}`;

test('each piece is cut from what is asked, all others as before, whichever they are', () => {
  const stock = fc.constantFrom(...wheel.stocks.map((s) => s.id));
  const choice = fc.dictionary(fc.constantFrom(...PIECES), stock, { noNullPrototype: true });
  fc.assert(
    fc.property(choice, (own) => {
      const design = cutFrom(wheel, own);
      expect(checkDesign(design).ok).toBe(true);
      const usual = new Map(buildAssembly(wheel).pieces.map((p) => [p.id, p.stock]));
      for (const p of buildAssembly(design).pieces) expect(p.stock).toBe(own[p.id] ?? usual.get(p.id));
      for (const row of cutList(design, buildAssembly(design)))
        if (own[row.piece]) expect(row.stock).toBe(stockOf(design, own[row.piece]).name);
    }),
    { numRuns: 20 },
  );
});

test('sheets over each other lie as far off the face as the thickest of them', () => {
  const thick = { ...wheel.stocks[0], id: 'board', name: 'Board', caliperMm: 1.5 };
  const plain = { ...wheel, stocks: [...wheel.stocks, thick] };
  const level = (design: Design, piece: string): number =>
    buildAssembly(design).pieces.find((p) => p.id === piece)!.levelMm!;
  const usual = stockOf(wheel, wheel.mechanisms[0].stock).caliperMm;
  // The back lies on the face: half of each sheet's thickness apart.
  const higher = level(cutFrom(plain, { [of('back')]: 'board' }), of('back')) - level(plain, of('back'));
  expect(higher).toBeCloseTo((1.5 - usual) / 2, 9);
  const thinner = cutFrom(
    { ...plain, stocks: plain.stocks.map((s) => (s === thick ? { ...s, caliperMm: 0.05 } : s)) },
    {
      [of('back')]: 'board',
    },
  );
  expect(level(thinner, of('back'))).toBeCloseTo(level(plain, of('back')), 12);
});

test('a stock too thin for what moves is told of the piece that it was given to', () => {
  const [thin] = wheel.stocks.filter((s) => s.gsm < 216);
  const told = (design: Design) => findings(design, 'stock').map((f) => f.piece);
  const before = told(wheel);
  expect(before).not.toContain(of('carrier-2'));
  expect(told(cutFrom(wheel, { [of('carrier-2')]: thin.id }))).toContain(of('carrier-2'));
});

test('it goes with its mechanism, comes along in a copy, and is told where there is no such piece', () => {
  const design = cutFrom(wheel, { [of('carrier-2')]: 'night-216' });
  expect(removeMechanism(design, ID).cutFrom).toEqual([]);
  const copied = pasted(design, copiedText(design, [ID]));
  if (!copied.ok) throw new Error(copied.why);
  expect(copied.design.cutFrom).toEqual([
    ...design.cutFrom!,
    { piece: `${copied.ids[0]}.carrier-2`, stock: 'night-216' },
  ]);
  const lost = cutFrom(wheel, { [of('carrier-9')]: 'night-216' });
  expect(buildAssembly(lost).misfits.map((m) => m.key)).toEqual([`cutFrom ${of('carrier-9')}`]);
});

test('what is no stock of the card is refused by name, and left out where a card is mended', () => {
  const wrong = cutFrom(wheel, { [of('wheel')]: 'velvet' });
  const read = checkDesign(wrong);
  expect(read.ok ? '' : read.why).toMatch(/^cutFrom\[0\]\.stock is "velvet"/);
  expect(repairDesign(wrong)?.design.cutFrom).toEqual([]);
});
