/** Cards that stand, in the browser: built as an easel, posed by name, named anew, proved, drawn, kept. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { blankDesign } from '../src/core/document/design';
import { eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});

const fieldOf = (drive: string) => find(driver, `[data-drive="${drive}"] input`);
const opened = async (): Promise<string> => (await (await fieldOf('open')).getAttribute('value')) ?? '';
const state = (id: string) => find(driver, `[data-state="${id}"]`);

test('an easel is begun, stands at its stop, and follows the stop by number', async () => {
  await page.beginCard();
  await page.stage('Brief');
  await (await find(driver, 'select option[value=easel]')).click();
  await page.type('width', '107.95');
  await page.type('stop', '80');
  await page.stage('Build');
  await (await state('shelf')).click();
  // acos(80 / 107.95) with the break half way.
  await eventually(driver, 'the lean', async () => (await opened()) === '42.18');
  expect(await (await state('shelf')).getAttribute('aria-pressed')).toBe('true');
  await page.type('stop', '60');
  await (await state('shelf')).click();
  await eventually(driver, 'the new lean', async () => (await opened()) === '56.23');
  await page.type('stopHeight', '0.2');
  await eventually(driver, 'the stop to be too low', async () => (await page.proved()) !== 'Ready to cut');
  await page.stage('Prove');
  await findText(driver, 'section', 'its stop is as tall as');
});

test('an easel of any outline: its closed size is its shape’s, and what then says nothing is not asked', async () => {
  const plain = blankDesign('Door');
  const shape = { path: 'M0 0 H100 V-80 L50 -110 L0 -80 Z' };
  const file = join(mkdtempSync(join(tmpdir(), 'rhabdoplex-easel-')), 'door.json');
  const card = { ...plain.card, construction: 'easel', parameters: { shape } };
  writeFileSync(file, JSON.stringify({ ...plain, card }));
  await page.begin();
  await (await find(driver, 'input[type=file]')).sendKeys(file);
  await findText(driver, '*[@data-mechanism="card"]', 'shaped');
  await page.stage('Brief');
  await findText(driver, 'main', '100 × 110 mm closed');
  await findText(driver, 'p', 'Its size is that of its shape.');
  expect(await driver.findElements(By.css('[aria-label="Card sizes"], input[name=width], input[name=height]'))).toEqual(
    [],
  );
  await find(driver, 'input[name=stopWidth]');
});

test('where it stands now is named by keyboard, left standing, proved, drawn and kept over a reload', async () => {
  await page.beginCard();
  await (await find(driver, '[data-testid=travel]')).sendKeys(Key.PAGE_UP, Key.PAGE_UP, Key.PAGE_UP);
  await (await findText(driver, 'button', 'Name this…')).click();
  await (await find(driver, '[aria-label="Name of this state"]')).sendKeys('Half open', Key.ENTER);
  expect(await (await state('state-1')).getText()).toBe('Half open');
  await page.stage('Brief');
  const row = await find(driver, '[data-state-row="state-1"]');
  await (await row.findElement({ css: 'select option[value=upright]' })).click();
  const name = await find(driver, '[aria-label="Name of Half open"]');
  await name.sendKeys(Key.chord(Key.CONTROL, 'a'), 'On the sill', Key.ENTER);
  await page.stage('Prove');
  await page.proved();
  const told = await find(driver, '[data-testid=proved-states]');
  await eventually(driver, 'its weight', async () => /On the sill[^]* g, its weight/.test(await told.getText()));
  await page.stage('Make');
  await findText(driver, 'figure', 'On the sill');
  await page.saved();
  await driver.navigate().refresh();
  await page.stage('Make');
  await findText(driver, 'figure', 'On the sill');
  await page.stage('Build');
  await (await state('post')).click();
  await eventually(driver, 'shut', async () => (await page.opening()) === 0);
  await (await state('state-1')).click();
  await eventually(driver, 'opened again', async () => (await page.opening()) > 5);
  await (await find(driver, '[aria-label^="Undo:"]')).click();
  await eventually(driver, 'the name before', async () => (await (await state('state-1')).getText()) === 'Half open');
});
