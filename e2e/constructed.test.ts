/** Glued and constructed cards in the browser: put on, posed, proved, mended by keyboard and pointer, exported. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key, type WebDriver } from 'selenium-webdriver';
import { STEP_OF_CUTS, TWO_PIECES, WATERFALL_SOLD } from '../src/core/tests/templates';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});

const add = async (kind: string): Promise<void> => {
  await page.press('n');
  await (await find(driver, `dialog[open] [data-kind=${kind}]`)).click();
  await eventually(driver, kind, async () => (await page.mechanisms()).includes(`${kind}-1`));
};
const clear = () => eventually(driver, 'the proof', async () => (await page.proved()) === 'Ready to cut');

test('a bundle is put on the fold, counted anew, and fans out as far as it is told', async () => {
  await page.beginCard();
  await add('leaf-bundle');
  await clear();
  await page.type('count', '3');
  await page.stage('Prove');
  const table = await findText(driver, 'tr', 'Pitch');
  // Opened to 100 degrees, a third of that.
  await eventually(driver, 'its pitch', async () => /33\.3°/.test(await table.getText()));
  await page.stage('Make');
  await (await findText(driver, 'label', 'cut list')).click();
  await findText(driver, 'td', 'Leaf 3');
});

test('tiers are put on, and tabs that meet under them are found', async () => {
  await page.beginCard();
  await add('step-strips');
  await clear();
  await page.stage('Build');
  // Tabs longer than a tier is glued from the fold meet under it.
  await page.type('tab', '60');
  await eventually(driver, 'the tabs to meet', async () => (await page.proved()) !== 'Ready to cut');
});

test('the arms of a twist fold swing out, and its train is told to bend', async () => {
  await page.beginCard();
  await add('twist-fold');
  await clear();
  const train = await findText(driver, '*[@role="radiogroup"]', 'without');
  await (await train.findElement({ xpath: './/label[normalize-space(.)="with"]' })).click();
  await page.stage('Prove');
  await eventually(driver, 'it to bend', async () => /closes only by bending/.test(await page.text()));
});

test('a pleat goes behind the cover, is drawn by its own drive, and a box is begun in the Brief', async () => {
  await page.beginCard();
  await page.press('n');
  await (await findText(driver, 'dialog//label', 'a face')).click();
  await (await findText(driver, 'dialog//label', 'inside')).click();
  await (await find(driver, '[data-kind=z-window]')).click();
  const drive = await find(driver, '[data-drive="z-window-1.pull"]');
  await clear();
  await drive.click();
  await (await find(driver, '[data-testid=travel]')).sendKeys(Key.PAGE_UP, Key.PAGE_UP);
  const field = () => find(driver, '[data-drive="z-window-1.pull"] input');
  await eventually(
    driver,
    'the pleat to be drawn',
    async () => Number(await (await field()).getAttribute('value')) > 10,
  );
  await page.beginCard();
  await page.stage('Brief');
  await (await find(driver, 'select option[value=box-frame]')).click();
  await page.field('panelHeight');
  await page.stage('Build');
  await (await find(driver, '[data-state=shelf]')).click();
  await eventually(driver, 'it to stand square', async () => (await page.opening()) === 90);
});

test('tiers get a bowed front, and tape on its tabs is told to let go', async () => {
  await page.beginCard();
  await add('step-strips');
  await clear();
  const bow = await findText(driver, '*[@role="radiogroup"]', 'without');
  await (await bow.findElement({ xpath: './/label[normalize-space(.)="with"]' })).click();
  await eventually(driver, 'the front', async () => /bowed front/.test(await page.text()));
  await page.type('bow.length', '60');
  await eventually(driver, 'it to be too short', async () => /pulled taut/.test(await page.text()));
  await page.type('bow.length', '100');
  await (await findText(driver, 'summary', 'Glue')).click();
  await click(driver, '[aria-label=Parameters] details option[value=tape]');
  await eventually(driver, 'the tape to be told', async () => /bears a load/.test(await page.text()));
});

test('an easel gets a level, which is opened by its own drive; a card gets its corners rounded', async () => {
  await page.beginCard();
  await page.stage('Brief');
  await click(driver, 'select option[value=easel]');
  await page.stage('Build');
  await click(driver, '[aria-label="Add to Levels"]');
  await find(driver, '[data-drive="card.level-1.open"]');
  await page.beginCard();
  await click(driver, '[aria-label="Add to Corners"]');
  const outline = () => find(driver, '[data-piece=card] path.cut');
  await eventually(driver, 'round corners', async () => {
    const drawn = await (await outline()).getAttribute('d');
    return (drawn ?? '').split('L').length > 20;
  });
});

/** A template brought in from a file, before it is made the card. */
async function bring(svg: string): Promise<void> {
  await page.beginCard();
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Whole template…')).click();
  const file = join(mkdtempSync(join(tmpdir(), 'template-')), 'step.svg');
  writeFileSync(file, svg);
  await (await find(driver, '[aria-label="Template file"]')).sendKeys(file);
}

