/** Deciding with numbers, in the browser: variants, search, map, scatter, wear. */
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { idsIn } from '../src/core/tests/id-like';
import { brokenRules } from './support/access';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';
import { wordsOnPage } from './support/words';

/** Of a card as it is begun. */
const REACH_MM = 140;
let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});
const withControl = (key: string): Promise<void> =>
  driver.actions().keyDown(Key.CONTROL).sendKeys(key).keyUp(Key.CONTROL).perform();
const tab = async (name: string): Promise<void> => void (await click(driver, `[role=tab][data-value="${name}"]`));
const within = (id: string, name: string) => findText(driver, `*[@data-testid="${id}"]//button`, name);
const textOf = async (css: string): Promise<string> => (await find(driver, css)).getText();
const numbersOfCard = async (): Promise<string> => {
  await page.stage('Build');
  await click(driver, '[data-mechanism=step-fold-1]');
  const said = `${await page.valueOf('depth')} ${await page.valueOf('height')}`;
  await page.stage('Prove');
  return said;
};

beforeAll(async () => {
  await page.beginCard();
  await page.press('n');
  await (await find(driver, '[data-kind=step-fold]')).click();
  await page.type('depth', '40');
  await page.type('height', '30');
  await page.proved();
  await page.stage('Prove');
});

test('a variant is kept, compared, taken over and exchanged; undo brings all back', async () => {
  await tab('variants');
  await (await find(driver, '[aria-label="Name of the variant"]')).sendKeys('Low', Key.ENTER);
  await find(driver, '[data-variant=Low]');
  await page.stage('Build');
  await click(driver, '[data-mechanism=step-fold-1]');
  await page.type('height', '36');
  await page.type('depth', '44');
  await page.stage('Prove');
  await tab('variants');
  await eventually(
    driver,
    'both verdicts',
    async () =>
      /clear/.test(await textOf('[data-verdict-of="The card"]')) && /clear/.test(await textOf('[data-verdict-of=Low]')),
  );
  await (await within('variants', 'Differences')).click();
  await click(driver, '[aria-label="Take over Height of Step"]');
  expect(await numbersOfCard()).toBe('44 30');
  await tab('variants');
  await (await within('variants', 'Exchange with the card')).click();
  await find(driver, '[data-variant="before Low"]');
  expect(await numbersOfCard()).toBe('40 30');
  await withControl('z');
  expect(await numbersOfCard()).toBe('44 30');
  await withControl('z');
  expect(await numbersOfCard()).toBe('44 36');
});

test('a search is given up, then finds an answer, which is taken and undone', async () => {
  await tab('search');
  const value = await find(driver, 'input[name="want-value"]');
  await value.click();
  await value.sendKeys(Key.chord(Key.CONTROL, 'a'), '52', Key.ENTER);
  const free = await find(driver, '[data-testid="free-0"]');
  await free.sendKeys('Step: Height');
  await (await within('search', 'Search')).click();
  await (await within('search', 'Give up')).click();
  await within('search', 'Search');
  expect(await driver.findElements(By.css('[data-testid=found]'))).toHaveLength(0);
  await (await within('search', 'Search')).click();
  await eventually(driver, 'an answer', async () => /One answer, proved/.test(await textOf('[data-testid=found]')));
  await (await within('search', 'Take it')).click();
  // The lift at 90 degrees is the height of a step (handbook 2).
  expect(await numbersOfCard()).toBe('44 52');
  await withControl('z');
  expect(await numbersOfCard()).toBe('44 36');
});

test('a wish starts from what the card is, and is looked at in the state that is shown', async () => {
  await tab('search');
  const openField = async (): Promise<string | null> =>
    (await find(driver, '[data-testid=search] input[name="want-open"]')).getAttribute('value');
  expect(await openField()).toBe('90');
  await (await findText(driver, 'button', 'flat')).click();
  await (await find(driver, '[data-testid=search] [aria-label=State]')).sendKeys('as it stands now');
  await eventually(driver, 'flat', async () => (await openField()) === '180');
  const measure = await find(driver, '[data-testid=search] [aria-label=Measure]');
  await measure.sendKeys('Step: ridge above side A');
  // The ridge of a step stands as high as the step (handbook 2).
  const wished = async (): Promise<string | null> =>
    (await find(driver, '[data-testid=search] input[name="want-value"]')).getAttribute('value');
  await eventually(driver, 'the height of the step', async () => (await wished()) === '36');
});

