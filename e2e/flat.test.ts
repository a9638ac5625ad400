/** The flat and the posed view in the hand: drags by pointer, touch and keys against the numbers they should give. */
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { click, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});

type Point = readonly [x: number, y: number];
/** The middle of a grip's line, and pixels for a millimetre of the drawing. */
const gripAt = async (css: string): Promise<{ at: Point; pxPerMm: number }> => {
  await page.settled();
  await find(driver, css);
  return driver.executeScript(
    `const g = document.querySelector(arguments[0]);
     const line = g.querySelector('.grip-reach');
     const m = g.closest('[data-piece]').getScreenCTM();
     const p = line.getPointAtLength(line.getTotalLength() * 0.12).matrixTransform(m);
     return { at: [p.x, p.y], pxPerMm: Math.hypot(m.a, m.b) };`,
    css,
  );
};
const depth = (): Promise<string> => page.valueOf('depth');
const dragTo = (from: Point, to: Point) =>
  // In one row: keys are typed after the pointer has moved, not beside it.
  driver
    .actions()
    .move({ x: Math.round(from[0]), y: Math.round(from[1]) })
    .press()
    .move({ x: Math.round(to[0]), y: Math.round(to[1]), duration: 150 });
const withControl = (key: string): Promise<void> =>
  driver.actions().keyDown(Key.CONTROL).sendKeys(key).keyUp(Key.CONTROL).perform();
/** The note beside the pointer. */
const note = async (): Promise<string> => (await find(driver, '[data-testid=hold-note]')).getText();

beforeAll(async () => {
  await page.beginCard();
  await page.press('n');
  await (await find(driver, '[data-kind=step-fold]')).click();
  await page.type('depth', '40');
  await page.type('height', '24');
  await find(driver, '[data-line="step-fold-1.base"]');
});

test('a crease is dragged: its number goes as far as the pointer', async () => {
  const { at, pxPerMm } = await gripAt('[data-line="step-fold-1.base"]');
  const by = Math.round(-11.3 * pxPerMm);
  await dragTo(at, [at[0], at[1] + by]).perform();
  expect(await note()).toMatch(/^Depth from the crease/);
  await driver.actions({ async: true }).release().perform();
  // Nearer to a whole millimetre, or to what it lines up with, than five pixels it rests there.
  await eventually(driver, 'the depth to follow', async () => {
    const value = Number(await depth());
    return Math.abs(value - (40 - by / pxPerMm)) <= 5.5 / pxPerMm + 0.1 && value !== 40;
  });
});

test('where its room ends is drawn while it is led there', async () => {
  const { at, pxPerMm } = await gripAt('[data-line="step-fold-1.base"]');
  const from = Number(await depth());
  await dragTo(at, [at[0], at[1] - 20]).perform();
  const limit = await find(driver, '[data-limit]');
  expect(await limit.getText()).toBe('fore edge');
  const value = Number(await limit.getAttribute('data-limit'));
  const line = await driver.executeScript<number>(
    `return document.querySelector('[data-limit] path').getBoundingClientRect().top`,
  );
  // The crease of the base goes up the page as the depth grows.
  expect(Math.abs(at[1] - line - (value - from) * pxPerMm)).toBeLessThan(1.5);
  await driver.actions().sendKeys(Key.ESCAPE).release().perform();
  await eventually(
    driver,
    'nothing at rest',
    async () => (await driver.findElements(By.css('[data-limit]'))).length === 0,
  );
});

test('typing during the drag sets it exactly, Escape gives it back', async () => {
  const before = await depth();
  const first = await gripAt('[data-line="step-fold-1.base"]');
  await dragTo(first.at, [first.at[0], first.at[1] - 20])
    .sendKeys('3', '3', '.', '5')
    .release()
    .perform();
  await eventually(driver, 'the typed depth', async () => (await depth()) === '33.5');
  const again = await gripAt('[data-line="step-fold-1.base"]');
  await dragTo(again.at, [again.at[0], again.at[1] - 30])
    .sendKeys(Key.ESCAPE)
    .release()
    .perform();
  expect(await depth()).toBe('33.5');
  await withControl('z');
  await eventually(driver, 'one step back', async () => (await depth()) === before);
});

