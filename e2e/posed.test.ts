/** The posed view in the hand: picked from, measured, turned, and drawn out by pointer, finger and pen. */
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(
  180_000,
  (s) => {
    ({ driver, page } = s);
  },
  'both',
);

interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
const boxOf = (css: string): Promise<Box> =>
  driver.executeScript(
    `const r = document.querySelector(arguments[0]).getBoundingClientRect();
     return { x: r.left, y: r.top, w: r.width, h: r.height };`,
    css,
  );
const CANVAS = '[data-testid=posed] canvas';
const moveTo = (x: number, y: number) => driver.actions({ async: true }).move({ x: Math.round(x), y: Math.round(y) });
const view = async (name: string): Promise<void> => (await findText(driver, 'button', name)).click();
const note = async (): Promise<string> => (await find(driver, '[data-testid=hold-note]')).getText();
/** What the rulers show: it changes with the eye. */
const rulers = (): Promise<string> =>
  driver.executeScript(
    `return [...document.querySelectorAll('[title^="True at"] text')].map((t) => t.textContent + ' ' +
       t.closest('g[transform]').getAttribute('transform').replace(/[0-9.]+/g, (n) => Math.round(n))).join()`,
  );
const changes = async (what: string, act: () => Promise<unknown>): Promise<void> => {
  const before = await rulers();
  await act();
  await eventually(driver, what, async () => (await rulers()) !== before);
};

beforeAll(async () => {
  await page.beginCard();
  await page.press('n');
  await (await find(driver, '[data-kind=step-fold]')).click();
  await page.type('depth', '40');
  await page.type('height', '24');
  await find(driver, CANVAS);
  await eventually(driver, 'rulers', async () => (await rulers()) !== '');
});

test('nothing moves on the page when the proof arrives', async () => {
  const all = (): Promise<string> =>
    driver.executeScript(
      `return [...document.querySelectorAll('section, aside, canvas, svg.flat-drawing, .flat-drawing')].map((e) => {
         const r = e.getBoundingClientRect();
         return [r.left, r.top, r.width, r.height].map(Math.round) + (e.getAttribute('viewBox') ?? '');
       }).join(' ')`,
    );
  await page.type('width', '50');
  const before = [await all(), await rulers()];
  await page.proved();
  expect([await all(), await rulers()]).toEqual(before);
});

test('keys turn it, move it and bring it nearer; 0 fits all', async () => {
  const fit = await rulers();
  await driver.executeScript(`document.querySelector('[data-testid=posed]').focus()`);
  // Turned round, the middle of the gutter stays where it is seen; turned up it does not.
  for (const key of [Key.ARROW_UP, '+']) await changes(`a change by ${key}`, () => page.press(key));
  await changes('it to be moved', () =>
    driver.actions().keyDown(Key.SHIFT).sendKeys(Key.ARROW_RIGHT).keyUp(Key.SHIFT).perform(),
  );
  await page.press('0');
  await eventually(driver, 'all of it', async () => (await rulers()) === fit);
});

test('what is selected is fitted, and it is put to true size', async () => {
  await click(driver, '[data-mechanism=step-fold-1]');
  await changes('the selection in the middle', () =>
    click(driver, '[aria-label="Posed view"] [aria-label="Fit what is selected"]'),
  );
  await changes('true size', () => click(driver, '[aria-label="Posed view"] [aria-label^="1:1"]'));
  await driver.actions().sendKeys(Key.ESCAPE).perform();
  // 50 mm of the ruler are as many pixels as style sheets say (CSS Values and Units 4): 96 an inch.
  const px = await driver.executeScript<number>(
    `const at = (label) => { const t = [...document.querySelectorAll('[title^="True at"] text')]
       .find((e) => e.textContent === label);
       return Number(/\\(([-0-9.e]+)/.exec(t.closest('g').getAttribute('transform'))[1]); };
     return at('20') - at('0');`,
  );
  expect(px).toBeCloseTo((20 * 96) / 25.4, 0);
  await click(driver, '[aria-label="Posed view"] [aria-label="Fit all"]');
});

