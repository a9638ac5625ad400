/**
 * The shape workshop and the kinds cut from one sheet, driven as a maker would: drawing, picture, letters, struts,
 * planes, ties, template.
 */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { By, Key, Origin, type WebDriver } from 'selenium-webdriver';
import { click, drag, eventually, find, findText } from './support/browser';
import { greyPng, hollowPng } from './support/png';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
const dir = mkdtempSync(join(tmpdir(), 'rhabdoplex-shapes-'));
session(180_000, (s) => {
  ({ driver, page } = s);
});
const figures = async (): Promise<string> => (await find(driver, '[data-testid=shape-figures]')).getText();
const shut = async (): Promise<void> => {
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  await eventually(
    driver,
    'the dialog to close',
    async () => (await driver.findElements(By.css('dialog[open]'))).length === 0,
  );
};
const bring = async (way: string): Promise<void> => {
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Bring in a shape…')).click();
  await eventually(driver, way, async () => {
    await driver
      .findElement(By.xpath(`//dialog[@open]//button[@role="tab"][contains(., ${JSON.stringify(way)})]`))
      .click();
    return true;
  });
};
const pressIn = async (text: string): Promise<void> => {
  await eventually(driver, text, async () => {
    await driver
      .findElement(By.xpath(`//dialog[@open]//button[contains(normalize-space(.), ${JSON.stringify(text)})]`))
      .click();
    return true;
  });
};

test('a drawing is pasted: true to size, what is no shape is named, and it stands on struts', async () => {
  await page.beginCard();
  await bring('A drawing');
  const area = await find(driver, '#svg-text');
  await area.sendKeys(
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 ' +
      '40"><text>no</text><path d="M0 40V10H20V0H40V10H60V40Z"/></svg>',
  );
  await findText(driver, 'div', 'Left out: text');
  await pressIn('Keep this drawing');
  await eventually(driver, 'its size', async () => /60(\.00?)? × 40(\.00?)? mm/.test(await figures()));
  expect(await figures()).toContain('2000.0 mm²');
  await click(driver, '[data-use=strut-figure]');
  await eventually(driver, 'a figure', async () => (await page.mechanisms()).includes('strut-figure-1'));
  expect(await page.proved()).not.toMatch(/Do not cut/);
});

test('struts are taken by hand, moved by dragging and by number, and found again', async () => {
  await eventually(driver, 'the trade', async () => (await driver.findElements(By.css('[data-trade]'))).length >= 4);
  const before = (await driver.findElements(By.css('[data-handle*=".ridge-"]'))).length;
  expect(before).toBeGreaterThan(0);
  const handle = await find(driver, '[data-handle="strut-figure-1.ridge-1"]');
  await drag(driver, handle, 6);
  await eventually(
    driver,
    'a list of struts',
    async () => (await driver.findElements(By.css('[data-list=struts] [data-entry]'))).length === before,
  );
  await page.type('struts[0].width', '9');
  await eventually(driver, 'the width', async () => /^9/.test(await page.valueOf('struts[0].width')));
  await click(driver, '[aria-label="Add to Struts"]');
  await eventually(
    driver,
    'one more',
    async () => (await driver.findElements(By.css('[data-list=struts] [data-entry]'))).length === before + 1,
  );
  await click(driver, `[aria-label="Remove Struts ${before + 1}"]`);
  await page.stage('Build');
  await (await findText(driver, 'button', 'Find them')).click();
  await eventually(
    driver,
    'none by hand',
    async () => (await driver.findElements(By.css('[data-list=struts] [data-entry]'))).length === 0,
  );
});

test('a picture is traced as the threshold is set, and kept at its size', async () => {
  const file = join(dir, 'moon.png');
  writeFileSync(
    file,
    greyPng(120, 120, (x, y) => Math.hypot(x - 60, y - 60) < 45 && Math.hypot(x - 60, y - 60) > 20),
  );
  await bring('A picture');
  const [vast, cut] = [join(dir, 'vast.png'), join(dir, 'cut.png')];
  writeFileSync(vast, hollowPng(16_000, 16_000));
  writeFileSync(cut, readFileSync(file).subarray(0, 150));
  await (await find(driver, '[aria-label=Picture]')).sendKeys(vast);
  await findText(driver, '*[@role="alert"]', 'it has 16000 × 16000 pixels; at most 64 million are read');
  await (await find(driver, '[aria-label=Picture]')).sendKeys(cut);
  await findText(driver, '*[@role="alert"]', 'cut.png was not taken: it does not open as a picture');
  await (await find(driver, '[aria-label=Picture]')).sendKeys(file);
  await eventually(
    driver,
    'an outline',
    async () => (await driver.findElements(By.css('[aria-label="Traced outline"]'))).length === 1,
  );
  await pressIn('Keep this outline');
  await eventually(driver, 'its height', async () => / 60(\.00?)? mm/.test(await figures()));
  // A ring of 60 mm whose hole is 20/45 of it (closed form), within four percent: its pixels are whole ones.
  const mm2 = Number(/([\d.]+) mm²/.exec(await figures())![1]);
  expect(Math.abs(mm2 / (Math.PI * 900 * (1 - (20 / 45) ** 2)) - 1)).toBeLessThan(0.04);
  expect(await figures()).toMatch(/1 island falls out/);
});

