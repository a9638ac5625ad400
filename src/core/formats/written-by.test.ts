/** What wrote a file stands in it, wherever its format has a place that every reader passes over. */
import DxfParser from 'dxf-parser';
import { PDFDocument } from 'pdf-lib';
import packageJson from '../../../package.json';
import { DESIGN_VERSION } from '../document/design';
import { designText } from '../document/design-text';
import { checkDesign, readDesign } from '../document/schema';
import { card, stand } from '../tests/cards';
import { PROGRAM_VERSION, WRITTEN_BY } from '../version';
import { EXPORT_FORMATS, exportDesign, type ExportFormat } from './export';

const design = stand(card(180, 120), 'step-fold', { depth: 30, height: 20, width: 60 });
const textOf = async (format: ExportFormat): Promise<string> =>
  Buffer.from(await exportDesign(design, { format })).toString('latin1');

test('the version is that of the package', () => {
  expect(PROGRAM_VERSION).toBe(packageJson.version);
  expect(PROGRAM_VERSION).toMatch(/^\d+\.\d+\.\d+$/);
});

// HP-GL knows no comment that every cutter reads past, so its files say nothing.
test.each(EXPORT_FORMATS.filter((f) => f !== 'pdf' && f !== 'plt'))('%s names what wrote it, once', async (format) => {
  expect((await textOf(format)).split(WRITTEN_BY)).toHaveLength(2);
});
test('a cutter that reads HP-GL gets instructions only', async () => {
  expect(await textOf('plt')).not.toContain('Rhabdoplex');
});
test('a PDF has it as its producer (ISO 32000-1, table 317)', async () => {
  const pdf = await PDFDocument.load(await exportDesign(design, { format: 'pdf' }), { updateMetadata: false });
  expect(pdf.getProducer()).toBe(WRITTEN_BY);
});
test('a comment before the first section of a DXF is passed over by a general reader', async () => {
  const drawing = new DxfParser().parseSync(await textOf('dxf'));
  expect(drawing!.entities.length).toBeGreaterThan(5);
});

describe('the project file', () => {
  test('says it right after what it is, and reads back as the card that it was', () => {
    const text = designText(design);
    const keys = Object.keys(JSON.parse(text) as object);
    expect(keys.slice(0, 2)).toEqual(['rhabdoplex', 'writtenBy']);
    const read = readDesign(text);
    expect(read).toEqual({ ok: true, design });
    expect(read.ok && designText(read.design)).toBe(text);
  });
  test('of another version of the program is read like its own, and without it too', () => {
    for (const writtenBy of ['0.3.1', '1.99.0', undefined])
      expect(checkDesign({ ...design, ...(writtenBy ? { writtenBy } : {}) })).toEqual({ ok: true, design });
    expect(checkDesign({ ...design, writtenBy: 7 })).toMatchObject({
      ok: false,
      why: expect.stringContaining('writtenBy'),
    });
  });
  test('that is newer than the program is refused with the version that can read it', () => {
    const newer = checkDesign({ ...design, rhabdoplex: DESIGN_VERSION + 1, writtenBy: '9.1.0' });
    expect(newer).toMatchObject({ ok: false, why: expect.stringContaining('9.1.0') });
  });
});