test('a map is drawn, and a click goes there', async () => {
  await tab('map');
  await (await find(driver, '[data-testid=map] [aria-label=Measure]')).sendKeys('Step: ridge above side A');
  await (await within('map', 'Draw the map')).click();
  await eventually(
    driver,
    'the whole map',
    async () => (await driver.findElements(By.css('[data-testid=map-picture] rect[data-verdict]'))).length > 150,
  );
  const r = await driver.executeScript<number[]>(
    `const e = document.querySelector('[data-testid=map-picture]'); e.scrollIntoView({ block: 'center' });
     const r = e.getBoundingClientRect(); return [r.left, r.top, r.width, r.height];`,
  );
  const before = await numbersOfCard();
  // What was found is there again when the pane is.
  await tab('map');
  await find(driver, '[data-testid=map-picture] rect[data-verdict=clear]');
  await driver
    .actions({ async: true })
    .move({ x: Math.round(r[0] + r[2] * 0.3), y: Math.round(r[1] + r[3] * 0.8) })
    .click()
    .perform();
  expect(await numbersOfCard()).not.toBe(before);
  await withControl('z');
  expect(await numbersOfCard()).toBe(before);
  await tab('map');
  const picture = await find(driver, '[data-testid=map-picture]');
  await driver.actions().move({ origin: picture, x: -31, y: 47 }).perform();
  // What is read is of the place and not of its cell: the ridge of a step stands as high as the step (handbook 2).
  await eventually(driver, 'the height of just this place', async () => {
    const [, height, ridge] =
      /Height of Step: ([\d.]+) mm \(up\)[^]* is ([\d.]+) mm/.exec(await textOf('[data-testid=map]')) ?? [];
    return height !== undefined && Number(ridge) === Number(height);
  });
});

test('led over the map it stays out of what is blocked; Escape gives it back', async () => {
  await tab('map');
  const lead = async (): Promise<ReturnType<WebDriver['actions']>> => {
    const origin = await find(driver, '[data-testid=map-picture]');
    return driver
      .actions()
      .move({ origin, x: -60, y: 60 })
      .press()
      .move({ origin, x: 60, y: -60, duration: 200 })
      .move({ origin, x: 140, y: -140, duration: 200 });
  };
  const before = await numbersOfCard();
  await tab('map');
  await (await lead()).sendKeys(Key.ESCAPE).release().perform();
  expect(await numbersOfCard()).toBe(before);
  await tab('map');
  await (await lead()).release().perform();
  const [depth, height] = (await numbersOfCard()).split(' ').map(Number);
  // It folds in while depth + height is within the reach of its leaf (handbook 2); a finest cell is some mm wide.
  expect(depth + height).toBeLessThanOrEqual(REACH_MM);
  expect(depth + height).toBeGreaterThan(REACH_MM - 12);
  await withControl('z');
  expect(await numbersOfCard()).toBe(before);
});

test('a study is made to its end', async () => {
  await tab('scatter');
  const made = await find(driver, 'input[name="made"]');
  await made.click();
  await made.sendKeys(Key.chord(Key.CONTROL, 'a'), '120', Key.ENTER);
  await (await within('scatter', 'Make 120 cards')).click();
  await find(driver, '[data-testid=study][data-done=true]');
  const told = await textOf('[data-testid=study]');
  expect(told).toMatch(/% come out well/);
  expect(told).toMatch(/scoring: base of Step/);
  await find(driver, '[data-testid=worst-overhang] svg path');
});

test('wear has its places and numbers', async () => {
  await tab('wear');
  await eventually(driver, 'the gutter', async () => /gutter bends by 180°/.test(await textOf('[data-testid=wear]')));
});

test.each(['what-if', 'variants', 'search', 'map', 'scatter', 'wear'])(
  '%s: no ids, nothing that keeps people out',
  async (id) => {
    await tab(id);
    await driver.sleep(500);
    expect(idsIn(await wordsOnPage(driver))).toEqual([]);
    expect(await brokenRules(driver)).toEqual([]);
  },
);
