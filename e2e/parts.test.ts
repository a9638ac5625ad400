/** Large cards, and parts of the workbench that fail: neither takes the rest with it. */
import { By, type WebDriver } from 'selenium-webdriver';
import { blankDesign, type Design } from '../src/core/document/design';
import { addMechanism } from '../src/core/document/standing';
import { beforePages, eventually, find, findText, visit } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

jest.retryTimes(1, { logErrorsBeforeRetry: true });

let driver: WebDriver;
let base: string;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, base, page } = s);
});

const row = (count: number): Design =>
  Array.from({ length: count }, (_, i) => i).reduce(
    (d, i) =>
      addMechanism(d, 'step-fold', 'card.gutter', {
        depth: 20,
        height: 20,
        width: 3,
        offset: (i - (count - 1) / 2) * 6,
      }).design,
    blankDesign('Long row', count * 6 + 20, 100),
  );

test('300 steps: only what is seen is drawn, the list is gone through by key, remedies come on request', async () => {
  await page.begin();
  await find(driver, '[data-open="Terrace night"]');
  await driver.executeScript(
    `const dataTransfer = new DataTransfer();
     dataTransfer.items.add(new File([arguments[0]], 'row.json', { type: 'application/json' }));
     document.querySelector('main').dispatchEvent(new DragEvent('drop', { bubbles: true, dataTransfer }));`,
    JSON.stringify(row(300)),
  );
  await find(driver, '.flat-drawing');
  expect(await page.proved()).toBe('Do not cut yet');
  const rows = await page.mechanisms();
  expect(rows.slice(0, 3)).toEqual(['card', 'step-fold-1', 'step-fold-2']);
  expect(rows.length).toBeLessThan(70);
  // All of the card is there all the same: every facet in the flat view, every row by key.
  expect(await driver.executeScript('return document.querySelectorAll("[data-facet]").length')).toBe(2 + 2 * 300);
  for (let k = 0; k < 100; k++) await page.press('j');
  const chosen = await find(driver, '[data-mechanism="step-fold-100"][aria-current=true]');
  const [of, within] = await Promise.all([
    chosen.getRect(),
    (await find(driver, '[aria-label="Build list"]')).getRect(),
  ]);
  expect(of.y).toBeGreaterThan(within.y);
  expect(of.y + of.height).toBeLessThan(within.y + within.height);
  await page.stage('Prove');
  const asks = async (): Promise<number> =>
    (await driver.findElements(By.xpath('//article//button[contains(., "ook")][contains(., "for a number")]'))).length;
  const look = await findText(driver, 'button', 'Look for a number that clears it');
  const before = await asks();
  await look.click();
  await driver.wait(async () => (await asks()) === before - 1, 60_000, 'what was found');
});

test('a part that fails says so in its place; the card and the rest go on, and it can be tried again', async () => {
  const undo = await beforePages(
    driver,
    `const plain = window.ResizeObserver;
     window.ResizeObserver = class extends plain {
       constructor(told) {
         if (window.broken) throw new Error('broken on purpose');
         super(told);
       }
     };`,
  );
  await page.openCard('Sky survey (two faults)');
  await page.proved();
  await driver.executeScript('window.broken = true');
  await page.stage('Prove');
  const told = await find(driver, '[role=alert]');
  expect(await told.getText()).toMatch(/stopped\. Your card is kept[^]*broken on purpose/);
  // The strip and the keys go on.
  const before = await page.opening();
  await page.press(']');
  await eventually(driver, 'another opening', async () => (await page.opening()) === before + 5);
  expect(await driver.findElements(By.css('[data-mechanism]'))).not.toHaveLength(0);
  await driver.executeScript('window.broken = false');
  await (await findText(driver, '*[@role="alert"]//button', 'Try again')).click();
  await eventually(driver, 'both findings', async () => (await page.findings()).length === 2);
  await undo();
});

test('where the whole workbench fails the page says what is safe, and leads on', async () => {
  const undo = await beforePages(
    driver,
    `const plain = window.addEventListener;
     window.addEventListener = function (type, ...rest) {
       if (window.broken && type === 'keydown') throw new Error('broken on purpose');
       return plain.call(window, type, ...rest);
     };`,
  );
  await page.begin();
  await find(driver, '[data-open="Terrace night"]');
  await driver.executeScript('window.broken = true');
  await (await find(driver, '[data-open="Terrace night"]')).click();
  await findText(driver, 'h1', 'This page stopped');
  expect(await page.text()).toMatch(
    /every change that the header called saved is in this browser[^]*broken on purpose/,
  );
  expect(await (await findText(driver, 'a', 'To the cards')).getAttribute('href')).toBe(`${base}/`);
  await driver.executeScript('window.broken = false');
  await (await findText(driver, 'button', 'Try again')).click();
  await find(driver, '.flat-drawing');
  expect(await page.proved()).toBe('Ready to cut');
  await undo();
});

test('workers have a policy too: that of their files', async () => {
  await visit(driver, base);
  const file = await driver.executeScript<string>(
    "return performance.getEntriesByType('resource').map((r) => r.name).find((n) => n.includes('/_next/static/'))",
  );
  expect((await fetch(file)).headers.get('content-security-policy')).toContain("script-src 'self';");
});
