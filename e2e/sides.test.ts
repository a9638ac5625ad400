/** Both sides of the sheet, what lies between sheets, and every kind moved by hand put on once, in the browser. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let downloads: string;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, downloads, page } = s);
});

const sideUp = async (): Promise<string | null> => (await find(driver, '[data-side]')).getAttribute('data-side');
const count = async (css: string): Promise<number> => (await driver.findElements(By.css(css))).length;
const pickSide = async (side: string): Promise<void> => {
  await (await findText(driver, 'section[@aria-label="Dressing"]//label', side)).click();
};

test('the sheet is turned over by key and by button, and is its mirror image', async () => {
  await page.beginCard();
  await page.stage('Dress');
  // Leaf A is above the gutter on either side; what is left of its middle inside is right of it outside.
  const left = async (): Promise<number> => (await (await find(driver, '[data-facet=leafA]')).getRect()).x;
  const before = await left();
  await page.press('o');
  await eventually(driver, 'the outside up', async () => (await sideUp()) === 'outside');
  expect(Math.abs((await left()) - before)).toBeLessThan(2);
  await (await find(driver, '[aria-label="outside up; turn the sheet over"]')).click();
  await eventually(driver, 'the inside up', async () => (await sideUp()) === 'inside');
});

test('a mat and a shape are put outside: seen there, on the cover, in the cut list, and kept', async () => {
  await (await findText(driver, 'button', 'Facet and mats')).click();
  await click(driver, '[data-facet=leafB]');
  await pickSide('outside');
  await eventually(driver, 'the outside up', async () => (await sideUp()) === 'outside');
  await (await findText(driver, 'button', 'Add a mat')).click();
  await eventually(driver, 'the mat', async () => (await page.text()).includes('Mat 1'));
  await page.type('size', '4 1/2in x 90');
  await eventually(driver, 'the mat at its size', async () => (await page.text()).includes('Mat 1: 114.3 × 90 mm'));
  await (await findText(driver, 'button', 'Shapes')).click();
  await (await findText(driver, 'button', 'Bring in a shape…')).click();
  await click(driver, 'dialog[open] [data-starter]');
  await find(driver, '[data-testid=shape-figures]');
  await click(driver, 'dialog[open] [data-use=layer]');
  await eventually(driver, 'the layer', async () => (await count('[data-side=outside] [data-layer]')) === 1);
  // It is of the outside: turned over it is not there.
  await page.press('o');
  await eventually(driver, 'no layer inside', async () => (await count('[data-layer]')) === 0);
  expect(await page.proved()).not.toBe('Do not cut yet');
  await page.stage('Brief');
  await find(driver, '[data-testid=cover] [data-part="leafB.outer-mat-1"]');
  await page.stage('Make');
  await (await findText(driver, 'label', 'cut list')).click();
  const outer = async (): Promise<number> =>
    (await driver.findElements(By.xpath('//td[contains(., ", outside")]'))).length;
  await eventually(driver, 'both in the cut list', async () => (await outer()) === 2);
  await page.saved();
  await driver.navigate().refresh();
  await page.stage('Brief');
  await find(driver, '[data-testid=cover] [data-part="leafB.outer-mat-1"]');
});

test('what is drawn on the outside is a file of its own, mirrored, and read back', async () => {
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Layers')).click();
  await (await find(driver, '[data-layer-row]')).click();
  expect(await (await find(driver, '[data-margins]')).getText()).toMatch(/^To the edge, mm: /);
  await (await findText(driver, 'section[@aria-label="Dressing"]//label', 'drawn')).click();
  await page.stage('Make');
  await (await findText(driver, 'main//label', 'outside')).click();
  expect(await count('[data-export=glb]')).toBe(0);
  await (await find(driver, '[data-export=svg]')).click();
  const name = await eventually(driver, 'the file', async () =>
    readdirSync(downloads).find((f) => f.endsWith('-outside.svg')),
  );
  const svg = readFileSync(join(downloads, name), 'utf8');
  expect(svg).toMatch(/<title>.*, outside<\/title>/);
  expect(svg).toContain('data-role="mark"');
  expect(svg).not.toContain('data-role="cut"');
  expect(await page.complaints()).toEqual([]);
});

test.each(['volvelle', 'track-slider', 'lift-tab', 'waterfall', 'carrier-wheel', 'pocket'])(
  '%s is put on by hand, proved, and can be cut',
  async (kind) => {
    await page.beginCard();
    await page.putInside(kind);
    expect(await page.proved()).not.toBe('Do not cut yet');
    expect(await page.mechanisms()).toEqual(['card', `${kind}-1`]);
    // What it sweeps over is drawn on the sheet that carries it.
    await find(driver, `[data-piece=card] [data-sweep^="${kind}-1."]`);
  },
);

test('a spacer is made thicker in the section, and the wheel stands higher', async () => {
  await page.beginCard();
  await page.putInside('carrier-wheel');
  const section = async (): Promise<string> =>
    (await (await find(driver, '[data-section] svg')).getAttribute('aria-label'))!;
  expect(await section()).toContain('Spacer 1 1.00 mm');
  // All of the stack, against the card once it is proved.
  await eventually(driver, 'its height', async () =>
    /^All of it \d+\.\d+ mm; the shut card \d+\.\d+ mm$/.test(
      await (await find(driver, '[data-testid=stack-height]')).getText(),
    ),
  );
  const field = await find(driver, '[data-thickness="spacers[0].thickness"] input');
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '1.5', Key.ENTER);
  await eventually(driver, 'the spacer in the section', async () => (await section()).includes('Spacer 1 1.50 mm'));
  await (await find(driver, '[aria-label=Flat] h2')).click();
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'the spacer as it was', async () => (await section()).includes('Spacer 1 1.00 mm'));
});

test('a disc goes to a stop by its picture', async () => {
  await page.beginCard();
  await page.putInside('volvelle');
  const stops = await eventually(driver, 'its stops', async () => {
    const all = await driver.findElements(By.css('[data-testid=stops] button'));
    return all.length > 1 ? all : null;
  });
  await stops[1].click();
  const turn = await find(driver, '[data-drive="volvelle-1.turn"] input');
  const wanted = /(\d+)/.exec((await stops[1].getAttribute('aria-label'))!)![1];
  await eventually(driver, 'the disc there', async () => (await turn.getAttribute('value')) === wanted);
});
