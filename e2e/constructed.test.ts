/** Glued and constructed cards in the browser: put on, posed, proved, mended by keyboard and pointer, exported. */
import { Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, findText } from './support/browser';
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
