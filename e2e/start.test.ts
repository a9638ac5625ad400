/** The start page: cards come and go, and nothing is lost on the way. */
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, type WebDriver } from 'selenium-webdriver';
import packageJson from '../package.json';
import { eventually, find, findText, visit } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let base: string;
let page: StudioPage;
const dir = mkdtempSync(join(tmpdir(), 'rhabdoplex-e2e-'));
session(
  120_000,
  (s) => {
    ({ driver, base, page } = s);
  },
  'both',
);
const cards = async (): Promise<string[]> =>
  Promise.all(
    (await driver.findElements(By.css('main li button[data-open]'))).map(
      async (b) => (await b.getAttribute('data-open'))!,
    ),
  );
const pick = async (file: string): Promise<void> =>
  (await driver.findElement(By.css('input[type=file]'))).sendKeys(file);

/** Every example is a card of the demo set. */
const DEMO = readdirSync('examples').filter((name) => name.endsWith('.json')).length;

test('the demo set is there, with pictures of its own poses', async () => {
  await page.begin();
  await eventually(driver, 'the set', async () => (await cards()).length === DEMO);
  await eventually(driver, 'pictures', async () => (await driver.findElements(By.css('main li svg path'))).length > 20);
});

test('a card further down gets its picture once it is in sight, and has it from the start the next time', async () => {
  const last = '(//main//li)[last()]';
  const pictured = async (): Promise<boolean> =>
    (await driver.findElements(By.xpath(`${last}//*[name()="svg"][@role="img"]//*[name()="path"]`))).length > 0;
  /** Scrolls to it; how many cards were posed until it was drawn. */
  const posedForIt = async (): Promise<number> => {
    await driver.executeScript(`
      const plain = Worker.prototype.postMessage;
      window.posed = 0;
      Worker.prototype.postMessage = function (message, ...rest) {
        if (message?.path?.[0] === 'glance') window.posed++;
        return plain.call(this, message, ...rest);
      };`);
    await driver.executeScript('arguments[0].scrollIntoView()', await driver.findElement(By.xpath(last)));
    await page.pictured();
    expect(await pictured()).toBe(true);
    return driver.executeScript<number>('return window.posed');
  };
  expect(await pictured()).toBe(false);
  expect(await posedForIt()).toBeGreaterThan(0);
  await page.begin();
  await eventually(driver, 'the set', async () => (await cards()).length === DEMO);
  expect(await posedForIt()).toBe(0);
});

test('before a card is opened less than 300 kB of script are loaded', async () => {
  const bytes = await driver.executeScript<number>(
    `return performance.getEntriesByType('resource').filter((e) => new URL(e.name).pathname.endsWith('.js'))
       .reduce((sum, e) => sum + e.encodedBodySize, 0);`,
  );
  expect(bytes).toBeGreaterThan(50_000);
  expect(bytes).toBeLessThan(300_000);
});

test('a card is duplicated, removed, and put back', async () => {
  await (await find(driver, '[aria-label="Duplicate Terrace night"]')).click();
  await eventually(driver, 'one more', async () => (await cards()).length === DEMO + 1);
  await (await find(driver, '[aria-label="Remove Terrace night, again"]')).click();
  await eventually(driver, 'the set', async () => (await cards()).length === DEMO);
  await (await findText(driver, 'button', 'Put it back')).click();
  await eventually(driver, 'four cards again', async () => (await cards()).includes('Terrace night, again'));
});

test.each([
  ['a truncated file', '{"rhabdoplex":1,"name":', /cut short.*Nothing was lost/],
  ['a newer file', JSON.stringify({ rhabdoplex: 7 }), /newer.*Nothing was lost/],
  [
    'a file with a script in a colour',
    JSON.stringify({
      ...JSON.parse(readFileSync('examples/terrace-night.json', 'utf8')),
      dressing: [{ facet: 'leafA', colour: '<script>', mats: [] }],
    }),
    /colour.*Nothing was lost/,
  ],
])('%s is refused, naming the place', async (_, text, message) => {
  const file = join(dir, 'bad.json');
  writeFileSync(file, text);
  const before = await cards();
  await pick(file);
  await eventually(driver, 'the message', async () =>
    message.test(await (await find(driver, '[role=alert]')).getText()),
  );
  expect(await cards()).toEqual(before);
});

test('a file dropped on the page is opened', async () => {
  const text = readFileSync('examples/refractor-evening.json', 'utf8').replace('Refractor evening', 'Dropped card');
  await driver.executeScript(
    `const dataTransfer = new DataTransfer();
     dataTransfer.items.add(new File([arguments[0]], 'card.json', { type: 'application/json' }));
     document.querySelector('main').dispatchEvent(new DragEvent('drop', { bubbles: true, dataTransfer }));`,
    text,
  );
  await find(driver, '[data-testid=posed] canvas');
  await eventually(
    driver,
    'its name',
    async () =>
      (await (await find(driver, '[aria-label="Name of the card"]')).getAttribute('value')) === 'Dropped card',
  );
  expect(await page.proved()).toBe('Ready to cut');
});

test('two faults are found and their remedies clear them', async () => {
  await page.openCard('Sky survey (two faults)');
  expect(await page.proved()).toBe('Do not cut yet');
  await page.stage('Prove');
  await eventually(driver, 'both findings', async () => (await page.findings()).join() === 'overhang,web');
  await (
    await eventually(
      driver,
      'a remedy',
      async () =>
        (await driver.findElements(By.xpath('//article[@data-finding="overhang"]//button[contains(., "Depth")]')))[0],
    )
  ).click();
  await eventually(driver, 'one finding', async () => (await page.findings()).join() === 'web');
  await (
    await eventually(
      driver,
      'a remedy',
      async () =>
        (
          await driver.findElements(By.xpath('//article[@data-finding="web"]//button[contains(., "Along the crease")]'))
        )[0],
    )
  ).click();
  await eventually(driver, 'none left', async () => (await page.findings()).length === 0);
  expect(await page.proved()).toBe('Ready to cut');
});

test('an address of no card says so and leads back', async () => {
  await visit(driver, `${base}/card?id=nothing`);
  expect(await (await findText(driver, 'p', 'not in this browser')).isDisplayed()).toBe(true);
});

test('a running server proves for a script', async () => {
  const answer = await fetch(`${base}/api/prove?steps=6`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: readFileSync('examples/sky-survey.json'),
  });
  expect(((await answer.json()) as { verdict: string }).verdict).toBe('blocked');
  expect(
    (await fetch(`${base}/api/prove`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{' }))
      .status,
  ).toBe(400);
});

test('who chose inches once begins in inches, on marks of a ruler; a field takes a sum', async () => {
  await page.beginCard();
  await page.stage('Brief');
  await (await findText(driver, 'label', 'inches')).click();
  await page.saved();
  await page.beginCard();
  await page.stage('Brief');
  expect(await page.valueOf('gutter')).toBe('7 7/8');
  await page.type('reachA', '10 1/4 / 2');
  await eventually(driver, 'half of it', async () => (await page.valueOf('reachA')) === '5 1/8');
  // The list of cards says the size that the Brief says.
  await eventually(driver, 'the size', async () => (await page.text()).includes('5 1/8 × 7 7/8 in closed'));
  await page.saved();
  await page.begin();
  await eventually(driver, 'the same size', async () => (await page.text()).includes('5 1/8 × 7 7/8 in closed'));
  await driver.executeScript(`localStorage.removeItem('rhabdoplex.units')`);
});

test('the version stands at the foot of the list', async () => {
  await page.begin();
  await eventually(driver, 'it', async () => (await page.text()).includes(`Version ${packageJson.version}`));
});
