/** From nothing to a cut file, in the real interface. */
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let downloads: string;
let page: StudioPage;
session(
  180_000,
  (s) => {
    ({ driver, downloads, page } = s);
  },
  'both',
);
const downloaded = async (ending: string): Promise<string> =>
  join(
    downloads,
    await eventually(driver, `a file ending in ${ending}`, async () =>
      readdirSync(downloads).find((f) => f.endsWith(ending)),
    ),
  );

test('a card is made from nothing: size, a step by keyboard, another by pointer', async () => {
  await page.beginCard();
  await page.stage('Brief');
  await page.type('gutter', '150');
  await page.type('reachA', '100');
  await page.stage('Build');
  // By keyboard alone: N opens the sheet, the first kind has the focus, Enter takes it.
  await driver.findElement(By.css('body')).click();
  await page.press('n');
  await find(driver, 'dialog[open] [data-kind=step-fold]');
  await eventually(
    driver,
    'focus on the first kind',
    async () => (await driver.switchTo().activeElement().getAttribute('data-kind')) === 'step-fold',
  );
  await page.press(Key.ENTER);
  await eventually(driver, 'a step in the build list', async () => (await page.mechanisms()).includes('step-fold-1'));
  // By pointer: a click on the step's own base crease in the flat view.
  await eventually(
    driver,
    'the keyboard’s sheet to close',
    async () => (await driver.findElements(By.css('dialog[open]'))).length === 0,
  );
  await eventually(driver, 'the sheet for the step’s crease', async () => {
    // A level crease has a box of no height, which the driver will not click by itself: the pointer goes to its middle.
    const crease = await driver.findElement(By.css('[data-crease="step-fold-1.base"]'));
    const { x, y, width, height } = await crease.getRect();
    await driver
      .actions()
      .move({ x: Math.round(x + width / 2), y: Math.round(y + height / 2) })
      .click()
      .perform();
    return (await driver.findElements(By.css('dialog[open]'))).length > 0;
  });
  await click(driver, 'dialog[open] [data-kind=step-fold]');
  await eventually(
    driver,
    'the nested step',
    async () => (await page.mechanisms()).join() === 'card,step-fold-1,step-fold-2',
  );
  expect(await page.proved()).toBe('Ready to cut');
});

test('numbers are typed in either system, and nonsense is refused without losing anything', async () => {
  await (await find(driver, '[data-mechanism=step-fold-1]')).click();
  await page.type('depth', '1 1/2 in');
  await eventually(driver, '38.1 mm', async () => (await page.valueOf('depth')) === '38.1');
  await page.type('depth', 'lots');
  expect(await (await find(driver, '[role=alert]')).getText()).toMatch(/not a length/);
  await page.press(Key.ESCAPE);
  await eventually(driver, 'the old value', async () => parseFloat(await page.valueOf('depth')) === 38.1);
  await driver.findElement(By.css('body')).click();
});