test('a finger drags it as well', async () => {
  const { at, pxPerMm } = await gripAt('[data-line="step-fold-1.wall"]');
  const cdp = driver as unknown as { sendDevToolsCommand(name: string, params: object): Promise<void> };
  const touch = (type: string, y: number) =>
    cdp.sendDevToolsCommand('Input.dispatchTouchEvent', {
      type,
      touchPoints: type === 'touchEnd' ? [] : [{ x: at[0], y }],
    });
  const before = Number(await page.valueOf('height'));
  await touch('touchStart', at[1]);
  await touch('touchMove', at[1] + 4);
  await touch('touchMove', at[1] + 8 * pxPerMm);
  await touch('touchEnd', 0);
  await eventually(driver, 'the height to follow', async () => {
    const value = Number(await page.valueOf('height'));
    return Math.abs(value - before - 8) <= 5.5 / pxPerMm + 0.1;
  });
});

test('arrow keys do the same for what is focused', async () => {
  await page.settled();
  const before = Number(await depth());
  await driver.executeScript(`document.querySelector('[data-line="step-fold-1.base"]').focus()`);
  await page.press(Key.ARROW_UP);
  await eventually(driver, 'a millimetre more', async () => Math.abs(Number(await depth()) - before - 1) < 0.06);
});

test('a dimension is clicked and typed', async () => {
  await page.settled();
  await click(driver, '[data-dimension=width]');
  const field = await find(driver, '[data-testid=dimension-field]');
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '61.5', Key.ENTER);
  await eventually(driver, 'the width', async () => (await page.valueOf('width')) === '61.5');
});

test('the whole step is carried along its crease', async () => {
  await page.settled();
  const before = Number(await page.valueOf('offset'));
  const { at, pxPerMm } = await driver.executeScript<{ at: Point; pxPerMm: number }>(
    `const r = document.querySelector('[data-line="step-fold-1.base"] .grip-reach').getBoundingClientRect();
     const m = document.querySelector('[data-piece=card]').getScreenCTM();
     return { at: [r.left + r.width / 3, r.top + 6 * Math.hypot(m.a, m.b)], pxPerMm: Math.hypot(m.a, m.b) };`,
  );
  await dragTo(at, [at[0] + 15 * pxPerMm, at[1]])
    .release()
    .perform();
  await eventually(driver, 'it to lie 15 mm along', async () => {
    return Math.abs(Number(await page.valueOf('offset')) - before - 15) <= 1;
  });
});

test('the wheel zooms about the pointer, 0 fits all again', async () => {
  const box = () =>
    driver.executeScript<number[]>(
      `return document.querySelector('.flat-drawing').getAttribute('viewBox').split(' ').map(Number)`,
    );
  const fit = await box();
  await driver.executeScript(
    `const e = document.querySelector('.flat-drawing'); const r = e.getBoundingClientRect();
     const at = { clientX: r.left + 90, clientY: r.top + 90 };
     e.dispatchEvent(new WheelEvent('wheel', { deltaY: -300, ...at, cancelable: true }));`,
  );
  await eventually(driver, 'a part of it', async () => (await box())[2] < fit[2] * 0.7);
  await driver.executeScript(`document.querySelector('.flat-drawing').focus()`);
  await page.press('0');
  await eventually(driver, 'all of it', async () => Math.abs((await box())[2] - fit[2]) < 1e-6);
});

test('two points are measured: on the paper and as the card stands', async () => {
  await page.show('both');
  await click(driver, '[data-mechanism=step-fold-1]');
  await (await findText(driver, 'button', 'Measure')).click();
  await page.settled();
  const corners = await driver.executeScript<number[]>(
    `const r = document.querySelector('[data-testid=measure] path').getBoundingClientRect();
     return [r.left, r.top, r.right, r.bottom];`,
  );
  const at = (x: number, y: number) => driver.actions({ async: true }).move({ x: Math.round(x), y: Math.round(y) });
  await at(corners[0], corners[1]).click().perform();
  await at(corners[2] - 1, corners[1] + 1).perform();
  await eventually(driver, 'the measure', async () =>
    /200\.0 mm on the paper · 200\.0 mm as it stands/.test(await note()),
  );
  await (await findText(driver, 'button', 'Measure')).click();
});