test('a crease is pointed at and asks what is to stand on it', async () => {
  await view('above');
  // The rulers count from the middle of the gutter.
  const { x, y } = await boxOf(CANVAS);
  const [along, at] = await driver.executeScript<number[]>(
    `const mark = (label, way) => [...document.querySelectorAll('[title^="True at"] text')]
       .filter((t) => t.textContent === label)
       .map((t) => t.closest('g[transform]').getAttribute('transform'))
       .map((at) => /translate\\((\\S+) ([^)]+)/.exec(at).slice(1).map(Number))
       .find(([u, v]) => (way === 0 ? v === 0 : u === 0));
     return [mark('50', 0)[0], mark('0', 1)[1]];`,
  );
  await moveTo(x + along, y + at).perform();
  await eventually(
    driver,
    'the gutter to be lit',
    async () => (await driver.findElements(By.css('.flat-drawing .line.lit'))).length > 0,
  );
  await driver.actions({ async: true }).click().perform();
  await find(driver, 'dialog[open] [data-kind=step-fold]');
  await page.press(Key.ESCAPE);
  await view('reader');
});

test('it is measured between both views, as it stands', async () => {
  await (await findText(driver, 'button', 'Measure')).click();
  const flat = await driver.executeScript<number[]>(
    `const r = document.querySelector('[data-testid=measure] path').getBoundingClientRect();
     return [r.left, r.top];`,
  );
  await moveTo(flat[0] + 1, flat[1] + 1)
    .click()
    .perform();
  const { x, y, w, h } = await boxOf(CANVAS);
  await moveTo(x + w / 2, y + h * 0.6).perform();
  await eventually(driver, 'a distance as it stands', async () => /mm as it stands/.test(await note()));
  await (await findText(driver, 'button', 'Measure')).click();
});

type Hand = 'mouse' | 'pen' | 'touch';
const cdp = (name: string, params: object): Promise<void> =>
  (driver as unknown as { sendDevToolsCommand(n: string, p: object): Promise<void> }).sendDevToolsCommand(name, params);
/** Pressed at a place, led by (16, -40) in steps, let go. */
async function ledUp(hand: Hand, x: number, y: number): Promise<void> {
  const pause = (ms: number): Promise<void> => driver.sleep(ms);
  const put = (type: 'Pressed' | 'Moved' | 'Released', dx: number, dy: number): Promise<void> => {
    const at = { x: x + dx, y: y + dy };
    const touch = { Pressed: 'touchStart', Moved: 'touchMove', Released: 'touchEnd' }[type];
    return hand === 'touch'
      ? cdp('Input.dispatchTouchEvent', { type: touch, touchPoints: type === 'Released' ? [] : [at] })
      : cdp('Input.dispatchMouseEvent', {
          type: `mouse${type}`,
          ...at,
          button: 'left',
          buttons: type === 'Released' ? 0 : 1,
          clickCount: 1,
          pointerType: hand,
        });
  };
  await put('Pressed', 0, 0);
  await pause(900);
  for (const k of [0.2, 0.5, 0.8, 1]) {
    await put('Moved', 16 * k, -40 * k);
    await pause(80);
  }
  await put('Released', 16, -40);
}

test.each<Hand>(['mouse', 'pen', 'touch'])('a corner of the card is drawn out by %s', async (hand) => {
  await click(driver, '[data-mechanism=step-fold-1]');
  const { x, y, w, h } = await boxOf(CANVAS);
  const numbers = async (): Promise<string> =>
    (await Promise.all(['depth', 'height', 'width', 'offset'].map((k) => page.valueOf(k)))).join();
  const before = await numbers();
  const isMine = () =>
    driver.executeScript<boolean>(
      `return [...document.querySelectorAll('[data-lit]')].some((e) => /^step-fold-1/.test(e.dataset.lit) &&
         getComputedStyle(e).fill !== 'none')`,
    );
  let led = false;
  for (let k = 0; k < 60 && !led; k++) {
    const at = [x + w * (0.3 + 0.05 * (k % 9)), y + h * (0.3 + 0.05 * Math.floor(k / 9))].map(Math.round);
    await moveTo(at[0], at[1]).perform();
    led = await isMine();
    if (led) await ledUp(hand, at[0], at[1]);
  }
  await eventually(driver, 'a number to follow', async () => (await numbers()) !== before);
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'it as before', async () => (await numbers()) === before);
});