test('the scrubber moves the card, by keyboard and by dragging', async () => {
  const travel = await find(driver, '[data-testid=travel]');
  await driver.executeScript('arguments[0].focus()', travel);
  const before = await page.opening();
  await page.press(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await eventually(driver, 'two degrees more', async () => (await page.opening()) === before + 2);
  const { width } = await travel.getRect();
  await driver
    .actions()
    .move({ origin: travel, x: 0, y: 0 })
    .press()
    .move({ origin: travel, x: Math.round(-width / 4), y: 0 })
    .release()
    .perform();
  await eventually(driver, 'a smaller opening', async () => (await page.opening()) < 70);
  const label = async (): Promise<string> =>
    (await (await find(driver, '[data-testid=posed]')).getAttribute('aria-label'))!;
  const open = Math.round(await page.opening());
  await eventually(driver, 'the pose to follow', async () => (await label()).includes(`${open} degrees`));
});

test('a fault is seen, a remedy clears it, undo brings it back byte for byte', async () => {
  await page.type('height', '70');
  expect(await page.proved()).toBe('Do not cut yet');
  expect(await page.findings()).toContain('overhang');
  await page.saved();
  const stored = (): Promise<string> =>
    driver.executeAsyncScript(
      `const done = arguments[0];
       const open = indexedDB.open('rhabdoplex');
       open.onsuccess = () => {
         const all = open.result.transaction('projects').objectStore('projects').getAll();
         const own = () => all.result.find((p) => location.search.includes(p.id));
         all.onsuccess = () => done(JSON.stringify(own().design));
       };`,
    );
  // Changes are written as they are made, and taken into the card's record when it has been quiet for a moment.
  const quiet = (): Promise<void> => driver.sleep(2500);
  await quiet();
  const before = await stored();
  const remedy = await eventually(
    driver,
    'a remedy',
    async () => (await driver.findElements(By.css('[data-finding=overhang] button')))[0],
  );
  expect(await remedy.getText()).toBe('Depth from the crease: 38.1 → 30.0 mm');
  await remedy.click();
  await eventually(driver, 'depth 30', async () => (await page.valueOf('depth')) === '30');
  expect(await page.proved()).not.toBe('Do not cut yet');
  expect(await (await find(driver, '[aria-label^="Undo: Depth"]')).isEnabled()).toBe(true);
  await driver.findElement(By.css('[aria-label=Flat] h2')).click();
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'depth 38.1 again', async () => (await page.valueOf('depth')) === '38.1');
  await quiet();
  await page.saved();
  expect(await stored()).toBe(before);
  await (await find(driver, '[aria-label^="Redo: Depth"]')).click();
  await eventually(driver, 'depth 30 again', async () => (await page.valueOf('depth')) === '30');
});

test('the SVG that is written holds the card at true size', async () => {
  await page.stage('Make');
  await (await find(driver, '[data-export=svg]')).click();
  const svg = readFileSync(await downloaded('.svg'), 'utf8');
  expect(svg).toMatch(/width="170mm" height="220mm" viewBox="0 0 170 220"/);
  for (const role of ['cut', 'valley', 'mountain']) expect(svg).toContain(`data-role="${role}"`);
  for (const format of ['dxf', 'pdf', 'plt', 'gcode', 'glb', 'fold']) {
    await (await find(driver, `[data-export=${format}]`)).click();
    expect(existsSync(await downloaded(`.${format}`))).toBe(true);
  }
  expect(await page.text()).toMatch(/Fold Step/);
});

test('after a reload everything is there again', async () => {
  await page.saved();
  await driver.navigate().refresh();
  await find(driver, '[data-testid=posed] canvas');
  expect(await page.mechanisms()).toEqual(['card', 'step-fold-1', 'step-fold-2']);
  await (await find(driver, '[data-mechanism=step-fold-1]')).click();
  expect(await page.valueOf('depth')).toBe('30');
  expect(await page.valueOf('height')).toBe('70');
});

test('nothing was said on the console', async () => expect(await page.complaints()).toEqual([]));

test('every stage opens and does its work', async () => {
  await page.openCard('Terrace night');
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Facet and mats')).click();
  await click(driver, '[data-facet="stair.tread"]');
  await (await findText(driver, 'button', 'Add a mat')).click();
  await eventually(driver, 'a mat with its size', async () => (await page.text()).includes('Mat 1'));
  await page.stage('Sheets');
  await eventually(driver, 'use in percent', async () => /\d+ % used/.test(await page.text()));
  await click(driver, 'section[aria-label=Lines] [data-scope=radio-group][data-part=item]:nth-of-type(2)');
  await eventually(
    driver,
    'perforation lengths',
    async () => (await driver.findElements(By.css('main input[name=cutMm]'))).length > 0,
  );
  await page.stage('Prove');
  await eventually(driver, 'the thickness map', async () => /\d+ layers at most/.test(await page.text()));
  expect(await page.complaints()).toEqual([]);
});
