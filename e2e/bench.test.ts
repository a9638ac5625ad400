/** From proof to paper in the browser: nest, take hold of a piece, print, cut on the simulated cutter, take it all. */
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import DxfParser from 'dxf-parser';
import { strFromU8, unzipSync } from 'fflate';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { readDesign } from '../src/core/document/schema';
import { readCutFile } from '../src/core/simulate/read';
import { click, eventually, find, findText } from './support/browser';
import { greyPng } from './support/png';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let downloads: string;
let page: StudioPage;
session(
  240_000,
  (s) => {
    ({ driver, downloads, page } = s);
  },
  'both',
);
const text = async (css: string): Promise<string> => (await find(driver, css)).getText();
const says = (css: string, words: RegExp): Promise<unknown> =>
  eventually(driver, `${css} to say ${words}`, async () => words.test(await text(css)));
const downloaded = async (ending: string): Promise<Buffer> =>
  readFileSync(
    join(
      downloads,
      await eventually(driver, `a file ending in ${ending}`, async () =>
        readdirSync(downloads).find((f) => f.endsWith(ending)),
      ),
    ),
  );
/** Left edge of a piece on its sheet, as its field has it once it is picked. */
const leftOf = async (): Promise<number> => Number(await page.valueOf('left'));

test('a search for a tighter layout shows how far it is, is stopped, and is kept; undone it is as before', async () => {
  await page.openCard('Orrery');
  await page.stage('Sheets');
  await find(driver, '[data-piece="lamps.wheel"]');
  await says('[data-testid=sheet-sums]', /2 sheets, \d+ % used; \d+ cm² left over/);
  await (await findText(driver, 'button', 'Lay out tighter')).click();
  await find(driver, 'progress[aria-label="How far the search has come"]');
  await says('section[aria-label="Laying out"] [role=status]', /\d+ layouts tried/);
  await (await findText(driver, 'button', 'Give up')).click();
  await (await findText(driver, 'button', 'Lay out tighter')).click();
  expect(await driver.findElements(By.css('[aria-label^="Undo: sheets laid out"]'))).toEqual([]);
  await says('section[aria-label="Laying out"] [role=status]', /\d+ layouts tried/);
  await (await findText(driver, 'button', 'Keep the best now')).click();
  await find(driver, '[aria-label^="Undo: sheets laid out"]');
  await page.saved();
});

test('a piece is dragged: it follows, keeps its room, stays locked; arrows move it, Space lets it go', async () => {
  const piece = await find(driver, '[data-piece="planets.strap"]');
  await driver.actions().move({ origin: piece }).press().move({ origin: piece, x: 60, y: -15 }).perform();
  await find(driver, '[data-piece="planets.strap"][aria-pressed=true]');
  await driver.actions().release().perform();
  await find(driver, '[aria-label^="Undo: Strap moved on its sheet"]');
  await find(driver, '[data-piece="planets.strap"][aria-label*="locked"]');
  const before = await leftOf();
  await (await find(driver, '[data-piece="planets.strap"]')).sendKeys(Key.ARROW_RIGHT);
  await eventually(driver, 'a millimetre further', async () => Math.abs((await leftOf()) - before - 1) < 0.11);
  await (await find(driver, '[data-piece="planets.strap"]')).sendKeys(Key.SPACE);
  await find(driver, '[aria-label^="Undo: Strap let go"]');
  // Typed exactly, onto the edge of the sheet: it says what is wrong there.
  await page.type('left', '0');
  await find(driver, '[data-piece="planets.strap"][data-wrong]');
  await click(driver, '[aria-label^="Undo: Strap moved"]');
  await eventually(
    driver,
    'no piece that lies wrong',
    async () => (await driver.findElements(By.css('[data-wrong]'))).length === 0,
  );
});

test('an offcut on the shelf is used; a spare is one click', async () => {
  await (await findText(driver, 'summary', 'Smooth card, cream')).click();
  await (await findText(driver, 'button', 'Put this offcut on the shelf')).click();
  await find(driver, '[aria-label^="Undo: an offcut"]');
  // What was laid stays where it is until it is laid anew.
  await (await findText(driver, 'button', 'Lay out anew')).click();
  await find(driver, '[aria-label^="Undo: pieces laid as they come"]');
  await find(driver, 'svg[data-slot="card-240/offcut-1/1"]');
  // The piece that is picked may lie across the grain from now on.
  await (await findText(driver, 'section[@aria-label="Picked piece"]//label', 'yes')).click();
  await find(driver, '[aria-label^="Undo: Strap may lie across the grain"]');
  await (await findText(driver, 'summary', 'Spares')).click();
  const count = (await driver.findElements(By.css('[data-piece="planets.belt"]'))).length;
  await click(driver, '[aria-label="One spare of Belt more"]');
  await eventually(
    driver,
    'a second belt',
    async () => (await driver.findElements(By.css('[data-piece="planets.belt"]'))).length === count + 1,
  );
  await page.saved();
});

