/** In the browser: a stock for one piece, what is meant to stick out, where a layer is stuck, names, mats, bases. */
import { By, Key, type WebDriver, type WebElement } from 'selenium-webdriver';
import { click, drag, eventually, find, findText } from './support/browser';
import { session } from './support/session';
import type { StudioPage } from './support/studio';

let driver: WebDriver;
let page: StudioPage;
session(180_000, (s) => {
  ({ driver, page } = s);
});

/** The list beside a label. */
async function listBeside(label: string): Promise<WebElement> {
  const own = await findText(driver, 'label', label);
  return driver.findElement(By.id((await own.getAttribute('for'))!));
}
const pick = async (label: string, option: string): Promise<void> =>
  (await listBeside(label)).findElement(By.xpath(`./option[.="${option}"]`)).then((o) => o.click());
const put = async (kind: string): Promise<void> => {
  await page.press('n');
  await click(driver, `dialog[open] [data-kind=${kind}]`);
  await eventually(driver, kind, async () => (await page.mechanisms()).includes(`${kind}-1`));
};
/** The cut list, as it stands under Make. */
const cutList = async (): Promise<string> => {
  await page.stage('Make');
  await (await findText(driver, 'label', 'cut list')).click();
  return (await find(driver, 'table')).getText();
};

test('one leaf of a bundle is cut from another stock; undone it is cut from its own again', async () => {
  await page.beginCard();
  await put('leaf-bundle');
  await click(driver, '[data-mechanism=leaf-bundle-1]');
  await (await findText(driver, 'summary', 'Stocks of its pieces')).click();
  await pick('Leaf 2', 'Night card, slate');
  expect(await cutList()).toMatch(/Night card, slate[\s\S]*Leaf 2|Leaf 2[\s\S]*Night card, slate/);
  // The cut list was chosen last and has the focus: that is no text to undo.
  await driver.actions().keyDown(Key.CONTROL).sendKeys('z').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'no slate', async () => !(await (await find(driver, 'table')).getText()).includes('slate'));
});

test('a step past the fore edge is meant so by one click on its finding, and typed back', async () => {
  await page.beginCard();
  await put('step-fold');
  await page.type('depth', '90');
  await page.type('height', '90');
  await page.stage('Prove');
  await (await findText(driver, 'button', 'meant to stick out by')).click();
  await eventually(driver, 'it to be as meant', async () => /as meant/.test(await page.text()));
  await page.stage('Build');
  await click(driver, '[data-mechanism=step-fold-1]');
  await eventually(driver, 'the number', async () => Number.parseFloat(await page.valueOf('meant-out')) > 10);
  await page.type('meant-out', '0');
  await eventually(driver, 'the block', async () => (await page.proved()) !== 'Ready to cut');
});

test('a facet is called anew, its card matted on every panel, and the name is told with the mat', async () => {
  await page.beginCard();
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Facet and mats')).click();
  await (await find(driver, 'select[aria-label=Facet] option[value=leafB]')).click();
  await (await find(driver, '#facet-name')).sendKeys('cover flap', Key.ENTER);
  await findText(driver, 'option', 'cover flap');
  await (await findText(driver, 'summary', 'Mats on every panel')).click();
  await page.type('mats-smaller', '6');
  await (await findText(driver, 'button', 'Mat all 2')).click();
  expect(await cutList()).toMatch(/Mat 1 on the cover flap/);
});

test('a card is built as another base where things are put on, and begun as one on the start page', async () => {
  await page.beginCard();
  await page.press('n');
  await click(driver, 'dialog[open] [data-base=easel]');
  await eventually(driver, 'its strip', async () => /Stop/.test(await cutList()));
  await page.begin();
  await (await findText(driver, 'button', 'Begin from…')).click();
  await click(driver, 'dialog[open] [data-begin=box-frame]');
  await page.stage('Brief');
  await page.field('panelHeight');
});

test('where a layer is stuck is dragged on the drawing, moved by key, taken back and read as a number', async () => {
  await page.openCard('Dome note');
  await page.stage('Dress');
  await (await findText(driver, 'button', 'Layers')).click();
  await click(driver, '[data-layer-row=planet]');
  const bar = await find(driver, '[data-slid=layer-free-left]');
  await drag(driver, bar, 30);
  const free = async (): Promise<number> => Number.parseFloat(await page.valueOf('layer-free-left'));
  await eventually(driver, 'the number that was dragged', async () => (await free()) > 4);
  const dragged = await free();
  await (await find(driver, '[data-slid=layer-free-left]')).sendKeys(Key.ARROW_LEFT);
  await eventually(driver, 'one less', async () => Math.abs((await free()) - (dragged - 1)) < 0.01);
  // Its glue is drawn where it lies now.
  await find(driver, '[data-glued="layer.planet"]');
  await driver.actions().keyDown(Key.CONTROL).sendKeys('zz').keyUp(Key.CONTROL).perform();
  await eventually(driver, 'all of it stuck again', async () => (await free()) === 0);
  await click(driver, '[data-layer-row=open]');
  expect(await (await find(driver, '[data-opening="layer.open"]')).getText()).toMatch(
    /all of it open\nPaper round it, mm/,
  );
});

test('a glue area of a mechanism is set in by its bar', async () => {
  await page.beginCard();
  await put('v-fold');
  await click(driver, '[data-mechanism=v-fold-1]');
  const bar = await find(driver, '[data-slid=inset]');
  const name = (await bar.getAttribute('aria-label'))!;
  await bar.sendKeys(Key.ARROW_UP, Key.ARROW_UP);
  const now = async (): Promise<string | null> =>
    (await driver.findElement(By.css(`[data-slid=inset][aria-label="${name}"]`))).getAttribute('aria-valuenow');
  await eventually(driver, 'two mm in', async () => (await now()) === '2');
});