test('one click makes it safe to cut; a tie is turned; steps are undone to the same shape', async () => {
  const before = await figures();
  await pressIn('Make it safe to cut');
  await eventually(driver, 'ties', async () => (await driver.findElements(By.css('[data-tie]'))).length === 2);
  await eventually(driver, 'no island left', async () => !/island/.test(await figures()));
  const tied = await figures();
  await (await find(driver, '[data-tie]')).sendKeys(Key.ARROW_LEFT);
  await eventually(
    driver,
    'a turned tie',
    async () =>
      (await driver.findElements(By.css('[data-step=ties]'))).length === 1 &&
      (await figures()) !== '' &&
      (await driver.findElements(By.css('[data-tie]'))).length === 2,
  );
  await click(driver, '[aria-label="Remove step 1"]');
  await eventually(driver, 'the ring again', async () => (await figures()) === before);
  expect(tied).not.toBe(before);
  await shut();
});

test('letters become a window that is proved', async () => {
  await bring('Letters');
  await pressIn('Keep these letters');
  await eventually(driver, 'its size', async () => /mm²/.test(await figures()));
  await click(driver, '[data-use=window]');
  await eventually(
    driver,
    'a layer',
    async () =>
      (await driver.findElements(By.css('[data-piece=card] .facet'))).length > 0 &&
      (await page.text()).includes('Layers'),
  );
  await (await findText(driver, 'button', 'Layers')).click();
  await eventually(driver, 'its row', async () => (await driver.findElements(By.css('[data-layer-row]'))).length === 1);
});

test('a layer is dragged with snapping that says to what, and moved by arrow keys', async () => {
  await (await findText(driver, 'button', 'Shapes')).click();
  await click(driver, '[data-asset]');
  await click(driver, '[data-use=layer]');
  await (await findText(driver, 'button', 'Layers')).click();
  const layer = await find(driver, '[data-layer]');
  const name = (await layer.getAttribute('data-layer'))!;
  await driver
    .actions()
    .move({ origin: layer })
    .press()
    .move({ origin: Origin.POINTER, x: 30, y: 14 })
    .move({ origin: Origin.POINTER, x: -30, y: 2 })
    .perform();
  expect(await (await find(driver, '[data-testid=snap-name]')).getText()).toMatch(/middle of the back/);
  await driver.actions().release().perform();
  await click(driver, `[data-layer-row="${name}"]`);
  await eventually(driver, 'its place', async () => /^0/.test(await page.valueOf('layer-x')));
  await (await find(driver, `[data-layer-row="${name}"]`)).sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT);
  await eventually(driver, 'two to the right', async () => /^2/.test(await page.valueOf('layer-x')));
});

/** A card of its own with a word kept among its shapes, open in the workshop. */
async function keptWord(): Promise<void> {
  await page.beginCard();
  await bring('Letters');
  await pressIn('Keep these letters');
  await eventually(driver, 'its size', async () => /mm²/.test(await figures()));
}

test('each letter is a figure of its own, all their depths in one table', async () => {
  await keptWord();
  // A word falls into parts: what takes one part is not offered it.
  await eventually(driver, 'its size', async () => /mm²/.test(await figures()));
  expect(await driver.findElements(By.css('[data-use=folded-figure]'))).toEqual([]);
  await pressIn('Each letter on its own struts');
  await find(driver, '[data-testid=several]');
  const ids = (await page.mechanisms()).filter((id) => id !== 'card');
  expect(ids.length).toBeGreaterThan(2);
  const depths = () => Promise.all(ids.map((id) => page.valueOf(`depth of ${id}`)));
  const before = await depths();
  await page.type(`depth of ${ids[1]}`, '33');
  await eventually(driver, 'the second, and no other', async () => {
    const now = await depths();
    return now.every((mm, k) => mm === (k === 1 ? '33' : before[k]));
  });
});