test('two clicks draw a line of one’s own, undo takes it away', async () => {
  await (await findText(driver, 'button', 'Draw lines')).click();
  await page.settled();
  const r = await driver.executeScript<number[]>(
    `const r = document.querySelector('[data-draw=card]').getBoundingClientRect();
     return [r.left, r.top, r.width, r.height];`,
  );
  const at = (x: number, y: number) =>
    driver.actions({ async: true }).move({ x: Math.round(r[0] + r[2] * x), y: Math.round(r[1] + r[3] * y) });
  await at(0.02, 0.25).click().perform();
  await at(0.25, 0.02).click().perform();
  await find(driver, '[data-testid=lines-editor]');
  await find(driver, '[data-mechanism=own-lines-1]');
  await (await findText(driver, 'button', 'Draw lines')).click();
  // Its end is moved by keys, a millimetre to the right.
  const x = () =>
    driver.executeScript<number>(`return Number(document.querySelector('[data-end="fold to"]').getAttribute('cx'))`);
  await find(driver, '[data-end="fold to"]');
  await page.settled();
  const before = await x();
  await driver.executeScript(`document.querySelector('[data-end="fold to"]').focus()`);
  await page.press(Key.ARROW_RIGHT);
  await eventually(driver, 'the end to follow', async () => Math.abs((await x()) - before - 1) < 1e-6);
  await withControl('z');
  await withControl('z');
  await eventually(
    driver,
    'it to be gone',
    async () => (await driver.findElements(By.css('[data-mechanism=own-lines-1]'))).length === 0,
  );
});

test('a window is clicked round, and closed at its first corner', async () => {
  await click(driver, '[data-mechanism=card]');
  await (await findText(driver, 'button', 'Draw lines')).click();
  await (await findText(driver, 'button', 'window')).click();
  await page.settled();
  const r = await driver.executeScript<number[]>(
    `const r = document.querySelector('[data-draw=card]').getBoundingClientRect();
     return [r.left, r.top, r.width, r.height];`,
  );
  for (const [x, y] of [
    [0.1, 0.15],
    [0.25, 0.15],
    [0.18, 0.3],
    [0.1, 0.15],
  ])
    await driver
      .actions({ async: true })
      .move({ x: Math.round(r[0] + r[2] * x), y: Math.round(r[1] + r[3] * y) })
      .click()
      .perform();
  await find(driver, '[data-mechanism=own-lines-1]');
  await (await findText(driver, 'button', 'Draw lines')).click();
  await eventually(
    driver,
    'its three corners',
    async () => (await driver.findElements(By.css('[data-end^="window "]'))).length === 3,
  );
  await withControl('z');
});

test('a line beside another is led aside, by its middle', async () => {
  await page.press('n');
  await click(driver, 'dialog[open] [data-kind=own-lines]');
  await (await findText(driver, 'button', 'Beside a line')).click();
  const at = () =>
    driver.executeScript<number>(`return Number(document.querySelector('[data-slide="fold"]').getAttribute('cy'))`);
  await find(driver, '[data-slide="fold"]');
  await page.settled();
  const before = await at();
  await driver.executeScript(`document.querySelector('[data-slide="fold"]').focus()`);
  await page.press(Key.ARROW_UP);
  await eventually(driver, 'it to go a millimetre', async () => Math.abs(Math.abs((await at()) - before) - 1) < 1e-6);
  for (let k = 0; k < 3; k++) await withControl('z');
  await eventually(
    driver,
    'the lines to be gone',
    async () => (await driver.findElements(By.css('[data-mechanism=own-lines-1]'))).length === 0,
  );
});

test('a mechanism of my own is kept over a reload, put on again, and forgotten', async () => {
  await click(driver, '[data-mechanism=step-fold-1]');
  await (await findText(driver, 'button', 'Turn into plain lines')).click();
  await (await findText(driver, 'button', 'Keep as my own')).click();
  await eventually(driver, 'it to be kept', async () => (await page.text()).includes('is kept: put it on'));
  await withControl('z');
  await driver.navigate().refresh();
  await find(driver, '.flat-drawing [data-piece=card]');
  await page.press('n');
  await click(driver, 'dialog[open] [data-own]');
  await find(driver, '[data-mechanism=own-lines-1]');
  await page.press('n');
  await click(driver, 'dialog[open] [aria-label^="Forget "]');
  await eventually(
    driver,
    'none of my own',
    async () => (await driver.findElements(By.css('dialog[open] [data-own]'))).length === 0,
  );
  await page.press(Key.ESCAPE);
  await withControl('z');
});

test('a kind becomes plain lines, and undo brings its numbers back', async () => {
  await click(driver, '[data-mechanism=step-fold-1]');
  const before = await depth();
  await (await findText(driver, 'button', 'Turn into plain lines')).click();
  await find(driver, '[data-testid=lines-editor]');
  await withControl('z');
  await eventually(driver, 'the step to be back', async () => (await depth()) === before);
});

