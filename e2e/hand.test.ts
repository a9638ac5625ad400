/** What is moved by hand, in the browser: put on, turned and pulled, proved, mended, kept. */
import { By, Key, type WebDriver } from 'selenium-webdriver';
import { eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});

const carried = (drive: string) => find(driver, `[data-drive="${drive}"] input`);
const valueOf = async (drive: string): Promise<string> => (await (await carried(drive)).getAttribute('value')) ?? '';

test('a disc is put on a face, turned by its strip, its keys and its number, and goes on round', async () => {
  await page.beginCard();
  await page.putInside('volvelle');
  expect(await page.mechanisms()).toContain('volvelle-1');
  await findText(driver, 'aside//button', 'front: Turning disc');
  await (await find(driver, '[data-drive="volvelle-1.turn"]')).click();
  const strip = await find(driver, '[data-testid=travel]');
  expect(await strip.getAttribute('aria-label')).toBe('Turning disc: turn');
  expect(await strip.getAttribute('aria-valuemax')).toBe('360');
  await strip.sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.PAGE_UP);
  await eventually(driver, 'the disc to be at 17', async () => (await valueOf('volvelle-1.turn')) === '17');
  await strip.sendKeys(Key.PAGE_DOWN, Key.PAGE_DOWN);
  // 17 - 30 degrees is the same place as 347.
  await eventually(driver, 'the disc to be at 347', async () => (await valueOf('volvelle-1.turn')) === '347');
  const field = await carried('volvelle-1.turn');
  await field.click();
  await field.sendKeys(Key.chord(Key.CONTROL, 'a'), '450', Key.ENTER);
  await eventually(driver, '450 degrees to be 90', async () => (await valueOf('volvelle-1.turn')) === '90');
  await driver.actions().dragAndDrop(strip, { x: 40, y: 0 }).perform();
  await eventually(driver, 'the strip to be dragged', async () => (await valueOf('volvelle-1.turn')) !== '90');
});

test('a part is taken hold of in the posed view, and follows the pointer', async () => {
  await page.show('both');
  await page.beginCard();
  await page.putInside('carrier-wheel');
  await (await find(driver, '[data-drive="carrier-wheel-1.turn"]')).click();
  await (await findText(driver, '*[@aria-label="View from"]/button', 'front')).click();
  await driver.sleep(1200);
  const view = await (await find(driver, '[data-testid=posed] canvas')).getRect();
  const before = await valueOf('carrier-wheel-1.turn');
  // Somewhere on this grid a carrier or a spoke is under the pointer.
  const { width, height } = view;
  const tries = [0.35, 0.4, 0.45, 0.5, 0.55].flatMap((v) => [0.35, 0.42, 0.5, 0.58, 0.65].map((u) => [u, v] as const));
  let moved = false;
  for (const [u, v] of tries) {
    const origin = { x: Math.round(view.x + u * width), y: Math.round(view.y + v * height) };
    await driver
      .actions()
      .move(origin)
      .press()
      .move({ ...origin, x: origin.x + 6 })
      .pause(400)
      .move({ x: origin.x + 24, y: origin.y + 18 })
      .release()
      .perform();
    moved = (await valueOf('carrier-wheel-1.turn')) !== before;
    if (moved) break;
    await (await findText(driver, '*[@aria-label="View from"]/button', 'front')).click();
  }
  expect(moved).toBe(true);
});

test('a finger edge too small is found, shown, cleared by its remedy, and undone', async () => {
  await page.beginCard();
  await page.putInside('volvelle');
  await page.type('notch', '2');
  expect(await page.proved()).toBe('Can be cut, with risks');
  expect(await (await find(driver, '[data-finding=grip]')).getText()).toMatch(/a finger finds of the disc 2\.0 mm/);
  await (await find(driver, '[data-finding=grip] button')).click();
  await eventually(driver, 'the remedy to be taken', async () => parseFloat(await page.valueOf('notch')) >= 6);
  expect(await page.proved()).toBe('Ready to cut');
  await (await find(driver, '[aria-label=Flat] h2')).click();
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'the edge to be small again', async () => parseFloat(await page.valueOf('notch')) === 2);
});

test('a second drive stands beside the first; pulled to its end the strip shows how it lifts', async () => {
  await page.beginCard();
  await page.putInside('lift-tab');
  await (await find(driver, '[data-drive="lift-tab-1.pull"]')).click();
  await (await findText(driver, 'section[@aria-label="What is moved"]//button', 'end')).click();
  await eventually(driver, 'the tab to be pulled', async () => parseFloat(await valueOf('lift-tab-1.pull')) > 20);
  expect(await page.text()).toMatch(/— lift\b/);
  // The opening keeps its place meanwhile, and is carried again by a click.
  await (await find(driver, '[data-drive=open]')).click();
  expect(await (await find(driver, '[data-testid=travel]')).getAttribute('aria-label')).toBe('Opening of the card');
});

test('moved on its face by a number, turned to the outside, kept and read back', async () => {
  await page.type('x', '12');
  await (await findText(driver, 'label', 'outside')).click();
  await page.saved();
  await driver.navigate().refresh();
  await find(driver, '[data-drive="lift-tab-1.pull"]');
  await (await findText(driver, 'aside//button', 'Lifting tab')).click();
  expect(await page.valueOf('x')).toBe('12');
});

test('a card is built on another base: its own numbers, its insert folded out, proved and kept', async () => {
  await page.beginCard();
  await page.stage('Brief');
  const bases = await findText(driver, 'label', 'Built as');
  const select = await driver.findElement(By.id((await bases.getAttribute('for'))!));
  await select.sendKeys('Off-centre card with an insert');
  await page.type('score', '70');
  await eventually(driver, 'the fold at 70', async () => (await page.valueOf('score')) === '70');
  await page.stage('Build');
  await (await find(driver, '[data-drive="card.insert"]')).click();
  await (await findText(driver, 'section[@aria-label="What is moved"]//button', 'end')).click();
  await eventually(driver, 'the insert to be spread', async () => (await valueOf('card.insert')) === '180');
  expect(await page.proved()).not.toBe('Do not cut yet');
  // A step on the fold of the insert, by the crease itself.
  await page.press('n');
  await (await find(driver, 'dialog[open] select option[value="card.insertFold"]')).click();
  await (await find(driver, 'dialog[open] [data-kind=step-fold]')).click();
  await eventually(driver, 'the step', async () => (await page.mechanisms()).includes('step-fold-1'));
  expect(await page.proved()).not.toBe('Do not cut yet');
  await page.saved();
  await driver.navigate().refresh();
  await find(driver, '[data-drive="card.insert"]');
  expect(await page.mechanisms()).toEqual(['card', 'step-fold-1']);
});