test('cuts from edge to edge are answered by picture and by key, and the card is as large as its paper', async () => {
  await bring(STEP_OF_CUTS);
  const asked = () => driver.findElements({ css: '[data-severing]' });
  await eventually(driver, 'three questions', async () => (await asked()).length === 3);
  // Two slits, three folds across the step, two stretches of the gutter.
  const answer = async (mm: string, word: string): Promise<void> => {
    const box = await findText(driver, '*[@data-severing]', `of ${mm} mm`);
    await (await box.findElement({ xpath: `.//button[normalize-space(.)="${word}"]` })).click();
  };
  await answer('50', 'Really a cut');
  await answer('30', 'Valley');
  await answer('40', 'Valley');
  await eventually(driver, 'no question more', async () => (await asked()).length === 0);
  // The middle one of the three is its ridge: picked, and made so by its key.
  const [ridge] = (await driver.findElements({ css: '[data-line]' })).slice(5, 6);
  await driver.actions().move({ origin: ridge }).click().perform();
  await findText(driver, 'p', 'Shift adds a line');
  await (await find(driver, 'svg[aria-label=Template]')).sendKeys('m');
  await eventually(
    driver,
    'a mountain',
    async () => (await driver.findElements({ css: '.line.mountain' })).length === 1,
  );
  const mountains = async (): Promise<number> => (await driver.findElements({ css: '.line.mountain' })).length;
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'the mountain taken back', async () => (await mountains()) === 0);
  await (await findText(driver, 'button', 'Redo')).click();
  await eventually(driver, 'the mountain again', async () => (await mountains()) === 1);
  await (await find(driver, '[aria-label="Name of piece 1"]')).sendKeys('Page');
  await (await findText(driver, 'button', 'Make it the card')).click();
  await clear();
  await findText(driver, 'button', '100 × 75');
  expect(await page.complaints()).toEqual([]);
});

test('a template of two pieces is joined by its glue, made the card, and opens as one', async () => {
  await bring(TWO_PIECES);
  await (await findText(driver, 'button', 'Join what fits')).click();
  await eventually(driver, 'two joins', async () => (await driver.findElements({ css: '[data-join]' })).length === 2);
  await (await findText(driver, 'button', 'Make it the card')).click();
  await clear();
  await eventually(
    driver,
    'both pieces',
    async () => (await driver.findElements({ css: '[data-piece="card-part-2"] .facet' })).length === 4,
  );
  expect(await page.complaints()).toEqual([]);
});

test('a waterfall that is sold flat works after two answers and a click', async () => {
  await bring(WATERFALL_SOLD);
  const answer = async (mm: string, word: string): Promise<void> => {
    const box = await findText(driver, '*[@data-severing]', `of ${mm} mm`);
    await (await box.findElement({ xpath: `.//button[normalize-space(.)="${word}"]` })).click();
  };
  await answer('160', 'Valley');
  await answer('18', 'Mountain');
  await findText(driver, '*[@role="status"]', '4 panels of 50 × 42 mm and a belt 18 wide, scored every 11');
  await (await findText(driver, 'button', 'Make it work')).click();
  await eventually(driver, 'the waterfall', async () => (await page.mechanisms()).join() === 'card,waterfall-1');
  await clear();
  await findText(driver, 'button', '160 × 120');
  await find(driver, '[data-drive="waterfall-1.pull"]');
  expect(await page.complaints()).toEqual([]);
});