test('a corner of the outline of what became plain lines is led by the pointer and by keys', async () => {
  await page.press('n');
  await click(driver, 'dialog[open] [data-kind=v-fold]');
  await find(driver, '[data-mechanism=v-fold-1][aria-current=true]');
  await find(driver, '[aria-label=Parameters] input[name="size"]');
  await (await findText(driver, 'button', 'Turn into plain lines')).click();
  await page.settled();
  // Corners lie close together at some places: one that nothing lies over.
  const name = await eventually(driver, 'a corner to take hold of', () =>
    driver.executeScript<string | undefined>(
      `return [...document.querySelectorAll('[data-end^="corner "]')].find((c) => {
         const r = c.getBoundingClientRect();
         return document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2) === c;
       })?.getAttribute('data-end');`,
    ),
  );
  const corner = `[data-end="${name}"]`;
  const at = () =>
    driver.executeScript<number[]>(
      `const c = document.querySelector('${corner}'); return [c.cx.baseVal.value, c.cy.baseVal.value];`,
    );
  const handle = await find(driver, corner);
  const before = await at();
  await driver.executeScript(`document.querySelector('${corner}').focus()`);
  await page.press(Key.ARROW_RIGHT);
  await eventually(driver, 'a millimetre to the right', async () => Math.abs((await at())[0] - before[0] - 1) < 1e-6);
  await page.settled();
  await driver
    .actions()
    .move({ origin: handle })
    .press()
    .move({ origin: handle, x: 9, y: -7, duration: 150 })
    .release()
    .perform();
  await eventually(driver, 'it to be led up', async () => Math.abs((await at())[1] - before[1]) > 1);
  for (let k = 0; k < 4; k++) await withControl('z');
  await eventually(
    driver,
    'it to be gone',
    async () => (await driver.findElements(By.css('[data-mechanism=v-fold-1]'))).length === 0,
  );
});

test('several are chosen, set alike, copied, and put into the card again', async () => {
  await click(driver, '[data-mechanism=step-fold-1]');
  await (await findText(driver, 'button', 'Duplicate')).click();
  await find(driver, '[data-mechanism=step-fold-2]');
  await (await findText(driver, 'aside//button', 'Several')).click();
  await click(driver, '[data-mechanism=step-fold-1]');
  await find(driver, '[data-testid=several]');
  const field = await find(driver, '[data-testid=several] input');
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '18', Key.ENTER);
  await (await findText(driver, 'aside//button', 'Several')).click();
  await click(driver, '[data-mechanism=step-fold-2]');
  await eventually(driver, 'the depth of the second', async () => (await depth()) === '18');
  await driver.executeScript(`document.activeElement?.blur()`);
  await withControl('c');
  await findText(driver, 'main//span', 'Copied one mechanism');
  await withControl('v');
  await find(driver, '[data-mechanism=step-fold-3]');
});

test('a view is given all the room, over a reload too, and both come back', async () => {
  await click(driver, '[aria-label="Flat view"] [aria-label="This view alone"]');
  await eventually(
    driver,
    'no posed view',
    async () => (await driver.findElements(By.css('[data-testid=posed]'))).length === 0,
  );
  await driver.navigate().refresh();
  await find(driver, '.flat-drawing');
  expect(await driver.findElements(By.css('[data-testid=posed]'))).toHaveLength(0);
  await click(driver, '[aria-label="Flat view"] [aria-label="Both views"]');
  await find(driver, '[data-testid=posed] canvas');
});

test('a picture and a film are made, and a film can be given up', async () => {
  await driver.executeScript(
    `window.made = []; const make = URL.createObjectURL.bind(URL);
     const seen = (b) => window.made.push([...new Uint8Array(b.slice(0, 24))]);
     URL.createObjectURL = (blob) => { blob.arrayBuffer().then(seen); return make(blob); };`,
  );
  const made = () => driver.executeScript<number[][]>(`return window.made`);
  await (await find(driver, '[aria-label="Picture or film…"]')).click();
  await (await findText(driver, 'button', 'Save the picture')).click();
  await eventually(driver, 'a PNG', async () => (await made()).length === 1);
  // PNG signature, and the width in its header (ISO/IEC 15948).
  const png = (await made())[0];
  expect(png.slice(0, 8)).toEqual([137, 80, 78, 71, 13, 10, 26, 10]);
  expect(png[18] * 256 + png[19]).toBe(1600);
  await (await findText(driver, 'button', 'Make the film')).click();
  await (await findText(driver, 'button', 'Give up')).click();
  await (await findText(driver, 'button', 'Make the film')).click();
  await eventually(driver, 'a GIF', async () => (await made()).length === 2);
  expect(String.fromCharCode(...(await made())[1].slice(0, 6))).toBe('GIF89a');
});