test('the line that letters of a plane are cut along is shown, and moved by key', async () => {
  await keptWord();
  await pressIn('As a plane');
  const line = await find(driver, '[data-testid=letters-on-line] [role=slider]');
  await findText(driver, 'p', 'touch the line');
  const asked = () => page.valueOf('contact');
  const before = Number(await asked());
  await line.sendKeys(Key.ARROW_UP);
  await eventually(driver, 'half a millimetre more', async () => Number(await asked()) === before + 0.5);
  // Drawn further up, the letters are wider where they stand.
  await driver.actions().move({ origin: line, y: 30 }).press().move({ origin: line, y: -10 }).perform();
  await findText(driver, 'p', 'letters would touch by');
  await driver.actions().release().perform();
  await eventually(driver, 'the drag', async () => Number(await asked()) !== before + 0.5);
});

test('a plane is dragged against the limit line, and the proof says when it is past it', async () => {
  await page.openCard('Night ridge');
  await page.proved();
  await click(driver, '[data-mechanism=planes]');
  const top = await find(driver, '[data-plane-handle="0.top"]');
  await find(driver, '[data-testid=limit-line]');
  await driver.actions().move({ origin: top }).press().move({ origin: Origin.POINTER, x: 0, y: -30 }).perform();
  await eventually(driver, 'the room, live', async () =>
    /room/.test(await (await find(driver, '[data-testid=plane-room]')).getText()),
  );
  await driver.actions().release().perform();
  await eventually(driver, 'a new height', async () => parseFloat(await page.valueOf('planes[0].height')) > 80);
  await page.type('planes[0].height', '125');
  expect(await page.proved()).toMatch(/Do not cut/);
  expect(await page.findings()).toContain('overhang');
});

test('a shape is folded and glued by one half on the facet that is picked; its other half is lifted', async () => {
  await page.beginCard();
  await bring('A drawing');
  const drawing = await find(driver, '#svg-text');
  await drawing.sendKeys(
    '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 4 4">' +
      '<path d="M0 0H4V4H0Z"/></svg>',
  );
  await pressIn('Keep this drawing');
  await click(driver, '[data-use=folded-figure]');
  await find(driver, '[data-drive="folded-figure-1.lift"]');
  expect(await page.valueOf('fold')).toBe('0');
  expect(await page.proved()).toBe('Ready to cut');
});

test('a shape kept in another card goes straight into the field that asks for it, with its steps', async () => {
  await page.beginCard();
  await page.press('n');
  await click(driver, 'dialog[open] [data-kind=strut-figure]');
  const field = '[data-shape-field=shape]';
  await eventually(driver, 'its field', async () => (await driver.findElements(By.css(field))).length === 1);
  await (await find(driver, field)).findElement(By.xpath('.//button[contains(., "Bring in a shape")]')).click();
  await pressIn('Other cards');
  // The ridge of the skyline card is there with the other shapes of the demo set.
  await click(driver, 'dialog[open] [data-borrow=ridge-line]');
  await eventually(
    driver,
    'the dialog to close',
    async () => (await driver.findElements(By.css('dialog[open]'))).length === 0,
  );
  await eventually(
    driver,
    'the shape in the field',
    async () => (await (await find(driver, `${field} select`)).getAttribute('value')) === 'ridge-line',
  );
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(
    driver,
    'undone in one step',
    async () => (await (await find(driver, `${field} select`)).getAttribute('value')) === '-',
  );
});

test('a whole template is brought in, its faults mended, and folds', async () => {
  await page.beginCard();
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Whole template…')).click();
  const file = join(dir, 'gatefold.svg');
  writeFileSync(
    file,
    '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="160mm" viewBox="0 0 200 160"><g ' +
      'id="Cut" fill="none" stroke="#000"><rect x="10" y="10" width="180" height="140"/><path d="M70 60V110M130 60V110"/></g><g id="Valley" fill="none" stroke="#00f"><path d="M10 80H68.5"/><path d="M130 80H190"/><path d="M70 60H130"/><path d="M70 110H130"/></g><g id="Mountain" fill="none" stroke="#f00"><path d="M70 90H130"/></g></svg>',
  );
  await (await find(driver, '[aria-label="Template file"]')).sendKeys(file);
  await findText(driver, 'li', 'ends in air');
  await pressIn('Mend what can be mended');
  await eventually(driver, 'mended', async () => (await page.text()).includes('Mended; click to take back'));
  await pressIn('Make it the card');
  await eventually(
    driver,
    'four facets',
    async () => (await driver.findElements(By.css('[data-piece=card] .facet'))).length === 4,
  );
  expect(await page.proved()).not.toMatch(/Do not cut/);
  expect(await page.complaints()).toEqual([]);
});