test('sheets lie on a bed: one is dragged there, and turned by a key', async () => {
  await (await findText(driver, 'label', 'on a bed')).click();
  const sheet = '[data-bed-sheet="card-240/offcut-1/1"]';
  const on = await find(driver, sheet);
  await driver.actions().move({ origin: on }).press().move({ origin: on, x: 25, y: -40 }).release().perform();
  await find(driver, '[aria-label^="Undo: sheet moved on its bed"]');
  const box = async (): Promise<number> => Number(await (await find(driver, `${sheet} rect`)).getAttribute('width'));
  const before = await box();
  await (await find(driver, sheet)).sendKeys('q');
  await eventually(driver, 'the sheet turned', async () => Math.abs((await box()) - before) > 10);
  await (await findText(driver, 'label', 'one by one')).click();
  await page.saved();
});

test('a picture is printed on a leaf: seen flat and posed, written with its marks for the printer', async () => {
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Print')).click();
  const png = join(mkdtempSync(join(tmpdir(), 'bench-')), 'sky.png');
  writeFileSync(
    png,
    greyPng(64, 48, (x, y) => (x + y) % 9 < 3),
  );
  await (await find(driver, '[data-testid=print-file]')).sendKeys(png);
  await find(driver, 'image[href^="data:image/png"]');
  await find(driver, '[data-art="print-1"]');
  await page.stage('Sheets');
  await (await findText(driver, 'label', 'Marks to register the cut by')).click();
  await page.stage('Make');
  await click(driver, '[data-export=print]');
  expect((await downloaded('-print.pdf')).subarray(0, 5).toString()).toBe('%PDF-');
});

test('the simulated cutter finds the print, cuts the file it reads, is paused, and tells what came of it', async () => {
  await (await findText(driver, 'label', 'cutter')).click();
  await (await findText(driver, 'label', '× 1')).click();
  await (await findText(driver, 'button', 'Start cutting')).click();
  await says('[data-testid=scanned]', /Marks found: the print lies 1\.\d\d across.*to 0\.0\d\d mm/s);
  await find(driver, '[data-testid=tool]');
  await (await findText(driver, 'button', 'Pause')).click();
  const clock = await text('[data-testid=cut-clock]');
  await driver.sleep(700);
  expect(await text('[data-testid=cut-clock]')).toBe(clock);
  await (await findText(driver, 'button', 'Go on')).click();
  await (await findText(driver, 'label', '× 60')).click();
  await says('[data-testid=cut-report]', /Done in \d:\d\d \(reckoned \d:\d\d\).*came free/s);
  expect(await page.text()).toMatch(/Nothing that was meant stayed uncut/);
  await (await findText(driver, 'button', 'Clear the bed')).click();
});

test('a step that is done stays ticked; the cut list shows each piece in mm and inches', async () => {
  await (await findText(driver, 'label', 'steps')).click();
  await click(driver, '[data-step=cut] input');
  await find(driver, '[aria-label^="Undo: Score and cut done"]');
  await page.saved();
  await driver.navigate().refresh();
  await page.stage('Make');
  await eventually(driver, 'the tick', async () => (await find(driver, '[data-step=cut] input')).isSelected());
  await (await findText(driver, 'label', 'cut list')).click();
  await eventually(driver, 'sizes in both', async () =>
    /18 × 24 mm · about 23\/32 × 15\/16 in/.test(await page.text()),
  );
});

test('everything in one archive: every file in it opens', async () => {
  await click(driver, '[data-export=zip]');
  const files = unzipSync(new Uint8Array(await downloaded('.zip')));
  const read = readDesign(strFromU8(files['card.json']));
  expect(read.ok && read.design.artwork?.length).toBe(1);
  expect(JSON.parse(strFromU8(files['cut-list.json']))).toBeInstanceOf(Array);
  for (const [path, bytes] of Object.entries(files)) {
    if (path.endsWith('.pdf')) expect(strFromU8(bytes.subarray(0, 5))).toBe('%PDF-');
    if (/\.(svg|dxf|plt|gcode)$/.test(path))
      expect(readCutFile(strFromU8(bytes), path).strokes.length).toBeGreaterThan(0);
    if (path.endsWith('.dxf')) expect(new DxfParser().parseSync(strFromU8(bytes))).not.toBeNull();
  }
  expect(Object.keys(files)).toEqual(
    expect.arrayContaining(['booklet.pdf', 'print.pdf', 'sheets.pdf', 'cut-list.csv']),
  );
});

test('how near to the edge the machine cuts is told beside the margin, and taken over', async () => {
  await page.stage('Make');
  await (await find(driver, 'section[aria-label=Machine] select')).sendKeys('Wide knife fed by rollers');
  await page.stage('Sheets');
  await says('[data-testid=machine-reach]', /cuts no nearer to the edge than 10.0 mm: what is laid nearer stays uncut/);
  await (await findText(driver, 'button', 'Margin of 10.0 mm')).click();
  await eventually(driver, 'the margin', async () => (await page.valueOf('marginMm')) === '10');
  expect(await driver.findElements(By.css('[data-testid=machine-reach]'))).toEqual([]);
  await page.stage('Make');
  await (await find(driver, 'section[aria-label=Machine] select')).sendKeys('Small knife');
  await page.stage('Sheets');
  await says('[data-testid=machine-reach]', /Small knife on a carrier sheet cuts to 4.0 mm from the edge/);
});

test('nothing was said on the console', async () => expect(await page.complaints()).toEqual([]));
