/** WCAG 2.2 A and AA on every stage and dialog, light and dark; and words instead of ids wherever one looks. */
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { idsIn } from '../src/core/tests/id-like';
import { brokenRules } from './support/access';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';
import { wordsOnPage } from './support/words';

let driver: WebDriver;
let page: StudioPage;
session(240_000, (s) => {
  ({ driver, page } = s);
});

const STAGES = ['Brief', 'Build', 'Dress', 'Prove', 'Sheets', 'Make'];
const theme = async (dark: boolean): Promise<void> => {
  await driver.executeScript(`document.documentElement.classList.toggle('dark', ${dark})`);
};
const proved = async (): Promise<void> => {
  await eventually(driver, 'the verdict to be spoken', async () => {
    const spoken = await driver.findElement(By.css('[data-testid=spoken]'));
    return ((await spoken.getAttribute('textContent')) ?? '').length > 5;
  });
};

test('the start page', async () => {
  await page.begin();
  await find(driver, 'main li svg path');
  expect(await brokenRules(driver)).toEqual([]);
  await theme(true);
  expect(await brokenRules(driver)).toEqual([]);
  await theme(false);
  await (await findText(driver, 'button', 'Begin from')).click();
  await find(driver, 'dialog[open] [data-begin=step-fold]');
  expect(await brokenRules(driver)).toEqual([]);
  await page.press(Key.ESCAPE);
});

test('what ships is listed, with its licences', async () => {
  await (await findText(driver, 'a', 'what ships with it')).click();
  await find(driver, 'main table td');
  expect(await (await find(driver, 'main')).getText()).toMatch(/next .*MIT/);
  expect(await brokenRules(driver)).toEqual([]);
});

test('every stage, light and dark, with something selected', async () => {
  await page.show('both');
  await page.openCard('Terrace night');
  await proved();
  for (const dark of [false, true]) {
    await theme(dark);
    for (const stage of STAGES) {
      await page.stage(stage);
      if (stage === 'Build') {
        await click(driver, '[data-mechanism=gallery]');
        await find(driver, '[data-grip]');
      }
      await driver.sleep(700);
      expect([stage, dark, await brokenRules(driver)]).toEqual([stage, dark, []]);
    }
  }
  await theme(false);
});

test('every dialog', async () => {
  await page.stage('Build');
  const dialog = async (open: () => Promise<void>): Promise<void> => {
    await open();
    await find(driver, 'dialog[open]');
    await driver.sleep(500);
    expect(await brokenRules(driver)).toEqual([]);
    await page.press(Key.ESCAPE);
    await eventually(driver, 'no dialog', async () => (await driver.findElements(By.css('dialog[open]'))).length === 0);
  };
  await dialog(() => page.press('n'));
  await dialog(() => page.press('?'));
  await dialog(async () => (await find(driver, '[aria-label="Picture or film…"]')).click());
  // A mechanism's own page.
  await dialog(async () => {
    await page.press('n');
    await (await findText(driver, 'dialog//button', 'About step')).click();
    await find(driver, '[data-testid=kind-guide]');
  });
  await page.stage('Dress');
  await dialog(async () => (await findText(driver, 'button', 'Bring in a shape')).click());
  await dialog(async () => (await findText(driver, 'button', 'Whole template')).click());
});

test('at 200 % text, in a window of 1280 pixels, no stage asks to be scrolled sideways', async () => {
  await page.stage('Build');
  await driver.executeScript(`document.documentElement.style.fontSize = '200%'`);
  for (const stage of STAGES) {
    await page.stage(stage);
    const wide = await driver.executeScript<number>(`return document.documentElement.scrollWidth - innerWidth`);
    expect([stage, wide <= 0]).toEqual([stage, true]);
  }
  await driver.executeScript(`document.documentElement.style.fontSize = ''`);
});

describe('no id stands where words belong', () => {
  // What the proof, the steps and the lists of every card say is looked through in src/core/tests/words.test.ts, and
  // what the views say in src/workers/scene-words.test.ts; paper in space says nothing.
  beforeAll(() => page.show('flat'));
  test('in the list of cards', async () => {
    await page.begin();
    await find(driver, 'main li svg path');
    expect(idsIn(await wordsOnPage(driver))).toEqual([]);
  });
  // On creases, on faces and in the hand, on a base that stands.
  test.each(['Terrace night', 'Meteor night', 'Dome on the shelf'])('on any stage of %s', async (name) => {
    await page.openCard(name);
    for (const stage of STAGES) {
      await page.stage(stage);
      await driver.sleep(200);
      expect([stage, idsIn(await wordsOnPage(driver))]).toEqual([stage, []]);
    }
  });
});

test('single letters are keys until they are switched off', async () => {
  await page.openCard('Dome note');
  await page.press('?');
  const box = await find(driver, 'dialog[open] input[type=checkbox]');
  await box.click();
  await page.press(Key.ESCAPE);
  await eventually(driver, 'no dialog', async () => (await driver.findElements(By.css('dialog[open]'))).length === 0);
  await page.press('n');
  await driver.sleep(400);
  expect(await driver.findElements(By.css('dialog[open]'))).toHaveLength(0);
  await driver.executeScript(`localStorage.removeItem('rhabdoplex.keys')`);
});
